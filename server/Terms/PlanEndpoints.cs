using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>Planning a class's term: each step makes a draft, which is undone or announced.</summary>
internal static class PlanEndpoints
{
    /// <param name="Date">The lesson it is fixed in; null to let it go.</param>
    public sealed record PinRequest(DateOnly? Date);

    /// <param name="Date">A date of the class's calendar, closures included.</param>
    /// <param name="OverMinutes">How much the lesson is short of.</param>
    public sealed record Cost(DateOnly Date, MoveVerdict Verdict, decimal OverMinutes, string Says);

    public sealed record VersionRow(int Number, DateTimeOffset At, string By, int Moves);

    public static void Map(ByRank api)
    {
        var plan = api.Group("/terms/{termId:guid}/classes/{classId:guid}/plan").Each(plans => plans.OpensFirst());
        plan.Anyone.MapGet("", Read).WithName("plan");

        var head = plan.Head.MapGroup("").ProducesProblem(409);
        head.MapPost("", Plan).TakesATurn().WithName("planTerm");
        head.MapGet("/chips/{chip}/moves", Moves).TakesATurn().WithName("moveCosts");
        head.MapPut("/chips/{chip}/pin", Pin).TakesATurn().WithName("pinChip");
        head.MapPut("/cohorts/{cohortId:guid}/kept", Keep).TakesATurn().WithName("keepAnnounced");
        head.MapPost("/undo", Undo).WithName("undoPlan");
        head.MapPost("/redo", Redo).WithName("redoPlan");
        head.MapPost("/discard", Discard).WithName("discardDraft");
        head.MapPost("/announcement", Announce).WithName("announcePlan");

        api.Head.MapGet("/terms/{termId:guid}/classes/{classId:guid}/plan/versions", Versions)
            .ProducesProblem(404)
            .WithName("planVersions");
    }

    /// <summary>The plan people know.</summary>
    public static Task<PlannedTerm?> AnnouncedAsync(
        SchoolContext db,
        Guid termId,
        Guid classId,
        CancellationToken cancel
    ) =>
        db
            .Plans.AsNoTracking()
            .Where(plan => plan.TermId == termId && plan.ClassId == classId && plan.Number != null)
            .OrderByDescending(plan => plan.Number)
            .FirstOrDefaultAsync(cancel);

    /// <summary>The plan people know of every class that has one.</summary>
    public static async Task<IReadOnlyDictionary<Guid, PlannedTerm>> AnnouncedAsync(
        SchoolContext db,
        Guid termId,
        IReadOnlyCollection<Guid> classes,
        CancellationToken cancel
    )
    {
        var plans = db.Plans.AsNoTracking().Where(plan => plan.TermId == termId && plan.Number != null);
        return await plans
            .Where(plan =>
                classes.Contains(plan.ClassId)
                && !plans.Any(later => later.ClassId == plan.ClassId && later.Number > plan.Number)
            )
            .ToDictionaryAsync(plan => plan.ClassId, cancel);
    }

    /// <summary>
    /// The plan people had when a lesson was held: what is announced later does not rewrite what was. It counts until
    /// something is said about what was taught, or else until the day is over; before the first plan, that one.
    /// </summary>
    internal static async Task<PlannedTerm?> InForceOnAsync(
        SchoolContext db,
        Guid termId,
        Guid classId,
        DateOnly date,
        CancellationToken cancel
    )
    {
        var dayIsOver = new DateTimeOffset(date.AddDays(1), TimeOnly.MinValue, TimeSpan.Zero);
        var until =
            await db
                .TaughtFacts.Where(fact => fact.ClassId == classId && fact.Date == date)
                .MinAsync(fact => (DateTimeOffset?)fact.At, cancel)
                is { } said
            && said < dayIsOver
                ? said
                : dayIsOver;
        var announced = db
            .Plans.AsNoTracking()
            .Where(plan => plan.TermId == termId && plan.ClassId == classId && plan.Number != null);
        return await announced
                .Where(plan => plan.AnnouncedAt <= until)
                .OrderByDescending(plan => plan.Number)
                .FirstOrDefaultAsync(cancel)
            ?? await announced.OrderBy(plan => plan.Number).FirstOrDefaultAsync(cancel);
    }

