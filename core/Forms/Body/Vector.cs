using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Forms.Body;

/// <summary>A place or a direction in the hall, in metres: to the right of the form's start, ahead of it along the form's
/// zero, and up from the floor.</summary>
public readonly record struct Vector(double Right, double Ahead, double Up)
{
    public static Vector Upwards { get; } = new(0, 0, 1);

    public double Length => Math.Sqrt(Dot(this));

    public static Vector operator +(Vector a, Vector b) => new(a.Right + b.Right, a.Ahead + b.Ahead, a.Up + b.Up);

    public static Vector operator -(Vector a, Vector b) => new(a.Right - b.Right, a.Ahead - b.Ahead, a.Up - b.Up);

    public static Vector operator -(Vector a) => new(-a.Right, -a.Ahead, -a.Up);

    public static Vector operator *(Vector a, double factor) => new(a.Right * factor, a.Ahead * factor, a.Up * factor);

    public double Dot(Vector other) => (Right * other.Right) + (Ahead * other.Ahead) + (Up * other.Up);

    /// <summary>Square to both, in the sense that right × ahead is up.</summary>
    public Vector Cross(Vector other) =>
        new(
            (Ahead * other.Up) - (Up * other.Ahead),
            (Up * other.Right) - (Right * other.Up),
            (Right * other.Ahead) - (Ahead * other.Right)
        );

    /// <summary>The same direction, one metre long; <paramref name="otherwise"/> where there is none.</summary>
    public Vector Unit(Vector otherwise = default) => Length is > 1e-9 and var length ? this * (1 / length) : otherwise;

    /// <summary>The part of this that is square to a direction of unit length.</summary>
    public Vector Without(Vector unit) => this - (unit * Dot(unit));

    public Vector Towards(Vector other, double part) => this + ((other - this) * part);

    public Vector Mirror() => this with { Right = -Right };

    /// <summary>A direction along the floor, degrees clockwise from the form's zero.</summary>
    public static Vector Facing(double degrees)
    {
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        return new(sin, cos, 0);
    }

    /// <summary>A point of the floor, in foot-lengths, at a height in metres.</summary>
    public static Vector OnFloor(Point point, double footMetres, double up = 0) =>
        new(point.Right * footMetres, point.Ahead * footMetres, up);

    /// <summary>Turned about an axis of unit length, by the right hand.</summary>
    public Vector Turned(Vector axis, double degrees)
    {
        if (degrees == 0)
        {
            return this;
        }

        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        return (this * cos) + (axis.Cross(this) * sin) + (axis * (axis.Dot(this) * (1 - cos)));
    }
}
