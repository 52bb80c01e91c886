using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Tests.School;

public sealed class MigrationTests(DemoTemplate template)
{
    [Fact]
    public async Task A_school_written_down_before_steps_had_a_notation_loses_nothing()
    {
        const string database = "zeitplan_before_notation";
        await using var db = await AtAsync(database, "20261124025721_First");
        await db.Database.ExecuteSqlRawAsync(
            """
            INSERT INTO schools (id, name, time_zone, is_demo) VALUES ('0199c000-0000-7000-8000-000000000001', 'Heron Quay Tai Chi', 'UTC', false);
            INSERT INTO postures (id, name, written_side, named_by, difficulty, key_point, counts, faults, demands, cautions, versions) VALUES (
                '0199c000-0000-7000-8000-000000000002', 'Press', 'Right', 'LeadingFoot', 2, 'the back foot presses',
                '[{{"cue": "face ahead", "feet": "weight left", "waist": "turn right", "hands": "palm to wrist", "gaze": "ahead", "breath": "in"}}, {{"cue": "press", "feet": "", "waist": "", "hands": "", "gaze": "", "breath": "out"}}]',
                '[{{"id": "0199c000-0000-7000-8000-000000000003", "seen": "leans into it", "weight": "shape", "cause": "reaching", "mend": "stop over the toes"}}]',
                '["wideStep"]', '["Knee no further than the toes."]',
                '[{{"mode": {{"support": "seat", "feet": "still", "name": "seated"}}, "counts": [{{"cue": "press", "feet": "load the feet", "waist": "", "hands": "", "gaze": "", "breath": ""}}], "cautions": ["Care when leaning."], "replaces": "the shift"}}]');
            INSERT INTO forms (id, name, sections, positions) VALUES (
                '0199c000-0000-7000-8000-000000000004', 'Lantern Form', '[{{"id": "0199c000-0000-7000-8000-000000000005", "name": "Section one"}}]',
                '[{{"id": "0199c000-0000-7000-8000-000000000006", "sectionId": "0199c000-0000-7000-8000-000000000005", "postureId": "0199c000-0000-7000-8000-000000000002", "side": "right", "turn": 45, "facing": 45, "repeats": 2, "numbered": false, "note": "low"}}]');
            """
        );

        await db.Database.MigrateAsync();
        var posture = await db.Postures.SingleAsync();
        Assert.Equal(
            ("Press", Side.Right, SideNamedBy.LeadingFoot, 2, "the back foot presses"),
            (posture.Name, posture.WrittenSide, posture.NamedBy, posture.Difficulty, posture.KeyPoint)
        );
        Assert.Equal(
            new Count(
                "face ahead",
                Waist: "weight left; turn right",
                Hands: "palm to wrist",
                Gaze: "ahead",
                Breath: "in"
            ),
            posture.Counts[0]
        );
        Assert.Equal(("press", "out"), (posture.Text.Counts[1].Cue, posture.Text.Counts[1].Breath));
        Assert.Equal(new Cause("reaching", "stop over the toes"), Assert.Single(Assert.Single(posture.Faults).Causes));
        Assert.Equal((Mode.Seated, "load the feet"), (posture.Versions[0].Mode, posture.Versions[0].Counts[0].Waist));
        Assert.Equal([Demand.WideStep], posture.Demands);
        var position = Assert.Single((await db.Forms.SingleAsync()).Positions);
        Assert.Equal(
            (Side.Right, 45, 45, 2, "low", true),
            (
                position.Side,
                position.Turn,
                position.Facing.Degrees,
                position.Repeats,
                position.Note,
                position.IsTransition
            )
        );
        Assert.Equal(Conventions.Default, (await db.Schools.SingleAsync()).Conventions);
        template.Run($"DROP DATABASE {database} WITH (FORCE)");
    }

