using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>The words of the body notation with their short forms: the one list the parser reads, the printer writes and
/// the editor offers.</summary>
internal static class BodyWord
{
    public static readonly Word[] Hands = [new("L", "l"), new("R", "r")];

    public static readonly Word[] Subjects =
    [
        .. Hands,
        new("both", "b"),
        new("chest", "c"),
        new("lean"),
        new("upright"),
        new("sink"),
        new("rise"),
        new("level"),
        new("gaze", "g"),
    ];

    public static readonly Word[] Heights = Of<Height>();
    public static readonly Word[] Lines =
    [
        new("across", "x"),
        new("centre", "c"),
        new("own"),
        new("outside", "o"),
        new("wide", "w"),
    ];
    public static readonly Word[] Reaches =
    [
        new("rear"),
        new("side"),
        new("near", "n"),
        new("bent", "b"),
        new("long", "l"),
    ];
    public static readonly Word[] Relations = Of<Relation>();
    public static readonly Word[] Landmarks = Of<Landmark>();
    public static readonly Word[] OtherSide = [new("other")];

    public static readonly Word[] Ways =
    [
        new("up", "u"),
        new("down", "d"),
        new("front", "f"),
        new("back", "b"),
        new("in", "i"),
        new("out", "o"),
    ];

    public static readonly Word[] Shapes = Of<HandShape>();
    public static readonly Word[] Elbows = Of<Elbow>();
    public static readonly Word[] Held = [new("rail"), new("chair"), new("frame")];
    public static readonly Word[] Turns = [new("left", "l"), new("right", "r")];
    public static readonly Word[] Leans = [new("front"), new("back"), .. Turns];
    public static readonly Word[] Levels = [new("up"), new("down")];
    public static readonly Word[] Square = [new("square")];
    public static readonly Word[] Ahead = [new("ahead", "a")];
    public static readonly Word[] Arcs = [new("arc")];

    public static readonly Word[] Details =
    [
        .. Heights,
        .. Lines,
        .. Reaches,
        .. Relations,
        new("palm", "p"),
        new("fingers", "f"),
        new("fist"),
        new("hook"),
        new("loose"),
        new("elbow"),
        new("hold"),
        new("free"),
        new("via", "v"),
    ];

    public static string Name<T>(T name)
        where T : struct, Enum => name.ToString().ToLowerInvariant();

    public static T Read<T>(string name)
        where T : struct, Enum => Enum.Parse<T>(name, ignoreCase: true);

    private static Word[] Of<T>()
        where T : struct, Enum => [.. Enum.GetNames<T>().Select(name => new Word(name.ToLowerInvariant()))];
}
