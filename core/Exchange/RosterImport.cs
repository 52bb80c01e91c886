using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Exchange;

public enum RosterFate
{
    Added,
    Changed,

    /// <summary>On the roster already, and nothing differs.</summary>
    Same,

    /// <summary>Stands further up in the file with the same content.</summary>
    Twice,
    Refused,

    /// <summary>Not to be taken in, as whoever looked at it has said.</summary>
    LeftOut,

    /// <summary>Somebody of this name is on the roster, and it has to be said whether it is they.</summary>
    Asked,
}

/// <param name="Column">The header of the column, or empty for the line as a whole.</param>
public sealed record RosterProblem(int Line, string Column, string Message);

/// <summary>What would become of one line.</summary>
/// <param name="Changes">What differs from the roster, as "sash: Fern instead of Ivory".</param>
public sealed record RosterItem(int Line, string Name, RosterFate Fate, IReadOnlyList<string> Changes);

/// <summary>What the school has that a roster refers to.</summary>
/// <param name="Classes">Their names.</param>
public sealed record RosterSchool(
    IReadOnlyList<SashLevel> Sashes,
    IReadOnlyList<Cohort> Cohorts,
    IReadOnlyDictionary<Guid, string> Classes,
    IReadOnlyList<Student> Students,
    DateOnly Today
)
{
    public IReadOnlyList<Form> Forms { get; init; } = [];
}

/// <summary>A student to add or to rewrite.</summary>
/// <param name="Existing">Null for somebody new.</param>
/// <param name="Knows">What the file says they knew when they came, in place of what their sash says.</param>
public sealed record RosterEntry(
    int Line,
    Student? Existing,
    StudentText Text,
    DateOnly? SashSince,
    IReadOnlyList<RosterKnowledge> Knows
);

/// <summary>
/// A spreadsheet's roster against the school's: what would be added and changed, what stands twice, and what is wrong
/// where. Somebody is recognised by their name however it is accented and spaced, and by the day they joined where two
/// are called alike. Nothing is taken over while anything is wrong.
/// </summary>
public sealed class RosterImport
{
    public const int MostLines = 20000;

    private readonly RosterSchool school;
    private readonly RosterTable table;
    private readonly RosterAnswers answers;
    private readonly RosterCells cells;
    private readonly RosterReader reader;
    private readonly List<RosterItem> items = [];
    private readonly List<RosterEntry> entries = [];

    private RosterImport(RosterTable table, RosterAnswers answers, RosterSchool school)
    {
        (this.table, this.answers, this.school) = (table, answers, school);
        Columns = answers.Columns ?? RosterColumns.Guess(table.Headers, answers.Words, school.Forms);
        cells = new(table, Columns, answers);
        reader = new(cells, school);
    }

    /// <summary>For each column what it means.</summary>
    public IReadOnlyList<RosterColumn> Columns { get; }

    /// <summary>Whether somebody has to say if the day or the month comes first.</summary>
    public bool AsksDayFirst => cells.AsksDayFirst;

    /// <summary>Words nobody has explained yet.</summary>
    public IReadOnlyList<RosterUnknown> Unknown => cells.Unknown;

    public IReadOnlyList<RosterItem> Items => items;
    public IReadOnlyList<RosterProblem> Problems => [.. cells.Problems.OrderBy(problem => problem.Line)];

    /// <summary>What to keep; empty while there is a problem.</summary>
    public IReadOnlyList<RosterEntry> Entries => cells.Count > 0 ? [] : entries;

    /// <exception cref="OperationCanceledException">Whoever sent the file does not wait any more.</exception>
    public static RosterImport Of(
        RosterTable table,
        RosterAnswers answers,
        RosterSchool school,
        CancellationToken cancel = default
    )
    {
        var import = new RosterImport(table, answers, school);
        import.Run(cancel);
        return import;
    }

    private void Run(CancellationToken cancel)
    {
        if (!cells.Has(RosterField.FullName) && !cells.Has(RosterField.GivenName))
        {
            cells.Say(table.HeaderLine, "Say which column holds the name.");
            return;
        }

        if (table.Lines.Count > MostLines)
        {
            cells.Say(1, $"The file has more than {MostLines} lines; so many can be taken at once.");
            return;
        }

        var byName = school
            .Students.Where(student => student.Erased is null)
            .ToLookup(student => RosterText.Plain(student.FullName));
        Dictionary<string, (int Line, string Content)> seen = [];
        foreach (var line in table.Lines)
        {
            cancel.ThrowIfCancellationRequested();
            Read(line, byName, seen);
        }
    }

