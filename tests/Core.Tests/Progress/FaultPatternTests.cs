using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Progress;

public sealed class FaultPatternTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly Guid Whip = Guid.NewGuid();
    private static readonly Guid Knee = Guid.NewGuid();
    private static readonly Guid Fern = Guid.NewGuid();
    private static readonly Guid Copper = Guid.NewGuid();

    [Fact]
    public void What_was_seen_in_several_people_again_after_a_quiet_time_comes_back()
    {
        var spring = new[] { Case(Fault(230), Fine(220), Fine(213)), Case(Fault(226), Fine(220), Fine(213)) };
        Assert.Empty(Only(spring).Waves());
        Assert.Empty(Only([.. spring, Case(Fault(20))]).Waves());
        var waves = Only([.. spring, Case(Fault(20)), Case(Fault(13))]).Waves();
        Assert.Equal([Today.AddDays(-230), Today.AddDays(-20)], waves);
        Assert.False(FaultPattern.SameSeason(waves));
        Assert.True(FaultPattern.SameSeason([new(2025, 12, 20), new(2026, 4, 1), new(2027, 1, 5)]));
    }

    [Fact]
    public void A_change_mended_it_when_several_had_it_before_and_nobody_new_since()
    {
        FaultCase[] before = [Case(Fault(150)), Case(Fault(140)), Case(Fault(130))];
        var change = Today.AddDays(-100);
        Assert.Equal(change, Only(before).MendedBy([change], Today));
        Assert.Null(Only([.. before, Case(Fault(50))]).MendedBy([change], Today));
        Assert.Null(Only(before[..2]).MendedBy([change], Today));
        // Too early to say.
        Assert.Null(Only(before).MendedBy([Today.AddDays(-20)], Today));
    }

    [Fact]
    public void It_sits_in_a_cohort_when_most_who_have_it_are_in_that_one_and_another_was_watched_too()
    {
        var pattern = Only([.. Enumerable.Range(0, 4).Select(_ => Case(Copper, Fault(30))), Case(Fern, Fault(30))]);
        Assert.Equal(Copper, pattern.OnlyIn(new HashSet<Guid> { Fern, Copper }));
        Assert.Null(pattern.OnlyIn(new HashSet<Guid> { Copper }));
        var shared = Only([
            .. Enumerable.Range(0, 3).SelectMany(_ => new[] { Case(Copper, Fault(30)), Case(Fern, Fault(30)) }),
        ]);
        Assert.Null(shared.OnlyIn(new HashSet<Guid> { Fern, Copper }));
    }

    [Fact]
    public void What_is_open_and_was_not_looked_at_for_six_weeks_is_said_and_what_is_cleared_is_not()
    {
        var forgotten = Case(Fault(60));
        var pattern = Only([forgotten, Case(Fault(60), Seen(10)), Case(Fault(90), Fine(80), Fine(73))]);
        Assert.Equal([forgotten], pattern.Unlooked(Today));
        Assert.Equal(2, pattern.OpenNow);
    }

    [Property]
    public void Every_fault_seen_is_counted_once_in_whatever_order_it_arrives(int[] days, int seed)
    {
        var seen = days.Select(day => day % 2 == 0 ? Fault(Math.Abs(day % 400)) : Fine(Math.Abs(day % 400)))
            .OrderBy(fact => HashCode.Combine(fact.Id, seed))
            .ToArray();
        if (!seen.Any(fact => fact.Sign == Sign.Fault))
        {
            return;
        }

        var one = Case(seen);
        var episodes = one.Correction.Episodes;
        Assert.Equal(seen.Count(fact => fact.Sign == Sign.Fault), episodes.Sum(episode => episode.Seen));
        Assert.Equal(one.Correction.IsOpen, episodes[^1].Cleared is null);
        Assert.All(episodes.SkipLast(1), episode => Assert.NotNull(episode.Cleared));
        Assert.All(episodes, episode => Assert.True(episode.Cleared is null || episode.Cleared >= episode.Opened));
        Assert.Equal(episodes.OrderBy(episode => episode.Opened), episodes);
        Assert.Equal(one.Correction.Since, episodes[^1].Opened);
    }

    [Property]
    public void A_month_has_at_least_as_many_open_as_new_and_no_more_than_there_are_people(int[] days)
    {
        if (days.Length == 0)
        {
            return;
        }

        var pattern = Only([.. days.Select(day => Case(Fault(Math.Abs(day % 700))))]);
        var months = pattern.In([
            .. Enumerable.Range(0, 25).Select(back => new DateOnly(2026, 11, 1).AddMonths(-back)),
        ]);
        Assert.All(months, month => Assert.InRange(month.Open, month.New, pattern.People));
        Assert.Equal(pattern.People, months.Sum(month => month.New));
        Assert.Equal(pattern.OpenNow, months[0].Open);
    }

    [Property]
    public void A_week_in_which_several_have_it_open_is_one_week(int[] days)
    {
        List<FaultCase> cases =
        [
            .. days.Select(day => Math.Abs(day % 700))
                .Select(day => Case(Fault(day + 60), Fine(day % 60 + 2), Fine(day % 60))),
        ];
        if (cases.Count == 0)
        {
            return;
        }

        var open = cases
            .SelectMany(one => one.Correction.Episodes)
            .SelectMany(episode =>
                Enumerable
                    .Range(0, (episode.Cleared ?? Today).DayNumber - episode.Opened.DayNumber + 1)
                    .Select(day => episode.Opened.AddDays(day).DayNumber / 7)
            );
        Assert.Equal(open.Distinct().Count(), Only(cases).WeeksOpen(Today));
    }

    private static FaultPattern Only(IReadOnlyList<FaultCase> cases) => Assert.Single(FaultPattern.Of(cases, Today));

    private static FaultCase Case(params Observation[] seen) => Case(Copper, seen);

    private static FaultCase Case(Guid cohort, params Observation[] seen)
    {
        var student = Guid.NewGuid();
        var book = new ProgressBook(
            new Dictionary<Guid, IReadOnlyList<Place>> { [student] = Material.NoPlace },
            [],
            [],
            seen.Select(fact => fact with { StudentId = student }),
            Today
        );
        var (of, correction) = Assert.Single(book.CorrectionsOf(student));
        return new(student, of, cohort, correction, seen.Max(fact => fact.Date));
    }

    private static Observation Fault(int daysAgo) =>
        Saw(daysAgo, Sign.Fault) with
        {
            FaultId = Knee,
            Words = "the knee drifts",
            Weight = Weight.KeyPoint,
        };

    private static Observation Fine(int daysAgo) => Saw(daysAgo, Sign.Fine);

    private static Observation Seen(int daysAgo) => Saw(daysAgo, Sign.Stage) with { Stage = Stage.Follows };

    private static Observation Saw(int daysAgo, Sign sign) =>
        Material.Saw(new(Whip, Side.Left), Today.AddDays(-daysAgo), sign);
}
