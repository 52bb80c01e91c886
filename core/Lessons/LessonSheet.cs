using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Lessons;

/// <summary>What a stretch of a lesson is for (domain.md 4.4).</summary>
public enum BlockKind
{
    WarmUp,
    LeadIn,
    New,
    OwnPractice,
    Review,
    ReTeach,
    Watch,
    Partner,

    /// <summary>All go through what they share, each to where it knows.</summary>
    Together,
    RunThrough,

    /// <summary>Adapted groups sit for a while.</summary>
    Rest,
    Talk,
    Test,
    Settle,

    /// <summary>A teacher's look at a cohort that practises by itself.</summary>
    Visit,
}

/// <summary>A stretch of a lesson of one cohort.</summary>
/// <param name="Led">With a teacher in front; false while the cohort works alone on what it can do.</param>
/// <param name="Units">Indices into the cohort's units, in order.</param>
/// <param name="Visits">How often a teacher comes by to watch during own practice, evenly spread, each time for <see
/// cref="LessonSheet.VisitSeconds"/>.</param>
public sealed record Block(BlockKind Kind, Seconds Seconds, bool Led, IReadOnlyList<int> Units, int Visits = 0)
{
    /// <summary>The longest stretch without a teacher; more than <see cref="LessonSheet.LongestAloneSeconds"/> where
    /// the teachers had no minutes for another visit.</summary>
    public Seconds AloneSeconds => new(Led ? 0 : (Seconds - (Visits * LessonSheet.VisitSeconds)) / (Visits + 1));
}

/// <summary>One cohort's lesson, block after block in the order it is taught.</summary>
public static class LessonSheet
{
    /// <summary>A cohort is never longer than this without a teacher's eye (domain.md 4.4).</summary>
    public const int LongestAloneSeconds = 8 * 60;

    /// <summary>A look at three people.</summary>
    public const int VisitSeconds = 3 * 60;

    /// <summary>
    /// Blocks that fill the lesson exactly, from warm-up to settling. What the plan leaves of the lesson is own
    /// practice, with as many visits of a teacher as it takes to keep the time alone short and the teachers have
    /// minutes for.
    /// </summary>
    /// <param name="spareTeacherSeconds">What the teachers have left for visits to this cohort. Nobody comes by where
    /// somebody is all the time.</param>
    public static IReadOnlyList<Block> Arrange(
        CohortPlan plan,
        CohortProblem cohort,
        int lesson,
        LessonSlot slot,
        int spareTeacherSeconds
    )
    {
        var content = plan.Lessons[lesson];
        var fresh = plan
            .Placements.Where(placement => placement.Lesson == lesson)
            .Select(placement => placement.Unit)
            .ToList();
        var known = plan
            .Placements.Where(placement => placement.Lesson < lesson)
            .Select(placement => placement.Unit)
            .ToList();
        List<Block> middle = [.. Led(BlockKind.LeadIn, content.LeadInSeconds, [.. known.TakeLast(1)])];
        foreach (var unit in fresh)
        {
            middle.AddRange(Led(BlockKind.New, cohort.Units[unit].IntroduceSeconds, [unit]));
            middle.Add(new(BlockKind.OwnPractice, new(CohortProblem.OwnPracticeAfterNewSeconds), false, [unit]));
        }

        middle.AddRange(
            plan.Placements.Where(placement =>
                    placement.Lesson < lesson
                    && placement.Reviews.Any(review => review.Lesson == lesson && !review.InRunThrough)
                )
                .OrderByDescending(placement => placement.Lesson)
                .ThenBy(placement => placement.Unit)
                .SelectMany(placement =>
                    Led(BlockKind.Review, cohort.Units[placement.Unit].ReviewSeconds, [placement.Unit])
                )
        );
        List<Block> closing =
        [
            .. Led(BlockKind.RunThrough, content.RunThroughSeconds, known),
            .. Led(BlockKind.Watch, content.WatchSeconds, known),
        ];
        var free = slot.TeachableSeconds - middle.Concat(closing).Sum(block => block.Seconds);
        return
        [
            new(BlockKind.WarmUp, new(LessonSlot.WarmUpMinutes * 60), true, []),
            .. middle,
            .. free > 0
                ?
                [
                    new Block(
                        BlockKind.OwnPractice,
                        new(free),
                        false,
                        [.. known, .. fresh],
                        cohort.IsAttended(lesson) ? 0 : Visits(free, spareTeacherSeconds)
                    ),
                ]
                : Array.Empty<Block>(),
            .. closing,
            .. Led(BlockKind.Talk, slot.TalkSeconds, []),
            new(BlockKind.Settle, new(LessonSlot.SettleMinutes * 60), true, []),
        ];
    }

    private static int Visits(int free, int spareTeacherSeconds)
    {
        var wanted = 0;
        while (free - (wanted * VisitSeconds) > (wanted + 1) * LongestAloneSeconds)
        {
            wanted++;
        }

        return Math.Min(wanted, spareTeacherSeconds / VisitSeconds);
    }

    private static IEnumerable<Block> Led(BlockKind kind, int seconds, IReadOnlyList<int> units) =>
        seconds > 0 ? [new(kind, new(seconds), true, units)] : [];

    /// <summary>For each cohort of a plan, its share of the teachers' seconds that a lesson's blocks leave over; the
    /// whole lesson for one that is attended anyway.</summary>
    public static IReadOnlyList<int> SpareSeconds(TermProblem problem, TermPlan plan, int lesson)
    {
        var slot = problem.Lessons[lesson];
        var alone = problem.Cohorts.Count(cohort => lesson >= cohort.AttendedLessons && cohort.Units.Count > 0);
        var left = Math.Max(0, slot.TeacherSeconds - plan.LedSeconds[lesson]);
        return
        [
            .. problem.Cohorts.Select(cohort =>
                lesson < cohort.AttendedLessons ? slot.TeachableSeconds
                : cohort.Units.Count == 0 ? 0
                : left / Math.Max(1, alone)
            ),
        ];
    }
}
