using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261125140201_Announcing")]
    public partial class Announcing : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "teaching",
                table: "schools",
                type: "jsonb",
                nullable: false,
                defaultValue: "{\"patterns\": [{\"id\": \"0199c000-0000-7c01-8000-000000000001\", \"name\": \"Show, then together, then watch\", \"passes\": [{\"who\": \"teacher\", \"name\": \"show\", \"said\": \"explained\", \"view\": \"asUsual\", \"repetitions\": 2, \"secondsPerCount\": 12}, {\"who\": \"all\", \"name\": \"together\", \"said\": \"cues\", \"view\": \"asUsual\", \"repetitions\": 3, \"secondsPerCount\": 6}, {\"who\": \"students\", \"name\": \"watch\", \"said\": \"nothing\", \"view\": \"asUsual\", \"repetitions\": 2, \"secondsPerCount\": 4}]}, {\"id\": \"0199c000-0000-7c01-8000-000000000002\", \"name\": \"Weight first, then turning, then arms\", \"passes\": [{\"who\": \"all\", \"name\": \"weight\", \"said\": \"explained\", \"view\": \"asUsual\", \"layers\": [\"feet\"], \"repetitions\": 1, \"secondsPerCount\": 12}, {\"who\": \"all\", \"name\": \"turning\", \"said\": \"cues\", \"view\": \"asUsual\", \"layers\": [\"waist\"], \"repetitions\": 1, \"secondsPerCount\": 6}, {\"who\": \"all\", \"name\": \"arms\", \"said\": \"cues\", \"view\": \"asUsual\", \"layers\": [\"hands\"], \"repetitions\": 2, \"secondsPerCount\": 6}, {\"who\": \"all\", \"name\": \"together\", \"said\": \"cues\", \"view\": \"asUsual\", \"repetitions\": 2, \"secondsPerCount\": 6}, {\"who\": \"students\", \"name\": \"watch\", \"said\": \"nothing\", \"view\": \"asUsual\", \"repetitions\": 2, \"secondsPerCount\": 4}]}, {\"id\": \"0199c000-0000-7c01-8000-000000000003\", \"name\": \"Layer by layer, then joined\", \"passes\": [{\"who\": \"all\", \"name\": \"feet\", \"said\": \"cues\", \"view\": \"asUsual\", \"layers\": [\"feet\"], \"repetitions\": 2, \"secondsPerCount\": 6}, {\"who\": \"all\", \"name\": \"waist\", \"said\": \"cues\", \"view\": \"asUsual\", \"layers\": [\"waist\"], \"repetitions\": 2, \"secondsPerCount\": 6}, {\"who\": \"all\", \"name\": \"hands\", \"said\": \"cues\", \"view\": \"asUsual\", \"layers\": [\"hands\"], \"repetitions\": 2, \"secondsPerCount\": 6}, {\"who\": \"all\", \"name\": \"joined\", \"said\": \"cues\", \"view\": \"asUsual\", \"repetitions\": 2, \"secondsPerCount\": 6}, {\"who\": \"students\", \"name\": \"watch\", \"said\": \"nothing\", \"view\": \"asUsual\", \"repetitions\": 2, \"secondsPerCount\": 4}]}, {\"id\": \"0199c000-0000-7c01-8000-000000000004\", \"name\": \"Slowly by counts, its usual faults, then flowing\", \"passes\": [{\"who\": \"all\", \"name\": \"by counts\", \"said\": \"explained\", \"view\": \"asUsual\", \"repetitions\": 2, \"secondsPerCount\": 12}, {\"who\": \"teacher\", \"name\": \"faults\", \"said\": \"faults\", \"view\": \"asUsual\", \"repetitions\": 1, \"secondsPerCount\": 16}, {\"who\": \"all\", \"name\": \"flowing\", \"said\": \"nothing\", \"view\": \"asUsual\", \"repetitions\": 4, \"secondsPerCount\": 4}]}, {\"id\": \"0199c000-0000-7c01-8000-000000000005\", \"name\": \"The same thing from two views\", \"passes\": [{\"who\": \"teacher\", \"name\": \"from behind\", \"said\": \"explained\", \"view\": \"fromBehind\", \"repetitions\": 1, \"secondsPerCount\": 12}, {\"who\": \"teacher\", \"name\": \"from the side\", \"said\": \"explained\", \"view\": \"fromTheSide\", \"repetitions\": 1, \"secondsPerCount\": 12}, {\"who\": \"all\", \"name\": \"together\", \"said\": \"cues\", \"view\": \"asUsual\", \"repetitions\": 3, \"secondsPerCount\": 6}, {\"who\": \"pairs\", \"name\": \"in pairs\", \"said\": \"questions\", \"view\": \"asUsual\", \"repetitions\": 1, \"secondsPerCount\": 6}]}], \"standing\": \"0199c000-0000-7c01-8000-000000000001\", \"supported\": \"0199c000-0000-7c01-8000-000000000002\", \"talkEvery\": 0, \"talkMinutes\": 10}");

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
                name: "teaching",
                table: "schools");

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
