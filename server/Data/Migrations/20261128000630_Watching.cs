using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261128000630_Watching")]
    public partial class Watching : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropCheckConstraint(
                name: "observations_says_can_be",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_sign_can_be",
                table: "observations");

            migrationBuilder.AddColumn<Guid>(
                name: "from_id",
                table: "observations",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "from_side",
                table: "observations",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "mode",
                table: "observations",
                type: "text",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "ways_tried",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    class_id = table.Column<Guid>(type: "uuid", nullable: false),
                    date = table.Column<DateOnly>(type: "date", nullable: false),
                    student_id = table.Column<Guid>(type: "uuid", nullable: false),
                    posture_id = table.Column<Guid>(type: "uuid", nullable: false),
                    side = table.Column<string>(type: "text", nullable: false),
                    fault_id = table.Column<Guid>(type: "uuid", nullable: true),
                    words = table.Column<string>(type: "character varying(400)", maxLength: 400, nullable: false),
                    way = table.Column<string>(type: "text", nullable: false),
                    cause = table.Column<string>(type: "character varying(400)", maxLength: 400, nullable: false),
                    done = table.Column<bool>(type: "boolean", nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    from_id = table.Column<Guid>(type: "uuid", nullable: true),
                    from_side = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_ways_tried", x => x.id);
                    table.CheckConstraint("ways_tried_from_side_can_be", "\"from_side\" IN ('Symmetric', 'Left', 'Right')");
                    table.CheckConstraint("ways_tried_says_can_be", "(from_id IS NULL) = (from_side IS NULL)");
                    table.CheckConstraint("ways_tried_side_can_be", "\"side\" IN ('Symmetric', 'Left', 'Right')");
                    table.CheckConstraint("ways_tried_way_can_be", "\"way\" IN ('AnotherView', 'FeetOnly', 'AtTheWall', 'Image', 'SlowerDrill', 'EasierMode', 'WithAPartner')");
                    table.ForeignKey(
                        name: "fk_ways_tried_classes_class_id",
                        column: x => x.class_id,
                        principalTable: "classes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_ways_tried_postures_from_id",
                        column: x => x.from_id,
                        principalTable: "postures",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_ways_tried_postures_posture_id",
                        column: x => x.posture_id,
                        principalTable: "postures",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_ways_tried_staff_by",
                        column: x => x.by,
                        principalTable: "staff",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_ways_tried_students_student_id",
                        column: x => x.student_id,
                        principalTable: "students",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_observations_from_id",
                table: "observations",
                column: "from_id");

            migrationBuilder.AddCheckConstraint(
                name: "observations_from_side_can_be",
                table: "observations",
                sql: "\"from_side\" IN ('Symmetric', 'Left', 'Right')");

            migrationBuilder.AddCheckConstraint(
                name: "observations_says_can_be",
                table: "observations",
                sql: "(sign <> 'Stage' OR stage IN ('Follows', 'Alone', 'Flowing')) AND (sign <> 'Fault' OR weight IS NOT NULL) AND (from_id IS NULL) = (from_side IS NULL)");

            migrationBuilder.AddCheckConstraint(
                name: "observations_sign_can_be",
                table: "observations",
                sql: "\"sign\" IN ('Stage', 'Fault', 'Better', 'Noted', 'Fine')");

            migrationBuilder.CreateIndex(
                name: "ix_ways_tried_by",
                table: "ways_tried",
                column: "by");

            migrationBuilder.CreateIndex(
                name: "ix_ways_tried_class_id",
                table: "ways_tried",
                column: "class_id");

            migrationBuilder.CreateIndex(
                name: "ix_ways_tried_fault_id",
                table: "ways_tried",
                column: "fault_id");

            migrationBuilder.CreateIndex(
                name: "ix_ways_tried_from_id",
                table: "ways_tried",
                column: "from_id");

            migrationBuilder.CreateIndex(
                name: "ix_ways_tried_posture_id",
                table: "ways_tried",
                column: "posture_id");

            migrationBuilder.CreateIndex(
                name: "ix_ways_tried_student_id",
                table: "ways_tried",
                column: "student_id");

            migrationBuilder.AddForeignKey(
                name: "fk_observations_postures_from_id",
                table: "observations",
                column: "from_id",
                principalTable: "postures",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.Sql(
                """
                CREATE TRIGGER ways_tried_stay BEFORE UPDATE OR DELETE ON ways_tried
                    FOR EACH ROW EXECUTE FUNCTION facts_stay();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_observations_postures_from_id",
                table: "observations");

            migrationBuilder.DropTable(
                name: "ways_tried");

            migrationBuilder.DropIndex(
                name: "ix_observations_from_id",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_from_side_can_be",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_says_can_be",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_sign_can_be",
                table: "observations");

            migrationBuilder.DropColumn(
                name: "from_id",
                table: "observations");

            migrationBuilder.DropColumn(
                name: "from_side",
                table: "observations");

            migrationBuilder.DropColumn(
                name: "mode",
                table: "observations");

            migrationBuilder.AddCheckConstraint(
                name: "observations_says_can_be",
                table: "observations",
                sql: "(sign <> 'Stage' OR stage IN ('Follows', 'Alone', 'Flowing')) AND (sign <> 'Fault' OR weight IS NOT NULL)");

            migrationBuilder.AddCheckConstraint(
                name: "observations_sign_can_be",
                table: "observations",
                sql: "\"sign\" IN ('Stage', 'Fault', 'Better', 'Fine')");
        }
    }
}
