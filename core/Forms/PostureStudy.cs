using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>What follows from a posture's own steps, by itself: the picture, where it ends, and the step rules it breaks.</summary>
/// <param name="Ends">The stance, leading foot and weight its steps lead to.</param>
public sealed record PostureStudy(FloorPicture Floor, Footing Ends, string EndsSaid, IReadOnlyList<PostureFinding> Findings)
{
    /// <param name="entry">Step notation into the stand it starts from.</param>
    /// <param name="counts">The feet of each count, on the side they are written for.</param>
    public static PostureStudy Of(string entry, IReadOnlyList<string> counts, Conventions ways)
    {
        var walk = FloorWalk.Of(StepNotation.Parse(entry).Actions, [.. counts.Select(feet => StepNotation.Parse(feet).Actions)], ways);
        var ends = Footing.Of(walk.End);
        return new(FloorPicture.Of(walk, (double)ways.FootMetres), ends, ends.Say(), [.. StepRules.Check(walk, ways).Select(finding => new PostureFinding(finding.Rule, finding.Severity, finding.Beat.Count, finding.Foot, finding.Message))]);
    }
}

/// <summary>A step rule a posture breaks by itself.</summary>
public sealed record PostureFinding(Rule Rule, Severity Severity, int Count, Foot Foot, string Message);
