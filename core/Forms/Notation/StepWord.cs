namespace Zeitplan.Core.Forms.Notation;

/// <summary>The words of the step notation with their short forms: the one list the parser reads, the printer writes
/// and the editor offers.</summary>
internal static class StepWord
{
    internal static readonly Word[] Subjects = [new("L", "l"), new("R", "r"), new("hips"), new("chest"), new("seat")];

    internal static readonly Word[] Verbs =
    [
        new("step", "s"),
        new("adjust", "a"),
        new("withdraw", "w"),
        new("follow", "f"),
        new("lift", "u"),
        new("kick", "k"),
        new("set", "d"),
        new("drag", "g"),
        new("stamp"),
        new("hop"),
        new("jump", "j"),
        new("pivot", "p"),
    ];

    internal static readonly Word[] PivotPoints = [new("heel", "h"), new("ball")];

    internal static readonly Word[] Sides = [new("left", "l"), new("right", "r"), new("out", "o"), new("in", "i")];

    internal static readonly Word[] Turns = [new("left", "l"), new("right", "r")];

    internal static readonly Word[] Heights = [new("low"), new("level")];

    internal static readonly Word[] Details =
    [
        new("fwd", "f"),
        new("back", "b"),
        .. Sides,
        new("toward"),
        new("up", "u"),
        new("toes", "t"),
        new("flat"),
        new("heel", "h"),
        new("ball"),
        new("toe"),
        new("cross", "x"),
    ];
}
