using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>The layers of a count in plain words: what the two notations say, and the remarks beside them.</summary>
public sealed record CountWords(string Feet, string Waist, string Hands, string Gaze)
{
    public static CountWords Of(Count count)
    {
        var body = BodyNotation.Parse(count.Body).Actions;
        return new(
            StepWords.Say(StepNotation.Parse(count.Feet).Actions),
            Join(BodyWords.Waist(body), count.Waist),
            Join(BodyWords.Hands(body), count.Hands, count.Hands.Contains(count.Shape) ? "" : count.Shape),
            Join(BodyWords.Gaze(body), count.Gaze)
        );
    }

    private static string Join(params string[] parts) => string.Join(" · ", parts.Where(part => part.Length > 0));
}
