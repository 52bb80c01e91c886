using System.Globalization;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>What is wrong with a line of notation: where (both from 1), what was found and what was expected, and the
/// words that could stand there.</summary>
public sealed record NotationProblem(int Line, int Column, string Message, IReadOnlyList<string> Expected);

/// <summary>A word of a notation with its short form.</summary>
internal sealed record Word(string Full, string? Short = null)
{
    public static Word? Find(Word[] words, string text) =>
        Array.Find(words, word => word.Full.Equals(text, StringComparison.OrdinalIgnoreCase))
        ?? Array.Find(words, word => word.Short?.Equals(text, StringComparison.OrdinalIgnoreCase) == true);

    /// <summary>The words of a list as a sentence names them: "left, right, out or in".</summary>
    public static string List(IEnumerable<Word> words) =>
        words.Select(word => word.Full).ToArray() is [.. var first, var last] && first.Length > 0
            ? $"{string.Join(", ", first)} or {last}"
            : words.First().Full;
}

/// <summary>A text of notation read word by word: statements end with a semicolon or a line, and a problem has its
/// place. What the steps and the body have in common.</summary>
internal sealed class NotationText(string text)
{
    /// <summary>Whoever reads a list of problems mends the first ones first; what comes after these is not
    /// read.</summary>
    private const int MostProblems = 20;

    private readonly List<NotationProblem> problems = [];
    private int at;
    private int start;

    /// <summary>All statements that can be read, and the first thing wrong in each of the others.</summary>
    public (IReadOnlyList<T> Statements, IReadOnlyList<NotationProblem> Problems) Read<T>(
        Func<IEnumerable<T>> statement
    )
    {
        List<T> statements = [];
        while (at < text.Length && problems.Count < MostProblems)
        {
            SkipBlanks();
            if (at < text.Length && !AtEnd)
            {
                try
                {
                    var read = statement();
                    ExpectEnd();
                    statements.AddRange(read);
                }
                catch (UnreadableException unreadable)
                {
                    problems.Add(unreadable.Problem);
                    while (!AtEnd)
                    {
                        at++;
                    }
                }
            }

            at++;
        }

        return (statements, problems);
    }

    /// <summary>The statement ends here, blanks aside.</summary>
    public bool Ends
    {
        get
        {
            SkipBlanks();
            return AtEnd;
        }
    }

    /// <summary>A number comes next.</summary>
    public bool HasNumber => !Ends && char.IsAsciiDigit(text[at]);

    /// <summary>The next word, in full; it has to be one of <paramref name="words"/>.</summary>
    /// <param name="what">What should stand here, as a problem says it.</param>
    /// <param name="also">What else could have stood here.</param>
    public string Next(Word[] words, string what, Word[]? also = null)
    {
        return Word.Find(words, Next())?.Full ?? throw NotExpected([.. words, .. also ?? []]);

        Exception NotExpected(Word[] expected) =>
            Unreadable(
                $"Here should stand {what}{Named(expected)}; {Found()}.",
                [.. expected.Select(word => word.Full)]
            );
    }

    /// <summary>The next word, in full, when it is one of <paramref name="words"/>; it is not taken.</summary>
    public string? Peek(Word[] words)
    {
        var (was, from) = (at, start);
        var found = Word.Find(words, Next())?.Full;
        (at, start) = (was, from);
        return found;
    }

    /// <summary>The next word when it is one of <paramref name="words"/>, taken; otherwise nothing is.</summary>
    public string? Take(Word[] words)
    {
        var found = Peek(words);
        if (found is not null)
        {
            Next();
        }

        return found;
    }

    /// <summary>A whole number with the sign that closes it, when it has one: 45, 45° or 70%.</summary>
    public int Whole(string what, string example, int most, Func<decimal, string> tooMuch)
    {
        var number = Number(what, example);
        return number == decimal.Truncate(number) && number <= most
            ? (int)number
            : throw Unreadable(tooMuch(number), [example]);
    }

    /// <summary>A number; point and comma are both decimal marks.</summary>
    public decimal Number(string what, string example)
    {
        SkipBlanks();
        start = at;
        while (at < text.Length && (char.IsAsciiDigit(text[at]) || text[at] is '.' or ','))
        {
            at++;
        }

        var digits = text[start..at].Replace(',', '.');
        if (
            digits.Length is 0 or > 8
            || !decimal.TryParse(digits, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
        )
        {
            throw Unreadable($"Here should stand {what}; {Found()}.", [example]);
        }

        if (at < text.Length && text[at] == '°')
        {
            at++;
        }

        return number;
    }

    /// <summary>Whether the sign stands here, without a blank; it is taken then.</summary>
    public bool TakeSign(char sign)
    {
        var here = at < text.Length && text[at] == sign;
        at += here ? 1 : 0;
        return here;
    }

    /// <summary>The sign has to stand here, without a blank.</summary>
    public void Sign(char sign, string message)
    {
        if (!TakeSign(sign))
        {
            start = at;
            throw Unreadable(message, [sign.ToString()]);
        }
    }

    /// <summary>Something is missing at the end of a statement.</summary>
    public UnreadableException Missing(string message, IReadOnlyList<string> expected)
    {
        start = at;
        return Unreadable(message, expected);
    }

    public UnreadableException Unreadable(string message, IReadOnlyList<string> expected)
    {
        var before = text.AsSpan(0, Math.Min(start, text.Length));
        return new(new(before.Count('\n') + 1, before.Length - before.LastIndexOf('\n'), message, expected));
    }

    /// <summary>A sentence names a few words; more are offered beside it.</summary>
    private static string Named(Word[] words) => words.Length > MostNamed ? "" : $" ({Word.List(words)})";

    private const int MostNamed = 16;

    private bool AtEnd => at >= text.Length || text[at] is ';' or '\n';

    private string Next()
    {
        SkipBlanks();
        start = at;
        while (at < text.Length && char.IsAsciiLetter(text[at]))
        {
            at++;
        }

        return text[start..at];
    }

    private void ExpectEnd()
    {
        SkipBlanks();
        start = at;
        if (!AtEnd)
        {
            throw Unreadable($"Here should stand a semicolon or the end; {Found()}.", [";"]);
        }
    }

    private string Found()
    {
        var end = start;
        while (end < text.Length && !char.IsWhiteSpace(text[end]) && text[end] != ';')
        {
            end++;
        }

        return end > start ? $"there is “{text[start..end]}”" : "the statement ends";
    }

    private void SkipBlanks()
    {
        while (at < text.Length && text[at] != '\n' && char.IsWhiteSpace(text[at]))
        {
            at++;
        }
    }

    internal sealed class UnreadableException(NotationProblem problem) : Exception
    {
        public NotationProblem Problem { get; } = problem;
    }
}
