namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// What makes one plan better than another, in the order of domain.md 4.3: every target met by its date, reviews on
/// time, loads even, blocks shared, few changes, and finishing early where all that is equal. Every part is a penalty
/// that is never negative. The hard rules have no price: they are kept. A pin is one of them, and its price only
/// chooses which of two pins that contradict each other is kept.
/// </summary>
public static class PlanCost
{
    /// <summary>For each pin that is not kept.</summary>
    public const long PinBroken = 1_000_000_000;

    /// <summary>For each unit left over, and for each second of it.</summary>
    public const long LeftOver = 4_000_000;
    public const long LeftOverSecond = 5_000;

    /// <summary>For each lesson a unit comes after its target.</summary>
    public const long LatePerLesson = 200_000;

    /// <summary>For each second of a review that is not held at all, or later than its tolerance.</summary>
    public const long DroppedReviewSecond = 60;
    public const long LateReviewSecond = 6;

    /// <summary>For each second of new material in a lesson beyond an even share.</summary>
    public const long UnevenSecond = 2;

    /// <summary>For each second of a posture introduced to one cohort alone that another one in the class, in the same
    /// mode, works on this term too.</summary>
    public const long UnsharedSecond = 1;

    /// <summary>For each unit that leaves its announced lesson: while a term is planned afresh, and while one is mended
    /// in its course, when only targets and reviews outweigh it.</summary>
    public const long MoveWhenPlanning = 30;
    public const long MoveWhenMending = 5_000;

    /// <summary>For each day a posture that is to be kept has faded, before the seconds that keep it count: it is touched
    /// in time first, and at least cost then.</summary>
    public const long FadedDay = 1_000;

    /// <summary>For each lesson a unit waits.</summary>
    public const long WaitingLesson = 20;

    /// <summary>The penalties of one cohort's plan, as they can be added up from the plan alone.</summary>
    public static long Of(TermProblem problem, CohortProblem cohort, CohortPlan plan)
    {
        var (firstOpen, evenShare) = (problem.FirstOpen, EvenShare(problem, cohort));
        var open = plan.Placements.Where(placement => placement.Unit >= cohort.IntroducedIn.Count).ToList();
        return open.Sum(placement => OfIntroducing(cohort, problem, placement.Unit, placement.Lesson))
            + open.GroupBy(
                    placement => placement.Lesson,
                    placement => cohort.Units[placement.Unit].IntroduceSeconds.Count
                )
                .Sum(lesson => OfUnevenness(lesson.Sum(), evenShare))
            + plan.LeftOver.Sum(left => OfLeaving(cohort, problem, left.Unit))
            + plan.Dropped.Sum(dropped => DroppedReviewSecond * dropped.Seconds)
            + plan.Placements.Sum(placement =>
                placement.Reviews.Count(review => review.Late && review.Lesson >= firstOpen)
                * LateReviewSecond
                * cohort.Units[placement.Unit].ReviewSeconds
            );
    }

    public static long OfLeaving(CohortProblem cohort, TermProblem problem, int unit) =>
        LeftOver
        + (LeftOverSecond * cohort.Units[unit].IntroduceSeconds)
        + OfMoving(cohort, problem, unit, null)
        + OfPin(cohort, unit, null);

    /// <summary>Introducing one unit in a lesson, apart from how evenly it falls and with whom it is shared.</summary>
    public static long OfIntroducing(CohortProblem cohort, TermProblem problem, int unit, int lesson) =>
        (WaitingLesson * (lesson - problem.FirstOpen))
        + (LatePerLesson * Math.Max(0, lesson - cohort.TargetOf(unit)))
        + OfMoving(cohort, problem, unit, lesson)
        + OfPin(cohort, unit, lesson);

    public static long OfUnevenness(int introduceSeconds, int evenShare) =>
        UnevenSecond * Math.Max(0, introduceSeconds - evenShare);

    /// <summary>Seconds of new material in each lesson if what is still to come were spread evenly up to its
    /// targets.</summary>
    public static int EvenShare(TermProblem problem, CohortProblem cohort)
    {
        var open = Enumerable.Range(cohort.IntroducedIn.Count, cohort.Units.Count - cohort.IntroducedIn.Count).ToList();
        var ordinary = Enumerable
            .Range(problem.FirstOpen, problem.Lessons.Count - problem.FirstOpen)
            .Where(at => problem.Lessons[at].Kind == LessonKind.Ordinary)
            .ToList();
        return open.Select(cohort.TargetOf).Distinct().Select(Share).DefaultIfEmpty(0).Max();

        int Share(int target)
        {
            var (still, lessons) = (
                open.Where(unit => cohort.TargetOf(unit) <= target).Sum(unit => cohort.Units[unit].IntroduceSeconds),
                ordinary.Count(at => at <= target)
            );
            return lessons == 0 ? still : (still + lessons - 1) / lessons;
        }
    }

    private static long OfMoving(CohortProblem cohort, TermProblem problem, int unit, int? lesson) =>
        cohort.Announced.Count > unit && cohort.Announced[unit] is { } announced && announced != lesson
            ? problem.MovePoints
            : 0;

    private static long OfPin(CohortProblem cohort, int unit, int? lesson) =>
        cohort.Pins.Any(pin => pin.Unit == unit && pin.Lesson != lesson) ? PinBroken : 0;
}
