namespace Zeitplan.Core.Terms;

/// <summary>
/// Plans a class's term (domain.md 4.3). Each cohort is planned exactly against what the others use of the teachers' minutes; cohorts that may not be left alone come
/// first, then those whose target is nearest. Where somebody is left with material over or late, the order is tried with that cohort in front, and the
/// cheapest plan is kept. The same problem always gives the same plan.
/// </summary>
public static class TermPlanner
{
    private const int Rounds = 4;

    /// <exception cref="ArgumentException">The problem contradicts itself, such as a unit introduced in a lesson that has not been held.</exception>
    public static TermPlan Plan(TermProblem problem, CancellationToken cancel = default)
    {
        Check(problem);
        var usual = Enumerable.Range(0, problem.Cohorts.Count)
            .OrderByDescending(at => problem.Cohorts[at].AttendedLessons)
            .ThenBy(at => problem.Cohorts[at].TargetLesson)
            .ThenBy(at => at)
            .ToList();
        var best = InOrder(problem, usual, cancel);
        foreach (var first in usual.Where(at => best[at].Cost >= PlanCost.LatePerLesson).ToList())
        {
            var tried = InOrder(problem, [first, .. usual.Where(at => at != first)], cancel);
            best = tried.Sum(plan => plan.Cost) < best.Sum(plan => plan.Cost) ? tried : best;
        }

        return new(best, [.. problem.Lessons.Select((_, lesson) => best.Sum(plan => plan.Lessons[lesson].TeacherSeconds))]);
    }

    private static CohortPlan[] InOrder(TermProblem problem, IReadOnlyList<int> order, CancellationToken cancel)
    {
        var plans = new CohortPlan[problem.Cohorts.Count];
        var before = long.MaxValue;
        for (var round = 0; round < Rounds; round++)
        {
            foreach (var at in order)
            {
                cancel.ThrowIfCancellationRequested();
                var plan = CohortPlanner.Plan(problem, problem.Cohorts[at], SecondsLeft(problem, plans, at));
                plans[at] = plans[at] is null || plan.Cost < plans[at].Cost ? plan : plans[at];
            }

            var cost = plans.Sum(plan => plan.Cost);
            if (cost == before)
            {
                break;
            }

            before = cost;
        }

        return plans;
    }

    /// <summary>
    /// The teachers' seconds the others leave. A cohort that must be attended and is not planned yet has its seconds set aside, but not
    /// against another that must be attended too: whoever is planned first has somebody.
    /// </summary>
    private static int[] SecondsLeft(TermProblem problem, CohortPlan?[] plans, int forCohort) =>
        [.. problem.Lessons.Select((slot, lesson) => slot.TeacherSeconds - problem.Cohorts.Select((cohort, at) =>
            at == forCohort ? 0
            : plans[at]?.Lessons[lesson].TeacherSeconds ?? (lesson < cohort.AttendedLessons && lesson >= problem.Cohorts[forCohort].AttendedLessons ? slot.TeachableSeconds : 0)).Sum())];

    private static void Check(TermProblem problem)
    {
        var held = problem.Lessons.TakeWhile(lesson => lesson.Held).Count();
        foreach (var cohort in problem.Cohorts)
        {
            if (cohort.MaxNew is < 1 or > 3)
            {
                throw new ArgumentException($"{cohort.Name}: between 1 and 3 new postures a lesson.", nameof(problem));
            }

            if (cohort.IntroducedIn.Count > cohort.Units.Count || cohort.IntroducedIn.Any(lesson => lesson < 0 || lesson >= held))
            {
                throw new ArgumentException($"{cohort.Name}: only units of the segment, in lessons that have been held, can have been introduced.", nameof(problem));
            }

            if (cohort.IntroducedIn.Zip(cohort.IntroducedIn.Skip(1)).Any(pair => pair.Second < pair.First))
            {
                throw new ArgumentException($"{cohort.Name}: what has been introduced comes in teaching order.", nameof(problem));
            }
        }

        if (problem.Lessons.Skip(held).Any(lesson => lesson.Held))
        {
            throw new ArgumentException("The lessons that have been held come first.", nameof(problem));
        }
    }
}
