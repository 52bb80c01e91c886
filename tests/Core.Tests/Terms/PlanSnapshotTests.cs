using System.Text.Json;
using FsCheck.Xunit;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;

namespace Zeitplan.Core.Tests.Terms;

public sealed class PlanSnapshotTests
{
    [Property(Arbitrary = [typeof(GeneratedTerms)], MaxTest = 60)]
    public void A_plan_is_kept_and_read_back_as_it_was(TermProblem problem)
    {
        var announced = TermPlanner.Plan(problem);
        var stated = Replanning.Continue(problem, problem, new(problem, announced)) with
        {
            Closed = [new(Material.FirstTuesday.AddDays(1), "the quay floods")],
        };
        AssertKept(new(stated, TermPlanner.Plan(stated, announced)));
    }

    [Fact]
    public void What_was_fixed_on_a_date_that_is_gone_is_kept_with_its_reason()
    {
        var problem = new TermProblem(Material.Lessons(6), [Material.Cohort("Fern, newer", Material.Units(3))]);
        var pinned = Replanning.WithPin(problem, problem.Cohorts[0].Id, 1, 4);
        var shorter = problem with { Lessons = [.. problem.Lessons.Take(4)] };
        var stated = Replanning.Continue(shorter, pinned, null);
        Assert.Single(stated.Cohorts[0].Lost);
        AssertKept(new(stated, TermPlanner.Plan(stated)));
    }

    [Fact]
    public void It_names_dates_and_units_and_no_place_in_a_list()
    {
        var problem = new TermProblem(Material.Lessons(6), [Material.Cohort("Fern, newer", Material.Units(3))]);
        var kept = PlanSnapshot.Of(new(problem, TermPlanner.Plan(problem)));
        var later = kept with { Lessons = [.. kept.Lessons.Prepend(Earlier(kept.Lessons[0]))] };
        Assert.Equal(Places(kept.Solved()), Places(later.Solved()));

        static PlanSnapshot.Lesson Earlier(PlanSnapshot.Lesson lesson) =>
            lesson with
            {
                Date = lesson.Date.AddDays(-7),
            };
        static IEnumerable<DateOnly> Places(SolvedTerm term) =>
            term.Plan.Cohorts[0].Placements.Select(placement => term.DateOf(placement.Lesson));
    }

    [Fact]
    public void A_shape_of_a_later_version_is_refused_in_words()
    {
        var problem = new TermProblem(Material.Lessons(3), [Material.Cohort("Ivory", Material.Units(1))]);
        var kept = PlanSnapshot.Of(new(problem, TermPlanner.Plan(problem))) with { Version = PlanSnapshot.Current + 1 };
        Assert.Contains(
            $"this version reads up to {PlanSnapshot.Current}",
            Assert.Throws<NotSupportedException>(kept.Solved).Message,
            StringComparison.Ordinal
        );
    }

    private static void AssertKept(SolvedTerm term)
    {
        var back = Read(Text(PlanSnapshot.Of(term))).Solved();
        Assert.Equal(Text(Spelled(term.Problem)), Text(back.Problem));
        Assert.Equal(Text(term.Plan), Text(back.Plan));
        Assert.Equal(Text(PlanSnapshot.Of(term)), Text(PlanSnapshot.Of(back)));
    }

    /// <summary>What is left unsaid means the same as what is said: targets that are the cohort's own, units nobody
    /// announced.</summary>
    private static TermProblem Spelled(TermProblem problem)
    {
        return problem with
        {
            Cohorts =
            [
                .. problem.Cohorts.Select(cohort =>
                    cohort with
                    {
                        TargetLesson = Within(cohort.TargetLesson),
                        Targets = [.. cohort.Units.Select((_, unit) => Within(cohort.TargetOf(unit)))],
                        Announced = cohort.Announced.All(lesson => lesson is null) ? [] : cohort.Announced,
                    }
                ),
            ],
        };

        int Within(int lesson) => Math.Min(lesson, problem.Lessons.Count - 1);
    }

    private static string Text<T>(T value) => JsonSerializer.Serialize(value, LibraryJson.Stored);

    private static PlanSnapshot Read(string text) =>
        JsonSerializer.Deserialize<PlanSnapshot>(text, LibraryJson.Stored)!;
}
