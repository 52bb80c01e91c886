using System.Text.RegularExpressions;

namespace Zeitplan.Core.Forms;

/// <summary>The side a posture is done on. What names it (foot, hand, standing leg) the posture says.</summary>
public enum Side
{
    Symmetric,
    Left,
    Right,
}

/// <summary>What gives a posture its side (domain.md 2, "side").</summary>
public enum SideNamedBy
{
    Nothing,
    LeadingFoot,
    LeadingHand,
    StandingLeg,
    SteppingFoot,
}

/// <summary>A side as it follows a name.</summary>
public static class SideWords
{
    /// <summary>The name with its side: "Brush Knee, left". What is symmetric has none.</summary>
    public static string Name(this Side side, string name) =>
        side switch
        {
            Side.Left => $"{name}, left",
            Side.Right => $"{name}, right",
            _ => name,
        };
}

/// <summary>Left and right exchanged (domain.md 4.1, "Mirror"): doing it twice gives the original.</summary>
public static partial class Mirror
{
    public static Side Of(Side side) =>
        side switch
        {
            Side.Left => Side.Right,
            Side.Right => Side.Left,
            _ => Side.Symmetric,
        };

    /// <summary>A text as it reads on the other side: the words left and right change places, clockwise and
    /// counter-clockwise too.</summary>
    public static string Of(string text) =>
        LeftOrRight()
            .Replace(
                text,
                match =>
                    match.Value switch
                    {
                        "left" => "right",
                        "right" => "left",
                        "Left" => "Right",
                        "Right" => "Left",
                        "counter-clockwise" => "clockwise",
                        _ => "counter-clockwise",
                    }
            );

    [GeneratedRegex(@"\b(left|right|Left|Right)\b|(counter-)?clockwise")]
    private static partial Regex LeftOrRight();
}
