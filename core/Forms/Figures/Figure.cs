using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Figures;

/// <summary>How a figure is coloured.</summary>
/// <param name="Far">A limb furthest from the viewer; <paramref name="Near"/> the nearest.</param>
public sealed record FigureColours(
    string Far,
    string Near,
    string Edge,
    string Palm,
    string Face,
    string Ground,
    string Wood
)
{
    /// <summary>On paper.</summary>
    public static FigureColours Paper { get; } =
        new("#93A59D", "#17332C", "#FBFAF5", "#E6AC7E", "#F6F2E6", "#1D5B4E", "#A98C5B");

    /// <summary>On the dark of the hall screen.</summary>
    public static FigureColours Night { get; } =
        new("#3E5A52", "#B9DCCF", "#15201E", "#E6AC7E", "#15201E", "#8FC3AE", "#A98C5B");
}

/// <summary>
/// The body drawn from any side (domain.md 2, "figure"): limbs as tapering rounds from the furthest to the nearest, nearer
/// ones darker; a palm seen from inside warm; weight as the darkness of the ground under each foot; the sash with its
/// knot in front, and a light dot where the face is.
/// </summary>
public static class Figure
{
    /// <summary>The colour of a sash that is no cohort's: for the figure of a posture itself.</summary>
    public const string NobodysSash = "#AE6A38";

    /// <param name="sash">The colour of the cohort's sash.</param>
    public static IReadOnlyList<FigureShape> Draw(
        Skeleton body,
        FigureView view,
        Physique physique,
        string sash,
        FigureColours colours
    )
    {
        var drawing = new FigureDrawing(body, view, physique, sash, colours);
        return drawing.Shapes();
    }
}

