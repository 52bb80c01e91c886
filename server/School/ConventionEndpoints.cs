using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>What this school does differently from others (domain.md 5): read by everybody, changed by the
/// head.</summary>
internal static class ConventionEndpoints
{
    /// <param name="Directions">How this school says the eight directions, from the form's zero clockwise.</param>
    public sealed record Response(Conventions Ways, IReadOnlyList<string> Directions, uint Version);

    public sealed record EditRequest(Conventions Ways, uint Version);

    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/conventions", Read).WithName("conventions");
        api.Head.MapPut("/conventions", Edit).ProducesProblem(409).WithName("editConventions");
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
        if (request.Ways.Check().ToList() is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        var school = await db.Schools.SingleAsync(cancel);
        school.Adopt(request.Ways);
        return await db.SaveFromAsync(school, request.Version, cancel)
            ? TypedResults.Ok(Show(school))
            : Refusals.Stale("The school's conventions", ["Somebody else changed them while you did."]);
    }

    private static Response Show(Core.School school) =>
        new(
            school.Conventions,
            [.. Enumerable.Range(0, 8).Select(eighth => school.Conventions.Say(Facing.FromDegrees(eighth * 45)))],
            school.Version
        );
}
