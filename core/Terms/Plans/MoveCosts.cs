using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>How a unit would do in a lesson.</summary>
public enum MoveVerdict
{
    /// <summary>It is there now.</summary>
    Here,
    Fits,

    /// <summary>It is there before what it needs, after what needs it, or beside too much that is new: others move out
    /// of its way.</summary>
    Pushes,

    /// <summary>The minutes do not hold it beside what is there.</summary>
    Over,

    /// <summary>It cannot be there whatever else moves: the lesson has been held, brings nothing new, or the unit is
    /// taught already.</summary>
    Never,
}

/// <param name="Lesson">Index of the lesson, from 0.</param>
/// <param name="OverSeconds">With <see cref="MoveVerdict.Over"/>, how much is missing.</param>
/// <param name="Says">In the head's words, short.</param>
public sealed record MoveCost(int Lesson, MoveVerdict Verdict, Seconds OverSeconds, string Says);

/// <summary>What it would cost to put a unit into each lesson of the term, everything else left where it is: the quick
/// answer while it is being moved. What follows from it is planned when it is dropped.</summary>
public static class MoveCosts
{
    public static IReadOnlyList<MoveCost> Of(SolvedTerm term, Guid cohortId, int unit)
    {
        var at = term.Problem.Cohorts.Index().Single(cohort => cohort.Item.Id == cohortId).Index;
        var (cohort, lessonOf) = (
            term.Problem.Cohorts[at],
            term.Plan.Cohorts[at].Placements.Select(placement => placement.Lesson).ToList()
        );
        var rules = Coordination.RulesBeside(term.Problem, term.Plan, at);
        return [.. term.Problem.Lessons.Select((_, lesson) => Cost(rules, cohort, lessonOf, unit, lesson))];
    }

    private static MoveCost Cost(
        CohortLessonRules rules,
        CohortProblem cohort,
        List<int> lessonOf,
        int unit,
        int lesson
    )
    {
        var slot = rules.Problem.Lessons[lesson];
        if (unit < lessonOf.Count && lessonOf[unit] == lesson)
        {
            return new(lesson, MoveVerdict.Here, default, "here now");
        }

        if (unit < cohort.IntroducedIn.Count || slot.Held || slot.Kind != LessonKind.Ordinary)
        {
            return new(
                lesson,
                MoveVerdict.Never,
                default,
                slot.Held ? "held"
                    : unit < cohort.IntroducedIn.Count ? "taught already"
                    : slot.Kind == LessonKind.Test ? "a test"
                    : "before a test"
            );
        }

        // Whatever stands before it in teaching order and comes later than the lesson, or after it and comes sooner,
        // has to move with it.
        var before = Enumerable
            .Range(0, unit)
            .Where(other => other >= lessonOf.Count || lessonOf[other] > lesson)
            .ToList();
        var after = Enumerable
            .Range(unit + 1, cohort.Units.Count - unit - 1)
            .Where(other => other < lessonOf.Count && lessonOf[other] < lesson)
            .ToList();
        var (known, there) = (
            Enumerable.Range(0, unit).Count(other => other < lessonOf.Count && lessonOf[other] < lesson),
            Enumerable.Range(0, lessonOf.Count).Where(other => other != unit && lessonOf[other] == lesson).ToList()
        );
        if (before.Count > 0)
        {
            return rules.Over(lesson, unit, 1) is > 0 and var alone
                ? Over(lesson, new(alone))
                : new(lesson, MoveVerdict.Pushes, default, $"{Move(before.Count)} up");
        }

        if (after.Count > 0)
        {
            return rules.Over(lesson, unit, 1) is > 0 and var alone
                ? Over(lesson, new(alone))
                : new(lesson, MoveVerdict.Pushes, default, $"{Move(after.Count)} back");
        }

        if (rules.Over(lesson, known, there.Count + 1) is > 0 and var over)
        {
            return Over(lesson, new(over));
        }

        return rules.MayIntroduce(lesson, known, there.Count + 1)
            ? new(lesson, MoveVerdict.Fits, default, "fits")
            : new(lesson, MoveVerdict.Pushes, default, $"full: {Move(1)} out");
    }

    private static MoveCost Over(int lesson, Seconds over) => new(lesson, MoveVerdict.Over, over, $"over by {over}");

    private static string Move(int count) => count == 1 ? "1 moves" : $"{count} move";
}
