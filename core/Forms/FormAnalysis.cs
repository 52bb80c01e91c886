namespace Zeitplan.Core.Forms;

/// <summary>What a form consists of (domain.md 4.1, "Analysis"): the number of different things is what a student has to learn.</summary>
/// <param name="Postures">Different postures, both sides of one counted once.</param>
/// <param name="Links">Different joins between one posture and side and the next.</param>
/// <param name="RunThroughSeconds">One smooth, silent repetition from the first count to the last.</param>
/// <param name="HomeTurn">How far from its zero direction the form ends, degrees in (-180, 180]; 0 is home.</param>
public sealed record FormAnalysis(int Positions, int Postures, int Links, int RunThroughSeconds, int HomeTurn)
{
    public static FormAnalysis Of(IReadOnlyList<Position> positions, IReadOnlyDictionary<Guid, Posture> postures) => new(
        positions.Count,
        positions.Select(position => position.PostureId).Distinct().Count(),
        positions.Zip(positions.Skip(1), (from, to) => (from.PostureId, from.Side, to.PostureId, to.Side)).Distinct().Count(),
        positions.Sum(position => position.Repeats * postures[position.PostureId].Counts.Count * Terms.Pace.Smooth),
        positions.Count == 0 ? 0 : Facing.FromDegrees(0).TurnTo(positions[^1].Facing));
}
