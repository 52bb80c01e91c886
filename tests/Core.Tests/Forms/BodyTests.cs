using FsCheck.Xunit;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Figures;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

[Properties(Arbitrary = [typeof(Bodies), typeof(Steps)])]
public sealed class BodyTests
{
    private static readonly Physique Somebody = Physique.Standard;

    public static TheoryData<string> Shipped =>
        [.. Starter.Postures.Values.Where(posture => posture.Counts.Count > 0).Select(posture => posture.Name)];

    [Property]
    public void Bones_keep_their_length(Stand stand, BodyAction[] does)
    {
        var body = Skeleton.Of(FloorPose.Of(stand), BodyState.AtRest.After(does), Somebody);
        foreach (var side in new[] { Hand.Left, Hand.Right })
        {
            var (arm, leg) = (body.ArmOf(side), body.LegOf(side));
            AssertNear(Somebody.UpperArm, (arm.Elbow - arm.Shoulder).Length);
            AssertNear(Somebody.Forearm, (arm.Wrist - arm.Elbow).Length);
            AssertNear(Somebody.Thigh, (leg.Knee - leg.Hip).Length);
            AssertNear(Somebody.Shank, (leg.Ankle - leg.Knee).Length);
            AssertNear(Somebody.Torso, (body.Trunk.Neck - body.Trunk.Pelvis).Length);
        }
    }

    [Property]
    public void A_limb_reaches_or_is_stretched_or_folded_and_its_bones_keep_their_length(
        sbyte right,
        sbyte ahead,
        sbyte up,
        byte tenths
    )
    {
        // From where the hand would be in its own shoulder to out of reach.
        var wanted = new Vector(right, ahead, up) * (tenths / 10.0 / 1000);
        var (first, second) = (Somebody.UpperArm, Somebody.Forearm);
        var end = TwoBones.Within(default, wanted, first, second, first + second);
        var joint = TwoBones.Joint(default, end, first, second, Vector.Facing(40));
        AssertNear(first, joint.Length);
        AssertNear(second, (end - joint).Length);
        if (wanted.Length > first - second + 1e-5 && wanted.Length < first + second)
        {
            AssertNear(wanted, end);
        }
    }

    [Property]
    public void The_mirrored_body_is_the_body_mirrored(Stand stand, BodyAction[] does)
    {
        var body = BodyState.AtRest.After(does);
        var one = Skeleton.Of(FloorPose.Of(stand), body, Somebody);
        var other = Skeleton.Of(FloorPose.Of(stand.Mirror()), body.Mirror(), Somebody);
        foreach (var side in new[] { Hand.Left, Hand.Right })
        {
            AssertNear(one.ArmOf(side).Palm.Mirror(), other.ArmOf(BodyAction.Other(side)).Palm);
            AssertNear(one.ArmOf(side).Elbow.Mirror(), other.ArmOf(BodyAction.Other(side)).Elbow);
            AssertNear(one.LegOf(side).Knee.Mirror(), other.LegOf(BodyAction.Other(side)).Knee);
        }

        AssertNear(one.Face.Mirror(), other.Face);
    }

    [Property]
    public void Turning_the_hall_turns_the_body(Stand stand, BodyAction[] does, byte tens)
    {
        var degrees = tens % 36 * 10;
        var body = BodyState.AtRest.After(does);
        var one = Skeleton.Of(FloorPose.Of(stand), body, Somebody);
        var turned = Skeleton.Of(FloorPose.Of(stand.Turned(degrees)), body, Somebody);
        Vector InHall(Vector point) => point.Turned(Vector.Upwards, -degrees);
        AssertNear(InHall(one.LeftArm.Palm), turned.LeftArm.Palm);
        AssertNear(InHall(one.RightLeg.Knee), turned.RightLeg.Knee);
        AssertNear(InHall(one.Head), turned.Head);
    }

    [Theory]
    [MemberData(nameof(Shipped))]
    public void A_shipped_posture_can_be_done_with_the_arms_people_have(string name)
    {
        var posture = Starter.Called(name);
        foreach (var side in Enum.GetValues<Side>().Where(posture.HasSide))
        {
            var walk = PostureBody.Of(posture, side, Mode.Standing, Conventions.Default, Somebody)!;
            for (var count = 0; count <= walk.Count; count++)
            {
                var body = walk.After(count);
                Assert.Equal((0, 0), (Centimetres(body.LeftArm.Missing), Centimetres(body.RightArm.Missing)));
                foreach (var leg in new[] { body.LeftLeg, body.RightLeg }.Where(leg => !leg.InAir && leg.Load > 10))
                {
                    // What carries stands on the floor.
                    Assert.InRange(leg.Heel.Up, -0.001, 0.001);
                }
            }
        }
    }

