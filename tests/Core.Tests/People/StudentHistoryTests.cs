using System.Text.Json;
using FsCheck;
using FsCheck.Xunit;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Tests.People;

/// <summary>Whatever happens to somebody in the course of years: where they learned, at which level and how stays
/// true for every day of it.</summary>
public sealed class StudentHistoryTests
{
    private static readonly DateOnly Joined = new(2024, 9, 3);
    private static readonly Guid[] Cohorts = [.. Enumerable.Range(1, 4).Select(number => Id(number))];
    private static readonly Guid[] Sashes = [.. Enumerable.Range(11, 3).Select(number => Id(number))];

    [Property(MaxTest = 200)]
    public void Place_level_and_mode_of_every_day_stay_true(NonNegativeInt seed)
    {
        var (student, days) = Live(seed.Get);
        for (var at = 0; at < days.Count; at++)
        {
            var (now, until) = (days[at], at + 1 < days.Count ? days[at + 1].Day : days[at].Day.AddDays(60));
            foreach (
                var date in new[] { now.Day.AddDays(1), until.AddDays(-1) }.Where(date =>
                    date > now.Day && date < until
                )
            )
            {
                AssertSame(now.Cohorts, PlacesOn(student, date), date);
                Assert.Equal(now.Level, LevelOn(student, date));
            }

            // No lesson falls between two places: on the day of a move both count.
            var before = at > 0 ? days[at - 1].Cohorts : [];
            AssertSame([.. before.Union(now.Cohorts)], PlacesOn(student, now.Day), now.Day);
        }

        var last = days[^1];
        Assert.Equal(last.Cohorts, student.CohortIds);
        Assert.Equal(last.Level, (student.SashId, student.Half));
        Assert.Equal(last.Mode, student.UsualMode);
        Assert.Equal(last.Cohorts.Count == 0, student.Left is not null);
        Assert.All(
            Mode.Named,
            cohort => Assert.Equal(Math.Max(cohort.Adapted, last.Mode.Adapted), student.ModeIn(cohort).Adapted)
        );
    }

    [Property(MaxTest = 100)]
    public void What_was_kept_can_be_come_back_to(NonNegativeInt seed)
    {
        var (student, _) = Live(seed.Get);
        var kept = student.Keep();
        var text = JsonSerializer.Serialize(kept, LibraryJson.Stored);
        student.Rewrite(Text([Cohorts[0]], (Sashes[2], Half.Senior), Mode.Seated), Joined.AddYears(9));
        student.Restore(JsonSerializer.Deserialize<StudentState>(text, LibraryJson.Stored)!);
        Assert.Equal(text, JsonSerializer.Serialize(student.Keep(), LibraryJson.Stored));
    }

    /// <returns>Somebody with a history of up to a dozen changes, and what was true from each of its days on.</returns>
    private static (Student Student, List<State> Days) Live(int seed)
    {
        var random = new Random(seed);
        var now = new State(Joined, Some(random), (Sashes[0], Half.None), Mode.Standing);
        var student = Student.Create(Id(21), Text(now.Cohorts, now.Level, now.Mode));
        List<State> days = [now];
        for (var change = random.Next(12); change > 0; change--)
        {
            var day = now.Day.AddDays(random.Next(1, 90));
            if (now.Cohorts.Count > 0 && random.Next(4) == 0)
            {
                now = now with { Day = day, Cohorts = [] };
                student.Leave(day);
            }
            else
            {
                now = new(
                    day,
                    Some(random),
                    random.Next(3) == 0 ? (random.GetItems(Sashes, 1)[0], (Half)random.Next(3)) : now.Level,
                    random.GetItems([.. Mode.Named], 1)[0]
                );
                student.Rewrite(Text(now.Cohorts, now.Level, now.Mode), day);
            }

            days.Add(now);
        }

        return (student, days);
    }

    private static IReadOnlyList<Guid> Some(Random random) =>
        [.. Cohorts.OrderBy(_ => random.Next()).Take(random.Next(1, 3))];

    /// <returns>None for whoever has left, though a lesson of theirs then would belong to where they come back to.</returns>
    private static List<Guid> PlacesOn(Student student, DateOnly date) =>
        student.Places.Any(place => place.Covers(date)) ? [.. Place.On(student.Places, date).Distinct()] : [];

    private static (Guid, Half) LevelOn(Student student, DateOnly date)
    {
        var level = student.Levels.Last(level => level.Since <= date);
        return (level.SashId, level.Half);
    }

    private static void AssertSame(IReadOnlyCollection<Guid> wanted, IReadOnlyCollection<Guid> found, DateOnly date) =>
        Assert.Equal((date, string.Join(' ', wanted.Order())), (date, string.Join(' ', found.Order())));

    private static StudentText Text(IReadOnlyList<Guid> cohorts, (Guid Sash, Half Half) level, Mode mode) =>
        new("Imke", "Rademaker", level.Sash, level.Half, cohorts, Joined) { Details = new() { Mode = mode } };

    private static Guid Id(int number) => new(number, 0, 0, new byte[8]);

    private sealed record State(DateOnly Day, IReadOnlyList<Guid> Cohorts, (Guid Sash, Half Half) Level, Mode Mode);
}
