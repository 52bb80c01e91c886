using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>What would make a term fit: each way is planned, looked at before it is taken, and then changes the school
/// itself.</summary>
internal static class RemedyEndpoints
{
    /// <param name="Cohorts">Those it does something for, or against.</param>
    /// <param name="LeftMinutes">What would still have no room, of <paramref name="LeftNow"/>.</param>
    public sealed record Option(
        string Id,
        string Says,
        decimal LeftNow,
        decimal LeftMinutes,
        int LateNow,
        int Late,
        IReadOnlyList<PlanView.Change> Cohorts
    );

    public static void Map(ByRank api)
    {
        var remedies = api
            .Head.MapGroup("/terms/{termId:guid}/classes/{classId:guid}/plan/remedies")
            .OpensFirst()
            .ProducesProblem(409)
            .TakesATurn();
        remedies.MapGet("", List).WithName("remedies");
        remedies.MapGet("/{id}", Preview).WithName("previewRemedy");
        remedies.MapPost("/{id}", Take).WithName("takeRemedy");
    }

    /// <summary>Every way there is, planned; the one that leaves least over first.</summary>
    private static async Task<Results<Ok<IReadOnlyList<Option>>, ProblemHttpResult>> List(
        [AsParameters] AskedDesk asked,
        CancellationToken cancel
    )
    {
        var (desk, db) = (asked.Desk, asked.Db);
        if (desk.Current is not { } current)
        {
            return Refusals.NotFound("A plan of this class");
        }

        List<Option> options = [];
        foreach (var remedy in Remedies.For(await AskedAsync(desk, current, db, cancel)))
        {
            var (_, _, tried) = await TryAsync(desk, current, remedy, db, cancel);
            options.Add(
                new(
                    remedy.Id,
                    remedy.Says,
                    Left(current.Solved).Minutes,
                    Left(tried.Solved).Minutes,
                    Late(current.Solved),
                    Late(tried.Solved),
                    PlanView.Show([
                        .. PlanChanges
                            .Between(current.Solved, tried.Solved)
                            .Where(change => change.Before != change.After),
                    ])
                )
            );
        }

        return TypedResults.Ok<IReadOnlyList<Option>>([
            .. options.OrderBy(option => option.LeftMinutes).ThenBy(option => option.Late),
        ]);
    }

    /// <summary>The plan it leads to, against the one on the table; nothing is kept.</summary>
    private static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Preview(
        [AsParameters] AskedDesk asked,
        string id,
        CancellationToken cancel
    )
    {
        var (desk, db) = (asked.Desk, asked.Db);
        var (found, refusal) = await FindAsync(desk, id, db, cancel);
        if (found is not var (current, remedy))
        {
            return refusal!;
        }

        var (term, schoolClass, tried) = await TryAsync(desk, current, remedy, db, cancel);
        return TypedResults.Ok(
            await PlanView.ShowAsync(
                term,
                schoolClass,
                tried,
                current,
                0,
                null,
                new(tried.Problem, tried.Unteachable),
                db,
                cancel
            )
        );
    }

    /// <summary>Changes the school, and drafts the plan that follows; both or neither.</summary>
    private static async Task<Results<Ok<PlanView.Response>, ProblemHttpResult>> Take(
        [AsParameters] AskedDesk asked,
        string id,
        CancellationToken cancel
    )
    {
        var (desk, db) = (asked.Desk, asked.Db);
        var (found, refusal) = await FindAsync(desk, id, db, cancel);
        if (found is not var (current, remedy))
        {
            return refusal!;
        }

        await using var together = await db.Database.BeginTransactionAsync(cancel);
        var cohorts = current.Problem.Cohorts.Select(cohort => cohort.Id).ToList();
        remedy.Apply(
            await db.Terms.SingleAsync(term => term.Id == asked.TermId, cancel),
            await db.Classes.SingleAsync(schoolClass => schoolClass.Id == asked.ClassId, cancel),
            await db
                .Assignments.Where(given => given.TermId == asked.TermId && cohorts.Contains(given.CohortId))
                .ToListAsync(cancel)
        );
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            return Gone();
        }

