namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// Which lesson holds which review, once it is decided what each lesson introduces: of one cohort, or of several that
/// share the teachers. Every review first asks for the lesson it is due in, then for one a week either way, then for a
/// later one; then what is late or has none takes the place of others. What finds no lesson is dropped, and said.
/// </summary>
internal sealed class ReviewPlacement
{
    /// <summary>How many others may have to go one after another for one review.</summary>
    private const int ChainLength = 2;

    private readonly CohortReviews[] cohorts;
    private readonly List<(CohortReviews Of, int At)> all;

    private ReviewPlacement(IReadOnlyList<CohortLessonRules> rules, IReadOnlyList<int[]> introductions)
    {
        // Who is attended all lesson has a teacher set aside, which the others are told of.
        var teachersLeft = Enumerable
            .Range(0, rules[0].Problem.Lessons.Count)
            .Select(lesson => rules.Min(cohort => cohort.TeachersLeft(lesson)))
            .ToArray();
        cohorts = [.. rules.Zip(introductions, (cohort, counts) => new CohortReviews(cohort, counts, teachersLeft))];
        IsPossible = Array.TrueForAll(teachersLeft, seconds => seconds >= 0);

        // Lesson by lesson, what was introduced most recently first: the same order as in the search.
        all =
        [
            .. cohorts
                .SelectMany((of, cohort) => Enumerable.Range(0, of.Count).Select(at => (of, at, cohort)))
                .OrderBy(review => review.of.Wanted(review.at).Due)
                .ThenByDescending(review => review.of.LessonOf[review.of.Wanted(review.at).Unit])
                .ThenBy(review => review.cohort)
                .ThenBy(review => review.of.Wanted(review.at).Unit)
                .ThenBy(review => review.of.Wanted(review.at).WeeksAfter)
                .Select(review => (review.of, review.at)),
        ];
    }

    /// <summary>Whether the teachers have the seconds for what is introduced.</summary>
    public bool IsPossible { get; }

    public long Cost => cohorts.Sum(cohort => cohort.Cost);

    public static CohortReviews Of(CohortLessonRules rules, int[] introductions) =>
        Of([rules], [introductions]).cohorts[0];

    /// <param name="rules">Of one cohort, or of cohorts that are free at once.</param>
    /// <param name="introductions">For each of them, how many units each lesson introduces.</param>
    public static ReviewPlacement Of(IReadOnlyList<CohortLessonRules> rules, IReadOnlyList<int[]> introductions)
    {
        var placement = new ReviewPlacement(rules, introductions);
        if (!placement.IsPossible || rules[0].Mode.IsNewOnly)
        {
            return placement;
        }

        placement.Place();
        placement.Improve();
        if (rules.Any(cohort => cohort.HasLonely))
        {
            var together = new ReviewPlacement(rules, introductions);
            together.KeepCompany();
            together.Place();
            together.Improve();
            return together.Cost < placement.Cost ? together : placement;
        }

        return placement;
    }

    public CohortReviews this[int cohort] => cohorts[cohort];

    /// <summary>Puts reviews first where another cohort is introduced to the same and would be alone.</summary>
    private void KeepCompany()
    {
        foreach (var (of, at) in all)
        {
            _ = of.InCompany(at).Any(lesson => of.TryPut(at, lesson));
        }
    }

    private void Place()
    {
        List<(CohortReviews, int)> waiting = [];
        foreach (var (of, at) in all)
        {
            if (of.HeldIn(at) == CohortReviews.Nowhere && !of.TryPut(at, of.Wanted(at).Due))
            {
                waiting.Add((of, at));
            }
        }

        foreach (var (of, at) in waiting)
        {
            _ = of.OnTime(at).Concat(of.Later(at)).ToList().Exists(lesson => of.TryPut(at, lesson));
        }
    }

    /// <summary>What is late or dropped takes another's place wherever all of it costs less then; that one takes the
    /// next one's place, and so on.</summary>
    private void Improve()
    {
        for (var better = true; better; )
        {
            better = false;
            foreach (var (of, at) in all.Where(review => CostOf(review.Of, review.At) > 0))
            {
                var (was, cost) = (of.HeldIn(at), CostOf(of, at));
                if (was != CohortReviews.Nowhere)
                {
                    of.TakeOut(at);
                }

                if (TryWithin(cost, of, at, ChainLength))
                {
                    better = true;
                }
                else if (was != CohortReviews.Nowhere)
                {
                    of.TryPut(at, was);
                }
            }
        }
    }

    /// <summary>Finds a place for a review, with what has to go for it, for less than so many points.</summary>
    private bool TryWithin(long points, CohortReviews of, int at, int chain)
    {
        foreach (
            var (lesson, cost) in of.OnTime(at)
                .Concat(of.Later(at))
                .Concat(of.Siblings(at))
                .Select(lesson => (lesson, of.CostIn(at, lesson)))
                .Where(way => way.Item2 < points)
                .ToList()
        )
        {
            if (of.TryPut(at, lesson))
            {
                return true;
            }

            foreach (var (other, review) in chain == 0 ? [] : InTheWay(of, at, lesson))
            {
                var back = other.CostIn(review, lesson);
                other.TakeOut(review);
                if (of.TryPut(at, lesson))
                {
                    if (
                        TryWithin(points - cost + back, other, review, chain - 1)
                        || other.CostOfDropping(review) < points - cost + back
                    )
                    {
                        return true;
                    }

                    of.TakeOut(at);
                }

                other.TryPut(review, lesson);
            }
        }

        return false;
    }

    private List<(CohortReviews Of, int At)> InTheWay(CohortReviews of, int at, int lesson) =>
        of.SiblingIn(at, lesson) is { } sibling ? [(of, sibling)] : In(lesson);

    private static long CostOf(CohortReviews of, int at) =>
        of.HeldIn(at) is var lesson && lesson == CohortReviews.Nowhere ? of.CostOfDropping(at) : of.CostIn(at, lesson);

    /// <summary>The reviews that take time in a lesson.</summary>
    private List<(CohortReviews Of, int At)> In(int lesson) =>
        [.. all.Where(review => review.Of.HeldIn(review.At) == lesson && review.Of.TakesTime(review.At, lesson))];
}
