using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>
/// Mends a lesson that somebody has changed: what still fits stays where it stood, and only the cohorts that something has
/// happened to are arranged anew, one after the other, beside what the teachers do with the others. Where one of them takes
/// a teacher from another cohort, that one is next.
/// </summary>
internal sealed class Rearranging
{
    private const int MostTimesEach = 10;

    /// <summary>How often more is moved where not everything has room.</summary>
    private const int Warmings = 2;

    /// <summary>What it costs, for a minute in points, to take a teacher from what they do.</summary>
    private const int FromATask = 3_000;
    private const int FromThoseNeverAlone = 1_500;
    private const int FromAVisit = 150;

    private readonly LessonFacts facts;
    private readonly LessonProblem problem;
    private readonly AsItStood stood;
    private readonly List<Step> steps = [];
    private readonly Queue<int> changed = new();
    private readonly int[] times;

    private Rearranging(LessonFacts facts, AsItStood stood) =>
        (this.facts, problem, this.stood, times) = (facts, facts.Problem, stood, new int[facts.Problem.Cohorts.Count]);

    /// <param name="facts">With how it stood.</param>
    /// <returns>Null where nothing stood, or where it is better begun anew.</returns>
    public static IReadOnlyList<Step>? Of(LessonFacts facts) =>
        facts.Stood is { } stood ? new Rearranging(facts, stood).Run() : null;

    /// <summary>All of it as it stood; null where something cannot stay.</summary>
    public static IReadOnlyList<Step>? Unmoved(LessonFacts facts)
    {
        if (facts.Stood is not { } stood)
        {
            return null;
        }

        var same = new Rearranging(facts, stood);
        same.StayWhatCan();
        return Enumerable.Range(0, facts.Problem.Cohorts.Count).All(same.Stands) ? same.steps : null;
    }

    /// <summary>Where not everything has room so near, a little further away.</summary>
    public static IReadOnlyList<Step> Around(LessonFacts facts, IReadOnlyList<Step> mended)
    {
        var best = mended;
        for (var warmth = 1; warmth <= Warmings && !LessonArranger.HasEverything(facts, best); warmth++)
        {
            var other = Annealing.Around(facts, mended, warmth);
            best = Measures.Of(facts, other) < Measures.Of(facts, best) ? other : best;
        }

        return best;
    }

    private List<Step>? Run()
    {
        StayWhatCan();
        if (problem.Tasks.Any(task => task.CohortIds.Count > 1 && !IsThere(task)))
        {
            return null;
        }

        foreach (
            var cohort in Enumerable.Range(0, problem.Cohorts.Count).Where(cohort => !Stands(cohort)).OrderBy(IsFree)
        )
        {
            changed.Enqueue(cohort);
        }

        while (changed.TryDequeue(out var cohort))
        {
            if (!Stands(cohort) && !Anew(cohort, ++times[cohort] <= MostTimesEach))
            {
                return null;
            }
        }

        return steps;

        // What is fixed by hand has its place before the others look for theirs.
        bool IsFree(int cohort) => !facts.Order[cohort].Any(task => facts.PinOf(task) is not null && !IsThere(task));
    }

    private void StayWhatCan()
    {
        foreach (
            var task in stood.Tasks.Select(AsFixed).OrderBy(task => IsFixed(task) ? 0 : 1).ThenBy(task => task.Start)
        )
        {
            Stay(task);
        }

        stood.Visits.ForEach(Stay);
    }

    private Step AsFixed(Step task)
    {
        var pin = facts.PinOf(task.Task!);
        var teacher = pin?.TeacherId is { } wanted
            ? problem.Teachers.Index().FirstOrDefault(its => its.Item.Id == wanted).Index
            : task.Teacher;
        return task.Later((pin?.Start ?? task.Start) - task.Start) with { Teacher = teacher };
    }

    private bool IsFixed(Step step) => step.Task is { } task && facts.PinOf(task) is not null;

    private bool IsThere(LessonTask task) => steps.Exists(step => step.Task?.Key == task.Key);

    /// <summary>Stays where nothing that stays already is in its way.</summary>
    private void Stay(Step step)
    {
        if (facts.MayBe(step) && !steps.Exists(other => other.Overlaps(step) && other.Excludes(step)))
        {
            steps.Add(step);
        }
    }

    /// <summary>Everything that is asked of it is there, and every rule is kept.</summary>
    private bool Stands(int cohort)
    {
        var own = Measures.Own(steps, cohort);
        return facts.Order[cohort].All(IsThere)
            && CohortRules.Allow(facts, cohort, own)
            && Measures.TooLongIn(facts, own, cohort).Sum == 0;
    }

    private bool Anew(int cohort, bool takes)
    {
        var others = steps.Where(step => !step.IsWith(cohort)).ToList();
        if (OneCohort.Best(facts, cohort, Prices(others, takes), steps, stood) is not { } own)
        {
            return false;
        }

        steps.RemoveAll(step => step.IsWith(cohort));
        foreach (
            var gone in others.Where(other => own.Exists(step => step.Teacher == other.Teacher && step.Overlaps(other)))
        )
        {
            steps.Remove(gone);
            foreach (var its in gone.Cohorts.Where(its => !changed.Contains(its)))
            {
                changed.Enqueue(its);
            }
        }

        steps.AddRange(own);
        return true;
    }

    private long[][] Prices(List<Step> others, bool takes) =>
        [
            .. problem.Teachers.Select(
                (teacher, at) =>
                {
                    var prices = new long[facts.Window];
                    for (var minute = 0; minute < prices.Length; minute++)
                    {
                        var its = facts.Begins + minute;
                        prices[minute] = its >= teacher.From && its < teacher.Until ? 0 : OneCohort.Forbidden;
                    }

                    foreach (var other in others.Where(other => other.Teacher == at))
                    {
                        for (var minute = other.Start; minute < other.End; minute++)
                        {
                            prices[minute - facts.Begins] = takes ? Price(other) : OneCohort.Forbidden;
                        }
                    }

                    return prices;
                }
            ),
        ];

    /// <summary>What has been taken from a cohort before is dearer.</summary>
    private long Price(Step step) =>
        step.Cohorts.Length > 1 || IsFixed(step)
            ? OneCohort.Forbidden
            : (1 + times[step.Cohorts[0]])
                * (
                    step.Task is not null ? FromATask
                    : facts.LongestAlone[step.Cohorts[0]] == 0 ? FromThoseNeverAlone
                    : FromAVisit
                );
}
