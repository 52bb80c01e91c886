namespace Zeitplan.Core.Exchange;

/// <summary>Where a roster file says what: its cells by what they mean, whichever columns they stand in, and what is wrong
/// with them.</summary>
internal sealed class RosterCells
{
    private readonly RosterTable table;
    private readonly Dictionary<RosterField, int> columns;
    private readonly Dictionary<RosterField, bool> dayFirst;
    private readonly List<RosterProblem> problems = [];

    /// <param name="mapping">For each column what it means; null for one that is passed over.</param>
    public RosterCells(RosterTable table, IReadOnlyList<RosterField?> mapping)
    {
        this.table = table;
        // A column the file does not have says nothing.
        columns = mapping
            .Take(table.Headers.Count)
            .Index()
            .Where(column => column.Item is not null)
            .GroupBy(column => column.Item!.Value)
            .ToDictionary(same => same.Key, same => same.First().Index);
        dayFirst = new[] { RosterField.Joined, RosterField.SashSince }.ToDictionary(
            field => field,
            field => RosterText.DayFirst(table.Lines.Select(line => Cell(line, field)))
        );
    }

    public IReadOnlyList<RosterProblem> Problems => problems;

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

        var date = RosterText.Date(written, dayFirst[field]);
        if (date is null && !problems.Any(problem => problem.Line == line.Line && problem.Column == HeaderOf(field)))
        {
            Say(line, field, $"{written} is no date. Write 2026-11-24 or 24.11.2026.");
        }

        return date;
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
