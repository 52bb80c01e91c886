using Zeitplan.Core.Lessons;

namespace Zeitplan.Arranger;

/// <summary>Whether what is done with a cohort keeps the hard rules (domain.md 4.4), but for what is left out, and for how long
/// it may practise alone.</summary>
internal static class CohortRules
{
    /// <summary>Nobody practises for a single minute.</summary>
    public const int ShortestPractice = 2;

    /// <param name="own">In its order.</param>
    public static bool Allow(LessonFacts facts, int cohort, List<Step> own)
    {
        var (problem, here, longest) = (facts.Problem, facts.Problem.Cohorts[cohort], facts.LongestAlone[cohort]);
        var owes = here.StillToPractise;
        if (longest == 0 && owes > 0 && own is [var next, ..] && (next.Task is not null || next.Minutes < owes))
        {
            return false;
        }

        var (minute, place) = (facts.Begins, 0);
        var sinceNew = owes > 0 ? problem.Rules.PractiseAfterNew - owes : int.MaxValue;
        foreach (var step in own)
        {
            if (!MayBeAlone(step.Start - minute, longest))
            {
                return false;
            }

            sinceNew = sinceNew == int.MaxValue ? sinceNew : sinceNew + step.Start - minute;
            if (step.Task is not { } task)
            {
                if (!IsVisit(step))
                {
                    return false;
                }
            }
            else
            {
                var (at, isNew) = (facts.PlaceOf(cohort, task), task.Kind == BlockKind.New);
                if (
                    at < place
                    || (isNew && longest > 0 && sinceNew < problem.Rules.PractiseAfterNew)
                    || (isNew && step.Start >= problem.Minutes - problem.Rules.NoNewInLast)
                )
                {
                    return false;
                }

                (place, sinceNew) = (at, isNew && longest > 0 ? 0 : sinceNew);
            }

            minute = step.End;
        }

        return MayBeAlone(facts.Ends - minute, longest);

        bool IsVisit(Step step) =>
            longest > 0
                ? step.Minutes >= problem.Rules.ShortestVisit(here.People) && step.Minutes <= problem.Rules.LongestVisit
                : step.Minutes >= ShortestPractice;
    }

    private static bool MayBeAlone(int minutes, int longest) =>
        minutes == 0 || (minutes >= ShortestPractice && longest > 0);
}
