using System.Globalization;
using System.Text;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Exchange;

/// <summary>A roster as a spreadsheet holds it: a row of headers, and rows of cells with the line each stands
/// on.</summary>
public sealed record RosterTable(IReadOnlyList<string> Headers, IReadOnlyList<RosterLine> Lines)
{
    /// <summary>Where the headers stand in the file, from 1.</summary>
    public int HeaderLine { get; init; } = 1;
}

/// <param name="Line">In the file, from 1.</param>
public sealed record RosterLine(int Line, IReadOnlyList<string> Cells);

/// <summary>What a column of a roster can mean.</summary>
public enum RosterField
{
    FullName,
    GivenName,
    FamilyName,
    Sash,
    Half,
    Class,
    Cohort,
    Joined,
    SashSince,
    Mode,
    Aim,
    Scope,
    ContactName,
    ContactPhone,

    /// <summary>Has agreed to be touched when corrected.</summary>
    HandsOn,

    /// <summary>Has agreed to work with a partner.</summary>
    PartnerWork,

    /// <summary>Has agreed to be recorded.</summary>
    Recording,

    /// <summary>Has agreed to be written to.</summary>
    Messages,

    /// <summary>What of a form, or of a section of one, somebody knew when they came (domain.md 4.5).</summary>
    Knows,
}

/// <summary>Which column means what. Limits never travel in a roster: they are private.</summary>
public static class RosterColumns
{
    private static readonly (RosterField Field, string[] Names)[] Known =
    [
        (RosterField.FullName, ["name", "full name", "student", "student name", "member", "participant"]),
        (
            RosterField.GivenName,
            ["given name", "first name", "firstname", "forename", "given", "first", "christian name"]
        ),
        (RosterField.FamilyName, ["family name", "last name", "lastname", "surname", "family", "last"]),
        (RosterField.Sash, ["sash", "level", "grade", "rank", "belt"]),
        (RosterField.Half, ["half", "newer or senior"]),
        (RosterField.Class, ["class", "lesson", "course", "group class"]),
        (RosterField.Cohort, ["cohort", "group", "subgroup"]),
        (
            RosterField.Joined,
            ["joined", "member since", "start", "started", "start date", "join date", "date joined", "entry"]
        ),
        (RosterField.SashSince, ["level since", "sash since", "graded on", "last test", "promoted"]),
        (RosterField.Mode, ["mode", "takes part", "seated or standing"]),
        (RosterField.Aim, ["aim", "goal", "comes for"]),
        (RosterField.Scope, ["scope", "wants"]),
        (RosterField.ContactName, ["emergency contact", "contact", "contact name", "in emergency", "next of kin"]),
        (
            RosterField.ContactPhone,
            [
                "emergency phone",
                "contact phone",
                "emergency number",
                "phone in emergency",
                "contact number",
                "telephone",
                "phone",
                "mobile",
            ]
        ),
        (RosterField.HandsOn, ["agrees to touch", "hands on", "touch", "may be touched"]),
        (RosterField.PartnerWork, ["agrees to partner work", "partner work", "partner"]),
        (RosterField.Recording, ["agrees to recording", "recording", "photos", "photographs", "video"]),
        (RosterField.Messages, ["agrees to messages", "messages", "newsletter", "may be written to"]),
    ];

    /// <summary>Means the day of joining where it stands alone, and the day of the level beside another day of
    /// joining.</summary>
    private const string Since = "since";

    /// <summary>The name each field has in a roster the program writes itself.</summary>
    public static string Header(RosterField field) => Known.First(known => known.Field == field).Names[0];

    /// <summary>For each column what it most likely means; each meaning once, the first column that fits.</summary>
    /// <param name="words">What headers have meant in this school's files before.</param>
    /// <param name="forms">A column called by a form, or by a form and its section, says what somebody knows of it.</param>
    public static IReadOnlyList<RosterColumn> Guess(
        IReadOnlyList<string> headers,
        IReadOnlyList<RosterWord> words,
        IReadOnlyList<Form> forms
    )
    {
        var remembered = words
            .Where(word => word.Field is null)
            .GroupBy(word => RosterText.Plain(word.Word))
            .ToDictionary(same => same.Key, same => same.Last().Meaning);
        List<RosterColumn?> columns = [.. headers.Select(Known)];
        HashSet<RosterColumn> taken = [];
        for (var at = 0; at < columns.Count; at++)
        {
            if (columns[at] is { } column && !taken.Add(column))
            {
                columns[at] = null;
            }
        }

        foreach (var at in Enumerable.Range(0, headers.Count).Where(at => RosterText.Plain(headers[at]) == Since))
        {
            columns[at] ??= new[] { RosterField.Joined, RosterField.SashSince }
                .Select(field => new RosterColumn(field))
                .FirstOrDefault(taken.Add);
        }

        return [.. columns.Select(column => column ?? RosterColumn.PassedOver)];

        RosterColumn? Known(string header)
        {
            var plain = RosterText.Plain(header);
            return remembered.TryGetValue(plain, out var meaning) ? Meant(meaning, forms)
                : plain == Since ? null
                : RosterColumns
                    .Known.Where(known => known.Names.Contains(plain))
                    .Select(known => new RosterColumn(known.Field))
                    .FirstOrDefault()
                    ?? Of(plain, forms);
        }
    }

