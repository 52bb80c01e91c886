using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Terms;

/// <summary>A class's term as the weave shows it, and planning it.</summary>
internal static class PlanEndpoints
{
    /// <param name="Lessons">Every date of the term, closures included.</param>
    /// <param name="PlannedAt">Null while the term has not been planned: the rows then have no chips.</param>
    public sealed record Response(Guid TermId, string Term, Guid ClassId, string Class, IReadOnlyList<Column> Lessons, IReadOnlyList<Row> Rows, DateTimeOffset? PlannedAt, bool OutOfDate);

    /// <param name="LedMinutes">Minutes of the teachers' time used, of <paramref name="TeacherMinutes"/>; null before planning and on closures.</param>
    public sealed record Column(DateOnly Date, int? Number, LessonKind Kind, string? Closed, bool Held, decimal? LedMinutes, decimal? TeacherMinutes);

    public sealed record Row(
        Guid CohortId, string Name, string Colour, Half Half, string Mode, int People, bool Assigned, IReadOnlyList<Chip> Chips, IReadOnlyList<RunThrough> RunThroughs,
        IReadOnlyList<Left> LeftOver, DateOnly? Finish, DateOnly? Target, bool Exact);

    /// <param name="From">With a link, the posture it leads on from.</param>
    /// <param name="SharedWith">Cohorts that are led in it at the same time.</param>
    public sealed record Chip(UnitKind Kind, Guid PostureId, Core.Forms.Side Side, PostureSide? From, IReadOnlyList<string> SharedWith, string Name, DateOnly Date, bool Taught, decimal Minutes, string Effort, string Because, IReadOnlyList<Knot> Reviews);

    public sealed record Knot(DateOnly Date, int WeeksAfter, bool Late);

    /// <summary>A lesson whose work is the run-through: before a test, in it, and once everything has been introduced.</summary>
    public sealed record RunThrough(DateOnly Date, LessonKind Kind, decimal Minutes);

    /// <param name="Minutes">0 for what cannot be taught at all yet.</param>
    public sealed record Left(string Name, decimal Minutes, string Because);

