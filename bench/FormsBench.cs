using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;

namespace Zeitplan.Bench;

/// <summary>The long form walked and checked count by count, beside reading its text from the row it is kept
/// in.</summary>
internal static class FormsBench
{
    public static async Task RunAsync(string connection, Action<string, double, string> say)
    {
        await using var db = new SchoolContext(
            new DbContextOptionsBuilder<SchoolContext>().UseNpgsql(connection).UseSnakeCaseNamingConvention().Options
        );
        var form = (await db.Forms.AsNoTracking().ToListAsync()).MaxBy(one => one.Positions.Count)!;
        var material = await Material.LoadAsync(db, default);
        var text = Json.Write(form.Text);
        var check = Timing.Of(
            200,
            () =>
                FormCheck.Run(
                    form.Text,
                    material.Postures,
                    material.Ways,
                    FloorWalk.Of(form.Positions, material.Postures, material.Ways)
                )
        );
        var distinct = form.Positions.DistinctBy(position => (position.PostureId, position.Side)).ToList();
        var bodies = Timing.Of(
            200,
            () =>
            {
                foreach (var position in distinct)
                {
                    Bodies(position);
                }
            }
        );
        var hands = Timing.Of(
            200,
            () =>
            {
                foreach (var position in distinct)
                {
                    var posture = material.Postures[position.PostureId];
                    PostureCheck.Run(Walk(position), posture.Counts, [], Mode.Standing, [], material.Ways);
                }
            }
        );
        var everything = Timing.Of(
            200,
            () =>
            {
                foreach (var position in distinct)
                {
                    PostureCheck.Run(
                        material.Postures[position.PostureId],
                        position.Side,
                        Mode.Standing,
                        material.Ways
                    );
                }
            }
        );
        var read = Timing.Of(200, () => Json.Read<FormText>(text));
        say($"walk and check {form.Positions.Count} positions, p50", check.P50, "ms");
        say($"walk and check {form.Positions.Count} positions, p95", check.P95, "ms");
        say("bodies of every count of it, p50", bodies.P50, "ms");
        say("bodies of every count of it, p95", bodies.P95, "ms");
        say("with the checks of steps, arms and breath, p50", hands.P50, "ms");
        say("with the checks of steps, arms and breath, p95", hands.P95, "ms of at most 5");
        say("with checkpoints and ways back as well, p95", everything.P95, "ms");
        say("read the form's own text, p50", read.P50, "ms");
        say("read the form's own text, p95", read.P95, "ms");

        BodyWalk Walk(Position position) =>
            PostureBody.Of(
                material.Postures[position.PostureId],
                position.Side,
                Mode.Standing,
                material.Ways,
                Physique.Standard
            )!;

        void Bodies(Position position)
        {
            var walk = Walk(position);
            for (var count = 0; count <= walk.Count; count++)
            {
                walk.After(count);
            }
        }
    }
}