    private void Read(
        RosterLine line,
        ILookup<string, Student> byName,
        Dictionary<string, (int Line, string Content)> seen
    )
    {
        if (answers.LeftOut.Contains(line.Line))
        {
            LeaveOut(line, byName, seen);
            return;
        }

        var before = cells.Count;
        if (
            line.Cells.Count > table.Headers.Count
            && line.Cells.Skip(table.Headers.Count).Any(cell => cell.Trim().Length > 0)
        )
        {
            cells.Say(
                line.Line,
                $"This line has {line.Cells.Count} cells and the header {table.Headers.Count}: a separator too many, or a quote missing."
            );
        }

        var (given, family) = cells.Names(line);
        var name = $"{given} {family}".Trim();
        if (given.Length == 0)
        {
            cells.Say(line, cells.NameField, "The name is missing.");
        }

        var joined = cells.DateIn(line, RosterField.Joined);
        var isAsked = false;
        var existing = Existing(line, byName[RosterText.Plain(name)].ToList(), joined, ref isAsked);
        var content = string.Join('\u001f', line.Cells.Select(cell => cell.Trim()));
        if (given.Length > 0 && seen.TryGetValue(RosterText.Plain(name) + joined, out var earlier))
        {
            if (earlier.Content == content)
            {
                items.Add(new(line.Line, name, RosterFate.Twice, [$"the same as line {earlier.Line}"]));
                return;
            }

            cells.Say(
                line,
                cells.NameField,
                $"{name} stands on line {earlier.Line} too, with other content. Keep one of them, or tell them apart by the day they joined."
            );
        }
        else
        {
            seen[RosterText.Plain(name) + joined] = (line.Line, content);
        }

        var text = reader.Text(line, given, family, joined, existing);
        if (cells.Count == before && text is not null)
        {
            var wrong = text.Check(
                school.Sashes.ToDictionary(sash => sash.Id),
                school.Cohorts.ToDictionary(cohort => cohort.Id, cohort => cohort.ClassId),
                school.Today
            );
            foreach (var problem in wrong)
            {
                cells.Say(line, problem);
            }
        }

        var knows = reader.Knows(line);
        if (cells.Count > before || text is null)
        {
            items.Add(new(line.Line, name, isAsked ? RosterFate.Asked : RosterFate.Refused, []));
            return;
        }

        var since = cells.DateIn(line, RosterField.SashSince);
        List<string> changes = existing is null ? [] : Changes(existing, text, since);
        if (knows.Count > 0)
        {
            changes.Add($"taken over: {knows.Count(one => one.Stage != Stage.NotMet)} of {knows.Count} postures");
        }

        items.Add(
            new(
                line.Line,
                name,
                existing is null ? RosterFate.Added
                    : changes.Count == 0 ? RosterFate.Same
                    : RosterFate.Changed,
                changes
            )
        );
        if (existing is null || changes.Count > 0)
        {
            entries.Add(new(line.Line, existing, text, since, knows));
        }
    }

    /// <summary>What is wrong with a line that is left out is said beside it, and keeps nobody else waiting.</summary>
    private void LeaveOut(
        RosterLine line,
        ILookup<string, Student> byName,
        Dictionary<string, (int Line, string Content)> seen
    )
    {
        var rest = new RosterImport(table, answers with { LeftOut = [] }, school);
        rest.Read(line, byName, new(seen));
        var name = rest.items[^1].Name;
        items.Add(new(line.Line, name, RosterFate.LeftOut, [.. rest.cells.Problems.Select(Said)]));

        static string Said(RosterProblem problem) =>
            problem.Column.Length == 0 ? problem.Message : $"{problem.Column}: {problem.Message}";
    }

    /// <summary>Whom on the roster a line is about. One person of the name is taken for the same, unless the file has them
    /// join on another day: then it is asked before there are two, or one has become another.</summary>
    private Student? Existing(RosterLine line, List<Student> alike, DateOnly? joined, ref bool isAsked)
    {
        if (answers.AnotherPerson.Contains(line.Line))
        {
            return null;
        }

        if (alike is [var only])
        {
            isAsked = joined is { } day && day != only.Joined && !answers.SamePerson.Contains(line.Line);
            if (isAsked)
            {
                cells.Say(
                    line,
                    cells.NameField,
                    $"{only.FullName} is on the roster since {only.Joined:yyyy-MM-dd}, and the file says {joined:yyyy-MM-dd}. Say whether this is the same person."
                );
            }

            return only;
        }

        var matching = joined is null ? alike : alike.Where(student => student.Joined == joined).ToList();
        if (alike.Count > 1 && matching.Count != 1)
        {
            cells.Say(
                line,
                cells.NameField,
                $"{alike.Count} people on the roster are called that. Give the day they joined to tell them apart."
            );
        }

        return matching.Count == 1 ? matching[0] : null;
    }

    private List<string> Changes(Student student, StudentText text, DateOnly? since)
    {
        List<string> changes = [];
        Differ("given name", student.GivenName, text.GivenName);
        Differ("family name", student.FamilyName, text.FamilyName);
        Differ("sash", NameOf(student.SashId), NameOf(text.SashId));
        Differ("half", student.Half.ToString().ToLowerInvariant(), text.Half.ToString().ToLowerInvariant());
        Differ("cohort", CohortNames(student.CohortIds), CohortNames(text.CohortIds));
        Differ("joined", $"{student.Joined:yyyy-MM-dd}", $"{text.Joined:yyyy-MM-dd}");
        Differ("at the level since", $"{student.SashSince:yyyy-MM-dd}", $"{since ?? student.SashSince:yyyy-MM-dd}");
        Differ("mode", student.Details.Mode.Name, text.Details.Mode.Name);
        Differ("aim", student.Details.Aim.ToString(), text.Details.Aim.ToString());
        Differ("scope", student.Details.Scope, text.Details.Scope);
        Differ(
            "contact",
            $"{student.Details.ContactName} {student.Details.ContactPhone}",
            $"{text.Details.ContactName} {text.Details.ContactPhone}"
        );
        Differ("agreed", Agreed(student.Details), Agreed(text.Details));
        return changes;

        static string Agreed(StudentDetails details) =>
            string.Join(", ", details.Consents.Order().Select(consent => $"{consent}"));

        void Differ(string what, string before, string after)
        {
            if (before != after)
            {
                changes.Add(
                    $"{what}: {after.Trim()} instead of {(before.Trim().Length == 0 ? "nothing" : before.Trim())}"
                );
            }
        }

        string NameOf(Guid sash) => school.Sashes.FirstOrDefault(known => known.Id == sash)?.Name ?? "";

        string CohortNames(IEnumerable<Guid> ids) =>
            string.Join(", ", ids.Select(id => school.Cohorts.FirstOrDefault(cohort => cohort.Id == id)?.Name));
    }
}
