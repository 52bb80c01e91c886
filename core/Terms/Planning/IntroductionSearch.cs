namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// Looks for introductions whose reviews come out well: lesson by lesson, where the counts of the recent lessons belong
/// to the state, as their reviews are still to come. A state the bound rules out is dropped, and no other; only where
/// too many remain the best <see cref="StatesKept"/> are kept for each number of units, <see cref="LayerKept"/> in all.
/// </summary>
internal sealed class IntroductionSearch
{
    private const int StatesKept = 400;
    private const int LayerKept = 2000;
    private const int EndsTried = 24;
    private const int BitsPerLesson = 3;
    private const ulong LessonMask = (1UL << BitsPerLesson) - 1;
    private const int LongestWindow = 64 / BitsPerLesson;

    private readonly CohortLessonRules rules;
    private readonly IntroductionBound bound;
    private readonly int lessons;

    /// <summary>For every lesson, the lessons before it that it reviews, the most recent first.</summary>
    private readonly List<(int From, bool Late)>[] reviewsIn;

    /// <summary>For every lesson, which recent lessons still matter after it.</summary>
    private readonly ulong[] stillMatters;

    public IntroductionSearch(CohortLessonRules rules, IntroductionBound bound)
    {
        (this.rules, this.bound, lessons) = (rules, bound, rules.Problem.Lessons.Count);
        reviewsIn = [.. Enumerable.Range(0, lessons).Select(ReviewsIn)];
        stillMatters = [.. Enumerable.Range(0, lessons).Select(WindowAfter)];
    }

    /// <returns>The most promising introductions that can cost less than <paramref name="below"/>.</returns>
    public List<int[]> Find(long below, CancellationToken cancel)
    {
        var layers = new List<Node>[lessons + 1];
        layers[rules.FirstOpen] = [new(-1, rules.Cohort.IntroducedIn.Count, 0, 0, 0, 0)];
        for (var lesson = rules.FirstOpen; lesson < lessons; lesson++)
        {
            cancel.ThrowIfCancellationRequested();
            layers[lesson + 1] = Kept(lesson + 1, After(lesson, layers[lesson], below));
        }

        return
        [
            .. layers[lessons]
                .OrderBy(node => node.Guess + bound.Rest(lessons, node.Known))
                .ThenBy(node => node.Recent)
                .Take(EndsTried)
                .Select(node => Trace(layers, node)),
        ];
    }

    /// <summary>Every state a lesson leads to, each by its best way.</summary>
    private Dictionary<(int Known, ulong Recent), Node>.ValueCollection After(int lesson, List<Node> layer, long below)
    {
        Dictionary<(int Known, ulong Recent), Node> next = [];
        foreach (var (at, node) in layer.Index())
        {
            foreach (var added in rules.Steps(lesson, node.Known))
            {
                var spent = node.Spent + rules.Cost(lesson, node.Known, added);
                if (spent + bound.Rest(lesson + 1, node.Known + added) >= below)
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

        return next.Values;
    }

    private List<Node> Kept(int lesson, IEnumerable<Node> reached)
    {
        var layer = reached
            .GroupBy(node => node.Known)
            .OrderBy(same => same.Key)
            .SelectMany(same => same.OrderBy(node => node.Guess).ThenBy(node => node.Recent).Take(StatesKept))
            .ToList();
        return layer.Count <= LayerKept
            ? layer
            :
            [
                .. layer
                    .OrderBy(node => node.Guess + bound.Rest(lesson, node.Known))
                    .ThenBy(node => node.Known)
                    .ThenBy(node => node.Recent)
                    .Take(LayerKept),
            ];
    }

    private int[] Trace(List<Node>[] layers, Node end)
    {
        var introductions = Introductions.Held(rules);
        var node = end;
        for (var lesson = lessons - 1; lesson >= rules.FirstOpen; lesson--)
        {
            introductions[lesson] = node.Added;
            node = layers[lesson][node.Before];
        }

        return introductions;
    }

    /// <summary>The state after one more lesson.</summary>
    private Node Step(Node node, int at, int lesson, int added, long spent) =>
        new(
            at,
            node.Known + added,
            ((node.Recent << BitsPerLesson) | (uint)added) & stillMatters[lesson],
            spent,
            node.Guess + (spent - node.Spent) + GuessAtReviews(node, lesson, added),
            added
        );

    /// <summary>What the reviews of a lesson may cost. Those that do not fit where they are due may still find another
    /// lesson: they are guessed at, not lost.</summary>
    private long GuessAtReviews(Node node, int lesson, int added)
    {
        if (rules.RunThroughReviewsAll(node.Known) || reviewsIn[lesson].Count == 0)
        {
            return 0;
        }

        var guess = 0L;
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

        return guess;
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

    private List<(int From, bool Late)> ReviewsIn(int lesson) =>
        [
            .. rules
                .ReviewsAfter.SelectMany(
                    (reviews, from) =>
                        reviews.Where(review => review.Lesson == lesson).Select(review => (from, review.Late))
                )
                .OrderByDescending(due => due.from),
        ];

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

    /// <summary>A way to get here: the state before, units known, counts of the recent lessons, the penalties so far
    /// without reviews and with a guess at them, and what the last lesson added.</summary>
    private readonly record struct Node(int Before, int Known, ulong Recent, long Spent, long Guess, int Added);
}
