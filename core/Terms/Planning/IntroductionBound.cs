namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// What introducing a cohort's units costs at least: a dynamic programme over the lesson and the units known before it,
/// reviews left out. No plan costs less than <see cref="Cost"/>, and where all reviews of the plan behind it find their
/// lesson, that plan is the best.
/// </summary>
internal sealed class IntroductionBound
{
    private readonly CohortLessonRules rules;

    /// <summary>For every lesson and number of units known before it, the least that what is still to be introduced can
    /// cost.</summary>
    private readonly long[][] least;

    public IntroductionBound(CohortLessonRules rules)
    {
        this.rules = rules;
        var (lessons, units) = (rules.Problem.Lessons.Count, rules.Cohort.Units.Count);
        least = [.. Enumerable.Range(0, lessons + 1).Select(_ => new long[units + 1])];
        for (var known = units - 1; known >= 0; known--)
        {
            least[lessons][known] = least[lessons][known + 1] + PlanCost.OfLeaving(rules.Cohort, rules.Problem, known);
        }

        for (var lesson = lessons - 1; lesson >= rules.FirstOpen; lesson--)
        {
            for (var known = rules.Cohort.IntroducedIn.Count; known <= units; known++)
            {
                least[lesson][known] = rules.Steps(lesson, known).Min(added => With(lesson, known, added));
            }
        }
    }

    public long Cost => Rest(rules.FirstOpen, rules.Cohort.IntroducedIn.Count);

    /// <summary>The least that a lesson and all after it can cost when so many units are known before it.</summary>
    public long Rest(int lesson, int known) => least[lesson][known];

    /// <summary>The plan behind the bound.</summary>
    public int[] Cheapest()
    {
        var introductions = Introductions.Held(rules);
        var known = rules.Cohort.IntroducedIn.Count;
        for (var lesson = rules.FirstOpen; lesson < introductions.Length; lesson++)
        {
            var added = rules.Steps(lesson, known).First(added => With(lesson, known, added) == Rest(lesson, known));
            introductions[lesson] = added;
            known += added;
        }

        return introductions;
    }

    private long With(int lesson, int known, int added) =>
        rules.Cost(lesson, known, added) + Rest(lesson + 1, known + added);
}
