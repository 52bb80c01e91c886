using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>What the head has on the table: one class's term as it would be stated now, the plan people know, and the
/// draft.</summary>
internal sealed class PlanDesk
{
    /// <summary>How far back a draft can be undone.</summary>
    private const int StepsKept = 30;

    private readonly SchoolContext db;
    private readonly SchoolClock clock;

    private PlanDesk(
        SchoolContext db,
        SchoolClock clock,
        Term term,
        SchoolClass schoolClass,
        DateOnly today,
        ClassMaterial now
    ) => (this.db, this.clock, Term, Class, Today, Now) = (db, clock, term, schoolClass, today, now);

    public Term Term { get; }
    public SchoolClass Class { get; }
    public DateOnly Today { get; }
    public ClassMaterial Now { get; }
    public PlannedTerm? Announced { get; private init; }

    /// <summary>The latest draft, or the announced plan when there is none.</summary>
    public PlannedTerm? Current { get; private init; }

    /// <summary>The step the head looks at; null while the announced plan is on the table, or none.</summary>
    public PlannedTerm? Draft => Current is { Number: null } draft ? draft : null;

    /// <summary>The step that was taken back last, where it can be taken again.</summary>
    public UndoneStep? Undone { get; private set; }

    /// <returns>Why no step is taken from the draft somebody looks at; null when it is the one on the table.</returns>
    /// <param name="seen">Null when they see none.</param>
    public ProblemHttpResult? WhyNoStepFrom(Guid? seen)
    {
        if (Draft?.Id == seen)
        {
            return null;
        }

        return Refusals.Stale(
            "The draft",
            [
                Draft is { } draft
                    ? $"The last step is: {draft.Cause}."
                    : "The draft is gone: it was announced or dropped.",
            ]
        );
    }

    /// <summary>How many steps the draft has come from.</summary>
    public int Steps { get; private set; }

    public static async Task<PlanDesk?> OpenAsync(
        Guid termId,
        Guid classId,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var term = await db.Terms.AsNoTracking().SingleOrDefaultAsync(t => t.Id == termId, cancel);
        var schoolClass = await db.Classes.AsNoTracking().SingleOrDefaultAsync(c => c.Id == classId, cancel);
        if (term is null || schoolClass is null)
        {
            return null;
        }

        var today = await clock.TodayAsync(cancel);
        var drafts = db.Drafts.AsNoTracking().Where(plan => plan.TermId == termId && plan.ClassId == classId);
        var announced = await PlanEndpoints.AnnouncedAsync(db, termId, classId, cancel);
        var current = await drafts.OrderByDescending(plan => plan.Id).FirstOrDefaultAsync(cancel) ?? announced;
        Guid? basis = current?.Id;
        return new(
            db,
            clock,
            term,
            schoolClass,
            today,
            await TermProblemLoader.LoadAsync(db, term, schoolClass, today, cancel)
        )
        {
            Announced = announced,
            Current = current,
            Undone = await db
                .Plans.Where(step => step.TermId == termId && step.ClassId == classId)
                .Where(step => step.BasedOn == basis && step.UndoneAt != null)
                .OrderByDescending(step => step.UndoneAt)
                .Select(step => new UndoneStep(step.Id, step.Cause))
                .FirstOrDefaultAsync(cancel),
            Steps = await drafts.CountAsync(cancel),
        };
    }

    /// <summary>The term as it is now, with what the head fixed and what was announced.</summary>
    public ClassMaterial Stated() =>
        Now with
        {
            Problem = Replanning.Continue(Now.Problem, Current?.Problem, Announced?.Solved),
        };

