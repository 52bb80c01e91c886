namespace Zeitplan.Core.Terms;

/// <summary>What the lessons of a plan hold from a day on: everything that is introduced, reviewed or run
/// through.</summary>
public static class ComingLessons
{
    /// <returns>For each cohort, every posture that is to come and the first lesson it is in.</returns>
    public static IReadOnlyDictionary<Guid, IReadOnlyDictionary<PostureSide, DateOnly>> Of(
        TermProblem problem,
        TermPlan plan,
        DateOnly from
    ) =>
        problem.Cohorts.ToDictionary(
            cohort => cohort.Id,
            cohort => OfCohort(problem, cohort, plan.Cohorts.Single(one => one.CohortId == cohort.Id), from)
        );

    private static IReadOnlyDictionary<PostureSide, DateOnly> OfCohort(
        TermProblem problem,
        CohortProblem cohort,
        CohortPlan plan,
        DateOnly from
    )
    {
        Dictionary<PostureSide, DateOnly> first = [];
        foreach (var (at, lesson) in problem.Lessons.Index().Where(lesson => lesson.Item.Date >= from))
        {
            foreach (var placement in plan.Placements.Where(placement => IsIn(placement, plan.Lessons[at], at)))
            {
                var unit = cohort.Units[placement.Unit];
                first.TryAdd(new(unit.PostureId, unit.Side), lesson.Date);
            }

            foreach (var known in plan.Lessons[at].RunThroughSeconds > 0 ? cohort.Before : [])
            {
                first.TryAdd(known, lesson.Date);
            }
        }

        return first;
    }

    private static bool IsIn(Placement placement, CohortLesson content, int lesson) =>
        placement.Lesson == lesson
        || placement.Reviews.Any(review => review.Lesson == lesson)
        || (placement.Lesson < lesson && content.RunThroughSeconds > 0);
}
