namespace Zeitplan.Core.Terms;

/// <summary>A lesson as it was announced.</summary>
/// <param name="Usual">The date by which it stays the same lesson when it moves.</param>
/// <param name="News">What is new in it, a line for each cohort.</param>
/// <param name="Closed">Why it is not held.</param>
public sealed record AnnouncedLesson(
    DateOnly Usual,
    DateOnly Date,
    TimeOnly Start,
    int Minutes,
    string Hall,
    IReadOnlyList<Guid> StaffIds,
    IReadOnlyList<string> News,
    string? Closed
)
{
    public bool SaysTheSameAs(AnnouncedLesson other) =>
        this with { StaffIds = other.StaffIds, News = other.News } == other
        && StaffIds.SequenceEqual(other.StaffIds)
        && News.SequenceEqual(other.News);
}

/// <summary>A lesson as it stands in people's calendars (RFC 5545).</summary>
/// <param name="Uid">The same for ever, however often the lesson moves.</param>
/// <param name="Sequence">How often it has been announced differently: a calendar takes the higher one.</param>
/// <param name="Cancelled">It is not held: closed, or taken out.</param>
public sealed record CalendarEntry(string Uid, int Sequence, bool Cancelled, AnnouncedLesson Lesson);

/// <summary>What the announced plans of a class come to in a calendar.</summary>
public static class CalendarEntries
{
    /// <param name="versions">The lessons of every plan announced for one term, the first plan first.</param>
    public static IReadOnlyList<CalendarEntry> Of(Guid classId, IReadOnlyList<IReadOnlyList<AnnouncedLesson>> versions)
    {
        Dictionary<DateOnly, CalendarEntry> entries = [];
        foreach (var lessons in versions)
        {
            foreach (var lesson in lessons)
            {
                var now = new CalendarEntry(
                    $"{lesson.Usual:yyyyMMdd}.{classId}@zeitplan",
                    0,
                    lesson.Closed is not null,
                    lesson
                );
                entries[lesson.Usual] = entries.TryGetValue(lesson.Usual, out var before)
                    ? now with
                    {
                        Sequence =
                            before.Sequence
                            + (before.Lesson.SaysTheSameAs(lesson) && before.Cancelled == now.Cancelled ? 0 : 1),
                    }
                    : now;
            }

            foreach (
                var gone in entries
                    .Values.Where(entry =>
                        !entry.Cancelled && lessons.All(lesson => lesson.Usual != entry.Lesson.Usual)
                    )
                    .ToList()
            )
            {
                entries[gone.Lesson.Usual] = gone with { Sequence = gone.Sequence + 1, Cancelled = true };
            }
        }

        return [.. entries.Values.OrderBy(entry => entry.Lesson.Date)];
    }
}
