using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>The halls.</summary>
internal static class HallEndpoints
{
    public sealed record CreateRequest(Guid Id, HallText Text);

    public sealed record EditRequest(HallText Text, uint Version);

    public static void Map(ByRank api)
    {
        var halls = api.Head.MapGroup("/halls");
        halls.MapPost("", Add).ProducesProblem(409).WithName("addHall");
        halls.MapPut("/{id:guid}", Edit).ProducesProblem(404).ProducesProblem(409).WithName("editHall");
        halls.MapDelete("/{id:guid}", Remove).ProducesProblem(404).ProducesProblem(409).WithName("removeHall");
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> Add(
        CreateRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var halls = await db.Halls.AsNoTracking().ToListAsync(cancel);
        if (request.Text.Check(halls).ToList() is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        if (halls.Any(hall => hall.Id == request.Id))
        {
            return Refusals.Conflict("This hall is here already.");
        }

        db.Halls.Add(Hall.Create(request.Id, request.Text));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/people");
    }

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Edit(
        Guid id,
        EditRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Halls.SingleOrDefaultAsync(hall => hall.Id == id, cancel) is not { } hall)
        {
            return Refusals.NotFound("This hall");
        }

        if (
            request
                .Text.Check(await db.Halls.AsNoTracking().Where(other => other.Id != id).ToListAsync(cancel))
                .ToList() is
            { Count: > 0 } problems
        )
        {
            return Refusals.Invalid(problems);
        }

        var kept = $"{hall.Name} is {hall.Width} × {hall.Depth} m with {hall.Chairs} chairs and {hall.Rail} m of rail.";
        hall.Rewrite(request.Text);
        return await db.SaveFromAsync(hall, request.Version, cancel)
            ? TypedResults.NoContent()
            : Refusals.Stale("The hall", [kept]);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Halls.SingleOrDefaultAsync(hall => hall.Id == id, cancel) is not { } hall)
        {
            return Refusals.NotFound("This hall");
        }

        List<string> uses =
        [
            .. from schoolClass in await db.Classes.AsNoTracking().ToListAsync(cancel)
            where schoolClass.HallId == id || schoolClass.Changes.Any(change => change.HallId == id)
            select schoolClass.HallId == id
                ? $"{schoolClass.Name} meets there."
                : $"{schoolClass.Name} has single lessons there.",
        ];
        if (uses.Count > 0)
        {
            return Refusals.InUse(hall.Name, uses);
        }

        db.Halls.Remove(hall);
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }
}
