using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>A posture practised from side to side (domain.md 2, "loop"): what is called in between, the feet that lead from
/// its end back to its beginning, and what hands, trunk and gaze do meanwhile.</summary>
/// <param name="Return">Step notation; empty where the end is the beginning.</param>
/// <param name="Body">Body notation.</param>
public sealed record Loop(string Cue, string Return, string Body = "")
{
    public Loop Mirror() => new(Forms.Mirror.Of(Cue), StepNotation.Mirror(Return), BodyNotation.Mirror(Body));

    /// <summary>Once round, ready to begin again: the counts and the return, and both again on the other side where the return
    /// leads onto the other foot. Where the end is the beginning already there is no count in between.</summary>
    /// <param name="entry">Step notation into the stand before the first count.</param>
    public IReadOnlyList<Count> Round(string entry, IReadOnlyList<Count> counts, Conventions ways)
    {
        IReadOnlyList<Count> once =
            Return.Length + Body.Length == 0 ? counts : [.. counts, new(Cue, Return, Body: Body)];
        var walk = FloorWalk.Of(
            StepNotation.Parse(entry).Actions,
            [.. once.Select(count => StepNotation.Parse(count.Feet).Actions)],
            ways
        );
        return StandsOnLeft(walk.Start) == StandsOnLeft(walk.End)
            ? once
            : [.. once, .. once.Select(count => count.Mirror())];
    }

    /// <summary>Which foot it stands on: a return onto the other one leads to the other side.</summary>
    internal static bool StandsOnLeft(Stand stand) => stand.Left.Load > stand.Right.Load;
}
