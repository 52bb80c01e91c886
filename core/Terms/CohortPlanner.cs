namespace Zeitplan.Core.Terms;

/// <summary>
/// The best plan for one cohort, given what the others leave of the teachers' minutes. Units come in teaching order, so
/// a plan is how many are introduced in each lesson, and reviews follow from that. Without the reviews that is a small
/// dynamic programme over the lesson and the units introduced so far, and what it finds is a bound no plan can
/// undercut: where all reviews of its plan find their lesson, that plan is the best. Otherwise the counts of the recent
/// lessons join the state, as their reviews are still to come; states the bound rules out are dropped, and where many
/// remain the best <see cref="StatesKept"/> are kept for each number of units, <see cref="LayerKept"/> in all.
/// </summary>
internal sealed class CohortPlanner
{
    public const int StatesKept = 400;
    public const int LayerKept = 2000;
    private const int EndsTried = 24;
    private const int ShiftsTried = 400;
    private const int BitsPerLesson = 3;
    private const ulong LessonMask = (1UL << BitsPerLesson) - 1;
    private const int LongestWindow = 64 / BitsPerLesson;

    private readonly CohortLessonRules rules;
    private readonly int lessons;
    private readonly int units;
    private readonly int start;

    /// <summary>For every lesson and number of units known before it, the least that what is still to be introduced can
    /// cost, reviews left out.</summary>
    private readonly long[][] least;

    /// <summary>For every lesson, the lessons before it that it reviews, the most recent first.</summary>
    private readonly List<(int From, bool Late)>[] reviewsIn;

    /// <summary>For every lesson, which recent lessons still matter after it.</summary>
    private readonly ulong[] stillMatters;

    private CohortPlanner(CohortLessonRules rules)
    {
        this.rules = rules;
        (lessons, units, start) = (
            rules.Problem.Lessons.Count,
            rules.Cohort.Units.Count,
            rules.Cohort.IntroducedIn.Count
        );
        reviewsIn =
        [
            .. Enumerable
                .Range(0, lessons)
                .Select(lesson =>
                    rules
                        .ReviewsAfter.SelectMany(
                            (reviews, from) =>
                                reviews.Where(review => review.Lesson == lesson).Select(review => (from, review.Late))
                        )
                        .OrderByDescending(due => due.from)
                        .ToList()
                ),
        ];
        stillMatters = [.. Enumerable.Range(0, lessons).Select(WindowAfter)];
        least = Least();
    }

    /// <param name="known">A plan made earlier: its lessons are one of the answers considered.</param>
    public static CohortPlan Plan(CohortLessonRules rules, CohortPlan? known, CancellationToken cancel) =>
        new CohortPlanner(rules).Plan(known, cancel);

    /// <summary>An earlier plan with its reviews placed anew, or null where the lessons do not hold it any
    /// more.</summary>
    public static CohortPlan? Again(CohortLessonRules rules, CohortPlan plan)
    {
        var planner = new CohortPlanner(rules);
        return planner.IntroductionsOf(plan) is { } introductions ? planner.Write(introductions) : null;
    }

    /// <summary>An earlier plan with its reviews where they are: only its reasons and its cost are as they are
    /// now.</summary>
    public static CohortPlan Unchanged(CohortLessonRules rules, CohortPlan plan)
    {
        var planner = new CohortPlanner(rules);
        var again = planner.Write(planner.IntroductionsOf(plan)!);
        return planner.Priced(
            plan with
            {
                Placements =
                [
                    .. again.Placements.Zip(plan.Placements, (now, was) => now with { Reviews = was.Reviews }),
                ],
                LeftOver = again.LeftOver,
                Refused = again.Refused,
            }
        );
    }

    /// <summary>The bound alone, and what it would introduce where: what is needed to find out which lessons the
    /// cohorts crowd into.</summary>
    public static (long Cost, int[] LessonOf) Bound(CohortLessonRules rules)
    {
        var planner = new CohortPlanner(rules);
        return (
            planner.Bound(),
            [.. planner.Relaxed().SelectMany((count, lesson) => Enumerable.Repeat(lesson, count))]
        );
    }

