using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Progress;

public sealed class WaysTriedTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly Guid Imke = Guid.NewGuid();
    private static readonly Guid Knee = Guid.NewGuid();
    private static readonly PostureSide Whip = new(Guid.NewGuid(), Side.Left);
    private static readonly Cause Hurries = new("the hand hurries", "say now when the knee is there");
    private static readonly Cause Wide = new("the stance is wide", "shorten it");

    [Fact]
    public void A_way_helped_when_it_was_seen_better_within_three_weeks_and_did_not_when_somebody_looked_in_vain()
    {
        Assert.True(Tried(Saw(40, Sign.Fault), Saw(33, Sign.Fine)));
        Assert.True(Tried(Saw(40, Sign.Fault), Saw(19, Sign.Better)));
        Assert.False(Tried(Saw(40, Sign.Fault), Saw(33, Sign.Fault)));
        Assert.False(Tried(Saw(40, Sign.Fault), Saw(33, Sign.Fault), Saw(18, Sign.Fine)));
        Assert.Null(Tried(Saw(40, Sign.Fault)));
        Assert.Null(Tried(Saw(40, Sign.Fault), Saw(18, Sign.Fine)));

        static bool? Tried(params Observation[] seen) => Assert.Single(Did(40, Way.AtTheWall).On(seen)).Helped;
    }

    [Fact]
    public void While_its_three_weeks_last_a_way_is_only_known_to_have_helped()
    {
        var tried = Did(10, Way.AtTheWall);
        Assert.Null(Assert.Single(tried.On(Saw(10, Sign.Fault), Saw(3, Sign.Fault))).Helped);
        Assert.True(Assert.Single(tried.On(Saw(10, Sign.Fault), Saw(3, Sign.Fault), Saw(1, Sign.Fine))).Helped);
    }

    [Property]
    public void Of_all_that_was_said_about_a_way_of_a_day_the_latest_counts_in_whatever_order_it_arrives(
        bool[] done,
        int seed
    )
    {
        var said = done.Index()
            .Select(at =>
                Did(10, Way.Image) with
                {
                    Done = at.Item,
                    At = DateTimeOffset.UnixEpoch.AddSeconds(at.Index),
                }
            )
            .OrderBy(way => HashCode.Combine(way.At, seed))
            .ToArray();
        Assert.Equal(done.LastOrDefault() ? 1 : 0, said.On(Saw(10, Sign.Fault)).Count);
    }

    [Fact]
    public void What_is_taught_again_is_done_as_has_helped_most_or_else_otherwise_or_else_as_its_first_cause_is_mended()
    {
        Fault fault = new(Knee, "the knee drifts", Weight.KeyPoint, [Hurries, Wide]);
        var pattern = Teaching.Default.AgainFor(Mode.Standing);
        Assert.Contains(pattern.Passes, pass => pass.Said == Said.Faults);
        Helpful wall = new(Way.AtTheWall, 5, 6);
        Assert.Equal("at the wall, which eased 5 of 6 within three weeks", Words(fault, wall, new(Way.Image, 3, 6)));
        Assert.Equal("feet only; hook last", Words(fault with { OtherWays = ["feet only", "hook last"] }));
        Assert.Equal(Hurries.Mend, Words(fault, new Helpful(Way.Image, 0, 6)));
        Assert.Equal("", Words(null));
        Assert.Equal(pattern.Name, AgainWay.Of(pattern, null, []).Says);

        string Words(Fault? of, params Helpful[] helpful) => AgainWay.Of(pattern, of, helpful).Words;
    }

    [Fact]
    public void A_school_without_a_pattern_for_it_teaches_again_as_it_brings_in()
    {
        var teaching = Teaching.Default with
        {
            Patterns = [TeachingPattern.ShowTogetherWatch, TeachingPattern.WeightFirst],
        };
        Assert.Equal(TeachingPattern.WeightFirst, teaching.AgainFor(Mode.Seated));
        Assert.Equal(TeachingPattern.ShowTogetherWatch, teaching.AgainFor(Mode.Standing));
    }

    [Fact]
    public void Below_five_cases_nothing_is_claimed()
    {
        var (helped, failed) = (Case(Way.AtTheWall, helps: true), Case(Way.AtTheWall, helps: false));
        Assert.Empty(Helpful.Among([helped, helped, helped, failed]));
        Assert.Equal(
            new Helpful(Way.AtTheWall, 4, 5),
            Assert.Single(Helpful.Among([helped, helped, helped, helped, failed]))
        );
    }

    [Fact]
    public void What_could_be_tried_next_is_a_cause_nobody_went_into_then_what_has_helped_others()
    {
        var correction = Correction(
            [Did(10, Way.FeetOnly) with { Cause = Hurries.Why }],
            [Saw(10, Sign.Fault), Saw(3, Sign.Fault)]
        );
        var next = NextStep.With(
            correction,
            [Hurries, Wide],
            [new(Way.WithAPartner, 5, 7), new(Way.AtTheWall, 3, 6), new(Way.FeetOnly, 6, 6)]
        );
        Assert.Equal(Wide, next[0].Cause);
        Assert.Equal([Way.WithAPartner, Way.AtTheWall], next.Skip(1).Take(2).Select(step => step.Way!.Value));
        Assert.Equal(5, next[1].Others!.Helped);
        Assert.DoesNotContain(next, step => step.Way == Way.FeetOnly || step.Cause == Hurries);
    }

    [Property]
    public void Nothing_is_proposed_that_was_tried_and_nothing_else_is_left_out(Way[] ways)
    {
        var correction = Correction([.. ways.Select(way => Did(10, way))], [Saw(10, Sign.Fault)]);
        Assert.Equal(
            Enum.GetValues<Way>().Except(ways).Order(),
            NextStep.With(correction, [], []).Select(step => step.Way!.Value).Order()
        );
    }

    [Theory]
    [InlineData(2, 0)]
    [InlineData(3, 1)]
    [InlineData(5, 1)]
    public void A_habit_is_a_principle_broken_in_three_postures(int postures, int habits)
    {
        var shoulders = Guid.NewGuid();
        var open = Enumerable
            .Range(0, postures)
            .Select(_ => Guid.NewGuid())
            // Both sides of a posture are one posture.
            .SelectMany(posture =>
                new[] { Side.Left, Side.Right }.Select(side => new UnitKey(UnitKind.Posture, posture, side))
            )
            .Select(of => (of, Correction([], [Saw(10, Sign.Fault)]), (Guid?)shoulders))
            .ToList();
        var cleared = Correction([], [Saw(10, Sign.Fault), Saw(8, Sign.Fine), Saw(6, Sign.Fine)]);
        var found = Habit.Of([
            .. open,
            (new(UnitKind.Posture, Guid.NewGuid(), Side.Left), cleared, shoulders),
            (new(UnitKind.Posture, Guid.NewGuid(), Side.Left), Correction([], [Saw(1, Sign.Fault)]), null),
        ]);
        Assert.Equal(habits, found.Count);
        Assert.All(found, habit => Assert.Equal(2 * postures, habit.Where.Count));
    }

    [Fact]
    public void What_is_only_noted_opens_nothing_and_a_link_is_not_its_posture()
    {
        var link = Saw(5, Sign.Fault) with { FromId = Guid.NewGuid(), FromSide = Side.Right };
        var book = Book(Mode.Standing, Saw(5, Sign.Noted), link);
        Assert.Empty(book.StandingOf(Imke, Whip).Corrections);
        Assert.Equal(link.Key, Assert.Single(book.CorrectionsOf(Imke)).Of);
        Assert.Equal([link.Key], book.LinksMetBy(Imke));
        Assert.Equal([Whip], book.MetBy(Imke));
    }

    [Fact]
    public void A_stage_of_a_more_adapted_mode_does_not_count_for_a_less_adapted_one()
    {
        Observation Alone(int days, Mode mode) => Saw(days, Sign.Stage) with { Stage = Stage.Alone, Mode = mode };
        var seated = Alone(5, Mode.Seated);
        Assert.Equal(Stage.Shown, Book(Mode.Standing, seated).StandingOf(Imke, Whip).Stage);
        Assert.Equal(Stage.Alone, Book(Mode.Seated, seated).StandingOf(Imke, Whip).Stage);
        Assert.Equal(Stage.Alone, Book(Mode.Seated, Alone(5, Mode.Standing)).StandingOf(Imke, Whip).Stage);
        Assert.Equal(
            [(Mode.Seated, Stage.Alone)],
            Book(Mode.Standing, seated, Alone(30, Mode.Standing)).StagesInOtherModes(Imke, seated.Key)
        );
    }

    [Property]
    public void The_less_adapted_the_mode_the_less_of_what_was_seen_counts(int[] days, int[] modes)
    {
        var seen = days.Zip(
                modes,
                (day, mode) =>
                    Saw(Math.Abs(day % 60), Sign.Stage) with
                    {
                        Stage = Stage.Alone,
                        Mode = Mode.Named[Math.Abs(mode % Mode.Named.Count)],
                    }
            )
            .ToArray();
        var stages = Mode.Named.Select(mode => Book(mode, seen).StandingOf(Imke, Whip).Stage).ToList();
        Assert.Equal(stages.Order(), stages);
    }

    private static ProgressBook Book(Mode usual, params Observation[] seen) =>
        new(
            new Dictionary<Guid, IReadOnlyList<Place>> { [Imke] = [] },
            [],
            [],
            seen,
            Today,
            usual: new Dictionary<Guid, Mode> { [Imke] = usual }
        );

    private static Correction Case(Way way, bool helps) =>
        Correction([Did(40, way)], [Saw(40, Sign.Fault), Saw(33, helps ? Sign.Fine : Sign.Fault)]);

    private static Correction Correction(WayTried[] tried, Observation[] seen) =>
        Assert.Single(Standing.Of([], seen, Today, tried: tried).Corrections);

    private static WayTried Did(int days, Way way) =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            Today.AddDays(-days),
            Imke,
            Whip.PostureId,
            Whip.Side,
            Knee,
            "the knee drifts",
            way,
            "",
            true,
            Guid.Empty,
            At(days)
        );

    private static Observation Saw(int days, Sign sign) =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            Today.AddDays(-days),
            Imke,
            Whip.PostureId,
            Whip.Side,
            sign,
            null,
            sign is Sign.Stage or Sign.Fine ? null : Knee,
            "the knee drifts",
            sign == Sign.Fault ? Weight.KeyPoint : null,
            Guid.Empty,
            At(days)
        );

    private static DateTimeOffset At(int days) => new(Today.AddDays(-days), new(19, 0), TimeSpan.Zero);
}

internal static class TryingWays
{
    /// <summary>What is known of it after all that was seen.</summary>
    public static IReadOnlyList<TriedWay> On(this WayTried way, params Observation[] seen) => new[] { way }.On(seen);

    public static IReadOnlyList<TriedWay> On(this WayTried[] ways, params Observation[] seen) =>
        TriedWay.Of(seen[0].CorrectionKey, ways, seen, new(2026, 11, 24));
}
