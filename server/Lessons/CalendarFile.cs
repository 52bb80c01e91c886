using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;
using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Lessons;

/// <summary>Lessons as a calendar file (RFC 5545), in the school's time zone.</summary>
internal static class CalendarFile
{
    /// <param name="Class">What the lesson is called in a calendar.</param>
    /// <param name="At">When this version of it was announced.</param>
    /// <param name="Outline">Who is led in what, when; a line each.</param>
    public sealed record Lesson(
        string Class,
        CalendarEntry Entry,
        DateTimeOffset At,
        IReadOnlyList<string>? Outline = null
    );

    /// <param name="name">Of the class or the teacher whose lessons these are.</param>
    public static string Write(string name, Core.School school, IEnumerable<Lesson> lessons)
    {
        var timeZone = school.ClockZone;
        var calendar = new Calendar { ProductId = "-//Zeitplan//Zeitplan//EN", Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", school.Name.Length > 0 ? $"{school.Name}: {name}" : name);
        calendar.AddTimeZone(VTimeZone.FromDateTimeZone(timeZone));
        foreach (var lesson in lessons)
        {
            var (entry, held) = (lesson.Entry, lesson.Entry.Lesson);
            var start = held.Date.ToDateTime(held.Start);
            calendar.Events.Add(
                new()
                {
                    Uid = entry.Uid,
                    Sequence = entry.Sequence + school.ZoneChanges,
                    Status = entry.Cancelled ? "CANCELLED" : "CONFIRMED",
                    Summary = lesson.Class,
                    Location = held.Hall,
                    Description = held.Closed ?? string.Join("\n", [.. held.News, .. lesson.Outline ?? []]),
                    DtStamp = new CalDateTime(lesson.At.UtcDateTime, "UTC"),
                    Start = new CalDateTime(start, timeZone),
                    End = EndOf(start, held.Minutes, timeZone),
                }
            );
        }

        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    /// <summary>A lesson lasts its minutes also where the clocks change during it: its end is then told in UTC, because
    /// the hour that comes twice has no name of its own.</summary>
    private static CalDateTime EndOf(DateTime start, int minutes, string timeZone)
    {
        var zone = DateTimeZoneProviders.Tzdb[timeZone];
        var end = zone.AtLeniently(LocalDateTime.FromDateTime(start)).PlusMinutes(minutes);
        return end.LocalDateTime.ToDateTimeUnspecified() == start.AddMinutes(minutes)
            ? new(end.LocalDateTime.ToDateTimeUnspecified(), timeZone)
            : new(end.ToDateTimeUtc(), "UTC");
    }
}
