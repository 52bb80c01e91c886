namespace Zeitplan.Core.Exchange;

/// <summary>Where a roster file says what: its cells by what they mean, whichever columns they stand in, and what is wrong
/// with them.</summary>
internal sealed class RosterCells
{
    private readonly RosterTable table;
    private readonly Dictionary<RosterField, int> columns;
    private readonly List<(RosterColumn Of, int At)> known;
    private readonly Dictionary<(RosterField, string), string> words;
    private readonly Dictionary<
        (RosterField Field, string Word),
        (int Lines, IReadOnlyList<RosterUnknown.Choice>)
    > unknown = [];
    private readonly bool? dayFirst;
    private readonly List<RosterProblem> problems = [];

    /// <param name="mapping">For each column what it means.</param>
    public RosterCells(RosterTable table, IReadOnlyList<RosterColumn> mapping, RosterAnswers answers)
    {
        this.table = table;
        words = answers
            .Words.Where(word => word.Field is not null)
            .GroupBy(word => (word.Field!.Value, RosterText.Plain(word.Word)))
            .ToDictionary(same => same.Key, same => same.Last().Meaning);
        known =
        [
            .. mapping
                .Take(table.Headers.Count)
                .Index()
                .Where(column => column.Item.Field == RosterField.Knows)
                .Select(column => (column.Item, column.Index)),
        ];
        // A column the file does not have says nothing.
        columns = mapping
            .Take(table.Headers.Count)
            .Index()
            .Where(column => column.Item.Field is not null)
            .GroupBy(column => column.Item.Field!.Value)
            .ToDictionary(same => same.Key, same => same.First().Index);
        dayFirst =
            answers.DayFirst
            ?? RosterText.DayFirst([
                .. from field in new[] { RosterField.Joined, RosterField.SashSince }
                where Has(field)
                from line in table.Lines
                select Cell(line, field),
            ]);
    }

    /// <summary>Whether somebody has to say if the day or the month comes first.</summary>
    public bool AsksDayFirst => dayFirst is null;

    /// <summary>What nobody has explained yet, the commonest first.</summary>
    public IReadOnlyList<RosterUnknown> Unknown =>
        [
            .. unknown
                .Select(word => new RosterUnknown(word.Key.Field, word.Key.Word, word.Value.Lines, word.Value.Item2))
                .OrderBy(word => word.Field)
                .ThenByDescending(word => word.Lines),
        ];

    /// <summary>What columns say of forms, in their order.</summary>
    public IEnumerable<(RosterColumn Of, string Written)> Knowledge(RosterLine line) =>
        known
            .Where(column => column.At < line.Cells.Count)
            .Select(column => (column.Of, line.Cells[column.At].Trim()))
            .Where(cell => cell.Item2.Length > 0);

    /// <summary>What a word has been explained to mean; null while nobody has.</summary>
    public string? Explained(RosterField field, string written) =>
        words.GetValueOrDefault((field, RosterText.Plain(written)));

    /// <summary>A word that means nothing yet: it is asked about, once for all lines that say it.</summary>
    public void Ask(
        RosterLine line,
        RosterField field,
        string written,
        IEnumerable<(string, string)> choices,
        string message
    )
    {
        var key = (field, written);
        unknown[key] = unknown.TryGetValue(key, out var asked)
            ? (asked.Lines + 1, asked.Item2)
            : (1, [.. choices.Select(choice => new RosterUnknown.Choice(choice.Item1, choice.Item2))]);
        Say(line, field, message);
    }

    public IReadOnlyList<RosterProblem> Problems => problems;

    /// <summary>How many there are.</summary>
    public int Count => problems.Count;

    public bool Has(RosterField field) => columns.ContainsKey(field);

    public RosterField NameField =>
        columns.ContainsKey(RosterField.GivenName) ? RosterField.GivenName : RosterField.FullName;

    public (string Given, string Family) Names(RosterLine line)
    {
        var (given, family) = (Cell(line, RosterField.GivenName), Cell(line, RosterField.FamilyName));
        if (given.Length > 0 || !columns.ContainsKey(RosterField.FullName))
        {
            return (given, family);
        }

        // "Strand, Filippa" or "Filippa Strand".
        var full = Cell(line, RosterField.FullName);
        return full.Split(',', 2, StringSplitOptions.TrimEntries) is [var last, { Length: > 0 } first] ? (first, last)
            : full.Split(' ', 2, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                is [var word, var rest]
                ? (word, rest)
            : (full, family);
    }

    public DateOnly? DateIn(RosterLine line, RosterField field)
    {
        var written = Cell(line, field);
        if (written.Length == 0)
        {
            return null;
        }

        if (AsksDayFirst && RosterText.CanBeReadBothWays(written))
        {
            SayOnce(line, field, $"{written} can be read both ways: say whether the day or the month comes first.");
            return null;
        }

        var date = RosterText.Date(written, dayFirst ?? true);
        if (date is null)
        {
            SayOnce(line, field, $"{written} is no date. Write 2026-11-24 or 24.11.2026.");
        }

        return date;
    }

    private void SayOnce(RosterLine line, RosterField field, string message)
    {
        if (!problems.Any(problem => problem.Line == line.Line && problem.Column == HeaderOf(field)))
        {
            Say(line, field, message);
        }
    }

    public string Cell(RosterLine line, RosterField field) =>
        columns.TryGetValue(field, out var at) && at < line.Cells.Count ? line.Cells[at].Trim() : "";

    public string Given(RosterLine line, RosterField field, string otherwise) =>
        Cell(line, field) is { Length: > 0 } given ? given : otherwise;

    private string HeaderOf(RosterField field) =>
        columns.TryGetValue(field, out var at) ? table.Headers[at]
        : columns.TryGetValue(RosterField.FullName, out at) ? table.Headers[at]
        : "";

    private string HeaderOf(string path) =>
        HeaderOf(
            path switch
            {
                "givenName" => RosterField.GivenName,
                "familyName" => RosterField.FamilyName,
                "sashId" => RosterField.Sash,
                "half" => RosterField.Half,
                "joined" => RosterField.Joined,
                "details.contactPhone" => RosterField.ContactPhone,
                "details.contactName" => RosterField.ContactName,
                "details.scope" => RosterField.Scope,
                _ => RosterField.Cohort,
            }
        );

    public void Say(RosterLine line, RosterField field, string message) =>
        problems.Add(new(line.Line, HeaderOf(field), message));

    /// <summary>Something is wrong with a line as a whole, or with the file.</summary>
    public void Say(int line, string message) => problems.Add(new(line, "", message));

    /// <summary>What a rule says of a student, at the column it comes from.</summary>
    public void Say(RosterLine line, Problem problem) =>
        problems.Add(new(line.Line, HeaderOf(problem.Field), problem.Message));
}
