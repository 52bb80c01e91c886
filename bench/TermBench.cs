using System.Diagnostics;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Bench;

/// <summary>The term planner: its time on terms of several sizes, and its cost beside what CP-SAT proves no plan can
/// undercut.</summary>
internal static class TermBench
{
    private static readonly int Instances = Timing.Once ? 1 : 24;
    private static readonly TimeSpan ProofLimit = TimeSpan.FromSeconds(20);
    private static readonly TimeSpan SearchLimit = TimeSpan.FromSeconds(Timing.Once ? 2 : 60);

    public static void Run(TermProblem demo, Action<string, double, string> say)
    {
        Time("plan the demo's term", 30, () => TermPlanner.Plan(demo), say);
        Time(
            "plan 6 cohorts × 12 lessons × 16 units",
            30,
            Seeds(30).Select(seed => GeneratedTerm.Of(seed, 6, 12, 16)),
            say
        );

        var school = Seeds(4).Select(seed => GeneratedTerm.Of(seed, 3, 40, 60)).ToList();
        Time(
            "plan 12 cohorts in 4 classes × 40 lessons × 60 units",
            10,
            () => school.ForEach(term => TermPlanner.Plan(term)),
            say
        );
        say("the most memory used so far", Process.GetCurrentProcess().PeakWorkingSet64 / 1024.0 / 1024.0, "MB");
        foreach (var lessons in new[] { 10, 20, 40, 80 })
        {
            Time(
                $"plan 6 cohorts × {lessons} lessons × 16 units",
                5,
                Seeds(5).Select(seed => GeneratedTerm.Of(seed, 6, lessons, 16)),
                say
            );
        }

        Gaps(say);
        SideBySide("the demo's term", demo, say);
        foreach (var seed in Seeds(Timing.Once ? 1 : 10))
        {
            SideBySide($"term {seed} of 6 cohorts × 12 lessons × 16 units", GeneratedTerm.Of(seed, 6, 12, 16), say);
        }
    }

    /// <summary>Terms too large to prove: our plan beside the best the solver finds in its time.</summary>
    private static void SideBySide(string name, TermProblem term, Action<string, double, string> say)
    {
        var watch = Stopwatch.StartNew();
        var ours = TermPlanner.Plan(term).Cost;
        var taken = watch.Elapsed.TotalMilliseconds;
        var theirs = Yardstick.Solve(term, SearchLimit);
        say($"{name}, ours in {taken:0} ms", ours, "points");
        say($"{name}, CP-SAT in {theirs.Milliseconds:0} ms", theirs.Found ?? double.PositiveInfinity, "points");
    }

    private static void Gaps(Action<string, double, string> say)
    {
        List<double> gaps = [];
        for (var seed = 1; gaps.Count < Instances && seed < Instances * 3; seed++)
        {
            var (cohorts, lessons, units, staff) = (1 + (seed % 3), 6 + (seed % 5), 5 + (seed % 6), 1 + (seed % 2));
            var term = GeneratedTerm.Of(seed, cohorts, lessons, units, seed % 4 == 0 ? 45 : 60, staff, sharing: false);
            var proof = Yardstick.Solve(term, ProofLimit);
            var watch = Stopwatch.StartNew();
            var plan = TermPlanner.Plan(term);
            var taken = watch.Elapsed.TotalMilliseconds;
            var name = $"term {seed}: {cohorts} cohorts × {lessons} lessons × {units} units, {staff} staff";
            if (!proof.Proven)
            {
                say($"{name}, not proven within", proof.Milliseconds, "ms");
                continue;
            }

            gaps.Add(proof.Bound == 0 ? (plan.Cost == 0 ? 0 : 100) : 100.0 * (plan.Cost - proof.Bound) / proof.Bound);
            say(
                $"{name}, ours {taken:0.0} ms, CP-SAT {proof.Milliseconds:0} ms, {plan.Cost} of {proof.Bound:0} points, above the proven bound",
                gaps[^1],
                "%"
            );
        }

        say("terms proven", gaps.Count, "");
        say("above the proven bound, on average", gaps.Average(), "%");
        say("above the proven bound, at worst", gaps.Max(), "%");
    }

    private static IEnumerable<int> Seeds(int count) => Enumerable.Range(1, count);

    private static void Time(string name, int runs, Action run, Action<string, double, string> say) =>
        Say(name, Timing.Of(runs, run), say);

    /// <summary>Each term once, after a round to warm up on.</summary>
    private static void Time(string name, int runs, IEnumerable<TermProblem> terms, Action<string, double, string> say)
    {
        var next = 0;
        var all = terms.ToList();
        Say(name, Timing.Of(runs, () => TermPlanner.Plan(all[next++ % all.Count])), say);
    }

    private static void Say(string name, Timing timing, Action<string, double, string> say)
    {
        say($"{name}, p50", timing.P50, "ms");
        say($"{name}, p95", timing.P95, "ms");
    }
}
