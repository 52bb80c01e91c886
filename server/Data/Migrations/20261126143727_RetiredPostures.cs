using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261126143727_RetiredPostures")]
    public partial class RetiredPostures : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_postures_name",
                table: "postures");

            migrationBuilder.AddColumn<bool>(
                name: "retired",
                table: "postures",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateIndex(
                name: "ix_postures_name",
                table: "postures",
                column: "name",
                unique: true,
                filter: "NOT retired");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_postures_name",
                table: "postures");

            migrationBuilder.DropColumn(
                name: "retired",
                table: "postures");

            migrationBuilder.CreateIndex(
                name: "ix_postures_name",
                table: "postures",
                column: "name",
                unique: true);
        }
    }
}
