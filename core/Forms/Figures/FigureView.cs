using System.Globalization;
using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Figures;

/// <summary>From where a figure is seen: the viewer's direction from it, degrees clockwise from the form's zero, and how
/// far above it, degrees.</summary>
/// <param name="Mirrored">As in a mirror: what a teacher who faces the class does.</param>
public readonly record struct FigureView(double From, double Above, bool Mirrored = false)
{
    private const double ALittle = 10;

    /// <summary>One of the five named views of somebody who faces this way, or null.</summary>
    public static FigureView? Named(string name, double facing, bool mirrored = false) =>
        name switch
        {
            "front" => new(facing, ALittle, mirrored),
            "behind" => new(facing + 180, ALittle, mirrored),
            "left" => new(facing - 90, ALittle, mirrored),
            "right" => new(facing + 90, ALittle, mirrored),
            "above" => new(facing + 180, 90, mirrored),
            _ => null,
        };

    /// <summary>Where a place of the hall is on the picture, centimetres to the right and down.</summary>
    public (double Right, double Down) On(Vector place)
    {
        var (right, down, _) = Projection.Of(place);
        return (right, down);
    }

    internal Projection Projection
    {
        get
        {
            var (sin, cos) = Math.SinCos(Above * Math.PI / 180);
            return new(Vector.Facing(From - 90) * (Mirrored ? -1 : 1), Vector.Facing(From), sin, cos);
        }
    }
}

/// <summary>From the hall onto the picture.</summary>
/// <param name="Across">What is to the right on the picture.</param>
/// <param name="Viewer">Towards the viewer, along the floor.</param>
internal readonly record struct Projection(Vector Across, Vector Viewer, double Sin, double Cos)
{
    /// <summary>Towards the viewer's eye.</summary>
    public Vector Eye => (Viewer * Cos) + (Vector.Upwards * Sin);

    /// <summary>Centimetres to the right and down, and how near, in metres.</summary>
    public (double X, double Y, double Near) Of(Vector at)
    {
        var towards = at.Dot(Viewer);
        return (at.Dot(Across) * 100, ((towards * Sin) - (at.Up * Cos)) * 100, (towards * Cos) + (at.Up * Sin));
    }
}

/// <summary>A closed shape of a figure: an SVG path in centimetres, what it is filled with, and the edge around
/// it.</summary>
public sealed record FigureShape(string Path, string Fill, string Edge, double EdgeWidth);

/// <summary>Paths of a figure's parts.</summary>
internal static class FigurePath
{
    /// <summary>A limb: round at both ends, tapering from one to the other.</summary>
    public static string Capsule((double X, double Y) a, double ra, (double X, double Y) b, double rb)
    {
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var d = Math.Sqrt((dx * dx) + (dy * dy));
        if (d <= Math.Abs(ra - rb) + 0.05)
        {
            return ra >= rb ? Circle(a, ra) : Circle(b, rb);
        }

        var axis = Math.Atan2(dy, dx);
        var off = Math.Acos((ra - rb) / d);
        var large = off < Math.PI / 2;
        var (begin, roundB, roundA) = (On(a, ra, axis + off), Short(rb), Short(ra));
        return $"M{begin}L{On(b, rb, axis + off)}A{roundB} {roundB} 0 {(large ? "0" : "1")} 0 {On(b, rb, axis - off)}L{On(a, ra, axis - off)}A{roundA} {roundA} 0 {(large ? "1" : "0")} 0 {begin}Z";
    }

    public static string Circle((double X, double Y) at, double radius) => Ellipse(at, radius, radius);

    public static string Ellipse((double X, double Y) at, double across, double down)
    {
        var half = $"a{Short(across)} {Short(down)} 0 1 0 ";
        return $"M{Point((at.X - across, at.Y))}{half}{Short(2 * across)} 0{half}{Short(-2 * across)} 0Z";
    }

    public static string Polygon(IEnumerable<(double X, double Y)> points, bool closed = true) =>
        "M" + string.Join('L', points.Select(Point)) + (closed ? "Z" : "");

    /// <summary>The outline around several circles: in each direction the furthest point of any of them.</summary>
    public static string Around(params ((double X, double Y) At, double Radius)[] circles) =>
        Polygon(Enumerable.Range(0, Directions).Select(at => Furthest(circles, at * 2 * Math.PI / Directions)));

    private const int Directions = 32;

    private static (double X, double Y) Furthest(((double X, double Y) At, double Radius)[] circles, double angle)
    {
        var (across, down) = (Math.Cos(angle), Math.Sin(angle));
        var (at, radius) = circles.MaxBy(circle => (circle.At.X * across) + (circle.At.Y * down) + circle.Radius);
        return Turn(at, radius, angle);
    }

    private static (double X, double Y) Turn((double X, double Y) at, double radius, double angle) =>
        (at.X + (radius * Math.Cos(angle)), at.Y + (radius * Math.Sin(angle)));

    private static string On((double X, double Y) at, double radius, double angle) => Point(Turn(at, radius, angle));

    private static string Point((double X, double Y) at) => string.Concat(Short(at.X), " ", Short(at.Y));

    /// <summary>To a millimetre. Put together by hand: a figure has hundreds of numbers and is drawn with every key, and
    /// numbers' own formats take longer than all else of it.</summary>
    private static string Short(double centimetres)
    {
        var millimetres = (int)Math.Round(centimetres * 10);
        var (whole, rest) = Math.DivRem(Math.Abs(millimetres), 10);
        return string.Concat(
            millimetres < 0 ? "-" : "",
            whole.ToString(CultureInfo.InvariantCulture),
            rest == 0 ? "" : Tenths[rest]
        );
    }

    private static readonly string[] Tenths = [.. Enumerable.Range(0, 10).Select(tenth => $".{tenth}")];
}
