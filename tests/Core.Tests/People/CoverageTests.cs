using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Tests.Forms;

namespace Zeitplan.Core.Tests.People;

public sealed class CoverageTests
{
    private static readonly IReadOnlyList<PostureOutline> Catalogue =
    [
        .. Starter.Postures.Values.Select(posture => posture.Outline),
    ];

    [Property]
    public void A_chosen_mode_breaks_no_limit_and_no_less_adapted_one_would_do(
        int posture,
        bool right,
        byte[] demands,
        byte least
    )
    {
        var (outline, side, limits, usual) = Case(posture, right, demands, least);
        if (ModeChoice.Of(outline, side, limits, usual) is not ModeChoice.Fits fits)
        {
            Assert.All(
                Mode.Named.Where(mode => mode.Adapted >= usual.Adapted),
                mode => Assert.False(Does(outline, side, limits, mode))
            );
            return;
        }

        Assert.True(Does(outline, side, limits, fits.Mode));
        Assert.All(
            Mode.Named.Where(mode => mode.Adapted >= usual.Adapted && mode.Adapted < fits.Mode.Adapted),
            mode => Assert.False(Does(outline, side, limits, mode))
        );
    }

    [Property]
    public void Adding_a_limit_never_makes_a_mode_less_adapted(
        int posture,
        bool right,
        byte[] demands,
        byte least,
        byte added
    )
    {
        var (outline, side, limits, usual) = Case(posture, right, demands, least);
        var (before, after) = (
            ModeChoice.Of(outline, side, limits, usual),
            ModeChoice.Of(outline, side, [.. limits, new(DemandOf(added))], usual)
        );
        if (after is ModeChoice.Fits fits)
        {
            Assert.True(fits.Mode.Adapted >= Assert.IsType<ModeChoice.Fits>(before).Mode.Adapted);
        }

        if (before is ModeChoice.NoneFits)
        {
            Assert.IsType<ModeChoice.NoneFits>(after);
        }
    }

    [Fact]
    public void A_group_is_told_what_it_can_be_taught_what_is_to_be_written_and_what_to_leave_out()
    {
        PostureSide Of(string name, Side side) => new(Starter.Called(name).Id, side);
        IReadOnlyList<PostureSide> postures =
        [
            Of("Opening", Side.Symmetric),
            Of("Roll Back", Side.Right),
            Of("Pluck", Side.Right),
            Of("Wave Low", Side.Left),
        ];
        Member Seated(params Demand[] limits) =>
            new(Guid.NewGuid(), Mode.Seated, [.. limits.Select(demand => new Limit(demand))]);
        var coverage = Coverage.Of(
            postures,
            [Seated(), Seated(Demand.TrunkTwist), Seated(Demand.TrunkTwist)],
            Mode.Seated,
            Starter.Postures.ToDictionary(entry => entry.Key, entry => entry.Value.Outline)
        );
        Assert.Equal(
            [Verdict.Taught, Verdict.LeaveOut, Verdict.LeaveOut, Verdict.NeedsVersion],
            coverage.Rows.Select(row => row.Verdict)
        );
        Assert.Equal([Demand.TrunkTwist], coverage.Rows[1].RuledOutBy);
        Assert.Equal([Mode.Seated], coverage.Rows[3].Write);
        Assert.Equal(
            "1 of 4 postures can be taught seated tonight, 1 needs a version, 2 to leave out.",
            coverage.Summary
        );
    }

    [Fact]
    public void A_hand_that_holds_is_not_available_to_the_posture()
    {
        var outline = new PostureOutline(
            "Push",
            Side.Right,
            SideNamedBy.LeadingFoot,
            1,
            3,
            [Demand.OneLegBalance],
            [new(Mode.Supported, [Demand.BothHandsFree], "", 3), new(Mode.Seated, [], "", 3, IsKnown: true)],
            []
        );
        Assert.Equal(
            Mode.Seated,
            Assert
                .IsType<ModeChoice.Fits>(ModeChoice.Of(outline, Side.Right, [new(Demand.OneLegBalance)], Mode.Standing))
                .Mode
        );
    }

