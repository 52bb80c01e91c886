namespace Zeitplan.Core.Forms.Body;

/// <summary>A leg from the hip joint to the tip of the toes.</summary>
public sealed record Leg(Vector Hip, Vector Knee, Vector Ankle, Vector Heel, Vector Toes, double Load, bool InAir)
{
    private const double PelvisPart = 0.35;
    private const double DropOfHangingToes = 0.45;

    internal static Leg Of(Hand side, FootPlace place, Trunk trunk, Physique physique)
    {
        var (foot, stands, ahead) = (place.Pose, place.Ankle, place.Ahead);
        var hip = trunk.Hip(side, physique);
        var ankle = TwoBones.Within(
            hip,
            stands,
            physique.Thigh,
            physique.Shank,
            (physique.Thigh + physique.Shank) * FootPose.Mix(Physique.LongestOfALimb, 1, foot.Air)
        );

        // The knee follows the toes, a little drawn to where the pelvis points.
        var knee = TwoBones.Joint(
            hip,
            ankle,
            physique.Thigh,
            physique.Shank,
            ahead.Towards(trunk.PelvisAhead, PelvisPart) + (Vector.Upwards * 0.2)
        );

        var along = foot.InAir
            ? HeldUp(foot, ahead, (ankle - knee).Unit(), IsLong(hip, ankle, physique))
            : (ahead + (Vector.Upwards * (foot.ToesUp - foot.HeelUp))).Unit();
        var heel = ankle - (Vector.Upwards * physique.AnkleUp) - (along * (0.06 * physique.Foot));
        var toes = heel + (along * (0.9 * physique.Foot));

        // Toes stay where they are when the heel has come off the floor.
        return new(hip, knee, ankle, heel, foot.InAir ? toes : toes + (stands - ankle), foot.Load, foot.InAir);
    }

    private static bool IsLong(Vector hip, Vector ankle, Physique physique) =>
        (ankle - hip).Length > (physique.Thigh + physique.Shank) * 0.9;

    /// <summary>Where a foot in the air points: square to the shank when the heel leads, on along it when the toes are
    /// long; where neither is said it hangs, and at the end of a long leg its toes are drawn back.</summary>
    private static Vector HeldUp(FootPose foot, Vector ahead, Vector shank, bool isLong)
    {
        var square = (ahead + Vector.Upwards).Without(shank).Unit();
        var onAlong = (shank + (ahead * 0.35)).Unit();
        var hangs = (isLong ? ahead + (Vector.Upwards * 1.2) : ahead - (Vector.Upwards * DropOfHangingToes)).Unit();
        return hangs.Towards(foot.Leads > 0 ? square : onAlong, Math.Abs(foot.Leads)).Unit();
    }
}

