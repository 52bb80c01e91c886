namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// The best plan for one cohort, given what the others leave of the teachers' minutes: the one behind the bound where
/// that is reached, otherwise the best of what the search finds, improved unit by unit. What is planned is never worse
/// than an earlier plan that can be kept, and never costs less than the bound.
/// </summary>
internal sealed class CohortPlanner(CohortLessonRules rules)
{
    private const int ShiftsTried = 400;

    private readonly IntroductionBound bound = new(rules);

    /// <param name="known">A plan made earlier: its lessons are one of the answers considered.</param>
    public static CohortPlan Plan(CohortLessonRules rules, CohortPlan? known, CancellationToken cancel) =>
        new CohortPlanner(rules).Plan(known, cancel);

    /// <returns>An earlier plan with its reviews placed anew; null where the lessons do not hold it any more.</returns>
    public static CohortPlan? Again(CohortLessonRules rules, CohortPlan plan) =>
        Introductions.Of(rules, plan) is { } introductions ? new CohortPlanner(rules).Write(introductions) : null;

    /// <summary>An earlier plan with its reviews where they are: only its reasons and its cost are as they are
    /// now.</summary>
    public static CohortPlan Unchanged(CohortLessonRules rules, CohortPlan plan)
    {
        var planner = new CohortPlanner(rules);
        var again = planner.Write(Introductions.Of(rules, plan)!);
        return planner.Priced(
            plan with
            {
                Placements =
                [
                    .. again.Placements.Zip(plan.Placements, (now, was) => now with { Reviews = was.Reviews }),
                ],
                LeftOver = again.LeftOver,
                Refused = again.Refused,
            }
        );
    }

    /// <summary>Introductions with reviews that have been placed, as a plan.</summary>
    public static CohortPlan Placed(CohortLessonRules rules, CohortReviews reviews, int[] introductions) =>
        new CohortPlanner(rules).Priced(new PlanWriter(rules).Write(reviews, introductions));

    /// <summary>The plans that differ from one in a single unit, put into the lesson before or after, or left
    /// over.</summary>
    public static IEnumerable<CohortPlan> Neighbours(CohortLessonRules rules, CohortPlan plan)
    {
        var planner = new CohortPlanner(rules);
        return Introductions.Of(rules, plan) is { } now ? Introductions.Shifted(rules, now).Select(planner.Write) : [];
    }

    private CohortPlan Plan(CohortPlan? known, CancellationToken cancel)
    {
        var best = Costed(bound.Cheapest());
        if (known is not null && Introductions.Of(rules, known) is { } earlier)
        {
            best = Cheaper(best, Costed(earlier));
        }

        if (best.Cost == bound.Cost || rules.Mode.IsNewOnly)
        {
            return Write(best.Introductions);
        }

        foreach (var found in new IntroductionSearch(rules, bound).Find(best.Cost, cancel))
        {
            best = Cheaper(best, Costed(found));
        }

        return Write(Shift(best, cancel));
    }

    /// <summary>Moves single units to the lesson before or after while that makes the plan cheaper.</summary>
    private int[] Shift(Candidate best, CancellationToken cancel)
    {
        var tried = 0;
        while (CheaperShift() is { } shifted)
        {
            best = shifted;
        }

        return best.Introductions;

        Candidate? CheaperShift()
        {
            foreach (var shifted in Introductions.Shifted(rules, best.Introductions))
            {
                cancel.ThrowIfCancellationRequested();
                if (++tried > ShiftsTried)
                {
                    return null;
                }

                if (Costed(shifted) is var found && found.Cost < best.Cost)
                {
                    return found;
                }
            }

            return null;
        }
    }

    private Candidate Costed(int[] introductions) =>
        new(introductions, Introductions.CostOf(rules, ReviewPlacement.Of(rules, introductions), introductions));

    private static Candidate Cheaper(Candidate best, Candidate found) => found.Cost < best.Cost ? found : best;

    private CohortPlan Write(int[] introductions) =>
        Priced(new PlanWriter(rules).Write(ReviewPlacement.Of(rules, introductions), introductions));

    private CohortPlan Priced(CohortPlan plan)
    {
        var cost = PlanCost.Of(rules.Problem, rules.Cohort, rules.Mode.IsNewOnly ? plan with { Dropped = [] } : plan);
        return plan with { Cost = cost, Exact = cost == bound.Cost };
    }

    private readonly record struct Candidate(int[] Introductions, long Cost);
}
