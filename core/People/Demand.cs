using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>What a posture asks of a body, and in the same words what a student must not be asked for (domain.md 2).</summary>
public enum Demand
{
    OneLegBalance,
    DeepBend,
    BackwardStep,
    WideStep,
    CrossStep,
    PivotUnderLoad,
    TrunkTwist,
    InwardHipTurn,
    OverheadReach,
    ArmsAtShoulderHeight,
    ForwardBend,
    HeadTurning,
    Kick,
    FastMove,
    LongStanding,
    BothHandsFree,
}

/// <summary>Demands as a sheet names them.</summary>
public static class DemandWords
{
    /// <summary>The name with its words apart: "arms at shoulder height".</summary>
    public static string Say(Demand demand) => string.Concat(demand.ToString().Select((letter, at) => char.IsUpper(letter) && at > 0 ? $" {char.ToLowerInvariant(letter)}" : $"{char.ToLowerInvariant(letter)}"));
}

/// <summary>A functional limit of one student, never a diagnosis. <see cref="Side.Symmetric"/> means both sides.</summary>
public sealed record Limit(Demand Demand, Side Side = Side.Symmetric)
{
    /// <summary>
    /// Whether a posture done standing on <paramref name="side"/> asks for what this limit forbids. A one-sided limit lets a posture pass only when the posture is
    /// named by its standing leg and stands on the other one; in doubt the limit holds.
    /// </summary>
    public bool IsBrokenBy(Posture posture, Side side) =>
        posture.Demands.Contains(Demand) && (Side == Side.Symmetric || posture.NamedBy != SideNamedBy.StandingLeg || side == Side);
}
