namespace Zeitplan.Core.Forms.Body;

/// <summary>A hand at any moment: the middle of the palm (of a hook, the wrist), where the palm faces and the fingers
/// point, all in the chest's own directions from the middle of the shoulders.</summary>
public readonly record struct HandPose(
    Vector At,
    Vector Palm,
    Vector Fingers,
    HandShape Shape,
    ElbowPose Elbow,
    bool Holds
)
{
    /// <summary>A part of the way to another place, along straight lines between what lies on the way.</summary>
    public HandPose Towards(HandPose to, double part, IReadOnlyList<Vector> by)
    {
        var palm = Palm.Towards(to.Palm, part).Unit(to.Palm);
        return to with
        {
            At = by.Count == 0 ? Straight(At, to.At, part) : Along([At, .. by, to.At], part),
            Palm = palm,
            Fingers = Fingers.Towards(to.Fingers, part).Without(palm).Unit(to.Fingers),
            Shape = part < 0.5 ? Shape : to.Shape,
            Elbow = new(Elbow.To, to.Elbow.To, part),
        };
    }

    /// <summary>The curve below between two points alone.</summary>
    private static Vector Straight(Vector from, Vector to, double part) =>
        from.Towards(to, part * (0.5 + (part * (1.5 - part))));

    /// <summary>A smooth curve through all of these, each stretch taking time by its length (Catmull-Rom).</summary>
    private static Vector Along(Vector[] points, double part)
    {
        var lengths = new double[points.Length - 1];
        var all = 0.0;
        for (var stretch = 0; stretch < lengths.Length; stretch++)
        {
            all += lengths[stretch] = Math.Max(1e-6, (points[stretch + 1] - points[stretch]).Length);
        }

        var way = part * all;
        var at = 0;
        while (at < lengths.Length - 1 && way > lengths[at])
        {
            way -= lengths[at++];
        }

        var t = Math.Clamp(way / lengths[at], 0, 1);
        var (a, b) = (points[at], points[at + 1]);
        var before = at > 0 ? points[at - 1] : a;
        var after = at + 2 < points.Length ? points[at + 2] : b;
        var (t2, t3) = (t * t, t * t * t);
        return (
                (a * 2)
                + ((b - before) * t)
                + (((before * 2) - (a * 5) + (b * 4) - after) * t2)
                + (((a * 3) - before - (b * 3) + after) * t3)
            ) * 0.5;
    }
}

/// <summary>An elbow on its way from one manner of hanging to another.</summary>
public readonly record struct ElbowPose(Elbow From, Elbow To, double Part = 1)
{
    public static implicit operator ElbowPose(Elbow elbow) => new(elbow, elbow);
}
