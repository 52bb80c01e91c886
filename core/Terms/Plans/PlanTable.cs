using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>What a row of the plan's table is about.</summary>
public enum PlanWork
{
    New,
    Review,
    RunThrough,
    Watch,
    LeadIn,

    /// <summary>What keeps what could be done before.</summary>
    Keep,
}

/// <summary>One thing a cohort does in one lesson.</summary>
/// <param name="Unit">Null where the whole segment is meant, and for what is kept.</param>
/// <param name="Name">Empty where the whole segment is meant.</param>
/// <param name="Seconds">0 where it takes none of its own: a review inside a run-through.</param>
public sealed record PlanRow(
    DateOnly Date,
    int Lesson,
    string Cohort,
    PlanWork Work,
    TeachingUnit? Unit,
    string Name,
    Seconds Seconds,
    bool Pinned,
    string Because
);

/// <summary>A plan as a table: every lesson and cohort with what it holds, in the order of the lessons.</summary>
public static class PlanTable
{
    public static IReadOnlyList<PlanRow> Of(SolvedTerm term) =>
        [
            .. term
                .Problem.Lessons.Index()
                .SelectMany(lesson =>
                    term.Problem.Cohorts.SelectMany(cohort =>
                        Rows(lesson.Item.Date, lesson.Index, cohort, term.Answered(cohort.Id)!)
                    )
                ),
        ];

    private static IEnumerable<PlanRow> Rows(DateOnly date, int lesson, CohortProblem cohort, CohortPlan plan)
    {
        PlanRow Row(PlanWork work, TeachingUnit? unit, int seconds, bool pinned = false, string because = "") =>
            new(date, lesson + 1, cohort.Name, work, unit, unit?.Name ?? "", new(seconds), pinned, because);

        var content = plan.Lessons[lesson];
        if (content.LeadInSeconds > 0)
        {
            yield return Row(PlanWork.LeadIn, null, content.LeadInSeconds);
        }

        foreach (var placement in plan.Placements.Where(placement => placement.Lesson == lesson))
        {
            yield return Row(
                PlanWork.New,
                cohort.Units[placement.Unit],
                cohort.Units[placement.Unit].IntroduceSeconds,
                placement.Pinned,
                placement.Because
            );
        }

        foreach (
            var (unit, review) in plan.Placements.SelectMany(placement =>
                placement
                    .Reviews.Where(review => review.Lesson == lesson)
                    .Select(review => (cohort.Units[placement.Unit], review))
            )
        )
        {
            yield return Row(
                PlanWork.Review,
                unit,
                review.InRunThrough ? 0 : unit.ReviewSeconds,
                because: review.Late
                    ? $"due after {review.WeeksAfter} weeks, late"
                    : $"due after {review.WeeksAfter} weeks"
            );
        }

        if (content.RunThroughSeconds > 0)
        {
            yield return Row(PlanWork.RunThrough, null, content.RunThroughSeconds);
        }

        foreach (var refresh in plan.Kept.In(lesson))
        {
            yield return Row(PlanWork.Keep, null, refresh.Seconds, because: refresh.Because) with
            {
                Name = cohort.Keeping.NameOf(refresh),
            };
        }

        if (content.WatchSeconds > 0)
        {
            yield return Row(PlanWork.Watch, null, content.WatchSeconds);
        }
    }
}
