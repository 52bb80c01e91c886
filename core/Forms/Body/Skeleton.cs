namespace Zeitplan.Core.Forms.Body;

/// <summary>The joints of somebody at one moment, in metres in the hall (domain.md 4.1, "The body").</summary>
/// <param name="Head">The middle of the head.</param>
/// <param name="Face">Where the eyes look.</param>
public sealed record Skeleton(
    Trunk Trunk,
    Leg LeftLeg,
    Leg RightLeg,
    Arm LeftArm,
    Arm RightArm,
    Vector Head,
    Vector Face,
    Aid? Aid
)
{
    private const double MostOfANeck = 80;
    private const double StraightBehind = 179.9;

    public Leg LegOf(Hand side) => side == Hand.Left ? LeftLeg : RightLeg;

    public Arm ArmOf(Hand side) => side == Hand.Left ? LeftArm : RightArm;

    /// <summary>The body of a moment at which nothing moves.</summary>
    public static Skeleton Of(FloorPose pose, BodyState body, Physique physique, Aid? aid = null)
    {
        var (trunk, legs) = Below(pose, TrunkPose.Of(body), physique, aid);
        var (left, right) = new HandPlacing(trunk, legs, physique, aid).Of(body);
        return Of(trunk, legs, left, right, pose.Hips, body.Eyes, physique, aid);
    }

    internal static (Trunk Trunk, Leg[] Legs) Below(FloorPose pose, TrunkPose pelvis, Physique physique, Aid? aid)
    {
        var (left, right) = (FootPlace.Of(pose.Left, physique), FootPlace.Of(pose.Right, physique));
        var trunk = Trunk.Of(pose, left, right, pelvis, physique, aid);
        return (trunk, [Leg.Of(Hand.Left, left, trunk, physique), Leg.Of(Hand.Right, right, trunk, physique)]);
    }

    internal static Skeleton Of(
        Trunk trunk,
        Leg[] legs,
        HandPose left,
        HandPose right,
        double hips,
        Eyes eyes,
        Physique physique,
        Aid? aid
    )
    {
        var (leftArm, rightArm) = (
            Arm.Of(Hand.Left, left, trunk, physique),
            Arm.Of(Hand.Right, right, trunk, physique)
        );
        var head = trunk.Neck + (trunk.ChestUp * physique.NeckToHead);
        var looks = eyes.At is { } at
            ? ((at == Hand.Left ? leftArm : rightArm).Palm - head).Unit(trunk.ChestAhead)
            : (Vector.Facing(hips + eyes.Turn) + (Vector.Upwards * (eyes.Up * 0.6))).Unit();
        return new(trunk, legs[0], legs[1], leftArm, rightArm, head, WithinANeck(trunk, looks), aid);
    }

    /// <summary>Nobody turns the head further than a neck does.</summary>
    private static Vector WithinANeck(Trunk trunk, Vector looks)
    {
        var turn = Math.Atan2(looks.Dot(trunk.ChestRight), looks.Dot(trunk.ChestAhead)) * 180 / Math.PI;

        // What is straight behind is on neither side.
        var most = Math.Abs(turn) > StraightBehind ? 0 : Math.Clamp(turn, -MostOfANeck, MostOfANeck);
        var level = Math.Sqrt(Math.Max(0, 1 - (looks.Up * looks.Up)));
        var (sin, cos) = Math.SinCos(most * Math.PI / 180);
        return (
            (trunk.ChestRight * (sin * level)) + (trunk.ChestAhead * (cos * level)) + (Vector.Upwards * looks.Up)
        ).Unit();
    }
}
