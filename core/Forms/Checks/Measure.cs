using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>How two parts of the body are compared.</summary>
public enum Comparison
{
    /// <summary>At the same height, within so many centimetres.</summary>
    Level,
    Above,
    Below,

    /// <summary>One right above or below the other, within so many centimetres of the floor.</summary>
    Over,

    /// <summary>Further in the direction the other part, or else the body, points.</summary>
    Before,
    Behind,

    /// <summary>To the side of it, across the direction the body points.</summary>
    Beside,

    /// <summary>As far away as this, whichever way.</summary>
    From,

    /// <summary>Pointing the same way along the floor, within so many degrees.</summary>
    Along,
}

/// <summary>What a checkpoint measures on the end shape (domain.md 2, "checkpoint"): one part of the body against another, in
/// centimetres or degrees.</summary>
/// <param name="Least">Null where anything down to nothing, or to the other side, will do.</param>
public sealed record Measure(BodyPoint Here, Comparison Comparison, BodyPoint There, double? Least, double? Most)
{
    public Measure Mirror() => this with { Here = Here.Mirror(), There = There.Mirror() };

    /// <param name="start">Where the body pointed before the first count: front.</param>
    public Measured On(Skeleton body, Physique physique, double start)
    {
        var value = Value(body, physique, Vector.Facing(start));
        var fulfilled = value >= (Least ?? double.MinValue) - Rounding && value <= (Most ?? double.MaxValue) + Rounding;
        return new(this, value, fulfilled);
    }

    private double Value(Skeleton body, Physique physique, Vector start)
    {
        var here = Here.On(body, physique, default);
        var there = There.On(body, physique, here);
        here = Here.On(body, physique, there);
        var off = (here - there) * 100;
        var ahead = (There.Direction(body, start) ?? body.Trunk.PelvisAhead) is var way
            ? (way with { Up = 0 }).Unit(body.Trunk.PelvisAhead)
            : default;
        return Comparison switch
        {
            Comparison.Level => Math.Abs(off.Up),
            Comparison.Above => off.Up,
            Comparison.Below => -off.Up,
            Comparison.Over => (off with { Up = 0 }).Length,
            Comparison.Before => off.Dot(ahead),
            Comparison.Behind => -off.Dot(ahead),
            Comparison.Beside => Math.Abs(off.Dot(body.Trunk.PelvisRight)),
            Comparison.From => off.Length,
            _ => Between(Here.Direction(body, start), There.Direction(body, start)),
        };
    }

    private static double Between(Vector? one, Vector? other) =>
        one is { } a && other is { } b
            ? Math.Acos(Math.Clamp((a with { Up = 0 }).Unit().Dot((b with { Up = 0 }).Unit()), -1, 1)) * 180 / Math.PI
            : 180;

    private const double Rounding = 0.5;
}

/// <summary>What was measured on a body.</summary>
/// <param name="Value">Centimetres, or degrees where directions are compared.</param>
public sealed record Measured(Measure Measure, double Value, bool Fulfilled)
{
    /// <summary>"right wrist level with right shoulder: 3 cm off, within tolerance".</summary>
    public string Say()
    {
        var unit = Measure.Comparison == Comparison.Along ? "°" : " cm";
        var value = $"{(int)Math.Round(Value)}{unit}";
        return $"{MeasureNotation.Say(Measure)}: {(Fulfilled ? $"{value}, as it should be" : $"it is {value}")}";
    }
}
