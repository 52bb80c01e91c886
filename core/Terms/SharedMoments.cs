using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms;

/// <summary>
/// Where the cohorts of a class meet the same posture in the same lesson and can be led together once (domain.md 4.3). Together takes as long as the longest
/// of them needs, so each of the others costs the teachers nothing.
/// </summary>
internal sealed class SharedMoments
{
    private readonly TermProblem problem;

    /// <summary>For each cohort, the postures another cohort of its mode works on too.</summary>
    private readonly HashSet<PostureSide>[] common;

    public SharedMoments(TermProblem problem)
    {
        this.problem = problem;
        var works = problem.Cohorts.Select(cohort => cohort.Units.Where(unit => unit.CanBeShared).Select(unit => unit.Of).ToHashSet()).ToList();
        common = [.. problem.Cohorts.Select((cohort, at) => works[at]
            .Where(of => problem.Cohorts.Index().Any(other => other.Index != at && other.Item.Mode == cohort.Mode && works[other.Index].Contains(of))).ToHashSet())];
    }

    public bool HaveCommon(int one, int other) => problem.Cohorts[one].Mode == problem.Cohorts[other].Mode && common[one].Overlaps(common[other]);

    public bool IsCommon(int cohort, TeachingUnit unit) => unit.CanBeShared && common[cohort].Contains(unit.Of);

    /// <summary>For a cohort, the longest that any other leads a posture in a lesson, from their plans.</summary>
    public Dictionary<(int Lesson, PostureSide Of), int> LedByOthers(IReadOnlyList<CohortPlan?> plans, int cohort)
    {
        Dictionary<(int, PostureSide), int> led = [];
        if (common[cohort].Count == 0)
        {
            return led;
        }

        foreach (var (at, plan) in plans.Index().Where(other => other.Item is not null && other.Index != cohort && problem.Cohorts[other.Index].Mode == problem.Cohorts[cohort].Mode))
        {
            foreach (var (lesson, of, seconds) in Blocks(at, plan!).Where(block => common[cohort].Contains(block.Of)))
            {
                led[(lesson, of)] = Math.Max(seconds, led.GetValueOrDefault((lesson, of)));
            }
        }

        return led;
    }

    /// <summary>What others are introduced to by themselves, as far as a cohort could keep them company, and the penalty for it.</summary>
    public Dictionary<(int Lesson, PostureSide Of), long> Lonely(IReadOnlyList<CohortPlan?> plans, int cohort)
    {
        Dictionary<(int, PostureSide), long> lonely = [];
        if (common[cohort].Count == 0)
        {
            return lonely;
        }

        CohortPlan?[] others = [.. plans.Select((plan, at) => at == cohort || problem.Cohorts[at].Mode != problem.Cohorts[cohort].Mode ? null : plan)];
        var together = Together(Of(others));
        foreach (var (at, lesson, unit) in Introductions(others).Where(one => common[cohort].Contains(one.Unit.Of) && !together.Contains((problem.Cohorts[one.Cohort].Id, one.Lesson, one.Unit.Of))))
        {
            lonely[(lesson, unit.Of)] = PlanCost.UnsharedSecond * unit.IntroduceSeconds;
        }

        return lonely;
    }

    /// <summary>What is led together, from all plans.</summary>
    public IReadOnlyList<SharedBlock> Of(IReadOnlyList<CohortPlan?> plans)
    {
        if (common.All(postures => postures.Count == 0))
        {
            return [];
        }

        var blocks =
            from place in plans.Index()
            where place.Item is not null
            from block in Blocks(place.Index, place.Item)
            group (Cohort: place.Index, block.Seconds) by (block.Lesson, block.Of, problem.Cohorts[place.Index].Mode) into together
            where together.Count() > 1
            select together;
        return [.. blocks.Select(together =>
        {
            var (attended, alone) = (together.Where(one => problem.Cohorts[one.Cohort].IsAttended(together.Key.Lesson)).ToList(), together.Where(one => !problem.Cohorts[one.Cohort].IsAttended(together.Key.Lesson)).ToList());
            var longest = together.Max(one => one.Seconds);

            // Whoever is with an attended cohort is there all lesson: the others join, and only what they need longer is led beside it.
            var withAttended = attended.Select(one => one.Seconds).DefaultIfEmpty(0).Max();
            var saved = alone.Sum(one => one.Seconds) - Math.Max(0, alone.Select(one => one.Seconds).DefaultIfEmpty(0).Max() - withAttended);
            return new SharedBlock(together.Key.Lesson, together.Key.Of.PostureId, together.Key.Of.Side, [.. together.Select(one => problem.Cohorts[one.Cohort].Id)], longest, saved);
        }).OrderBy(block => block.Lesson).ThenBy(block => block.PostureId).ThenBy(block => block.Side)];
    }

    /// <summary>The penalty for what is introduced to one cohort alone and could be led together.</summary>
    public long UnsharedPoints(IReadOnlyList<CohortPlan?> plans, IReadOnlyList<SharedBlock> shared)
    {
        var together = Together(shared);
        return Introductions(plans).Where(one => !together.Contains((problem.Cohorts[one.Cohort].Id, one.Lesson, one.Unit.Of))).Sum(one => one.Unit.IntroduceSeconds) * PlanCost.UnsharedSecond;
    }

    private static HashSet<(Guid Cohort, int Lesson, PostureSide Of)> Together(IReadOnlyList<SharedBlock> shared) =>
        [.. shared.SelectMany(block => block.CohortIds.Select(cohort => (cohort, block.Lesson, new PostureSide(block.PostureId, block.Side))))];

    /// <summary>Every introduction still to come of what several cohorts work on.</summary>
    private IEnumerable<(int Cohort, int Lesson, TeachingUnit Unit)> Introductions(IReadOnlyList<CohortPlan?> plans) =>
        from place in plans.Index()
        where place.Item is not null
        from placement in place.Item.Placements
        let unit = problem.Cohorts[place.Index].Units[placement.Unit]
        where placement.Lesson >= problem.FirstOpen && IsCommon(place.Index, unit)
        select (place.Index, placement.Lesson, unit);

    /// <summary>What a teacher leads a cohort in: each posture once a lesson, however many of its parts are due.</summary>
    private IEnumerable<(int Lesson, PostureSide Of, int Seconds)> Blocks(int cohort, CohortPlan plan)
    {
        var units = problem.Cohorts[cohort].Units;
        foreach (var placement in plan.Placements.Where(placement => units[placement.Unit].CanBeShared))
        {
            var unit = units[placement.Unit];
            yield return (placement.Lesson, unit.Of, unit.IntroduceSeconds);
            foreach (var review in placement.Reviews.Where(review => !review.InRunThrough))
            {
                yield return (review.Lesson, unit.Of, unit.ReviewSeconds);
            }
        }
    }
}