        db.ChangeTracker.Clear();
        var after = (await PlanDesk.OpenAsync(asked.TermId, asked.ClassId, db, asked.Clock, cancel))!;
        var shown = await after.DraftAsync(after.Stated(), remedy.Says, asked.Actor, cancel);
        await together.CommitAsync(cancel);
        return TypedResults.Ok(shown);
    }

    private static async Task<((PlannedTerm Current, Remedy Remedy)? Found, ProblemHttpResult? Refusal)> FindAsync(
        PlanDesk desk,
        string id,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (desk.Current is not { } current)
        {
            return (null, Refusals.NotFound("A plan of this class"));
        }

        var remedies = Remedies.For(await AskedAsync(desk, current, db, cancel));
        return remedies.FirstOrDefault(remedy => remedy.Id == id) is { } remedy
            ? ((current, remedy), null)
            : (null, Gone());
    }

    private static ProblemHttpResult Gone() =>
        Refusals.Conflict("The school has changed since this was worked out. Look again at what would make it fit.");

    private static Seconds Left(SolvedTerm term) =>
        term.Plan.Cohorts.Total(cohort => PlanChanges.OutlookOf(term, cohort.CohortId).LeftSeconds);

    private static int Late(SolvedTerm term) =>
        term.Plan.Cohorts.Sum(cohort =>
            PlanChanges.OutlookOf(term, cohort.CohortId) is var outlook ? outlook.LateUnits + outlook.LateReviews : 0
        );

    /// <summary>Plans the term as it would be, on copies of what the remedy touches.</summary>
    private static async Task<(Term Term, Core.People.SchoolClass Class, PlannedTerm Plan)> TryAsync(
        PlanDesk desk,
        PlannedTerm current,
        Remedy remedy,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var (term, schoolClass) = (
            await db.Terms.AsNoTracking().SingleAsync(term => term.Id == desk.Term.Id, cancel),
            await db.Classes.AsNoTracking().SingleAsync(its => its.Id == desk.Class.Id, cancel)
        );
        var given = await AssignmentsAsync(desk, current, db, cancel);
        var before = given.ToDictionary(assignment => assignment.CohortId, assignment => assignment.Segments);
        remedy.Apply(term, schoolClass, given);
        var now = await TermProblemLoader.LoadAsync(
            db,
            term,
            schoolClass,
            desk.Today,
            cancel,
            given.FirstOrDefault(assignment => !ReferenceEquals(assignment.Segments, before[assignment.CohortId]))
        );
        var problem = Replanning.Continue(now.Problem, current.Problem, desk.Announced?.Solved);
        var plan = TermPlanner.Plan(problem, Replanning.Carried(problem, current.Solved), cancel: cancel);
        return (
            term,
            schoolClass,
            PlannedTerm.Create(
                term.Id,
                schoolClass.Id,
                current.Id,
                now with
                {
                    Problem = problem,
                },
                plan,
                remedy.Says,
                current.By,
                current.At
            )
        );
    }

    private static Task<List<Assignment>> AssignmentsAsync(
        PlanDesk desk,
        PlannedTerm current,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var cohorts = current.Problem.Cohorts.Select(cohort => cohort.Id).ToList();
        return db
            .Assignments.AsNoTracking()
            .Where(given => given.TermId == desk.Term.Id && cohorts.Contains(given.CohortId))
            .ToListAsync(cancel);
    }

    private static async Task<RemedyQuestion> AskedAsync(
        PlanDesk desk,
        PlannedTerm current,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        new(
            current.Solved,
            desk.Term,
            desk.Class,
            desk.Today,
            await AssignmentsAsync(desk, current, db, cancel),
            await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel),
            await Material.OutlinesAsync(db, cancel),
            await db
                .Classes.AsNoTracking()
                .Where(other => other.Id != desk.Class.Id && (other.Closed == null || other.Closed >= desk.Today))
                .ToListAsync(cancel),
            await db.Halls.AsNoTracking().ToDictionaryAsync(hall => hall.Id, cancel),
            await db.Staff.AsNoTracking().ToListAsync(cancel),
            await db.Terms.AsNoTracking().Where(other => other.Id != desk.Term.Id).ToListAsync(cancel)
        );
}
