using System.Globalization;
using System.Text;

namespace Zeitplan.Core.Exchange;

/// <summary>A roster as a spreadsheet holds it: a row of headers, and rows of cells with the line each stands
/// on.</summary>
public sealed record RosterTable(IReadOnlyList<string> Headers, IReadOnlyList<RosterLine> Lines);

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
            ["joined", "member since", "since", "start", "started", "start date", "join date", "date joined", "entry"]
        ),
        (RosterField.SashSince, ["level since", "sash since", "graded on", "last test", "promoted"]),
        (RosterField.Mode, ["mode", "takes part", "seated or standing"]),
        (RosterField.Aim, ["aim", "goal", "comes for"]),
        (RosterField.Scope, ["scope", "wants"]),
        (RosterField.ContactName, ["emergency contact", "contact", "contact name", "in emergency", "next of kin"]),
        (
            RosterField.ContactPhone,
            ["emergency phone", "contact phone", "emergency number", "phone in emergency", "contact number"]
        ),
    ];

    /// <summary>The name each field has in a roster the program writes itself.</summary>
    public static string Header(RosterField field) => Known.First(known => known.Field == field).Names[0];

    /// <summary>For each column what it most likely means; each field once, the first column that fits.</summary>
    public static IReadOnlyList<RosterField?> Guess(IReadOnlyList<string> headers)
    {
        HashSet<RosterField> taken = [];
        return
        [
            .. headers.Select(header =>
            {
                var plain = RosterText.Plain(header);
                var found = Known
                    .Where(known => known.Names.Contains(plain) && !taken.Contains(known.Field))
                    .Select(known => (RosterField?)known.Field)
                    .FirstOrDefault();
                if (found is { } field)
                {
                    taken.Add(field);
                }

                return found;
            }),
        ];
    }
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

    /// <summary>Whether the day comes first in a column of dates: decided by the first date that can be read one way
    /// only; day first where all can be read both ways.</summary>
    public static bool DayFirst(IEnumerable<string> dates) =>
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
        ?? true;

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
            : dayFirst ? (c, b, a)
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
