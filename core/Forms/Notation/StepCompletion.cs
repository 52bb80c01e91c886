namespace Zeitplan.Core.Forms.Notation;

/// <summary>What could be written next in a text of step notation.</summary>
public static class StepCompletion
{
    public static IReadOnlyList<string> At(string text) =>
        Completion.At(text, line => StepNotation.Parse(line).Problems);
}

/// <summary>Completion for the editor, whatever the notation.</summary>
internal static class Completion
{
    /// <summary>Words and examples that could stand at the end of <paramref name="text"/>; when it ends within a word,
    /// those that continue it.</summary>
    public static IReadOnlyList<string> At(string text, Func<string, IReadOnlyList<NotationProblem>> problems)
    {
        var line = text[(text.LastIndexOfAny([';', '\n']) + 1)..];
        var begun = line.Length > 0 && char.IsAsciiLetter(line[^1]) ? line[(line.LastIndexOf(' ') + 1)..] : "";
        var before = line[..^begun.Length];

        // A letter no word begins with stands for whatever comes next, so that the parser says what it expected there.
        var expected = problems(before + "~") is [var problem] ? problem.Expected : [];
        return
        [
            .. expected.Where(word =>
                word.StartsWith(begun, StringComparison.OrdinalIgnoreCase)
                && !word.Equals(begun, StringComparison.OrdinalIgnoreCase)
            ),
        ];
    }
}
