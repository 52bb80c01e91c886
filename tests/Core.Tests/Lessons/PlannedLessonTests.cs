using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests.Lessons;

/// <summary>What a term plan asks of one lesson.</summary>
public sealed class PlannedLessonTests
{
    [Fact]
    public void Minutes_that_are_kept_for_watching_are_a_block_for_each_cohort_by_how_many_there_are_to_see()
    {
        CohortProblem Of(string name, int people) => Material.Cohort(name, Material.Units(3)) with { People = people };
        var lessons = Material.Lessons(8).ToList();
        lessons[3] = lessons[3] with { WatchSeconds = new(8 * 60) };
        TermProblem problem = new(lessons, [Of("Fern", 5), Of("Copper", 2), Of("Garnet", 4)]);
        Assert.Equal([4, 1, 3], Watched(problem, 3));
        Assert.Empty(Watched(problem, 2));

        // Nobody is watched at what they have not met.
        lessons[0] = lessons[0] with
        {
            WatchSeconds = new(8 * 60),
        };
        Assert.Empty(Watched(problem with { Lessons = lessons }, 0));
    }

    [Fact]
    public void What_keeps_something_is_a_run_through_a_review_or_a_difference_and_names_what_it_touches()
    {
        KeptPosture Kept(string name, int due, Changed? changed = null) =>
            new(
                new(Guid.NewGuid(), Side.Right),
                name,
                new(180),
                Material.FirstTuesday.AddDays(due),
                changed is null ? 84 : null,
                changed
            );
        var changed = new Changed(Material.FirstTuesday.AddDays(-50), "the waist turns first");
        KeptPosture[] postures =
        [
            Kept("Press", 1),
            Kept("Push", 1),
            Kept("Opening", 60),
            Kept("Roll Back", 0, changed),
        ];
        var cohort = Material.Cohort("Copper", []) with
        {
            Keeping = new(postures, [new("Press to Push", [0, 1], new(60))]),
        };
        TermProblem problem = new(Material.Lessons(12), [cohort]);
        var tasks = Tasks(problem, 0).ToDictionary(task => task.Kind);
        Assert.Equal(("Press to Push", 1), (tasks[BlockKind.RunThrough].What, tasks[BlockKind.RunThrough].Minutes));
        Assert.Equal(postures.Take(2).Select(kept => kept.Of), tasks[BlockKind.RunThrough].Material);
        Assert.Equal("Roll Back: the waist turns first", tasks[BlockKind.ReTeach].What);
        Assert.Equal(
            PlannedLesson.KeyOfADifference(cohort.Id, postures[3].Of, changed.Since),
            tasks[BlockKind.ReTeach].Key
        );
        Assert.True(PlannedLesson.IsADifference(tasks[BlockKind.ReTeach].Key));

        var later = TermPlanner.Plan(problem).Cohorts[0].Kept.Refreshes.Single(refresh => refresh.Posture == 2);
        var review = Assert.Single(Tasks(problem, later.Lesson));
        Assert.Equal((BlockKind.Review, "Opening", 3), (review.Kind, review.What, review.Minutes));
    }

    private static IEnumerable<int> Watched(TermProblem problem, int lesson) =>
        Tasks(problem, lesson).Where(task => task.Kind == BlockKind.Watch).Select(task => task.Minutes);

    private static IReadOnlyList<LessonTask> Tasks(TermProblem problem, int lesson) =>
        PlannedLesson.Of(problem, TermPlanner.Plan(problem), lesson, new HashSet<Guid>(), []).Tasks;
}