    [Theory]
    [MemberData(nameof(Shipped))]
    public void A_shipped_posture_moves_without_a_jump_and_arrives_where_its_counts_end(string name)
    {
        const int Moments = 60;
        var posture = Starter.Called(name);
        var walk = PostureBody.Of(posture, posture.WrittenSide, Mode.Standing, Conventions.Default, Somebody)!;
        for (var count = 1; count <= walk.Count; count++)
        {
            AssertNear(walk.After(count - 1).LeftArm.Palm, walk.Within(count, 0).LeftArm.Palm);
            AssertNear(walk.After(count).LeftArm.Palm, walk.Within(count, 1).LeftArm.Palm);
            AssertNear(walk.After(count).RightLeg.Knee, walk.Within(count, 1).RightLeg.Knee);
            for (var moment = 1; moment <= Moments; moment++)
            {
                var (before, now) = (
                    walk.Within(count, (moment - 1.0) / Moments),
                    walk.Within(count, (double)moment / Moments)
                );
                Assert.InRange((now.RightArm.Palm - before.RightArm.Palm).Length, 0, 0.15);
                Assert.InRange((now.LeftArm.Palm - before.LeftArm.Palm).Length, 0, 0.15);
            }
        }
    }

    [Theory]
    [InlineData(Side.Right)]
    [InlineData(Side.Left)]
    public void A_compound_posture_is_its_parts_one_after_the_other_without_anything_no_body_does(Side side)
    {
        var walk = PostureBody.OfParts(
            Starter.Called("Grasp the Sparrow's Tail"),
            side,
            Starter.Postures,
            Conventions.Default,
            Physique.Standard
        );
        IReadOnlyList<string> names = ["Ward Off", "Roll Back", "Press", "Push"];
        var parts = names.Select(Starter.Called).ToList();
        List<Count> counts = [.. parts.SelectMany(part => part.Reads(side).Counts)];
        var last = PostureBody.Of(parts[^1], side, Mode.Standing, Conventions.Default, Physique.Standard)!;
        Assert.Equal(counts.Count, walk.Count);
        Assert.Equal(last.StateAfter(last.Count), walk.StateAfter(walk.Count));
        Assert.DoesNotContain(
            PostureCheck.Run(walk, counts, [], Mode.Standing, [], Conventions.Default),
            finding => finding.Severity >= Severity.Error
        );
    }

    [Fact]
    public void Weight_and_hands_arrive_in_one_count()
    {
        foreach (
            var name in new[]
            {
                "Push",
                "Press",
                "Brush Knee",
                "Part the Mane",
                "Fair Lady at the Shuttles",
                "Slant Flying",
                "Twin Peaks",
                "Hit the Tiger",
                "Embrace Tiger",
                "Apparent Close",
            }
        )
        {
            var posture = Starter.Called(name);
            var last = posture.Counts[^1];
            Assert.Contains(
                posture.StepsOn(posture.WrittenSide)[^1],
                step => step is Core.Forms.Notation.StepAction.Weigh
            );
            Assert.Contains(BodyNotation.Read(last.Body), action => action is BodyAction.Arm);
        }
    }

    [Fact]
    public void Two_end_shapes_laid_over_each_other_say_what_is_elsewhere_and_a_body_is_nowhere_else_than_itself()
    {
        static Skeleton End(string name, Side side)
        {
            var walk = PostureBody.Of(Starter.Called(name), side, Mode.Standing, Conventions.Default, Somebody)!;
            return walk.After(walk.Count);
        }

        Assert.Empty(BodyDifferences.Between(End("Push", Side.Right), End("Push", Side.Right)));
        var elsewhere = BodyDifferences.Between(End("Push", Side.Right), End("Brush Knee", Side.Right));
        Assert.Contains("right hand", elsewhere.Select(joint => joint.Joint));
        Assert.DoesNotContain("left hand", elsewhere.Select(joint => joint.Joint));
        Assert.Equal(elsewhere.OrderByDescending(joint => joint.Apart), elsewhere);
    }

