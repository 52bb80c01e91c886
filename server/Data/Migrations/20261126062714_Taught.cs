using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261126062714_Taught")]
    public partial class Taught : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "taught_facts",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    class_id = table.Column<Guid>(type: "uuid", nullable: false),
                    date = table.Column<DateOnly>(type: "date", nullable: false),
                    cohort_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    posture_id = table.Column<Guid>(type: "uuid", nullable: false),
                    side = table.Column<string>(type: "text", nullable: false),
                    from_id = table.Column<Guid>(type: "uuid", nullable: true),
                    from_side = table.Column<string>(type: "text", nullable: true),
                    how = table.Column<string>(type: "text", nullable: false),
                    taught = table.Column<bool>(type: "boolean", nullable: false),
                    minutes = table.Column<decimal>(type: "numeric", nullable: true),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_taught_facts", x => x.id);
                    table.ForeignKey(
                        name: "fk_taught_facts_classes_class_id",
                        column: x => x.class_id,
                        principalTable: "classes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_taught_facts_cohorts_cohort_id",
                        column: x => x.cohort_id,
                        principalTable: "cohorts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_taught_facts_postures_from_id",
                        column: x => x.from_id,
                        principalTable: "postures",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "fk_taught_facts_postures_posture_id",
                        column: x => x.posture_id,
                        principalTable: "postures",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_taught_facts_class_id_date",
                table: "taught_facts",
                columns: new[] { "class_id", "date" });

            migrationBuilder.CreateIndex(
                name: "ix_taught_facts_cohort_id",
                table: "taught_facts",
                column: "cohort_id");

            migrationBuilder.CreateIndex(
                name: "ix_taught_facts_from_id",
                table: "taught_facts",
                column: "from_id");

            migrationBuilder.CreateIndex(
                name: "ix_taught_facts_posture_id",
                table: "taught_facts",
                column: "posture_id");

            // A record said all that was taught: what an earlier record of the same lesson named and a later one did not, was taken back by it.
            migrationBuilder.Sql("""
                WITH items AS (
                    SELECT r.class_id, r.date, r.by, r.at, r.id AS record, item, ordinality,
                        concat_ws(' ', item->>'cohortId', item->>'kind', item->>'postureId', item->>'side', item->'from'->>'postureId', item->'from'->>'side') AS key
                    FROM lesson_records r, jsonb_array_elements(r.taught) WITH ORDINALITY AS of(item, ordinality)),
                said AS (
                    SELECT class_id, date, by, at, item, true AS taught, ordinality FROM items
                    UNION ALL
                    SELECT r.class_id, r.date, r.by, r.at, before.item, false, before.ordinality
                    FROM lesson_records r
                    JOIN LATERAL (
                        SELECT DISTINCT ON (i.key) i.* FROM items i
                        WHERE i.class_id = r.class_id AND i.date = r.date AND i.at < r.at ORDER BY i.key, i.at DESC) before ON true
                    WHERE NOT EXISTS (SELECT FROM items own WHERE own.record = r.id AND own.key = before.key))
                INSERT INTO taught_facts (id, class_id, date, cohort_id, kind, posture_id, side, from_id, from_side, how, taught, minutes, by, at)
                SELECT gen_random_uuid(), class_id, date, (item->>'cohortId')::uuid, initcap(coalesce(item->>'kind', 'posture')), (item->>'postureId')::uuid, initcap(item->>'side'),
                    (item->'from'->>'postureId')::uuid, initcap(item->'from'->>'side'),
                    upper(left(item->>'how', 1)) || substr(item->>'how', 2), taught, CASE WHEN taught THEN (item->>'minutes')::numeric END, by, at
                FROM said
                WHERE EXISTS (SELECT FROM cohorts WHERE id = (item->>'cohortId')::uuid) AND EXISTS (SELECT FROM postures WHERE id = (item->>'postureId')::uuid)
                ORDER BY at, ordinality;
                """);
            migrationBuilder.DropTable(name: "lesson_records");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "taught_facts");

            migrationBuilder.CreateTable(
                name: "lesson_records",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    class_id = table.Column<Guid>(type: "uuid", nullable: false),
                    date = table.Column<DateOnly>(type: "date", nullable: false),
                    taught = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_lesson_records", x => x.id);
                    table.ForeignKey(
                        name: "fk_lesson_records_classes_class_id",
                        column: x => x.class_id,
                        principalTable: "classes",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "ix_lesson_records_class_id_date",
                table: "lesson_records",
                columns: new[] { "class_id", "date" });
        }
    }
}
