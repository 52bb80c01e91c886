using System.Globalization;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// Chooses the run-throughs and refreshes that keep what a cohort can do: each touched before it fades, at least cost
/// (domain.md 4.3, 4.5). Between two run-throughs every posture is a way of its own from touch to touch, so the cheapest
/// run-throughs are a shortest way over those; whatever no lesson has room for together then moves to where it costs
/// least.
/// </summary>
internal sealed class KeepingPlanner
{
    /// <summary>Before the first lesson: when everything was touched last.</summary>
    private const int Beginning = 0;
    private const long Impossible = long.MaxValue / 8;

    private readonly TermProblem problem;
    private readonly Keeping keeping;
    private readonly int[] room;

    /// <summary>For each posture and open lesson, whether it brings it for another reason.</summary>
    private readonly bool[][] anyway;

    /// <summary>The lessons still to be held are the nodes from 1; the node after them is the end of the term.</summary>
    private readonly List<int> lessons;

    /// <summary>For each posture, nodes it cannot be refreshed in: what is there already leaves no room.</summary>
    private readonly HashSet<int>[] forbidden;

    /// <summary>For each run, likewise.</summary>
    private readonly HashSet<int>[] forbiddenRuns;

    /// <summary>For each posture, nodes in which it is touched by a run-through that has been chosen.</summary>
    private readonly HashSet<int>[] inRun;

    /// <param name="room">Seconds of each lesson that are left for it.</param>
    /// <param name="isTouchedAnyway">Whether a lesson, by its index, brings a posture for another reason.</param>
    private KeepingPlanner(
        TermProblem problem,
        Keeping keeping,
        int[] room,
        Func<int, PostureSide, bool> isTouchedAnyway
    )
    {
        (this.problem, this.keeping, this.room) = (problem, keeping, room);
        lessons = [.. Enumerable.Range(problem.FirstOpen, problem.Lessons.Count - problem.FirstOpen)];
        anyway =
        [
            .. keeping.Postures.Select(kept =>
                lessons.Select(lesson => kept.HoldsDays is not null && isTouchedAnyway(lesson, kept.Of)).ToArray()
            ),
        ];
        (forbidden, inRun) = (Sets(keeping.Postures.Count), Sets(keeping.Postures.Count));
        forbiddenRuns = Sets(keeping.Runs.Count);
    }

    private int End => lessons.Count + 1;

    public static KeptPlan Plan(
        TermProblem problem,
        Keeping keeping,
        int[] room,
        Func<int, PostureSide, bool> isTouchedAnyway
    )
    {
        if (keeping.Postures.Count == 0 || problem.FirstOpen == problem.Lessons.Count)
        {
            return KeptPlan.Nothing;
        }

        var planner = new KeepingPlanner(problem, keeping, room, isTouchedAnyway);
        var cheapest = planner.Choose(withRuns: true);
        var bound = planner.CostOf(cheapest);
        var fitting = planner.Fitted(cheapest);
        var plan = planner.Write(fitting, bound);
        if (plan.Exact || keeping.Runs.Count == 0)
        {
            return plan;
        }

        var without = new KeepingPlanner(problem, keeping, room, isTouchedAnyway);
        var single = without.Write(without.Fitted(without.Choose(withRuns: false)), bound);
        return single.Cost < plan.Cost ? single : plan;
    }

    /// <summary>For each run and each posture the nodes it is gone through or refreshed in.</summary>
    private sealed record Choice(List<int>[] Runs, List<int>[] Refreshes);

    private Choice Choose(bool withRuns)
    {
        List<int>[] runs = [.. keeping.Runs.Select(_ => new List<int>())];
        foreach (var run in withRuns ? Enumerable.Range(0, runs.Length) : [])
        {
            runs[run] = CheapestRuns(run);
            Mark(run, runs[run]);
        }

        return new(runs, [.. Enumerable.Range(0, keeping.Postures.Count).Select(CheapestRefreshes)]);
    }

    private void Mark(int run, List<int> nodes)
    {
        foreach (var posture in keeping.Runs[run].Postures.Where(ComesBack))
        {
            inRun[posture].UnionWith(nodes);
        }
    }

    /// <summary>Takes out of every lesson what it has no room for beside the rest, where that costs least.</summary>
    private Choice Fitted(Choice choice)
    {
        foreach (var node in Enumerable.Range(1, lessons.Count))
        {
            while (Seconds(choice, node) > room[lessons[node - 1]])
            {
                choice = WithoutOneOf(choice, node);
            }
        }

        // What went elsewhere may be too much there.
        return Enumerable.Range(1, lessons.Count).All(node => Seconds(choice, node) <= room[lessons[node - 1]])
            ? choice
            : Fitted(choice);
    }

