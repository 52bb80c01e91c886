using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests.Lessons;

public sealed class LessonTests
{
    private static readonly CohortProblem Fern = Material.Cohort("Fern, newer", Material.Units(6), target: 4);
    private static readonly TermProblem Problem = new(Material.Lessons(8), [Fern]);
    private static readonly CohortPlan Plan = TermPlanner.Plan(Problem).Cohorts[0];

    [Fact]
    public void Blocks_fill_the_lesson_from_warm_up_to_settling() =>
        Assert.All(
            Problem.Lessons.Index(),
            at =>
            {
                var blocks = LessonSheet.Arrange(Plan, Fern, at.Index, at.Item, 1200);
                Assert.Equal(
                    (90 * 60, BlockKind.WarmUp, BlockKind.Settle),
                    (blocks.Sum(block => block.Seconds), blocks[0].Kind, blocks[^1].Kind)
                );
            }
        );

    [Fact]
    public void A_lesson_leads_in_from_the_last_posture_then_teaches_practises_and_reviews()
    {
        var blocks = LessonSheet.Arrange(Plan, Fern, 2, Problem.Lessons[2], 1200);
        var known = Plan.Placements.Count(placement => placement.Lesson < 2);
        Assert.Equal([known - 1], blocks[1].Units);
        Assert.Equal(
            [BlockKind.WarmUp, BlockKind.LeadIn, BlockKind.New, BlockKind.OwnPractice],
            blocks.Take(4).Select(block => block.Kind)
        );
        Assert.Contains(blocks, block => block.Kind == BlockKind.Review);
        Assert.All(
            blocks.Zip(blocks.Skip(1)).Where(pair => pair.First.Kind == BlockKind.New),
            pair => Assert.Equal(BlockKind.OwnPractice, pair.Second.Kind)
        );
    }

    [Theory]
    [InlineData(0)]
    [InlineData(90)]
    [InlineData(1200)]
    [InlineData(9000)]
    public void Visits_keep_the_time_alone_short_as_far_as_the_teachers_have_minutes(int spare)
    {
        foreach (var (lesson, slot) in Problem.Lessons.Index())
        {
            var own = LessonSheet
                .Arrange(Plan, Fern, lesson, slot, spare)
                .Last(block => block.Kind == BlockKind.OwnPractice);
            Assert.InRange(own.Visits * LessonSheet.VisitSeconds, 0, spare);
            Assert.True(spare < 1200 || own.AloneSeconds <= LessonSheet.LongestAloneSeconds, $"lesson {lesson}");
        }
    }

    [Fact]
    public void Nobody_comes_by_where_somebody_is_all_the_time() =>
        Assert.All(
            Problem.Lessons.Index(),
            lesson =>
                Assert.All(
                    LessonSheet.Arrange(
                        Plan,
                        Fern with
                        {
                            AttendedLessons = Problem.Lessons.Count,
                        },
                        lesson.Index,
                        lesson.Item,
                        9000
                    ),
                    block => Assert.Equal(0, block.Visits)
                )
        );

    [Fact]
    public void A_test_brings_a_run_through_and_watching_and_nothing_new()
    {
        var kinds = LessonSheet.Arrange(Plan, Fern, 7, Problem.Lessons[7], 1200).Select(block => block.Kind).ToList();
        Assert.Contains(BlockKind.Watch, kinds);
        Assert.DoesNotContain(BlockKind.New, kinds);
    }

    [Fact]
    public void The_watch_list_takes_who_went_longest_unseen_then_key_points_then_who_is_nearly_there()
    {
        var today = new DateOnly(2026, 11, 24);
        var (imke, tomasz, adaeze, per) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var whip = new PostureSide(Guid.NewGuid(), Side.Left);
        Observation Saw(Guid student, int daysAgo, Sign sign, Stage? stage = null) =>
            new(
                Guid.NewGuid(),
                Guid.Empty,
                today.AddDays(-daysAgo),
                student,
                whip.PostureId,
                whip.Side,
                sign,
                stage,
                null,
                "knee drifts in",
                Weight.KeyPoint,
                Guid.Empty,
                default
            );
        var book = new ProgressBook(
            new[] { imke, tomasz, adaeze, per }.ToDictionary(student => student, _ => Material.NoPlace),
            [],
            [],
            [
                Saw(imke, 24, Sign.Stage, Stage.Alone),
                Saw(tomasz, 7, Sign.Fault),
                Saw(adaeze, 7, Sign.Stage, Stage.Follows),
                Saw(per, 7, Sign.Stage, Stage.Alone),
            ],
            today
        );
        var everybody = new[] { per, adaeze, tomasz, imke }.ToDictionary(
            student => student,
            _ => (IReadOnlyList<PostureSide>)[whip]
        );
        Assert.Equal(
            [(imke, WatchReason.LongUnseen), (tomasz, WatchReason.SecondLook), (adaeze, WatchReason.OneFromAlone)],
            WatchList.Of(everybody, book, today, places: 6).Select(watched => (watched.StudentId, watched.Reason))
        );
        Assert.Equal(imke, Assert.Single(WatchList.Of(everybody, book, today, places: 1)).StudentId);
    }
}
