namespace Zeitplan.Core.Forms.Checks;

/// <summary>Where, in a run of postures along one rail, the support would have to change hands (domain.md 4.6).</summary>
/// <param name="To">The side of the body the rail is on from here.</param>
public sealed record RailChange(Position Position, Side To);

/// <summary>A run of positions held on to along one rail.</summary>
public static class RailRun
{
    /// <summary>Each position at which the rail would have to be on the other side of the body than before. People turn
    /// round there, change the rail, or do it on the other side.</summary>
    /// <remarks>A rail before the body, and a posture of which nobody has said where it is, asks for no change.</remarks>
    public static IReadOnlyList<RailChange> Of(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, PostureOutline> postures
    )
    {
        List<RailChange> changes = [];
        Side? held = null;
        foreach (var position in positions)
        {
            var posture = postures[position.PostureId];
            // What has no side is done with the rail on either.
            if (
                position.Side == Side.Symmetric
                || posture.In(Mode.Supported)?.Rail is not { } written
                || written == Side.Symmetric
            )
            {
                continue;
            }

            var side = position.Side == posture.WrittenSide ? written : Mirror.Of(written);
            if (held is { } before && before != side)
            {
                changes.Add(new(position, side));
            }

            held = side;
        }

        return changes;
    }
}
