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
    private static readonly Hand[] BothSides = [Hand.Left, Hand.Right];
    private const double LeanOfASeat = 0.15;
    private const double EmptyFrom = 20;
    private const double BehindTheBody = 0.12;
    private const double HeelForward = 0.13;
    private const double HeelUp = 0.15;

    /// <summary>The pelvis stands over the load, as low as the legs allow; on a seat it is the seat's (domain.md 4.1, "The
    /// body").</summary>
    public static Trunk Of(FloorPose pose, TrunkPose trunk, Physique physique, Aid? aid)
    {
        var right = Vector.Facing(pose.Hips + 90);
        var ahead = Vector.Facing(pose.Hips);
        var sits = aid?.Kind == Holding.Chair;
        var pelvis = sits ? aid!.At : OverTheLoad(pose, trunk.Rise, right, ahead, physique);
        var lean = trunk.LeanRight + (sits ? (50 - pose.SeatLeft) * LeanOfASeat : 0);
        var up = Vector.Upwards.Turned(right, -trunk.LeanForward).Turned(ahead, lean);
        var chestAhead = Vector.Facing(pose.Hips + trunk.Chest).Without(up).Unit(ahead);
        var chestRight = chestAhead.Cross(up);
        return new(pelvis, pelvis + (up * physique.Torso), right, ahead, chestRight, chestAhead, up);
    }

    public Vector Hip(Hand side, Physique physique) => Pelvis + (PelvisRight * (Sign(side) * physique.HalfHips));

    public Vector Shoulder(Hand side, Physique physique) => Neck + (ChestRight * (Sign(side) * physique.HalfShoulders));

    /// <summary>What is known in the chest's own directions, in the hall's.</summary>
    public Vector InHall(Vector inChest) =>
        (ChestRight * inChest.Right) + (ChestAhead * inChest.Ahead) + (ChestUp * inChest.Up);

    /// <summary>A direction of the hall in the chest's own.</summary>
    public Vector InChest(Vector inHall) => new(inHall.Dot(ChestRight), inHall.Dot(ChestAhead), inHall.Dot(ChestUp));

    internal static int Sign(Hand side) => side == Hand.Left ? -1 : 1;

    private static Vector OverTheLoad(FloorPose pose, double rise, Vector right, Vector ahead, Physique physique)
    {
        var left = physique.MiddleOf(pose.Left);
        var place = GivenToAStep(left.Towards(physique.MiddleOf(pose.Right), Share(pose)), pose, right, physique);
        var usual = FootPose.Mix(
            FootPose.Mix(physique.UsualHips, physique.OneLegHips, Math.Max(pose.Left.Air, pose.Right.Air)),
            physique.LowHips,
            pose.Low
        );
        var height = usual + (rise / 100);
        foreach (var side in BothSides)
        {
            var foot = pose[side];
            var ankle = physique.Ankle(foot);
            var hip = place + (right * (Sign(side) * physique.HalfHips));
            var away = new Vector(hip.Right - ankle.Right, hip.Ahead - ankle.Ahead, 0);

            // The heel of an empty foot behind comes off the floor before the body sinks for it.
            var onToes =
                Math.Clamp((EmptyFrom - foot.Load) / EmptyFrom, 0, 1)
                * Math.Clamp((away.Dot(ahead) / physique.Of(BehindTheBody)) - 1, 0, 1);
            var across = away.Length - (onToes * physique.Of(HeelForward));
            var leg = (physique.Thigh + physique.Shank) * Physique.LongestOfALimb;
            var highest =
                ankle.Up + (onToes * physique.Of(HeelUp)) + Math.Sqrt(Math.Max(0.04, (leg * leg) - (across * across)));
            height = Math.Min(height, highest + (foot.Air * physique.UsualHips));
        }

        return place with
        {
            Up = height,
        };
    }

    /// <summary>Whoever sets an empty foot down far away comes a little towards it, as far as the standing sole reaches, before
    /// sinking for it.</summary>
    private static Vector GivenToAStep(Vector place, FloorPose pose, Vector right, Physique physique)
    {
        foreach (var side in BothSides)
        {
            var foot = pose[side];
            var ankle = physique.Ankle(foot);
            var hip = place + (right * (Sign(side) * physique.HalfHips));
            var away = new Vector(ankle.Right - hip.Right, ankle.Ahead - hip.Ahead, 0);
            var far = away.Length - physique.Of(EasyStep);
            if (far > 0)
            {
                var gives = Math.Min(far * 0.6, physique.Of(SoleReaches)) * Math.Clamp(1 - (foot.Load / 40), 0, 1);
                place += away.Unit() * (gives * (1 - foot.Air));
            }
        }

        return place;
    }

    private const double EasyStep = 0.4;
    private const double SoleReaches = 0.13;

    /// <summary>The right foot's part of what both carry.</summary>
    private static double Share(FloorPose pose) =>
        pose.Left.Load + pose.Right.Load is > 0 and var all ? pose.Right.Load / all : 0.5;
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