    /// <summary>Cohorts improved together from where they are: one unit goes anywhere, or two go to the lesson before
    /// or after, and the reviews of all are placed anew.</summary>
    /// <param name="rules">As if none of the others were planned.</param>
    /// <param name="mayGoOn">Asked before every try.</param>
    /// <returns>The plans; null where they cannot be as they are.</returns>
    public static IReadOnlyList<CohortPlan>? Together(
        IReadOnlyList<CohortLessonRules> rules,
        IReadOnlyList<CohortPlan> plans,
        Func<bool> mayGoOn
    )
    {
        var planners = rules.Select(one => new CohortPlanner(one)).ToList();
        var counts = planners.Zip(plans, (planner, plan) => planner.IntroductionsOf(plan)).OfType<int[]>().ToArray();
        if (counts.Length < planners.Count || Try(counts) is not { } cost)
        {
            return null;
        }

        // The best single step; where there is none, the first double step that helps.
        for (var better = true; better; )
        {
            (better, var now) = (false, counts);
            foreach (var tried in StepsFrom(now, planners, false).Concat(StepsFrom(now, planners, true)))
            {
                if ((better && tried.Double) || !mayGoOn())
                {
                    break;
                }

                if (Try(tried.Introductions) is { } found && found < cost)
                {
                    (counts, cost, better) = (tried.Introductions, found, true);
                }
            }
        }

        var placed = ReviewPlacement.Of(rules, counts);
        return
        [
            .. planners.Select(
                (planner, at) => planner.Priced(new PlanWriter(rules[at]).Write(placed[at], counts[at]))
            ),
        ];

        long? Try(int[][] introductions) =>
            ReviewPlacement.Of(rules, introductions) is { IsPossible: true } placed
                ? rules.Select((one, at) => CostOf(one, placed[at], introductions[at])).Sum()
                : null;
    }

    /// <summary>What differs in one unit, or in two.</summary>
    private static IEnumerable<(int[][] Introductions, bool Double)> StepsFrom(
        int[][] introductions,
        List<CohortPlanner> planners,
        bool doubles
    )
    {
        for (var one = 0; one < planners.Count; one++)
        {
            foreach (var shifted in planners[one].Shifted(introductions[one], doubles ? 1 : planners[one].lessons))
            {
                int[][] single = [.. introductions];
                single[one] = shifted;
                if (!doubles)
                {
                    yield return (single, false);
                    continue;
                }

                for (var other = one; other < planners.Count; other++)
                {
                    foreach (var again in planners[other].Shifted(single[other]))
                    {
                        int[][] both = [.. single];
                        both[other] = again;
                        yield return (both, true);
                    }
                }
            }
        }
    }

    /// <summary>The plans that differ from one in a single unit, put into the lesson before or after, or left
    /// over.</summary>
    public static IEnumerable<CohortPlan> Neighbours(CohortLessonRules rules, CohortPlan plan)
    {
        var planner = new CohortPlanner(rules);
        return planner.IntroductionsOf(plan) is not { } now
            ? []
            : planner.Shifted(now).Select(shifted => planner.Write(shifted));
    }

    /// <summary>What introducing so many units in each lesson costs altogether.</summary>
    internal static long CostOf(CohortLessonRules rules, CohortReviews placement, int[] introductions)
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

    private CohortPlan Plan(CohortPlan? known, CancellationToken cancel)
    {
        var best = Relaxed();
        var cost = CostOf(best);
        if (known is not null && IntroductionsOf(known) is { } earlier && CostOf(earlier) is var was && was < cost)
        {
            (best, cost) = (earlier, was);
        }

        if (cost != Bound() && !rules.IntroductionsOnly)
        {
            foreach (var end in Search(cost, cancel))
            {
                var found = CostOf(end);
                (best, cost) = found < cost ? (end, found) : (best, cost);
            }

            (best, _) = Shift(best, cost, cancel);
        }

        return Write(best);
    }

    private CohortPlan Write(int[] introductions)
    {
        var plan = new PlanWriter(rules).Write(ReviewPlacement.Of(rules, introductions), introductions);
        return Priced(plan);
    }

    private CohortPlan Priced(CohortPlan plan)
    {
        var cost = PlanCost.Of(
            rules.Problem,
            rules.Cohort,
            rules.IntroductionsOnly ? plan with { Dropped = [] } : plan
        );
        return plan with { Cost = cost, Exact = cost == Bound() };
    }

    private long Bound() => least[rules.FirstOpen][start];

    private long CostOf(int[] introductions) => CostOf(rules, ReviewPlacement.Of(rules, introductions), introductions);

    private long[][] Least()
    {
        var table = Enumerable.Range(0, lessons + 1).Select(_ => new long[units + 1]).ToArray();
        for (var known = units - 1; known >= 0; known--)
        {
            table[lessons][known] = table[lessons][known + 1] + PlanCost.OfLeaving(rules.Cohort, rules.Problem, known);
        }

        for (var lesson = lessons - 1; lesson >= rules.FirstOpen; lesson--)
        {
            for (var known = start; known <= units; known++)
            {
                table[lesson][known] = Steps(lesson, known)
                    .Min(added => rules.Cost(lesson, known, added) + table[lesson + 1][known + added]);
            }
        }

        return table;
    }

