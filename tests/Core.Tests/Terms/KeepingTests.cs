using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests.Terms;

public sealed class KeepingTests
{
    [Property(Arbitrary = [typeof(SmallTerms)], MaxTest = 150)]
    public void What_keeps_all_at_least_cost_is_as_good_as_the_best_of_all_ways(TermProblem problem)
    {
        var kept = Plan(problem);
        var best = CheapestOfAll(problem);
        Assert.True(kept.Cost >= best, "nothing is cheaper than the best");
        Assert.True(!kept.Exact || kept.Cost == best, "what is called the best is the best");
        Assert.Equal(kept.Cost, CostOf(problem, kept.Refreshes));
    }

    [Property(Arbitrary = [typeof(SmallTerms)], MaxTest = 60)]
    public void With_room_enough_it_is_the_best(TermProblem problem)
    {
        var roomy = problem with
        {
            Lessons = [.. problem.Lessons.Select(lesson => lesson with { TeachableSeconds = new(90 * 60) })],
        };
        Assert.True(Plan(roomy).Exact);
        Assert.Equal(CheapestOfAll(roomy), Plan(roomy).Cost);
    }

    [Fact]
    public void Many_that_fade_in_one_week_are_run_through_and_a_single_one_is_refreshed()
    {
        var together = Planned([.. Enumerable.Range(1, 8).Select(at => Kept(at, due: 20))], runSeconds: 4 * 60);
        var run = Assert.Single(together.Refreshes);
        Assert.Equal((0, 2), (run.Run, run.Lesson));
        Assert.Empty(together.NotKept);

        var single = Planned([Kept(1, due: 20), .. Enumerable.Range(2, 7).Select(at => Kept(at, due: 80))], 4 * 60);
        var refresh = Assert.Single(single.Refreshes);
        Assert.Equal((0, 2), (refresh.Posture, refresh.Lesson));
        Assert.Equal("It fades after 21 September.", refresh.Because);
    }

    [Fact]
    public void What_has_faded_already_is_refreshed_in_the_next_lesson_and_it_is_said_since_when()
    {
        var plan = Planned([Kept(1, due: -10)], runSeconds: 600);
        Assert.Equal(0, Assert.Single(plan.Refreshes).Lesson);
        Assert.Equal(new NotKept(0, Material.FirstTuesday.AddDays(-10), 0), Assert.Single(plan.NotKept));
    }

    [Fact]
    public void What_is_touched_early_does_not_fade_the_sooner_for_it()
    {
        // The run comes for the first; the second would hold on until after the term without it.
        var plan = Planned([Kept(1, due: 3), Kept(2, due: 80) with { HoldsDays = 7 }], runSeconds: 60);
        Assert.Equal([0], plan.Refreshes.Select(refresh => refresh.Run));
        Assert.Empty(plan.NotKept);
    }

    [Fact]
    public void A_difference_is_told_once_and_no_run_through_tells_it()
    {
        var told = Kept(1, due: 0) with
        {
            HoldsDays = null,
            Changed = new(Material.FirstTuesday, "the palm turns out later"),
        };
        var plan = Planned([told, Kept(2, due: 0)], runSeconds: 30);
        Assert.Equal([(0, null), (null, 0)], plan.Refreshes.Select(refresh => (refresh.Run, refresh.Posture)));
        Assert.Contains("the palm turns out later", plan.Refreshes[1].Because, StringComparison.Ordinal);
    }

    /// <summary>Eight weekly lessons for a cohort that has nothing new.</summary>
    private static KeptPlan Planned(IReadOnlyList<KeptPosture> postures, int runSeconds)
    {
        List<int> back =
        [
            .. postures.Index().Where(kept => kept.Item.HoldsDays is not null).Select(kept => kept.Index),
        ];
        return Plan(
            new(
                Material.Lessons(8),
                [
                    Material.Cohort("Garnet", []) with
                    {
                        Keeping = new(postures, [new("Opening to Push, right", back, new(runSeconds))]),
                    },
                ]
            )
        );
    }

    private static KeptPosture Kept(int number, int due) =>
        new(
            new(Guid.NewGuid(), Side.Left),
            $"Posture {number}",
            new(3 * 60),
            Material.FirstTuesday.AddDays(due),
            HoldsDays: 84
        );

