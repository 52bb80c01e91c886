namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// Brings the cohorts of a class together, which meet in the teachers' minutes and in what can be led together: first
/// each in turn; where somebody pays for the others, what is new is spread by prices, then two at a time are freed, then
/// all are improved together; and last, of two that could be led together one is moved with the other after it. After
/// every phase the plans at hand are the cheapest seen so far.
/// </summary>
internal static class Coordination
{
    public static TermPlan Plan(
        TermProblem problem,
        TermPlan? known,
        IProgress<double>? progress,
        CancellationToken cancel
    )
    {
        var ledger = new ClassLedger(problem);
        var budget = WorkBudget.For(problem, known);
        var turns = new CohortTurns(ledger, known, budget, cancel);
        var pairs = new PairImprovement(ledger, turns, budget);
        var mode = PlanningMode.WithReviews;

        var best = turns.Improve(turns.Order, turns.Begin(turns.Order, mode), mode);
        if (known is not null && new EarlierPlan(ledger).AsItIsNow(known) is { } earlier)
        {
            best = ledger.Better(best, turns.Improve(turns.Order, earlier, mode));
        }

        progress?.Report(0.3);
        if (turns.Order.Any(cohort => !turns.IsAsGoodAsAlone(cohort, best[cohort]!)))
        {
            best = new LessonPrices(ledger, turns, pairs, budget).Improve(best);
            progress?.Report(0.6);
            best = pairs.Free(turns.Order, best, mode);
            best = new JointImprovement(ledger, turns, budget, cancel).Improve(best);
        }

        progress?.Report(0.8);
        best = pairs.Step(best);
        progress?.Report(1);
        return SpareMinutes.GivenOut(ledger, best);
    }

    /// <summary>The rules of one cohort's lessons, beside what a finished plan gives to the others.</summary>
    public static CohortLessonRules RulesBeside(TermProblem problem, TermPlan plan, int cohort)
    {
        var ledger = new ClassLedger(problem);
        return ledger.RulesBeside(new EarlierPlan(ledger).Promised(plan), cohort, PlanningMode.WithReviews);
    }
}
