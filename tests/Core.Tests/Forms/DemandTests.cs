using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>What a posture asks of a body follows from how it is notated (domain.md 4.1, "Demands follow").</summary>
public sealed class DemandTests
{
    private const string Bow = "L step fwd 3 out 1 70%; R pivot heel out 45";

    [Theory]
    [InlineData("R 100%", "L lift fwd 0.8 out 0.5", "", Demand.OneLegBalance)]
    [InlineData("R 100%", "L kick fwd 1.8 left 0.3", "", Demand.Kick)]
    [InlineData("L step out 1.2 50%", "", "sink 40", Demand.DeepBend)]
    [InlineData("R 100%", "L step back 2 out 1", "", Demand.BackwardStep)]
    [InlineData("R 100%", "L step fwd 3 out 1 heel", "", Demand.WideStep)]
    [InlineData("R 100%", "L step fwd 1 right 0.6 cross", "", Demand.CrossStep)]
    [InlineData("L 60%", "L pivot out 45", "", Demand.PivotUnderLoad)]
    [InlineData("", "", "chest right 30", Demand.TrunkTwist)]
    [InlineData(Bow, "hips left 30", "chest left 10", Demand.TrunkTwist)]
    [InlineData("L step out 1.2 50%", "L pivot heel in 40", "", Demand.InwardHipTurn)]
    [InlineData("", "", "R crown own bent palm up fingers in", Demand.OverheadReach)]
    [InlineData("", "", "R shoulder own long palm front fingers up", Demand.ArmsAtShoulderHeight)]
    [InlineData("", "", "lean front 20", Demand.ForwardBend)]
    [InlineData("", "", "gaze left 60", Demand.HeadTurning)]
    [InlineData("R 100%", "L stamp fwd 1 out 1", "", Demand.FastMove)]
    [InlineData("", "", "both chest own bent palm in fingers up", Demand.BothHandsFree)]
    public void A_demand_follows_from_feet_and_body(string entry, string feet, string body, Demand demand) =>
        Assert.Contains(demand, Asked(entry, feet, body).Demands);

    [Theory]
    [InlineData("R 100%", "L step fwd 1.6 out 1 heel", "chest right 5", Demand.WideStep)]
    [InlineData("L 100%; R step back 1.4", "R follow back 0.3 out 0.6", "chest right 5", Demand.BackwardStep)]
    [InlineData("L 40%", "L pivot out 45", "chest right 5", Demand.PivotUnderLoad)]
    [InlineData("", "", "chest right 20", Demand.TrunkTwist)]
    [InlineData("", "", "R chest own bent palm front fingers up", Demand.ArmsAtShoulderHeight)]
    [InlineData("", "", "R chest own bent palm front fingers up", Demand.BothHandsFree)]
    [InlineData("", "", "gaze left 20", Demand.HeadTurning)]
    public void What_stays_within_a_measure_asks_for_nothing(string entry, string feet, string body, Demand demand) =>
        Assert.DoesNotContain(demand, Asked(entry, feet, body).Demands);

    [Fact]
    public void The_way_in_asks_for_its_own_from_where_the_feet_really_are()
    {
        var form = Starter.Long;
        var ways = DerivedDemands.OfWaysIn(
            form.Positions,
            Starter.Postures,
            FloorWalk.Of(form.Positions, Starter.Postures, Conventions.Default)
        );
        var loaded = form with
        {
            Positions =
            [
                .. form.Positions.Select(
                    (position, at) => at == 5 ? position with { WayIn = "L 100%; L pivot in 40" } : position
                ),
            ],
        };
        Assert.Contains(
            Demand.PivotUnderLoad,
            FormStudy.Of(loaded, Starter.Postures, [], Conventions.Default).Positions[5].Demands
        );
        Assert.DoesNotContain(Demand.PivotUnderLoad, ways.SelectMany(asked => asked));
    }

    [Theory]
    [InlineData("L crown own bent palm up fingers in", Demand.OverheadReach)]
    [InlineData("lean front 30", Demand.ForwardBend)]
    [InlineData("gaze left 70", Demand.HeadTurning)]
    public void Hands_on_the_way_in_ask_for_theirs(string wayIn, Demand demand)
    {
        var form = Starter.Long;
        IReadOnlyList<Demand> Asked(string hands) =>
            FormStudy
                .Of(
                    form with
                    {
                        Positions =
                        [
                            .. form.Positions.Select(
                                (position, at) => at == 1 ? position with { WayInBody = hands } : position
                            ),
                        ],
                    },
                    Starter.Postures,
                    [],
                    Conventions.Default
                )
                .Positions[1]
                .Demands;
        Assert.DoesNotContain(demand, Asked(""));
        Assert.Contains(demand, Asked(wayIn));
    }

