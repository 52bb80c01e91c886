using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>Whether a plan made earlier still answers the question as it is now.</summary>
public static class PlanInForce
{
    /// <summary>
    /// True when nothing changed but lessons held since, and each of those introduced exactly what was planned: then
    /// planning again would move nothing that anybody asked for. An assignment, a hall, a teacher, a student or a
    /// lesson that went differently makes it false.
    /// </summary>
    public static bool StillHolds(TermProblem planned, TermPlan plan, TermProblem now) =>
        planned.Lessons.Select(Unheld).SequenceEqual(now.Lessons.Select(Unheld))
        && planned.Cohorts.Count == now.Cohorts.Count
        && planned.Cohorts.Zip(now.Cohorts).All(pair => AsksTheSame(pair.First, pair.Second))
        && plan.Cohorts.Zip(now.Cohorts)
            .All(pair =>
                pair.First.Placements.Select(placement => placement.Lesson)
                    .Where(lesson => now.Lessons[lesson].Held)
                    .SequenceEqual(pair.Second.IntroducedIn)
            );

    private static LessonSlot Unheld(LessonSlot lesson) => lesson with { Held = false };

    private static bool AsksTheSame(CohortProblem planned, CohortProblem now) =>
        planned.Units.SequenceEqual(now.Units)
        && planned.Before.SequenceEqual(now.Before)
        && planned.Targets.SequenceEqual(now.Targets)
        && planned.Again.SequenceEqual(now.Again)
        && planned.Keeping.StillAsks(now.Keeping)
        && planned with
        {
            Units = now.Units,
            Before = now.Before,
            IntroducedIn = now.IntroducedIn,
            Targets = now.Targets,
            Again = now.Again,
            // Its units say it, in seconds.
            Pace = now.Pace,
            Pins = now.Pins,
            Lost = now.Lost,
            Announced = now.Announced,
            Keeping = now.Keeping,
        } == now;
}
