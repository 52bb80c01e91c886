using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Progress;

public sealed class WalkTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly Guid Imke = Guid.NewGuid();
    private static readonly UnitKey Whip = new(UnitKind.Posture, Guid.NewGuid(), Side.Left);

    [Fact]
    public void A_walk_says_when_it_was_met_each_change_of_stage_and_what_came_back()
    {
        var walk = Of(
            Saw(60, Sign.Stage, Stage.Follows),
            Saw(50, Sign.Fault),
            Saw(40, Sign.Stage, Stage.Alone),
            Saw(40, Sign.Fine),
            Saw(30, Sign.Fine),
            Saw(20, Sign.Fault)
        );
        Assert.Equal(Today.AddDays(-60), walk.Met);
        Assert.Equal([(60, Stage.Follows), (40, Stage.Alone)], walk.Reached.Select(at => (Ago(at.On), at.Stage)));
        Assert.Equal([(50, (int?)30), (20, null)], walk.Open.Select(open => (Ago(open.Opened), Ago(open.Cleared))));
        Assert.Equal(1, walk.CameBack);
    }

    [Property]
    public void A_walk_ends_where_somebody_stands(int seed)
    {
        var choose = new Random(seed);
        Observation[] seen =
        [
            .. Enumerable
                .Range(0, choose.Next(12))
                .Select(_ =>
                    Saw(
                        choose.Next(120),
                        (Sign)choose.Next(4),
                        (Stage)choose.Next((int)Stage.Follows, (int)Stage.Settled)
                    )
                ),
        ];
        var (walk, book) = (Of(seen), Book(seen));
        Assert.Equal(book.StandingOf(Imke, Whip).Stage, walk.Reached.Count > 0 ? walk.Reached[^1].Stage : Stage.NotMet);
        Assert.Equal(walk.Reached.Select(at => at.On).Order().Distinct(), walk.Reached.Select(at => at.On));
        Assert.All(walk.Reached.Zip(walk.Reached.Skip(1)), at => Assert.NotEqual(at.First.Stage, at.Second.Stage));
        Assert.Equal(seen.Select(fact => (DateOnly?)fact.Date).Min(), walk.Met);
    }

    [Property]
    public void On_every_day_of_a_walk_somebody_stood_where_it_says(byte[] lessons, int seed)
    {
        var choose = new Random(seed);
        List<DateOnly> shown = [.. lessons.Take(8).Select(days => Today.AddDays(-(days % 100))).Distinct()];
        Observation[] seen =
        [
            .. Enumerable
                .Range(0, choose.Next(8))
                .Select(_ => Saw(choose.Next(100), (Sign)choose.Next(4), (Stage)choose.Next(2, 5))),
        ];
        var reached = Book(seen, shown).WalkOf(Imke, Whip).Reached;
        Assert.All(
            Enumerable.Range(0, 101),
            days =>
            {
                var day = Today.AddDays(-days);
                var stood = Book([.. seen.Where(fact => fact.Date <= day)], [.. shown.Where(on => on <= day)]);
                Assert.Equal(
                    stood.StandingOf(Imke, Whip).Stage,
                    reached.Where(at => at.On <= day).Select(at => at.Stage).LastOrDefault()
                );
            }
        );
    }

    private static int Ago(DateOnly day) => Today.DayNumber - day.DayNumber;

    private static int? Ago(DateOnly? day) => day is { } on ? Ago(on) : null;

    private static Walk Of(params Observation[] seen) => Book(seen).WalkOf(Imke, Whip);

    /// <param name="shown">The days on which it was taught and they were there.</param>
    private static ProgressBook Book(Observation[] seen, IReadOnlyList<DateOnly>? shown = null) =>
        new(
            new Dictionary<Guid, IReadOnlyList<Zeitplan.Core.People.Place>> { [Imke] = Material.NoPlace },
            [
                .. (shown ?? []).Select(date => new Attendance(
                    Guid.NewGuid(),
                    Guid.Empty,
                    date,
                    Imke,
                    true,
                    Guid.Empty,
                    default
                )),
            ],
            [.. (shown ?? []).Select(date => Material.Taught(new(Whip.PostureId, Whip.Side), date))],
            seen,
            Today
        );

    private static Observation Saw(int daysAgo, Sign sign, Stage stage = default) =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            Today.AddDays(-daysAgo),
            Imke,
            Whip.PostureId,
            Whip.Side,
            sign,
            sign == Sign.Stage ? stage : null,
            null,
            sign is Sign.Fault or Sign.Better ? "knee drifts in" : "",
            sign == Sign.Fault ? Weight.KeyPoint : null,
            Guid.Empty,
            default
        );
}
