using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>
/// What makes one arrangement better than another (domain.md 4.4), as a sum of penalties in points. What comes first in
/// the list of measures weighs so much more that a lesson is never spoiled for what comes after it.
/// </summary>
internal static class Measures
{
    /// <summary>For each minute by which the longest stretch of a cohort alone is longer than it may be.</summary>
    public const int TooLong = 40_000;

    /// <summary>For each person who is due a look and gets none.</summary>
    public const int Unseen = 3_000;

    /// <summary>For each minute a cohort is led less than its share.</summary>
    public const int LessThanItsShare = 200;

    /// <summary>For each minute a cohort is by itself.</summary>
    public const int ByItself = 120;

    /// <summary>For each cohort a teacher has to do with; a little less for one of the lesson before.</summary>
    public const int OneMoreCohort = 100;
    public const int SameAsLastTime = 80;

    /// <summary>For each time a teacher comes by.</summary>
    public const int Visit = 30;

    /// <summary>For each minute something new comes later: new before tired.</summary>
    public const int NewLater = 2;
    public const int LeadInLater = 3;

    /// <summary>What it costs to leave a task out.</summary>
    public static int LeftOut(BlockKind kind) =>
        kind switch
        {
            BlockKind.New or BlockKind.Test => 300_000,
            BlockKind.ReTeach or BlockKind.Rest => 200_000,
            BlockKind.LeadIn or BlockKind.Review => 150_000,
            BlockKind.Watch => 120_000,
            _ => 100_000,
        };

    public static int Later(BlockKind? kind) =>
        kind switch
        {
            BlockKind.New => NewLater,
            BlockKind.LeadIn => LeadInLater,
            _ => 0,
        };

    /// <summary>By how many minutes a cohort practises longer than it may without a teacher: in all its stretches, and in the
    /// longest.</summary>
    /// <param name="own">What is done with it, in its order.</param>
    public static (int Sum, int Longest) TooLongIn(LessonFacts facts, List<Step> own, int cohort)
    {
        var (minute, sum, longest, already) = (facts.Begins, 0, 0, facts.AloneFor[cohort]);
        foreach (var step in own)
        {
            Alone(step.Start);
            (minute, already) = (step.End, 0);
        }

        Alone(facts.Ends);
        return (sum, longest);

        void Alone(int until)
        {
            var over = until > minute ? until - minute + already - facts.LongestAlone[cohort] : 0;
            (sum, longest) = (sum + Math.Max(0, over), Math.Max(longest, over));
        }
    }

    /// <summary>What is done with a cohort, in its order.</summary>
    public static List<Step> Own(IEnumerable<Step> steps, int cohort) =>
        [.. steps.Where(step => step.Cohorts.Contains(cohort)).OrderBy(step => step.Start)];

    /// <summary>The points of an arrangement that is written as what the teachers do.</summary>
    public static long Of(LessonFacts facts, IReadOnlyCollection<Step> steps) =>
        OfWhatIsThere(facts, steps, Led) + steps.Sum(step => OfStep(facts, step));

    /// <summary>Of those the points for what weighs most: whether everything is there, how long everybody is led and left alone,
    /// who is looked at. Not who comes how often, nor when.</summary>
    public static long OfNeeds(LessonFacts facts, IReadOnlyCollection<Step> steps) =>
        OfWhatIsThere(facts, steps, Needs);

    private static long OfWhatIsThere(
        LessonFacts facts,
        IReadOnlyCollection<Step> steps,
        Func<LessonFacts, List<Step>, int, long> ofCohort
    )
    {
        var there = steps.Select(step => step.Task?.Key).OfType<string>().ToHashSet();
        return facts.Problem.Tasks.Where(task => !there.Contains(task.Key)).Sum(task => (long)LeftOut(task.Kind))
            + Enumerable
                .Range(0, facts.Problem.Cohorts.Count)
                .Sum(cohort =>
                {
                    var own = Own(steps, cohort);
                    return ofCohort(facts, own, cohort) + ((long)TooLongIn(facts, own, cohort).Longest * TooLong);
                });
    }

    /// <summary>What it costs by itself that something is done, and when; and that it stood otherwise.</summary>
    public static long OfStep(LessonFacts facts, Step step) =>
        OfStep(facts, step.Task, step.Cohorts[0], step.Start, step.Teacher);

    /// <param name="task">Null for a visit.</param>
    /// <param name="cohort">The one, or the first of those who do it together.</param>
    public static long OfStep(LessonFacts facts, LessonTask? task, int cohort, int start, int teacher) =>
        (task is null ? Visit : 0)
        + ((start - facts.Begins) * Later(task?.Kind))
        + (facts.Stood?.Cost(task, cohort, start, teacher) ?? 0);

    /// <summary>What a cohort's lesson costs, but for what it is alone too long.</summary>
    /// <param name="own">What is done with it, in its order.</param>
    public static long Led(LessonFacts facts, List<Step> own, int cohort)
    {
        var points = Needs(facts, own, cohort);
        for (var at = 0; at < own.Count; at++)
        {
            if (IsFirstOf(own[at].Teacher, at))
            {
                points += facts.OneMore[own[at].Teacher][cohort];
            }
        }

        return points;

        bool IsFirstOf(int teacher, int place)
        {
            for (var at = 0; at < place; at++)
            {
                if (own[at].Teacher == teacher)
                {
                    return false;
                }
            }

            return true;
        }
    }

    private static long Needs(LessonFacts facts, List<Step> own, int cohort)
    {
        var led = 0;
        foreach (var step in own)
        {
            led += step.Minutes;
        }

        return ((long)(facts.Window - led) * ByItself)
            + ((long)Math.Max(0, facts.Share[cohort] - led) * LessThanItsShare)
            + ((long)Math.Max(0, facts.Problem.Cohorts[cohort].Due - SeenIn(facts, own)) * Unseen);
    }

    /// <summary>How many people can be looked at in what is done with a cohort.</summary>
    public static int SeenIn(LessonFacts facts, List<Step> own)
    {
        var seen = 0;
        foreach (var step in own)
        {
            seen += facts.Problem.Rules.SeenIn(step.Task?.Kind ?? BlockKind.Visit, step.Minutes);
        }

        return seen;
    }
}
