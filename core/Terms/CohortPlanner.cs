namespace Zeitplan.Core.Terms;

/// <summary>
/// The best plan for one cohort, given what the others leave of the teachers' minutes. Units come in teaching order, so a plan is how many are
/// introduced in each lesson, and reviews follow from that: a dynamic programme over the lesson, the units introduced so far, and how many were introduced in each
/// recent lesson whose reviews are still to come. Exact while the states are few; with many, the best <see cref="StatesKept"/> are kept for each number of units.
/// </summary>
internal sealed class CohortPlanner
{
    public const int StatesKept = 400;
    private const int BitsPerLesson = 2;
    private const ulong LessonMask = (1UL << BitsPerLesson) - 1;
    private const int LongestWindow = 64 / BitsPerLesson;

    private readonly TermProblem problem;
    private readonly CohortProblem cohort;
    private readonly CohortLessonRules rules;
    private readonly IReadOnlyList<IReadOnlyList<Review>> reviewsAfter;
    private readonly int firstOpen;
    private readonly int evenShare;

    /// <summary>For every lesson, the lessons before it that it reviews, the most recent first.</summary>
    private readonly List<(int From, Review Review)>[] reviewsIn;

    /// <summary>For every lesson, which recent lessons still matter after it.</summary>
    private readonly ulong[] stillMatters;

    private CohortPlanner(TermProblem problem, CohortProblem cohort, IReadOnlyList<int> teacherSecondsLeft)
    {
        (this.problem, this.cohort) = (problem, cohort);
        rules = new(problem, cohort, teacherSecondsLeft);
        reviewsAfter = ReviewCalendar.Of([.. problem.Lessons.Select(lesson => lesson.Date)]);
        firstOpen = problem.Lessons.TakeWhile(lesson => lesson.Held).Count();
        evenShare = PlanCost.EvenShare(problem, cohort, firstOpen);
        reviewsIn = [.. problem.Lessons.Select((_, lesson) => reviewsAfter
            .SelectMany((reviews, from) => reviews.Where(review => review.Lesson == lesson).Select(review => (from, review)))
            .OrderByDescending(due => due.from).ToList())];
        stillMatters = [.. problem.Lessons.Select((_, lesson) => WindowAfter(lesson))];
    }

    /// <param name="teacherSecondsLeft">For every lesson, the teachers' seconds the other cohorts do not use.</param>
    public static CohortPlan Plan(TermProblem problem, CohortProblem cohort, IReadOnlyList<int> teacherSecondsLeft) =>
        new CohortPlanner(problem, cohort, teacherSecondsLeft).Plan();

    private CohortPlan Plan()
    {
        var (introductions, exact) = Search();
        return new PlanWriter(problem, cohort, rules, reviewsAfter, firstOpen, evenShare).Write(introductions, exact);
    }

    /// <summary>How many units each lesson introduces.</summary>
    private (int[] Introductions, bool Exact) Search()
    {
        var exact = true;
        var start = new Node(null, cohort.IntroducedIn.Count, 0, 0, 0);
        List<Node> frontier = [start];
        for (var lesson = firstOpen; lesson < problem.Lessons.Count; lesson++)
        {
            Dictionary<(int Known, ulong Recent), Node> next = [];
            foreach (var node in frontier)
            {
                for (var added = 0; added <= cohort.MaxNew && node.Known + added <= cohort.Units.Count; added++)
                {
                    if (Step(node, lesson, added) is { } reached
                        && (!next.TryGetValue((reached.Known, reached.Recent), out var best) || reached.Cost < best.Cost))
                    {
                        next[(reached.Known, reached.Recent)] = reached;
                    }
                }
            }

            frontier = [];
            foreach (var same in next.Values.GroupBy(node => node.Known).OrderBy(group => group.Key))
            {
                var kept = same.OrderBy(node => node.Cost).ThenBy(node => node.Recent).Take(StatesKept + 1).ToList();
                exact &= kept.Count <= StatesKept;
                frontier.AddRange(kept.Take(StatesKept));
            }
        }

        var end = frontier.MinBy(node => node.Cost + cohort.Units.Skip(node.Known).Sum(PlanCost.OfLeaving))!;
        var introductions = new int[problem.Lessons.Count];
        foreach (var held in cohort.IntroducedIn)
        {
            introductions[held]++;
        }

        for (var (node, lesson) = (end, problem.Lessons.Count - 1); node.Before is not null; node = node.Before, lesson--)
        {
            introductions[lesson] = node.Added;
        }

        return (introductions, exact);
    }

    /// <summary>The state after one more lesson, or null where its minutes or a rule forbid it.</summary>
    private Node? Step(Node node, int lesson, int added)
    {
        if (!rules.MayIntroduce(lesson, node.Known, added) || rules.WithoutReviews(lesson, node.Known, added) is not { } content)
        {
            return null;
        }

        var cost = node.Cost + (added * PlanCost.OfIntroducing(cohort, firstOpen, lesson)) + PlanCost.OfUnevenness(content.IntroduceSeconds, evenShare);
        if (!rules.RunThroughReviewsAll(node.Known))
        {
            foreach (var (from, review) in reviewsIn[lesson])
            {
                var (first, count) = IntroducedIn(from, node, lesson);
                for (var unit = first; unit < first + count; unit++)
                {
                    var seconds = cohort.Units[unit].ReviewSeconds;
                    if (rules.Fits(lesson, content, seconds))
                    {
                        content = rules.With(lesson, content, seconds);
                        cost += review.Late ? PlanCost.LateReviewSecond * seconds : 0;
                    }
                    else
                    {
                        cost += PlanCost.DroppedReviewSecond * seconds;
                    }
                }
            }
        }

        return new(node, node.Known + added, ((node.Recent << BitsPerLesson) | (uint)added) & stillMatters[lesson], cost, added);
    }

    /// <summary>The units a past lesson introduced, read back from the state before <paramref name="now"/>.</summary>
    private (int First, int Count) IntroducedIn(int from, Node node, int now)
    {
        if (from < firstOpen)
        {
            var before = cohort.IntroducedIn.Count(lesson => lesson < from);
            return (before, cohort.IntroducedIn.Count(lesson => lesson == from));
        }

        // The state holds the counts of the last lessons, the latest in the lowest bits; those that no longer matter were masked away,
        // so what lies between has to be summed from the nodes themselves.
        var known = node.Known;
        for (var (step, lesson) = (node, now - 1); lesson > from; step = step.Before!, lesson--)
        {
            known -= step.Added;
        }

        var count = (int)((node.Recent >> (BitsPerLesson * (now - 1 - from))) & LessonMask);
        return (known - count, count);
    }

    private ulong WindowAfter(int lesson)
    {
        var mask = 0UL;
        for (var from = firstOpen; from <= lesson; from++)
        {
            var age = lesson - from;
            if (age < LongestWindow && reviewsAfter[from].Any(review => review.Lesson > lesson))
            {
                // Everything younger is kept as well: which units a lesson introduced follows from the counts after it.
                mask |= age + 1 == LongestWindow ? ulong.MaxValue : (1UL << (BitsPerLesson * (age + 1))) - 1;
            }
        }

        return mask;
    }

    /// <summary>A way to get here: units known, counts of the recent lessons, the penalties so far, and what the last lesson added.</summary>
    private sealed record Node(Node? Before, int Known, ulong Recent, long Cost, int Added);
}
