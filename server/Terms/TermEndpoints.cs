using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>The school's terms.</summary>
internal static class TermEndpoints
{
    public sealed record Response(
        Guid Id,
        string Name,
        DateOnly Start,
        DateOnly End,
        IReadOnlyList<Closure> Closures,
        IReadOnlyList<DateOnly> TestDays,
        bool IsCurrent,
        uint Version
    );

    public sealed record CreateRequest(
        Guid Id,
        string Name,
        DateOnly Start,
        DateOnly End,
        IReadOnlyList<Closure> Closures,
        IReadOnlyList<DateOnly> TestDays
    );

    public sealed record EditRequest(
        string Name,
        DateOnly Start,
        DateOnly End,
        IReadOnlyList<Closure> Closures,
        IReadOnlyList<DateOnly> TestDays,
        uint Version
    );

    public static void Map(ByRank api)
    {
        var terms = api.Group("/terms");
        terms.Anyone.MapGet("", List).WithName("terms");
        terms.Head.MapPost("", Create).ProducesProblem(409).WithName("createTerm");
        terms.Head.MapPut("/{id:guid}", Edit).ProducesProblem(404).ProducesProblem(409).WithName("editTerm");
    }

    private static async Task<Ok<IReadOnlyList<Response>>> List(
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var current = await CurrentTerm.FindAsync(db, await clock.TodayAsync(cancel), cancel);
        var terms = await db.Terms.AsNoTracking().OrderByDescending(term => term.Start).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Response>>([
            .. terms.Select(term => new Response(
                term.Id,
                term.Name,
                term.Start,
                term.End,
                term.Closures,
                term.TestDays,
                term.Id == current?.Id,
                term.Version
            )),
        ]);
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> Create(
        CreateRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var text = new TermText(
            request.Name,
            request.Start,
            request.End,
            request.Closures ?? [],
            request.TestDays ?? []
        );
        await using var turn = await AllOrNothing.InTurnAsync(db, Turn.Terms, cancel);
        if (
            text.Check(await db.Terms.AsNoTracking().Where(term => term.Id != request.Id).ToListAsync(cancel))
                .ToList() is
            { Count: > 0 } problems
        )
        {
            return Refusals.Invalid(problems);
        }

        if (await db.Terms.AnyAsync(term => term.Id == request.Id, cancel))
        {
            return Refusals.Conflict("This term is here already.");
        }

        db.Terms.Add(Term.Create(request.Id, text));
        await db.SaveChangesAsync(cancel);
        await turn.KeepAsync(cancel);
        return TypedResults.Created("/api/terms");
    }

    /// <summary>Changes the calendar. A date on which a class has been held stays open.</summary>
    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Edit(
        Guid id,
        EditRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        await using var turn = await AllOrNothing.InTurnAsync(db, Turn.Terms, cancel);
        if (await db.Terms.SingleOrDefaultAsync(t => t.Id == id, cancel) is not { } term)
        {
            return Refusals.NotFound("This term");
        }

        var text = new TermText(
            request.Name,
            request.Start,
            request.End,
            request.Closures ?? [],
            request.TestDays ?? []
        );
        var problems = await ProblemsAsync(term, text, db, cancel);
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var before =
            $"{term.Name}, {term.Start:d MMMM} to {term.End:d MMMM}, {term.Closures.Count} closed, {term.TestDays.Count} test days.";
        term.Rewrite(text);
        if (!await db.SaveFromAsync(term, request.Version, cancel))
        {
            return Refusals.Stale("The term", [before]);
        }

        await turn.KeepAsync(cancel);
        var current = await CurrentTerm.FindAsync(db, await clock.TodayAsync(cancel), cancel);
        return TypedResults.Ok(
            new Response(
                term.Id,
                term.Name,
                term.Start,
                term.End,
                term.Closures,
                term.TestDays,
                term.Id == current?.Id,
                term.Version
            )
        );
    }

    /// <summary>What stands against a calendar: its own mistakes, other terms, and lessons that have been
    /// held.</summary>
    internal static async Task<List<Core.Problem>> ProblemsAsync(
        Term term,
        TermText text,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var problems = text.Check(await db.Terms.AsNoTracking().Where(other => other.Id != term.Id).ToListAsync(cancel))
            .ToList();
        var held = (
            await db
                .TaughtFacts.Where(record => record.Date >= term.Start && record.Date <= term.End)
                .Select(record => record.Date)
                .Distinct()
                .ToListAsync(cancel)
        ).ToHashSet();
        problems.AddRange(
            from closure in text.Closures.Index()
            from date in held.Where(closure.Item.Covers).Order().Take(1)
            select new Core.Problem($"closures[{closure.Index}].date", $"A lesson was held on {date:d MMMM}.")
        );
        problems.AddRange(
            held.Where(date => date < text.Start || date > text.End)
                .Order()
                .Take(1)
                .Select(date => new Core.Problem(
                    date < text.Start ? "start" : "end",
                    $"A lesson was held on {date:d MMMM}, outside these dates."
                ))
        );
        return problems;
    }
}
