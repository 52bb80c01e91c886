using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Forms;

/// <summary>What a form consists of (domain.md 4.1, "Analysis"): the number of different things is what a student has
/// to learn.</summary>
/// <param name="Postures">Different postures, both sides of one counted once.</param>
/// <param name="Links">Different joins between one posture and side and the next.</param>
/// <param name="BothSides">Postures that occur on the left and on the right.</param>
/// <param name="Repeated">Positions that repeat a posture and side that came before.</param>
/// <param name="RunThroughSeconds">One smooth, silent repetition from the first count to the last.</param>
/// <param name="HomeTurn">How far from its zero direction the form ends, degrees in (-180, 180]; 0 is home.</param>
/// <param name="Demands">Every demand of the form with how many positions ask for it, the most frequent first.</param>
public sealed record FormAnalysis(
    int Positions,
    int Postures,
    int Links,
    int BothSides,
    int Repeated,
    int RunThroughSeconds,
    int HomeTurn,
    IReadOnlyList<DemandShare> Demands
)
{
    public static FormAnalysis Of(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        FloorWalk walk
    )
    {
        var waysIn = DerivedDemands.OfWaysIn(positions, postures, walk);
        return new(
            positions.Count,
            positions.Select(position => position.PostureId).Distinct().Count(),
            positions
                .Zip(positions.Skip(1), (from, to) => (from.PostureId, from.Side, to.PostureId, to.Side))
                .Distinct()
                .Count(),
            positions
                .GroupBy(position => position.PostureId)
                .Count(same => same.Select(position => position.Side).Distinct().Count() > 1),
            positions.Count - positions.Select(position => (position.PostureId, position.Side)).Distinct().Count(),
            positions.Sum(position => SecondsOf(position, postures[position.PostureId])),
            positions.Count == 0 ? 0 : Facing.FromDegrees(0).TurnTo(positions[^1].Facing),
            [
                .. positions
                    .SelectMany((position, at) => postures[position.PostureId].Demands.Union(waysIn[at]))
                    .CountBy(demand => demand)
                    .OrderByDescending(share => share.Value)
                    .ThenBy(share => share.Key)
                    .Select(share => new DemandShare(share.Key, share.Value)),
            ]
        );
    }

    internal static int SecondsOf(Position position, Posture posture) =>
        ((position.Repeats * posture.Counts.Count) + (position.WayIn.Length > 0 ? 1 : 0)) * Pace.Smooth;
}

/// <summary>How many positions of a form ask for something of the body.</summary>
public sealed record DemandShare(Demand Demand, int Positions);
