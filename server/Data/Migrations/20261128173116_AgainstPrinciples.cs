using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261128173116_AgainstPrinciples")]
    public partial class AgainstPrinciples : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "observations_says_can_be",
                table: "observations");

            migrationBuilder.AddColumn<Guid>(
                name: "principle_id",
                table: "ways_tried",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "principle_id",
                table: "observations",
                type: "uuid",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_ways_tried_principle_id",
                table: "ways_tried",
                column: "principle_id");

            migrationBuilder.CreateIndex(
                name: "ix_observations_principle_id",
                table: "observations",
                column: "principle_id");

            migrationBuilder.AddCheckConstraint(
                name: "observations_says_can_be",
                table: "observations",
                sql: "(sign <> 'Stage' OR stage IN ('Follows', 'Alone', 'Flowing')) AND (sign <> 'Fault' OR weight IS NOT NULL) AND (from_id IS NULL) = (from_side IS NULL) AND (principle_id IS NULL OR (sign <> 'Stage' AND fault_id IS NULL))");

            migrationBuilder.AddForeignKey(
                name: "fk_observations_principles_principle_id",
                table: "observations",
                column: "principle_id",
                principalTable: "principles",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.AddForeignKey(
                name: "fk_ways_tried_principles_principle_id",
                table: "ways_tried",
                column: "principle_id",
                principalTable: "principles",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_observations_principles_principle_id",
                table: "observations");

            migrationBuilder.DropForeignKey(
                name: "fk_ways_tried_principles_principle_id",
                table: "ways_tried");

            migrationBuilder.DropIndex(
                name: "ix_ways_tried_principle_id",
                table: "ways_tried");

            migrationBuilder.DropIndex(
                name: "ix_observations_principle_id",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_says_can_be",
                table: "observations");

            migrationBuilder.DropColumn(
                name: "principle_id",
                table: "ways_tried");

            migrationBuilder.DropColumn(
                name: "principle_id",
                table: "observations");

            migrationBuilder.AddCheckConstraint(
                name: "observations_says_can_be",
                table: "observations",
                sql: "(sign <> 'Stage' OR stage IN ('Follows', 'Alone', 'Flowing')) AND (sign <> 'Fault' OR weight IS NOT NULL) AND (from_id IS NULL) = (from_side IS NULL)");
        }
    }
}