    /// <param name="announced">The plan people know, although the head is working on another.</param>
    /// <param name="version">A plan announced earlier.</param>
    /// <param name="beside">The announced plan that is set beside it; the one in force when left out.</param>
    private static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Read(
        [AsParameters] AskedDesk asked,
        CancellationToken cancel,
        bool announced = false,
        int? version = null,
        int? beside = null
    )
    {
        var (desk, db, termId, classId) = (asked.Desk, asked.Db, asked.TermId, asked.ClassId);
        if (version is { } number)
        {
            var other = beside ?? desk.Announced?.Number;
            var pair = await db
                .Plans.AsNoTracking()
                .Where(plan =>
                    plan.TermId == termId && plan.ClassId == classId && (plan.Number == number || plan.Number == other)
                )
                .ToListAsync(cancel);
            return
                (pair.Find(plan => plan.Number == number), pair.Find(plan => plan.Number == other))
                    is ({ } earlier, { } against)
                ? TypedResults.Ok(await desk.ShowAsync(earlier, cancel, against))
                : Refusals.NotFound(
                    $"Plan {(pair.Exists(plan => plan.Number == number) ? other : number)} of this class"
                );
        }

        return TypedResults.Ok(
            asked.Actor.IsHead && !announced
                ? await desk.ShowCurrentAsync(cancel)
                : await desk.ShowAsync(desk.Announced, cancel)
        );
    }

    internal static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Plan(
        [AsParameters] AskedStep asked,
        CancellationToken cancel
    )
    {
        var desk = asked.Desk;
        return TypedResults.Ok(await desk.DraftAsync(desk.Stated(), "Planned", asked.Actor, cancel));
    }

    /// <summary>What putting a chip into each lesson would cost, while it is being moved.</summary>
    private static async Task<Results<Ok<IReadOnlyList<Cost>>, ProblemHttpResult>> Moves(
        [AsParameters] AskedDesk asked,
        string chip,
        CancellationToken cancel
    )
    {
        var desk = asked.Desk;
        if (desk.Current is not { } current || PlanView.Find(current.Problem, chip) is not { } found)
        {
            return Refusals.NotFound("This chip");
        }

        if (!PlanInForce.StillHolds(current.Problem, current.Plan, desk.Now.Problem))
        {
            return ChangedSince();
        }

        var costs = MoveCosts
            .Of(current.Solved, found.Cohort, found.Unit)
            .Select(cost => new Cost(
                current.Problem.Lessons[cost.Lesson].Date,
                cost.Verdict,
                cost.OverSeconds.Minutes,
                cost.Says
            ));
        return TypedResults.Ok<IReadOnlyList<Cost>>([
            .. costs,
            .. current.Problem.Closed.Select(closure => new Cost(closure.Date, MoveVerdict.Never, 0, "closed")),
        ]);
    }

    /// <summary>Fixes a chip in a lesson, or lets it go; everything else is planned around it.</summary>
    private static async Task<Results<Ok<PlanView.Response>, ValidationProblem, ProblemHttpResult>> Pin(
        [AsParameters] AskedStep asked,
        string chip,
        PinRequest request,
        CancellationToken cancel
    )
    {
        var desk = asked.Desk;
        var stated = desk.Stated();
        if (PlanView.Find(stated.Problem, chip) is not { } found)
        {
            return Refusals.NotFound("This chip");
        }

        var name = stated.Problem.Cohorts.Single(cohort => cohort.Id == found.Cohort).Units[found.Unit].Name;
        int? lesson = null;
        if (request.Date is { } date)
        {
            lesson = stated
                .Problem.Lessons.Index()
                .Where(slot => slot.Item.Date == date)
                .Select(slot => (int?)slot.Index)
                .FirstOrDefault();
            if (lesson is null)
            {
                return Refusals.Invalid(
                    "date",
                    stated.Problem.Closed.FirstOrDefault(closure => closure.Date == date) is { } closure
                        ? $"{date:d MMMM} is closed: {closure.Reason}."
                        : $"There is no lesson on {date:d MMMM}."
                );
            }
        }

        var cause = lesson is null ? $"{name} let go" : $"{name} fixed on {request.Date:d MMMM}";
        return TypedResults.Ok(
            await desk.DraftAsync(
                stated with
                {
                    Problem = Replanning.WithPin(stated.Problem, found.Cohort, found.Unit, lesson),
                },
                cause,
                asked.Actor,
                cancel
            )
        );
    }

