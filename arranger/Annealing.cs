using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>
/// Makes an arrangement better by many small changes, none of which breaks a hard rule. A change for the worse is taken now
/// and then, early on rather than late, so that a better arrangement behind a worse one is found; and what a cohort is
/// alone for too long weighs little at first, and more than anything in the end. The same problem and seed give the same
/// arrangement on every machine.
/// </summary>
internal sealed class Annealing
{
    /// <summary>The more cohorts and teachers, the more there is to try; less where not much is left of the lesson.</summary>
    private const int TriesEach = 3_300;
    private const int FewestTries = 10_000;
    private const int AWholeLesson = 60;

    private static readonly Cooling Search = new(Hot: 1000, Cold: 15, Light: 150, Heavy: 4000);

    /// <summary>What is found stays much as it is: what weighs least, as that something new comes before all are tired, is felt
    /// only when it is this cool.</summary>
    private static readonly Cooling Finish = new(Hot: 15, Cold: 1, Light: 4000, Heavy: 4000);

    /// <summary>What stood is near, but not everything has room yet: warm enough to go around what is in the way.</summary>
    private static readonly Cooling Warm = new(Hot: 300, Cold: 4, Light: 1000, Heavy: 4000);

    private readonly LessonFacts facts;
    private readonly Random random;
    private readonly Changes changes;

    /// <summary>What is done with each cohort, by each teacher, and what a cohort's lesson costs now.</summary>
    private readonly List<Step>[] own;
    private readonly List<Step>[] led;
    private readonly Cost[] costs;
    private readonly List<Step> steps;
    private readonly List<LessonTask> left;

    private readonly List<(int Cohort, List<Step> Own, Cost Cost)> newOwn = [];

    /// <summary>Lists nobody needs any more: with every change some are made, and most of them for nothing.</summary>
    private readonly Stack<List<Step>> spare = new();

    private Annealing(LessonFacts facts, IReadOnlyList<Step> first, int seed)
    {
        (this.facts, steps, random) = (facts, [.. first], new Random(seed));
        own = [.. facts.Problem.Cohorts.Select((_, cohort) => Measures.Own(steps, cohort))];
        led =
        [
            .. facts.Problem.Teachers.Select(
                (_, teacher) => steps.Where(step => step.Teacher == teacher).OrderBy(step => step.Start).ToList()
            ),
        ];
        costs = [.. own.Select((its, cohort) => Cost.Of(facts, its, cohort))];
        left = [.. facts.Problem.Tasks.Where(task => steps.TrueForAll(step => step.Task?.Key != task.Key))];
        changes = new(facts, random, steps, own, led, left);
    }

    /// <param name="first">Keeps every hard rule, but for what is left out and who is alone too long.</param>
    public static IReadOnlyList<Step> Of(LessonFacts facts, IReadOnlyList<Step> first, int seed) =>
        facts.Problem.Teachers.Count == 0 || facts.Problem.Cohorts.Count == 0 || facts.Window == 0
            ? first
            : new Annealing(facts, first, seed).Run(Search, Tries(facts));

    /// <param name="found">The best that was found.</param>
    public static IReadOnlyList<Step> Finished(LessonFacts facts, IReadOnlyList<Step> found) =>
        found.Count == 0 ? found : new Annealing(facts, found, 1).Run(Finish, Tries(facts) / 2);

    /// <param name="found">Near what stood.</param>
    /// <param name="warmth">From 1: the more, the further away from it.</param>
    public static IReadOnlyList<Step> Around(LessonFacts facts, IReadOnlyList<Step> found, int warmth) =>
        found.Count == 0
            ? found
            : Finished(
                facts,
                new Annealing(facts, found, warmth).Run(Warm with { Hot = Warm.Hot * warmth * warmth }, Tries(facts))
            );

    public static int Tries(LessonFacts facts) =>
        Math.Max(
            FewestTries,
            TriesEach
                * facts.Problem.Cohorts.Count
                * facts.Problem.Teachers.Count
                * Math.Min(facts.Window, AWholeLesson)
                / AWholeLesson
        );

    private List<Step> Run(Cooling from, int tries)
    {
        var (best, least, now) = (steps.ToList(), 0L, 0L);
        var (heat, weight) = (from.Hot, from.Light);
        var (cooling, growing) = (
            Math.Pow(from.Cold / from.Hot, 1.0 / tries),
            Math.Pow(from.Heavy / from.Light, 1.0 / tries)
        );
        for (var at = 0; at < tries; at++)
        {
            (heat, weight) = (heat * cooling, weight * growing);
            if (!changes.Come() || Try(heat, weight) is not { } worse)
            {
                continue;
            }

            now += worse;
            if (now < least)
            {
                least = now;
                best.Clear();
                best.AddRange(steps);
            }
        }

        return [.. best.OrderBy(step => step.Start)];
    }