    [Fact]
    public void A_hand_that_holds_is_not_asked_to_be_free_and_nobody_on_a_seat_steps()
    {
        Assert.DoesNotContain(
            Demand.BothHandsFree,
            Asked("", "", "L hold rail; R chest own bent", Mode.Supported).Demands
        );
        Assert.DoesNotContain(Demand.WideStep, Asked(Bow, "", "both chest own bent", Mode.Seated).Demands);
    }

    [Fact]
    public void Standing_through_many_counts_is_long()
    {
        var counts = Enumerable.Range(1, 6).Select(count => new Count("", Body: $"chest right {count}")).ToList();
        Assert.Contains(Demand.LongStanding, DerivedDemands.Of("", "", counts, Mode.Standing, null, [], []).Demands);
    }

    [Theory]
    [InlineData("", "", "", "hands rise", false)]
    [InlineData("L 100%", "", "", "", false)]
    [InlineData("L 100%", "both chest own bent", "", "", true)]
    [InlineData("L 100%", "both chest own bent", "", "and the left one a little later", true)]
    [InlineData("L far away", "both chest own bent", "", "", false)]
    public void What_is_not_notated_is_not_known(string feet, string body, string start, string words, bool known) =>
        Assert.Equal(
            known,
            DerivedDemands
                .Of("", start, [new Count("", feet, Hands: words, Body: body)], Mode.Standing, null, [], [])
                .IsKnown
        );

    [Fact]
    public void A_head_adds_one_and_takes_one_off_with_a_reason_and_it_is_said_again_once_it_no_longer_follows()
    {
        Count[] twisted = [new Count("", Body: "chest right 30")];
        NotAsked[] off = [new(Demand.TrunkTwist, "Our turn is from the hips.")];
        var asked = DerivedDemands.Of("", "", twisted, Mode.Standing, null, [Demand.LongStanding], off);
        Assert.Equal([Demand.LongStanding], asked.Demands);
        Assert.Equal(off, asked.TakenOff);
        Assert.Empty(
            DerivedDemands.Of("", "", [new Count("", Body: "chest right 5")], Mode.Standing, null, [], off).TakenOff
        );
        Assert.Contains(
            (Starter.Called("Push").Text with { NotAsked = [new(Demand.Kick, " ")] }).Check(),
            problem => problem.Field == "notAsked[0].reason"
        );
    }

    [Fact]
    public void A_shipped_version_asks_for_nothing_the_posture_itself_does_not_ask_for_and_all_is_known()
    {
        foreach (var posture in Starter.Postures.Values.Where(posture => posture.Text.Parts.Count == 0))
        {
            Assert.True(posture.Outline.IsKnown, posture.Name);
            foreach (var version in posture.Outline.Versions)
            {
                Assert.True(version.IsKnown, $"{posture.Name}, {version.Mode.Name}");
                Assert.Empty(
                    version
                        .Demands.Except(posture.Demands)
                        .Select(demand => $"{posture.Name}, {version.Mode.Name}: {demand}")
                );
            }
        }
    }

    [Fact]
    public void Every_position_of_the_long_form_can_be_done_at_the_rail_and_on_a_chair_and_with_short_steps_or_none()
    {
        foreach (
            var posture in Starter.Long.Positions.Select(position => Starter.Postures[position.PostureId]).Distinct()
        )
        {
            Assert.NotNull(posture.CountsFor(Mode.Supported));
            Assert.NotNull(posture.CountsFor(Mode.Seated));
            Assert.False(posture.Versions.Single(version => version.Mode == Mode.Seated).FeetCarry(), posture.Name);
            if (
                posture
                    .StepsOn(posture.WrittenSide)
                    .Any(steps => steps.OfType<Core.Forms.Notation.StepAction.Move>().Any())
            )
            {
                Assert.NotNull(posture.CountsFor(Mode.NoStep));
            }
        }
    }

    private static AskedOfBody Asked(string entry, string feet, string body, Mode? mode = null) =>
        DerivedDemands.Of(
            entry,
            "",
            [new Count("", feet, Body: body.Length > 0 ? body : "gaze ahead")],
            mode ?? Mode.Standing,
            null,
            [],
            []
        );
}
