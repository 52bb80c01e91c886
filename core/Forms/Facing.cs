namespace Zeitplan.Core.Forms;

/// <summary>A direction on the floor: whole degrees clockwise from the form's zero, always in [0, 360).</summary>
public readonly record struct Facing
{
    private Facing(int degrees) => Degrees = degrees;

    public int Degrees { get; }

    /// <summary>Any number of degrees, wrapped onto the circle: 405 and -315 are both 45.</summary>
    public static Facing FromDegrees(int degrees) => new(((degrees % 360) + 360) % 360);

    public Facing Turn(int clockwise) => FromDegrees(Degrees + (clockwise % 360));

    /// <summary>The same direction seen in a mirror: 3 o'clock becomes 9.</summary>
    public Facing Mirror() => FromDegrees(-Degrees);

    /// <summary>The shortest turn from here to <paramref name="other"/>, in (-180, 180]; positive is
    /// clockwise.</summary>
    public int TurnTo(Facing other) =>
        FromDegrees(other.Degrees - Degrees).Degrees is var turn && turn > 180 ? turn - 360 : turn;

    /// <summary>
    /// The direction as a clock calls it, the shipped notation (domain.md 4.1): 0 is 12 o'clock, 45 is 1:30, 90 is 3.
    /// </summary>
    public string Clock()
    {
        var minutes = Degrees * 2;
        var hour = minutes / 60 is 0 ? 12 : minutes / 60;
        return minutes % 60 == 0 ? $"{hour} o'clock" : $"{hour}:{minutes % 60:00}";
    }
}
