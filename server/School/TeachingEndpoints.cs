using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>How the school brings things in (domain.md 4.2): read by everybody, changed by the head.</summary>
internal static class TeachingEndpoints
{
    /// <param name="Shipped">The patterns Zeitplan came with, to take one back.</param>
    /// <param name="Paces">What a count takes by what is said, until a school writes its own.</param>
    /// <param name="Examples">For each pattern in turn, what a posture of six counts and difficulty 2 takes a standing
    /// cohort.</param>
    /// <param name="WarmUpMinutes">What the pieces of the warm-up come to.</param>
    /// <param name="ShippedOccasions">The moments of the day Zeitplan came with, to take one back.</param>
    public sealed record Response(
        Teaching Teaching,
        IReadOnlyList<TeachingPattern> Shipped,
        IReadOnlyList<SaidPace> Paces,
        IReadOnlyList<string> Examples,
        int WarmUpMinutes,
        IReadOnlyList<HouseholdOccasion> ShippedOccasions,
        uint Version
    );

    public sealed record SaidPace(Said Said, int SecondsPerCount);

    public sealed record EditRequest(Teaching Teaching, uint Version);

    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/teaching", Read).WithName("teaching");
        api.Head.MapPut("/teaching", Edit).ProducesProblem(409).WithName("editTeaching");
    }

    private static async Task<Ok<Response>> Read(SchoolContext db, CancellationToken cancel)
    {
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        return TypedResults.Ok(Show(school));
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Edit(
        EditRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var ids = request.Teaching.WarmUp.Select(piece => piece.DrillId).OfType<Guid>().ToList();
        var drills = await db
            .Postures.Where(posture => ids.Contains(posture.Id))
            .Select(posture => posture.Id)
            .ToListAsync(cancel);
        List<Problem> problems =
        [
            .. request.Teaching.Check(),
            .. request
                .Teaching.WarmUp.Index()
                .Where(piece => piece.Item.DrillId is { } drill && !drills.Contains(drill))
                .Select(piece => new Problem($"warmUp[{piece.Index}].drillId", "This drill is not in the catalogue.")),
        ];
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var school = await db.Schools.SingleAsync(cancel);
        school.Adopt(request.Teaching);
        return await db.SaveFromAsync(school, request.Version, cancel)
            ? TypedResults.Ok(Show(school))
            : Refusals.Stale("How the school teaches", ["Somebody else changed it while you did."]);
    }

    private static Response Show(Core.School school) =>
        new(
            school.Teaching,
            TeachingPattern.Shipped,
            [.. Enum.GetValues<Said>().Select(said => new SaidPace(said, Pace.Of(said)))],
            [
                .. school.Teaching.Patterns.Select(pattern =>
                    new Effort(pattern, Counts: 6, Difficulty: 2, Core.Forms.Mode.Standing).Explain()
                ),
            ],
            WarmUp.Minutes,
            HouseholdOccasion.Shipped,
            school.Version
        );
}
