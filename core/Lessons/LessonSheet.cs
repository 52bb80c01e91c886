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
    /// <summary>Blocks that fill the lesson exactly, from warm-up to settling.</summary>
    public static IReadOnlyList<Block> Arrange(CohortPlan plan, CohortProblem cohort, int lesson, LessonSlot slot)
    {
        var content = plan.Lessons[lesson];
        var fresh = plan.Placements.Where(placement => placement.Lesson == lesson).Select(placement => placement.Unit).ToList();
        var known = plan.Placements.Where(placement => placement.Lesson < lesson).Select(placement => placement.Unit).ToList();
        var reviewed = content.ReviewSeconds == 0 ? [] : plan.Placements
            .Where(placement => placement.Lesson < lesson && placement.Reviews.Any(review => review.Lesson == lesson))
            .OrderByDescending(placement => placement.Lesson).ThenBy(placement => placement.Unit)
            .Select(placement => placement.Unit);

        List<Block> middle = [];
        Add(BlockKind.LeadIn, content.LeadInSeconds, known.TakeLast(1));
        foreach (var unit in fresh)
        {
            Add(BlockKind.New, cohort.Units[unit].IntroduceSeconds, [unit]);
            middle.Add(new(BlockKind.OwnPractice, CohortProblem.OwnPracticeAfterNewSeconds, false, [unit]));
        }

        foreach (var unit in reviewed)
        {
            Add(BlockKind.Review, cohort.Units[unit].ReviewSeconds, [unit]);
        }

        Add(BlockKind.RunThrough, content.RunThroughSeconds, known);
        Add(BlockKind.Watch, content.WatchSeconds, known);
        if (slot.TeachableSeconds - middle.Sum(block => block.Seconds) is var rest && rest > 0)
        {
            middle.Add(new(BlockKind.OwnPractice, rest, false, [.. known, .. fresh]));
        }

        return [new(BlockKind.WarmUp, LessonSlot.WarmUpMinutes * 60, true, []), .. middle, new(BlockKind.Settle, LessonSlot.SettleMinutes * 60, true, [])];

        void Add(BlockKind kind, int seconds, IEnumerable<int> units)
        {
            if (seconds > 0)
            {
                middle.Add(new(kind, seconds, true, [.. units]));
            }
        }
    }
}
