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
