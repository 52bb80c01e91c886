using FsCheck.Xunit;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;

namespace Zeitplan.Core.Tests.Terms;

public sealed class ReplanningTests
{
    private static readonly TermProblem Two = new(
        Material.Lessons(12),
        [
            Material.Cohort("Fern, newer", Material.Units(6), target: 8),
            Material.Cohort("Copper", Material.Units(7), target: 9),
        ]
    );

    private static SolvedTerm Solve(TermProblem problem, SolvedTerm? before = null) =>
        new(problem, TermPlanner.Plan(problem, Replanning.Carried(problem, before)));

    private static DateOnly LessonDate(int lesson) => Material.FirstTuesday.AddDays(7 * lesson);

    [Fact]
    public void Planning_an_announced_term_again_changes_nothing()
    {
        var announced = Solve(Two);
        var again = Solve(Replanning.Continue(Two, announced.Problem, announced), announced);
        Assert.Empty(PlanChanges.Between(announced, again));
    }

    [Fact]
    public void A_plan_is_in_force_for_what_it_was_planned_for_whatever_was_fixed_in_it()
    {
        var stated = Replanning.Continue(Two, Replanning.WithPin(Two, Two.Cohorts[0].Id, 3, 5), Solve(Two));
        var plan = Solve(stated).Plan;
        Assert.True(PlanInForce.StillHolds(stated, plan, Two));
        Assert.False(
            PlanInForce.StillHolds(
                stated,
                plan,
                Two with
                {
                    Lessons = [.. Two.Lessons.Select((lesson, at) => at == 7 ? lesson with { Staff = 0 } : lesson)],
                }
            )
        );
    }

    [Fact]
    public void A_lesson_nobody_teaches_holds_nothing_and_the_reason_says_so()
    {
        var without = Two with
        {
            Lessons = [.. Two.Lessons.Select((lesson, at) => at == 2 ? lesson with { Staff = 0 } : lesson)],
        };
        var plan = Solve(without).Plan;
        Assert.All(
            plan.Cohorts,
            cohort =>
                Assert.DoesNotContain(
                    cohort.Placements,
                    placement =>
                        placement.Lesson == 2
                        || placement.Reviews.Any(review => review is { Lesson: 2, InRunThrough: false })
                )
        );
        Assert.Contains(
            plan.Cohorts.SelectMany(cohort => cohort.Placements),
            placement =>
                placement.Because.Contains($"Nobody teaches on {LessonDate(2):d MMMM}.", StringComparison.Ordinal)
        );
        var pinned = Solve(Replanning.WithPin(without, Two.Cohorts[0].Id, 2, 2)).Plan;
        Assert.Equal($"Nobody teaches on {LessonDate(2):d MMMM}.", Assert.Single(pinned.Cohorts[0].Refused).Because);
        var nobody = Solve(Two with { Lessons = [.. Two.Lessons.Select(lesson => lesson with { Staff = 0 })] }).Plan;
        Assert.All(
            nobody.Cohorts,
            cohort =>
                Assert.All(cohort.LeftOver, left => Assert.Equal("Nobody teaches in the lessons left.", left.Because))
        );
        Assert.Equal(
            Two.Cohorts.Sum(cohort => cohort.Units.Count),
            nobody.Cohorts.Sum(cohort => cohort.LeftOver.Count)
        );
    }

    [Fact]
    public void A_closure_moves_what_was_in_it_says_why_and_leaves_the_other_cohort_alone()
    {
        var announced = Solve(Two);
        var moved = announced.Plan.Cohorts[0].Placements[2];
        var date = announced.DateOf(moved.Lesson);
        var closed = new TermProblem(
            [.. Two.Lessons.Where(lesson => lesson.Date != date)],
            [Two.Cohorts[0] with { TargetLesson = 7 }, Two.Cohorts[1] with { TargetLesson = 8 }]
        )
        {
            Closed = [new(date, "Halls closed")],
        };
        var after = Solve(Replanning.Continue(closed, announced.Problem, announced), announced);
        var changes = PlanChanges.Between(announced, after);
        var fern = changes.Single(change => change.Name == "Fern, newer");
        var first = fern.Moves.Single(move => move.Name == Two.Cohorts[0].Units[moved.Unit].Name);
        Assert.Equal(date, first.From);
        Assert.NotEqual(date, first.To);
        Assert.StartsWith($"{date:d MMMM} is closed: Halls closed.", first.Because, StringComparison.Ordinal);
        var copperThere = announced
            .Plan.Cohorts[1]
            .Placements.Count(placement => announced.DateOf(placement.Lesson) == date);
        Assert.Equal(copperThere, changes.Where(change => change.Name == "Copper").Sum(change => change.Moves.Count));
    }

    [Fact]
    public void What_was_not_taught_comes_next_and_says_so()
    {
        var announced = Solve(Two);
        var held = Two with
        {
            Lessons = [.. Two.Lessons.Select((lesson, at) => lesson with { Held = at < 1 })],
            Cohorts =
            [
                Two.Cohorts[0],
                Two.Cohorts[1] with
                {
                    IntroducedIn =
                    [
                        .. announced
                            .Plan.Cohorts[1]
                            .Placements.Where(placement => placement.Lesson == 0)
                            .Select(_ => 0),
                    ],
                },
            ],
        };
        var changes = PlanChanges.Between(
            announced,
            Solve(Replanning.Continue(held, announced.Problem, announced), announced)
        );
        var move = changes.Single(change => change.Name == "Fern, newer").Moves[0];
        Assert.Equal((LessonDate(0), LessonDate(1)), (move.From, move.To));
        Assert.StartsWith("It was not taught on 1 September.", move.Because, StringComparison.Ordinal);
    }

