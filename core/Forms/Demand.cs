namespace Zeitplan.Core.Forms;

/// <summary>What a posture asks of a body, and in the same words what a student must not be asked for (domain.md
/// 2).</summary>
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
    public static string Say(Demand demand) =>
        string.Concat(
            demand
                .ToString()
                .Select(
                    (letter, at) =>
                        char.IsUpper(letter) && at > 0
                            ? $" {char.ToLowerInvariant(letter)}"
                            : $"{char.ToLowerInvariant(letter)}"
                )
        );
}
