namespace Zeitplan.Core.Terms.Planning;

/// <summary>What a cohort is planned for: all of its term, or first only where everything new goes, since one unit left
/// over outweighs every review.</summary>
internal sealed record PlanningMode
{
    /// <summary>What is new, and its reviews.</summary>
    public static readonly PlanningMode WithReviews = new();

    /// <summary>What is new, as if nothing were ever reviewed, at no price but its own penalties.</summary>
    public static readonly PlanningMode NewOnly = new() { IsNewOnly = true };

    private IReadOnlyList<double> prices = [];

    private PlanningMode() { }

    public bool IsNewOnly { get; private init; }

    /// <summary>What is new, steered away from lessons in which others need the teachers more.</summary>
    /// <param name="prices">For each lesson, points for each of the teachers' seconds.</param>
    public static PlanningMode NewOnlyAt(IReadOnlyList<double> prices) => new() { IsNewOnly = true, prices = prices };

    /// <returns>Points for each of the teachers' seconds of a lesson.</returns>
    public double PriceIn(int lesson) => prices.Count == 0 ? 0 : prices[lesson];
}
