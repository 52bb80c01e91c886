using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261127113948_RailWall")]
    public partial class RailWall : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "rail_wall",
                table: "halls",
                type: "text",
                nullable: false,
                defaultValue: "Back");

            migrationBuilder.AddCheckConstraint(
                name: "halls_rail_wall_can_be",
                table: "halls",
                sql: "\"rail_wall\" IN ('Back', 'Left', 'Right', 'Front')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "halls_rail_wall_can_be",
                table: "halls");

            migrationBuilder.DropColumn(
                name: "rail_wall",
                table: "halls");
        }
    }
}
