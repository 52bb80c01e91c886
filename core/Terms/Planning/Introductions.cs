namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// How many units each lesson introduces: as units come in teaching order, that is all there is to decide for one
/// cohort. Always one number for each lesson of the problem; those of the lessons that have been held never change.
/// </summary>
internal static class Introductions
{
    /// <summary>What has been introduced, and nothing else.</summary>
    public static int[] Held(CohortLessonRules rules)
    {
        var introductions = new int[rules.Problem.Lessons.Count];
        foreach (var lesson in rules.Cohort.IntroducedIn)
        {
            introductions[lesson]++;
        }

        return introductions;
    }

    /// <returns>The introductions of an earlier plan; null where the lessons do not hold them any more.</returns>
    public static int[]? Of(CohortLessonRules rules, CohortPlan plan)
    {
        var introductions = Held(rules);
        foreach (var placement in plan.Placements.Skip(rules.Cohort.IntroducedIn.Count))
        {
            if (
                placement.Lesson < rules.FirstOpen
                || placement.Lesson >= introductions.Length
                || placement.Unit >= rules.Cohort.Units.Count
            )
            {
                return null;
            }

            introductions[placement.Lesson]++;
        }

        return ArePossible(rules, introductions) ? introductions : null;
    }

    public static bool ArePossible(CohortLessonRules rules, int[] introductions)
    {
        var known = rules.Cohort.IntroducedIn.Count;
        for (var lesson = rules.FirstOpen; lesson < introductions.Length; lesson++)
        {
            var added = introductions[lesson];
            if (
                known + added > rules.Cohort.Units.Count
                || !rules.MayIntroduce(lesson, known, added)
                || rules.Room(lesson, known, added) is null
            )
            {
                return false;
            }

            known += added;
        }

        return true;
    }

    /// <param name="placement">Where their reviews are.</param>
    /// <returns>The penalties of the whole plan.</returns>
    public static long CostOf(CohortLessonRules rules, CohortReviews placement, int[] introductions)
    {
        var cost = placement.Cost;
        for (var lesson = rules.FirstOpen; lesson < introductions.Length; lesson++)
        {
            cost += rules.Cost(lesson, placement.KnownBefore[lesson], introductions[lesson]);
        }

        for (var unit = placement.LessonOf.Length; unit < rules.Cohort.Units.Count; unit++)
        {
            cost += PlanCost.OfLeaving(rules.Cohort, rules.Problem, unit);
        }

        return cost;
    }

    /// <summary>All that differ in one unit: it goes from a lesson to another, or is left over, or is left over no
    /// more; what is between slides along, as the units keep their order.</summary>
    /// <param name="farthest">How many lessons it goes at most.</param>
    public static IEnumerable<int[]> Shifted(CohortLessonRules rules, int[] introductions, int farthest = 1)
    {
        var nowhere = introductions.Length;
        for (var from = rules.FirstOpen; from <= nowhere; from++)
        {
            var hasOne = from == nowhere ? introductions.Sum() < rules.Cohort.Units.Count : introductions[from] > 0;
            var (first, last) = (Math.Max(rules.FirstOpen, from - farthest), Math.Min(nowhere, from + farthest));
            for (var to = first; hasOne && to <= last; to++)
            {
                if (to != from && Moved(introductions, from, to) is var shifted && ArePossible(rules, shifted))
                {
                    yield return shifted;
                }
            }
        }
    }

    private static int[] Moved(int[] introductions, int from, int to)
    {
        int[] moved = [.. introductions];
        Add(from, -1);
        Add(to, 1);
        return moved;

        void Add(int lesson, int count)
        {
            if (lesson < moved.Length)
            {
                moved[lesson] += count;
            }
        }
    }
}
