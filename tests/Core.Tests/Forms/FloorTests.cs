using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

[Properties(Arbitrary = [typeof(Steps)])]
public sealed class FloorTests
{
    private static readonly Conventions Ways = Conventions.Default;

    [Property]
    public void Walking_the_mirror_gives_the_mirrored_stand(Stand stand, StepAction[] steps)
    {
        var there = Walk(stand, steps);
        AssertSame(there.Mirror(), Walk(stand.Mirror(), steps.Select(step => step.Mirror())));
    }

    [Property]
    public void It_does_not_matter_which_way_the_hall_is_turned(Stand stand, StepAction[] steps, int turned)
    {
        var degrees = turned % 360;
        AssertSame(Walk(stand, steps).Turned(degrees), Walk(stand.Turned(degrees), steps));
    }

    [Property]
    public void Two_feet_always_carry_everything_between_them(Stand stand, StepAction[] steps)
    {
        var there = Walk(stand, steps);
        Assert.Equal(100, there.Left.Load + there.Right.Load);
    }

    [Property]
    public void The_rectangle_of_a_form_contains_every_sole(StepAction[] first, StepAction[] second)
    {
        var walk = FloorWalk.Of([], [first, second], Ways);
        var area = FloorNeed.Of(walk, 0.26);
        foreach (var sole in walk.Stands.SelectMany(stand => new[] { stand.Left, stand.Right }))
        {
            foreach (var point in new[] { sole.Heel, sole.Tip })
            {
                Assert.InRange(point.Right * 0.26, area.Feet.Left - 1e-9, area.Feet.Right + 1e-9);
                Assert.InRange(point.Ahead * 0.26, area.Feet.Back - 1e-9, area.Feet.Front + 1e-9);
            }
        }

        Assert.True(area.Reach.Width >= area.Feet.Width + (2 * FloorNeed.ArmReach) - 1e-9);
    }

    [Property]
    public void A_frame_reads_back_the_same_stand(Stand stand, StepAction[] steps) =>
        AssertSame(Walk(stand, steps), FloorFrame.Read(FloorFrame.Of(Walk(stand, steps))));

    [Property]
    public void A_foot_dragged_on_the_picture_arrives_where_it_was_let_go(Stand before, StepAction[] steps, Foot foot)
    {
        var other = Walk(before, steps)[StepAction.Other(foot)].Heel;
        var heel = other + new Point(foot == Foot.Left ? -1.3 : 1.3, 2.1);
        var edited = StepEdit.MoveFoot(steps, before, PivotOn.Heel, foot, heel);

        // A ball pivot after the step carries the heel along, so that it cannot be asked to be exact.
        if (
            edited.All(step => step is not StepAction.Pivot { On: PivotOn.Ball })
            && LastMove(edited, foot) > LastMove(edited, StepAction.Other(foot))
        )
        {
            Assert.InRange((Walk(before, edited)[foot].Heel - heel).Length, 0, 0.12);
        }
    }

    [Property]
    public void A_foot_a_hip_or_the_weight_turned_on_the_picture_ends_as_asked(
        Stand before,
        StepAction[] steps,
        Foot foot,
        int asked,
        byte load
    )
    {
        var toes = Facing.FromDegrees(asked % 360);
        Assert.Equal(toes.Degrees, Walk(before, StepEdit.TurnFoot(steps, before, PivotOn.Heel, foot, toes))[foot].Toes);
        Assert.Equal(toes.Degrees, Walk(before, StepEdit.TurnHips(steps, before, PivotOn.Heel, toes)).Hips);
        Assert.Equal(
            load % 101,
            Walk(before, StepEdit.WeighFoot(steps, before, PivotOn.Heel, foot, load % 101))[foot].Load
        );
    }

    [Theory]
    [InlineData("L step fwd 3 out 1 70%; R pivot out 45", Stance.Bow, Side.Left, 70)]
    [InlineData("R 100%; L adjust fwd 1.4 out 0.4 heel", Stance.Empty, Side.Left, 0)]
    [InlineData("L step out 2; L 50%", Stance.Horse, Side.Symmetric, 50)]
    [InlineData("R 100%; L set ball", Stance.TStep, Side.Left, 0)]
    [InlineData("R 100%; L lift", Stance.OneLeg, Side.Left, 0)]
    [InlineData("L step fwd 3 out 1; hips low; L 20%", Stance.Drop, Side.Left, 20)]
    [InlineData("L step fwd 2 right 0.9 cross 50%", Stance.Crossed, Side.Left, 50)]
    [InlineData("L step out 0.6 toes out 25; R pivot out 25; L 50%", Stance.V, Side.Symmetric, 50)]
    [InlineData("L step out 1.2; L 50%", Stance.Parallel, Side.Symmetric, 50)]
    [InlineData("L step fwd 1.2 out 0.6; L 95%", Stance.FollowStep, Side.Left, 95)]
    public void A_stance_is_recognised_from_the_feet(string steps, Stance stance, Side leading, int leftLoad) =>
        Assert.Equal(new Footing(stance, leading, leftLoad), Footing.Of(Walk(Stand.AtStart, StepNotation.Read(steps))));

    [Fact]
    public void A_kick_needs_more_room_than_arms_do()
    {
        var walk = FloorWalk.Of([], [StepNotation.Read("L 100%; R lift; R kick fwd 1.5 right 0.4")], Ways);
        var need = FloorNeed.Of(walk, 0.26);
        Assert.Equal(need.Feet.Front + FloorNeed.KickReach, need.Reach.Front, 3);
    }

    private static int LastMove(IReadOnlyList<StepAction> steps, Foot foot) =>
        steps
            .Index()
            .Where(step => step.Item is StepAction.Move { To: not null } move && move.Foot == foot)
            .Select(step => step.Index)
            .DefaultIfEmpty(-1)
            .Max();

    private static Stand Walk(Stand stand, IEnumerable<StepAction> steps) =>
        steps.Aggregate(stand, (at, step) => at.After(step, PivotOn.Heel));

    private static void AssertSame(Stand expected, Stand actual)
    {
        Assert.Equal(FloorFrame.Of(expected).Skip(2).Take(3), FloorFrame.Of(actual).Skip(2).Take(3));
        Assert.Equal(FloorFrame.Of(expected).Skip(7), FloorFrame.Of(actual).Skip(7));
        Assert.InRange(
            (expected.Left.Heel - actual.Left.Heel).Length + (expected.Right.Heel - actual.Right.Heel).Length,
            0,
            0.003
        );
    }
}
