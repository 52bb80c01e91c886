using FsCheck.Xunit;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;

namespace Zeitplan.Core.Tests.Terms;

/// <summary>What leaves Zeitplan: calendars and tables.</summary>
public sealed class TakeAwayTests
{
    private static readonly Guid Evening = Guid.NewGuid();

    private static AnnouncedLesson On(int day, int? movedTo = null, string? closed = null, int minutes = 90) =>
        new(
            new(2026, 9, day),
            new(2026, 9, movedTo ?? day),
            new(18, 30),
            minutes,
            "Lower Hall",
            [],
            ["Fern, newer: Brush Knee, left"],
            closed
        );

    [Fact]
    public void A_lesson_that_moves_stays_the_same_event_with_a_higher_sequence()
    {
        var entries = CalendarEntries.Of(
            Evening,
            [
                [On(1), On(8)],
                [On(1), On(8, movedTo: 10)],
                [On(1), On(8, movedTo: 10)],
            ]
        );
        Assert.Equal([0, 1], entries.Select(entry => entry.Sequence));
        Assert.Equal(new DateOnly(2026, 9, 10), entries[1].Lesson.Date);
        Assert.Equal(
            CalendarEntries
                .Of(
                    Evening,
                    [
                        [On(1), On(8)],
                    ]
                )
                .Select(entry => entry.Uid),
            entries.Select(entry => entry.Uid)
        );
    }

    [Fact]
    public void What_is_closed_or_taken_out_is_cancelled_and_comes_back_when_it_is_held_after_all()
    {
        var entries = CalendarEntries.Of(
            Evening,
            [
                [On(1), On(8), On(15)],
                [On(1, closed: "Halls closed"), On(8)],
            ]
        );
        Assert.Equal([(true, 1), (false, 0), (true, 1)], entries.Select(entry => (entry.Cancelled, entry.Sequence)));
        var back = CalendarEntries.Of(
            Evening,
            [
                [On(1), On(8), On(15)],
                [On(1, closed: "Halls closed"), On(8)],
                [On(1), On(8), On(15)],
            ]
        );
        Assert.Equal([(false, 2), (false, 0), (false, 2)], back.Select(entry => (entry.Cancelled, entry.Sequence)));
    }

    [Property]
    public void Sequences_never_fall_and_every_event_has_its_own_name(byte[] lengths)
    {
        List<IReadOnlyList<AnnouncedLesson>> versions = [];
        Dictionary<string, int> before = [];
        foreach (var length in lengths.Take(8))
        {
            versions.Add([
                On(1, minutes: 60 + (length % 3)),
                On(8, movedTo: 8 + (length % 2)),
                .. length % 4 == 0 ? new[] { On(15) } : [],
            ]);
            var now = CalendarEntries.Of(Evening, versions);
            Assert.Equal(now.Count, now.Select(entry => entry.Uid).Distinct().Count());
            Assert.All(now, entry => Assert.True(entry.Sequence >= before.GetValueOrDefault(entry.Uid)));
            before = now.ToDictionary(entry => entry.Uid, entry => entry.Sequence);
        }
    }

    [Fact]
    public void The_table_of_a_plan_holds_every_minute_that_is_led()
    {
        var problem = new TermProblem(
            Material.Lessons(10),
            [Material.Cohort("Fern, newer", Material.Units(5)), Material.Cohort("Copper", Material.Units(4))]
        );
        var term = new SolvedTerm(problem, TermPlanner.Plan(problem));
        var rows = PlanTable.Of(term);
        foreach (var (at, cohort) in problem.Cohorts.Index())
        {
            foreach (var (lesson, content) in term.Plan.Cohorts[at].Lessons.Index())
            {
                Assert.Equal(
                    content.LedSeconds,
                    rows.Where(row => row.Cohort == cohort.Name && row.Lesson == lesson + 1).Sum(row => row.Seconds)
                );
            }

            Assert.Equal(
                term.Plan.Cohorts[at].Placements.Count,
                rows.Count(row => row.Cohort == cohort.Name && row.Work == PlanWork.New)
            );
        }
    }
}
