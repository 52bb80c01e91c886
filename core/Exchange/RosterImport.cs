using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

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
);

/// <summary>A student to add or to rewrite.</summary>
/// <param name="Existing">Null for somebody new.</param>
public sealed record RosterEntry(int Line, Student? Existing, StudentText Text, DateOnly? SashSince);

/// <summary>
/// A spreadsheet's roster against the school's: what would be added and changed, what stands twice, and what is wrong
/// where. Somebody is recognised by their name however it is accented and spaced, and by the day they joined where two
/// are called alike. Nothing is taken over while anything is wrong.
/// </summary>
public sealed class RosterImport
{
    public const int MostLines = 20000;

    private readonly RosterSchool school;
    private readonly Dictionary<RosterField, int> columns;
    private readonly RosterTable table;
    private readonly Dictionary<RosterField, bool> dayFirst;
    private readonly List<RosterProblem> problems = [];
    private readonly List<RosterItem> items = [];
    private readonly List<RosterEntry> entries = [];

    private RosterImport(RosterTable table, IReadOnlyList<RosterField?> mapping, RosterSchool school)
    {
        (this.table, this.school) = (table, school);
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

    public IReadOnlyList<RosterItem> Items => items;
    public IReadOnlyList<RosterProblem> Problems => [.. problems.OrderBy(problem => problem.Line)];

    /// <summary>What to keep; empty while there is a problem.</summary>
    public IReadOnlyList<RosterEntry> Entries => problems.Count > 0 ? [] : entries;

    /// <param name="mapping">For each column what it means; null for one that is passed over.</param>
    public static RosterImport Of(RosterTable table, IReadOnlyList<RosterField?> mapping, RosterSchool school)
    {
        var import = new RosterImport(table, mapping, school);
        import.Run();
        return import;
    }

    private void Run()
    {
        if (!columns.ContainsKey(RosterField.FullName) && !columns.ContainsKey(RosterField.GivenName))
        {
            problems.Add(new(1, "", "Say which column holds the name."));
            return;
        }

        if (table.Lines.Count > MostLines)
        {
            problems.Add(new(1, "", $"The file has {table.Lines.Count} lines; {MostLines} can be taken at once."));
            return;
        }

        var byName = school
            .Students.Where(student => student.Erased is null)
            .ToLookup(student => RosterText.Plain(student.FullName));
        Dictionary<string, (int Line, string Content)> seen = [];
        foreach (var line in table.Lines)
        {
            Read(line, byName, seen);
        }
    }

    private void Read(
        RosterLine line,
        ILookup<string, Student> byName,
        Dictionary<string, (int Line, string Content)> seen
    )
    {
        var before = problems.Count;
        if (
            line.Cells.Count > table.Headers.Count
            && line.Cells.Skip(table.Headers.Count).Any(cell => cell.Trim().Length > 0)
        )
        {
            problems.Add(
                new(
                    line.Line,
                    "",
                    $"This line has {line.Cells.Count} cells and the header {table.Headers.Count}: a separator too many, or a quote missing."
                )
            );
        }

        var (given, family) = Names(line);
        var name = $"{given} {family}".Trim();
        if (given.Length == 0)
        {
            Say(line, NameField, "The name is missing.");
        }

        var joined = DateIn(line, RosterField.Joined);
        var existing = Existing(line, byName[RosterText.Plain(name)].ToList(), joined);
        var content = string.Join('\u001f', line.Cells.Select(cell => cell.Trim()));
        if (given.Length > 0 && seen.TryGetValue(RosterText.Plain(name) + joined, out var earlier))
        {
            if (earlier.Content == content)
            {
                items.Add(new(line.Line, name, RosterFate.Twice, [$"the same as line {earlier.Line}"]));
                return;
            }

            Say(
                line,
                NameField,
                $"{name} stands on line {earlier.Line} too, with other content. Keep one of them, or tell them apart by the day they joined."
            );
        }
        else
        {
            seen[RosterText.Plain(name) + joined] = (line.Line, content);
        }

        var text = Text(line, given, family, joined, existing);
        if (problems.Count == before && text is not null)
        {
            problems.AddRange(
                text.Check(
                        school.Sashes.ToDictionary(sash => sash.Id),
                        school.Cohorts.ToDictionary(cohort => cohort.Id, cohort => cohort.ClassId),
                        school.Today
                    )
                    .Select(problem => new RosterProblem(line.Line, HeaderOf(problem.Field), problem.Message))
            );
        }

        if (problems.Count > before || text is null)
        {
            items.Add(new(line.Line, name, RosterFate.Refused, []));
            return;
        }

        var since = DateIn(line, RosterField.SashSince);
        var changes = existing is null ? [] : Changes(existing, text, since);
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
            entries.Add(new(line.Line, existing, text, since));
        }
    }

