namespace Zeitplan.Core.Forms.Body;

/// <summary>Pelvis, chest and head of somebody, and the two frames everything else hangs on.</summary>
/// <param name="Pelvis">The middle between the hip joints.</param>
/// <param name="Neck">The middle of the line of the shoulders.</param>
/// <param name="PelvisRight">The pelvis' right, along the floor.</param>
/// <param name="ChestRight">The chest's right; <paramref name="ChestAhead"/> and <paramref name="ChestUp"/> are square to
/// it.</param>
public sealed record Trunk(
    Vector Pelvis,
    Vector Neck,
    Vector PelvisRight,
    Vector PelvisAhead,
    Vector ChestRight,
    Vector ChestAhead,
    Vector ChestUp
)
{
    private const double LeanOfASeat = 0.15;
    private const double EmptyFrom = 20;
    private const double BehindTheBody = 0.12;
    private const double HeelForward = 0.13;
    private const double HeelUp = 0.15;

    /// <summary>The pelvis stands over the load, as low as the legs allow; on a seat it is the seat's (domain.md 4.1, "The
    /// body").</summary>
    internal static Trunk Of(
        FloorPose pose,
        FootPlace left,
        FootPlace right,
        TrunkPose trunk,
        Physique physique,
        Aid? aid
    )
    {
        var ahead = Vector.Facing(pose.Hips);
        var aside = new Vector(ahead.Ahead, -ahead.Right, 0);
        var sits = aid?.Kind == Holding.Chair;
        var pelvis = sits ? aid!.At : OverTheLoad(left, right, pose.Low, trunk.Rise, aside, ahead, physique);
        var lean = trunk.LeanRight + (sits ? (50 - pose.SeatLeft) * LeanOfASeat : 0);
        var up = Vector.Upwards.Turned(aside, -trunk.LeanForward).Turned(ahead, lean);
        var chestAhead = Vector.Facing(pose.Hips + trunk.Chest).Without(up).Unit(ahead);
        var chestRight = chestAhead.Cross(up);
        return new(pelvis, pelvis + (up * physique.Torso), aside, ahead, chestRight, chestAhead, up);
    }

    public Vector Hip(Hand side, Physique physique) => Pelvis + (PelvisRight * (Sign(side) * physique.HalfHips));

    public Vector Shoulder(Hand side, Physique physique) => Neck + (ChestRight * (Sign(side) * physique.HalfShoulders));

    /// <summary>What is known in the chest's own directions, in the hall's.</summary>
    public Vector InHall(Vector inChest) =>
        (ChestRight * inChest.Right) + (ChestAhead * inChest.Ahead) + (ChestUp * inChest.Up);

    /// <summary>A direction of the hall in the chest's own.</summary>
    public Vector InChest(Vector inHall) => new(inHall.Dot(ChestRight), inHall.Dot(ChestAhead), inHall.Dot(ChestUp));

    internal static int Sign(Hand side) => side == Hand.Left ? -1 : 1;

    private static Vector OverTheLoad(
        FootPlace left,
        FootPlace right,
        double low,
        double rise,
        Vector aside,
        Vector ahead,
        Physique physique
    )
    {
        var place = left.Middle.Towards(right.Middle, Share(left.Pose, right.Pose));
        var half = aside * physique.HalfHips;
        place += GivenToAStep(left, place - half, physique);
        place += GivenToAStep(right, place + half, physique);
        var usual = FootPose.Mix(
            FootPose.Mix(physique.UsualHips, physique.OneLegHips, Math.Max(left.Pose.Air, right.Pose.Air)),
            physique.LowHips,
            low
        );
        var height = Math.Min(Highest(left, place - half), Highest(right, place + half));
        return place with { Up = Math.Min(usual + (rise / 100), height) };

        double Highest(FootPlace leg, Vector hip)
        {
            var (foot, ankle) = (leg.Pose, leg.Ankle);
            var away = new Vector(hip.Right - ankle.Right, hip.Ahead - ankle.Ahead, 0);

            // The heel of an empty foot behind comes off the floor before the body sinks for it.
            var onToes =
                Math.Clamp((EmptyFrom - foot.Load) / EmptyFrom, 0, 1)
                * Math.Clamp((away.Dot(ahead) / physique.Of(BehindTheBody)) - 1, 0, 1);
            var across = away.Length - (onToes * physique.Of(HeelForward));
            var longest = (physique.Thigh + physique.Shank) * Physique.LongestOfALimb;
            return ankle.Up
                + (onToes * physique.Of(HeelUp))
                + Math.Sqrt(Math.Max(0.04, (longest * longest) - (across * across)))
                + (foot.Air * physique.UsualHips);
        }
    }

    /// <summary>Whoever sets an empty foot down far away comes a little towards it, as far as the standing sole reaches, before
    /// sinking for it.</summary>
    private static Vector GivenToAStep(FootPlace leg, Vector hip, Physique physique)
    {
        var (foot, ankle) = (leg.Pose, leg.Ankle);
        var away = new Vector(ankle.Right - hip.Right, ankle.Ahead - hip.Ahead, 0);
        var far = away.Length - physique.Of(EasyStep);
        if (far <= 0)
        {
            return default;
        }

        var gives = Math.Min(far * 0.6, physique.Of(SoleReaches)) * Math.Clamp(1 - (foot.Load / 40), 0, 1);
        return away.Unit() * (gives * (1 - foot.Air));
    }

    private const double EasyStep = 0.4;
    private const double SoleReaches = 0.13;

    /// <summary>The right foot's part of what both carry.</summary>
    private static double Share(FootPose left, FootPose right) =>
        left.Load + right.Load is > 0 and var all ? right.Load / all : 0.5;
}

/// <summary>What the trunk does at any moment; see <see cref="BodyState"/>.</summary>
public readonly record struct TrunkPose(double Chest, double LeanForward, double LeanRight, double Rise)
{
    public static TrunkPose Of(BodyState body) => new(body.Chest, body.LeanForward, body.LeanRight, body.Rise);

    public TrunkPose Towards(TrunkPose to, double part) =>
        new(
            FootPose.Mix(Chest, to.Chest, part),
            FootPose.Mix(LeanForward, to.LeanForward, part),
            FootPose.Mix(LeanRight, to.LeanRight, part),
            FootPose.Mix(Rise, to.Rise, part)
        );
}