    private static KeptPlan Plan(TermProblem problem) => TermPlanner.Plan(problem).Cohorts[0].Kept;

    /// <summary>Every way to use every lesson, one after the other.</summary>
    private static long CheapestOfAll(TermProblem problem)
    {
        var keeping = problem.Cohorts[0].Keeping;
        List<Refresh> ways =
        [
            .. keeping.Postures.Select((kept, at) => new Refresh(0, at, null, kept.Seconds, "")),
            .. keeping.Runs.Select((run, at) => new Refresh(0, null, at, run.Seconds, "")),
        ];
        List<List<Refresh>> subsets =
        [
            .. Enumerable
                .Range(0, 1 << ways.Count)
                .Select(bits => ways.Where((_, at) => (bits >> at) % 2 == 1).ToList()),
        ];
        return Best(problem.FirstOpen, []);

        long Best(int lesson, IReadOnlyList<Refresh> chosen)
        {
            if (lesson == problem.Lessons.Count)
            {
                return CostOf(problem, chosen);
            }

            var slot = problem.Lessons[lesson];
            return subsets
                .Where(subset =>
                    subset.Count == 0
                    || (slot.Kind != LessonKind.Test && subset.Sum(way => way.Seconds) <= slot.TeachableSeconds)
                )
                .Min(subset => Best(lesson + 1, [.. chosen, .. subset.Select(way => way with { Lesson = lesson })]));
        }
    }

    private static long CostOf(TermProblem problem, IReadOnlyList<Refresh> chosen)
    {
        var keeping = problem.Cohorts[0].Keeping;
        long cost = chosen.Sum(refresh => refresh.Seconds);
        foreach (var (at, kept) in keeping.Postures.Index())
        {
            var due = kept.Due;
            foreach (
                var date in chosen
                    .Where(refresh => keeping.Touches(refresh, at))
                    .Select(refresh => problem.Lessons[refresh.Lesson].Date)
                    .Distinct()
                    .Order()
            )
            {
                cost += PlanCost.FadedDay * Math.Max(0, date.DayNumber - due.DayNumber);
                // Whatever is touched early does not fade the sooner for it.
                due = new[] { due, kept.HoldsDays is { } days ? date.AddDays(days) : DateOnly.MaxValue }.Max();
            }

            cost += PlanCost.FadedDay * Math.Max(0, problem.Lessons[^1].Date.DayNumber - due.DayNumber);
        }

        return cost;
    }

    /// <summary>Up to five lessons, the last a test, two postures and a run of them; rarely room for all at
    /// once.</summary>
    private static class SmallTerms
    {
        public static Arbitrary<TermProblem> Problems() => Gen.Choose(0, int.MaxValue - 1).Select(Of).ToArbitrary();

        private static TermProblem Of(int seed)
        {
            var random = new Random(seed);
            var date = Material.FirstTuesday;
            List<LessonSlot> lessons = [];
            for (var (at, count) = (0, random.Next(2, 6)); at < count; at++)
            {
                var kind = at == count - 1 ? LessonKind.Test : LessonKind.Ordinary;
                lessons.Add(new(date, new(random.Next(3, 16) * 60), 1, kind, Held: false));
                date = date.AddDays(7 * random.Next(1, 4));
            }

            List<KeptPosture> postures =
            [
                .. Enumerable
                    .Range(1, random.Next(1, 3))
                    .Select(number =>
                        Kept(number, random.Next(-10, 50)) with
                        {
                            Seconds = new(60 * random.Next(1, 9)),
                            HoldsDays = random.Next(4) == 0 ? null : 7 * random.Next(1, 5),
                        }
                    ),
            ];
            List<int> back =
            [
                .. postures.Index().Where(kept => kept.Item.HoldsDays is not null).Select(kept => kept.Index),
            ];
            return new(
                lessons,
                [
                    Material.Cohort("Garnet", []) with
                    {
                        Keeping = new(
                            postures,
                            back.Count == 0 ? [] : [new("A run", back, new(60 * random.Next(1, 12)))]
                        ),
                    },
                ]
            );
        }
    }
}