    private (string Given, string Family) Names(RosterLine line)
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
                is [var one, var rest]
                ? (one, rest)
            : (full, family);
    }

    private Student? Existing(RosterLine line, List<Student> alike, DateOnly? joined)
    {
        var matching =
            alike.Count > 1 && joined is not null ? alike.Where(student => student.Joined == joined).ToList() : alike;
        if (alike.Count > 1 && matching.Count != 1)
        {
            Say(
                line,
                NameField,
                $"{alike.Count} people on the roster are called that. Give the day they joined to tell them apart."
            );
        }

        return matching.Count == 1 ? matching[0] : null;
    }

    private StudentText? Text(RosterLine line, string given, string family, DateOnly? joined, Student? existing)
    {
        var (sash, half) = SashOf(line, existing);
        var cohorts = CohortsOf(line, sash, half, existing);
        var details = existing?.Details ?? new();
        return sash is null
            ? null
            : new(given, family, sash.Id, half, cohorts, joined ?? existing?.Joined ?? school.Today)
            {
                Details = details with
                {
                    Mode = ModeOf(line) ?? details.Mode,
                    Aim = AimOf(line) ?? details.Aim,
                    Scope = Given(line, RosterField.Scope, details.Scope),
                    ContactName = Given(line, RosterField.ContactName, details.ContactName),
                    ContactPhone = Given(line, RosterField.ContactPhone, details.ContactPhone),
                },
            };
    }

    /// <summary>"Fern", "fern (senior)", "Fern newer", or a half in a column of its own.</summary>
    private (SashLevel? Sash, People.Half Half) SashOf(RosterLine line, Student? existing)
    {
        var written = RosterText.Plain(Cell(line, RosterField.Sash));
        var half =
            HalfOf(line)
            ?? (
                written.EndsWith(" newer", StringComparison.Ordinal) ? People.Half.Newer
                : written.EndsWith(" senior", StringComparison.Ordinal) ? People.Half.Senior
                : null
            );
        if (written.Length == 0)
        {
            var kept =
                school.Sashes.FirstOrDefault(one => one.Id == existing?.SashId)
                ?? school.Sashes.MinBy(one => one.Order);
            if (kept is null)
            {
                Say(line, RosterField.Sash, "The school has no sash yet. Make the ladder first.");
            }

            return (kept, half ?? existing?.Half ?? People.Half.None);
        }

        var sash = school.Sashes.FirstOrDefault(one =>
            RosterText.Plain(one.Name) is var name
            && (name == written || written.StartsWith($"{name} ", StringComparison.Ordinal))
        );
        if (sash is null)
        {
            Say(
                line,
                RosterField.Sash,
                $"The ladder has no sash {Cell(line, RosterField.Sash)}. It has {string.Join(", ", school.Sashes.OrderBy(one => one.Order).Select(one => one.Name))}."
            );
        }

        return (sash, half ?? (existing is not null && existing.SashId == sash?.Id ? existing.Half : People.Half.None));
    }

    private People.Half? HalfOf(RosterLine line)
    {
        switch (RosterText.Plain(Cell(line, RosterField.Half)))
        {
            case "":
                return null;
            case "newer" or "new" or "n":
                return People.Half.Newer;
            case "senior" or "s":
                return People.Half.Senior;
            case "none":
                return People.Half.None;
            default:
                Say(line, RosterField.Half, $"A half is newer or senior, not {Cell(line, RosterField.Half)}.");
                return null;
        }
    }

    /// <summary>By the cohort's name, within the class where one is named; by class and level where no cohort
    /// is.</summary>
    private IReadOnlyList<Guid> CohortsOf(RosterLine line, SashLevel? sash, People.Half half, Student? existing)
    {
        var (className, cohortName) = (
            RosterText.Plain(Cell(line, RosterField.Class)),
            RosterText.Plain(Cell(line, RosterField.Cohort))
        );
        if (className.Length == 0 && cohortName.Length == 0)
        {
            return existing?.CohortIds ?? [];
        }

        var classes = school
            .Classes.Where(schoolClass => className.Length == 0 || RosterText.Plain(schoolClass.Value) == className)
            .Select(schoolClass => schoolClass.Key)
            .ToHashSet();
        if (classes.Count == 0)
        {
            Say(
                line,
                RosterField.Class,
                $"The school has no class {Cell(line, RosterField.Class)}. It has {string.Join(", ", school.Classes.Values.Order())}."
            );
            return [];
        }

        var there = school.Cohorts.Where(cohort => classes.Contains(cohort.ClassId)).ToList();
        var fitting =
            cohortName.Length > 0
                ? there.Where(cohort => RosterText.Plain(cohort.Name) == cohortName).ToList()
                : there
                    .Where(cohort =>
                        cohort.SashId == sash?.Id && (cohort.Half == People.Half.None || cohort.Half == half)
                    )
                    .ToList();
        if (fitting.Count == 1)
        {
            // A class named anew takes the place of their cohort in it; their other classes stay.
            var others =
                existing?.CohortIds.Where(id =>
                    school.Cohorts.FirstOrDefault(cohort => cohort.Id == id)?.ClassId is { } kept
                    && kept != fitting[0].ClassId
                )
                ?? [];
            return [fitting[0].Id, .. others];
        }

        Say(
            line,
            cohortName.Length > 0 ? RosterField.Cohort : RosterField.Class,
            fitting.Count > 1
                    ? $"{fitting.Count} cohorts could be meant: {string.Join(", ", fitting.Select(cohort => $"{school.Classes[cohort.ClassId]}, {cohort.Name}"))}. Name class and cohort."
                : cohortName.Length > 0
                    ? $"There is no cohort {Cell(line, RosterField.Cohort)}{(className.Length > 0 ? " in this class" : "")}. There are {string.Join(", ", there.Select(cohort => cohort.Name).Distinct())}."
                : $"The class has no cohort for {sash?.Name ?? "this sash"}. Name the cohort."
        );
        return [];
    }

    private Mode? ModeOf(RosterLine line)
    {
        var written = RosterText.Plain(Cell(line, RosterField.Mode));
        if (written.Length == 0)
        {
            return null;
        }

        var mode = Mode
            .Named.Select(one => (Mode?)one)
            .FirstOrDefault(one =>
                RosterText.Plain(one!.Value.Name) == written
                || (written is "chair" or "sitting" && one.Value == Mode.Seated)
            );
        if (mode is null)
        {
            Say(
                line,
                RosterField.Mode,
                $"A mode is {string.Join(", ", Mode.Named.Select(one => one.Name))}, not {Cell(line, RosterField.Mode)}."
            );
        }

        return mode;
    }

    private Aim? AimOf(RosterLine line)
    {
        switch (RosterText.Plain(Cell(line, RosterField.Aim)))
        {
            case "":
                return null;
            case "health":
                return Aim.Health;
            case "the art" or "art" or "form":
                return Aim.TheArt;
            case "partner work" or "partner":
                return Aim.PartnerWork;
            default:
                Say(
                    line,
                    RosterField.Aim,
                    $"An aim is health, the art or partner work, not {Cell(line, RosterField.Aim)}."
                );
                return null;
        }
    }

    private DateOnly? DateIn(RosterLine line, RosterField field)
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
        return changes;

        void Differ(string what, string before, string after)
        {
            if (before != after)
            {
                changes.Add(
                    $"{what}: {after.Trim()} instead of {(before.Trim().Length == 0 ? "nothing" : before.Trim())}"
                );
            }
        }

        string NameOf(Guid sash) => school.Sashes.FirstOrDefault(one => one.Id == sash)?.Name ?? "";

        string CohortNames(IEnumerable<Guid> ids) =>
            string.Join(", ", ids.Select(id => school.Cohorts.FirstOrDefault(cohort => cohort.Id == id)?.Name));
    }

    private RosterField NameField =>
        columns.ContainsKey(RosterField.GivenName) ? RosterField.GivenName : RosterField.FullName;

    private string Cell(RosterLine line, RosterField field) =>
        columns.TryGetValue(field, out var at) && at < line.Cells.Count ? line.Cells[at].Trim() : "";

    private string Given(RosterLine line, RosterField field, string otherwise) =>
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

    private void Say(RosterLine line, RosterField field, string message) =>
        problems.Add(new(line.Line, HeaderOf(field), message));
}
