using System.Text.Json.Serialization;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>A stretch of a lesson as it has been arranged.</summary>
/// <param name="CohortId">Null for a block that holds everybody.</param>
/// <param name="LedBy">Null while a cohort practises by itself.</param>
/// <param name="With">Cohorts that are led together with this one.</param>
/// <param name="Because">Why it is there.</param>
/// <param name="Task">The key of the task it does; null for what fills the time, and for visits.</param>
public sealed record ArrangedBlock(
    int Start,
    int End,
    Guid? CohortId,
    BlockKind Kind,
    string What,
    Guid? LedBy,
    IReadOnlyList<Guid> With,
    string Because,
    string? Task = null
)
{
    /// <summary>The postures it is about, in their order.</summary>
    public IReadOnlyList<PostureSide> Material { get; init; } = [];

    [JsonIgnore]
    public int Minutes => End - Start;
}

/// <summary>Something the lesson has no room for as it was asked.</summary>
/// <param name="Task">The task that is left out; null where a cohort is alone for too long.</param>
/// <param name="Minutes">How long it would have taken, or how long a cohort is alone at a stretch.</param>
public sealed record Shortfall(Guid CohortId, string? Task, int Minutes, string Says);

/// <summary>A lesson on minutes and teachers.</summary>
/// <param name="Blocks">In the order they begin; visits to own practice among them, each within the practice it looks
/// at.</param>
/// <param name="Points">What it costs by the measures of <see cref="LessonProblem"/>; less is better.</param>
/// <param name="Bound">What no arrangement can undercut.</param>
public sealed record Arrangement(
    IReadOnlyList<ArrangedBlock> Blocks,
    IReadOnlyList<Shortfall> Shortfalls,
    long Points,
    long Bound
)
{
    /// <summary>It is proven that with these people and teachers nothing that weighs most can be had better: all that is asked,
    /// how long everybody is led and left alone, who is looked at. Comings and goings, and when what is new comes, weigh
    /// less.</summary>
    public bool MeetsNeedsBest { get; init; }

    /// <summary>How much better another one could be at most, as a part of this one.</summary>
    [JsonIgnore]
    public double Gap => Points == 0 ? 0 : Math.Max(0, (double)(Points - Bound) / Points);
}
