using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Tests.People;

public sealed class LadderTests
{
    private static readonly SashLevel Ivory = SashLevel.Create(
        Guid.NewGuid(),
        1,
        new("Ivory", "#D9CCA6", false, new())
    );
    private static readonly SashLevel Fern = SashLevel.Create(
        Guid.NewGuid(),
        2,
        new("Fern", "#6E8C4A", true, new() { Accepts = Accepts.Shape })
    );
    private static readonly SashLevel Copper = SashLevel.Create(
        Guid.NewGuid(),
        3,
        new("Copper", "#AE6A38", false, new())
    );
    private static readonly Cohort Newer = Cohort.Create(
        Guid.NewGuid(),
        Guid.NewGuid(),
        new("Fern, newer", 0, Fern.Id, Half.Newer, Mode.Standing, "#6E8C4A", false, false)
    );
    private static readonly Student Emeka = Student.Create(
        Guid.NewGuid(),
        new("Emeka", "Nwafor", Fern.Id, Half.Newer, [Newer.Id], new(2026, 1, 1))
    );

    [Theory]
    [InlineData(LadderPattern.ThreeSteps, 3)]
    [InlineData(LadderPattern.FiveSashes, 5)]
    [InlineData(LadderPattern.SashATerm, 7)]
    public void A_ladder_to_begin_with_is_sound_and_asks_no_less_further_up(LadderPattern pattern, int levels)
    {
        var texts = Ladder.From(pattern);
        var ladder = texts.Select((text, at) => SashLevel.Create(Guid.NewGuid(), at + 1, text)).ToList();
        Assert.Equal(levels, ladder.Count);
        Assert.All(
            texts.Index(),
            text =>
                Assert.Empty(
                    text.Item.Check(
                        ladder.Where(sash => sash.Order != text.Index + 1),
                        new Dictionary<Guid, Form>(),
                        new HashSet<Guid>()
                    )
                )
        );
        Assert.All(
            texts.Zip(texts.Skip(1)),
            pair =>
                Assert.True(
                    pair.Second.Asks.Stage >= pair.First.Asks.Stage
                        && pair.Second.Asks.Accepts <= pair.First.Asks.Accepts
                        && pair.Second.Asks.Weeks >= pair.First.Asks.Weeks
                )
        );
    }

    [Fact]
    public void Another_order_says_who_would_work_towards_what()
    {
        var effects = Ladder.EffectsOfOrder([Ivory, Fern, Copper], [Ivory.Id, Copper.Id, Fern.Id], [Emeka], [Newer]);
        Assert.Equal("1 person at Fern would work towards nothing further next, not Copper.", effects[0]);
        Assert.Contains("Fern, newer would be level 3 instead of 2", effects[1], StringComparison.Ordinal);
        Assert.Empty(Ladder.EffectsOfOrder([Ivory, Fern, Copper], [Ivory.Id, Fern.Id, Copper.Id], [Emeka], [Newer]));
    }

    [Fact]
    public void Taking_the_halves_away_says_who_loses_one()
    {
        var effects = Ladder.EffectsOfEdit(
            Fern,
            new("Fern", "#6E8C4A", false, Fern.Asks with { Stage = Stage.Flowing }),
            [Emeka],
            [Newer]
        );
        Assert.Equal(3, effects.Count);
        Assert.Equal("1 person would lose their half.", effects[0]);
        Assert.Contains(
            "asks for flowing",
            effects[2].Replace("would ask for", "asks for", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Good_enough_is_the_levels_own_answer_unless_the_posture_has_another()
    {
        Fault Fault(Weight weight) => new(Guid.NewGuid(), "the knee drifts in", weight, []);
        Fault[] faults = [Fault(Weight.Finesse), Fault(Weight.Shape), Fault(Weight.KeyPoint)];
        var whip = Guid.NewGuid();
        var asks = new SashAsks
        {
            Accepts = Accepts.Finesse,
            Postures = [new(whip, Stage.Follows, [faults[2].Id], [Layer.Feet], true)],
        };
        Assert.Equal("alone, one side; feet, waist, hands", asks.For(Guid.NewGuid(), faults).Say());
        Assert.Equal([faults[0].Id], asks.For(Guid.NewGuid(), faults).AcceptedFaults);
        Assert.Equal("follows, both sides; feet", asks.For(whip, faults).Say());
        Assert.Equal([faults[0].Id, faults[2].Id], asks.For(whip, faults).AcceptedFaults);
        Assert.Empty((asks with { Accepts = Accepts.Nothing, Postures = [] }).For(whip, faults).AcceptedFaults);
    }

    [Fact]
    public void Every_problem_of_a_level_stands_at_its_field()
    {
        string[] Fields(SashText text) =>
            [
                .. text.Check([Ivory], new Dictionary<Guid, Form>(), new HashSet<Guid>())
                    .Select(problem => problem.Field),
            ];
        Assert.Equal(["name"], Fields(new("ivory", "#D9CCA6", false, new())));
        Assert.Equal(["colour"], Fields(new("Slate", "grey", false, new())));
        Assert.Equal(["asks.weeks"], Fields(new("Slate", "#46515C", false, new() { Weeks = -1 })));
        Assert.Equal(
            ["asks.studies[0].formId"],
            Fields(
                new(
                    "Slate",
                    "#46515C",
                    false,
                    new() { Studies = [new(Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid())] }
                )
            )
        );
        Assert.Equal(["asks.layers"], Fields(new("Slate", "#46515C", false, new() { Layers = [] })));
    }
}
