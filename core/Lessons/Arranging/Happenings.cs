namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>What two devices say of one lesson, put together.</summary>
public static class Happenings
{
    /// <summary>What stood, where a device speaks that did not know how the lesson is arranged by now: it knows what its own
    /// teacher led and looked at; of everybody else the arrangement says what they did.</summary>
    public static IReadOnlyList<ArrangedBlock> Stood(LessonEdit.Since said, Arrangement now, Guid teacher)
    {
        var own = said
            .Stood.Where(block => block.LedBy == teacher && block.CohortId is not null)
            .Select(block => block.CohortId)
            .ToHashSet();
        return
        [
            .. said.Stood.Where(block => own.Contains(block.CohortId)),
            .. now.Blocks.Where(block => !own.Contains(block.CohortId)),
        ];
    }
}
