namespace Zeitplan.Core.Terms;

/// <summary>
/// What makes one plan better than another, in the order of domain.md 4.3: every target met by its date, reviews on time, loads even, and finishing early
/// where all that is equal. Every part is a penalty that is never negative. The hard rules have no price: they are kept.
/// </summary>
public static class PlanCost
{
    /// <summary>For each unit left over, and for each second of it.</summary>
    public const long LeftOver = 4_000_000;
    public const long LeftOverSecond = 5_000;

    /// <summary>For each lesson a unit comes after its cohort's target.</summary>
    public const long LatePerLesson = 200_000;

    /// <summary>For each second of a review that is not held at all, or later than its tolerance.</summary>
    public const long DroppedReviewSecond = 60;
    public const long LateReviewSecond = 6;

    /// <summary>For each second of new material in a lesson beyond an even share.</summary>
    public const long UnevenSecond = 2;

    /// <summary>For each lesson a unit waits.</summary>
    public const long WaitingLesson = 20;

    public static long OfLeaving(TeachingUnit unit) => LeftOver + (LeftOverSecond * unit.IntroduceSeconds);

    /// <summary>Introducing one unit in a lesson, apart from how evenly it falls.</summary>
    public static long OfIntroducing(CohortProblem cohort, int firstOpen, int lesson) =>
        (WaitingLesson * (lesson - firstOpen)) + (LatePerLesson * Math.Max(0, lesson - cohort.TargetLesson));

    public static long OfUnevenness(int introduceSeconds, int evenShare) => UnevenSecond * Math.Max(0, introduceSeconds - evenShare);

    /// <summary>Seconds of new material in each lesson if what is still to come were spread evenly up to the target.</summary>
    public static int EvenShare(TermProblem problem, CohortProblem cohort, int firstOpen)
    {
        var still = cohort.Units.Skip(cohort.IntroducedIn.Count).Sum(unit => unit.IntroduceSeconds);
        var lessons = Enumerable.Range(firstOpen, problem.Lessons.Count - firstOpen).Count(at => problem.Lessons[at].Kind == LessonKind.Ordinary && at <= cohort.TargetLesson);
        return lessons == 0 ? still : (still + lessons - 1) / lessons;
    }
}
