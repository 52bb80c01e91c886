namespace Zeitplan.Core.Forms.Notation;

/// <summary>What could be written next: completion for the editor.</summary>
public static class StepCompletion
{
    /// <summary>Words and examples that could stand at the end of <paramref name="text"/>; when it ends within a word,
    /// those that continue it.</summary>
    public static IReadOnlyList<string> At(string text)
    {
        var line = text[(text.LastIndexOfAny([';', '\n']) + 1)..];
        var begun = line.Length > 0 && char.IsAsciiLetter(line[^1]) ? line[(line.LastIndexOf(' ') + 1)..] : "";
        var before = line[..^begun.Length];

        // A letter no word begins with stands for whatever comes next, so that the parser says what it expected there.
        var expected = StepNotation.Parse(before + "~").Problems is [var problem] ? problem.Expected : [];
        return
        [
            .. expected.Where(word =>
                word.StartsWith(begun, StringComparison.OrdinalIgnoreCase)
                && !word.Equals(begun, StringComparison.OrdinalIgnoreCase)
            ),
        ];
    }
}
