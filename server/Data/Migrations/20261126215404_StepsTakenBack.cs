using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261126215404_StepsTakenBack")]
    public partial class StepsTakenBack : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_plans_term_id_class_id_based_on",
                table: "plans");

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "undone_at",
                table: "plans",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_plans_term_id_class_id_based_on",
                table: "plans",
                columns: new[] { "term_id", "class_id", "based_on" },
                unique: true,
                filter: "number IS NULL AND undone_at IS NULL")
                .Annotation("Npgsql:NullsDistinct", false);

            migrationBuilder.AddCheckConstraint(
                name: "plans_undone_can_be",
                table: "plans",
                sql: "number IS NULL OR undone_at IS NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_plans_term_id_class_id_based_on",
                table: "plans");

            migrationBuilder.DropCheckConstraint(
                name: "plans_undone_can_be",
                table: "plans");

            migrationBuilder.DropColumn(
                name: "undone_at",
                table: "plans");

            migrationBuilder.CreateIndex(
                name: "ix_plans_term_id_class_id_based_on",
                table: "plans",
                columns: new[] { "term_id", "class_id", "based_on" },
                unique: true,
                filter: "number IS NULL")
                .Annotation("Npgsql:NullsDistinct", false);
        }
    }
}
