using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Body;

/// <summary>From a hand's place in words to where it is: heights, lines and reaches from the chest, or against what of
/// the body it is.</summary>
internal sealed class HandPlacing(Trunk trunk, IReadOnlyList<Leg> legs, Physique physique, Aid? aid)
{
    private const double Apart = 0.13;
    private const double Touching = 0.035;
    private const double ArcBulge = 0.22;

    /// <summary>Both hands; one that is against the other arm is placed after it.</summary>
    public (HandPose Left, HandPose Right) Of(BodyState body)
    {
        var (left, right) = (DependsOnOtherArm(body.Left), DependsOnOtherArm(body.Right));
        if (left && right)
        {
            // Neither can be first: each is put against where the other would be by itself.
            return (
                Place(Hand.Left, body.Left, ArmOf(Hand.Right, body.Right, null)),
                Place(Hand.Right, body.Right, ArmOf(Hand.Left, body.Left, null))
            );
        }

        return left
            ? (Place(Hand.Left, body.Left, ArmOf(Hand.Right, body.Right, null)), Place(Hand.Right, body.Right, null))
            : (
                Place(Hand.Left, body.Left, null),
                Place(Hand.Right, body.Right, right ? ArmOf(Hand.Left, body.Left, null) : null)
            );
    }

    private Arm ArmOf(Hand hand, HandState state, Arm? other) =>
        Arm.Of(hand, Place(hand, state, other), trunk, physique);

    /// <summary>What lies on the way of a hand from one place to another, in the chest's own directions.</summary>
    public IReadOnlyList<Vector> By(Hand hand, BodyAction.Arm arm, HandPose from, HandPose to, Arm other) =>
        [.. new[] { arm.First, arm.Then }.OfType<Passing>().Select(by => Pass(hand, by, from, to, other))];

    private Vector Pass(Hand hand, Passing by, HandPose from, HandPose to, Arm other) =>
        by.Arc is { } arc ? from.At.Towards(to.At, 0.5) + (Direction(hand, arc) * physique.Of(ArcBulge))
        : by.Place.Against is { } against ? Against(hand, against, to.Palm, other)
        : Measure(
            hand,
            new(
                by.Place.Height ?? Height.Chest,
                by.Place.Line ?? Line.Own,
                by.Place.Reach ?? (by.Place.Height is Height.Ear or Height.Hip ? Reach.Near : Reach.Bent)
            )
        );

    private bool DependsOnOtherArm(HandState hand) =>
        !Grips(hand) && hand.Place.Against is { Landmark: <= Landmark.Elbow };

    /// <summary>It has hold of something that is there.</summary>
    private bool Grips(HandState hand) => hand.Holds != Holding.Nothing && aid is not null;

    private HandPose Place(Hand hand, HandState state, Arm? other)
    {
        var palm = Direction(hand, state.Palm);
        var fingers = Direction(hand, state.Fingers).Without(palm).Unit(AnySquareTo(palm));
        if (Grips(state))
        {
            var grip = aid!.Grip(hand, trunk.Shoulder(hand, physique));
            var ahead = trunk.InChest(Vector.Facing(aid.Facing));
            return new(
                trunk.InChest(grip - trunk.Neck),
                new(0, 0, -1),
                ahead.Without(new(0, 0, 1)).Unit(ahead),
                HandShape.Loose,
                state.Elbow,
                true
            );
        }

        var at = state.Place.Against is { } against ? Against(hand, against, palm, other) : Measure(hand, state.Place);
        return new(at, palm, fingers, state.Shape, state.Elbow, state.Holds != Holding.Nothing);
    }

    /// <summary>Where a place in words is, in the hall.</summary>
    public Vector InHall(Hand hand, HandPlace place) => trunk.Neck + trunk.InHall(Measure(hand, place));

    private Vector Measure(Hand hand, HandPlace place)
    {
        var side = Trunk.Sign(hand);
        var height = place.Height ?? Height.Chest;
        var up =
            height == Height.Knee
                ? Math.Min(legs[(int)hand].Knee.Up + physique.Of(0.08), trunk.Pelvis.Up) - trunk.Neck.Up
                : physique.AboveHips(height) - physique.Torso;
        return new(side * physique.Aside(place.Line ?? Line.Own), physique.Ahead(place.Reach ?? Reach.Bent), up);
    }

    private Vector Against(Hand hand, Against against, Vector palm, Arm? other)
    {
        var side = against.Other ? BodyAction.Other(hand) : hand;
        var landmark = against.Landmark switch
        {
            Landmark.Ear => new(
                Trunk.Sign(side) * physique.Of(0.13),
                physique.Of(0.04),
                physique.AboveHips(Height.Ear) - physique.Torso
            ),
            Landmark.Hip => new(
                Trunk.Sign(side) * physique.Of(0.2),
                physique.Of(0.06),
                physique.AboveHips(Height.Hip) - physique.Torso
            ),
            Landmark.Knee => trunk.InChest(legs[(int)side].Knee - trunk.Neck),
            _ when other is not null => trunk.InChest(other.At(against.Landmark) - trunk.Neck),
            _ => Measure(hand, new(Height.Chest, Line.Centre, Reach.Bent)),
        };
        return landmark
            + (
                against.Relation switch
                {
                    Relation.On => palm * -physique.Of(Touching),
                    Relation.Over => new(0, 0, physique.Of(Apart)),
                    Relation.Under => new(0, 0, -physique.Of(Apart)),
                    Relation.Before => new(0, physique.Of(Apart), 0),
                    Relation.Behind => new(0, -physique.Of(Apart), 0),
                    _ => new Vector(Trunk.Sign(hand) * physique.Of(Apart), 0, 0),
                }
            );
    }

    private static Vector Direction(Hand hand, Aim aim) =>
        aim.Second is { } second
            ? (Direction(hand, aim.First) + Direction(hand, second)).Unit()
            : Direction(hand, aim.First);

    private static Vector Direction(Hand hand, Way way) =>
        way switch
        {
            Way.Up => new(0, 0, 1),
            Way.Down => new(0, 0, -1),
            Way.Front => new(0, 1, 0),
            Way.Back => new(0, -1, 0),
            Way.In => new(-Trunk.Sign(hand), 0, 0),
            _ => new(Trunk.Sign(hand), 0, 0),
        };

    private static Vector AnySquareTo(Vector palm) =>
        Math.Abs(palm.Up) < 0.9 ? new Vector(0, 0, 1).Without(palm).Unit() : new(0, 1, 0);
}