    /// <summary>How many units a lesson can introduce after so many; none is always possible.</summary>
    private IEnumerable<int> Steps(int lesson, int known)
    {
        yield return 0;
        for (
            var added = 1;
            added <= rules.MostUnits && known + added <= units && rules.MayIntroduce(lesson, known, added);
            added++
        )
        {
            if (rules.Room(lesson, known, added) is not null)
            {
                yield return added;
            }
        }
    }

    /// <summary>The plan behind the bound.</summary>
    private int[] Relaxed()
    {
        var introductions = Held();
        for (var (lesson, known) = (rules.FirstOpen, start); lesson < lessons; known += introductions[lesson], lesson++)
        {
            introductions[lesson] = Steps(lesson, known)
                .First(added =>
                    rules.Cost(lesson, known, added) + least[lesson + 1][known + added] == least[lesson][known]
                );
        }

        return introductions;
    }

    private int[] Held()
    {
        var introductions = new int[lessons];
        foreach (var lesson in rules.Cohort.IntroducedIn)
        {
            introductions[lesson]++;
        }

        return introductions;
    }

    /// <summary>The introductions of an earlier plan, or null where the lessons do not hold them any more.</summary>
    private int[]? IntroductionsOf(CohortPlan plan)
    {
        var introductions = Held();
        foreach (var placement in plan.Placements.Skip(start))
        {
            if (placement.Lesson < rules.FirstOpen || placement.Lesson >= lessons || placement.Unit >= units)
            {
                return null;
            }

            introductions[placement.Lesson]++;
        }

        return IsPossible(introductions) ? introductions : null;
    }

    /// <summary>The most promising ways to spread the units.</summary>
    private List<int[]> Search(long below, CancellationToken cancel)
    {
        var layers = new List<Node>[lessons + 1];
        layers[rules.FirstOpen] = [new(-1, start, 0, 0, 0, 0)];
        Dictionary<(int Known, ulong Recent), Node> next = [];
        for (var lesson = rules.FirstOpen; lesson < lessons; lesson++)
        {
            cancel.ThrowIfCancellationRequested();
            next.Clear();
            foreach (var (at, node) in layers[lesson].Index())
            {
                foreach (var added in Steps(lesson, node.Known))
                {
                    var spent = node.Spent + rules.Cost(lesson, node.Known, added);
                    if (spent + least[lesson + 1][node.Known + added] >= below)
                    {
                        continue;
                    }

                    var reached = Step(node, at, lesson, added, spent);
                    if (!next.TryGetValue((reached.Known, reached.Recent), out var best) || reached.Guess < best.Guess)
                    {
                        next[(reached.Known, reached.Recent)] = reached;
                    }
                }
            }

            layers[lesson + 1] = [];
            foreach (var same in next.Values.GroupBy(node => node.Known).OrderBy(group => group.Key))
            {
                layers[lesson + 1]
                    .AddRange(same.OrderBy(node => node.Guess).ThenBy(node => node.Recent).Take(StatesKept));
            }

            if (layers[lesson + 1].Count > LayerKept)
            {
                layers[lesson + 1] =
                [
                    .. layers[lesson + 1]
                        .OrderBy(node => node.Guess + least[lesson + 1][node.Known])
                        .ThenBy(node => node.Known)
                        .ThenBy(node => node.Recent)
                        .Take(LayerKept),
                ];
            }
        }

        return
        [
            .. layers[lessons]
                .OrderBy(node => node.Guess + least[lessons][node.Known])
                .ThenBy(node => node.Recent)
                .Take(EndsTried)
                .Select(node => Trace(layers, node)),
        ];
    }

    private int[] Trace(List<Node>[] layers, Node end)
    {
        var introductions = Held();
        for (
            var (node, lesson) = (end, lessons - 1);
            lesson >= rules.FirstOpen;
            node = layers[lesson][node.Before], lesson--
        )
        {
            introductions[lesson] = node.Added;
        }

        return introductions;
    }

