namespace Zeitplan.Core.Terms.Planning;

/// <summary>How much may still be tried, counted in lessons × units, so that the time grows with the term and not
/// faster. A count, not a clock, or the same problem would not give the same plan.</summary>
internal sealed class WorkBudget(long most)
{
    private const long Most = 60_000;

    /// <summary>While an announced plan is mended from the one on the table: moves are dear then, so the best plan is
    /// near, and the head is waiting with the chip in hand.</summary>
    private const long MostWhenMending = 8_000;

    /// <summary>A plan with its reviews takes about so many times as long as one of what is new only.</summary>
    private const int ReviewsWork = 4;

    private long spent;

    /// <param name="known">A plan made earlier for it.</param>
    public static WorkBudget For(TermProblem problem, TermPlan? known) =>
        new(known is not null && problem.MovePoints >= PlanCost.MoveWhenMending ? MostWhenMending : Most);

    public bool IsLeft => spent < most;
    public bool IsHalfLeft => spent < most / 2;

    public void Spend(long work) => spent += work;

    /// <summary>One cohort is planned.</summary>
    public void SpendOnPlan(int lessons, int units, PlanningMode mode) =>
        Spend(lessons * (units + 1) * (mode.IsNewOnly ? 1 : ReviewsWork));
}
