using Zeitplan.Core.Terms;

namespace Zeitplan.Core.Lessons;

/// <summary>What a stretch of a lesson is for (domain.md 4.4).</summary>
public enum BlockKind
{
    WarmUp,
    LeadIn,
    New,
    OwnPractice,
    Review,
    RunThrough,
    Watch,
    Settle,
}

/// <summary>A stretch of a lesson of one cohort.</summary>
/// <param name="Led">With a teacher in front; false while the cohort works alone on what it can do.</param>
/// <param name="Units">Indices into the cohort's units, in order.</param>
public sealed record Block(BlockKind Kind, int Seconds, bool Led, IReadOnlyList<int> Units);

/// <summary>One cohort's lesson, block after block in the order it is taught.</summary>
public static class LessonSheet
{
    /// <summary>A cohort is never longer than this without a teacher's eye (domain.md 4.4).</summary>
    public const int LongestAloneSeconds = 8 * 60;

    /// <summary>A look at three people.</summary>
    private const int VisitSeconds = 3 * 60;

    /// <summary>
    /// Blocks that fill the lesson exactly, from warm-up to settling. What the plan leaves of the lesson is own practice, in rounds between what is led; where rounds
    /// would be too long, a teacher comes by to watch, as far as there are minutes for it.
    /// </summary>
    /// <param name="spareTeacherSeconds">What the teachers have left for visits to this cohort.</param>
    public static IReadOnlyList<Block> Arrange(CohortPlan plan, CohortProblem cohort, int lesson, LessonSlot slot, int spareTeacherSeconds)
    {
        var content = plan.Lessons[lesson];
        var fresh = plan.Placements.Where(placement => placement.Lesson == lesson).Select(placement => placement.Unit).ToList();
        var known = plan.Placements.Where(placement => placement.Lesson < lesson).Select(placement => placement.Unit).ToList();
        List<Block> opening = [.. Led(BlockKind.LeadIn, content.LeadInSeconds, [.. known.TakeLast(1)])];
        foreach (var unit in fresh)
        {
            opening.AddRange(Led(BlockKind.New, cohort.Units[unit].IntroduceSeconds, [unit]));
            opening.Add(new(BlockKind.OwnPractice, CohortProblem.OwnPracticeAfterNewSeconds, false, [unit]));
        }

        List<Block> reviews = content.ReviewSeconds == 0 ? [] : [.. plan.Placements
            .Where(placement => placement.Lesson < lesson && placement.Reviews.Any(review => review.Lesson == lesson))
            .OrderByDescending(placement => placement.Lesson).ThenBy(placement => placement.Unit)
            .SelectMany(placement => Led(BlockKind.Review, cohort.Units[placement.Unit].ReviewSeconds, [placement.Unit]))];
        List<Block> closing = [.. Led(BlockKind.RunThrough, content.RunThroughSeconds, known), .. Led(BlockKind.Watch, content.WatchSeconds, known)];
        var free = slot.TeachableSeconds - opening.Concat(reviews).Concat(closing).Sum(block => block.Seconds);
        return
        [
            new(BlockKind.WarmUp, LessonSlot.WarmUpMinutes * 60, true, []),
            .. opening,
            .. Rounds(reviews, free, spareTeacherSeconds, [.. known, .. fresh]),
            .. closing,
            new(BlockKind.Settle, LessonSlot.SettleMinutes * 60, true, []),
        ];
    }

    /// <summary>Reviews and visits, each followed by a round of own practice; all rounds equally long.</summary>
    private static IEnumerable<Block> Rounds(List<Block> reviews, int free, int spareTeacherSeconds, IReadOnlyList<int> material)
    {
        if (material.Count == 0 || free <= 0)
        {
            return free <= 0 ? reviews : [.. reviews, new(BlockKind.OwnPractice, free, false, material)];
        }

        var wanted = Math.Max(0, ((free + LongestAloneSeconds - 1) / LongestAloneSeconds) - reviews.Count);
        var visits = Math.Min(wanted, spareTeacherSeconds / 60);
        var visit = visits == 0 ? 0 : Math.Min(VisitSeconds, Math.Min(spareTeacherSeconds, free) / visits);
        List<Block> led = [.. reviews, .. Enumerable.Repeat(new Block(BlockKind.Watch, visit, true, material), visits)];
        var rounds = Math.Max(1, led.Count);
        var own = free - (visit * visits);
        return Enumerable.Range(0, rounds).SelectMany(round => (Block[])[
            .. led.Skip(round).Take(1),
            .. (own / rounds) + (round < own % rounds ? 1 : 0) is var seconds && seconds > 0 ? [new Block(BlockKind.OwnPractice, seconds, false, material)] : Array.Empty<Block>(),
        ]);
    }

    private static IEnumerable<Block> Led(BlockKind kind, int seconds, IReadOnlyList<int> units) => seconds > 0 ? [new(kind, seconds, true, units)] : [];

    /// <summary>For each cohort of a plan, its share of the teachers' seconds that a lesson's blocks leave over; the whole lesson for one that is attended anyway.</summary>
    public static IReadOnlyList<int> SpareSeconds(TermProblem problem, TermPlan plan, int lesson)
    {
        var slot = problem.Lessons[lesson];
        var alone = problem.Cohorts.Count(cohort => lesson >= cohort.AttendedLessons && cohort.Units.Count > 0);
        var left = Math.Max(0, slot.TeacherSeconds - plan.LedSeconds[lesson]);
        return [.. problem.Cohorts.Select(cohort => lesson < cohort.AttendedLessons ? slot.TeachableSeconds : cohort.Units.Count == 0 ? 0 : left / Math.Max(1, alone))];
    }
}
