using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261127011510_OwnSchool")]
    public partial class OwnSchool : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // Nobody knows whose these were and on what; everybody signs in once more.
            migrationBuilder.Sql("DELETE FROM sign_ins;");

            migrationBuilder.AddColumn<Guid>(
                name: "account_id",
                table: "sign_ins",
                type: "uuid",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"));

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "began",
                table: "sign_ins",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: new DateTimeOffset(new DateTime(1, 1, 1, 0, 0, 0, 0, DateTimeKind.Unspecified), new TimeSpan(0, 0, 0, 0, 0)));

            migrationBuilder.AddColumn<string>(
                name: "device",
                table: "sign_ins",
                type: "character varying(400)",
                maxLength: 400,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<Guid>(
                name: "id",
                table: "sign_ins",
                type: "uuid",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"));

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "last_used",
                table: "sign_ins",
                type: "timestamp with time zone",
                nullable: false,
                defaultValue: new DateTimeOffset(new DateTime(1, 1, 1, 0, 0, 0, 0, DateTimeKind.Unspecified), new TimeSpan(0, 0, 0, 0, 0)));

            migrationBuilder.AlterColumn<string>(
                name: "time_zone",
                table: "schools",
                type: "character varying(64)",
                maxLength: 64,
                nullable: true,
                oldClrType: typeof(string),
                oldType: "character varying(64)",
                oldMaxLength: 64);

            migrationBuilder.AddColumn<string>(
                name: "dates",
                table: "schools",
                type: "text",
                nullable: false,
                defaultValue: "DayMonthYear");

            migrationBuilder.AddColumn<string>(
                name: "decimals",
                table: "schools",
                type: "text",
                nullable: false,
                defaultValue: "Point");

            migrationBuilder.AddColumn<bool>(
                name: "moved_in",
                table: "schools",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "place",
                table: "schools",
                type: "character varying(80)",
                maxLength: 80,
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "taken_over_checked",
                table: "schools",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "week_start",
                table: "schools",
                type: "text",
                nullable: false,
                defaultValue: "Monday");

            migrationBuilder.AddColumn<int>(
                name: "zone_changes",
                table: "schools",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "own_password",
                table: "accounts",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "taken_over_facts",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    student_id = table.Column<Guid>(type: "uuid", nullable: false),
                    posture_id = table.Column<Guid>(type: "uuid", nullable: false),
                    side = table.Column<string>(type: "text", nullable: false),
                    stage = table.Column<string>(type: "text", nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_taken_over_facts", x => x.id);
                    table.CheckConstraint("taken_over_facts_says_can_be", "stage IN ('NotMet', 'Shown', 'Alone')");
                    table.CheckConstraint("taken_over_facts_side_can_be", "\"side\" IN ('Symmetric', 'Left', 'Right')");
                    table.CheckConstraint("taken_over_facts_stage_can_be", "\"stage\" IN ('NotMet', 'Shown', 'Follows', 'Alone', 'Flowing', 'Settled')");
                    table.ForeignKey(
                        name: "fk_taken_over_facts_postures_posture_id",
                        column: x => x.posture_id,
                        principalTable: "postures",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_taken_over_facts_staff_by",
                        column: x => x.by,
                        principalTable: "staff",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_taken_over_facts_students_student_id",
                        column: x => x.student_id,
                        principalTable: "students",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_sign_ins_account_id",
                table: "sign_ins",
                column: "account_id");

            migrationBuilder.AddCheckConstraint(
                name: "schools_dates_can_be",
                table: "schools",
                sql: "\"dates\" IN ('DayMonthYear', 'MonthDayYear', 'YearMonthDay')");

            migrationBuilder.AddCheckConstraint(
                name: "schools_decimals_can_be",
                table: "schools",
                sql: "\"decimals\" IN ('Point', 'Comma')");

            migrationBuilder.AddCheckConstraint(
                name: "schools_week_start_can_be",
                table: "schools",
                sql: "\"week_start\" IN ('Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday')");

            migrationBuilder.CreateIndex(
                name: "ix_taken_over_facts_by",
                table: "taken_over_facts",
                column: "by");

            migrationBuilder.CreateIndex(
                name: "ix_taken_over_facts_posture_id",
                table: "taken_over_facts",
                column: "posture_id");

            migrationBuilder.CreateIndex(
                name: "ix_taken_over_facts_student_id",
                table: "taken_over_facts",
                column: "student_id");

            migrationBuilder.AddForeignKey(
                name: "fk_sign_ins_accounts_account_id",
                table: "sign_ins",
                column: "account_id",
                principalTable: "accounts",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.Sql(
                """
                CREATE TRIGGER taken_over_facts_stay BEFORE UPDATE OR DELETE ON taken_over_facts
                    FOR EACH ROW EXECUTE FUNCTION facts_stay();
                -- The demo has moved in. A name and a zone that nobody chose are asked for.
                UPDATE schools SET moved_in = is_demo, taken_over_checked = is_demo;
                UPDATE schools SET name = '', time_zone = NULL WHERE name = 'My school' AND time_zone = 'UTC' AND NOT is_demo;
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("UPDATE schools SET time_zone = 'UTC' WHERE time_zone IS NULL;");

            migrationBuilder.DropForeignKey(
                name: "fk_sign_ins_accounts_account_id",
                table: "sign_ins");

            migrationBuilder.DropTable(
                name: "taken_over_facts");

            migrationBuilder.DropIndex(
                name: "ix_sign_ins_account_id",
                table: "sign_ins");

            migrationBuilder.DropCheckConstraint(
                name: "schools_dates_can_be",
                table: "schools");

            migrationBuilder.DropCheckConstraint(
                name: "schools_decimals_can_be",
                table: "schools");

            migrationBuilder.DropCheckConstraint(
                name: "schools_week_start_can_be",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "account_id",
                table: "sign_ins");

            migrationBuilder.DropColumn(
                name: "began",
                table: "sign_ins");

            migrationBuilder.DropColumn(
                name: "device",
                table: "sign_ins");

            migrationBuilder.DropColumn(
                name: "id",
                table: "sign_ins");

            migrationBuilder.DropColumn(
                name: "last_used",
                table: "sign_ins");

            migrationBuilder.DropColumn(
                name: "dates",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "decimals",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "moved_in",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "place",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "taken_over_checked",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "week_start",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "zone_changes",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "own_password",
                table: "accounts");

            migrationBuilder.AlterColumn<string>(
                name: "time_zone",
                table: "schools",
                type: "character varying(64)",
                maxLength: 64,
                nullable: false,
                defaultValue: "",
                oldClrType: typeof(string),
                oldType: "character varying(64)",
                oldMaxLength: 64,
                oldNullable: true);
        }
    }
}