    /// <summary>Takes what is proposed, and says by how many points it is worse; null where it breaks a rule, or is too much
    /// worse.</summary>
    private long? Try(double heat, double weight)
    {
        if (!HaveTime() || !AreAllowed())
        {
            return Leave();
        }

        long worse = 0;
        foreach (var step in changes.Gone)
        {
            worse -= Measures.OfStep(facts, step);
        }

        foreach (var step in changes.Added)
        {
            worse += Measures.OfStep(facts, step);
            if (step.Task is { } task && left.Count > 0 && left.Contains(task))
            {
                worse -= Measures.LeftOut(task.Kind);
            }
        }

        double felt = worse;
        foreach (var (cohort, _, cost) in newOwn)
        {
            var before = costs[cohort];
            worse += cost.Points - before.Points;
            felt += cost.Led - before.Led + ((cost.TooLong - before.TooLong) * weight);
        }

        if (felt > 0 && random.NextDouble() >= Math.Exp(-felt / heat))
        {
            return Leave();
        }

        Take();
        return worse;
    }

    private long? Leave()
    {
        foreach (var (_, now, _) in newOwn)
        {
            spare.Push(now);
        }

        newOwn.Clear();
        return null;
    }

    private void Take()
    {
        for (var teacher = 0; teacher < led.Length; teacher++)
        {
            if (changes.TouchesTeacher[teacher])
            {
                var now = With(led[teacher], teacher, null);
                spare.Push(led[teacher]);
                led[teacher] = now;
            }
        }

        foreach (var (cohort, now, cost) in newOwn)
        {
            spare.Push(own[cohort]);
            (own[cohort], costs[cohort]) = (now, cost);
        }

        newOwn.Clear();
        foreach (var step in changes.Gone)
        {
            steps.Remove(step);
        }

        foreach (var step in changes.Added)
        {
            steps.Add(step);
            if (step.Task is { } task && left.Count > 0)
            {
                left.Remove(task);
            }
        }
    }

    /// <summary>Whoever does something has nothing else to do meanwhile, teachers and cohorts.</summary>
    private bool HaveTime()
    {
        var added = changes.Added;
        for (var at = 0; at < added.Count; at++)
        {
            var step = added[at];
            if (!facts.MayBe(step) || !IsFree(led[step.Teacher], step))
            {
                return false;
            }

            foreach (var cohort in step.Cohorts)
            {
                if (!IsFree(own[cohort], step))
                {
                    return false;
                }
            }

            for (var before = 0; before < at; before++)
            {
                if (added[before].Overlaps(step) && added[before].Excludes(step))
                {
                    return false;
                }
            }
        }

        return true;
    }

    /// <summary>Nothing that stays is at the same time.</summary>
    /// <param name="list">In its order.</param>
    private bool IsFree(List<Step> list, Step step)
    {
        foreach (var other in list)
        {
            if (other.Start >= step.End)
            {
                break;
            }

            if (other.End > step.Start && !changes.IsGone(other))
            {
                return false;
            }
        }

        return true;
    }

    private bool AreAllowed()
    {
        for (var cohort = 0; cohort < own.Length; cohort++)
        {
            if (!changes.TouchesCohort[cohort])
            {
                continue;
            }

            var now = With(own[cohort], null, cohort);
            if (!CohortRules.Allow(facts, cohort, now))
            {
                spare.Push(now);
                return false;
            }

            newOwn.Add((cohort, now, Cost.Of(facts, now, cohort)));
        }

        return true;
    }

    /// <summary>The list of a teacher or of a cohort without what is gone and with what is added.</summary>
    private List<Step> With(List<Step> list, int? teacher, int? cohort)
    {
        var now = spare.TryPop(out var old) ? old : [];
        now.Clear();
        foreach (var step in list)
        {
            if (!changes.IsGone(step))
            {
                now.Add(step);
            }
        }

        foreach (var step in changes.Added)
        {
            if (teacher is { } who ? step.Teacher != who : !step.IsWith(cohort!.Value))
            {
                continue;
            }

            var at = now.Count;
            while (at > 0 && now[at - 1].Start > step.Start)
            {
                at--;
            }

            now.Insert(at, step);
        }

        return now;
    }

    /// <param name="Hot">How much worse is still taken now and then, points: at first.</param>
    /// <param name="Cold">And at last.</param>
    /// <param name="Light">What a minute alone too long weighs meanwhile, points: at first.</param>
    /// <param name="Heavy">And at last.</param>
    private readonly record struct Cooling(double Hot, double Cold, double Light, double Heavy);

    /// <summary>What a cohort's lesson costs: without what it is alone too long, how many minutes that is in all stretches,
    /// and all of it as it counts in the end.</summary>
    private readonly record struct Cost(long Led, int TooLong, long Points)
    {
        public static Cost Of(LessonFacts facts, List<Step> own, int cohort)
        {
            var (led, (sum, longest)) = (Measures.Led(facts, own, cohort), Measures.TooLongIn(facts, own, cohort));
            return new(led, sum, led + ((long)longest * Measures.TooLong));
        }
    }
}
