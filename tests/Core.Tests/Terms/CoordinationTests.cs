using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests.Terms;

/// <summary>Cohorts that share the teachers, against trying everything, and against sharing reckoned naively.</summary>
public sealed class CoordinationTests
{
    /// <summary>Two cohorts that cannot both have what they want: what the planner finds is the best there is but for a
    /// few in a hundred.</summary>
    [Theory]
    [InlineData(4, 3, 1800)]
    [InlineData(5, 4, 1300)]
    public void Trying_everything_is_hardly_ever_better(int lessons, int units, int longest)
    {
        List<string> beaten = [];
        foreach (var seed in Enumerable.Range(1, Terms))
        {
            var problem = Small(seed, lessons, units, longest);
            var plan = TermPlanner.Plan(problem);
            PlanChecker.Check(problem, plan);
            var everything = new Everything(problem);
            if (everything.CheapestUpTo(plan.Cost) is var cheapest && plan.Cost > cheapest)
            {
                beaten.Add(
                    $"seed {seed}: {plan.Cost} of {cheapest}, {Say(everything.Best)} in place of {Say(plan.Cohorts.Select(cohort => cohort.Placements.Select(placement => placement.Lesson)))}"
                );
            }
        }

        Assert.True(beaten.Count <= Terms * 5 / 100, string.Join('\n', beaten));
    }

    private const int Terms = 150;

    public static TheoryData<int> Seeds() => [.. Enumerable.Range(1, 40)];

