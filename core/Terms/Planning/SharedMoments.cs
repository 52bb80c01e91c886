using System.Runtime.CompilerServices;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// Where the cohorts of a class meet the same posture in the same lesson and can be led together once (domain.md 4.3).
/// Together takes as long as the longest of them needs, so each of the others costs the teachers nothing. What several
/// cohorts of a mode work on is numbered, as this is asked at every try of a plan.
/// </summary>
internal sealed class SharedMoments
{
    private const int None = -1;

    private readonly TermProblem problem;

    /// <summary>What several cohorts of one mode work on.</summary>
    private readonly List<(Mode Mode, PostureSide Of)> postures;

    /// <summary>For each cohort and each of its units, which of the postures it is.</summary>
    private readonly int[][] postureOf;

    private readonly ConditionalWeakTable<CohortPlan, Moment[]> momentsOf = [];

    public SharedMoments(TermProblem problem)
    {
        this.problem = problem;
        postures =
        [
            .. problem
                .Cohorts.SelectMany(cohort =>
                    cohort.Units.Where(unit => unit.CanBeShared).Select(unit => (cohort.Mode, unit.Of)).Distinct()
                )
                .GroupBy(posture => posture)
                .Where(group => group.Count() > 1)
                .Select(group => group.Key),
        ];
        var numbers = postures.Index().ToDictionary(posture => posture.Item, posture => posture.Index);
        postureOf =
        [
            .. problem.Cohorts.Select(cohort =>
                cohort
                    .Units.Select(unit =>
                        unit.CanBeShared ? numbers.GetValueOrDefault((cohort.Mode, unit.Of), None) : None
                    )
                    .ToArray()
            ),
        ];
    }

    public bool HaveCommon(int unit, int other) =>
        postureOf[unit].Any(posture => posture != None && postureOf[other].Contains(posture));

    /// <summary>What the other cohorts' plans offer one of them: moments to join, and company to keep.</summary>
    public SharedOffer OfferedTo(int cohort, IReadOnlyList<CohortPlan?> plans)
    {
        if (Array.TrueForAll(postureOf[cohort], posture => posture == None))
        {
            return SharedOffer.Nothing(postureOf[cohort].Length);
        }

        CohortPlan?[] others = [.. plans];
        others[cohort] = null;
        var gatherings = Gatherings(others);
        var (led, lonely) = (new int[gatherings.Length], new long[gatherings.Length]);
        foreach (var moment in others.SelectMany(Moments))
        {
            var at = At(moment);
            led[at] = Math.Max(led[at], moment.Seconds);
            lonely[at] = IsAlone(moment, gatherings) ? PlanCost.UnsharedSecond * moment.Seconds : lonely[at];
        }

        return new(postures.Count, postureOf[cohort], led, lonely);
    }

    /// <summary>The teachers' seconds of each lesson that leading together saves.</summary>
    public int[] SavedSeconds(IReadOnlyList<CohortPlan?> plans)
    {
        var saved = new int[problem.Lessons.Count];
        foreach (var (at, gathering) in Gatherings(plans).Index())
        {
            saved[at / postures.Count] += gathering.SavedSeconds;
        }

        return saved;
    }

    /// <summary>What is led together, from all plans.</summary>
    public IReadOnlyList<SharedBlock> Of(IReadOnlyList<CohortPlan?> plans)
    {
        var blocks =
            from gathering in Gatherings(plans).Index()
            where gathering.Item.Count > 1
            let cohorts = plans
                .Index()
                .SelectMany(plan =>
                    Moments(plan.Item, plan.Index)
                        .Where(moment => At(moment) == gathering.Index)
                        .Select(_ => problem.Cohorts[plan.Index].Id)
                )
            let of = postures[gathering.Index % postures.Count].Of
            select new SharedBlock(
                gathering.Index / postures.Count,
                of.PostureId,
                of.Side,
                [.. cohorts],
                new(gathering.Item.Longest),
                new(gathering.Item.SavedSeconds)
            );
        return [.. blocks.OrderBy(block => block.Lesson).ThenBy(block => block.PostureId).ThenBy(block => block.Side)];
    }

