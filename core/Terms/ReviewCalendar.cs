namespace Zeitplan.Core.Terms;

/// <summary>When something introduced in a lesson is reviewed (domain.md 4.3): 1, 2, 4 and 8 weeks later, a week either
/// way is free, later costs.</summary>
public static class ReviewCalendar
{
    public static readonly IReadOnlyList<int> WeeksAfter = [1, 2, 4, 8];

    /// <summary>How far from its due date a review may lie without cost, in days.</summary>
    public const int ToleranceDays = 7;

    /// <summary>
    /// For every lesson, the later lessons that review what it introduces. Each due date takes the nearest lesson (the
    /// later of two), and two due dates never the same one. A due date past the last lesson belongs to the next term.
    /// </summary>
    public static IReadOnlyList<IReadOnlyList<Review>> Of(IReadOnlyList<DateOnly> lessons) =>
        [.. lessons.Index().Select(lesson => After(lessons, lesson.Index))];

    private static List<Review> After(IReadOnlyList<DateOnly> lessons, int from)
    {
        List<Review> reviews = [];
        foreach (var weeks in WeeksAfter)
        {
            var due = lessons[from].AddDays(7 * weeks);
            var candidates = Enumerable
                .Range(from + 1, lessons.Count - from - 1)
                .Where(at => reviews.All(review => review.Lesson < at));
            var nearest =
                candidates
                    .Where(at => DaysFrom(due, at) <= ToleranceDays)
                    .OrderBy(at => DaysFrom(due, at))
                    .ThenByDescending(at => at)
                    .Cast<int?>()
                    .FirstOrDefault()
                ?? candidates.Where(at => lessons[at] > due).Cast<int?>().FirstOrDefault();
            if (nearest is { } lesson)
            {
                reviews.Add(new(lesson, weeks, lessons[lesson].DayNumber - due.DayNumber > ToleranceDays));
            }
        }

        return reviews;

        int DaysFrom(DateOnly due, int at) => Math.Abs(lessons[at].DayNumber - due.DayNumber);
    }
}

/// <summary>A review of something introduced earlier.</summary>
/// <param name="Lesson">Index of the lesson, from 0.</param>
/// <param name="Late">More than a week after it was due.</param>
/// <param name="InRunThrough">The run-through of the whole segment is the review: it takes no minutes of its
/// own.</param>
public readonly record struct Review(int Lesson, int WeeksAfter, bool Late, bool InRunThrough = false);