/// <summary>One figure in one view.</summary>
internal sealed class FigureDrawing(
    Skeleton body,
    FigureView view,
    Physique physique,
    string sash,
    FigureColours colours
)
{
    private const double Depth = 0.75;
    private static readonly double[] Posts = [-0.75, 0.75];
    private static readonly double[] Grips = [-0.25, 0.25];
    private static readonly (double Right, double Ahead)[] AroundTheWaist =
    [
        .. Enumerable
            .Range(0, 24)
            .Select(at => Math.SinCos(at * 15 * Math.PI / 180))
            .Select(angle => (angle.Sin, angle.Cos)),
    ];
    private static readonly (double, double)[] ChairLegs = [(0.2, -0.21), (0.2, 0.21), (-0.21, -0.21), (-0.21, 0.21)];
    private readonly List<(double Near, FigureShape Shape)> parts = [];
    private readonly Projection projection = view.Projection;
    private readonly Vector eye = view.Projection.Eye;
    private readonly double middle = view.Projection.Of(body.Trunk.Pelvis.Towards(body.Trunk.Neck, 0.5)).Near;

    public IReadOnlyList<FigureShape> Shapes()
    {
        foreach (var side in new[] { Hand.Left, Hand.Right })
        {
            DrawLeg(body.LegOf(side));
            DrawArm(body.ArmOf(side));
        }

        DrawTrunk();
        DrawHead();
        DrawAid();
        return [.. Ground(), .. parts.Select(part => part.Shape)];
    }

    private IEnumerable<FigureShape> Ground() =>
        new[] { body.LeftLeg, body.RightLeg }.Select(leg =>
        {
            var sole = (leg.Heel.Towards(leg.Toes, 0.5)) with { Up = 0 };
            var (x, y, _) = projection.Of(sole);
            var flat = Math.Max(0.3, Math.Sin(view.Above * Math.PI / 180));
            var dark = leg.InAir ? 0.08 : 0.12 + (leg.Load / 100 * 0.33);
            return new FigureShape(
                FigurePath.Ellipse((x, y), Cm(0.19), Cm(0.19) * flat),
                Blend(colours.Edge, colours.Ground, dark),
                "none",
                0
            );
        });

    private void DrawLeg(Leg leg)
    {
        Limb(leg.Hip, 0.088, leg.Knee, 0.062);
        Limb(leg.Knee, 0.06, leg.Ankle, 0.04);
        Limb(
            leg.Heel + (Vector.Upwards * physique.Of(0.035)),
            0.038,
            leg.Toes + (Vector.Upwards * physique.Of(0.02)),
            0.026
        );
    }

    private void DrawArm(Arm arm)
    {
        Limb(arm.Shoulder, 0.058, arm.Elbow, 0.044);
        Limb(arm.Elbow, 0.043, arm.Wrist, 0.03);
        var faces = arm.PalmFaces.Dot(eye);
        var inside = arm.Shape is HandShape.Palm or HandShape.Loose && faces > 0.3;
        var width = arm.Shape switch
        {
            HandShape.Fist => 0.05,
            HandShape.Hook => 0.026,
            _ => 0.02 + (0.022 * Math.Abs(faces)),
        };
        var (from, to) =
            arm.Shape == HandShape.Fist ? (arm.Palm, arm.Wrist.Towards(arm.Tip, 0.75)) : (arm.Wrist, arm.Tip);
        Add(
            Near(from, to) + 0.03,
            FigurePath.Capsule(Flat(from), Cm(width), Flat(to), Cm(arm.Shape == HandShape.Fist ? 0.046 : width * 0.7)),
            inside ? colours.Palm : Tone(Near(from, to))
        );
    }

    private void DrawTrunk()
    {
        var trunk = body.Trunk;
        var (up, half) = (trunk.ChestUp, physique.HalfShoulders);
        var chest = trunk.Pelvis + (up * physique.Of(0.33));
        var shoulders = trunk.Neck - (up * physique.Of(0.035));
        Add(
            middle,
            FigurePath.Around(
                (Flat(shoulders - (trunk.ChestRight * (half * 0.86))), Cm(0.055)),
                (Flat(shoulders + (trunk.ChestRight * (half * 0.86))), Cm(0.055)),
                (Flat(chest + (trunk.ChestAhead * physique.Of(0.03))), Cm(0.1)),
                (Flat(trunk.Pelvis - (trunk.PelvisRight * physique.Of(0.05)) + (up * physique.Of(0.02))), Cm(0.095)),
                (Flat(trunk.Pelvis + (trunk.PelvisRight * physique.Of(0.05)) + (up * physique.Of(0.02))), Cm(0.095))
            ),
            Tone(middle)
        );
        Limb(trunk.Neck - (up * physique.Of(0.02)), 0.048, trunk.Neck + (up * physique.Of(0.08)), 0.045);
        DrawSash(trunk, up);
    }

    private void DrawSash(Trunk trunk, Vector up)
    {
        var waist = trunk.Pelvis + (up * physique.Of(0.085));
        var (aside, ahead) = (trunk.PelvisRight * physique.Of(0.13), trunk.PelvisAhead * physique.Of(0.105));
        var ring = new List<(double X, double Y)>(AroundTheWaist.Length);
        foreach (var (right, forward) in AroundTheWaist)
        {
            var outward = (trunk.PelvisRight * right) + (trunk.PelvisAhead * forward);
            if (outward.Dot(eye) > -0.12 || view.Above > 45)
            {
                ring.Add(Flat(waist + (aside * right) + (ahead * forward)));
            }
        }

        if (ring.Count < 2)
        {
            return;
        }

        // A band with two edges: the ring a little lower and a little higher, there and back.
        ring.Sort();
        var (band, count) = (Cm(0.022), ring.Count);
        var edges = new (double X, double Y)[2 * count];
        for (var at = 0; at < count; at++)
        {
            var (x, y) = ring[at];
            edges[at] = (x, y - band);
            edges[^(at + 1)] = (x, y + band);
        }

        Add(middle + 0.001, FigurePath.Polygon(edges), sash);
        var knot = waist + (trunk.PelvisAhead * physique.Of(0.11));
        if (trunk.PelvisAhead.Dot(eye) > -0.1)
        {
            foreach (var side in new[] { -1, 1 })
            {
                var end = knot - (up * physique.Of(0.15)) + (trunk.PelvisRight * (side * physique.Of(0.03)));
                Add(middle + 0.02, FigurePath.Capsule(Flat(knot), Cm(0.011), Flat(end), Cm(0.016)), sash);
            }

            Add(middle + 0.021, FigurePath.Circle(Flat(knot), Cm(0.024)), sash);
        }
    }

    private void DrawHead()
    {
        var near = projection.Of(body.Head).Near;
        Add(near, FigurePath.Circle(Flat(body.Head), physique.HeadRadius * 100), Tone(near));
        if (body.Face.Dot(eye) > 0.05)
        {
            Add(
                near + 0.05,
                FigurePath.Circle(Flat(body.Head + (body.Face * (physique.HeadRadius * 0.72))), Cm(0.022)),
                colours.Face,
                0
            );
        }
    }

    private void DrawAid()
    {
        if (body.Aid is not { } aid)
        {
            return;
        }

        var (along, across) = (Vector.Facing(aid.Facing), Vector.Facing(aid.Facing + 90));
        var floor = aid.At with { Up = 0 };
        switch (aid.Kind)
        {
            case Holding.Rail:
                Wood(aid.At - (along * 0.9), aid.At + (along * 0.9), 0.022);
                foreach (var post in Posts)
                {
                    Wood(floor + (along * post), (floor + (along * post)) with { Up = aid.At.Up }, 0.014);
                }

                break;
            case Holding.Chair:
                var seat = aid.At - (Vector.Upwards * physique.Of(0.09));
                foreach (var (ahead, aside) in ChairLegs)
                {
                    var corner = seat + (along * ahead) + (across * aside);
                    Wood(corner with { Up = 0 }, ahead < 0 ? corner with { Up = seat.Up + 0.45 } : corner, 0.015);
                }

                Wood(seat + (along * 0.2) - (across * 0.21), seat + (along * 0.2) + (across * 0.21), 0.015);
                Wood(seat - (along * 0.21) - (across * 0.21), seat - (along * 0.21) + (across * 0.21), 0.015);
                Wood(seat + (along * 0.2) - (across * 0.21), seat - (along * 0.21) - (across * 0.21), 0.015);
                Wood(seat + (along * 0.2) + (across * 0.21), seat - (along * 0.21) + (across * 0.21), 0.015);
                var back = (seat - (along * 0.21)) with { Up = seat.Up + 0.43 };
                Wood(back - (across * 0.21), back + (across * 0.21), 0.018);
                break;
            default:
                foreach (var aside in Grips)
                {
                    var grip = aid.At + (across * aside);
                    Wood(grip - (along * 0.25), grip + (along * 0.15), 0.016);
                    Wood(grip, grip with { Up = 0 }, 0.013);
                }

                break;
        }
    }

    private void Wood(Vector from, Vector to, double radius) =>
        Add(
            (projection.Of(from).Near + projection.Of(to).Near) / 2,
            FigurePath.Capsule(Flat(from), Cm(radius), Flat(to), Cm(radius)),
            colours.Wood
        );

    private void Limb(Vector from, double first, Vector to, double second)
    {
        var near = Near(from, to);
        Add(near, FigurePath.Capsule(Flat(from), Cm(first), Flat(to), Cm(second)), Tone(near));
    }

    /// <summary>Behind everything nearer than itself, and before what is as near and was drawn first.</summary>
    private void Add(double near, string path, string fill, double edge = 0.9)
    {
        var at = parts.Count;
        while (at > 0 && parts[at - 1].Near > near)
        {
            at--;
        }

        parts.Insert(at, (near, new(path, fill, edge > 0 ? colours.Edge : "none", edge)));
    }

    private double Near(Vector from, Vector to) => projection.Of(from.Towards(to, 0.5)).Near;

    private (double X, double Y) Flat(Vector at)
    {
        var (x, y, _) = projection.Of(at);
        return (x, y);
    }

    private double Cm(double metres) => physique.Of(metres) * 100;

    /// <summary>Nearer is darker.</summary>
    private string Tone(double near) =>
        Blend(colours.Far, colours.Near, Math.Clamp(0.52 + ((near - middle) / Depth), 0.08, 0.98));

    private static string Blend(string from, string to, double part) =>
        string.Concat("#", Mixed(from, to, part, 1), Mixed(from, to, part, 3), Mixed(from, to, part, 5));

    /// <summary>One of the three channels of a colour between two.</summary>
    private static string Mixed(string from, string to, double part, int at) =>
        TwoDigits[(int)Math.Round(FootPose.Mix(Channel(from, at), Channel(to, at), part))];

    private static int Channel(string colour, int at) => (Digit(colour[at]) * 16) + Digit(colour[at + 1]);

    private static int Digit(char digit) => digit <= '9' ? digit - '0' : (digit | ' ') - 'a' + 10;

    private static readonly string[] TwoDigits =
    [
        .. Enumerable
            .Range(0, 256)
            .Select(number => number.ToString("X2", System.Globalization.CultureInfo.InvariantCulture)),
    ];
}
