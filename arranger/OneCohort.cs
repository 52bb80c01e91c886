using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>
/// The lesson of one cohort beside what the teachers do with the others: the best there is, by going through all of them
/// minute by minute (dynamic programming). A state is a minute at which somebody has just done with the cohort, how many of
/// its tasks are over, and how many minutes it still has to practise before something new. What the others have of a
/// teacher has its price.
/// </summary>
internal sealed class OneCohort
{
    private const long Never = long.MaxValue / 4;

    private readonly LessonFacts facts;
    private readonly LessonProblem problem;
    private readonly CohortHere here;
    private readonly int cohort;
    private readonly IReadOnlyList<LessonTask> order;
    private readonly int longest;
    private readonly int owing;

    /// <summary>For each teacher what their minutes until one of the window cost together.</summary>
    private readonly long[][] prices;
    private readonly bool[] isKnown;
    private readonly Dictionary<string, Step> together;

    /// <summary>The least for every state, once somebody has just gone and once a cohort has practised since; and whence.</summary>
    private readonly long[] gone;
    private readonly long[] practised;
    private readonly (int State, int Teacher)[] goneFrom;
    private readonly int[] practisedFrom;

    /// <summary>What a visit costs that begins at the minute in hand, by its length; and who comes for that.</summary>
    private readonly long[] visits;
    private readonly int[] visitors;

    /// <summary>Nobody: it is left out.</summary>
    private const int Nobody = -1;

    private OneCohort(LessonFacts facts, int cohort, long[][] prices, IReadOnlyCollection<Step> steps, AsItStood stood)
    {
        (this.facts, this.cohort, problem, here) = (facts, cohort, facts.Problem, facts.Problem.Cohorts[cohort]);
        (order, longest) = (facts.Order[cohort], facts.LongestAlone[cohort]);
        owing = Math.Max(problem.Rules.PractiseAfterNew, here.StillToPractise);
        this.prices =
        [
            .. prices.Select(each =>
            {
                var until = new long[each.Length + 1];
                for (var at = 0; at < each.Length; at++)
                {
                    until[at + 1] = until[at] + each[at];
                }

                return until;
            }),
        ];
        isKnown =
        [
            .. problem.Teachers.Select(
                (_, teacher) =>
                    stood.Visits.Concat(stood.Tasks).Any(step => step.Teacher == teacher && step.IsWith(cohort))
            ),
        ];
        together = steps
            .Where(step => step.Cohorts.Length > 1 && step.IsWith(cohort))
            .ToDictionary(step => step.Task!.Key);
        var states = (facts.Window + 1) * (order.Count + 1) * (owing + 1);
        (gone, practised) = (new long[states], new long[states]);
        (goneFrom, practisedFrom) = (new (int, int)[states], new int[states]);
        (visits, visitors) = (new long[facts.Window + 1], new int[facts.Window + 1]);
        Array.Fill(gone, Never);
        Array.Fill(practised, Never);
    }

    /// <param name="prices">For each teacher what each minute of the window costs, points; <see cref="Forbidden"/> where it is
    /// not to be had.</param>
    /// <param name="steps">Where what it does together with others is: that stays.</param>
    /// <returns>Null where there is none that keeps the rules.</returns>
    public static List<Step>? Best(
        LessonFacts facts,
        int cohort,
        long[][] prices,
        IReadOnlyCollection<Step> steps,
        AsItStood stood
    ) => new OneCohort(facts, cohort, prices, steps, stood).Run();

    /// <summary>More than a whole lesson may cost.</summary>
    public const long Forbidden = 10_000_000;

    private int State(int minute, int over, int owed) => (((minute * (order.Count + 1)) + over) * (owing + 1)) + owed;

    private List<Step>? Run()
    {
        gone[State(0, 0, here.StillToPractise)] = 0;
        for (var minute = 0; minute <= facts.Window; minute++)
        {
            var (shortest, longestVisit) = Visits(minute);
            for (var over = 0; over <= order.Count; over++)
            {
                for (var owed = 0; owed <= owing; owed++)
                {
                    LeaveOut(minute, over, owed);
                    Practise(minute, over, owed);
                }

                Lead(minute, over);
                for (var owed = 0; owed <= owing; owed++)
                {
                    ComeBy(minute, over, owed, shortest, longestVisit);
                }
            }
        }

        var last = Enumerable
            .Range(0, owing + 1)
            .Select(owed => State(facts.Window, order.Count, owed))
            .MinBy(at => practised[at]);
        return practised[last] < Forbidden ? Way(last) : null;
    }

    private void LeaveOut(int minute, int over, int owed)
    {
        var from = State(minute, over, owed);
        if (over < order.Count && gone[from] < Never && !together.ContainsKey(order[over].Key))
        {
            Go(State(minute, over + 1, owed), gone[from] + Measures.LeftOut(order[over].Kind), from, Nobody);
        }
    }

