using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261128033133_HomePractice")]
    public partial class HomePractice : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "home_sheets",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    student_id = table.Column<Guid>(type: "uuid", nullable: false),
                    date = table.Column<DateOnly>(type: "date", nullable: false),
                    sheet = table.Column<string>(type: "jsonb", nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_home_sheets", x => x.id);
                    table.ForeignKey(
                        name: "fk_home_sheets_staff_by",
                        column: x => x.by,
                        principalTable: "staff",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_home_sheets_students_student_id",
                        column: x => x.student_id,
                        principalTable: "students",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "practice_logs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    student_id = table.Column<Guid>(type: "uuid", nullable: false),
                    date = table.Column<DateOnly>(type: "date", nullable: false),
                    minutes = table.Column<int>(type: "integer", nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_practice_logs", x => x.id);
                    table.CheckConstraint("practice_logs_minutes_can_be", "minutes BETWEEN 0 AND 600");
                    table.ForeignKey(
                        name: "fk_practice_logs_staff_by",
                        column: x => x.by,
                        principalTable: "staff",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_practice_logs_students_student_id",
                        column: x => x.student_id,
                        principalTable: "students",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_home_sheets_by",
                table: "home_sheets",
                column: "by");

            migrationBuilder.CreateIndex(
                name: "ix_home_sheets_student_id",
                table: "home_sheets",
                column: "student_id");

            migrationBuilder.CreateIndex(
                name: "ix_practice_logs_by",
                table: "practice_logs",
                column: "by");

            migrationBuilder.CreateIndex(
                name: "ix_practice_logs_student_id",
                table: "practice_logs",
                column: "student_id");

            migrationBuilder.Sql(
                """
                CREATE TRIGGER home_sheets_stay BEFORE UPDATE OR DELETE ON home_sheets
                    FOR EACH ROW EXECUTE FUNCTION facts_stay();
                CREATE TRIGGER practice_logs_stay BEFORE UPDATE OR DELETE ON practice_logs
                    FOR EACH ROW EXECUTE FUNCTION facts_stay();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "home_sheets");

            migrationBuilder.DropTable(
                name: "practice_logs");
        }
    }
}