/// <summary>An arm from the shoulder joint to the finger tips.</summary>
/// <param name="Palm">The middle of the palm.</param>
/// <param name="PalmFaces">Where the inside of the hand faces.</param>
/// <param name="Bend">How the wrist would be bent as it is said; the hand itself gives way as far as a wrist does.</param>
/// <param name="Missing">How far the hand would have to reach beyond the arm's length, in metres.</param>
public sealed record Arm(
    Vector Shoulder,
    Vector Elbow,
    Vector Wrist,
    Vector Palm,
    Vector Tip,
    Vector PalmFaces,
    HandShape Shape,
    bool Holds,
    double Missing,
    WristBend Bend
)
{
    /// <summary>What an arm gives a little: the shoulder comes along.</summary>
    private const double Give = 0.04;

    public static Arm Of(Hand side, HandPose hand, Trunk trunk, Physique physique)
    {
        var shoulder = trunk.Shoulder(side, physique);
        var fingers = trunk.InHall(hand.Fingers);
        var at = trunk.Neck + trunk.InHall(hand.At);
        var fromWrist =
            hand.Shape == HandShape.Hook
                ? default
                : fingers * (hand.Shape == HandShape.Fist ? physique.Of(0.06) : physique.PalmFromWrist);
        var longest = (physique.UpperArm + physique.Forearm) * 0.995;
        var wanted = at - fromWrist;
        var wrist = TwoBones.Within(shoulder, wanted, physique.UpperArm, physique.Forearm, longest);
        var elbow = TwoBones.Joint(
            shoulder,
            wrist,
            physique.UpperArm,
            physique.Forearm,
            hand.Elbow.From == hand.Elbow.To
                ? Points(hand.Elbow.To)
                : Points(hand.Elbow.From).Towards(Points(hand.Elbow.To), hand.Elbow.Part)
        );

        var (bend, palm) = (default(WristBend), trunk.InHall(hand.Palm));
        if (hand is { Shape: not HandShape.Hook, Holds: false })
        {
            var forearm = (wrist - elbow).Unit();
            bend = WristBend.Of(forearm, fingers, palm);
            if (!bend.IsWithinAWrist)
            {
                (fingers, palm) = WristBend.Eased(forearm, fingers, palm);
            }

            fromWrist = fingers * fromWrist.Length;
        }

        var tip = hand.Shape switch
        {
            // A hook hangs from its wrist, which is its highest point.
            HandShape.Hook => wrist + (((elbow - wrist).Unit() * -0.3) - Vector.Upwards).Unit() * physique.Of(0.1),
            HandShape.Fist => wrist + (fingers * physique.Of(0.11)),
            _ => wrist + (fingers * physique.Hand),
        };
        var missing = Math.Max(0, (wanted - shoulder).Length - longest - physique.Of(Give));
        return new(shoulder, elbow, wrist, wrist + fromWrist, tip, palm, hand.Shape, hand.Holds, missing, bend);

        Vector Points(Elbow how) =>
            how == Body.Elbow.Down && hand is { Shape: not HandShape.Hook, Holds: false }
                ? EasyOnTheWrist(
                    side,
                    shoulder,
                    wrist,
                    trunk.InHall(hand.Fingers),
                    trunk.InHall(hand.Palm),
                    trunk,
                    physique
                )
                : Pole(side, how, trunk);
    }

    public Vector At(Landmark landmark) =>
        landmark switch
        {
            Landmark.Elbow => Elbow,
            Landmark.Forearm => Elbow.Towards(Wrist, 0.5),
            Landmark.Wrist => Wrist,
            _ => Palm,
        };

    /// <summary>A hanging elbow swings outwards as far as the hand asks for, so that the wrist need not be bent more than is
    /// easy.</summary>
    private static Vector EasyOnTheWrist(
        Hand side,
        Vector shoulder,
        Vector wrist,
        Vector fingers,
        Vector palm,
        Trunk trunk,
        Physique physique
    )
    {
        var along = (wrist - shoulder).Unit(-Vector.Upwards);
        var hangs = Pole(side, Body.Elbow.Down, trunk).Without(along).Unit();
        var outwards = Pole(side, Body.Elbow.Out, trunk).Without(along).Without(hangs).Unit();

        // The elbow swings on a circle: what the forearm shares with each direction of the hand is a number and the parts it loses to the swing.
        var (middle, radius) = TwoBones.Circle(shoulder, wrist, physique.UpperArm, physique.Forearm);
        var (line, aside) = (wrist - middle, palm.Cross(fingers));
        var (linePalm, lineFingers, lineAside) = (line.Dot(palm), line.Dot(fingers), line.Dot(aside));
        var (hangsPalm, hangsFingers, hangsAside) = (hangs.Dot(palm), hangs.Dot(fingers), hangs.Dot(aside));
        var (outPalm, outFingers, outAside) = (outwards.Dot(palm), outwards.Dot(fingers), outwards.Dot(aside));
        double Strain(int swing)
        {
            var (_, sin, cos) = Swung[swing];
            var (down, wide) = (radius * cos, radius * sin);
            return WristBend.Strain(
                (linePalm - (down * hangsPalm) - (wide * outPalm)) / physique.Forearm,
                (lineFingers - (down * hangsFingers) - (wide * outFingers)) / physique.Forearm,
                (lineAside - (down * hangsAside) - (wide * outAside)) / physique.Forearm
            );
        }

        var (best, least) = (0, Strain(0));
        void Try(int swing)
        {
            // What the swing itself costs is known before the wrist is looked at.
            if (swing > 0 && Swung[swing].Costs is var costs && costs < least)
            {
                var strain = costs + Strain(swing);
                (best, least) = strain < least ? (swing, strain) : (best, least);
            }
        }

        for (var swing = Coarse; swing <= Swings * Coarse && Swung[swing].Costs < least; swing += Coarse)
        {
            Try(swing);
        }

        for (var step = Coarse / 2; step > 0 && least > 0; step /= 2)
        {
            var around = best;
            Try(around - step);
            Try(around + step);
        }

        var (_, aslant, straight) = Swung[best];
        return (hangs * straight) + (outwards * aslant);
    }

    private const double SwingStrain = 150;
    private const double FinestSwing = 0.025;

    /// <summary>First so many of the finest swings at once, so many times; then half of it, and so on.</summary>
    private const int Coarse = 8;
    private const int Swings = 6;
    private static readonly (double Costs, double Sin, double Cos)[] Swung =
    [
        .. Enumerable
            .Range(0, ((Swings + 1) * Coarse) + 1)
            .Select(swing => swing * FinestSwing)
            .Select(angle => (angle * angle * SwingStrain, Math.Sin(angle), Math.Cos(angle))),
    ];

    /// <summary>An elbow hangs: down, a little outward and back, unless it is said to be rounded or raised.</summary>
    private static Vector Pole(Hand side, Elbow elbow, Trunk trunk) =>
        trunk.InHall(
            elbow switch
            {
                Body.Elbow.Out => new(Trunk.Sign(side) * 1.0, -0.1, -0.35),
                Body.Elbow.Up => new(Trunk.Sign(side) * 1.0, -0.1, 0.7),
                _ => new(Trunk.Sign(side) * 0.45, -0.2, -1),
            }
        );
}

