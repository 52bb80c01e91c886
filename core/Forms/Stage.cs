namespace Zeitplan.Core.Forms;

/// <summary>How far one student is with one posture and side (domain.md 4.5).</summary>
public enum Stage
{
    NotMet,
    Shown,
    Follows,
    Alone,
    Flowing,
    Settled,
}

/// <summary>Stages as a board names them.</summary>
public static class StageWords
{
    public static string Say(Stage stage) => stage == Stage.NotMet ? "not met" : stage.ToString().ToLowerInvariant();
}
