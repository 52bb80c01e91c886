using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>A student, for what can be asked of them.</summary>
/// <param name="Mode">As they usually take part.</param>
/// <param name="Limits">What they must not be asked for.</param>
public sealed record Learner(Guid StudentId, Mode Mode, IReadOnlyList<Limit> Limits)
{
    /// <summary>How those who teach them have settled it, by posture.</summary>
    public IReadOnlyDictionary<Guid, Adaptation> Settled { get; init; } = new Dictionary<Guid, Adaptation>();

    /// <summary>How they do a posture: as it was settled, while that keeps every limit, or else in the least adapted mode
    /// that does.</summary>
    /// <param name="outline">Of the posture.</param>
    /// <returns>Null where they leave it out, or no written way of doing it is right for them.</returns>
    public (Mode Mode, string Words)? Does(PostureSide of, PostureOutline outline)
    {
        if (Settled.TryGetValue(of.PostureId, out var settled) && Safety.Holds(settled, outline, of.Side, Limits))
        {
            return settled.Mode is { } name ? (Forms.Mode.FromName(name)!.Value, settled.Words) : null;
        }

        return ModeChoice.Of(outline, of.Side, Limits, Mode) is ModeChoice.Fits fits ? (fits.Mode, "") : null;
    }
}
