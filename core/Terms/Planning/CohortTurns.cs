namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// The cohorts of a class in turn, each planned against what the others use. A set of plans only ever gives way to a
/// cheaper one.
/// </summary>
/// <param name="known">A plan made earlier, to begin with.</param>
internal sealed class CohortTurns(ClassLedger ledger, TermPlan? known, WorkBudget budget, CancellationToken cancel)
{
    private const int Rounds = 6;

    /// <summary>What each cohort would pay with the class to itself.</summary>
    private readonly Dictionary<int, long> alone = [];

    private TermProblem Problem => ledger.Problem;

    /// <summary>Who is planned first: those that may not be left alone, then those with pins, then those whose target is
    /// nearest.</summary>
    public IReadOnlyList<int> Order { get; } =
    [
        .. Enumerable
            .Range(0, ledger.Problem.Cohorts.Count)
            .OrderByDescending(cohort => ledger.Problem.Cohorts[cohort].AttendedLessons)
            .ThenByDescending(cohort => ledger.Problem.Cohorts[cohort].Pins.Count > 0)
            .ThenBy(cohort => ledger.Problem.Cohorts[cohort].TargetLesson)
            .ThenBy(cohort => cohort),
    ];

    /// <summary>The same order begun further on.</summary>
    public IReadOnlyList<int> OrderFrom(int turn) =>
        [.. Order.Skip(turn % Order.Count), .. Order.Take(turn % Order.Count)];

    /// <summary>Every cohort once, each against those planned before it.</summary>
    public CohortPlan?[] Begin(IReadOnlyList<int> order, PlanningMode mode)
    {
        var plans = new CohortPlan?[Problem.Cohorts.Count];
        foreach (var cohort in order)
        {
            var earlier = known?.Cohorts.FirstOrDefault(plan => plan.CohortId == Problem.Cohorts[cohort].Id);
            plans[cohort] = PlanOne(plans, cohort, earlier, mode);
        }

        return plans;
    }

    /// <summary>Round by round, until nothing improves.</summary>
    public CohortPlan?[] Improve(IReadOnlyList<int> order, CohortPlan?[] plans, PlanningMode mode)
    {
        var total = ledger.Total(plans);
        for (var round = 0; round < Rounds; round++)
        {
            var before = total;
            foreach (var cohort in order)
            {
                CohortPlan?[] tried = [.. plans];
                tried[cohort] = PlanOne(plans, cohort, plans[cohort], mode);
                if (ledger.Total(tried) is var cost && cost < total)
                {
                    (plans, total) = (tried, cost);
                }
            }

            if (total == before)
            {
                break;
            }
        }

        return plans;
    }

    public CohortPlan PlanOne(CohortPlan?[] plans, int cohort, CohortPlan? before, PlanningMode mode)
    {
        cancel.ThrowIfCancellationRequested();
        budget.SpendOnPlan(Problem.Lessons.Count, Problem.Cohorts[cohort].Units.Count, mode);
        return CohortPlanner.Plan(ledger.RulesBeside(plans, cohort, mode), before, cancel);
    }

    public bool IsAsGoodAsAlone(int cohort, CohortPlan plan)
    {
        if (!alone.TryGetValue(cohort, out var cost))
        {
            var all = Problem.Lessons.Select(slot => slot.TeacherSeconds.Count);
            var rules = ledger.RulesAlone(all, cohort, PlanningMode.WithReviews);
            alone[cohort] = cost = CohortPlanner.Plan(rules, null, cancel).Cost;
        }

        return plan.Cost <= cost;
    }
}