    private Choice WithoutOneOf(Choice choice, int node)
    {
        var refreshed = Enumerable
            .Range(0, keeping.Postures.Count)
            .Where(posture => choice.Refreshes[posture].Contains(node))
            .Select(posture =>
            {
                forbidden[posture].Add(node);
                var otherwise = CheapestRefreshes(posture);
                forbidden[posture].Remove(node);
                return (
                    Posture: posture,
                    Otherwise: otherwise,
                    Cost: CostOf(posture, otherwise) - CostOf(posture, choice.Refreshes[posture])
                );
            })
            .ToList();
        if (refreshed.Count > 0)
        {
            var (posture, otherwise, _) = refreshed.MinBy(its => its.Cost);
            forbidden[posture].Add(node);
            List<int>[] refreshes = [.. choice.Refreshes];
            refreshes[posture] = otherwise;
            return choice with { Refreshes = refreshes };
        }

        // Two run-throughs, then: the later one goes, and everything is chosen anew around that.
        forbiddenRuns[Array.FindLastIndex(choice.Runs, nodes => nodes.Contains(node))].Add(node);
        foreach (var nodes in inRun)
        {
            nodes.Clear();
        }

        return Choose(withRuns: true);
    }

    private int Seconds(Choice choice, int node) =>
        choice.Runs.Index().Where(run => run.Item.Contains(node)).Sum(run => keeping.Runs[run.Index].Seconds)
        + choice
            .Refreshes.Index()
            .Where(posture => posture.Item.Contains(node))
            .Sum(posture => keeping.Postures[posture.Index].Seconds);

    /// <summary>The nodes in which a run is gone through, where the refreshes between cost least with it.</summary>
    private List<int> CheapestRuns(int run)
    {
        // From every run-through to the next, what keeps each posture until then; a posture that is in two runs is kept
        // by the first.
        var between = new long[End + 1, End + 1];
        foreach (var posture in keeping.Runs[run].Postures.Where(ComesBack))
        {
            foreach (var from in Enumerable.Range(Beginning, End))
            {
                var (cost, _) = Ways(posture, from);
                for (var to = from + 1; to <= End; to++)
                {
                    between[from, to] += cost[to];
                }
            }
        }

        return Shortest(Step);

        long Step(int from, int to)
        {
            if (to == End)
            {
                return between[from, to];
            }

            var (seconds, left) = (keeping.Runs[run].Seconds, room[lessons[to - 1]]);
            return left < seconds || forbiddenRuns[run].Contains(to) ? Impossible : between[from, to] + seconds;
        }
    }

    private List<int> CheapestRefreshes(int posture)
    {
        var (_, before) = Ways(posture, Beginning);
        List<int> touched = [];
        for (var node = before[End]; node != Beginning; node = before[node])
        {
            touched.Add(node);
        }

        touched.Reverse();
        return [.. touched.Where(node => !IsFree(posture, node))];
    }

    /// <summary>From one touch of a posture, to every later node: the cost of what touches it between them, and the last
    /// touch on that way.</summary>
    private (long[] Cost, int[] Before) Ways(int posture, int from)
    {
        var (reached, before, touched) = (new long[End + 1], new int[End + 1], new long[End + 1]);
        for (var to = from + 1; to <= End; to++)
        {
            reached[to] = Impossible;
            for (var last = from; last < to; last++)
            {
                if (
                    touched[last] < Impossible
                    && touched[last] + Faded(posture, last, to) is var cost
                    && cost <= reached[to]
                )
                {
                    (reached[to], before[to]) = (cost, last);
                }
            }

            touched[to] = Math.Min(Impossible, reached[to] + PriceIn(posture, to));
        }

        return (reached, before);
    }

    private List<int> Shortest(Func<int, int, long> step)
    {
        var (cost, before) = (new long[End + 1], new int[End + 1]);
        for (var to = 1; to <= End; to++)
        {
            cost[to] = Impossible;
            for (var from = 0; from < to; from++)
            {
                if (
                    cost[from] < Impossible
                    && step(from, to) is var more
                    && more < Impossible
                    && cost[from] + more <= cost[to]
                )
                {
                    (cost[to], before[to]) = (cost[from] + more, from);
                }
            }
        }

        List<int> nodes = [];
        for (var node = before[End]; node != Beginning; node = before[node])
        {
            nodes.Add(node);
        }

        nodes.Reverse();
        return nodes;
    }