    [Fact]
    public void The_holding_hand_is_at_the_rail_and_who_sits_is_on_the_chair()
    {
        Count[] counts = [new("half over", "L 50%", Body: "L hold rail; R chest centre bent palm front palm")];
        var held = PostureBody.Of("", "", counts, new(Holding.Rail, Side.Left), Conventions.Default, Somebody);
        var rail = held.Aid!;
        AssertNear(rail.Grip(Hand.Left, held.After(1).LeftArm.Shoulder), held.After(1).LeftArm.Palm);
        Assert.True(rail.At.Right < 0);

        var seated = PostureBody.Of("", "", counts, new(Holding.Chair), Conventions.Default, Somebody).After(1);
        AssertNear(Somebody.SeatUp, seated.Trunk.Pelvis.Up);
        Assert.InRange(seated.LeftLeg.Heel.Up, -0.001, 0.001);
    }

    [Theory]
    [InlineData("front", 1)]
    [InlineData("behind", -1)]
    public void From_behind_the_right_hand_is_on_the_right(string view, int sign)
    {
        var body = Skeleton.Of(FloorPose.Of(Stand.AtStart), BodyState.AtRest, Somebody);
        var seen = FigureView.Named(view, 0)!.Value;
        Assert.Equal(
            sign,
            Math.Sign(seen.Projection.Of(body.LeftArm.Palm).X - seen.Projection.Of(body.RightArm.Palm).X)
        );
        var mirrored = FigureView.Named(view, 0, mirrored: true)!.Value;
        Assert.Equal(
            -sign,
            Math.Sign(mirrored.Projection.Of(body.LeftArm.Palm).X - mirrored.Projection.Of(body.RightArm.Palm).X)
        );
    }

    [Fact]
    public void A_figure_is_a_picture_of_its_own()
    {
        var walk = PostureBody.Of(
            Starter.Called("Single Whip"),
            Side.Left,
            Mode.Standing,
            Conventions.Default,
            Somebody
        )!;
        var picture = FigurePicture.Of(
            walk,
            walk.Count,
            1,
            FigureView.Named("front", 0)!.Value,
            "#AE6A38",
            FigureColours.Paper
        );
        var svg = System.Xml.Linq.XDocument.Parse(FigureSvg.Write(picture, "Single Whip & more")).Root!;
        Assert.Equal("Single Whip & more", svg.Elements().First().Value);
        Assert.Equal(picture.Shapes.Count, svg.Elements().Skip(1).Count());

        // From the front the open left palm is not seen from inside when it faces away, and is when it faces the viewer.
        Assert.Contains(picture.Shapes, shape => shape.Fill == "#AE6A38");
    }

    [Fact]
    public void A_figure_has_room_for_every_count()
    {
        var walk = PostureBody.Of(
            Starter.Called("Part Foot"),
            Side.Right,
            Mode.Standing,
            Conventions.Default,
            Somebody
        )!;
        var view = FigureView.Named("left", 0)!.Value;
        var each = Enumerable
            .Range(0, walk.Count + 1)
            .Select(count => FigureBox.Of([walk.After(count)], view))
            .ToList();
        var all = each.Aggregate((room, box) => room.With(box));
        var whole = FigureBox.Of(walk, view);
        AssertNear(whole.Left, all.Left);
        AssertNear(whole.Top, all.Top);
        AssertNear(whole.Width, all.Width);
        AssertNear(whole.Height, all.Height);
        Assert.Contains(each, box => box.Width < whole.Width);
    }

    [Fact]
    public void A_kick_shows_whether_the_heel_or_the_toes_lead()
    {
        static double AlongTheShank(string name)
        {
            var posture = Starter.Called(name);
            var walk = PostureBody.Of(posture, Side.Right, Mode.Standing, Conventions.Default, Somebody)!;
            var leg = walk.After(4).LegOf(Hand.Right);
            return (leg.Toes - leg.Heel).Unit().Dot((leg.Ankle - leg.Knee).Unit());
        }

        Assert.InRange(AlongTheShank("Heel Kick"), -0.01, 0.01);
        Assert.InRange(AlongTheShank("Part Foot"), 0.9, 1);
    }

    private static int Centimetres(double metres) => (int)(metres * 100);

    private static void AssertNear(double expected, double actual) =>
        Assert.InRange(actual, expected - 1e-6, expected + 1e-6);

    private static void AssertNear(Vector expected, Vector actual) =>
        Assert.InRange((expected - actual).Length, 0, 1e-6);
}
