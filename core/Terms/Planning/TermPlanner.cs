namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// Plans a class's term (domain.md 4.3). Each cohort is planned exactly against what the others use of the teachers'
/// minutes; cohorts that may not be left alone come first, then those with pins, then those whose target is nearest;
/// how they are brought together is in <see cref="Coordination"/>. The same problem always gives the same plan.
/// </summary>
public static class TermPlanner
{
    /// <param name="known">A plan made earlier for a problem with the same cohorts and units, to begin with: the answer
    /// is never worse than what is left of it.</param>
    /// <param name="progress">Told how much is done, from 0 to 1.</param>
    /// <exception cref="ArgumentException">The problem contradicts itself, such as a unit introduced in a lesson that
    /// has not been held.</exception>
    /// <exception cref="OperationCanceledException"><paramref name="cancel"/> was asked for.</exception>
    public static TermPlan Plan(
        TermProblem problem,
        TermPlan? known = null,
        IProgress<double>? progress = null,
        CancellationToken cancel = default
    )
    {
        Check(problem);
        return Coordination.Plan(problem, known, progress, cancel);
    }

    private static void Check(TermProblem problem)
    {
        var held = problem.FirstOpen;
        if (problem.Lessons.Skip(held).Any(lesson => lesson.Held))
        {
            throw new ArgumentException("The lessons that have been held come first.", nameof(problem));
        }

        foreach (var cohort in problem.Cohorts)
        {
            if (cohort.MaxNew is < 1 or > CohortProblem.MostNew)
            {
                throw new ArgumentException(
                    $"{cohort.Name}: between 1 and {CohortProblem.MostNew} new postures a lesson.",
                    nameof(problem)
                );
            }

            if (
                cohort.IntroducedIn.Count > cohort.Units.Count
                || cohort.IntroducedIn.Any(lesson => lesson < 0 || lesson >= held)
            )
            {
                throw new ArgumentException(
                    $"{cohort.Name}: only units of the segment, in lessons that have been held, can have been introduced.",
                    nameof(problem)
                );
            }

            if (cohort.IntroducedIn.Zip(cohort.IntroducedIn.Skip(1)).Any(pair => pair.Second < pair.First))
            {
                throw new ArgumentException(
                    $"{cohort.Name}: what has been introduced comes in teaching order.",
                    nameof(problem)
                );
            }

            if (
                cohort.Pins.Any(pin =>
                    pin.Unit < 0
                    || pin.Unit >= cohort.Units.Count
                    || pin.Lesson < 0
                    || pin.Lesson >= problem.Lessons.Count
                )
            )
            {
                throw new ArgumentException(
                    $"{cohort.Name}: a pin names a unit and a lesson of the term.",
                    nameof(problem)
                );
            }
        }
    }
}
