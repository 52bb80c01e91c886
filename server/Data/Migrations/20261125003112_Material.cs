using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <summary>
    /// Postures and forms become texts with steps in notation; links, principles and the school's conventions are new. What was written about feet in plain words has no notation:
    /// it goes in front of the waist's layer, so that nothing is lost.
    /// </summary>
    [DbContext(typeof(SchoolContext))]
    [Migration("20261125003112_Material")]
    public partial class Material : Migration
    {
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "text", table: "postures", type: "jsonb", nullable: false, defaultValue: "{}");
            migrationBuilder.AddColumn<string>(name: "text", table: "forms", type: "jsonb", nullable: false, defaultValue: "{}");
            migrationBuilder.Sql("""
                CREATE FUNCTION pg_temp.first_small(word text) RETURNS text LANGUAGE sql AS $$ SELECT lower(left(word, 1)) || substr(word, 2) $$;
                CREATE FUNCTION pg_temp.counts(counts jsonb) RETURNS jsonb LANGUAGE sql AS $$
                    SELECT coalesce(jsonb_agg((c.item - 'feet') || jsonb_build_object('waist', concat_ws('; ', nullif(c.item->>'feet', ''), nullif(c.item->>'waist', ''))) ORDER BY c.place), '[]')
                    FROM jsonb_array_elements(counts) WITH ORDINALITY AS c(item, place) $$;
                CREATE FUNCTION pg_temp.faults(faults jsonb) RETURNS jsonb LANGUAGE sql AS $$
                    SELECT coalesce(jsonb_agg((f.item - 'cause' - 'mend') || jsonb_build_object('causes', jsonb_build_array(jsonb_build_object('why', f.item->'cause', 'mend', f.item->'mend'))) ORDER BY f.place), '[]')
                    FROM jsonb_array_elements(faults) WITH ORDINALITY AS f(item, place) $$;
                CREATE FUNCTION pg_temp.mode(mode jsonb) RETURNS text LANGUAGE sql AS $$
                    SELECT CASE WHEN mode->>'support' = 'seat' THEN 'seated' WHEN mode->>'support' IN ('touch', 'hold') THEN 'supported'
                                WHEN mode->>'feet' = 'still' THEN 'no-step' WHEN mode->>'feet' = 'shortSteps' THEN 'short-step' ELSE 'standing' END $$;
                CREATE FUNCTION pg_temp.versions(versions jsonb) RETURNS jsonb LANGUAGE sql AS $$
                    SELECT coalesce(jsonb_agg(v.item || jsonb_build_object('mode', pg_temp.mode(v.item->'mode'), 'counts', pg_temp.counts(v.item->'counts')) ORDER BY v.place), '[]')
                    FROM jsonb_array_elements(versions) WITH ORDINALITY AS v(item, place) $$;
                UPDATE postures SET
                    counts = pg_temp.counts(counts),
                    text = jsonb_build_object(
                        'name', name, 'writtenSide', pg_temp.first_small(written_side), 'namedBy', pg_temp.first_small(named_by), 'difficulty', difficulty, 'keyPoint', key_point,
                        'counts', pg_temp.counts(counts), 'faults', pg_temp.faults(faults), 'demands', demands, 'cautions', cautions, 'versions', pg_temp.versions(versions));
                UPDATE forms SET text = jsonb_build_object(
                    'name', name, 'sections', sections,
                    'positions', (SELECT coalesce(jsonb_agg((p.item - 'numbered') || jsonb_build_object('isTransition', NOT (p.item->>'numbered')::boolean) ORDER BY p.place), '[]')
                                  FROM jsonb_array_elements(positions) WITH ORDINALITY AS p(item, place)));
                """);
            foreach (var column in new[] { "cautions", "demands", "difficulty", "faults", "key_point", "named_by", "written_side", "versions" })
            {
                migrationBuilder.DropColumn(name: column, table: "postures");
            }

            migrationBuilder.DropColumn(name: "positions", table: "forms");
            migrationBuilder.DropColumn(name: "sections", table: "forms");
            migrationBuilder.AddColumn<string>(name: "conventions", table: "schools", type: "jsonb", nullable: false, defaultValue: "{}");
            foreach (var name in new[] { "links", "principles" })
            {
                migrationBuilder.CreateTable(
                    name: name,
                    columns: table => new
                    {
                        id = table.Column<Guid>(type: "uuid", nullable: false),
                        text = table.Column<string>(type: "jsonb", nullable: false),
                        xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                    },
                    constraints: table => table.PrimaryKey($"pk_{name}", row => row.id));
            }
        }

        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("Steps in notation cannot be turned back into plain words. Restore a backup from before the update.");
    }
}
