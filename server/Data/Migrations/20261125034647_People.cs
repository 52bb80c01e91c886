using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <summary>
    /// Students may learn in several cohorts and keep where they have been; a cohort may be given several segments; levels, halls and classes say more of themselves; limits have a log.
    /// </summary>
    [DbContext(typeof(SchoolContext))]
    [Migration("20261125034647_People")]
    public partial class People : Migration
    {
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_assignments_forms_form_id",
                table: "assignments");

            migrationBuilder.DropForeignKey(
                name: "fk_students_cohorts_cohort_id",
                table: "students");

            migrationBuilder.DropIndex(
                name: "ix_students_cohort_id",
                table: "students");

            migrationBuilder.DropIndex(
                name: "ix_sashes_order",
                table: "sashes");

            migrationBuilder.DropIndex(
                name: "ix_assignments_form_id",
                table: "assignments");

            migrationBuilder.AddColumn<Guid[]>(
                name: "cohort_ids",
                table: "students",
                type: "uuid[]",
                nullable: false,
                defaultValue: new Guid[0]);

            migrationBuilder.AddColumn<string>(
                name: "details",
                table: "students",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<DateOnly>(
                name: "erased",
                table: "students",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<DateOnly>(
                name: "left",
                table: "students",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "levels",
                table: "students",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "places",
                table: "students",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "asks",
                table: "sashes",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<string>(
                name: "outline",
                table: "postures",
                type: "jsonb",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<int>(
                name: "allowed",
                table: "halls",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "hours",
                table: "halls",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<bool>(
                name: "must_be_attended",
                table: "cohorts",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<DateOnly>(
                name: "closed",
                table: "classes",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "substitutes",
                table: "classes",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "segments",
                table: "assignments",
                type: "jsonb",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<DateOnly>(name: "sash_since", table: "students", type: "date", nullable: false, defaultValue: new DateOnly(1, 1, 1));

            migrationBuilder.AddColumn<string>(name: "usual_mode", table: "students", type: "text", nullable: false, defaultValue: "None/FullSteps");

            migrationBuilder.AddColumn<bool>(name: "has_limits", table: "students", type: "boolean", nullable: false, defaultValue: false);

            // What stood in columns of its own becomes part of what replaces it.
            migrationBuilder.Sql("""
                UPDATE students SET
                    cohort_ids = ARRAY[cohort_id],
                    sash_since = joined,
                    has_limits = limits <> '[]',
                    places = jsonb_build_array(jsonb_build_object('cohortId', cohort_id, 'from', joined)),
                    levels = jsonb_build_array(jsonb_build_object('sashId', sash_id, 'half', lower(half), 'since', joined));
                UPDATE cohorts SET must_be_attended = mode LIKE 'Touch/%' OR mode LIKE 'Hold/%' OR mode LIKE 'Seat/%';
                UPDATE assignments SET segments = jsonb_build_array(jsonb_build_object(
                    'id', gen_random_uuid(), 'formId', form_id, 'fromId', from_position_id, 'toId', to_position_id, 'target', target, 'purpose', 'new', 'leftOut', '[]'::jsonb));
                UPDATE postures SET outline = jsonb_build_object(
                    'name', name,
                    'writtenSide', coalesce(text->'writtenSide', '"symmetric"'),
                    'namedBy', coalesce(text->'namedBy', '"nothing"'),
                    'difficulty', coalesce(text->'difficulty', '1'),
                    'counts', jsonb_array_length(counts),
                    'demands', coalesce(text->'demands', '[]'),
                    'versions', (SELECT coalesce(jsonb_agg(jsonb_build_object(
                        'mode', version->'mode', 'demands', coalesce(version->'demands', '[]'), 'replaces', coalesce(version->'replaces', '""'), 'counts', jsonb_array_length(coalesce(version->'counts', '[]'))) ORDER BY place), '[]')
                        FROM jsonb_array_elements(coalesce(text->'versions', '[]')) WITH ORDINALITY AS written (version, place)),
                    'needs', CASE WHEN text->'builtFrom' ? 'postureId' THEN jsonb_build_array(text->'builtFrom'->'postureId') ELSE '[]'::jsonb END);
                """);

            migrationBuilder.DropColumn(
                name: "cohort_id",
                table: "students");

            migrationBuilder.DropColumn(
                name: "form_id",
                table: "assignments");

            migrationBuilder.DropColumn(
                name: "from_position_id",
                table: "assignments");

            migrationBuilder.DropColumn(
                name: "target",
                table: "assignments");

            migrationBuilder.DropColumn(
                name: "to_position_id",
                table: "assignments");

            migrationBuilder.CreateTable(
                name: "access_log",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    student_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    place = table.Column<string>(type: "character varying(400)", maxLength: 400, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_access_log", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "adaptations",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    student_id = table.Column<Guid>(type: "uuid", nullable: false),
                    posture_id = table.Column<Guid>(type: "uuid", nullable: false),
                    mode = table.Column<string>(type: "character varying(40)", maxLength: 40, nullable: true),
                    words = table.Column<string>(type: "character varying(400)", maxLength: 400, nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_adaptations", x => x.id);
                    table.ForeignKey(
                        name: "fk_adaptations_postures_posture_id",
                        column: x => x.posture_id,
                        principalTable: "postures",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_adaptations_students_student_id",
                        column: x => x.student_id,
                        principalTable: "students",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "imports",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    file_name = table.Column<string>(type: "character varying(400)", maxLength: 400, nullable: false),
                    entries = table.Column<string>(type: "jsonb", nullable: false),
                    taken_back = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_imports", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_students_cohort_ids",
                table: "students",
                column: "cohort_ids")
                .Annotation("Npgsql:IndexMethod", "gin");

            migrationBuilder.CreateIndex(
                name: "ix_access_log_at",
                table: "access_log",
                column: "at");

            migrationBuilder.CreateIndex(
                name: "ix_access_log_student_id",
                table: "access_log",
                column: "student_id");

            migrationBuilder.CreateIndex(
                name: "ix_adaptations_posture_id",
                table: "adaptations",
                column: "posture_id");

            migrationBuilder.CreateIndex(
                name: "ix_adaptations_student_id",
                table: "adaptations",
                column: "student_id");
        }

        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("What students have been given since cannot be put back into single columns. Restore a backup from before the update.");
    }
}