    [Fact]
    public void The_way_into_a_posture_is_asked_of_whoever_walks_it_on_its_own_side_and_of_nobody_on_a_seat()
    {
        var posture = Starter.Called("Slant Flying");
        var form = FormOutline.Of(Starter.Long, Starter.Postures, Conventions.Default);
        var way = Assert.Single(form.WaysIn, way => way.PostureId == posture.Id);
        Assert.Equal([Demand.InwardHipTurn], way.Demands);
        var outline = posture.Outline with { WaysIn = [way] };
        Mode In(PostureOutline of, Side side, Mode least) =>
            Assert.IsType<ModeChoice.Fits>(ModeChoice.Of(of, side, [new(Demand.InwardHipTurn)], least)).Mode;
        Assert.Equal(Mode.Standing, In(posture.Outline, Side.Right, Mode.Standing));
        Assert.Equal(Mode.Seated, In(outline, Side.Right, Mode.Standing));
        Assert.Equal(Mode.Standing, In(outline, Side.Left, Mode.Standing));
        var decided = new Adaptation(Guid.NewGuid(), Guid.Empty, posture.Id, "short-step", "", Guid.Empty, default);
        Assert.True(Safety.Holds(decided, posture.Outline, Side.Right, [new(Demand.InwardHipTurn)]));
        Assert.False(Safety.Holds(decided, outline, Side.Right, [new(Demand.InwardHipTurn)]));
    }

    [Fact]
    public void A_version_of_which_nobody_has_said_what_it_asks_for_is_given_to_nobody_with_limits()
    {
        var outline = Starter.Called("Part Foot").Outline with { Versions = [new(Mode.Seated, [], "", 3)] };
        Limit[] limits = [new(Demand.Kick)];
        Assert.IsType<ModeChoice.ToWrite>(ModeChoice.Of(outline, Side.Right, limits, Mode.Seated));
        Assert.IsType<ModeChoice.Fits>(ModeChoice.Of(outline, Side.Right, [], Mode.Seated));
        var decided = new Adaptation(Guid.NewGuid(), Guid.Empty, Guid.Empty, "seated", "", Guid.Empty, default);
        Assert.False(Safety.Holds(decided, outline, Side.Right, limits));
        Assert.True(
            Safety.Holds(
                decided,
                outline with
                {
                    Versions = [new(Mode.Seated, [], "", 3, IsKnown: true)],
                },
                Side.Right,
                limits
            )
        );
    }

    [Fact]
    public void Every_outline_is_what_its_posture_says() =>
        Assert.All(
            Starter.Postures.Values,
            posture => Assert.Equivalent(PostureOutline.Of(posture.Text, posture.Counts), posture.Outline)
        );

    [Fact]
    public void Nothing_unsafe_is_silent_until_it_is_settled_and_a_further_limit_opens_it_again()
    {
        var (kick, cohort) = (
            Starter.Called("Part Foot"),
            Cohort.Create(
                Guid.NewGuid(),
                Guid.NewGuid(),
                new("Garnet", 0, null, Half.None, Mode.Standing, "#7C2A3B", false, false)
            )
        );
        var bernd = Student.Create(
            Guid.NewGuid(),
            new("Bernd", "Hollerbach", Guid.NewGuid(), Half.None, [cohort.Id], new(2026, 1, 1))
        );
        Dictionary<Guid, IReadOnlyDictionary<PostureSide, DateOnly>> coming = new()
        {
            [cohort.Id] = new Dictionary<PostureSide, DateOnly> { [new(kick.Id, Side.Right)] = new(2026, 11, 24) },
        };
        var written = kick.Outline with
        {
            Versions = [.. kick.Outline.Versions.Where(version => version.Mode.Support != Support.None)],
        };
        Dictionary<Guid, PostureOutline> outlines = new() { [kick.Id] = written };
        IReadOnlyList<UnsafeForOne> Check(params Adaptation[] decided) =>
            Safety.Of(TakesPart.In([cohort], [bernd]), coming, outlines, decided);
        Assert.Empty(Check());

        bernd.Limit([new(Demand.Kick)], "");
        var open = Assert.Single(Check());
        Assert.Equal((true, Mode.Supported), (open.IsOpen, Assert.IsType<ModeChoice.Fits>(open.Best).Mode));
        Assert.Equal(
            "Bernd H.: Part Foot, right is left out until it is settled how",
            Adaptation.Say("Bernd H.", "Part Foot, right", open.Decided)
        );

        var decided = new Adaptation(
            Guid.NewGuid(),
            bernd.Id,
            kick.Id,
            "supported",
            "with toe down",
            Guid.Empty,
            default
        );
        Assert.False(Assert.Single(Check(decided)).IsOpen);
        Assert.True(Assert.Single(Check(decided with { Mode = "no-step" })).IsOpen);
        Assert.Equal(
            "Bernd H.: Part Foot, right supported, with toe down",
            Adaptation.Say("Bernd H.", "Part Foot, right", decided)
        );

        // A supported version that asks for both arms would no longer do.
        outlines[kick.Id] = kick.Outline with
        {
            Versions = [new(Mode.Supported, [Demand.ArmsAtShoulderHeight], "", 3)],
        };
        bernd.Limit([new(Demand.Kick), new(Demand.ArmsAtShoulderHeight)], "");
        Assert.True(Assert.Single(Check(decided)).IsOpen);
    }