    [Fact]
    public async Task What_a_later_record_of_a_lesson_left_out_was_taken_back_by_it()
    {
        const string database = "zeitplan_before_taught";
        await using var db = await AtAsync(database, "20261124025721_First");
        await db.Database.ExecuteSqlRawAsync(
            """
            SET session_replication_role = replica;
            INSERT INTO postures (id, name, written_side, named_by, difficulty, key_point, counts, faults, demands, cautions, versions)
            SELECT ('0199c000-0000-7000-8000-00000000000' || n)::uuid, 'Posture ' || n, 'Right', 'LeadingFoot', 2, 'the back foot presses', '[]', '[]', '[]', '[]', '[]' FROM generate_series(1, 2) n;
            INSERT INTO classes (id, name, weekday, start, minutes, hall_id, staff_ids)
            VALUES ('0199c000-0000-7000-8000-0000000000cc', 'Tuesday evening', 'Tuesday', '18:30', 90, '0199c000-0000-7000-8000-0000000000a0', '[]');
            INSERT INTO cohorts (id, class_id, name, "order", colour, half, mode, beginners)
            VALUES ('0199c000-0000-7000-8000-0000000000c0', '0199c000-0000-7000-8000-0000000000cc', 'Fern', 1, '#6E8C4A', 'None', 'None/FullSteps', false);
            INSERT INTO staff (id, name, role) VALUES ('0199c000-0000-7000-8000-0000000000f0', 'Noor Adeyemi', 'Head');
            INSERT INTO lesson_records (id, class_id, date, taught, by, at)
            SELECT gen_random_uuid(), '0199c000-0000-7000-8000-0000000000cc', '2026-11-17',
                (SELECT jsonb_agg(jsonb_build_object('cohortId', '0199c000-0000-7000-8000-0000000000c0', 'postureId', '0199c000-0000-7000-8000-00000000000' || n, 'side', 'right', 'how', 'runThrough', 'kind', 'posture', 'minutes', 4.5)) FROM generate_series(1, 3 - record) n),
                '0199c000-0000-7000-8000-0000000000f0', timestamptz '2026-11-17 20:00Z' + record * interval '1 minute'
            FROM generate_series(1, 2) record;
            SET session_replication_role = origin;
            """
        );

        await db.GetService<IMigrator>().MigrateAsync();
        var facts = await db.TaughtFacts.ToListAsync();
        Assert.Equal(4, facts.Count);
        var record = Assert.Single(ProgressBook.Records(facts));
        var taught = Assert.Single(record.Taught);
        Assert.Equal(
            ("1", TaughtHow.RunThrough, Side.Right, 4.5m),
            (taught.PostureId.ToString()[^1..], taught.How, taught.Side, taught.Minutes)
        );
        template.Run($"DROP DATABASE {database} WITH (FORCE)");
    }

    [Fact]
    public void The_migrations_make_the_tables_the_model_asks_for()
    {
        using var db = Of("zeitplan_nowhere");
        Assert.False(db.Database.HasPendingModelChanges());
    }

    /// <summary>The file holds a plan as it was written before, and the same as it is written since.</summary>
    [Fact]
    public async Task A_plan_kept_by_places_in_lists_is_kept_by_unit_and_date()
    {
        var kept = JsonNode.Parse(
            await File.ReadAllTextAsync(Path.Combine(AppContext.BaseDirectory, "School", "plan-by-place.json"))
        )!;
        const string database = "zeitplan_before_snapshots";
        await using var db = await AtAsync(database, "20261126144818_StepsFollowOneAnother");
        await db.Database.OpenConnectionAsync();
        await db.Database.ExecuteSqlRawAsync("SET session_replication_role = replica");
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO plans (id, term_id, class_id, at, by, cause, problem, plan, unteachable, lessons)
            VALUES ({Guid.CreateVersion7()}, {Guid.CreateVersion7()}, {Guid.CreateVersion7()}, now(), {Guid.CreateVersion7()}, 'Planned',
                {kept["problem"]!.ToJsonString()}::jsonb, {kept["plan"]!.ToJsonString()}::jsonb, {"{}"}::jsonb, '[]')
            """
        );
        await db.Database.ExecuteSqlRawAsync("SET session_replication_role = origin");

        await db.GetService<IMigrator>().MigrateAsync();
        var plan = await db.Plans.SingleAsync();
        Assert.Equal(
            kept["snapshot"]!.ToJsonString(),
            JsonNode.Parse(JsonSerializer.Serialize(plan.Snapshot, LibraryJson.Stored))!.ToJsonString()
        );
        Assert.Equal(
            ["Cross Hands, right", "Embrace Tiger, right"],
            plan.Problem.Cohorts[0].Units.Take(2).Select(unit => unit.Name)
        );
        template.Run($"DROP DATABASE {database} WITH (FORCE)");
    }

    /// <summary>A database as an earlier version left it.</summary>
    private async Task<SchoolContext> AtAsync(string database, string migration)
    {
        template.Run($"DROP DATABASE IF EXISTS {database} WITH (FORCE)");
        var db = Of(database);
        await db.GetService<IMigrator>().MigrateAsync(migration);
        return db;
    }

    private SchoolContext Of(string database) =>
        new(
            new DbContextOptionsBuilder<SchoolContext>()
                .UseNpgsql(template.ConnectionTo(database))
                .UseSnakeCaseNamingConvention()
                .Options
        );
}
