using Zeitplan.Core.People;

namespace Zeitplan.Core.Terms;

/// <summary>What a lesson is for (domain.md 4.3).</summary>
public enum LessonKind
{
    Ordinary,

    /// <summary>The last lesson before a test day: nothing new.</summary>
    Consolidation,
    Test,
}

/// <summary>One date of a class in a term. <paramref name="Number"/> counts the lessons held and is null where the
/// school is closed.</summary>
/// <param name="Usual">The date the calendar gives it by the class's weekday; another than <paramref name="Date"/> when
/// it has been moved.</param>
/// <param name="WatchMinutes">So many of the teachers' minutes are kept for watching.</param>
public sealed record LessonDay(
    DateOnly Date,
    int? Number,
    LessonKind Kind,
    string? Closed,
    DateOnly Usual,
    TimeOnly Start,
    int Minutes,
    Guid HallId,
    int WatchMinutes
)
{
    public TimeOnly End => Start.AddMinutes(Minutes);
}

/// <summary>The dates a class meets on.</summary>
public static class LessonCalendar
{
    public static IReadOnlyList<LessonDay> Of(Term term, SchoolClass schoolClass)
    {
        List<LessonDay> days =
        [
            .. Dates(term, schoolClass)
                .Select(usual => Day(term, schoolClass, usual))
                .Where(day => term.Contains(day.Date))
                .OrderBy(day => day.Date),
        ];
        var number = 0;
        for (var at = 0; at < days.Count; at++)
        {
            days[at] = days[at] with { Number = days[at].Closed is null ? ++number : null };
        }

        // Backwards, so that the last lesson held before each test is found past any closures.
        var beforeTest = false;
        for (var at = days.Count - 1; at >= 0; at--)
        {
            if (days[at] is { Closed: null, Kind: LessonKind.Ordinary } && beforeTest)
            {
                days[at] = days[at] with { Kind = LessonKind.Consolidation };
            }

            beforeTest = days[at].Closed is null ? days[at].Kind == LessonKind.Test : beforeTest;
        }

        return days;
    }

    /// <summary>Every date of its weekday, and those it meets on by way of exception.</summary>
    private static IEnumerable<DateOnly> Dates(Term term, SchoolClass schoolClass)
    {
        var first = term.Start.AddDays((((int)schoolClass.Weekday - (int)term.Start.DayOfWeek) + 7) % 7);
        var last = schoolClass.Closed is { } closed && closed < term.End ? closed : term.End;
        return Enumerable
            .Range(0, Math.Max(0, last.DayNumber - first.DayNumber + 7) / 7)
            .Select(week => first.AddDays(7 * week))
            .Concat(
                schoolClass
                    .Changes.Select(change => change.Date)
                    .Where(date => date.DayOfWeek != schoolClass.Weekday && date <= last && term.Contains(date))
            );
    }

    private static LessonDay Day(Term term, SchoolClass schoolClass, DateOnly usual)
    {
        var change = schoolClass.Changes.FirstOrDefault(change => change.Date == usual);
        var date = change?.MovedTo ?? usual;
        return new(
            date,
            null,
            term.TestDays.Contains(date) ? LessonKind.Test : LessonKind.Ordinary,
            term.Closures.FirstOrDefault(closure => closure.Covers(date))?.Reason ?? change?.Closed,
            usual,
            change?.Start ?? schoolClass.Start,
            change?.Minutes ?? schoolClass.Minutes,
            change?.HallId ?? schoolClass.HallId,
            change?.WatchMinutes ?? 0
        );
    }
}