    [Fact]
    public void What_was_fixed_on_a_date_that_closes_is_named_and_fixed_again_when_it_opens()
    {
        var pinned = Replanning.WithPin(Two, Two.Cohorts[0].Id, 3, 5);
        var closed = Two with
        {
            Lessons = [.. Two.Lessons.Where((_, at) => at != 5)],
            Closed = [new(LessonDate(5), "Halls closed")],
        };
        var without = Replanning.Continue(closed, pinned, null);
        Assert.Empty(without.Cohorts[0].Pins);
        Assert.Equal(
            [new LostPin(3, LessonDate(5), $"{LessonDate(5):d MMMM} is closed: Halls closed.")],
            without.Cohorts[0].Lost
        );
        var open = Replanning.Continue(Two, without, null);
        Assert.Equal([new Pin(3, 5)], open.Cohorts[0].Pins);
        Assert.Empty(open.Cohorts[0].Lost);
        Assert.Empty(Replanning.WithPin(without, Two.Cohorts[0].Id, 3, 6).Cohorts[0].Lost);
        var held = Replanning.Continue(
            Two with
            {
                Lessons = [.. Two.Lessons.Select((lesson, at) => lesson with { Held = at <= 5 })],
            },
            pinned,
            null
        );
        Assert.Equal($"{LessonDate(5):d MMMM} was held without it.", Assert.Single(held.Cohorts[0].Lost).Because);
    }

    [Fact]
    public void Pins_follow_their_unit_and_date_when_lessons_and_units_come_and_go()
    {
        var (fern, copper) = (Two.Cohorts[0], Two.Cohorts[1]);
        var pinned = Replanning.WithPin(Replanning.WithPin(Two, fern.Id, 3, 5), copper.Id, 0, 2);
        var later = new TermProblem(
            [.. Two.Lessons.Where((_, at) => at != 1)],
            [fern with { Units = [.. fern.Units.Skip(1)] }, copper]
        );
        var stated = Replanning.Continue(later, pinned, null);
        Assert.Equal([new Pin(2, 4)], stated.Cohorts[0].Pins);
        Assert.Equal([new Pin(0, 1)], stated.Cohorts[1].Pins);
        Assert.Empty(Replanning.WithPin(pinned, fern.Id, 3, null).Cohorts[0].Pins);
    }

    [Property(MaxTest = 40)]
    public void What_is_said_to_fit_stays_where_it_is_dropped_and_moves_nobody_of_its_cohort(int seed)
    {
        var random = new Random(seed);
        var announced = Solve(
            new(
                [
                    .. Material
                        .Lessons(random.Next(6, 13), staff: random.Next(1, 3))
                        .Select(lesson => lesson with { TeachableSeconds = new(random.Next(40, 76) * 60) }),
                ],
                [
                    Material.Cohort("Fern, newer", Material.Units(random.Next(2, 7)), target: random.Next(4, 10)),
                    Material.Cohort("Copper", Material.Units(random.Next(2, 7)), target: random.Next(4, 10)),
                ]
            )
        );
        var cohort = announced.Problem.Cohorts[random.Next(2)];
        var unit = random.Next(cohort.Units.Count);
        var costs = MoveCosts.Of(announced, cohort.Id, unit);
        Assert.Equal(announced.Problem.Lessons.Count, costs.Count);
        Assert.Equal(
            announced
                .Answered(cohort.Id)!
                .Placements.Where(placement => placement.Unit == unit)
                .Select(placement => placement.Lesson),
            costs.Where(cost => cost.Verdict == MoveVerdict.Here).Select(cost => cost.Lesson)
        );
        foreach (var cost in costs)
        {
            var after = Solve(
                Replanning.WithPin(
                    Replanning.Continue(announced.Problem, announced.Problem, announced),
                    cohort.Id,
                    unit,
                    cost.Lesson
                ),
                announced
            );
            var plan = after.Answered(cohort.Id)!;
            if (cost.Verdict == MoveVerdict.Fits)
            {
                Assert.Empty(plan.Refused);
                Assert.Equal(cost.Lesson, plan.Placements.Single(placement => placement.Unit == unit).Lesson);
            }
            else if (cost.Verdict == MoveVerdict.Never)
            {
                Assert.NotEmpty(plan.Refused);
            }

            Assert.Equal(cost.Verdict == MoveVerdict.Over, cost.OverSeconds > 0);
        }
    }

    [Fact]
    public void A_move_before_what_it_needs_says_how_many_move_with_it()
    {
        var announced = Solve(Two);
        var (placements, cohort) = (announced.Plan.Cohorts[0].Placements, Two.Cohorts[0]);
        var costs = MoveCosts.Of(announced, cohort.Id, 5);
        Assert.Equal(
            (
                MoveVerdict.Pushes,
                $"{placements.Count(placement => placement.Unit < 5 && placement.Lesson > 0)} move up"
            ),
            (costs[0].Verdict, costs[0].Says)
        );
        Assert.Equal(MoveVerdict.Never, costs[^1].Verdict);
        Assert.Equal("a test", costs[^1].Says);
        Assert.Equal("before a test", costs[^2].Says);
    }
}
