using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Announcing : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "announced_at",
                table: "plans",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "cause",
                table: "plans",
                type: "character varying(400)",
                maxLength: 400,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "lessons",
                table: "plans",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<int>(
                name: "number",
                table: "plans",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "changes",
                table: "classes",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.CreateTable(
                name: "calendar_links",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    key = table.Column<string>(type: "character varying(64)", maxLength: 64, nullable: false),
                    class_id = table.Column<Guid>(type: "uuid", nullable: true),
                    staff_id = table.Column<Guid>(type: "uuid", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_calendar_links", x => x.id);
                    table.ForeignKey(
                        name: "fk_calendar_links_classes_class_id",
                        column: x => x.class_id,
                        principalTable: "classes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_calendar_links_staff_staff_id",
                        column: x => x.staff_id,
                        principalTable: "staff",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            // Every plan made before there were drafts was in force from then on.
            migrationBuilder.Sql("""
                UPDATE plans SET number = counted.number, announced_at = plans.at, cause = 'Planned'
                FROM (SELECT id, row_number() OVER (PARTITION BY term_id, class_id ORDER BY id) AS number FROM plans) AS counted
                WHERE counted.id = plans.id
                """);

            migrationBuilder.CreateIndex(
                name: "ix_plans_term_id_class_id_number",
                table: "plans",
                columns: new[] { "term_id", "class_id", "number" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_calendar_links_class_id",
                table: "calendar_links",
                column: "class_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_calendar_links_key",
                table: "calendar_links",
                column: "key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_calendar_links_staff_id",
                table: "calendar_links",
                column: "staff_id",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "calendar_links");

            migrationBuilder.DropIndex(
                name: "ix_plans_term_id_class_id_number",
                table: "plans");

            migrationBuilder.DropColumn(
                name: "announced_at",
                table: "plans");

            migrationBuilder.DropColumn(
                name: "cause",
                table: "plans");

            migrationBuilder.DropColumn(
                name: "lessons",
                table: "plans");

            migrationBuilder.DropColumn(
                name: "number",
                table: "plans");

            migrationBuilder.DropColumn(
                name: "changes",
                table: "classes");
        }
    }
}