/// <summary>How a hand is bent against its forearm: what the forearm's direction shares with that of the palm, of the fingers
/// and of the hand's edge.</summary>
public readonly record struct WristBend(double Palm, double Fingers, double Edge)
{
    /// <summary>Degrees to the palm; away from it is negative.</summary>
    public double ToPalm => InDegrees(Math.Atan2(-Palm, Fingers));

    /// <summary>Degrees to one of its edges.</summary>
    public double Aside => InDegrees(Math.Asin(Math.Clamp(Edge, -1, 1)));

    /// <summary>As far as a wrist bends.</summary>
    public const double MostToPalm = 80;
    public const double MostToBack = 75;
    public const double MostAside = 40;

    public static WristBend Of(Vector forearm, Vector fingers, Vector palm) =>
        new(forearm.Dot(palm), forearm.Dot(fingers), forearm.Dot(palm.Cross(fingers)));

    /// <summary>How much more than is easy it is bent: the squares of the degrees. Most wrists are easy, and for those no angle
    /// is worked out.</summary>
    internal static double Strain(double palm, double fingers, double edge)
    {
        var (aside, bent) = (0.0, 0.0);
        if (Math.Abs(edge) > SinOfEasyAside)
        {
            aside = InDegrees(Math.Asin(Math.Min(Math.Abs(edge), 1))) - EasyAside;
        }

        if (Math.Abs(palm) > TanOfEasyBend * fingers)
        {
            bent = InDegrees(Math.Atan2(Math.Abs(palm), fingers)) - EasyBend;
        }

        return (aside * aside) + (bent * bent);
    }

    private static double InDegrees(double radians) => radians * 180 / Math.PI;

    private const double EasyAside = 20;
    private const double EasyBend = 60;
    private static readonly double SinOfEasyAside = Math.Sin(EasyAside * Math.PI / 180);
    private static readonly double TanOfEasyBend = Math.Tan(EasyBend * Math.PI / 180);

    /// <summary>No further than a wrist does.</summary>
    public bool IsWithinAWrist =>
        -Palm <= TanOfMostToPalm * Fingers && Palm <= TanOfMostToBack * Fingers && Math.Abs(Edge) <= SinOfMostAside;

    /// <summary>The hand drawn towards the line of its forearm until the wrist can be bent like that.</summary>
    public static (Vector Fingers, Vector Palm) Eased(Vector forearm, Vector fingers, Vector palm)
    {
        (Vector Fingers, Vector Palm) Drawn(double part)
        {
            var along = fingers.Towards(forearm, part).Unit(forearm);
            return (along, palm.Without(along).Unit(palm));
        }

        var (least, most) = (0.0, 1.0);
        for (var step = 0; step < EasingSteps; step++)
        {
            var part = (least + most) / 2;
            var (drawn, faces) = Drawn(part);
            (least, most) = Of(forearm, drawn, faces).IsWithinAWrist ? (least, part) : (part, most);
        }

        return Drawn(most);
    }

    private static readonly double TanOfMostToPalm = Math.Tan(MostToPalm * Math.PI / 180);
    private static readonly double TanOfMostToBack = Math.Tan(MostToBack * Math.PI / 180);
    private static readonly double SinOfMostAside = Math.Sin(MostAside * Math.PI / 180);

    private const int EasingSteps = 8;
}

/// <summary>Two bones between two ends: where the joint between them is.</summary>
internal static class TwoBones
{
    /// <param name="pole">To which side the joint bends.</param>
    public static Vector Joint(Vector from, Vector to, double first, double second, Vector pole)
    {
        var (middle, radius) = Circle(from, to, first, second);
        return middle + (pole.Without((to - from).Unit(-Vector.Upwards)).Unit(Vector.Facing(0)) * radius);
    }

    /// <summary>Everywhere the joint can be, around the line between the ends.</summary>
    public static (Vector Middle, double Radius) Circle(Vector from, Vector to, double first, double second)
    {
        var line = to - from;
        var distance = Math.Clamp(line.Length, Folded(first, second), first + second - 1e-9);
        var x = ((first * first) - (second * second) + (distance * distance)) / (2 * distance);
        return (from + (line.Unit(-Vector.Upwards) * x), Math.Sqrt(Math.Max(0, (first * first) - (x * x))));
    }

    /// <summary>The same place, or as near to it as a limb of these bones comes: folded up they still leave something between
    /// their ends.</summary>
    /// <param name="longest">As far as it is stretched.</param>
    public static Vector Within(Vector from, Vector to, double first, double second, double longest)
    {
        var line = to - from;
        var distance = Math.Clamp(line.Length, Folded(first, second), longest);
        return distance == line.Length ? to : from + (line.Unit(-Vector.Upwards) * distance);
    }

    private static double Folded(double first, double second) => Math.Abs(first - second) + 1e-6;
}
