using System.Globalization;
using Google.OrTools.Sat;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>Puts a lesson's blocks on minutes and teachers (domain.md 4.4).</summary>
public static class LessonArranger
{
    private const int FirstTries = 8;

    /// <summary>How often it is begun anew where something has no room; less often where each takes long.</summary>
    private const int Beginnings = 9;
    private const int MostTries = 540_000;

    /// <summary>A lesson of so many cohorts is begun so often even where everything has room: nobody asks for it in a blink, and
    /// the best of several is nearer the bound.</summary>
    private const int Many = 8;
    private const int BeginningsOfMany = 6;

    /// <summary>Side by side, whatever the machine: what is found does not depend on it.</summary>
    private const int AtOnce = 2;

    /// <summary>What may be spent on finding an arrangement that has everything, where none came up. In units of work, not of
    /// time: the same problem gives the same arrangement on every machine.</summary>
    private const double FindingWork = 0.01;

    /// <param name="stood">How it was arranged before something about it was changed: whatever need not move stays as it
    /// was.</param>
    /// <returns>An arrangement of whatever can be arranged; what cannot is among its shortfalls.</returns>
    public static Arrangement Arrange(LessonProblem problem, Arrangement? stood = null)
    {
        var (facts, near) = (new LessonFacts(problem), new LessonFacts(problem, stood?.Blocks));
        if (Rearranging.Of(near) is not { } mended)
        {
            return Write(facts, Anew(facts));
        }

        mended = Annealing.Finished(near, mended);
        if (HasEverything(near, mended))
        {
            return Write(near.InItself(), mended);
        }

        // It may be that nothing else has room either; whoever waits in the hall does not wait for one and then for the other.
        var anew = mended;
        Parallel.Invoke(() => mended = Rearranging.Around(near, mended), () => anew = Anew(facts));
        return Undone(near, mended) <= Undone(facts, anew) ? Write(near.InItself(), mended) : Write(facts, anew);
    }

    /// <summary>A lesson that asks for the same as before, but for how many are due a look: it stays, judged anew.</summary>
    /// <param name="stood">As it was arranged.</param>
    /// <returns>Null where it cannot stay, and where somebody who is due would have no look.</returns>
    public static Arrangement? Unmoved(LessonProblem problem, Arrangement stood)
    {
        var facts = new LessonFacts(problem, stood.Blocks);
        return
            Rearranging.Unmoved(facts) is { } steps
            && Enumerable
                .Range(0, problem.Cohorts.Count)
                .All(cohort => Measures.SeenIn(facts, Measures.Own(steps, cohort)) >= problem.Cohorts[cohort].Due)
            ? Write(facts.InItself(), steps)
            : null;
    }

    private static IReadOnlyList<Step> Anew(LessonFacts facts)
    {
        var steps = Search(facts, Beginnings);
        if (!HasEverything(facts, steps) && Find(facts) is { } found)
        {
            steps = Annealing.Of(facts, found, 1);
        }

        return Annealing.Finished(facts, steps);
    }

    /// <summary>Whether everything has room, and what has none, without asking whether there is really no other way: to try
    /// many lessons.</summary>
    internal static Arrangement Roughly(LessonProblem problem)
    {
        var facts = new LessonFacts(problem);
        return Write(facts, Search(facts, 2));
    }

    /// <summary>The best of several searches; as soon as one has everything, none is begun any more that need not be.</summary>
    private static IReadOnlyList<Step> Search(LessonFacts facts, int most)
    {
        var first = FirstArrangement.Best(facts, FirstTries);
        var best = first;
        var least = facts.Problem.Cohorts.Count >= Many ? Math.Min(BeginningsOfMany, most) : 1;
        var beginnings = Math.Clamp(MostTries / Annealing.Tries(facts), least, most);
        foreach (var seeds in Enumerable.Range(1, beginnings).Chunk(AtOnce))
        {
            var found = new IReadOnlyList<Step>[seeds.Length];
            Parallel.For(0, seeds.Length, at => found[at] = Annealing.Of(facts, first, seeds[at]));
            best = found.Append(best).MinBy(steps => Measures.Of(facts, steps))!;
            if (seeds[^1] >= least && HasEverything(facts, best))
            {
                break;
            }
        }

        return best;
    }

    private static Arrangement Write(LessonFacts facts, IReadOnlyList<Step> steps)
    {
        var points = Measures.Of(facts, steps);
        return ArrangementWriter.Write(facts, steps, points, Math.Min(points, LowestPoints.Of(facts))) with
        {
            MeetsNeedsBest = Measures.OfNeeds(facts, steps) <= LowestPoints.OfNeeds(facts),
        };
    }

    /// <summary>As a careful teacher would arrange it on paper, at the first try: what the program is measured
    /// beside.</summary>
    public static Arrangement OnPaper(LessonProblem problem)
    {
        var facts = new LessonFacts(problem);
        return Write(facts, FirstArrangement.Best(facts, 1));
    }

    /// <summary>Whatever is asked is there, and nobody is alone for longer than they may be.</summary>
    internal static bool HasEverything(LessonFacts facts, IReadOnlyList<Step> steps) => Undone(facts, steps) == 0;

    /// <summary>What it costs that not everything has room, points.</summary>
    private static long Undone(LessonFacts facts, IReadOnlyList<Step> steps) =>
        facts
            .Problem.Tasks.Where(task => !steps.Any(step => step.Task?.Key == task.Key))
            .Sum(task => (long)Measures.LeftOut(task.Kind))
        + Enumerable
            .Range(0, facts.Problem.Cohorts.Count)
            .Sum(cohort =>
                (long)Measures.TooLong * Measures.TooLongIn(facts, Measures.Own(steps, cohort), cohort).Longest
            );

    /// <summary>An arrangement that has everything, whatever it costs otherwise; null where there is none, or none was found.</summary>
    internal static IReadOnlyList<Step>? Find(LessonFacts facts)
    {
        var lesson = new LessonModel(facts);
        var solver = new CpSolver
        {
            StringParameters = string.Create(
                CultureInfo.InvariantCulture,
                $"num_search_workers:1, random_seed:1, cp_model_probing_level:0, max_presolve_iterations:1, symmetry_level:0, linearization_level:0, search_branching:PORTFOLIO_SEARCH, max_deterministic_time:{FindingWork}"
            ),
        };
        return solver.Solve(lesson.Model) is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? lesson.Steps(solver)
            : null;
    }
}
