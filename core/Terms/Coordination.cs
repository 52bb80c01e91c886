namespace Zeitplan.Core.Terms;

/// <summary>
/// Brings the cohorts of a class together, which meet in the teachers' minutes and in what can be led together. Each is
/// planned against the rest, round by round, until nothing improves. Where somebody pays for the others, what is new is
/// planned first as if nothing were reviewed, since a unit left over outweighs all reviews: the teachers' seconds of
/// crowded lessons are given a price, raised until the cohorts spread of themselves (a Lagrangian relaxation, by
/// subgradients), and the reviews come into what each such plan leaves. Then two at a time are freed, all are improved
/// together, and of two that could be led together one is moved step by step with the other planned after it.
/// </summary>
internal sealed class Coordination(
    TermProblem problem,
    TermPlan? known,
    IProgress<double>? progress,
    CancellationToken cancel
)
{
    private const int Rounds = 6;
    private const int PriceSteps = 24;

    /// <summary>How many plans may be tried beyond the first rounds, counted in lessons × units: so that the time grows
    /// with the term and not faster. A count, not a clock, or the same problem would not give the same plan.</summary>
    private const long MostWork = 60_000;

    /// <summary>While an announced plan is mended from the one on the table: moves are dear then, so the best plan is
    /// near, and the head is waiting with the chip in hand.</summary>
    private const long MostWorkMending = 8_000;

    private readonly long mostWork =
        known is not null && problem.MovePoints >= PlanCost.MoveWhenMending ? MostWorkMending : MostWork;

    /// <summary>A plan with its reviews takes about so many times as long as one of introductions only.</summary>
    private const int ReviewsWork = 4;

    /// <summary>Placing the reviews of all cohorts for one try takes as long as this part of planning them.</summary>
    private const int TriesForOnePlan = 4;

    private readonly SharedMoments shared = new(problem);
    private readonly IReadOnlyList<IReadOnlyList<Review>> reviewsAfter = ReviewCalendar.Of([
        .. problem.Lessons.Select(lesson => lesson.Date),
    ]);

    private long work;

    /// <summary>What each cohort would pay with the class to itself.</summary>
    private readonly Dictionary<int, long> alone = [];

    public TermPlan Plan()
    {
        var usual = Enumerable
            .Range(0, problem.Cohorts.Count)
            .OrderByDescending(at => problem.Cohorts[at].AttendedLessons)
            .ThenByDescending(at => problem.Cohorts[at].Pins.Count > 0)
            .ThenBy(at => problem.Cohorts[at].TargetLesson)
            .ThenBy(at => at)
            .ToList();
        var best = Improve(usual, Begin(usual, null));
        if (Known() is { } earlier)
        {
            best = Better(best, Improve(usual, earlier));
        }

        progress?.Report(0.3);
        if (!usual.TrueForAll(at => IsAsGoodAsAlone(at, best[at]!)))
        {
            best = Priced(usual, best);
            progress?.Report(0.6);
            best = ImproveTogether(usual, ImprovePairs(usual, best));
        }

        progress?.Report(0.8);
        best = ImproveSteps(usual, best);
        progress?.Report(1);
        return Finished(best);
    }

    /// <summary>Gives what the teachers have left to lead-ins, then to run-throughs, then to watching: where it is
    /// short, the same to everybody.</summary>
    private TermPlan Finished(CohortPlan?[] plans)
    {
        var (used, lessons) = (Used(plans, -1), plans.Select(plan => plan!.Lessons.ToArray()).ToArray());
        for (var lesson = problem.FirstOpen; lesson < problem.Lessons.Count; lesson++)
        {
            var beside = Enumerable
                .Range(0, plans.Length)
                .Where(at => !problem.Cohorts[at].IsAttended(lesson))
                .ToList();
            var spare = problem.Lessons[lesson].TeacherSeconds - used[lesson];
            var leadIns = Spread(
                spare,
                [.. beside.Select(at => lessons[at][lesson].TeacherSeconds > 0 ? 0 : lessons[at][lesson].LeadInSeconds)]
            );
            spare -= leadIns.Sum();
            var runThroughs = Spread(spare, [.. beside.Select(at => lessons[at][lesson].RunThroughSeconds)]);
            var watches = Spread(
                spare - runThroughs.Sum(),
                [
                    .. beside.Select(
                        (at, index) =>
                            runThroughs[index] < lessons[at][lesson].RunThroughSeconds
                                ? 0
                                : lessons[at][lesson].WatchSeconds
                    ),
                ]
            );
            foreach (var (index, at) in beside.Index())
            {
                var content = lessons[at][lesson] with
                {
                    LeadInSeconds =
                        lessons[at][lesson].TeacherSeconds > 0 ? lessons[at][lesson].LeadInSeconds : leadIns[index],
                    RunThroughSeconds = runThroughs[index],
                    WatchSeconds = watches[index],
                };
                lessons[at][lesson] = content with { TeacherSeconds = content.LedSeconds };
            }

            used[lesson] += leadIns.Sum() + runThroughs.Sum() + watches.Sum();
        }

        return new(
            [.. plans.Select((plan, at) => plan! with { Lessons = lessons[at] })],
            used,
            shared.Of(plans),
            shared.UnsharedPoints(plans)
        );
    }

    /// <summary>So much for each of what it wants that the sum stays within what is there, the least wish
    /// first.</summary>
    private static int[] Spread(int seconds, IReadOnlyList<int> wanted)
    {
        var given = new int[wanted.Count];
        var (left, waiting) = (seconds, wanted.Count);
        foreach (
            var (at, wish) in wanted
                .Index()
                .OrderBy(one => one.Item)
                .ThenBy(one => one.Index)
                .Select(one => (one.Index, one.Item))
        )
        {
            given[at] = Math.Min(wish, left / waiting--);
            left -= given[at];
        }

        return given;
    }

    /// <summary>The plan made earlier as it would be now; null where it cannot be kept as a whole.</summary>
    private CohortPlan?[]? Known()
    {
        if (
            known is null
            || !known.Cohorts.Select(plan => plan.CohortId).SequenceEqual(problem.Cohorts.Select(cohort => cohort.Id))
            || known.LedSeconds.Count != problem.Lessons.Count
        )
        {
            return null;
        }

        var plans = Promised(known);
        if (Enumerable.Range(0, plans.Length).All(at => IsAsItWas(plans, at)) && Overdrawn(plans) == 0)
        {
            return [.. plans.Select((plan, at) => CohortPlanner.Unchanged(RulesFor(at, Left(plans, at, null)), plan!))];
        }

        for (var at = 0; at < plans.Length; at++)
        {
            if (CohortPlanner.Again(RulesFor(at, Left(plans, at, null)), plans[at]!) is not { } again)
            {
                return null;
            }

            plans[at] = again;
        }

        return plans;
    }

    /// <summary>What a finished plan binds the teachers to. What they had left over was filled up in the end; it binds
    /// nobody.</summary>
    private CohortPlan?[] Promised(TermPlan plan) =>
        [
            .. plan.Cohorts.Zip(
                problem.Cohorts,
                (one, cohort) =>
                    one with
                    {
                        Lessons =
                        [
                            .. one.Lessons.Select(
                                (lesson, at) =>
                                    cohort.IsAttended(at)
                                        ? lesson
                                        : lesson with
                                        {
                                            TeacherSeconds = lesson.IntroduceSeconds + lesson.ReviewSeconds
                                                is > 0
                                                    and var led
                                                ? led + lesson.LeadInSeconds
                                                : 0,
                                        }
                            ),
                        ],
                    }
            ),
        ];

    /// <summary>The rules of one cohort's lessons, beside what a finished plan gives to the others.</summary>
    public static CohortLessonRules RulesBeside(SolvedTerm term, int cohort)
    {
        var coordination = new Coordination(term.Problem, null, null, default);
        return coordination.RulesFor(cohort, coordination.Left(coordination.Promised(term.Plan), cohort, null));
    }

    /// <summary>Whether a cohort's lessons still hold all of an earlier plan, its reviews where they are.</summary>
    private bool IsAsItWas(CohortPlan?[] plans, int at)
    {
        var (cohort, plan) = (problem.Cohorts[at], plans[at]!);
        return CohortPlanner.Again(RulesFor(at, Left(plans, at, null)), plan) is { } again
            && plan.Placements.Count + plan.LeftOver.Count == cohort.Units.Count
            && plan.Placements.Zip(again.Placements).All(pair => pair.First.Lesson == pair.Second.Lesson)
            && plan.Placements.All(placement =>
                placement.Reviews.Count + plan.Dropped.Count(dropped => dropped.Unit == placement.Unit)
                    == reviewsAfter[placement.Lesson].Count
                && placement.Reviews.All(review =>
                    review.Late
                    == problem.Lessons[review.Lesson].Date.DayNumber - problem.Lessons[placement.Lesson].Date.DayNumber
                        > (7 * review.WeeksAfter) + ReviewCalendar.ToleranceDays
                )
            )
            && Open.All(lesson =>
                plan.Lessons[lesson] is var now
                && again.Lessons[lesson].IntroduceSeconds == now.IntroduceSeconds
                && now.LeadInSeconds + now.IntroduceSeconds + now.OwnSeconds + now.ReviewSeconds
                    <= problem.Lessons[lesson].TeachableSeconds
            );
    }

    private CohortPlan?[] Begin(IReadOnlyList<int> order, double[]? prices)
    {
        var plans = new CohortPlan?[problem.Cohorts.Count];
        foreach (var at in order)
        {
            plans[at] = PlanOne(
                plans,
                at,
                known?.Cohorts.FirstOrDefault(plan => plan.CohortId == problem.Cohorts[at].Id),
                prices
            );
        }

        return plans;
    }

    /// <param name="prices">None, not null, to go on with introductions only.</param>
    private CohortPlan?[] Improve(IReadOnlyList<int> order, CohortPlan?[] plans, double[]? prices = null)
    {
        var total = Total(plans);
        for (var (round, better) = (0, true); better && round < Rounds; round++)
        {
            better = false;
            foreach (var at in order)
            {
                CohortPlan?[] tried = [.. plans];
                tried[at] = PlanOne(plans, at, plans[at], prices);
                if (Total(tried) is var cost && cost < total)
                {
                    (plans, total, better) = (tried, cost, true);
                }
            }
        }

        return plans;
    }

    /// <summary>Raises the price of crowded lessons and lowers that of others; the bound the prices prove says when
    /// nothing is left to gain.</summary>
    private CohortPlan?[] Priced(IReadOnlyList<int> usual, CohortPlan?[] best)
    {
        var (prices, free) = (new double[problem.Lessons.Count], new double[problem.Lessons.Count]);
        var taken = problem
            .Lessons.Select(
                (slot, lesson) => problem.Cohorts.Count(cohort => cohort.IsAttended(lesson)) * slot.TeachableSeconds
            )
            .ToArray();
        CohortPlan?[]? firm = null;
        for (var step = 1; step <= PriceSteps && work < mostWork / 2; step++)
        {
            List<int> order = [.. usual.Skip(step % usual.Count), .. usual.Take(step % usual.Count)];
            var tried = Begin(order, prices);
            for (var more = true; more && work < mostWork / 2; )
            {
                var improved = ImprovePairs(order, Improve(order, tried, free), free);
                (more, tried) = (Total(improved) < Total(tried), improved);
            }

            if (firm is null || Total(tried) < Total(firm))
            {
                firm = tried;
                best = Better(best, Improve(usual, WithReviewsCounted(tried)));
            }

            var (bound, over) = BoundUnder(prices, taken);
            var crowded = Open.Where(lesson => over[lesson] > 0 || prices[lesson] > 0).ToList();
            var length = crowded.Sum(lesson => (double)over[lesson] * over[lesson]);
            if (length == 0 || bound >= Total(firm))
            {
                break;
            }

            foreach (var lesson in crowded)
            {
                prices[lesson] = Math.Max(0, prices[lesson] + ((Total(firm) - bound) / length * over[lesson]));
            }
        }

        return best;
    }

    /// <summary>A plan of introductions only has paid for none of the reviews it leaves out.</summary>
    private CohortPlan?[] WithReviewsCounted(CohortPlan?[] plans) =>
        [.. plans.Select((plan, at) => plan! with { Cost = PlanCost.Of(problem, problem.Cohorts[at], plan) })];

    private IEnumerable<int> Open => Enumerable.Range(problem.FirstOpen, problem.Lessons.Count - problem.FirstOpen);

    /// <returns>What no set of introductions can undercut, and by how much each lesson would be overdrawn if every
    /// cohort took what suits it under the prices.</returns>
    private (double Bound, long[] Over) BoundUnder(double[] prices, int[] taken)
    {
        var over = problem.Lessons.Select((slot, lesson) => (long)taken[lesson] - slot.TeacherSeconds).ToArray();
        var bound = Open.Sum(lesson => prices[lesson] * over[lesson]);
        for (var at = 0; at < problem.Cohorts.Count; at++)
        {
            var (cohort, here) = (problem.Cohorts[at], at);
            var rules = RulesFor(
                at,
                LeftByOthers.Everything(
                    problem.Cohorts[at],
                    problem.Lessons.Select(
                        (slot, lesson) =>
                            slot.TeacherSeconds - (problem.Cohorts[here].IsAttended(lesson) ? 0 : taken[lesson])
                    ),
                    prices
                )
            );
            var (cost, lessonOf) = CohortPlanner.Bound(rules);
            bound += cost;
            foreach (var (unit, lesson) in lessonOf.Index().Skip(cohort.IntroducedIn.Count))
            {
                over[lesson] += rules.TeacherSecondsOf(lesson, unit);
            }
        }

        return (bound, over);
    }

    /// <summary>What one cohort gives up may be worth more to another: both are freed and planned anew, in either
    /// order.</summary>
    private CohortPlan?[] ImprovePairs(IReadOnlyList<int> order, CohortPlan?[] plans, double[]? prices = null)
    {
        foreach (
            var (one, other) in order.SelectMany(
                (one, index) => order.Skip(index + 1).SelectMany(other => new[] { (one, other), (other, one) })
            )
        )
        {
            // Nothing to gain where neither pays more than it would have to with the class to itself.
            if (work >= mostWork || (IsAsGoodAsAlone(one, plans[one]!) && IsAsGoodAsAlone(other, plans[other]!)))
            {
                continue;
            }

            CohortPlan?[] tried = [.. plans];
            (tried[one], tried[other]) = (null, null);
            tried[one] = PlanOne(tried, one, null, prices);
            tried[other] = PlanOne(tried, other, null, prices);
            plans = Better(plans, tried);
        }

        return plans;
    }

    /// <summary>Planned one after another, whoever comes first takes the minutes for all its reviews on time. Here all
    /// are free at once, and each gives way where that costs it less than it saves another.</summary>
    private CohortPlan?[] ImproveTogether(IReadOnlyList<int> order, CohortPlan?[] plans)
    {
        plans = ImproveTogetherFrom(plans, plans);
        for (var turn = 0; turn < order.Count && work < mostWork; turn++)
        {
            plans = ImproveTogetherFrom(plans, Begin([.. order.Skip(turn).Concat(order.Take(turn))], null));
        }

        return plans;

        CohortPlan?[] ImproveTogetherFrom(CohortPlan?[] best, CohortPlan?[] start)
        {
            var nobody = new CohortPlan?[plans.Length];
            var size = problem.Cohorts.Sum(cohort => problem.Lessons.Count * cohort.Units.Count) / TriesForOnePlan;
            var together = CohortPlanner.Together(
                [.. start.Select((_, at) => RulesFor(at, Left(nobody, at, null)))],
                [.. start.Select(plan => plan!)],
                () =>
                {
                    cancel.ThrowIfCancellationRequested();
                    return (work += size) < mostWork;
                }
            );
            return together is null ? best : Better(best, Improve(order, [.. together]));
        }
    }

    /// <summary>Two cohorts that could be led together, or are in each other's way, may each be best where it is, and
    /// both better elsewhere: one takes a step, the other is planned after it.</summary>
    private CohortPlan?[] ImproveSteps(IReadOnlyList<int> order, CohortPlan?[] plans)
    {
        for (var better = true; better && work < mostWork; )
        {
            better = false;
            foreach (
                var (one, other) in order.SelectMany(one =>
                    order.Where(other => other != one).Select(other => (one, other))
                )
            )
            {
                if (
                    !shared.HaveCommon(one, other)
                    && IsAsGoodAsAlone(one, plans[one]!)
                    && IsAsGoodAsAlone(other, plans[other]!)
                )
                {
                    continue;
                }

                foreach (
                    var moved in CohortPlanner.Neighbours(RulesFor(one, Left(plans, one, null)), plans[one]!).ToList()
                )
                {
                    if (work >= mostWork)
                    {
                        return plans;
                    }

                    CohortPlan?[] tried = [.. plans];
                    (tried[one], tried[other]) = (moved, null);
                    tried[other] = PlanOne(tried, other, plans[other]);
                    if (Total(tried) < Total(plans))
                    {
                        (plans, better) = (tried, true);
                        break;
                    }
                }
            }

            plans = better ? Improve(order, plans) : plans;
        }

        return plans;
    }

    private bool IsAsGoodAsAlone(int at, CohortPlan plan)
    {
        if (!alone.TryGetValue(at, out var cost))
        {
            alone[at] = cost = CohortPlanner
                .Plan(
                    RulesFor(
                        at,
                        LeftByOthers.Everything(
                            problem.Cohorts[at],
                            problem.Lessons.Select(slot => slot.TeacherSeconds)
                        )
                    ),
                    null,
                    cancel
                )
                .Cost;
        }

        return plan.Cost <= cost;
    }

    private CohortPlan PlanOne(CohortPlan?[] plans, int at, CohortPlan? before, double[]? prices = null) =>
        PlanUnder(at, Left(plans, at, prices), before);

    private CohortPlan PlanUnder(int at, LeftByOthers left, CohortPlan? before)
    {
        cancel.ThrowIfCancellationRequested();
        work += problem.Lessons.Count * (problem.Cohorts[at].Units.Count + 1) * (left.Prices is null ? ReviewsWork : 1);
        return CohortPlanner.Plan(RulesFor(at, left), before, cancel);
    }

    private CohortLessonRules RulesFor(int at, LeftByOthers left) =>
        new(problem, problem.Cohorts[at], reviewsAfter, left);

    private LeftByOthers Left(CohortPlan?[] plans, int at, double[]? prices) =>
        new(SecondsLeft(plans, at), shared.OfferedTo(at, plans), prices);

    private CohortPlan?[] Better(CohortPlan?[] one, CohortPlan?[] other) => Total(other) < Total(one) ? other : one;

    private long Total(CohortPlan?[] plans) =>
        plans.Sum(plan => plan!.Cost) + shared.UnsharedPoints(plans) + Overdrawn(plans);

    /// <summary>Whoever leaves a shared block may leave the others with more than the teachers have: such a set of
    /// plans is none.</summary>
    private long Overdrawn(CohortPlan?[] plans)
    {
        var used = Used(plans, -1);
        return Enumerable
            .Range(problem.FirstOpen, problem.Lessons.Count - problem.FirstOpen)
            .Any(lesson => used[lesson] > problem.Lessons[lesson].TeacherSeconds)
            ? PlanCost.PinBroken * 1000
            : 0;
    }

    /// <summary>The teachers' seconds the cohorts use, without one of them; what is led together is counted
    /// once.</summary>
    private int[] Used(CohortPlan?[] plans, int without)
    {
        CohortPlan?[] others = [.. plans.Select((plan, at) => at == without ? null : plan)];
        var used = shared.SavedSeconds(others);
        for (var lesson = 0; lesson < used.Length; lesson++)
        {
            used[lesson] = others.Sum(plan => plan?.Lessons[lesson].TeacherSeconds ?? 0) - used[lesson];
        }

        return used;
    }

    /// <summary>
    /// The teachers' seconds the others leave. A cohort that must be attended and is not planned yet has its seconds
    /// set aside, but not against another that must be attended too: whoever is planned first has somebody.
    /// </summary>
    private int[] SecondsLeft(CohortPlan?[] plans, int forCohort)
    {
        var (used, whole) = (
            Used(plans, forCohort),
            plans[forCohort] is null || !problem.Cohorts[forCohort].IsAttended(problem.FirstOpen)
                ? null
                : Used(plans, -1)
        );
        return
        [
            .. problem.Lessons.Select(
                (slot, lesson) =>
                    problem.Cohorts[forCohort].IsAttended(lesson) && whole is not null
                        // Others may have joined what this cohort is led in: they need nobody of their own as long as
                        // it stays where it is, and if it does not, the sum is checked.
                        ? slot.TeacherSeconds - (whole[lesson] - plans[forCohort]!.Lessons[lesson].TeacherSeconds)
                        : slot.TeacherSeconds
                            - used[lesson]
                            - problem
                                .Cohorts.Index()
                                .Where(other =>
                                    other.Index != forCohort
                                    && plans[other.Index] is null
                                    && other.Item.IsAttended(lesson)
                                    && !problem.Cohorts[forCohort].IsAttended(lesson)
                                )
                                .Sum(_ => slot.TeachableSeconds)
            ),
        ];
    }
}
