using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Terms;

/// <summary>The school's terms.</summary>
internal static class TermEndpoints
{
    public sealed record Response(Guid Id, string Name, DateOnly Start, DateOnly End, IReadOnlyList<Closure> Closures, IReadOnlyList<DateOnly> TestDays, bool IsCurrent, uint Version);

    public sealed record CreateRequest(Guid Id, string Name, DateOnly Start, DateOnly End, IReadOnlyList<Closure> Closures, IReadOnlyList<DateOnly> TestDays);

    public static void Map(IEndpointRouteBuilder api)
    {
        var terms = api.MapGroup("/terms");
        terms.MapGet("", List).RequireAuthorization(Policies.Anyone).WithName("terms");
        terms.MapPost("", Create).RequireAuthorization(Policies.Head).ProducesProblem(409).WithName("createTerm");
    }

    private static async Task<Ok<IReadOnlyList<Response>>> List(SchoolContext db, SchoolClock clock, CancellationToken cancel)
    {
        var current = await People.CurrentTerm.FindAsync(db, await clock.TodayAsync(cancel), cancel);
        var terms = await db.Terms.AsNoTracking().OrderByDescending(term => term.Start).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Response>>([.. terms.Select(term => new Response(term.Id, term.Name, term.Start, term.End, term.Closures, term.TestDays, term.Id == current?.Id, term.Version))]);
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> Create(CreateRequest request, SchoolContext db, CancellationToken cancel)
    {
        var text = new TermText(request.Name, request.Start, request.End, request.Closures ?? [], request.TestDays ?? []);
        if (text.Check(await db.Terms.AsNoTracking().Where(term => term.Id != request.Id).ToListAsync(cancel)).ToList() is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Terms.AnyAsync(term => term.Id == request.Id, cancel))
        {
            return Answers.Conflict("This term is here already.");
        }

        db.Terms.Add(Term.Create(request.Id, text));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/terms");
    }
}
