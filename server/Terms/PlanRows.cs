using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using static Zeitplan.Server.Terms.PlanView;

namespace Zeitplan.Server.Terms;

/// <summary>One cohort's row of the term: its chips with their reviews, what is run through, and what does not
/// fit.</summary>
internal static class PlanRows
{
    /// <summary>Any number will do, as long as it stays: the same plan is forecast the same.</summary>
    private const int Seed = 20260901;

    public static Row Of(
        Cohort cohort,
        int people,
        Assignment? given,
        PlannedTerm? planned,
        PlannedTerm? announced,
        IReadOnlyList<AgainInPlan> again,
        LearningHabits habits
    )
    {
        var problem = planned?.Problem.Cohorts.SingleOrDefault(c => c.Id == cohort.Id);
        var plan = planned?.Plan.Cohorts.SingleOrDefault(c => c.CohortId == cohort.Id);
        var (target, isAssigned) = (given?.Target, given?.Segments.Count > 0);
        if (planned is null || problem is null || plan is null)
        {
            return new(
                cohort.Id,
                cohort.Name,
                cohort.Colour,
                cohort.Half,
                cohort.Mode.Name,
                people,
                isAssigned,
                [],
                [],
                [],
                null,
                [],
                0,
                [],
                null,
                target,
                false,
                null
            );
        }

        var lessons = planned.Problem.Lessons;
        var was =
            announced is not null && announced.Id != planned.Id && announced.Solved.Asked(cohort.Id) is { } before
                ? announced
                    .Solved.Answered(cohort.Id)!
                    .Placements.ToDictionary(
                        placement => before.Units[placement.Unit].Key,
                        placement => announced.Solved.DateOf(placement.Lesson)
                    )
                : [];
        return new(
            cohort.Id,
            cohort.Name,
            cohort.Colour,
            cohort.Half,
            cohort.Mode.Name,
            people,
            isAssigned,
            [
                .. plan.Placements.Select(placement =>
                    ShowChip(
                        cohort.Id,
                        problem.Units[placement.Unit],
                        placement,
                        lessons,
                        was,
                        SharedWith(planned, cohort.Id, problem.Units[placement.Unit], placement.Lesson)
                    )
                ),
            ],
            [
                .. plan
                    .Lessons.Index()
                    .Where(lesson =>
                        lesson.Item.RunThroughSeconds > 0
                        && (lessons[lesson.Index].Kind != LessonKind.Ordinary || lesson.Index > plan.FinishLesson)
                    )
                    .Select(lesson => new RunThrough(
                        lessons[lesson.Index].Date,
                        lessons[lesson.Index].Kind,
                        new Seconds(lesson.Item.RunThroughSeconds + lesson.Item.WatchSeconds).Minutes
                    )),
            ],
            [
                .. plan.Kept.Refreshes.Select(refresh => new Refreshed(
                    lessons[refresh.Lesson].Date,
                    problem.Keeping.NameOf(refresh),
                    refresh.Run is not null,
                    refresh.Posture is { } posture ? problem.Keeping.Postures[posture].Changed?.Difference : null,
                    refresh.Seconds.Minutes,
                    refresh.Because
                )),
                .. again.Select(its => new Refreshed(its.Date, its.What, false, null, its.Minutes, its.Because)),
            ],
            Keeping(problem.Keeping, plan.Kept),
            [
                .. plan.LeftOver.Select(left => new Left(
                    problem.Units[left.Unit].Name,
                    left.Seconds.Minutes,
                    left.Because
                )),
                .. planned
                    .Unteachable.GetValueOrDefault(cohort.Id, [])
                    .Select(left => new Left(left.Name, 0, $"Cannot be taught: {left.Because}.")),
                .. plan.Dropped.Select(dropped => new Left(
                    $"Review of {problem.Units[dropped.Unit].Name}",
                    dropped.Seconds.Minutes,
                    $"Due on {lessons[dropped.DueLesson].Date:d MMMM}; no lesson after it has room."
                )),
                .. plan
                    .Kept.NotKept.Where(late => late.Lesson is null)
                    .Select(late => NeverTouched(problem.Keeping.Postures[late.Posture], late)),
            ],
            plan.LeftSeconds.Minutes,
            [
                .. plan.Refused.Select(refused => new Refused(
                    problem.Units[refused.Pin.Unit].Name,
                    lessons[refused.Pin.Lesson].Date,
                    refused.Because
                )),
                .. problem.Lost.Select(lost => new Refused(problem.Units[lost.Unit].Name, lost.Date, lost.Because)),
            ],
            plan.FinishLesson is { } finish ? lessons[finish].Date : null,
            target,
            plan.Exact,
            Forecasts.Of(planned.Solved, cohort.Id, habits, Seed)
        );
    }

    private static Keeps? Keeping(Keeping keeping, KeptPlan kept) =>
        keeping.Postures.Count(posture => posture.Changed is null) is > 0 and var postures
            ? new(
                postures,
                kept.Refreshes.Where(refresh =>
                        refresh.Posture is not { } posture || keeping.Postures[posture].Changed is null
                    )
                    .Select(refresh => refresh.Lesson)
                    .Distinct()
                    .Count(),
                [
                    .. kept
                        .NotKept.Select(late => keeping.Postures[late.Posture])
                        .Where(posture => posture.Changed is null)
                        .Select(posture => posture.Name)
                        .Distinct(),
                ]
            )
            : null;

    private static Left NeverTouched(KeptPosture kept, NotKept late) =>
        new(
            kept.Name,
            kept.Seconds.Minutes,
            kept.Changed is { } changed
                ? $"Done otherwise since {changed.Since:d MMMM}; no lesson has room to tell it."
                : $"It fades after {late.Due:d MMMM}; no lesson has room for it."
        );

    private static IReadOnlyList<string> SharedWith(PlannedTerm planned, Guid cohort, TeachingUnit unit, int lesson) =>
        [
            .. planned
                .Plan.Shared.Where(block =>
                    unit.Kind != UnitKind.Link
                    && block.Lesson == lesson
                    && block.PostureId == unit.PostureId
                    && block.Side == unit.Side
                    && block.CohortIds.Contains(cohort)
                )
                .SelectMany(block => block.CohortIds)
                .Where(id => id != cohort)
                .Select(id => planned.Problem.Cohorts.Single(cohort => cohort.Id == id).Name),
        ];

    private static Chip ShowChip(
        Guid cohort,
        TeachingUnit unit,
        Placement placement,
        IReadOnlyList<LessonSlot> lessons,
        Dictionary<UnitKey, DateOnly> was,
        IReadOnlyList<string> sharedWith
    ) =>
        new(
            ChipId(cohort, unit.Key),
            placement.Pinned,
            was.TryGetValue(unit.Key, out var before) && before != lessons[placement.Lesson].Date ? before : null,
            unit.Kind,
            unit.PostureId,
            unit.Side,
            unit.From,
            sharedWith,
            unit.Name,
            lessons[placement.Lesson].Date,
            lessons[placement.Lesson].Held,
            unit.IntroduceSeconds.Minutes,
            unit.Effort,
            placement.Because,
            [
                .. placement.Reviews.Select(review => new Knot(
                    lessons[review.Lesson].Date,
                    review.WeeksAfter,
                    review.Late
                )),
            ]
        );
}
