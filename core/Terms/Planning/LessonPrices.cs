namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// What is new, spread over crowded lessons. The teachers' seconds of a lesson are given a price, raised until the
/// cohorts spread of themselves (a Lagrangian relaxation, by subgradients); the reviews come into what each such plan
/// leaves. Every set of prices proves a bound no introductions can undercut, which says when nothing is left to gain.
/// </summary>
internal sealed class LessonPrices(ClassLedger ledger, CohortTurns turns, PairImprovement pairs, WorkBudget budget)
{
    private const int Steps = 24;

    /// <summary>For every lesson, the seconds of whoever is attended all lesson.</summary>
    private readonly int[] attended =
    [
        .. ledger.Problem.Lessons.Select(
            (_, lesson) =>
                ledger
                    .Problem.Cohorts.Where(cohort => cohort.IsAttended(lesson))
                    .Sum(cohort => ledger.Problem.TimeOf(cohort, lesson))
        ),
    ];

    private TermProblem Problem => ledger.Problem;

    /// <returns>The best of the plans given and of those the prices lead to.</returns>
    public CohortPlan?[] Improve(CohortPlan?[] best)
    {
        var prices = new double[Problem.Lessons.Count];
        CohortPlan?[]? firm = null;
        for (var step = 1; step <= Steps && budget.IsHalfLeft; step++)
        {
            var tried = NewOnly(turns.OrderFrom(step), prices);
            if (firm is null || ledger.Total(tried) < ledger.Total(firm))
            {
                firm = tried;
                best = ledger.Better(
                    best,
                    turns.Improve(turns.Order, WithReviewsCounted(tried), PlanningMode.WithReviews)
                );
            }

            var (bound, over) = BoundUnder(prices);
            var crowded = ledger.Open.Where(lesson => over[lesson] > 0 || prices[lesson] > 0).ToList();
            var length = crowded.Sum(lesson => (double)over[lesson] * over[lesson]);
            if (length == 0 || bound >= ledger.Total(firm))
            {
                break;
            }

            foreach (var lesson in crowded)
            {
                prices[lesson] = Math.Max(0, prices[lesson] + ((ledger.Total(firm) - bound) / length * over[lesson]));
            }
        }

        return best;
    }

    /// <summary>Begun under the prices, then improved without them.</summary>
    private CohortPlan?[] NewOnly(IReadOnlyList<int> order, double[] prices)
    {
        var plans = turns.Begin(order, PlanningMode.NewOnlyAt(prices));
        for (var goOn = true; goOn && budget.IsHalfLeft; )
        {
            var improved = pairs.Free(order, turns.Improve(order, plans, PlanningMode.NewOnly), PlanningMode.NewOnly);
            goOn = ledger.Total(improved) < ledger.Total(plans);
            plans = improved;
        }

        return plans;
    }

    /// <summary>A plan of what is new only has paid for none of the reviews it leaves out.</summary>
    private CohortPlan?[] WithReviewsCounted(CohortPlan?[] plans) =>
        [.. plans.Select((plan, cohort) => plan! with { Cost = PlanCost.Of(Problem, Problem.Cohorts[cohort], plan) })];

    /// <returns>What no set of introductions can undercut, and by how much each lesson would be overdrawn if every
    /// cohort took what suits it under the prices.</returns>
    private (double Bound, long[] Over) BoundUnder(double[] prices)
    {
        var over = Problem.Lessons.Select((slot, lesson) => (long)attended[lesson] - slot.TeacherSeconds).ToArray();
        var bound = ledger.Open.Sum(lesson => prices[lesson] * over[lesson]);
        foreach (var (at, cohort) in Problem.Cohorts.Index())
        {
            var left = Problem.Lessons.Select(
                (slot, lesson) => slot.TeacherSeconds - (cohort.IsAttended(lesson) ? 0 : attended[lesson])
            );
            var rules = ledger.RulesAlone(left, at, PlanningMode.NewOnlyAt(prices));
            var its = new IntroductionBound(rules);
            bound += its.Cost;
            var lessonOf = its.Cheapest().SelectMany((count, lesson) => Enumerable.Repeat(lesson, count));
            foreach (var (unit, lesson) in lessonOf.Index().Skip(cohort.IntroducedIn.Count))
            {
                over[lesson] += rules.TeacherSecondsOf(lesson, unit);
            }
        }

        return (bound, over);
    }
}
