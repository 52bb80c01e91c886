namespace Zeitplan.Core.People;

/// <summary>A weekly recurring meeting: weekday, time, minutes, hall and the people who teach it.</summary>
public sealed class SchoolClass
{
    private SchoolClass() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public DayOfWeek Weekday { get; private set; }
    public TimeOnly Start { get; private set; }
    public int Minutes { get; private set; }
    public Guid HallId { get; private set; }
    public IReadOnlyList<Guid> StaffIds { get; private set; } = [];

    /// <summary>Who is away on one date, and who teaches instead.</summary>
    public IReadOnlyList<Substitute> Substitutes { get; private set; } = [];

    /// <summary>Single lessons that are different from the others.</summary>
    public IReadOnlyList<LessonChange> Changes { get; private set; } = [];

    /// <summary>The last day it meets; null while it goes on. A class that has been taught is closed, not
    /// deleted.</summary>
    public DateOnly? Closed { get; private set; }

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public TimeOnly End => Start.AddMinutes(Minutes);

    public static SchoolClass Create(Guid id, ClassText text)
    {
        var schoolClass = new SchoolClass { Id = id };
        schoolClass.Rewrite(text);
        return schoolClass;
    }

    public void Rewrite(ClassText text) =>
        (Name, Weekday, Start, Minutes, HallId, StaffIds, Substitutes) = (
            text.Name.Trim(),
            text.Weekday,
            text.Start,
            text.Minutes,
            text.HallId,
            text.StaffIds,
            text.Substitutes
        );

    public void Close(DateOnly last) => Closed = last;

    /// <summary>Makes one lesson different, in place of what was different about it before, with who is away from
    /// it.</summary>
    /// <param name="date">The day it is held on: absences are kept by it.</param>
    public void ChangeLesson(LessonChange change, DateOnly date, IReadOnlyList<Substitute> away)
    {
        var before = Changes.FirstOrDefault(other => other.Date == change.Date)?.MovedTo ?? change.Date;
        Keep(change);
        Substitutes =
        [
            .. Substitutes
                .Where(substitute => substitute.Date != before && substitute.Date != date)
                .Concat(away)
                .OrderBy(substitute => substitute.Date),
        ];
    }

    /// <summary>Keeps so many of the teachers' minutes of one lesson for watching; whatever else is different about it
    /// stays so.</summary>
    public LessonChange KeepForWatching(DateOnly date, int? minutes)
    {
        var change = (Changes.FirstOrDefault(other => other.Date == date) ?? new(date)) with { WatchMinutes = minutes };
        Keep(change);
        return change;
    }

    private void Keep(LessonChange change) =>
        Changes = [
            .. Changes
                .Where(other => other.Date != change.Date)
                .Concat(change.IsNothing(this) ? [] : [change])
                .OrderBy(other => other.Date),
        ];

    /// <summary>Takes an additional lesson out again.</summary>
    public void DropLesson(DateOnly date) =>
        (Changes, Substitutes) = (
            [.. Changes.Where(other => other.Date != date)],
            [.. Substitutes.Where(substitute => substitute.Date != date)]
        );

    /// <summary>Who teaches on one date: the class's own staff without those away, and who stands in for
    /// them.</summary>
    public IReadOnlyList<Guid> StaffOn(DateOnly date)
    {
        var today = Substitutes.Where(substitute => substitute.Date == date).ToList();
        return
        [
            .. StaffIds
                .Where(id => today.All(substitute => substitute.AwayId != id))
                .Concat(today.Select(substitute => substitute.InsteadId).OfType<Guid>())
                .Distinct(),
        ];
    }

    /// <summary>Whether somebody teaches it: one of its own staff, or standing in from <paramref name="from"/>
    /// on.</summary>
    public bool IsTaughtBy(Guid staffId, DateOnly from) =>
        StaffIds.Contains(staffId)
        || Substitutes.Any(substitute => substitute.InsteadId == staffId && substitute.Date >= from);
}

/// <summary>Somebody is away from one lesson.</summary>
/// <param name="InsteadId">Who teaches instead; null when nobody does.</param>
public sealed record Substitute(DateOnly Date, Guid AwayId, Guid? InsteadId);

/// <summary>Everything a head writes about a class, before it has been checked.</summary>
public sealed record ClassText(
    string Name,
    DayOfWeek Weekday,
    TimeOnly Start,
    int Minutes,
    Guid HallId,
    IReadOnlyList<Guid> StaffIds
)
{
    /// <summary>A lesson shorter than this has no time to teach between warm-up and settling (domain.md 4.3).</summary>
    public const int ShortestLesson = 30;

    public IReadOnlyList<Substitute> Substitutes { get; init; } = [];

    /// <summary>Dates on other weekdays on which it meets by way of exception.</summary>
    public IReadOnlyCollection<DateOnly> OtherDates { get; init; } = [];

    public TimeOnly End => Start.AddMinutes(Minutes);

    /// <summary>What cannot be kept. Whether time, hall and staff get on with the school's other classes is for <see
    /// cref="ClassCheck"/>.</summary>
    public IEnumerable<Problem> Check(IReadOnlyDictionary<Guid, Hall> halls, IReadOnlyDictionary<Guid, string> staff)
    {
        foreach (var problem in Problem.WithName(Name, "name"))
        {
            yield return problem;
        }

        if (!Enum.IsDefined(Weekday))
        {
            yield return new("weekday", "Choose a weekday.");
        }

        if (Minutes is < ShortestLesson or > 300)
        {
            yield return new("minutes", $"A lesson lasts between {ShortestLesson} and 300 minutes.");
        }
        else if (Start.ToTimeSpan() + TimeSpan.FromMinutes(Minutes) > TimeSpan.FromDays(1))
        {
            yield return new("start", "The lesson would run past midnight.");
        }

        if (!halls.ContainsKey(HallId))
        {
            yield return new("hallId", "Choose one of the school's halls.");
        }

        if (StaffIds.Count == 0)
        {
            yield return new("staffIds", "Somebody has to teach: choose at least one.");
        }

        foreach (var (at, _) in StaffIds.Index().Where(s => !staff.ContainsKey(s.Item)))
        {
            yield return new($"staffIds[{at}]", "The school has no such member of staff.");
        }

        foreach (var (at, substitute) in Substitutes.Index())
        {
            if (substitute.Date.DayOfWeek != Weekday && !OtherDates.Contains(substitute.Date))
            {
                yield return new(
                    $"substitutes[{at}].date",
                    $"The class does not meet on {substitute.Date:yyyy-MM-dd}."
                );
            }

            if (!StaffIds.Contains(substitute.AwayId))
            {
                yield return new(
                    $"substitutes[{at}].awayId",
                    "Only somebody who teaches the class can be away from it."
                );
            }

            if (substitute.InsteadId is { } instead && (!staff.ContainsKey(instead) || StaffIds.Contains(instead)))
            {
                yield return new(
                    $"substitutes[{at}].insteadId",
                    staff.ContainsKey(instead)
                        ? $"{staff[instead]} teaches the class anyway."
                        : "The school has no such member of staff."
                );
            }
        }
    }
}
