using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261129001545_InRunThrough")]
    public partial class InRunThrough : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "in_run_through",
                table: "observations",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            // What flows was always seen in a run-through: that is said now, and no fact is another for it.
            migrationBuilder.Sql(
                """
                ALTER TABLE observations DISABLE TRIGGER USER;
                UPDATE observations SET in_run_through = true WHERE stage = 'Flowing';
                ALTER TABLE observations ENABLE TRIGGER USER;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "in_run_through",
                table: "observations");
        }
    }
}
