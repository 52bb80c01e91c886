namespace Zeitplan.Core.Progress;

/// <summary>Whether everybody who is there is truly seen: at least once in two lessons (domain.md 4.5).</summary>
public static class FairEyes
{
    public const int Lessons = 2;

    /// <summary>Over so many weeks it is looked at who has their share.</summary>
    public const int ShareWeeks = 6;

    /// <summary>Who was there in their last two lessons and seen in neither. Whoever was away is not overlooked.</summary>
    /// <param name="attendance">The latest fact about each student in each lesson; of one class.</param>
    /// <param name="observed">None withdrawn.</param>
    /// <param name="until">The last day that counts.</param>
    /// <param name="lessons">One for whoever has to be seen in the next, so that nobody is overlooked in two.</param>
    public static IReadOnlySet<Guid> Overlooked(
        IEnumerable<Attendance> attendance,
        IEnumerable<Observation> observed,
        DateOnly until,
        int lessons = Lessons
    )
    {
        var seen = observed
            .Where(fact => fact.Date <= until)
            .GroupBy(fact => fact.StudentId)
            .ToDictionary(facts => facts.Key, facts => facts.Max(fact => fact.Date));
        return attendance
            .Where(fact => fact.Present && fact.Date <= until)
            .GroupBy(fact => fact.StudentId, fact => fact.Date)
            .Select(days => (Student: days.Key, Last: days.Distinct().OrderDescending().Take(lessons).ToList()))
            // Whoever was watched since was there, whatever the register says.
            .Where(student =>
                student.Last.Count == lessons
                && !(seen.TryGetValue(student.Student, out var date) && date >= student.Last[^1])
            )
            .Select(student => student.Student)
            .ToHashSet();
    }

    /// <summary>Everybody's share of the teachers' eyes over the last weeks. Whoever was away is not unseen, and whoever was watched
    /// was there, whatever the register says.</summary>
    /// <param name="attendance">The latest fact about each student in each lesson.</param>
    /// <param name="observed">None withdrawn.</param>
    /// <param name="until">The last day that counts.</param>
    /// <returns>Whoever was there at all.</returns>
    public static IReadOnlyDictionary<Guid, EyeShare> Shares(
        IEnumerable<Attendance> attendance,
        IEnumerable<Observation> observed,
        DateOnly until
    )
    {
        var from = until.AddDays(-7 * ShareWeeks);
        var seen = observed.Select(fact => (fact.StudentId, fact.Date)).Where(IsLately).ToHashSet();
        return attendance
            .Where(fact => fact.Present)
            .Select(fact => (fact.StudentId, fact.Date))
            .Where(IsLately)
            .Concat(seen)
            .Distinct()
            .GroupBy(day => day.StudentId)
            .ToDictionary(days => days.Key, days => new EyeShare(days.Count(seen.Contains), days.Count()));

        bool IsLately((Guid StudentId, DateOnly Date) day) => day.Date > from && day.Date <= until;
    }

    /// <summary>How many minutes of watching are missing to see so many people.</summary>
    /// <param name="seenAMinute">How many a teacher truly sees in a minute.</param>
    public static int MinutesToSee(int people, int seenAMinute) => (people + seenAMinute - 1) / seenAMinute;
}

/// <summary>In how many of the lessons somebody was there they were watched.</summary>
public sealed record EyeShare(int Seen, int Here)
{
    /// <summary>Once in two lessons at least; of an odd one nothing is claimed.</summary>
    public bool IsFair => Seen >= Here / FairEyes.Lessons;
}
