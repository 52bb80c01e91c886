namespace Zeitplan.Core.Terms;

/// <summary>Seconds a count takes, by what is said (domain.md 4.2).</summary>
public static class Pace
{
    public const int Smooth = 4;
    public const int CuesOnly = 6;
    public const int Explained = 12;
    public const int FaultsShown = 16;
}

/// <summary>One pass through the counts: who moves and what is said, how often, and so how fast.</summary>
/// <param name="Name">As on the sheet: show, together, watch.</param>
/// <param name="SecondsPerCount">See <see cref="Pace"/>.</param>
public sealed record Pass(string Name, int Repetitions, int SecondsPerCount);

/// <summary>How something is brought in (domain.md 4.2).</summary>
public sealed record TeachingPattern(string Name, IReadOnlyList<Pass> Passes)
{
    public static readonly TeachingPattern ShowTogetherWatch = new(
        "Show, then together, then watch",
        [new("show", 2, Pace.Explained), new("together", 3, Pace.CuesOnly), new("watch", 2, Pace.Smooth)]);

    public static readonly TeachingPattern WeightFirst = new(
        "Weight first, then turning, then arms",
        [new("weight", 1, Pace.Explained), new("turning", 1, Pace.CuesOnly), new("arms", 2, Pace.CuesOnly), new("together", 2, Pace.CuesOnly), new("watch", 2, Pace.Smooth)]);

    public static readonly TeachingPattern CountsFaultsFlow = new(
        "Slowly by counts, its usual faults, then flowing",
        [new("by counts", 2, Pace.Explained), new("faults", 1, Pace.FaultsShown), new("flowing", 4, Pace.Smooth)]);

    public static IReadOnlyList<TeachingPattern> Shipped { get; } = [ShowTogetherWatch, WeightFirst, CountsFaultsFlow];
}
