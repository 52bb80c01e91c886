using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Tests.School;

public sealed class MigrationTests(DemoTemplate template)
{
    [Fact]
    public async Task A_school_written_down_before_steps_had_a_notation_loses_nothing()
    {
        const string database = "zeitplan_before_notation";
        template.Run($"DROP DATABASE IF EXISTS {database} WITH (FORCE)");
        await using var db = new SchoolContext(new DbContextOptionsBuilder<SchoolContext>().UseNpgsql(template.ConnectionTo(database)).UseSnakeCaseNamingConvention().Options);
        await db.GetService<IMigrator>().MigrateAsync("20261124025721_First");
        await db.Database.ExecuteSqlRawAsync("""
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
            """);

        await db.Database.MigrateAsync();
        var posture = await db.Postures.SingleAsync();
        Assert.Equal(("Press", Side.Right, SideNamedBy.LeadingFoot, 2, "the back foot presses"), (posture.Name, posture.WrittenSide, posture.NamedBy, posture.Difficulty, posture.KeyPoint));
        Assert.Equal(new Count("face ahead", Waist: "weight left; turn right", Hands: "palm to wrist", Gaze: "ahead", Breath: "in"), posture.Counts[0]);
        Assert.Equal(("press", "out"), (posture.Text.Counts[1].Cue, posture.Text.Counts[1].Breath));
        Assert.Equal(new Cause("reaching", "stop over the toes"), Assert.Single(Assert.Single(posture.Faults).Causes));
        Assert.Equal((Mode.Seated, "load the feet"), (posture.Versions[0].Mode, posture.Versions[0].Counts[0].Waist));
        Assert.Equal([Demand.WideStep], posture.Demands);
        var position = Assert.Single((await db.Forms.SingleAsync()).Positions);
        Assert.Equal((Side.Right, 45, 45, 2, "low", true), (position.Side, position.Turn, position.Facing.Degrees, position.Repeats, position.Note, position.IsTransition));
        Assert.Equal(Conventions.Default, (await db.Schools.SingleAsync()).Conventions);
        template.Run($"DROP DATABASE {database} WITH (FORCE)");
    }
}
