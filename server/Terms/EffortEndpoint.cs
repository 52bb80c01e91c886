using Microsoft.AspNetCore.Http.HttpResults;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>What teaching one posture takes each cohort, with the sum: before it is given to anybody.</summary>
internal static class EffortEndpoint
{
    /// <param name="Needs">Null where the posture has no version for the cohort's mode.</param>
    public sealed record Row(Guid CohortId, string Cohort, string Class, string Mode, Needs? Needs);

    /// <summary>Minutes.</summary>
    public sealed record Needs(decimal New, decimal Review, decimal RunThrough, string Sum);

    public static void Map(ByRank api) =>
        api.Anyone.MapGet("/postures/{id:guid}/effort", Read).ProducesProblem(404).WithName("effort");

    private static async Task<Results<Ok<IReadOnlyList<Row>>, ProblemHttpResult>> Read(
        Guid id,
        Word<Side>? side,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var postures = await Material.OutlinesAsync(db, cancel);
        if (!postures.TryGetValue(id, out var posture))
        {
            return Refusals.NotFound("This posture");
        }

        var on = side is { } asked && posture.HasSide(asked.Value) ? asked.Value : posture.WrittenSide;
        var today = await clock.TodayAsync(cancel);
        if (await CurrentTerm.FindAsync(db, today, cancel) is not { } term)
        {
            return TypedResults.Ok<IReadOnlyList<Row>>([]);
        }

        var classes = await TermClasses.LoadAsync(db, term, await actor.ClassesAsync(db, today, cancel), cancel);
        var all = await TermMaterial.LoadAsync(db, classes, today, cancel);
        List<Row> rows = [];
        foreach (var schoolClass in classes.Classes.OrderBy(mine => mine.Name))
        {
            var material = TermProblemLoader.State(all, schoolClass, today);
            rows.AddRange(
                material.Problem.Cohorts.Select(cohort => new Row(
                    cohort.Id,
                    cohort.Name,
                    schoolClass.Name,
                    cohort.Mode.Name,
                    material.Ways[cohort.Id].EffortOf(posture, on) is { } effort
                        ? new(
                            effort.IntroduceSeconds.Minutes,
                            effort.ReviewSeconds.Minutes,
                            effort.RunThroughSeconds.Minutes,
                            effort.Explain()
                        )
                        : null
                ))
            );
        }

        return TypedResults.Ok<IReadOnlyList<Row>>(rows);
    }
}
