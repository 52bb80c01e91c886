namespace Zeitplan.Core.Progress;

/// <summary>A day on which the stage became another one.</summary>
public readonly record struct StageReached(DateOnly On, Forms.Stage Stage);

/// <summary>One posture or link of one student through time.</summary>
/// <param name="Met">When it was shown to them, or they were seen in it, first; null for what they only came with.</param>
/// <param name="Reached">Every change of stage in the mode they take part in, oldest first; the last is how it stands.</param>
/// <param name="Open">Each stretch in which something was to be corrected, oldest first.</param>
/// <param name="CameBack">How many of those were open before.</param>
public sealed record Walk(
    DateOnly? Met,
    IReadOnlyList<StageReached> Reached,
    IReadOnlyList<Episode> Open,
    int CameBack
);