    [Property]
    public void Coverage_and_safety_say_the_same_of_everybody_and_everything(
        int posture,
        bool right,
        byte[] demands,
        byte least
    )
    {
        var (outline, side, limits, usual) = Case(posture, right, demands, least);
        var of = new PostureSide(Guid.NewGuid(), side);
        var cohort = Cohort.Create(
            Guid.NewGuid(),
            Guid.NewGuid(),
            new("Rail group", 0, null, Half.None, usual, "#7C2A3B", false, false)
        );
        var hanne = Student.Create(
            Guid.NewGuid(),
            new("Hanne", "Brandt", Guid.NewGuid(), Half.None, [cohort.Id], new(2026, 1, 1))
        );
        hanne.Limit(limits, "");
        Dictionary<Guid, PostureOutline> outlines = new() { [of.PostureId] = outline };
        var unsafeForHer = Safety
            .Of(
                TakesPart.In([cohort], [hanne]),
                new Dictionary<Guid, IReadOnlyDictionary<PostureSide, DateOnly>>
                {
                    [cohort.Id] = new Dictionary<PostureSide, DateOnly> { [of] = new(2026, 11, 24) },
                },
                outlines,
                []
            )
            .SingleOrDefault();
        var cell = Coverage
            .Of([of], [new(hanne.Id, hanne.UsualMode, limits)], cohort.Mode, outlines)
            .Rows.Single()
            .Cells.Single();
        if (outline.In(usual) is not null)
        {
            Assert.Equal(cell is ModeChoice.Fits { Mode: var mode } && mode == usual, unsafeForHer is null);
        }

        Assert.True(unsafeForHer is null || unsafeForHer.IsOpen);
    }

    [Fact]
    public void Whoever_does_not_step_is_asked_only_for_the_drills_there_is_a_version_of()
    {
        var (walk, circles, push) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        PostureOutline Drill(string name, params VersionOutline[] versions) =>
            new(name, Side.Right, SideNamedBy.LeadingFoot, 1, 4, [], versions, [], IsDrill: true);
        Dictionary<Guid, PostureOutline> known = new()
        {
            [walk] = Drill("Stepping Back Walk"),
            [circles] = Drill("Hand Circles", new VersionOutline(Mode.Seated, [], "", 4)),
            [push] = Starter.Called("Push").Outline,
        };
        var back = Starter.Called("Step Back").Outline with { Needs = [walk, circles, push, Guid.NewGuid()] };
        Assert.Equal([walk, circles, push], back.NeedsIn(Mode.Standing, known));
        Assert.Equal([walk, circles, push], back.NeedsIn(Mode.Supported, known));
        Assert.Equal([circles, push], back.NeedsIn(Mode.Seated, known));
    }

    [Fact]
    public void Somebody_is_counted_where_they_were_on_the_day()
    {
        var (fern, copper) = (Guid.NewGuid(), Guid.NewGuid());
        Place[] places = [new(fern, new(2026, 9, 1), new(2026, 11, 10)), new(copper, new(2026, 11, 11))];
        Assert.Equal([fern], Place.On(places, new(2026, 11, 10)));
        Assert.Equal([copper], Place.On(places, new(2026, 11, 24)));
        Assert.Equal([fern], Place.On(places, new(2026, 8, 25)));
        Assert.Empty(Place.On([places[0]], new(2026, 11, 24)));
    }

    /// <summary>The rule again, in its plainest words: a version is there, and no limit is asked for.</summary>
    private static bool Does(PostureOutline outline, Side side, IReadOnlyList<Limit> limits, Mode mode)
    {
        var demands =
            mode == Mode.Standing
                ? outline.Demands
                : outline.Versions.FirstOrDefault(version => version.Mode == mode)?.Demands;
        return demands is not null
            && !(mode == Mode.Supported && demands.Contains(Demand.BothHandsFree))
            && !limits.Any(limit =>
                demands.Contains(limit.Demand)
                && (limit.Side == Side.Symmetric || outline.NamedBy != SideNamedBy.StandingLeg || limit.Side == side)
            );
    }

    private static (PostureOutline Outline, Side Side, IReadOnlyList<Limit> Limits, Mode Least) Case(
        int posture,
        bool right,
        byte[] demands,
        byte least
    )
    {
        var outline = Catalogue[(posture & int.MaxValue) % Catalogue.Count];
        return (
            outline,
            outline.WrittenSide == Side.Symmetric ? Side.Symmetric
            : right ? Side.Right
            : Side.Left,
            [.. demands.Take(4).Select(one => new Limit(DemandOf(one), (Side)(one % 3)))],
            Mode.Named[least % 5]
        );
    }

    private static Demand DemandOf(byte number) => Enum.GetValues<Demand>()[number % Enum.GetValues<Demand>().Length];
}
