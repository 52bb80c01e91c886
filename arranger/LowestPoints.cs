using Zeitplan.Core.Lessons;

namespace Zeitplan.Arranger;

/// <summary>What no arrangement of a lesson can undercut, found without looking for one: however cleverly it is arranged,
/// teachers have only so many minutes.</summary>
internal static class LowestPoints
{
    public static long Of(LessonFacts facts) =>
        Alone(facts) + LessThanTheirShare(facts) + Crossings(facts) + Visits(facts) + Later(facts);

    /// <summary>The minutes cohorts can be led at most: those of the teachers, and of what is shared once more for each
    /// further cohort.</summary>
    private static int Led(LessonFacts facts) =>
        Math.Min(
            facts.Window * facts.Problem.Cohorts.Count,
            facts.TeacherMinutes
                + facts.Problem.Tasks.Sum(task => facts.Staying(task) * (facts.CohortsOf[task.Key].Length - 1))
        );

    private static long Alone(LessonFacts facts) =>
        ((long)(facts.Window * facts.Problem.Cohorts.Count) - Led(facts)) * Measures.ByItself;

    /// <summary>Some have to be led for longer than their share: the others have what is left.</summary>
    private static long LessThanTheirShare(LessonFacts facts)
    {
        var wanted = facts.Share.Select((share, cohort) => Math.Max(share, LedAtLeast(facts, cohort))).Sum();
        return Math.Max(0L, wanted - Led(facts)) * Measures.LessThanItsShare;
    }

    /// <summary>What a cohort is led if everything asked is there, and somebody comes whenever they have to.</summary>
    private static int LedAtLeast(LessonFacts facts, int cohort)
    {
        var tasks = facts.Order[cohort].Sum(facts.Staying);
        return Math.Min(
            facts.Window,
            facts.LongestAlone[cohort] == 0
                ? facts.Window
                : tasks
                    + (
                        VisitsAtLeast(facts, cohort)
                        * facts.Problem.Rules.ShortestVisit(facts.Problem.Cohorts[cohort].People)
                    )
        );
    }

    /// <summary>A cohort is alone before, between and after what is done with it, never for too long.</summary>
    private static int VisitsAtLeast(LessonFacts facts, int cohort)
    {
        var (longest, order, visits) = (facts.LongestAlone[cohort], facts.Order[cohort], 0);
        if (longest == 0)
        {
            return 0;
        }

        var visit = facts.Problem.Rules.ShortestVisit(facts.Problem.Cohorts[cohort].People);
        var own = facts.Window - order.Sum(facts.Staying);
        while (own - (visits * visit) > (longest * (order.Count + visits + 1)) - facts.AloneFor[cohort])
        {
            visits++;
        }

        return visits;
    }

    /// <summary>Somebody comes to each cohort that has anything to do, or may not be alone that long.</summary>
    private static long Crossings(LessonFacts facts) =>
        Enumerable
            .Range(0, facts.Problem.Cohorts.Count)
            .Where(cohort => facts.Order[cohort].Count > 0 || facts.LongestAlone[cohort] < facts.Window)
            .Sum(cohort =>
                (long)facts.Problem.Teachers.Select((_, who) => facts.OneMore[who][cohort]).DefaultIfEmpty(0).Min()
            );

    /// <summary>What the teachers do besides tasks they do in visits, and a visit has its longest; leaving them at rest instead
    /// would cost more.</summary>
    private static long Visits(LessonFacts facts)
    {
        var tasks = facts.Problem.Tasks.Sum(task => facts.Staying(task) * facts.CohortsOf[task.Key].Length);
        var attended = facts
            .Order.Where((_, cohort) => facts.LongestAlone[cohort] == 0)
            .Sum(order => Math.Max(0, facts.Window - order.Sum(facts.Staying)));
        var minutes = Math.Max(0, Led(facts) - tasks - attended);
        var longest = facts.Problem.Rules.LongestVisit;
        var needed = Enumerable.Range(0, facts.Problem.Cohorts.Count).Sum(cohort => VisitsAtLeast(facts, cohort));
        return Measures.Visit <= Measures.ByItself * longest
            ? (long)Math.Max(needed, (minutes + longest - 1) / longest) * Measures.Visit
            : 0;
    }

    /// <summary>Before something new comes at least what its cohort does before it, and practises in between.</summary>
    private static long Later(LessonFacts facts) =>
        facts.Order.Select((_, cohort) => Later(facts, cohort)).Sum() / facts.MostTogether;

    private static long Later(LessonFacts facts, int cohort)
    {
        var (points, minute, since) = (0L, 0, int.MaxValue);
        foreach (var task in facts.Order[cohort])
        {
            if (task.Kind == BlockKind.New && facts.LongestAlone[cohort] > 0)
            {
                minute += since == int.MaxValue ? 0 : facts.Problem.Rules.PractiseAfterNew;
                since = 0;
            }

            points += (long)minute * Measures.Later(task.Kind);
            minute += facts.Staying(task);
        }

        return points;
    }
}