    [Fact]
    public void Who_can_wait_for_a_run_through_leaves_the_minutes_to_who_cannot()
    {
        // Ivory is through after the second lesson, so each lesson after it reviews everything; Fern is never through,
        // and whatever Ivory takes on time Fern has to drop.
        var fern = Material.Cohort(
            "Fern, newer",
            [.. Enumerable.Range(10, 9).Select(number => Material.Unit(number, counts: 5))],
            maxNew: 1
        );
        var ivory = Material.Cohort(
            "Ivory",
            [.. Enumerable.Range(1, 2).Select(number => Material.Unit(number, counts: 5))],
            maxNew: 1
        );
        var alone = new TermProblem(
            [.. Material.Lessons(6, staff: 1).Select(lesson => lesson with { TeachableSeconds = new(1260) })],
            [fern]
        );
        var dropped = TermPlanner.Plan(alone).Cohorts[0].Dropped.Count;
        var together = TermPlanner.Plan(alone with { Cohorts = [ivory, fern] });
        Assert.Equal(2, together.Cohorts[0].Placements.Count);
        Assert.Contains(
            together.Cohorts[0].Placements.SelectMany(placement => placement.Reviews),
            review => review.InRunThrough
        );
        Assert.True(together.Cohorts[1].Placements.Count >= 2);
        Assert.True(together.Cohorts[1].Dropped.Count <= dropped + 2);
        PlanChecker.Check(alone with { Cohorts = [ivory, fern] }, together);
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void Another_teacher_or_longer_lessons_never_make_a_plan_worse(int seed)
    {
        var problem = Small(seed);
        var plan = TermPlanner.Plan(problem);
        TermProblem With(Func<LessonSlot, LessonSlot> lesson) =>
            problem with
            {
                Lessons = [.. problem.Lessons.Select(lesson)],
            };
        Assert.True(TermPlanner.Plan(With(lesson => lesson with { Staff = lesson.Staff + 1 }), plan).Cost <= plan.Cost);
        Assert.True(
            TermPlanner
                .Plan(With(lesson => lesson with { TeachableSeconds = new(lesson.TeachableSeconds + 300) }), plan)
                .Cost <= plan.Cost
        );
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void What_is_led_together_is_what_a_naive_count_finds(int seed)
    {
        var random = new Random(seed);
        var pool = Enumerable
            .Range(1, 8)
            .Select(number => Material.Unit(number, random.Next(2, 8), random.Next(1, 4)))
            .ToList();
        var problem = new TermProblem(
            Material.Lessons(8, staff: random.Next(1, 4)),
            [
                .. Enumerable
                    .Range(0, random.Next(2, 5))
                    .Select(at =>
                        Material.Cohort(
                            $"Cohort {at}",
                            [.. pool.Skip(random.Next(3)).Take(random.Next(3, 6))],
                            attended: random.Next(3) == 0 ? 3 : 0
                        ) with
                        {
                            Mode = random.Next(4) == 0 ? Mode.Supported : Mode.Standing,
                        }
                    ),
            ]
        );
        var plan = TermPlanner.Plan(problem);
        var moments = problem
            .Cohorts.Zip(plan.Cohorts)
            .SelectMany(pair =>
                pair.Second.Placements.SelectMany(placement =>
                    placement
                        .Reviews.Where(review => !review.InRunThrough)
                        .Select(review =>
                            (
                                Cohort: pair.First,
                                review.Lesson,
                                pair.First.Units[placement.Unit].Of,
                                Seconds: pair.First.Units[placement.Unit].ReviewSeconds,
                                IsNew: false
                            )
                        )
                        .Prepend(
                            (
                                Cohort: pair.First,
                                placement.Lesson,
                                pair.First.Units[placement.Unit].Of,
                                Seconds: pair.First.Units[placement.Unit].IntroduceSeconds,
                                IsNew: true
                            )
                        )
                )
            )
            .ToList();
        var meetings = moments.GroupBy(moment => (moment.Lesson, moment.Of, moment.Cohort.Mode.Name)).ToList();
        Assert.Equal(
            meetings
                .Where(schoolClass => schoolClass.Count() > 1)
                .Select(schoolClass =>
                    (
                        schoolClass.Key.Lesson,
                        schoolClass.Key.Of.PostureId,
                        Longest: schoolClass.Max(moment => moment.Seconds),
                        Cohorts: string.Join(",", schoolClass.Select(moment => moment.Cohort.Id).Order())
                    )
                )
                .Order(),
            plan.Shared.Select(block =>
                    (block.Lesson, block.PostureId, block.Seconds, string.Join(",", block.CohortIds.Order()))
                )
                .Order()
        );
        Assert.Equal(
            meetings
                .Where(schoolClass =>
                    schoolClass.Count() == 1
                    && schoolClass.Single() is { IsNew: true } alone
                    && problem.Cohorts.Any(other =>
                        other.Id != alone.Cohort.Id
                        && other.Mode == alone.Cohort.Mode
                        && other.Units.Any(unit => unit.Of == alone.Of)
                    )
                )
                .Sum(schoolClass => PlanCost.UnsharedSecond * schoolClass.Single().Seconds),
            plan.UnsharedPoints
        );
    }

    [Fact]
    public void How_far_planning_has_come_only_rises_and_ends_with_all_of_it()
    {
        var reports = new Reports();
        TermPlanner.Plan(Small(37, lessons: 5, units: 4, longest: 1300), progress: reports);
        Assert.True(reports.Count > 2);
        Assert.Equal(reports.Order(), reports);
        Assert.Equal(1, reports[^1]);
    }

    private sealed class Reports : List<double>, IProgress<double>
    {
        public void Report(double value) => Add(value);
    }

    [Fact]
    public void A_cohort_of_nobody_and_a_term_of_no_lessons_are_answered()
    {
        var nobody = Material.Cohort("Slate", Material.Units(3)) with { People = 0 };
        var plan = TermPlanner.Plan(new(Material.Lessons(6), [nobody])).Cohorts[0];
        Assert.Equal(3, plan.Placements.Count);
        Assert.All(plan.Lessons, lesson => Assert.Equal(0, lesson.WatchSeconds));
        var none = TermPlanner.Plan(new([], [Material.Cohort("Ivory", Material.Units(3), target: -1)])).Cohorts[0];
        Assert.Equal(
            ["No lesson that can bring something new is left in the term."],
            none.LeftOver.Select(left => left.Because).Distinct()
        );
        Assert.Empty(TermPlanner.Plan(new(Material.Lessons(6), [])).Cohorts);
    }

    private static string Say(IEnumerable<IEnumerable<int>> lessonsOf) =>
        string.Join(" and ", lessonsOf.Select(lessons => string.Join(' ', lessons)));

    /// <summary>Two cohorts of up to so many things, short lessons, one teacher.</summary>
    private static TermProblem Small(int seed, int lessons = 4, int units = 3, int longest = 1800)
    {
        var random = new Random(seed);
        return new(
            [
                .. Material
                    .Lessons(lessons, staff: 1)
                    .Select(lesson =>
                        lesson with
                        {
                            Kind = LessonKind.Ordinary,
                            TeachableSeconds = new(random.Next(800, longest)),
                        }
                    ),
            ],
            [
                .. Enumerable
                    .Range(0, 2)
                    .Select(at =>
                        Material.Cohort(
                            $"Cohort {at}",
                            [
                                .. Enumerable
                                    .Range(1, random.Next(1, units + 1))
                                    .Select(number =>
                                        Material.Unit((10 * at) + number, random.Next(2, 7), random.Next(1, 4))
                                    ),
                            ],
                            maxNew: random.Next(1, 3),
                            target: random.Next(0, lessons)
                        )
                    ),
            ]
        );
    }

    /// <summary>Every way to introduce, and for each every way to review, from the rules of domain.md 4.3
    /// alone.</summary>
    private sealed class Everything(TermProblem problem)
    {
        private readonly IReadOnlyList<IReadOnlyList<Review>> after = ReviewCalendar.Of([
            .. problem.Lessons.Select(lesson => lesson.Date),
        ]);
        private long best;

        /// <summary>For each cohort, the lesson of each of its units in the cheapest way.</summary>
        public int[][] Best { get; private set; } = [];

        /// <summary>The least cost there is, as far as it is not above what somebody has found.</summary>
        public long CheapestUpTo(long found)
        {
            best = found;
            foreach (var first in Ways(problem.Cohorts[0], 0, []))
            {
                foreach (var second in Ways(problem.Cohorts[1], 0, []))
                {
                    Weigh([first, second]);
                }
            }

            return best;
        }

        /// <summary>For each unit that is introduced, its lesson.</summary>
        private IEnumerable<int[]> Ways(CohortProblem cohort, int from, int[] chosen)
        {
            yield return chosen;
            for (var lesson = from; chosen.Length < cohort.Units.Count && lesson < problem.Lessons.Count; lesson++)
            {
                var here = chosen
                    .Select((at, unit) => (at, unit))
                    .Where(one => one.at == lesson)
                    .Select(one => cohort.Units[one.unit])
                    .Append(cohort.Units[chosen.Length])
                    .ToList();
                if (here.Count <= (here.Exists(unit => unit.Difficulty >= 3) ? 1 : cohort.MaxNew))
                {
                    foreach (var way in Ways(cohort, lesson, [.. chosen, lesson]))
                    {
                        yield return way;
                    }
                }
            }
        }

        private void Weigh(int[][] lessonsOf)
        {
            var (time, teachers, led) = (
                new int[2][],
                problem.Lessons.Select(lesson => lesson.TeacherSeconds.Count).ToArray(),
                new bool[2][]
            );
            long cost = 0;
            List<(int Cohort, int Unit, int Due, int From)> reviews = [];
            for (var at = 0; at < 2; at++)
            {
                var (cohort, lessonOf) = (problem.Cohorts[at], lessonsOf[at]);
                (time[at], led[at]) = (
                    [.. problem.Lessons.Select(lesson => lesson.TeachableSeconds)],
                    new bool[problem.Lessons.Count]
                );
                for (var lesson = 0; lesson < problem.Lessons.Count; lesson++)
                {
                    var here = Enumerable.Range(0, lessonOf.Length).Where(unit => lessonOf[unit] == lesson).ToList();
                    var seconds = here.Sum(unit => cohort.Units[unit].IntroduceSeconds);
                    time[at][lesson] -= LeadIn(at, lesson, lessonsOf) + seconds + (240 * here.Count);
                    teachers[lesson] -= here.Count > 0 ? LeadIn(at, lesson, lessonsOf) + seconds : 0;
                    led[at][lesson] = here.Count > 0;
                    if ((here.Count > 0 && time[at][lesson] < 0) || teachers[lesson] < 0)
                    {
                        return;
                    }

                    cost +=
                        PlanCost.OfUnevenness(seconds, PlanCost.EvenShare(problem, cohort))
                        + here.Sum(unit => PlanCost.OfIntroducing(cohort, problem, unit, lesson));
                    reviews.AddRange(
                        here.SelectMany(unit =>
                            after[lesson]
                                .Select(review =>
                                    (at, unit, problem.Lessons[lesson].Date.DayNumber + (7 * review.WeeksAfter), lesson)
                                )
                        )
                    );
                }

                cost += Enumerable
                    .Range(lessonOf.Length, cohort.Units.Count - lessonOf.Length)
                    .Sum(unit => PlanCost.OfLeaving(cohort, problem, unit));
            }

            Review(0, cost, []);

            void Review(int next, long soFar, HashSet<(int, int, int)> taken)
            {
                if (soFar >= best)
                {
                    return;
                }

                if (next == reviews.Count)
                {
                    (best, Best) = (soFar, lessonsOf);
                    return;
                }

                var (at, unit, due, from) = reviews[next];
                var seconds = problem.Cohorts[at].Units[unit].ReviewSeconds;
                for (var lesson = from + 1; lesson < problem.Lessons.Count; lesson++)
                {
                    var away = problem.Lessons[lesson].Date.DayNumber - due;
                    var covered =
                        lessonsOf[at].Length == problem.Cohorts[at].Units.Count
                        && lessonsOf[at].All(introduced => introduced < lesson);
                    var (takes, leads) = (
                        covered ? 0 : seconds,
                        covered || led[at][lesson] ? 0 : LeadIn(at, lesson, lessonsOf)
                    );
                    if (
                        away < -7
                        || takes > Math.Max(0, time[at][lesson])
                        || (takes > 0 && takes + leads > teachers[lesson])
                        || !taken.Add((at, unit, lesson))
                    )
                    {
                        continue;
                    }

                    var was = led[at][lesson];
                    (time[at][lesson], teachers[lesson], led[at][lesson]) = (
                        time[at][lesson] - takes,
                        teachers[lesson] - takes - leads,
                        was || !covered
                    );
                    Review(next + 1, soFar + (away > 7 ? PlanCost.LateReviewSecond * seconds : 0), taken);
                    (time[at][lesson], teachers[lesson], led[at][lesson]) = (
                        time[at][lesson] + takes,
                        teachers[lesson] + takes + leads,
                        was
                    );
                    taken.Remove((at, unit, lesson));
                }

                Review(next + 1, soFar + (PlanCost.DroppedReviewSecond * seconds), taken);
            }
        }

        private static int LeadIn(int at, int lesson, int[][] lessonsOf) =>
            lessonsOf[at].Any(introduced => introduced < lesson) ? CohortProblem.LeadInSeconds : 0;
    }
}
