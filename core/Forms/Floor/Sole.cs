using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>A point on the floor, in foot-lengths: to the right of the form's start and ahead of it along the form's
/// zero.</summary>
public readonly record struct Point(double Right, double Ahead)
{
    public static Point operator +(Point a, Point b) => new(a.Right + b.Right, a.Ahead + b.Ahead);

    public static Point operator -(Point a, Point b) => new(a.Right - b.Right, a.Ahead - b.Ahead);

    public static Point operator *(Point a, double factor) => new(a.Right * factor, a.Ahead * factor);

    public double Length => Math.Sqrt((Right * Right) + (Ahead * Ahead));

    /// <summary>The point this many foot-lengths ahead and to the right of the origin for somebody facing <paramref
    /// name="degrees"/>.</summary>
    public static Point Towards(double degrees, double ahead, double right = 0)
    {
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        return new((ahead * sin) + (right * cos), (ahead * cos) - (right * sin));
    }

    /// <summary>How far this lies ahead and to the right, for somebody at the origin facing <paramref
    /// name="degrees"/>.</summary>
    public (double Ahead, double Right) SeenFacing(double degrees)
    {
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        return ((Right * sin) + (Ahead * cos), (Right * cos) - (Ahead * sin));
    }

    public Point Between(Point other, double part) => this + ((other - this) * part);

    public Point Mirror() => new(-Right, Ahead);
}

/// <summary>
/// One foot on the floor. <paramref name="Heel"/> is the middle of the heel, on which it turns; <paramref name="Toes"/>
/// where it points, degrees clockwise;
/// <paramref name="Load"/> what it carries, per cent; <paramref name="Up"/> how far the heel is off the floor,
/// foot-lengths, while the foot is in the air.
/// </summary>
public readonly record struct Sole(Point Heel, int Toes, Contact Contact, int Load, double Up = 0)
{
    /// <summary>A sole is drawn and measured as a strip this wide on either side of the line from heel to toes, in
    /// foot-lengths.</summary>
    public const double HalfWidth = 0.17;

    public bool InAir => Contact >= Contact.Air;

    /// <summary>From the middle of the heel to the middle of the toes, and to the ball on which it may turn.</summary>
    public const double HeelToToes = 0.66;
    public const double HeelToBall = 0.55;

    public Point Tip => Heel + Point.Towards(Toes, HeelToToes);

    public Sole PivotOnHeel(int turn) => this with { Toes = Facing.FromDegrees(Toes + turn).Degrees };

    public Sole PivotOnBall(int turn)
    {
        var turned = PivotOnHeel(turn);
        return turned with { Heel = Heel + Point.Towards(Toes, HeelToBall) - Point.Towards(turned.Toes, HeelToBall) };
    }

    /// <summary>The gap between two soles, foot-lengths; negative when they overlap.</summary>
    public double Clearance(Sole other) => Distance(Heel, Tip, other.Heel, other.Tip) - (2 * HalfWidth);

    private static double Distance(Point a, Point b, Point c, Point d) =>
        Crosses(a, b, c, d)
            ? 0
            : Math.Min(
                Math.Min(ToSegment(a, c, d), ToSegment(b, c, d)),
                Math.Min(ToSegment(c, a, b), ToSegment(d, a, b))
            );

    private static double ToSegment(Point point, Point from, Point to)
    {
        var along = to - from;
        var part = Math.Clamp(
            (((point - from).Right * along.Right) + ((point - from).Ahead * along.Ahead))
                / ((along.Right * along.Right) + (along.Ahead * along.Ahead)),
            0,
            1
        );
        return (point - from.Between(to, part)).Length;
    }

    private static bool Crosses(Point a, Point b, Point c, Point d) =>
        Side(a, b, c) * Side(a, b, d) < 0 && Side(c, d, a) * Side(c, d, b) < 0;

    private static double Side(Point from, Point to, Point point) =>
        ((to - from).Right * (point - from).Ahead) - ((to - from).Ahead * (point - from).Right);
}