    /// <summary>The penalty for what is introduced to one cohort alone and could be led together.</summary>
    public long UnsharedPoints(IReadOnlyList<CohortPlan?> plans)
    {
        var gatherings = Gatherings(plans);
        return plans
            .SelectMany(Moments)
            .Where(moment => IsAlone(moment, gatherings))
            .Sum(moment => PlanCost.UnsharedSecond * moment.Seconds);
    }

    private bool IsAlone(Moment moment, Gathering[] gatherings) =>
        moment.IsNew && moment.Lesson >= problem.FirstOpen && gatherings[At(moment)].Count == 1;

    private int At(Moment moment) => (moment.Lesson * postures.Count) + moment.Posture;

    /// <summary>For every lesson and posture, who meets in it.</summary>
    private Gathering[] Gatherings(IReadOnlyList<CohortPlan?> plans)
    {
        var gatherings = new Gathering[problem.Lessons.Count * postures.Count];
        for (var cohort = 0; cohort < plans.Count; cohort++)
        {
            foreach (var moment in Moments(plans[cohort], cohort))
            {
                gatherings[At(moment)].Join(moment.Seconds, problem.Cohorts[cohort].IsAttended(moment.Lesson));
            }
        }

        return gatherings;
    }

    /// <summary>What a teacher leads a cohort in that others work on too, from its plan.</summary>
    private Moment[] Moments(CohortPlan? plan, int cohort)
    {
        if (plan is null || postures.Count == 0)
        {
            return [];
        }

        if (!momentsOf.TryGetValue(plan, out var moments))
        {
            momentsOf.Add(plan, moments = [.. Read(plan, cohort)]);
        }

        return moments;
    }

    private IEnumerable<Moment> Read(CohortPlan plan, int cohort)
    {
        foreach (var placement in plan.Placements.Where(placement => postureOf[cohort][placement.Unit] != None))
        {
            var (unit, posture) = (problem.Cohorts[cohort].Units[placement.Unit], postureOf[cohort][placement.Unit]);
            yield return new(placement.Lesson, posture, unit.IntroduceSeconds, true);
            foreach (var review in placement.Reviews.Where(review => !review.InRunThrough))
            {
                yield return new(review.Lesson, posture, unit.ReviewSeconds, false);
            }
        }
    }

    private readonly record struct Moment(int Lesson, int Posture, int Seconds, bool IsNew);

    private struct Gathering
    {
        private int longestAttended;
        private int longestAlone;
        private int alone;

        public int Count { get; private set; }

        public readonly int Longest => Math.Max(longestAttended, longestAlone);

        /// <summary>Whoever is with an attended cohort is there all lesson: the others join, and only what they need
        /// longer is led beside it.</summary>
        public readonly int SavedSeconds => Count > 1 ? alone - Math.Max(0, longestAlone - longestAttended) : 0;

        public void Join(int seconds, bool attended)
        {
            Count++;
            if (attended)
            {
                longestAttended = Math.Max(longestAttended, seconds);
            }
            else
            {
                (longestAlone, alone) = (Math.Max(longestAlone, seconds), alone + seconds);
            }
        }
    }
}

/// <summary>What other cohorts of the class offer one of them: what they are led in, which costs the teachers nothing
/// to join, and what they are introduced to by themselves, with the penalty that goes when it is there too.</summary>
/// <param name="Postures">How many postures several cohorts work on.</param>
/// <param name="PostureOf">For each of the cohort's units, which of them it is; below 0, none.</param>
/// <param name="Led">For every lesson and posture, seconds; 0 where nobody is led in it.</param>
/// <param name="Lonely">For every lesson and posture, points.</param>
internal sealed record SharedOffer(
    int Postures,
    IReadOnlyList<int> PostureOf,
    IReadOnlyList<int> Led,
    IReadOnlyList<long> Lonely
)
{
    public bool HasLonely { get; } = Lonely.Any(points => points > 0);

    public static SharedOffer Nothing(int units) => new(0, [.. Enumerable.Repeat(-1, units)], [], []);

    public bool IsCommon(int unit) => PostureOf[unit] >= 0;

    public int LedSeconds(int lesson, int unit) => IsCommon(unit) ? Led[(lesson * Postures) + PostureOf[unit]] : 0;

    public long LonelyPoints(int lesson, int unit) =>
        IsCommon(unit) ? Lonely[(lesson * Postures) + PostureOf[unit]] : 0;
}