    public static void Map(IEndpointRouteBuilder api)
    {
        var plan = api.MapGroup("/terms/{termId:guid}/classes/{classId:guid}/plan");
        plan.MapGet("", Read).RequireAuthorization(Policies.Anyone).ProducesProblem(403).ProducesProblem(404).WithName("plan");
        plan.MapPost("", Plan).RequireAuthorization(Policies.Head).ProducesProblem(404).WithName("planTerm");
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(Guid termId, Guid classId, SchoolContext db, Actor actor, SchoolClock clock, CancellationToken cancel)
    {
        var (term, meeting) = await FindAsync(termId, classId, db, cancel);
        if (term is null || meeting is null)
        {
            return Answers.NotFound(term is null ? "This term" : "This class");
        }

        if (!actor.Teaches(meeting, await clock.TodayAsync(cancel)))
        {
            return Answers.NotYours();
        }

        var material = await ClassMaterials.LoadAsync(db, term, meeting, await clock.TodayAsync(cancel), cancel);
        var planned = await LatestAsync(db, termId, classId, cancel);
        return TypedResults.Ok(await ShowAsync(term, meeting, planned, material, db, cancel));
    }

    internal static async Task<Results<Ok<Response>, ProblemHttpResult>> Plan(Guid termId, Guid classId, SchoolContext db, Actor actor, SchoolClock clock, CancellationToken cancel)
    {
        var (term, meeting) = await FindAsync(termId, classId, db, cancel);
        if (term is null || meeting is null)
        {
            return Answers.NotFound(term is null ? "This term" : "This class");
        }

        var material = await ClassMaterials.LoadAsync(db, term, meeting, await clock.TodayAsync(cancel), cancel);
        var planned = PlannedTerm.Create(termId, classId, material, TermPlanner.Plan(material.Problem, cancel: cancel), actor.StaffId, clock.Now);
        db.Plans.Add(planned);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Ok(await ShowAsync(term, meeting, planned, material, db, cancel));
    }

    /// <summary>The plan in force.</summary>
    public static Task<PlannedTerm?> LatestAsync(SchoolContext db, Guid termId, Guid classId, CancellationToken cancel) =>
        db.Plans.AsNoTracking().Where(plan => plan.TermId == termId && plan.ClassId == classId).OrderByDescending(plan => plan.Id).FirstOrDefaultAsync(cancel);

    private static async Task<(Term? Term, SchoolClass? Class)> FindAsync(Guid termId, Guid classId, SchoolContext db, CancellationToken cancel) => (
        await db.Terms.AsNoTracking().SingleOrDefaultAsync(t => t.Id == termId, cancel),
        await db.Classes.AsNoTracking().SingleOrDefaultAsync(c => c.Id == classId, cancel));

    /// <param name="now">The problem as it would be stated now: when the plan no longer answers it, the plan is out of date.</param>
    private static async Task<Response> ShowAsync(Term term, SchoolClass meeting, PlannedTerm? planned, ClassMaterial now, SchoolContext db, CancellationToken cancel)
    {
        var cohorts = await db.Cohorts.AsNoTracking().Where(cohort => cohort.ClassId == meeting.Id).OrderBy(cohort => cohort.Order).ToListAsync(cancel);
        var ids = cohorts.Select(cohort => cohort.Id).ToList();
        var people = (await db.StudentsIn(ids).Select(student => student.CohortIds).ToListAsync(cancel)).SelectMany(theirs => theirs).CountBy(cohort => cohort).ToDictionary();
        var targets = (await db.Assignments.AsNoTracking().Where(a => a.TermId == term.Id && ids.Contains(a.CohortId)).ToListAsync(cancel)).ToDictionary(a => a.CohortId, a => a.Target);
        var lessonAt = planned?.Problem.Lessons.Index().ToDictionary(lesson => lesson.Item.Date, lesson => lesson.Index) ?? [];
        var held = now.Problem.Lessons.Where(lesson => lesson.Held).Select(lesson => lesson.Date).ToHashSet();
        return new(
            term.Id, term.Name, meeting.Id, meeting.Name,
            [.. LessonCalendar.Of(term, meeting).Select(day => lessonAt.TryGetValue(day.Date, out var at)
                ? new Column(day.Date, day.Number, day.Kind, day.Closed, held.Contains(day.Date), Minutes.Of(planned!.Plan.LedSeconds[at]), Minutes.Of(planned.Problem.Lessons[at].TeacherSeconds))
                : new Column(day.Date, day.Number, day.Kind, day.Closed, held.Contains(day.Date), null, null))],
            [.. cohorts.Select(cohort => ShowRow(cohort, people.GetValueOrDefault(cohort.Id), targets.GetValueOrDefault(cohort.Id), planned))],
            planned?.At,
            planned is not null && !PlanInForce.StillHolds(planned.Problem, planned.Plan, now.Problem));
    }

    private static Row ShowRow(Cohort cohort, int people, DateOnly? target, PlannedTerm? planned)
    {
        var problem = planned?.Problem.Cohorts.SingleOrDefault(c => c.Id == cohort.Id);
        var plan = planned?.Plan.Cohorts.SingleOrDefault(c => c.CohortId == cohort.Id);
        if (planned is null || problem is null || plan is null)
        {
            return new(cohort.Id, cohort.Name, cohort.Colour, cohort.Half, cohort.Mode.Name, people, target is not null, [], [], [], null, target, false);
        }

        var lessons = planned.Problem.Lessons;
        return new(
            cohort.Id, cohort.Name, cohort.Colour, cohort.Half, cohort.Mode.Name, people, target is not null,
            [.. plan.Placements.Select(placement => ShowChip(problem.Units[placement.Unit], placement, lessons, SharedWith(planned, cohort.Id, problem.Units[placement.Unit], placement.Lesson)))],
            [.. plan.Lessons.Index().Where(lesson => lesson.Item.RunThroughSeconds > 0 && (lessons[lesson.Index].Kind != LessonKind.Ordinary || lesson.Index > plan.FinishLesson)).Select(lesson => new RunThrough(
                lessons[lesson.Index].Date, lessons[lesson.Index].Kind, Minutes.Of(lesson.Item.RunThroughSeconds + lesson.Item.WatchSeconds)))],
            [
                .. plan.LeftOver.Select(left => new Left(problem.Units[left.Unit].Name, Minutes.Of(left.Seconds), left.Because)),
                .. planned.Unteachable.GetValueOrDefault(cohort.Id, []).Select(left => new Left(left.Name, 0, $"Cannot be taught: {left.Because}.")),
                .. plan.Dropped.Select(dropped => new Left($"Review of {problem.Units[dropped.Unit].Name}", Minutes.Of(dropped.Seconds), $"Due on {lessons[dropped.DueLesson].Date:d MMMM}; no lesson after it has room.")),
            ],
            plan.FinishLesson is { } finish ? lessons[finish].Date : null,
            target,
            plan.Exact);
    }

    private static IReadOnlyList<string> SharedWith(PlannedTerm planned, Guid cohort, TeachingUnit unit, int lesson) =>
        [.. planned.Plan.Shared.Where(block => unit.Kind != UnitKind.Link && block.Lesson == lesson && block.PostureId == unit.PostureId && block.Side == unit.Side && block.CohortIds.Contains(cohort))
            .SelectMany(block => block.CohortIds).Where(id => id != cohort).Select(id => planned.Problem.Cohorts.Single(one => one.Id == id).Name)];

    private static Chip ShowChip(TeachingUnit unit, Placement placement, IReadOnlyList<LessonSlot> lessons, IReadOnlyList<string> sharedWith) => new(
        unit.Kind, unit.PostureId, unit.Side, unit.From, sharedWith, unit.Name, lessons[placement.Lesson].Date, lessons[placement.Lesson].Held, Minutes.Of(unit.IntroduceSeconds), unit.Effort, placement.Because,
        [.. placement.Reviews.Select(review => new Knot(lessons[review.Lesson].Date, review.WeeksAfter, review.Late))]);
}
