namespace Zeitplan.Core.People;

/// <summary>What is different about one lesson of a class. On a weekday the class does not meet it is a lesson
/// more.</summary>
/// <param name="Date">The date the calendar gives it; it stays the lesson's name when it moves.</param>
/// <param name="Closed">Why this class does not meet, although the school is open.</param>
/// <param name="MovedTo">The date it is held on instead.</param>
/// <param name="Start">When it begins, where not at the class's own time.</param>
/// <param name="Minutes">How long it lasts, where not the class's own minutes.</param>
/// <param name="HallId">Where it is held, where not in the class's own hall.</param>
/// <param name="WatchMinutes">So many of the teachers' minutes the term plan leaves free, so that somebody can be
/// watched; null for none in particular.</param>
public sealed record LessonChange(
    DateOnly Date,
    string? Closed = null,
    DateOnly? MovedTo = null,
    TimeOnly? Start = null,
    int? Minutes = null,
    Guid? HallId = null,
    int? WatchMinutes = null
)
{
    /// <summary>Nothing is different after all.</summary>
    public bool IsNothing(SchoolClass schoolClass) =>
        Date.DayOfWeek == schoolClass.Weekday
        && Closed is null
        && MovedTo is null
        && Start is null
        && Minutes is null
        && HallId is null
        && WatchMinutes is null;

    /// <summary>What cannot be kept.</summary>
    /// <param name="held">Dates of the class's lessons as they are now, without this one.</param>
    public IEnumerable<Problem> Check(
        SchoolClass schoolClass,
        IReadOnlyCollection<DateOnly> held,
        IReadOnlyDictionary<Guid, Hall> halls,
        IEnumerable<SchoolClass> others
    )
    {
        var (date, start, minutes) = (MovedTo ?? Date, Start ?? schoolClass.Start, Minutes ?? schoolClass.Minutes);
        if (Closed is not null && string.IsNullOrWhiteSpace(Closed))
        {
            yield return new("closed", "Say why the class does not meet.");
        }
        else if (Closed?.Length > Problem.LongestName)
        {
            yield return new("closed", $"A reason has at most {Problem.LongestName} letters.");
        }

        if (held.Contains(date))
        {
            yield return new(
                MovedTo is null ? "date" : "movedTo",
                $"{schoolClass.Name} has a lesson on {date:d MMMM} already."
            );
        }

        if (minutes is < ClassText.ShortestLesson or > 300)
        {
            yield return new("minutes", $"A lesson lasts between {ClassText.ShortestLesson} and 300 minutes.");
            yield break;
        }

        if (WatchMinutes is { } watch && (watch < 1 || watch > minutes))
        {
            yield return new("watchMinutes", $"Between 1 and {minutes} minutes of a lesson can be kept for watching.");
        }

        if (start.ToTimeSpan() + TimeSpan.FromMinutes(minutes) > TimeSpan.FromDays(1))
        {
            yield return new("start", "The lesson would run past midnight.");
        }

        var hall = HallId ?? schoolClass.HallId;
        if (!halls.ContainsKey(hall))
        {
            yield return new("hallId", "Choose one of the school's halls.");
            yield break;
        }

        foreach (
            var other in others.Where(other =>
                Closed is null
                && other.Weekday == date.DayOfWeek
                && other.HallId == hall
                && start.ToTimeSpan() < other.Start.ToTimeSpan() + TimeSpan.FromMinutes(other.Minutes)
                && other.Start.ToTimeSpan() < start.ToTimeSpan() + TimeSpan.FromMinutes(minutes)
            )
        )
        {
            yield return new(
                "start",
                $"{other.Name} has {halls[hall].Name} from {other.Start:HH:mm} to {other.End:HH:mm} that day."
            );
        }
    }
}
