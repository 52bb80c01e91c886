namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// The teachers' seconds of a class's lessons, and who uses them: what a set of plans uses, what it leaves to one
/// cohort, and what it costs altogether. A set has one plan for each cohort of the problem, in its order; null where a
/// cohort is not planned yet. What several are led in together is counted once.
/// </summary>
internal sealed class ClassLedger(TermProblem problem)
{
    private readonly IReadOnlyList<IReadOnlyList<Review>> reviewsAfter = ReviewCalendar.Of([
        .. problem.Lessons.Select(lesson => lesson.Date),
    ]);

    public TermProblem Problem => problem;
    public SharedMoments Shared { get; } = new(problem);

    /// <summary>The lessons still to be held.</summary>
    public IEnumerable<int> Open => Enumerable.Range(problem.FirstOpen, problem.Lessons.Count - problem.FirstOpen);

    /// <summary>For every lesson, the later lessons that review what it introduces.</summary>
    public IReadOnlyList<Review> ReviewsAfter(int lesson) => reviewsAfter[lesson];

    /// <summary>One cohort's lessons beside what a set of plans gives to the others.</summary>
    public CohortLessonRules RulesBeside(CohortPlan?[] plans, int cohort, PlanningMode mode) =>
        RulesWith(new(SecondsLeft(plans, cohort), Shared.OfferedTo(cohort, plans)), cohort, mode);

    /// <summary>One cohort's lessons with so many of the teachers' seconds in each, and nobody to share with.</summary>
    public CohortLessonRules RulesAlone(IEnumerable<int> teacherSeconds, int cohort, PlanningMode mode) =>
        RulesWith(LeftByOthers.Everything(problem.Cohorts[cohort], teacherSeconds), cohort, mode);

    /// <summary>The cheaper of two sets; the first where they cost the same.</summary>
    public CohortPlan?[] Better(CohortPlan?[] best, CohortPlan?[] found) => Total(found) < Total(best) ? found : best;

    public long Total(CohortPlan?[] plans) =>
        plans.Sum(plan => plan!.Cost)
        + Shared.UnsharedPoints(plans)
        + (IsOverdrawn(plans) ? PlanCost.PinBroken * 1000 : 0);

    /// <summary>Whoever leaves a shared block may leave the others with more than the teachers have: such a set of
    /// plans is none.</summary>
    public bool IsOverdrawn(CohortPlan?[] plans)
    {
        var used = Used(plans);
        return Open.Any(lesson => used[lesson] > problem.Lessons[lesson].TeacherSeconds);
    }

    /// <summary>The teachers' seconds of each lesson that the cohorts use.</summary>
    /// <param name="without">One that is left out.</param>
    public int[] Used(CohortPlan?[] plans, int? without = null)
    {
        CohortPlan?[] counted = [.. plans.Select((plan, cohort) => cohort == without ? null : plan)];
        return
        [
            .. Shared
                .SavedSeconds(counted)
                .Select((saved, lesson) => counted.Sum(plan => plan?.Lessons[lesson].TeacherSeconds ?? 0) - saved),
        ];
    }

    /// <summary>
    /// The teachers' seconds the others leave to a cohort. One that must be attended and is planned already keeps what
    /// it has: others may have joined what it is led in, and need nobody of their own as long as it stays where it is;
    /// if it does not, the sum is checked.
    /// </summary>
    private int[] SecondsLeft(CohortPlan?[] plans, int forCohort)
    {
        var (cohort, plan) = (problem.Cohorts[forCohort], plans[forCohort]);
        var usedByOthers = Used(plans, forCohort);
        var usedByAll = plan is not null && cohort.IsAttended(problem.FirstOpen) ? Used(plans) : null;
        return
        [
            .. problem.Lessons.Select(
                (slot, lesson) =>
                    usedByAll is not null && cohort.IsAttended(lesson)
                        ? slot.TeacherSeconds - (usedByAll[lesson] - plan!.Lessons[lesson].TeacherSeconds)
                        : slot.TeacherSeconds - usedByOthers[lesson] - SetAside(plans, forCohort, lesson)
            ),
        ];
    }

    /// <summary>A cohort that must be attended and is not planned yet has its seconds set aside, but not against another
    /// that must be attended too: whoever is planned first has somebody.</summary>
    private int SetAside(CohortPlan?[] plans, int forCohort, int lesson) =>
        problem.Cohorts[forCohort].IsAttended(lesson)
            ? 0
            : problem
                .Cohorts.Where((cohort, at) => at != forCohort && plans[at] is null && cohort.IsAttended(lesson))
                .Sum(cohort => problem.TimeOf(cohort, lesson));

    private CohortLessonRules RulesWith(LeftByOthers left, int cohort, PlanningMode mode) =>
        new(problem, problem.Cohorts[cohort], reviewsAfter, left, mode);
}