    /// <summary>One cohort does not go along with the draft: everything of it is fixed where it was
    /// announced.</summary>
    private static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Keep(
        [AsParameters] AskedStep asked,
        Guid cohortId,
        CancellationToken cancel
    )
    {
        var desk = asked.Desk;
        var stated = desk.Stated();
        if (
            desk.Announced is null
            || stated.Problem.Cohorts.FirstOrDefault(cohort => cohort.Id == cohortId) is not { } cohort
        )
        {
            return Refusals.NotFound("An announced plan of this cohort");
        }

        var problem = cohort
            .Announced.Index()
            .Where(unit => unit.Index >= cohort.IntroducedIn.Count && unit.Item is not null)
            .Aggregate(stated.Problem, (pinned, unit) => Replanning.WithPin(pinned, cohortId, unit.Index, unit.Item));
        return TypedResults.Ok(
            await desk.DraftAsync(
                stated with
                {
                    Problem = problem,
                },
                $"{cohort.Name} kept as announced",
                asked.Actor,
                cancel
            )
        );
    }

    private static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Undo(
        [AsParameters] AskedStep asked,
        CancellationToken cancel
    )
    {
        var desk = asked.Desk;
        if (desk.Draft is null)
        {
            return Refusals.Conflict("There is nothing to undo.");
        }

        if (desk is { Steps: 1, Announced: null })
        {
            return Refusals.Conflict("This is the first plan of the term. Drop the draft to be without one.");
        }

        return await desk.UndoAsync(cancel)
            ? TypedResults.Ok(await asked.ShowAgainAsync(cancel))
            : Refusals.Stale("The draft", ["Another step was taken at the same moment."]);
    }

    private static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Redo(
        [AsParameters] AskedStep asked,
        CancellationToken cancel
    )
    {
        if (asked.Desk.Undone is null)
        {
            return Refusals.Conflict("There is nothing to do again.");
        }

        return await asked.Desk.RedoAsync(cancel)
            ? TypedResults.Ok(await asked.ShowAgainAsync(cancel))
            : Refusals.Stale("The draft", ["Another step was taken at the same moment."]);
    }

    private static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Discard(
        [AsParameters] AskedStep asked,
        CancellationToken cancel
    )
    {
        await asked.Desk.DiscardAsync(cancel);
        return TypedResults.Ok(await asked.ShowAgainAsync(cancel));
    }

    internal static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Announce(
        [AsParameters] AskedStep asked,
        CancellationToken cancel
    )
    {
        var desk = asked.Desk;
        if (desk.Draft is not { } draft)
        {
            return Refusals.Conflict("There is no draft to announce.");
        }

        if (!PlanInForce.StillHolds(draft.Problem, draft.Plan, desk.Now.Problem))
        {
            return ChangedSince();
        }

        try
        {
            await desk.AnnounceAsync(draft, cancel);
        }
        catch (DbUpdateException exception)
            when (exception.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            return Refusals.Stale("The plan", ["Somebody announced another one at the same time."]);
        }

        return TypedResults.Ok(await asked.ShowAgainAsync(cancel));
    }

    private static async Task<Ok<IReadOnlyList<VersionRow>>> Versions(
        Guid termId,
        Guid classId,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var names = await db.Staff.AsNoTracking().ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        var plans = await db
            .Plans.AsNoTracking()
            .Where(plan => plan.TermId == termId && plan.ClassId == classId && plan.Number != null)
            .OrderBy(plan => plan.Number)
            .ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<VersionRow>>([
            .. plans
                .Index()
                .Select(plan => new VersionRow(
                    plan.Item.Number!.Value,
                    plan.Item.AnnouncedAt!.Value,
                    names.GetValueOrDefault(plan.Item.By, ""),
                    plan.Index == 0
                        ? 0
                        : PlanChanges
                            .Between(plans[plan.Index - 1].Solved, plan.Item.Solved)
                            .Sum(change => change.Moves.Count)
                ))
                .Reverse(),
        ]);
    }

    private static ProblemHttpResult ChangedSince() =>
        Refusals.Conflict("Something changed since this was planned. Plan again first.");
}
