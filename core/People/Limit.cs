using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>A functional limit of one student, never a diagnosis. <see cref="Side.Symmetric"/> means both
/// sides.</summary>
/// <param name="Since">The day from which it is known; null when nobody wrote it down.</param>
/// <param name="Note">What helps, in the student's own words. Private like the limit.</param>
public sealed record Limit(Demand Demand, Side Side = Side.Symmetric, DateOnly? Since = null, string Note = "")
{
    /// <summary>
    /// Whether <paramref name="demands"/>, asked for on <paramref name="side"/>, hold what this limit forbids. A
    /// one-sided limit lets a posture pass only when the posture is named by its standing leg and stands on the other
    /// one; in doubt the limit holds.
    /// </summary>
    public bool IsBrokenBy(IReadOnlyList<Demand> demands, SideNamedBy namedBy, Side side) =>
        demands.Contains(Demand) && (Side == Side.Symmetric || namedBy != SideNamedBy.StandingLeg || side == Side);

    /// <summary>What cannot be kept of a list of limits.</summary>
    public static IEnumerable<Problem> Check(IReadOnlyList<Limit> limits, string note, DateOnly today) =>
        [
            .. limits
                .Index()
                .Where(limit => !Enum.IsDefined(limit.Item.Demand))
                .Select(limit => new Problem($"limits[{limit.Index}].demand", "Choose one of the demands.")),
            .. limits
                .Index()
                .Where(limit => limit.Item.Since > today)
                .Select(limit => new Problem(
                    $"limits[{limit.Index}].since",
                    "A limit is known since today at the latest."
                )),
            .. limits
                .Index()
                .Where(limit => limit.Item.Note.Length > Problem.LongestText)
                .Select(limit => new Problem(
                    $"limits[{limit.Index}].note",
                    $"Keep the note to {Problem.LongestText} characters."
                )),
            .. limits.GroupBy(limit => (limit.Demand, limit.Side)).Any(same => same.Count() > 1)
                ? [new Problem("limits", "The same limit stands there twice.")]
                : Array.Empty<Problem>(),
            .. note.Length > Problem.LongestText
                ? [new Problem("note", $"Keep the note to {Problem.LongestText} characters.")]
                : Array.Empty<Problem>(),
        ];
}
