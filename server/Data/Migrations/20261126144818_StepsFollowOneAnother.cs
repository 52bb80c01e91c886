using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261126144818_StepsFollowOneAnother")]
    public partial class StepsFollowOneAnother : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "based_on",
                table: "plans",
                type: "uuid",
                nullable: true);

            // Every step that is there follows the one before it.
            migrationBuilder.Sql(
                """
                UPDATE plans SET based_on = step.before
                FROM (SELECT id, lag(id) OVER (PARTITION BY term_id, class_id ORDER BY id) AS before FROM plans) AS step
                WHERE step.id = plans.id;
                """);

            migrationBuilder.CreateIndex(
                name: "ix_plans_term_id_class_id_based_on",
                table: "plans",
                columns: new[] { "term_id", "class_id", "based_on" },
                unique: true,
                filter: "number IS NULL")
                .Annotation("Npgsql:NullsDistinct", false);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_plans_term_id_class_id_based_on",
                table: "plans");

            migrationBuilder.DropColumn(
                name: "based_on",
                table: "plans");
        }
    }
}
