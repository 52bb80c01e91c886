using Zeitplan.Core.Lessons;

namespace Zeitplan.Arranger;

/// <summary>
/// What no arrangement of a lesson can undercut: the same lesson without a clock. For every number of minutes somebody
/// might come by a cohort it is known what its lesson costs at least; and the teachers' minutes are shared out among the
/// cohorts as well as can be, whether or not anybody could be there at those minutes.
/// </summary>
internal static class LowestPoints
{
    private const long Never = long.MaxValue / 4;

    public static long Of(LessonFacts facts) =>
        OrLeftOut(facts, SharedOut(facts, needsAlone: false) + LaterAtLeast.Of(facts));

    /// <summary>Of <see cref="Measures.OfNeeds"/>.</summary>
    public static long OfNeeds(LessonFacts facts) => OrLeftOut(facts, SharedOut(facts, needsAlone: true));

    /// <summary>Whoever leaves something out pays for that at least.</summary>
    private static long OrLeftOut(LessonFacts facts, long withEverything) =>
        facts.Problem.Tasks.Select(task => (long)Measures.LeftOut(task.Kind)).Append(withEverything).Min();

    /// <param name="needsAlone">Without a look at who comes how often.</param>
    private static long SharedOut(LessonFacts facts, bool needsAlone)
    {
        var free = Math.Max(0, facts.TeacherMinutes - facts.Problem.Tasks.Sum(facts.Staying));
        // The least for the cohorts so far, by the minutes that are left to the others.
        var least = new long[free + 1];
        for (var cohort = 0; cohort < facts.Problem.Cohorts.Count; cohort++)
        {
            var costs = Costs(facts, cohort, needsAlone);
            var next = new long[free + 1];
            Array.Fill(next, Never);
            for (var left = 0; left <= free; left++)
            {
                for (var minutes = 0; minutes < costs.Length && left + minutes <= free; minutes++)
                {
                    next[left] = Math.Min(next[left], least[left + minutes] + costs[minutes]);
                }
            }

            least = next;
        }

        return least.Min();
    }

    /// <summary>What the lesson of a cohort costs at least, for each number of minutes of visits.</summary>
    private static long[] Costs(LessonFacts facts, int cohort, bool needsAlone)
    {
        var most = Math.Max(0, facts.Window - facts.Order[cohort].Sum(facts.Staying));
        return [.. Enumerable.Range(0, most + 1).Select(minutes => Cost(facts, cohort, minutes, needsAlone))];
    }

    private static long Cost(LessonFacts facts, int cohort, int minutes, bool needsAlone)
    {
        var (rules, here, order) = (facts.Problem.Rules, facts.Problem.Cohorts[cohort], facts.Order[cohort]);
        var led = Math.Min(facts.Window, order.Sum(facts.Staying)) + minutes;
        var shown = order.Sum(task => rules.SeenIn(task.Kind, facts.Staying(task)));
        var least = Never;
        foreach (var visits in Visits(facts, cohort, minutes))
        {
            var looked = Math.Min(
                minutes * rules.SeenAMinute,
                (visits + (facts.LongestAlone[cohort] > 0 ? 0 : minutes / Math.Max(1, rules.LongestVisit)))
                    * rules.SeenInABlock
            );
            least = Math.Min(
                least,
                (needsAlone ? 0 : (long)visits * Measures.Visit)
                    + ((long)Math.Max(0, here.Due - shown - looked) * Measures.Unseen)
                    + ((long)TooLong(facts, cohort, facts.Window - led, order.Count + visits + 1) * Measures.TooLong)
            );
        }

        return least
            + (led > 0 && !needsAlone ? OneWhoComes(facts, cohort) : 0)
            + ((long)(facts.Window - led) * Measures.ByItself)
            + ((long)Math.Max(0, facts.Share[cohort] - led) * Measures.LessThanItsShare);
    }

    /// <summary>In how many visits so many minutes may be.</summary>
    private static IEnumerable<int> Visits(LessonFacts facts, int cohort, int minutes)
    {
        var (rules, practises) = (facts.Problem.Rules, facts.LongestAlone[cohort] > 0);
        var shortest = practises
            ? rules.ShortestVisit(facts.Problem.Cohorts[cohort].People)
            : CohortRules.ShortestPractice;
        var longest = practises ? rules.LongestVisit : Math.Max(1, facts.Window);
        var fewest = (minutes + longest - 1) / longest;
        return Enumerable.Range(fewest, Math.Max(0, (minutes / shortest) - fewest + 1));
    }

    /// <summary>By how much the longest of so many stretches alone is too long.</summary>
    private static int TooLong(LessonFacts facts, int cohort, int alone, int stretches) =>
        Math.Max(0, (alone + facts.AloneFor[cohort] + stretches - 1) / stretches - facts.LongestAlone[cohort]);

    /// <summary>Somebody has to do with it.</summary>
    private static int OneWhoComes(LessonFacts facts, int cohort) =>
        facts.Problem.Teachers.Select((_, teacher) => facts.OneMore[teacher][cohort]).DefaultIfEmpty(0).Min();
}
