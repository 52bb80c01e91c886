namespace Zeitplan.Core.Terms.Planning;

/// <summary>Two cohorts at a time: each may be best where it is, and both better elsewhere. The rest stays as it is, and
/// a set of plans only ever gives way to a cheaper one.</summary>
internal sealed class PairImprovement(ClassLedger ledger, CohortTurns turns, WorkBudget budget)
{
    /// <summary>What one gives up may be worth more to another: both are freed and planned anew, in either
    /// order.</summary>
    public CohortPlan?[] Free(IReadOnlyList<int> order, CohortPlan?[] plans, PlanningMode mode)
    {
        foreach (var (first, second) in InEitherOrder(order))
        {
            if (!budget.IsLeft || HaveNothingToGain(plans, first, second))
            {
                continue;
            }

            CohortPlan?[] tried = [.. plans];
            (tried[first], tried[second]) = (null, null);
            tried[first] = turns.PlanOne(tried, first, null, mode);
            tried[second] = turns.PlanOne(tried, second, null, mode);
            plans = ledger.Better(plans, tried);
        }

        return plans;
    }

    /// <summary>Of two that could be led together, or are in each other's way, one is moved by a unit and the other
    /// planned after it, for as long as that helps.</summary>
    public CohortPlan?[] Step(CohortPlan?[] plans)
    {
        while (budget.IsLeft && BetterByAStep(plans) is { } better)
        {
            plans = better;
        }

        return plans;
    }

    /// <returns>Null where no step of any two helps.</returns>
    private CohortPlan?[]? BetterByAStep(CohortPlan?[] plans)
    {
        var better = plans;
        foreach (var (moving, following) in EachWithEveryOther(turns.Order))
        {
            if (!ledger.Shared.HaveCommon(moving, following) && HaveNothingToGain(better, moving, following))
            {
                continue;
            }

            var rules = ledger.RulesBeside(better, moving, PlanningMode.WithReviews);
            foreach (var moved in CohortPlanner.Neighbours(rules, better[moving]!).ToList())
            {
                if (!budget.IsLeft)
                {
                    return better == plans ? null : better;
                }

                CohortPlan?[] tried = [.. better];
                (tried[moving], tried[following]) = (moved, null);
                tried[following] = turns.PlanOne(tried, following, better[following], PlanningMode.WithReviews);
                if (ledger.Total(tried) < ledger.Total(better))
                {
                    better = tried;
                    break;
                }
            }
        }

        return better == plans ? null : turns.Improve(turns.Order, better, PlanningMode.WithReviews);
    }

    /// <summary>Neither pays more than it would have to with the class to itself.</summary>
    private bool HaveNothingToGain(CohortPlan?[] plans, int first, int other) =>
        turns.IsAsGoodAsAlone(first, plans[first]!) && turns.IsAsGoodAsAlone(other, plans[other]!);

    private static IEnumerable<(int First, int Second)> InEitherOrder(IReadOnlyList<int> order) =>
        order.SelectMany(
            (first, at) => order.Skip(at + 1).SelectMany(other => new[] { (first, other), (other, first) })
        );

    private static IEnumerable<(int Moving, int Following)> EachWithEveryOther(IReadOnlyList<int> order) =>
        order.SelectMany(first => order.Where(other => other != first).Select(other => (first, other)));
}
