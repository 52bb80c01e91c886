using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Server.Data;
using Zeitplan.Server.Terms;

namespace Zeitplan.Server.Lessons;

/// <summary>What a plan holds for one lesson.</summary>
/// <param name="Planned">Null while nothing is planned.</param>
internal sealed record LessonPlan(PlannedTerm? Planned, DateOnly Date)
{
    /// <summary>Index of the lesson in the plan; null when the plan does not know the date.</summary>
    public int? At { get; } =
        Planned
            ?.Problem.Lessons.Index()
            .Where(slot => slot.Item.Date == Date)
            .Select(slot => (int?)slot.Index)
            .FirstOrDefault();

    /// <summary>What was held is history: whatever is planned later, its page and its register stay.</summary>
    public static async Task<LessonPlan> InForceAsync(
        SchoolContext db,
        Lesson lesson,
        DateOnly today,
        CancellationToken cancel
    ) =>
        new(
            lesson.Date <= today
                ? await PlanEndpoints.InForceOnAsync(db, lesson.Term.Id, lesson.Class.Id, lesson.Date, cancel)
                : await PlanEndpoints.AnnouncedAsync(db, lesson.Term.Id, lesson.Class.Id, cancel),
            lesson.Date
        );

    public CohortProblem? AskedOf(Guid cohortId) => Planned?.Solved.Asked(cohortId);

    /// <summary>What it asks of the lesson, in tasks; null when it does not know the date.</summary>
    /// <param name="adapted">The groups that sit down for a while.</param>
    public PlannedLesson? Asks(IEnumerable<Cohort> adapted, Teaching teaching) =>
        Planned is { } planned && At is { } at
            ? PlannedLesson.Of(
                planned.Problem,
                planned.Plan,
                at,
                adapted.Select(cohort => cohort.Id).ToHashSet(),
                teaching.WarmUp
            )
            : null;

    /// <summary>The postures a cohort meets in it, each once: what people can be watched at, and what their limits are
    /// held against.</summary>
    public IReadOnlyList<PostureSide> Touches(Guid cohortId) =>
        [.. For(cohortId).Select(item => new PostureSide(item.PostureId, item.Side)).Distinct()];

    public CohortPlan? AnswerFor(Guid cohortId) => Planned?.Solved.Answered(cohortId);

    /// <summary>What is new for a cohort, what is reviewed and what is run through.</summary>
    public IEnumerable<TaughtItem> For(Guid cohortId)
    {
        if (AskedOf(cohortId) is not { } problem || AnswerFor(cohortId) is not { } plan || At is not { } at)
        {
            return [];
        }

        var units =
            from placement in plan.Placements
            let how = HowIn(placement, at, plan.Lessons[at].RunThroughSeconds > 0)
            where how is not null
            let unit = problem.Units[placement.Unit]
            select new TaughtItem(cohortId, unit.PostureId, unit.Side, how.Value)
            {
                Kind = unit.Kind,
                From = unit.From,
            };
        var before =
            plan.Lessons[at].RunThroughSeconds > 0
                ? problem.Before.Select(of => new TaughtItem(cohortId, of.PostureId, of.Side, TaughtHow.RunThrough))
                : [];
        // What keeps something is of no use where it is taught anyway.
        return units.Concat(before).Concat(Kept(cohortId, problem.Keeping, plan.Kept, at)).DistinctBy(item => item.Key);
    }

    /// <summary>One of the plan's lessons still to come tells what the school does otherwise.</summary>
    public bool TellsTheDifference(Guid cohortId, PostureSide of, DateOnly today) =>
        AskedOf(cohortId) is { } problem
        && AnswerFor(cohortId)!
            .Kept.Refreshes.Any(refresh =>
                Planned!.Solved.DateOf(refresh.Lesson) >= today
                && refresh.Posture is { } posture
                && problem.Keeping.Postures[posture] is { Changed: not null } kept
                && kept.Of == of
            );

    private static IEnumerable<TaughtItem> Kept(Guid cohortId, Keeping keeping, KeptPlan kept, int lesson) =>
        from refresh in kept.In(lesson)
        from of in keeping.TouchedBy(refresh)
        select new TaughtItem(
            cohortId,
            of.PostureId,
            of.Side,
            refresh.Run is null ? TaughtHow.Reviewed : TaughtHow.RunThrough
        );

    private static TaughtHow? HowIn(Placement placement, int lesson, bool runsThrough)
    {
        if (placement.Lesson == lesson)
        {
            return TaughtHow.Introduced;
        }

        if (placement.Reviews.Any(review => review.Lesson == lesson && !review.InRunThrough))
        {
            return TaughtHow.Reviewed;
        }

        return placement.Lesson < lesson && runsThrough ? TaughtHow.RunThrough : null;
    }
}
