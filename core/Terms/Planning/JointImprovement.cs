namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// All cohorts at once. Planned one after another, whoever comes first takes the minutes for all its reviews on time;
/// here each gives way where that costs it less than it saves another: one unit goes anywhere, or two go to the lesson
/// before or after, and the reviews of all are placed anew. No step makes the whole dearer.
/// </summary>
internal sealed class JointImprovement(
    ClassLedger ledger,
    CohortTurns turns,
    WorkBudget budget,
    CancellationToken cancel
)
{
    /// <summary>Placing the reviews of all cohorts for one try takes as long as this part of planning them.</summary>
    private const int TriesForOnePlan = 4;

    /// <summary>From the best plans there are, and from every order in which the cohorts can be planned.</summary>
    public CohortPlan?[] Improve(CohortPlan?[] plans)
    {
        var best = BetterFrom(plans, plans);
        for (var turn = 0; turn < turns.Order.Count && budget.IsLeft; turn++)
        {
            best = BetterFrom(best, turns.Begin(turns.OrderFrom(turn), PlanningMode.WithReviews));
        }

        return best;
    }

    private CohortPlan?[] BetterFrom(CohortPlan?[] best, CohortPlan?[] start)
    {
        var nobody = new CohortPlan?[start.Length];
        var rules = start.Select((_, cohort) => ledger.RulesBeside(nobody, cohort, PlanningMode.WithReviews)).ToList();
        var introductions = rules.Zip(start, (its, plan) => Introductions.Of(its, plan!)).OfType<int[]>().ToArray();
        if (introductions.Length < start.Length || CostOf(rules, introductions) is not { } cost)
        {
            return best;
        }

        while (BetterStep(rules, introductions, cost) is { } step)
        {
            (introductions, cost) = (step.Introductions, step.Cost);
        }

        var placed = ReviewPlacement.Of(rules, introductions);
        CohortPlan?[] found =
        [
            .. rules.Select((its, cohort) => CohortPlanner.Placed(its, placed[cohort], introductions[cohort])),
        ];
        return ledger.Better(best, turns.Improve(turns.Order, found, PlanningMode.WithReviews));
    }

    /// <summary>The best single step; where there is none, the first double step that helps.</summary>
    private (int[][] Introductions, long Cost)? BetterStep(List<CohortLessonRules> rules, int[][] now, long cost)
    {
        (int[][] Introductions, long Cost)? best = null;
        foreach (var tried in SingleSteps(rules, now))
        {
            if (!MayTry())
            {
                return best;
            }

            if (CostOf(rules, tried) is { } found && found < (best?.Cost ?? cost))
            {
                best = (tried, found);
            }
        }

        if (best is not null)
        {
            return best;
        }

        foreach (var tried in DoubleSteps(rules, now))
        {
            if (!MayTry())
            {
                return null;
            }

            if (CostOf(rules, tried) is { } found && found < cost)
            {
                return (tried, found);
            }
        }

        return null;
    }

    private bool MayTry()
    {
        cancel.ThrowIfCancellationRequested();
        budget.Spend(
            ledger.Problem.Cohorts.Sum(cohort => ledger.Problem.Lessons.Count * cohort.Units.Count) / TriesForOnePlan
        );
        return budget.IsLeft;
    }

    /// <returns>Null where the teachers have not the seconds for it.</returns>
    private static long? CostOf(List<CohortLessonRules> rules, int[][] introductions) =>
        ReviewPlacement.Of(rules, introductions) is { IsPossible: true } placed
            ? rules.Select((its, cohort) => Introductions.CostOf(its, placed[cohort], introductions[cohort])).Sum()
            : null;

    /// <summary>One unit of one cohort goes anywhere.</summary>
    private static IEnumerable<int[][]> SingleSteps(List<CohortLessonRules> rules, int[][] now) =>
        from cohort in Enumerable.Range(0, rules.Count)
        from shifted in Introductions.Shifted(rules[cohort], now[cohort], now[cohort].Length)
        select With(now, cohort, shifted);

    /// <summary>Two units, of one cohort or of two, go to the lesson before or after.</summary>
    private static IEnumerable<int[][]> DoubleSteps(List<CohortLessonRules> rules, int[][] now) =>
        from cohort in Enumerable.Range(0, rules.Count)
        from shifted in Introductions.Shifted(rules[cohort], now[cohort])
        let single = With(now, cohort, shifted)
        from other in Enumerable.Range(cohort, rules.Count - cohort)
        from again in Introductions.Shifted(rules[other], single[other])
        select With(single, other, again);

    private static int[][] With(int[][] introductions, int cohort, int[] its)
    {
        int[][] changed = [.. introductions];
        changed[cohort] = its;
        return changed;
    }
}