    /// <summary>Plans it, and puts the plan on top of the drafts.</summary>
    public async Task<PlanView.Response> DraftAsync(
        ClassMaterial stated,
        string cause,
        Actor actor,
        CancellationToken cancel
    )
    {
        var plan = TermPlanner.Plan(
            stated.Problem,
            Replanning.Carried(stated.Problem, Current?.Solved),
            cancel: cancel
        );
        var draft = PlannedTerm.Create(Term.Id, Class.Id, Current?.Id, stated, plan, cause, actor.StaffId, clock.Now);
        db.Plans.Add(draft);
        await db.SaveChangesAsync(cancel);
        // What was taken back before led elsewhere.
        await AllSteps.Where(step => step.UndoneAt != null).ExecuteDeleteAsync(cancel);
        Undone = null;
        Steps++;
        if (Steps > StepsKept)
        {
            var old = await AllSteps
                .OrderByDescending(step => step.Id)
                .Skip(StepsKept)
                .Select(step => step.Id)
                .ToListAsync(cancel);
            await AllSteps.Where(step => old.Contains(step.Id)).ExecuteDeleteAsync(cancel);
            Steps = StepsKept;
        }

        return await ShowAsync(draft, cancel);
    }

    /// <summary>Gives a draft its number; the steps that led to it go.</summary>
    public async Task AnnounceAsync(PlannedTerm draft, CancellationToken cancel)
    {
        var halls = await db.Halls.AsNoTracking().ToDictionaryAsync(hall => hall.Id, hall => hall.Name, cancel);
        var kept = await db.Plans.SingleAsync(plan => plan.Id == draft.Id, cancel);
        kept.Announce(
            (Announced?.Number ?? 0) + 1,
            [
                .. LessonCalendar
                    .Of(Term, Class)
                    .Select(day => new AnnouncedLesson(
                        day.Usual,
                        day.Date,
                        day.Start,
                        day.Minutes,
                        halls[day.HallId],
                        Class.StaffOn(day.Date),
                        draft.Solved.NewOn(day.Date),
                        day.Closed
                    )),
            ],
            clock.Now
        );
        await using var both = await AllOrNothing.BeginAsync(db, cancel);
        await db.SaveChangesAsync(cancel);
        await DiscardAsync(cancel);
        await both.KeepAsync(cancel);
    }

    /// <summary>Takes the last step back.</summary>
    /// <returns>False when it is gone already.</returns>
    public async Task<bool> UndoAsync(CancellationToken cancel) =>
        await AllSteps
            .Where(step => step.Id == Draft!.Id && step.UndoneAt == null)
            .ExecuteUpdateAsync(step => step.SetProperty(its => its.UndoneAt, clock.Now), cancel) == 1;

    /// <summary>Takes the step again that was taken back last.</summary>
    /// <returns>False when it is gone already.</returns>
    public async Task<bool> RedoAsync(CancellationToken cancel) =>
        await AllSteps
            .Where(step => step.Id == Undone!.Id && step.UndoneAt != null)
            .ExecuteUpdateAsync(step => step.SetProperty(its => its.UndoneAt, (DateTimeOffset?)null), cancel) == 1;

    /// <summary>Drops the draft with all its steps.</summary>
    public Task DiscardAsync(CancellationToken cancel) => AllSteps.ExecuteDeleteAsync(cancel);

    /// <summary>Those taken back among them.</summary>
    private IQueryable<PlannedTerm> AllSteps =>
        db.Plans.Where(plan => plan.TermId == Term.Id && plan.ClassId == Class.Id && plan.Number == null);

    /// <summary>The plan on the table, for the head.</summary>
    public Task<PlanView.Response> ShowCurrentAsync(CancellationToken cancel) =>
        ShowAsync(Current, Announced, Undone?.Cause, cancel);

    /// <param name="beside">The announced plan it is compared with; the one in force when left out.</param>
    public Task<PlanView.Response> ShowAsync(
        PlannedTerm? planned,
        CancellationToken cancel,
        PlannedTerm? beside = null
    ) => ShowAsync(planned, beside ?? Announced, null, cancel);

    private Task<PlanView.Response> ShowAsync(
        PlannedTerm? planned,
        PlannedTerm? beside,
        string? redo,
        CancellationToken cancel
    ) => PlanView.ShowAsync(Term, Class, planned, beside, Steps, redo, Now, db, cancel);
}

/// <param name="Cause">What the head had done.</param>
internal sealed record UndoneStep(Guid Id, string Cause);
