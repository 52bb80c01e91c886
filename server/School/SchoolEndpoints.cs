using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>What the school is called, where it is and how it writes: read by everybody, changed by the head.</summary>
internal static class SchoolEndpoints
{
    public sealed record Response(SchoolText Text, uint Version);

    public sealed record EditRequest(SchoolText Text, uint Version);

    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/school", Read).WithName("school");
        api.Head.MapPut("/school", Edit).ProducesProblem(409).WithName("editSchool");
    }

    private static async Task<Ok<Response>> Read(SchoolContext db, CancellationToken cancel) =>
        TypedResults.Ok(Show(await db.Schools.AsNoTracking().SingleAsync(cancel)));

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Edit(
        EditRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (request.Text.Check().ToList() is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        var school = await db.Schools.SingleAsync(cancel);
        school.Rewrite(request.Text);
        return await db.SaveFromAsync(school, request.Version, cancel)
            ? TypedResults.Ok(Show(school))
            : Refusals.Stale("The school", ["Somebody else changed its name, place or ways while you did."]);
    }

    private static Response Show(Core.School school) =>
        new(
            new(school.Name, school.Place, school.TimeZone, school.WeekStart, school.Dates, school.Decimals),
            school.Version
        );
}
