using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

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
            cohort => OfCohort(problem, cohort, plan.Cohorts.Single(its => its.CohortId == cohort.Id), from)
        );

    /// <summary>What is to come as far as anybody can know: what the plans hold, announced or drafted, and what has been
    /// assigned and stands in none of them yet; whichever comes first.</summary>
    /// <param name="assigned">For each cohort the postures of its segments.</param>
    /// <param name="next">The next lesson: nothing that is not planned yet can come before it.</param>
    public static IReadOnlyDictionary<Guid, IReadOnlyDictionary<PostureSide, DateOnly>> Of(
        IReadOnlyList<SolvedTerm> plans,
        IReadOnlyDictionary<Guid, IReadOnlyList<PostureSide>> assigned,
        DateOnly from,
        DateOnly? next
    )
    {
        Dictionary<Guid, Dictionary<PostureSide, DateOnly>> coming = [];
        foreach (var plan in plans)
        {
            foreach (var (cohort, postures) in Of(plan.Problem, plan.Plan, from))
            {
                foreach (var (of, date) in postures)
                {
                    Add(cohort, of, date);
                }
            }
        }

        var planned = plans
            .SelectMany(plan => plan.Problem.Cohorts)
            .SelectMany(cohort =>
                cohort
                    .Units.Select(unit => (cohort.Id, Of: new PostureSide(unit.PostureId, unit.Side)))
                    .Concat(cohort.Before.Select(of => (cohort.Id, Of: of)))
            )
            .ToHashSet();
        foreach (var (cohort, postures) in assigned)
        {
            foreach (var of in postures.Where(of => next is not null && !planned.Contains((cohort, of))))
            {
                Add(cohort, of, next!.Value);
            }
        }

        return coming.ToDictionary(
            cohort => cohort.Key,
            cohort => (IReadOnlyDictionary<PostureSide, DateOnly>)cohort.Value
        );

        void Add(Guid cohort, PostureSide of, DateOnly date)
        {
            if (!coming.TryGetValue(cohort, out var first))
            {
                coming[cohort] = first = [];
            }

            first[of] = first.TryGetValue(of, out var known) && known < date ? known : date;
        }
    }

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
            foreach (
                var placement in plan.Placements.Where(placement =>
                    placement.IsIn(at, plan.Lessons[at].RunThroughSeconds > 0)
                )
            )
            {
                var unit = cohort.Units[placement.Unit];
                first.TryAdd(new(unit.PostureId, unit.Side), lesson.Date);
            }

            foreach (var known in plan.Lessons[at].RunThroughSeconds > 0 ? cohort.Before : [])
            {
                first.TryAdd(known, lesson.Date);
            }

            foreach (var refresh in plan.Kept.In(at))
            {
                foreach (var of in cohort.Keeping.TouchedBy(refresh))
                {
                    first.TryAdd(of, lesson.Date);
                }
            }
        }

        return first;
    }
}
