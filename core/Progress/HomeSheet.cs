using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>Why something is on a home sheet (domain.md 4.5).</summary>
public enum HomeKind
{
    /// <summary>What they met last.</summary>
    Newest,

    /// <summary>The most important correction.</summary>
    Correction,

    /// <summary>A run-through of what flows.</summary>
    Flow,
}

/// <summary>A posture as it is practised at home.</summary>
/// <param name="Mode">As it was settled for them, or the least adapted one that asks nothing this person must not be asked
/// for.</param>
public sealed record HomePosture(Guid PostureId, Side Side, Mode Mode)
{
    /// <summary>What they do otherwise, where that was settled: "toe down".</summary>
    public string Words { get; init; } = "";

    public PostureSide Of => new(PostureId, Side);
}

/// <summary>One thing to practise.</summary>
/// <param name="Postures">One; two with a link; with a run-through all of it in order, repeats included.</param>
/// <param name="Times">How often, slowly.</param>
/// <param name="Minutes">Whole minutes, rounded up.</param>
public sealed record HomeThing(HomeKind Kind, IReadOnlyList<HomePosture> Postures, int Times, int Minutes)
{
    /// <summary>With a correction: what was seen, and what mends it where that is known.</summary>
    public string Seen { get; init; } = "";
    public string Mend { get; init; } = "";

    /// <summary>With a correction: which one.</summary>
    public string Correction { get; init; } = "";

    public bool SaysTheSame(HomeThing other) =>
        this with { Postures = other.Postures } == other && Postures.SequenceEqual(other.Postures);
}

/// <summary>What one student practises at home until the next sheet.</summary>
/// <param name="Things">At most three.</param>
/// <param name="Focus">The one thing to look at, whatever is practised.</param>
/// <param name="Occasion">A <see cref="HouseholdOccasion"/> by its identifier.</param>
public sealed record HomeSheet(IReadOnlyList<HomeThing> Things, string Focus, string Occasion)
{
    public int Minutes => Things.Sum(thing => thing.Minutes);

    public bool SaysTheSame(HomeSheet other) =>
        (Focus, Occasion, Things.Count) == (other.Focus, other.Occasion, other.Things.Count)
        && Things.Zip(other.Things).All(pair => pair.First.SaysTheSame(pair.Second));
}

/// <summary>A sheet that was handed out.</summary>
public sealed record HomeSheetGiven(Guid Id, Guid StudentId, DateOnly Date, HomeSheet Sheet, Guid By, DateTimeOffset At)
    : IFact<HomeSheetGiven>
{
    /// <inheritdoc/>
    public bool SaysTheSame(HomeSheetGiven other) =>
        (StudentId, Date) == (other.StudentId, other.Date) && Sheet.SaysTheSame(other.Sheet);
}

/// <summary>What a student says they practised on a day: a record, and never a stage (domain.md 4.5). The latest about a
/// day counts.</summary>
/// <param name="Minutes">0 takes it back.</param>
public sealed record PracticeLog(Guid Id, Guid StudentId, DateOnly Date, int Minutes, Guid By, DateTimeOffset At)
    : IFact<PracticeLog>
{
    public const int MostMinutes = 600;

    /// <inheritdoc/>
    public bool SaysTheSame(PracticeLog other) => this with { By = other.By, At = other.At } == other;

    /// <returns>Minutes by day; only days on which something was done.</returns>
    public static IReadOnlyDictionary<DateOnly, int> Days(IEnumerable<PracticeLog> logs) =>
        logs.GroupBy(log => log.Date)
            .Select(same => same.MaxBy(log => (log.At, log.Id))!)
            .Where(log => log.Minutes > 0)
            .ToDictionary(log => log.Date, log => log.Minutes);

    public IEnumerable<Problem> Check(string path, DateOnly today) =>
        [
            .. Minutes is < 0 or > MostMinutes
                ?
                [
                    new Problem(
                        $"{path}.minutes",
                        $"Somebody practises 1 to {MostMinutes} minutes a day; 0 takes it back."
                    ),
                ]
                : Array.Empty<Problem>(),
            .. Date > today ? [new Problem($"{path}.date", "This day has not come yet.")] : Array.Empty<Problem>(),
        ];
}