    /// <summary>The state after one more lesson. Reviews that do not fit where they are due may still find another
    /// lesson: they are guessed at, not lost.</summary>
    private Node Step(Node node, int at, int lesson, int added, long spent)
    {
        var guess = node.Guess + (spent - node.Spent);
        if (!rules.RunThroughReviewsAll(node.Known) && reviewsIn[lesson].Count > 0)
        {
            var room = rules.Room(lesson, node.Known, added)!.Value;
            foreach (var (from, late) in reviewsIn[lesson])
            {
                var (first, count) = IntroducedIn(from, node, lesson);
                for (var unit = first; unit < first + count; unit++)
                {
                    var seconds = rules.Cohort.Units[unit].ReviewSeconds;
                    var saved = rules.Saved(lesson, unit, seconds);
                    if (seconds <= room.Time && seconds - saved <= room.Teachers)
                    {
                        room = new(room.Time - seconds, room.Teachers - seconds + saved);
                        guess += late ? PlanCost.LateReviewSecond * seconds : 0;
                    }
                    else
                    {
                        guess += PlanCost.DroppedReviewSecond / 3 * seconds;
                    }
                }
            }
        }

        return new(
            at,
            node.Known + added,
            ((node.Recent << BitsPerLesson) | (uint)added) & stillMatters[lesson],
            spent,
            guess,
            added
        );
    }

    /// <summary>The units a past lesson introduced, read back from the state before <paramref name="now"/>.</summary>
    private (int First, int Count) IntroducedIn(int from, Node node, int now)
    {
        if (from < rules.FirstOpen)
        {
            return (
                rules.Cohort.IntroducedIn.Count(lesson => lesson < from),
                rules.Cohort.IntroducedIn.Count(lesson => lesson == from)
            );
        }

        // The state holds the counts of the last lessons, the latest in the lowest bits.
        var after = 0;
        for (var age = 0; age < now - 1 - from; age++)
        {
            after += (int)((node.Recent >> (BitsPerLesson * age)) & LessonMask);
        }

        var count = (int)((node.Recent >> (BitsPerLesson * (now - 1 - from))) & LessonMask);
        return (node.Known - after - count, count);
    }

    private ulong WindowAfter(int lesson)
    {
        var mask = 0UL;
        for (var from = rules.FirstOpen; from <= lesson; from++)
        {
            var age = lesson - from;
            if (age < LongestWindow && rules.ReviewsAfter[from].Any(review => review.Lesson > lesson))
            {
                // Everything younger is kept as well: which units a lesson introduced follows from the counts after it.
                mask |= (1UL << (BitsPerLesson * (age + 1))) - 1;
            }
        }

        return mask;
    }

    /// <summary>Moves single units to the lesson before or after while that makes the plan cheaper.</summary>
    private (int[] Introductions, long Cost) Shift(int[] best, long cost, CancellationToken cancel)
    {
        var tried = 0;
        for (var better = true; better && tried < ShiftsTried; )
        {
            better = false;
            foreach (var shifted in Shifted(best))
            {
                cancel.ThrowIfCancellationRequested();
                if (++tried <= ShiftsTried && CostOf(shifted) is var found && found < cost)
                {
                    (best, cost, better) = (shifted, found, true);
                    break;
                }
            }
        }

        return (best, cost);
    }

    /// <summary>One unit goes from a lesson to another, or is left over, or is left over no more; what is between
    /// slides along, as the units keep their order.</summary>
    /// <param name="farthest">How many lessons it goes at most.</param>
    private IEnumerable<int[]> Shifted(int[] introductions, int farthest = 1)
    {
        for (var from = rules.FirstOpen; from <= lessons; from++)
        {
            for (var to = Math.Max(rules.FirstOpen, from - farthest); to <= Math.Min(lessons, from + farthest); to++)
            {
                if (to != from && (from == lessons ? introductions.Sum() < units : introductions[from] > 0))
                {
                    int[] shifted = [.. introductions];
                    Add(from, -1);
                    Add(to, 1);
                    if (IsPossible(shifted))
                    {
                        yield return shifted;
                    }

                    void Add(int lesson, int count)
                    {
                        if (lesson < lessons)
                        {
                            shifted[lesson] += count;
                        }
                    }
                }
            }
        }
    }

    private bool IsPossible(int[] introductions)
    {
        for (var (lesson, known) = (rules.FirstOpen, start); lesson < lessons; known += introductions[lesson], lesson++)
        {
            if (
                introductions[lesson] > units - known
                || !rules.MayIntroduce(lesson, known, introductions[lesson])
                || rules.Room(lesson, known, introductions[lesson]) is null
            )
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>A way to get here: the state before, units known, counts of the recent lessons, the penalties so far
    /// without reviews and with a guess at them, and what the last lesson added.</summary>
    private readonly record struct Node(int Before, int Known, ulong Recent, long Spent, long Guess, int Added);
}
