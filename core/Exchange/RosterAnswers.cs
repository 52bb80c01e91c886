using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Exchange;

/// <summary>What a column of a roster means.</summary>
/// <param name="Field">Null for one that is passed over.</param>
/// <param name="FormId">For <see cref="RosterField.Knows"/>, which form; for no other.</param>
/// <param name="SectionId">Which section of it; null for the whole form.</param>
public sealed record RosterColumn(RosterField? Field, Guid? FormId = null, Guid? SectionId = null)
{
    public static RosterColumn PassedOver { get; } = new(Field: null);
}

/// <summary>A word of this school's files and what it means here: "Elfenbein" is Ivory.</summary>
/// <param name="Field">In which kind of column; null for a word that is a column's header.</param>
/// <param name="Meaning">An identifier, a mode, a half, yes or no, as <see cref="RosterUnknown"/> offers it; for a header
/// what <see cref="RosterColumns.Meaning"/> writes. Empty for what is to be passed over.</param>
public sealed record RosterWord(RosterField? Field, string Word, string Meaning)
{
    public const int LongestWord = 120;
}

/// <summary>A word nobody has explained yet, and what it could mean.</summary>
/// <param name="Lines">How many lines say it.</param>
public sealed record RosterUnknown(
    RosterField Field,
    string Word,
    int Lines,
    IReadOnlyList<RosterUnknown.Choice> Choices
)
{
    public sealed record Choice(string Meaning, string Name);
}

/// <summary>What somebody has said about a file beside what stands in it.</summary>
public sealed record RosterAnswers
{
    /// <summary>The line its headers stand on; found where nobody says.</summary>
    public int? HeaderLine { get; init; }

    /// <summary>For each column what it means; guessed where nobody says.</summary>
    public IReadOnlyList<RosterColumn>? Columns { get; init; }

    /// <summary>Whether 3/4/2026 is the third of April; told from the other dates where nobody says.</summary>
    public bool? DayFirst { get; init; }

    /// <summary>What words mean, those remembered from earlier files and those explained now.</summary>
    public IReadOnlyList<RosterWord> Words { get; init; } = [];

    /// <summary>Lines that are not to be taken in.</summary>
    public IReadOnlyList<int> LeftOut { get; init; } = [];

    /// <summary>Lines about the very person of this name on the roster, though the file has another day they joined.</summary>
    public IReadOnlyList<int> SamePerson { get; init; } = [];

    /// <summary>Lines about somebody else who only has the same name.</summary>
    public IReadOnlyList<int> AnotherPerson { get; init; } = [];
}

/// <summary>What a file says somebody knows of a posture and side on coming here.</summary>
public sealed record RosterKnowledge(PostureSide Of, Stage Stage);

/// <summary>A sheet as it stands: every line that says anything, and which line each is.</summary>
public sealed record RosterSheet(IReadOnlyList<RosterLine> Lines)
{
    /// <summary>Headers stand below at most so many lines of titles.</summary>
    private const int MostTitles = 20;

    /// <summary>The lines a header can stand on.</summary>
    public IEnumerable<RosterLine> Tops => Lines.Take(MostTitles);

    /// <summary>The table below its headers: those of the line said, or of the one among the first whose words are best
    /// known, or of the first.</summary>
    public RosterTable Below(RosterAnswers answers, IReadOnlyList<Form> forms)
    {
        var at = answers.HeaderLine is { } said
            ? Lines.Index().Where(line => line.Item.Line == said).Select(line => line.Index).FirstOrDefault()
            : Tops.Index()
                .OrderByDescending(line =>
                    RosterColumns.Guess(line.Item.Cells, answers.Words, forms).Count(column => column.Field is not null)
                )
                .ThenBy(line => line.Index)
                .First()
                .Index;
        return new([.. Lines[at].Cells.Select(cell => cell.Trim())], [.. Lines.Skip(at + 1)])
        {
            HeaderLine = Lines[at].Line,
        };
    }
}
