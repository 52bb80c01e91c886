namespace Zeitplan.Core.Forms.Notation;

/// <summary>The words of the step notation with their short forms: the one list the parser reads, the printer writes
/// and the editor offers.</summary>
public static class StepWord
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
        new("toes", "t"),
        new("flat"),
        new("heel", "h"),
        new("ball"),
        new("toe"),
        new("cross", "x"),
    ];

    internal static Word? Find(Word[] words, string text) =>
        Array.Find(words, word => word.Full.Equals(text, StringComparison.OrdinalIgnoreCase))
        ?? Array.Find(words, word => word.Short?.Equals(text, StringComparison.OrdinalIgnoreCase) == true);

    /// <summary>The words of a list as a sentence names them: "left, right, out or in".</summary>
    internal static string List(IEnumerable<Word> words) =>
        words.Select(word => word.Full).ToArray() is [.. var first, var last] && first.Length > 0
            ? $"{string.Join(", ", first)} or {last}"
            : words.First().Full;

    internal sealed record Word(string Full, string? Short = null);
}