    private void Practise(int minute, int over, int owed)
    {
        var from = State(minute, over, owed);
        if (gone[from] >= Never)
        {
            return;
        }

        Since(minute, owed, 0);
        for (var alone = CohortRules.ShortestPractice; longest > 0 && minute + alone <= facts.Window; alone++)
        {
            Since(minute + alone, Math.Max(0, owed - alone), alone + (minute == 0 ? facts.AloneFor[cohort] : 0));
        }

        void Since(int until, int owes, int alone)
        {
            var (to, cost) = (
                State(until, over, owes),
                gone[from] + (Math.Max(0, alone - longest) * (long)Measures.TooLong)
            );
            if (cost < practised[to])
            {
                (practised[to], practisedFrom[to]) = (cost, from);
            }
        }
    }

    private void Lead(int minute, int over)
    {
        if (over == order.Count || MustPractiseFirst(minute))
        {
            return;
        }

        var (task, start) = (order[over], facts.Begins + minute);
        var (isNew, ends) = (task.Kind == BlockKind.New, minute + facts.Staying(task));
        if (
            ends > facts.Window
            || (isNew && start >= problem.Minutes - problem.Rules.NoNewInLast)
            || (facts.PinOf(task)?.Start ?? start) != start
        )
        {
            return;
        }

        var waits = isNew && longest > 0;
        for (var teacher = 0; teacher < prices.Length; teacher++)
        {
            if (
                !facts.CanLead(teacher, task)
                || (together.TryGetValue(task.Key, out var its) && (its.Start != start || its.Teacher != teacher))
            )
            {
                continue;
            }

            var cost = Beginning(task, start, teacher) + prices[teacher][ends] - prices[teacher][minute];
            for (var owed = 0; owed <= (waits ? 0 : owing); owed++)
            {
                var from = State(minute, over, owed);
                if (practised[from] < Never)
                {
                    var owes = waits ? problem.Rules.PractiseAfterNew : owed;
                    Go(State(ends, over + 1, owes), practised[from] + cost, from, teacher);
                }
            }
        }
    }

    /// <summary>They are never alone, and what was new last is still to be practised with somebody there.</summary>
    private bool MustPractiseFirst(int minute) => minute == 0 && longest == 0 && here.StillToPractise > 0;

    /// <summary>What a visit of each length costs that begins at a minute, by whoever comes for least.</summary>
    /// <returns>The shortest and the longest there may be.</returns>
    private (int Least, int Most) Visits(int minute)
    {
        var least =
            longest > 0 ? problem.Rules.ShortestVisit(here.People)
            : MustPractiseFirst(minute) ? Math.Max(CohortRules.ShortestPractice, here.StillToPractise)
            : CohortRules.ShortestPractice;
        var most = Math.Min(longest > 0 ? problem.Rules.LongestVisit : facts.Window, facts.Window - minute);
        Array.Fill(visits, Never);
        for (var teacher = 0; teacher < prices.Length; teacher++)
        {
            if (!facts.MayLead[teacher][cohort])
            {
                continue;
            }

            var (beginning, price) = (Beginning(null, facts.Begins + minute, teacher), prices[teacher]);
            for (var minutes = least; minutes <= most; minutes++)
            {
                var cost = beginning - (minutes * (long)Measures.ByItself) + price[minute + minutes] - price[minute];
                if (cost < visits[minutes])
                {
                    (visits[minutes], visitors[minutes]) = (cost, teacher);
                }
            }
        }

        return (least, most);
    }

    private void ComeBy(int minute, int over, int owed, int least, int most)
    {
        var from = State(minute, over, owed);
        if (practised[from] >= Never)
        {
            return;
        }

        for (var minutes = least; minutes <= most; minutes++)
        {
            Go(State(minute + minutes, over, owed), practised[from] + visits[minutes], from, visitors[minutes]);
        }
    }

    /// <summary>What it costs that a teacher begins something at a minute, however long it takes.</summary>
    private long Beginning(LessonTask? task, int start, int teacher) =>
        Measures.OfStep(facts, task, cohort, start, teacher) + (isKnown[teacher] ? 0 : facts.OneMore[teacher][cohort]);

    private void Go(int to, long cost, int from, int teacher)
    {
        if (cost < gone[to])
        {
            (gone[to], goneFrom[to]) = (cost, (from, teacher));
        }
    }

    private List<Step> Way(int last)
    {
        List<Step> steps = [];
        var first = State(0, 0, here.StillToPractise);
        for (var at = practisedFrom[last]; at != first; )
        {
            var (from, teacher) = goneFrom[at];
            if (teacher == Nobody)
            {
                // What is left out comes from where somebody has just gone as well.
                at = from;
                continue;
            }

            var ((began, before), (ended, after)) = (Of(from), Of(at));
            var task = after > before ? order[before] : null;
            var cohorts = task is null ? [cohort] : facts.CohortsOf[task.Key];
            steps.Add(new(task, cohorts, facts.Begins + began, facts.Begins + ended, teacher));
            at = practisedFrom[from];
        }

        steps.Reverse();
        return steps;
    }

    /// <summary>The minute of a state, and how many tasks are over by then.</summary>
    private (int Minute, int Over) Of(int state)
    {
        var each = state / (owing + 1);
        return (each / (order.Count + 1), each % (order.Count + 1));
    }
}