    /// <summary>A word as it is remembered: lower case, without accents or punctuation.</summary>
    public static string Plain(string word) => RosterText.Plain(word);

    /// <summary>As a word remembers it.</summary>
    public static string Meaning(RosterColumn column) =>
        column.Field is null ? ""
        : column.Field == RosterField.Knows ? $"{column.Field} {column.FormId} {column.SectionId}".TrimEnd()
        : $"{column.Field}";

    /// <summary>What a word remembers; null where it is passed over or is about a form there no longer is.</summary>
    private static RosterColumn? Meant(string meaning, IReadOnlyList<Form> forms)
    {
        var parts = meaning.Split(' ');
        if (!Enum.TryParse<RosterField>(parts[0], out var field))
        {
            return null;
        }

        if (field != RosterField.Knows)
        {
            return new(field);
        }

        var form = forms.FirstOrDefault(form => parts.Length > 1 && $"{form.Id}" == parts[1]);
        var section = form?.Sections.FirstOrDefault(section => parts.Length > 2 && $"{section.Id}" == parts[2]);
        return form is null || (parts.Length > 2 && section is null) ? null : new(field, form.Id, section?.Id);
    }

    /// <summary>"Lantern Form", or "Lantern Form, Section one".</summary>
    private static RosterColumn? Of(string plain, IReadOnlyList<Form> forms) =>
        (
            from form in forms
            from section in form.Sections.Select(section => (Section?)section).Prepend(null)
            where RosterText.Plain($"{form.Name} {section?.Name}") == plain
            select new RosterColumn(RosterField.Knows, form.Id, section?.Id)
        ).FirstOrDefault();
}

/// <summary>Words and dates as people type them.</summary>
internal static class RosterText
{
    /// <summary>Lower case, without accents, punctuation or doubled blanks: what makes two spellings of one name
    /// alike.</summary>
    public static string Plain(string text)
    {
        var plain = new StringBuilder();
        foreach (var letter in text.Normalize(NormalizationForm.FormD))
        {
            if (CharUnicodeInfo.GetUnicodeCategory(letter) != UnicodeCategory.NonSpacingMark)
            {
                plain.Append(char.IsLetterOrDigit(letter) ? char.ToLowerInvariant(letter) : ' ');
            }
        }

        return string.Join(' ', plain.ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries));
    }

    /// <summary>Whether the day comes first: decided by the first date that can be read one way only. Null where none
    /// decides it and some could be read both ways.</summary>
    public static bool? DayFirst(IReadOnlyCollection<string> dates) =>
        dates
            .Select(Parts)
            .Where(parts => parts is { Length: 3 } && parts[0] <= 31 && parts[1] <= 31)
            .Select(parts =>
                (bool?)(
                    parts![0] > 12 ? true
                    : parts[1] > 12 ? false
                    : null
                )
            )
            .FirstOrDefault(order => order is not null)
        ?? (dates.Any(CanBeReadBothWays) ? null : true);

    /// <summary>3/4/2026, and not 4/4/2026. Where dots stand between, the day comes first wherever it is
    /// written.</summary>
    public static bool CanBeReadBothWays(string date) =>
        !date.Contains('.', StringComparison.Ordinal)
        && Parts(date) is [var a, var b, _]
        && a != b
        && a is >= 1 and <= 12
        && b is >= 1 and <= 12;

    /// <summary>2026-11-24, 24.11.2026, 24/11/26, 11/24/2026, or a spreadsheet's own day number.</summary>
    public static DateOnly? Date(string text, bool dayFirst)
    {
        if (
            int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var serial)
            && serial is > 20000 and < 70000
        )
        {
            return new DateOnly(1899, 12, 30).AddDays(serial);
        }

        if (Parts(text) is not [var a, var b, var c])
        {
            return null;
        }

        var (year, month, day) =
            a > 31 ? (a, b, c)
            : dayFirst || text.Contains('.', StringComparison.Ordinal) ? (c, b, a)
            : (c, a, b);
        year += year < 100 ? 2000 : 0;
        return
            year is >= 1900 and <= 2200
            && month is >= 1 and <= 12
            && day >= 1
            && day <= DateTime.DaysInMonth(year, month)
            ? new(year, month, day)
            : null;
    }

    private static int[]? Parts(string text)
    {
        // A time of day behind the date, as databases write it, says nothing here.
        var parts = text.Trim().Split(' ', 'T')[0].Split('.', '/', '-');
        var numbers = parts
            .Select(part =>
                int.TryParse(part, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : -1
            )
            .ToArray();
        return numbers.Length == 3 && numbers.All(number => number >= 0) ? numbers : null;
    }
}
