using System.Text.Json;
using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;

namespace Zeitplan.Core.Tests.Terms;

public sealed class TermPlannerTests
{
    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 150)]
    public void A_plan_keeps_every_hard_rule_and_says_what_does_not_fit(TermProblem problem) =>
        PlanChecker.Check(problem, TermPlanner.Plan(problem));

    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 60)]
    public void A_plan_made_from_an_earlier_one_is_never_worse(TermProblem problem)
    {
        var first = TermPlanner.Plan(problem);
        Assert.True(TermPlanner.Plan(problem, first).Cost <= first.Cost);
    }

    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 60)]
    public void What_is_announced_stays_where_nothing_speaks_against_it(TermProblem problem)
    {
        var free = problem with { Cohorts = [.. problem.Cohorts.Select(cohort => cohort with { Pins = [] })] };
        var announced = TermPlanner.Plan(free);
        var again = TermPlanner.Plan(
            free with
            {
                MovePoints = PlanCost.MoveWhenMending,
                Cohorts =
                [
                    .. free.Cohorts.Zip(
                        announced.Cohorts,
                        (cohort, plan) =>
                            cohort with
                            {
                                Announced =
                                [
                                    .. cohort.Units.Select(
                                        (_, unit) =>
                                            unit < plan.Placements.Count ? plan.Placements[unit].Lesson : (int?)null
                                    ),
                                ],
                            }
                    ),
                ],
            },
            announced
        );
        Assert.True(again.Cost <= announced.Cost);
    }

    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 60)]
    public void A_unit_put_into_the_lesson_it_is_in_anyway_moves_nothing(TermProblem problem)
    {
        var alone = problem with { Cohorts = [problem.Cohorts[0] with { Pins = [] }] };
        var plan = TermPlanner.Plan(alone).Cohorts[0];
        var open = plan.Placements.Where(placement => !alone.Lessons[placement.Lesson].Held).ToList();
        var pinned = alone with
        {
            Cohorts =
            [
                alone.Cohorts[0] with
                {
                    Pins = [.. open.Select(placement => new Pin(placement.Unit, placement.Lesson))],
                },
            ],
        };
        Assert.Equal(
            plan.Placements.Select(placement => placement.Lesson),
            TermPlanner.Plan(pinned).Cohorts[0].Placements.Select(placement => placement.Lesson)
        );
    }

    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 40)]
    public void The_same_problem_gives_the_same_plan(TermProblem problem) =>
        Assert.Equal(Text(TermPlanner.Plan(problem)), Text(TermPlanner.Plan(problem)));

    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 60)]
    public void Another_teacher_leaves_no_single_cohort_worse_off(TermProblem problem)
    {
        // A pin that only the help makes possible holds its place, and may cost others theirs.
        var alone = problem with
        {
            Cohorts = [problem.Cohorts[0] with { Pins = [] }],
        };
        var helped = alone with
        {
            Lessons = [.. alone.Lessons.Select(lesson => lesson with { Staff = lesson.Staff + 1 })],
        };
        Assert.True(
            TermPlanner.Plan(helped).Cohorts[0].LeftOver.Count <= TermPlanner.Plan(alone).Cohorts[0].LeftOver.Count
        );
    }

    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 60)]
    public void One_lesson_more_never_leaves_more_over(TermProblem problem)
    {
        var alone = problem with { Cohorts = [problem.Cohorts[0] with { TargetLesson = 99, Pins = [] }] };
        var open = problem.Lessons.TakeWhile(lesson => lesson.Held).Count();
        var cohort = alone.Cohorts[0];
        var longer = alone with
        {
            Lessons =
            [
                .. alone.Lessons.Take(open),
                alone.Lessons[open] with
                {
                    Kind = LessonKind.Ordinary,
                },
                .. alone.Lessons.Skip(open).Select(lesson => lesson with { Date = lesson.Date.AddDays(7) }),
            ],
            // What is taught again goes with its lesson.
            Cohorts =
            [
                cohort with
                {
                    Again = cohort.Again.Count == 0 ? [] : [.. cohort.Again.Take(open + 1), .. cohort.Again.Skip(open)],
                },
            ],
        };
        Assert.True(
            TermPlanner.Plan(longer).Cohorts[0].LeftOver.Count <= TermPlanner.Plan(alone).Cohorts[0].LeftOver.Count
        );
    }

    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 60)]
    public void What_a_cohort_is_called_does_not_change_its_plan(TermProblem problem)
    {
        var renamed = problem with
        {
            Cohorts =
            [
                .. problem.Cohorts.Select((cohort, at) => cohort with { Name = $"Cohort {at}", Id = Guid.NewGuid() }),
            ],
        };
        Assert.Equal(TermPlanner.Plan(problem).LedSeconds, TermPlanner.Plan(renamed).LedSeconds);
        Assert.Equal(TermPlanner.Plan(problem).Cost, TermPlanner.Plan(renamed).Cost);
    }

    [Fact]
    public void A_run_through_begins_at_the_beginning_and_grows_with_what_is_known()
    {
        var cohort = Material.Cohort("Fern, newer", Material.Units(5)) with
        {
            Before = [new(Guid.NewGuid(), Core.Forms.Side.Left)],
            BeforeSeconds = new(40),
        };
        var lessons = TermPlanner.Plan(new(Material.Lessons(9), [cohort])).Cohorts[0].Lessons;
        Assert.Equal(40, lessons[0].RunThroughSeconds);
        Assert.All(
            lessons.Zip(lessons.Skip(1)),
            pair => Assert.True(pair.First.RunThroughSeconds <= pair.Second.RunThroughSeconds)
        );
        Assert.Equal(40 + cohort.Units.Sum(unit => unit.RunThroughSeconds), lessons[^1].RunThroughSeconds);
    }

    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 60)]
    public void Planning_on_after_a_lesson_held_as_planned_changes_nothing(TermProblem problem)
    {
        var open = problem with
        {
            Lessons = [.. problem.Lessons.Select(lesson => lesson with { Held = false })],
            Cohorts = [problem.Cohorts[0] with { IntroducedIn = [], AttendedLessons = 0 }],
        };
        var first = TermPlanner.Plan(open).Cohorts[0];
        var held = open with
        {
            Lessons = [.. open.Lessons.Select((lesson, at) => lesson with { Held = at == 0 })],
            Cohorts =
            [
                open.Cohorts[0] with
                {
                    IntroducedIn =
                    [
                        .. first
                            .Placements.Where(placement => placement.Lesson == 0)
                            .Select(placement => placement.Lesson),
                    ],
                },
            ],
        };
        var second = TermPlanner.Plan(held).Cohorts[0];
        Assert.Equal(first.LeftOver.Count, second.LeftOver.Count);
    }

    [Fact]
    public void A_plan_holds_while_lessons_go_as_planned_and_no_longer_when_one_does_not()
    {
        var planned = new TermProblem(Material.Lessons(8), [Material.Cohort("Fern, newer", Material.Units(5))]);
        var plan = TermPlanner.Plan(planned);
        TermProblem After(int held, params int[] introducedIn) =>
            new(
                [.. planned.Lessons.Select((lesson, at) => lesson with { Held = at < held })],
                [planned.Cohorts[0] with { IntroducedIn = introducedIn }]
            );
        Assert.True(PlanInForce.StillHolds(planned, plan, planned));
        Assert.True(PlanInForce.StillHolds(planned, plan, After(2, 0, 1)));
        Assert.False(PlanInForce.StillHolds(planned, plan, After(2, 0)));
        Assert.False(PlanInForce.StillHolds(planned, plan, After(2, 0, 1, 1)));
        Assert.False(
            PlanInForce.StillHolds(planned, plan, planned with { Cohorts = [planned.Cohorts[0] with { People = 7 }] })
        );
        Assert.False(
            PlanInForce.StillHolds(
                planned,
                plan,
                planned with
                {
                    Cohorts = [planned.Cohorts[0] with { Again = [new(0), new(300)] }],
                }
            )
        );
        Assert.False(
            PlanInForce.StillHolds(
                planned,
                plan,
                planned with
                {
                    Lessons = [.. planned.Lessons.Select(lesson => lesson with { Staff = 1 })],
                }
            )
        );
        Assert.False(
            PlanInForce.StillHolds(
                planned,
                plan,
                planned with
                {
                    Cohorts = [planned.Cohorts[0] with { Units = Material.Units(5) }],
                }
            )
        );
    }

    [Fact]
    public void The_search_finds_what_trying_everything_finds()
    {
        // One cohort, tight minutes: 75 teachable minutes shared with a cohort that is attended, 6 units, 7 lessons.
        var problem = new TermProblem(
            [
                .. Material
                    .Lessons(7, staff: 1)
                    .Select((lesson, at) => lesson with { TeachableSeconds = new(at % 2 == 0 ? 1100 : 700) }),
            ],
            [
                Material.Cohort(
                    "Fern, newer",
                    [
                        .. Enumerable
                            .Range(1, 6)
                            .Select(number =>
                                Material.Unit(number, counts: 3 + (number % 3), difficulty: 1 + (number % 2))
                            ),
                    ],
                    target: 3
                ),
            ]
        );
        var plan = TermPlanner.Plan(problem).Cohorts[0];
        var cheapest = BruteForce(problem).Min();
        Assert.Equal(cheapest, plan.Cost);
    }

    [Property(MaxTest = 60)]
    public void What_is_called_exact_is_what_trying_everything_finds(int seed)
    {
        var random = new Random(seed);
        var (lessons, seconds) = (random.Next(3, 7), random.Next(600, 2400));
        var problem = new TermProblem(
            [
                .. Material
                    .Lessons(lessons, staff: 1)
                    .Select(lesson => lesson with { TeachableSeconds = new(seconds + random.Next(-300, 300)) }),
            ],
            [
                Material.Cohort(
                    "Fern, newer",
                    [
                        .. Enumerable
                            .Range(1, random.Next(1, 6))
                            .Select(number =>
                                Material.Unit(number, counts: random.Next(2, 8), difficulty: random.Next(1, 4))
                            ),
                    ],
                    maxNew: random.Next(1, 3),
                    target: random.Next(0, lessons)
                ),
            ]
        );
        var plan = TermPlanner.Plan(problem).Cohorts[0];
        var cheapest = BruteForce(problem).Min();
        Assert.True(
            plan.Exact ? plan.Cost == cheapest : plan.Cost >= cheapest,
            $"{plan.Cost} is called {(plan.Exact ? "exact" : "found")}, and trying everything finds {cheapest}"
        );
    }

    [Fact]
    public void New_things_come_early_enough_for_their_target_and_evenly()
    {
        var plan = TermPlanner
            .Plan(new(Material.Lessons(12), [Material.Cohort("Copper", Material.Units(8), target: 7)]))
            .Cohorts[0];
        Assert.Equal([0, 1, 2, 3, 4, 5, 6, 7], plan.Placements.Select(placement => placement.Lesson));
        Assert.Empty(plan.Dropped);
        Assert.Equal([1, 2, 4, 8], plan.Placements[0].Reviews.Select(review => review.Lesson));
    }

    [Fact]
    public void What_cannot_be_taught_is_left_over_with_its_minutes_and_the_reason()
    {
        var plan = TermPlanner
            .Plan(new(Material.Lessons(5), [Material.Cohort("Ivory", Material.Units(6), maxNew: 1)]))
            .Cohorts[0];
        Assert.Equal([0, 1, 2], plan.Placements.Select(placement => placement.Lesson));
        Assert.Equal([3, 4, 5], plan.LeftOver.Select(left => left.Unit));
        Assert.All(plan.LeftOver, left => Assert.Equal("Every lesson left has its one new posture.", left.Because));
    }

    [Fact]
    public void A_group_that_may_not_be_left_alone_is_not_taught_when_nobody_is_free()
    {
        var chair = Material.Cohort("Chair group", Material.Units(2), maxNew: 1, attended: int.MaxValue);
        var plan = TermPlanner.Plan(
            new(Material.Lessons(6, staff: 1), [chair, chair with { Id = Guid.NewGuid(), Name = "Rail group" }])
        );
        Assert.Empty(plan.Cohorts[0].LeftOver);
        Assert.All(
            plan.Cohorts[1].LeftOver,
            left => Assert.Equal("Nobody is free to stay with Rail group all lesson.", left.Because)
        );
    }

    [Fact]
    public void A_pin_is_kept_and_one_that_contradicts_another_is_refused_with_the_reason()
    {
        var cohort = Material.Cohort("Fern, newer", Material.Units(5)) with { Pins = [new(2, 6)] };
        var kept = TermPlanner.Plan(new(Material.Lessons(12), [cohort])).Cohorts[0];
        Assert.Equal(6, kept.Placements[2].Lesson);
        Assert.True(kept.Placements[2].Pinned);
        Assert.Equal("You put it here.", kept.Placements[2].Because);
        Assert.All(kept.Placements.Skip(3), placement => Assert.True(placement.Lesson >= 6));

        var both = TermPlanner.Plan(new(Material.Lessons(12), [cohort with { Pins = [new(2, 6), new(3, 1)] }])).Cohorts[
            0
        ];
        var refused = Assert.Single(both.Refused);
        Assert.Matches(@"^Posture \d is fixed on \d+ \w+ and comes (before|after) it\.$", refused.Because);

        var test = TermPlanner.Plan(new(Material.Lessons(12), [cohort with { Pins = [new(0, 11)] }])).Cohorts[0];
        Assert.Equal("17 November is a test.", Assert.Single(test.Refused).Because);
    }

    [Fact]
    public void Two_cohorts_that_meet_the_same_posture_are_led_together_once()
    {
        var units = Material.Units(4);
        TermProblem Of(Core.Forms.Mode other) =>
            new(
                Material.Lessons(10, staff: 1),
                [Material.Cohort("Fern, newer", units), Material.Cohort("Rail group", units) with { Mode = other }]
            );
        var together = TermPlanner.Plan(Of(Core.Forms.Mode.Standing));
        Assert.Equal(
            4,
            together.Shared.Count(block =>
                together
                    .Cohorts[0]
                    .Placements.Any(placement =>
                        placement.Lesson == block.Lesson && units[placement.Unit].PostureId == block.PostureId
                    )
            )
        );
        Assert.Equal(0, together.UnsharedPoints);
        Assert.Empty(TermPlanner.Plan(Of(Core.Forms.Mode.Supported)).Shared);
    }

    [Fact]
    public void Planning_can_be_stopped()
    {
        using var stop = new CancellationTokenSource();
        stop.Cancel();
        Assert.Throws<OperationCanceledException>(() =>
            TermPlanner.Plan(
                new(Material.Lessons(12), [Material.Cohort("Fern, newer", Material.Units(8))]),
                cancel: stop.Token
            )
        );
    }

    [Fact]
    public void A_problem_that_contradicts_itself_is_refused()
    {
        var lessons = Material.Lessons(6, held: 2);
        Assert.Throws<ArgumentException>(() =>
            TermPlanner.Plan(new(lessons, [Material.Cohort("Ivory", Material.Units(2), introducedIn: [4])]))
        );
        Assert.Throws<ArgumentException>(() =>
            TermPlanner.Plan(new(lessons, [Material.Cohort("Ivory", Material.Units(2), introducedIn: [1, 0])]))
        );
        Assert.Throws<ArgumentException>(() =>
            TermPlanner.Plan(new(lessons, [Material.Cohort("Ivory", Material.Units(1), maxNew: 0)]))
        );
    }

    private static IEnumerable<long> BruteForce(TermProblem problem)
    {
        var cohort = problem.Cohorts[0];
        var rules = new ClassLedger(problem).RulesAlone(
            problem.Lessons.Select(lesson => lesson.TeacherSeconds.Count),
            0,
            PlanningMode.WithReviews
        );
        return Choices(0, 0, [])
            .Select(choice => Introductions.CostOf(rules, ReviewPlacement.Of(rules, choice), choice));

        IEnumerable<int[]> Choices(int lesson, int known, int[] chosen) =>
            lesson == problem.Lessons.Count
                ? [chosen]
                : Enumerable
                    .Range(0, cohort.MaxNew + 1)
                    .Where(added =>
                        known + added <= cohort.Units.Count
                        && rules.MayIntroduce(lesson, known, added)
                        && rules.Room(lesson, known, added) is not null
                    )
                    .SelectMany(added => Choices(lesson + 1, known + added, [.. chosen, added]));
    }

    private static string Text(TermPlan plan) => JsonSerializer.Serialize(plan);
}
