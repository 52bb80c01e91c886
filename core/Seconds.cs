using System.Globalization;

namespace Zeitplan.Core;

/// <summary>A length of teaching time, in whole seconds. People read it in minutes with one decimal, halves away from
/// zero, the same on every screen and in every sentence.</summary>
public readonly record struct Seconds(int Count) : IComparable<Seconds>
{
    public decimal Minutes => decimal.Round(Count / 60m, 1, MidpointRounding.AwayFromZero);

    /// <summary>Reckoning goes on in plain numbers; only a number that is meant as seconds becomes some.</summary>
    public static implicit operator int(Seconds seconds) => seconds.Count;

    /// <summary>To the nearest whole second.</summary>
    public static Seconds Rounded(decimal seconds) => new((int)decimal.Round(seconds, MidpointRounding.AwayFromZero));

    public int CompareTo(Seconds other) => Count.CompareTo(other.Count);

    public static bool operator <(Seconds left, Seconds right) => left.Count < right.Count;

    public static bool operator >(Seconds left, Seconds right) => left.Count > right.Count;

    public static bool operator <=(Seconds left, Seconds right) => left.Count <= right.Count;

    public static bool operator >=(Seconds left, Seconds right) => left.Count >= right.Count;

    /// <summary>As in a sentence: "8.5 min", "8 min".</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Minutes:0.#} min");
}

public static class SecondsTotal
{
    public static Seconds Total<T>(this IEnumerable<T> all, Func<T, Seconds> of) =>
        new(all.Sum(item => of(item).Count));
}
