namespace Zeitplan.Core.Terms.Planning;

/// <summary>A plan made earlier, as it would be now. What still holds all of it is kept to the letter, reviews and all;
/// otherwise its introductions are kept and its reviews placed anew.</summary>
internal sealed class EarlierPlan(ClassLedger ledger)
{
    private TermProblem Problem => ledger.Problem;

    /// <returns>Null where it cannot be kept as a whole.</returns>
    public CohortPlan?[]? AsItIsNow(TermPlan known)
    {
        if (
            !known.Cohorts.Select(plan => plan.CohortId).SequenceEqual(Problem.Cohorts.Select(cohort => cohort.Id))
            || known.LedSeconds.Count != Problem.Lessons.Count
        )
        {
            return null;
        }

        var plans = Promised(known);
        if (Enumerable.Range(0, plans.Length).All(cohort => IsAsItWas(plans, cohort)) && !ledger.IsOverdrawn(plans))
        {
            return [.. plans.Select((plan, cohort) => CohortPlanner.Unchanged(RulesBeside(plans, cohort), plan!))];
        }

        for (var cohort = 0; cohort < plans.Length; cohort++)
        {
            if (CohortPlanner.Again(RulesBeside(plans, cohort), plans[cohort]!) is not { } again)
            {
                return null;
            }

            plans[cohort] = again;
        }

        return plans;
    }

    /// <summary>What a finished plan binds the teachers to. What they had left over was filled up in the end; it binds
    /// nobody.</summary>
    public CohortPlan?[] Promised(TermPlan plan) =>
        [
            .. plan.Cohorts.Zip(
                Problem.Cohorts,
                (its, cohort) =>
                    its with
                    {
                        Lessons =
                        [
                            .. its.Lessons.Select(
                                (lesson, at) =>
                                    cohort.IsAttended(at)
                                        ? lesson
                                        : lesson with
                                        {
                                            TeacherSeconds = new(PromisedSeconds(lesson)),
                                        }
                            ),
                        ],
                    }
            ),
        ];

    private static int PromisedSeconds(CohortLesson lesson) =>
        lesson.IntroduceSeconds + lesson.ReviewSeconds is > 0 and var led ? led + lesson.LeadInSeconds : 0;

    private CohortLessonRules RulesBeside(CohortPlan?[] plans, int cohort) =>
        ledger.RulesBeside(plans, cohort, PlanningMode.WithReviews);

    /// <summary>Whether a cohort's lessons still hold all of an earlier plan, its reviews where they are.</summary>
    private bool IsAsItWas(CohortPlan?[] plans, int cohort)
    {
        var plan = plans[cohort]!;
        return CohortPlanner.Again(RulesBeside(plans, cohort), plan) is { } again
            && plan.Placements.Count + plan.LeftOver.Count == Problem.Cohorts[cohort].Units.Count
            && plan.Placements.Zip(again.Placements).All(pair => pair.First.Lesson == pair.Second.Lesson)
            && plan.Placements.All(placement => ReviewsStand(plan, placement))
            && ledger.Open.All(lesson =>
                plan.Lessons[lesson] is var now
                && again.Lessons[lesson].IntroduceSeconds == now.IntroduceSeconds
                && now.LeadInSeconds + now.IntroduceSeconds + now.OwnSeconds + now.ReviewSeconds
                    <= Problem.TimeOf(Problem.Cohorts[cohort], lesson)
            );
    }

    /// <summary>A unit has as many reviews as the calendar asks for, held or dropped, each late or not as it says.</summary>
    private bool ReviewsStand(CohortPlan plan, Placement placement) =>
        placement.Reviews.Count + plan.Dropped.Count(dropped => dropped.Unit == placement.Unit)
            == ledger.ReviewsAfter(placement.Lesson).Count
        && placement.Reviews.All(review =>
            review.Late
            == DaysBetween(placement.Lesson, review.Lesson) > (7 * review.WeeksAfter) + ReviewCalendar.ToleranceDays
        );

    private int DaysBetween(int lesson, int later) =>
        Problem.Lessons[later].Date.DayNumber - Problem.Lessons[lesson].Date.DayNumber;
}