    private long PriceIn(int posture, int node)
    {
        if (node == End)
        {
            return Impossible;
        }

        var seconds = keeping.Postures[posture].Seconds;
        var hasRoom = room[lessons[node - 1]] >= seconds && !forbidden[posture].Contains(node);
        var price = hasRoom ? seconds : Impossible;
        return IsFree(posture, node) ? 0 : price;
    }

    private bool IsFree(int posture, int node) => inRun[posture].Contains(node) || anyway[posture][node - 1];

    /// <summary>What is told once is told by itself.</summary>
    private bool ComesBack(int posture) => keeping.Postures[posture].HoldsDays is not null;

    private long Faded(int posture, int last, int node) =>
        PlanCost.FadedDay * Math.Max(0, DayOf(node) - DueAfter(posture, last));

    /// <summary>The last day on which it is in time after a touch.</summary>
    private int DueAfter(int posture, int last)
    {
        var kept = keeping.Postures[posture];
        return (last == Beginning ? kept.Due : kept.DueAfter(DateOnly.FromDayNumber(DayOf(last)))).DayNumber;
    }

    private int DayOf(int node) =>
        (node == End ? problem.Lessons[^1] : problem.Lessons[lessons[node - 1]]).Date.DayNumber;

    private long CostOf(Choice choice) =>
        choice.Runs.Index().Sum(run => (long)run.Item.Count * keeping.Runs[run.Index].Seconds)
        + choice.Refreshes.Index().Sum(posture => CostOf(posture.Index, posture.Item));

    private long CostOf(int posture, List<int> refreshes) =>
        ((long)refreshes.Count * keeping.Postures[posture].Seconds)
        + Gaps(posture, refreshes).Sum(gap => PlanCost.FadedDay * Math.Max(0, DayOf(gap.Next) - gap.Due));

    /// <summary>Every touch with the day it was due by, the end of the term last.</summary>
    private IEnumerable<(int Next, int Due)> Gaps(int posture, List<int> refreshes)
    {
        var last = Beginning;
        foreach (
            var node in Enumerable
                .Range(1, lessons.Count)
                .Where(node => refreshes.Contains(node) || IsFree(posture, node))
                .Append(End)
        )
        {
            yield return (node, DueAfter(posture, last));
            last = node;
        }
    }

    private KeptPlan Write(Choice choice, long bound)
    {
        var cost = CostOf(choice);
        return new(
            [
                .. choice
                    .Runs.SelectMany((nodes, run) => nodes.Select(node => RunThrough(run, node)))
                    .Concat(
                        choice.Refreshes.SelectMany(
                            (nodes, posture) => nodes.Select(node => Refresh(posture, node, choice))
                        )
                    )
                    .OrderBy(refresh => refresh.Lesson),
            ],
            [
                .. choice.Refreshes.SelectMany(
                    (nodes, posture) =>
                        Gaps(posture, nodes)
                            .Where(gap => DayOf(gap.Next) > gap.Due)
                            .Select(gap => new NotKept(
                                posture,
                                DateOnly.FromDayNumber(gap.Due),
                                gap.Next == End ? null : lessons[gap.Next - 1]
                            ))
                ),
            ],
            cost,
            cost == bound && keeping.Runs.Count <= 1
        );
    }

    private Refresh RunThrough(int run, int node)
    {
        var its = keeping.Runs[run];
        return new(
            lessons[node - 1],
            null,
            run,
            its.Seconds,
            $"Once through keeps {its.Postures.Count} postures at less than a refresh of each."
        );
    }

    private Refresh Refresh(int posture, int node, Choice choice)
    {
        var kept = keeping.Postures[posture];
        var due = Gaps(posture, choice.Refreshes[posture]).First(gap => gap.Next == node).Due;
        return new(
            lessons[node - 1],
            posture,
            null,
            kept.Seconds,
            kept.Changed is { Difference: var difference }
                ? $"The school does it otherwise than they learned it: {difference}."
                : $"It {(due < DayOf(node) ? "has faded since" : "fades after")} {DateOnly.FromDayNumber(due).ToString("d MMMM", CultureInfo.InvariantCulture)}."
        );
    }

    private static HashSet<int>[] Sets(int count) => [.. Enumerable.Range(0, count).Select(_ => new HashSet<int>())];
}
