using Zeitplan.Core.Forms;

namespace Zeitplan.Core;

/// <summary>How this school writes a date: 24 Nov 2026, Nov 24, 2026, or 2026-11-24.</summary>
public enum DateStyle
{
    DayMonthYear,
    MonthDayYear,
    YearMonthDay,
}

/// <summary>What stands before the tenths of a number: 8.5 or 8,5.</summary>
public enum DecimalMark
{
    Point,
    Comma,
}

/// <summary>The school itself: its name, the time zone its lessons happen in, and what it does differently from
/// others.</summary>
public sealed class School
{
    /// <summary>What the clock shows while nobody has said where the school is.</summary>
    public const string ZoneUntilChosen = "UTC";

    private School() { }

    public Guid Id { get; private set; }

    /// <summary>Empty while the head has not named it.</summary>
    public string Name { get; private set; } = "";

    /// <summary>Where it is, in the head's words; may be empty.</summary>
    public string Place { get; private set; } = "";

    /// <summary>An IANA name, such as <c>Europe/Berlin</c>; null while nobody has chosen one.</summary>
    public string? TimeZone { get; private set; }

    /// <summary>The time zone its clock runs in.</summary>
    public string ClockZone => TimeZone ?? ZoneUntilChosen;

    /// <summary>How often the zone has changed: calendars that were fetched before have every lesson anew.</summary>
    public int ZoneChanges { get; private set; }

    public DayOfWeek WeekStart { get; private set; } = DayOfWeek.Monday;
    public DateStyle Dates { get; private set; }
    public DecimalMark Decimals { get; private set; }

    /// <summary>Whether this installation shows the made-up demo school.</summary>
    public bool IsDemo { get; private set; }

    /// <summary>Whether the head has put the way in aside: what is still open there is no longer offered.</summary>
    public bool MovedIn { get; private set; }

    /// <summary>Whether the head has looked through what people came with.</summary>
    public bool TakenOverChecked { get; private set; }

    /// <summary>Whether a head signs in with a second factor or a passkey, or not at all.</summary>
    public bool SecondFactorForHeads { get; private set; }

    public Conventions Conventions { get; private set; } = Conventions.Default;

    public Teaching Teaching { get; private set; } = Teaching.Default;

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public void Adopt(Conventions conventions) => Conventions = conventions;

    public void Adopt(Teaching teaching) => Teaching = teaching;

    /// <summary>What has been checked is what the school is called and how it writes from now on. Lessons keep their
    /// time on the wall when the zone changes.</summary>
    public void Rewrite(SchoolText text)
    {
        ZoneChanges += text.TimeZone == TimeZone ? 0 : 1;
        (Name, Place, TimeZone, WeekStart, Dates, Decimals) = (
            text.Name.Trim(),
            text.Place.Trim(),
            text.TimeZone,
            text.WeekStart,
            text.Dates,
            text.Decimals
        );
    }

    public void AskHeadsForSecondFactor(bool asked) => SecondFactorForHeads = asked;

    public void MoveIn(bool done) => MovedIn = done;

    public void CheckTakenOver() => TakenOverChecked = true;

    /// <summary>How many days into this school's week a weekday is: 0 for its first.</summary>
    public int PlaceInWeek(DayOfWeek day) => ((int)day - (int)WeekStart + 7) % 7;

    public static School Create(Guid id, string name, string? timeZone, bool isDemo = false) =>
        new()
        {
            Id = id,
            Name = name.Trim(),
            TimeZone = timeZone,
            IsDemo = isDemo,
            MovedIn = isDemo,
            TakenOverChecked = isDemo,
        };
}

/// <summary>What a head writes about the school, before it has been checked.</summary>
public sealed record SchoolText(
    string Name,
    string Place,
    string? TimeZone,
    DayOfWeek WeekStart,
    DateStyle Dates,
    DecimalMark Decimals
)
{
    public IEnumerable<Problem> Check()
    {
        foreach (var problem in Problem.WithName(Name, "name"))
        {
            yield return problem;
        }

        if (Place.Trim().Length > Problem.LongestName)
        {
            yield return new("place", $"Keep the place to {Problem.LongestName} characters.");
        }

        if (TimeZone is null)
        {
            yield return new("timeZone", "Choose the time zone your lessons happen in.");
        }
        else if (!TimeZoneInfo.TryFindSystemTimeZoneById(TimeZone, out var zone) || !zone.HasIanaId)
        {
            yield return new("timeZone", $"There is no time zone “{TimeZone}”. Choose one such as Europe/Berlin.");
        }
    }
}
