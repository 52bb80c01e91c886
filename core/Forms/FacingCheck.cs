namespace Zeitplan.Core.Forms;

/// <summary>Facing adds up (domain.md 4.1): each position's turn is added, and the sum compared with the facing written there.</summary>
public static class FacingCheck
{
    /// <summary>
    /// The positions whose written facing differs from the one before plus their own turn. Each is judged from the facing written before it,
    /// so one slip is reported once and not at every position after it.
    /// </summary>
    public static IReadOnlyList<FacingFinding> Run(IReadOnlyList<Position> positions)
    {
        var before = Facing.FromDegrees(0);
        List<FacingFinding> findings = [];
        foreach (var position in positions)
        {
            if (before.Turn(position.Turn) is var reached && reached != position.Facing)
            {
                findings.Add(new(position.Id, before, position.Turn, reached, position.Facing));
            }

            before = position.Facing;
        }

        return findings;
    }
}

/// <summary>A position that does not end where its turn leads: both sides of the disagreement.</summary>
public sealed record FacingFinding(Guid PositionId, Facing Before, int Turn, Facing Reached, Facing Written)
{
    /// <summary>The turn that would lead to the facing that is written.</summary>
    public int TurnThatFits => Before.TurnTo(Written);
}
