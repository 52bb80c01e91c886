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

/// <summary>One date of a class in a term. <paramref name="Number"/> counts the lessons held and is null where the school is closed.</summary>
public sealed record LessonDay(DateOnly Date, int? Number, LessonKind Kind, string? Closed);

/// <summary>The dates a class meets on.</summary>
public static class LessonCalendar
{
    public static IReadOnlyList<LessonDay> Of(Term term, SchoolClass meeting)
    {
        var first = term.Start.AddDays((((int)meeting.Weekday - (int)term.Start.DayOfWeek) + 7) % 7);
        List<LessonDay> days = [];
        var number = 0;
        var last = meeting.Closed is { } closed && closed < term.End ? closed : term.End;
        for (var date = first; date <= last; date = date.AddDays(7))
        {
            var reason = term.Closures.FirstOrDefault(closure => closure.Date == date)?.Reason;
            days.Add(new(date, reason is null ? ++number : null, term.TestDays.Contains(date) ? LessonKind.Test : LessonKind.Ordinary, reason));
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
}
