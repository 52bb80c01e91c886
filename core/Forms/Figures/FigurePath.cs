using System.Globalization;

namespace Zeitplan.Core.Forms.Figures;

/// <summary>Paths of a figure's parts. A figure is drawn with every key and has hundreds of numbers: they are put together by
/// hand, because numbers' own formats take longer than all else of it.</summary>
internal static class FigurePath
{
    private const int Directions = 32;
    private static readonly (double Across, double Down)[] Outwards =
    [
        .. Enumerable
            .Range(0, Directions)
            .Select(at => at * 2 * Math.PI / Directions)
            .Select(angle => (Math.Cos(angle), Math.Sin(angle))),
    ];

    /// <summary>A limb: round at both ends, tapering from one to the other.</summary>
    public static string Capsule((double X, double Y) a, double ra, (double X, double Y) b, double rb)
    {
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var d = Math.Sqrt((dx * dx) + (dy * dy));
        if (d <= Math.Abs(ra - rb) + 0.05)
        {
            return ra >= rb ? Circle(a, ra) : Circle(b, rb);
        }

        // The two directions in which the edges touch both rounds: the axis, turned either way by the angle whose cosine this is.
        var (along, across, cos) = (dx / d, dy / d, (ra - rb) / d);
        var sin = Math.Sqrt(1 - (cos * cos));
        var (x, y) = ((along * cos) - (across * sin), (across * cos) + (along * sin));
        var (otherX, otherY) = ((along * cos) + (across * sin), (across * cos) - (along * sin));
        var (begin, roundA, roundB) = (Point(a.X + (ra * x), a.Y + (ra * y)), Short(ra), Short(rb));
        return string.Concat([
            "M",
            begin,
            "L",
            Point(b.X + (rb * x), b.Y + (rb * y)),
            "A",
            roundB,
            " ",
            roundB,
            cos > 0 ? " 0 0 0 " : " 0 1 0 ",
            Point(b.X + (rb * otherX), b.Y + (rb * otherY)),
            "L",
            Point(a.X + (ra * otherX), a.Y + (ra * otherY)),
            "A",
            roundA,
            " ",
            roundA,
            cos > 0 ? " 0 1 0 " : " 0 0 0 ",
            begin,
            "Z",
        ]);
    }

    public static string Circle((double X, double Y) at, double radius) => Ellipse(at, radius, radius);

    public static string Ellipse((double X, double Y) at, double across, double down)
    {
        var half = $"a{Short(across)} {Short(down)} 0 1 0 ";
        return $"M{Point(at.X - across, at.Y)}{half}{Short(2 * across)} 0{half}{Short(-2 * across)} 0Z";
    }

    public static string Polygon(ReadOnlySpan<(double X, double Y)> points)
    {
        var parts = new string[points.Length];
        for (var at = 0; at < parts.Length; at++)
        {
            parts[at] = Point(points[at].X, points[at].Y);
        }

        return $"M{string.Join('L', parts)}Z";
    }

    /// <summary>The outline around several circles: in each direction the furthest point of any of them.</summary>
    public static string Around(params ReadOnlySpan<((double X, double Y) At, double Radius)> circles)
    {
        Span<(double X, double Y)> outline = stackalloc (double, double)[Directions];
        for (var at = 0; at < Directions; at++)
        {
            var (across, down) = Outwards[at];
            var far = double.MinValue;
            foreach (var ((x, y), radius) in circles)
            {
                var reach = (x * across) + (y * down) + radius;
                if (reach > far)
                {
                    far = reach;
                    outline[at] = (x + (radius * across), y + (radius * down));
                }
            }
        }

        return Polygon(outline);
    }

    private static string Point(double x, double y) => string.Concat(Short(x), " ", Short(y));

    /// <summary>To a millimetre.</summary>
    private static string Short(double centimetres)
    {
        var millimetres = (int)Math.Round(centimetres * 10);
        var (whole, rest) = Math.DivRem(Math.Abs(millimetres), 10);
        var said = whole.ToString(CultureInfo.InvariantCulture);
        return (millimetres < 0, rest) switch
        {
            (false, 0) => said,
            (false, _) => string.Concat(said, Tenths[rest]),
            _ => string.Concat("-", said, rest == 0 ? "" : Tenths[rest]),
        };
    }

    private static readonly string[] Tenths = [.. Enumerable.Range(0, 10).Select(tenth => $".{tenth}")];
}
