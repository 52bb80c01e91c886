using System.Globalization;
using Google.OrTools.Sat;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>Puts a lesson's blocks on minutes and teachers (domain.md 4.4).</summary>
public static class LessonArranger
{
    private const int Tries = 40;
    private const int Polishing = 4000;

    /// <summary>What may be spent on finding an arrangement that has everything, and on making it better. In units of work, not
    /// of time: the same problem gives the same arrangement on every machine.</summary>
    private const double FindingWork = 0.08;
    private const double BetteringWork = 0.03;

    /// <returns>An arrangement of whatever can be arranged; what cannot is among its shortfalls.</returns>
    public static Arrangement Arrange(LessonProblem problem)
    {
        var facts = new LessonFacts(problem);
        var steps = FirstArrangement.Best(facts, Tries);
        if (!HasEverything(facts, steps) && Find(facts) is { } found)
        {
            steps = found;
        }

        steps = Polish.Of(facts, steps, Polishing);
        var (better, bound) = Better(facts, steps);
        var points = Measures.Of(facts, steps);
        return better is not null && Measures.Of(facts, better) is var fewer && fewer < points
            ? ArrangementWriter.Write(facts, better, fewer, bound)
            : ArrangementWriter.Write(facts, steps, points, Math.Min(points, bound));
    }

    /// <summary>Whether everything has room, and what has none, without making it good: to try many lessons.</summary>
    internal static Arrangement Roughly(LessonProblem problem)
    {
        var facts = new LessonFacts(problem);
        var steps = FirstArrangement.Best(facts, Tries);
        if (!HasEverything(facts, steps))
        {
            steps = Find(facts) ?? Polish.Of(facts, steps, Polishing / 4);
        }

        return ArrangementWriter.Write(facts, steps, Measures.Of(facts, steps), 0);
    }

    /// <summary>As a careful teacher would arrange it on paper, at the first try: what the program is measured
    /// beside.</summary>
    public static Arrangement OnPaper(LessonProblem problem)
    {
        var facts = new LessonFacts(problem);
        var steps = FirstArrangement.Best(facts, 1);
        return ArrangementWriter.Write(facts, steps, Measures.Of(facts, steps), 0);
    }

    /// <summary>Whatever is asked is there, and nobody is alone for longer than they may be.</summary>
    private static bool HasEverything(LessonFacts facts, IReadOnlyList<Step> steps) =>
        facts.Problem.Tasks.All(task => steps.Any(step => step.Task?.Key == task.Key))
        && Enumerable
            .Range(0, facts.Problem.Cohorts.Count)
            .All(cohort => Measures.LongestAlone(facts, steps, cohort) <= facts.LongestAlone[cohort]);

    /// <summary>An arrangement that has everything, whatever it costs otherwise; null where there is none, or none was found.</summary>
    private static IReadOnlyList<Step>? Find(LessonFacts facts)
    {
        var lesson = new LessonModel(facts, [], everything: true);
        var solver = Solver(FindingWork, "linearization_level:0, search_branching:PORTFOLIO_SEARCH");
        return solver.Solve(lesson.Model) is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? lesson.Steps(solver)
            : null;
    }

    /// <summary>What the solver makes better, and what no arrangement can undercut.</summary>
    private static (IReadOnlyList<Step>? Steps, long Bound) Better(LessonFacts facts, IReadOnlyList<Step> first)
    {
        var lesson = new LessonModel(facts, first, everything: HasEverything(facts, first));
        new Preferences(lesson).Apply();
        var solver = Solver(BetteringWork, "linearization_level:2");
        var found = solver.Solve(lesson.Model) is CpSolverStatus.Optimal or CpSolverStatus.Feasible;
        return (found ? lesson.Steps(solver) : null, (long)Math.Max(0, Math.Ceiling(solver.BestObjectiveBound - 1e-6)));
    }

    private static CpSolver Solver(double work, string how) =>
        new()
        {
            StringParameters = string.Create(
                CultureInfo.InvariantCulture,
                $"num_search_workers:1, random_seed:1, cp_model_probing_level:0, max_presolve_iterations:1, symmetry_level:0, max_deterministic_time:{work}, {how}"
            ),
        };
}
