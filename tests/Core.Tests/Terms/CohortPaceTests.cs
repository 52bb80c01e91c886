using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;

namespace Zeitplan.Core.Tests.Terms;

public sealed class CohortPaceTests
{
    private static readonly Guid FernNewer = Guid.NewGuid();
    private static readonly IReadOnlyList<TeachingUnit> Segment = Material.Units(12);

    /// <summary>Minutes every unit of the segment is reckoned at.</summary>
    private static decimal Reckoned => Segment[0].IntroduceSeconds.Count / 60m;

    /// <summary>One lesson a week, each introducing what it is given: the unit's place and its minutes.</summary>
    private static List<LessonRecord> Lessons(params IReadOnlyList<(int Unit, decimal? Minutes)>[] taught) =>
        [
            .. taught.Select(
                (lesson, week) =>
                    new LessonRecord(
                        Guid.Empty,
                        Material.FirstTuesday.AddDays(7 * week),
                        [],
                        [
                            .. lesson.Select(item => new TaughtItem(
                                FernNewer,
                                Segment[item.Unit].PostureId,
                                Segment[item.Unit].Side,
                                TaughtHow.Introduced
                            )
                            {
                                Minutes = item.Minutes,
                            }),
                        ]
                    )
            ),
        ];

    private static decimal Pace(IEnumerable<LessonRecord> lessons) => CohortPace.Of(FernNewer, lessons, Segment);

    private static List<LessonRecord> Always(decimal minutes) =>
        Lessons([.. Enumerable.Range(0, Segment.Count).Select(unit => ((int, decimal?)[])[(unit, minutes)])]);

    [Fact]
    public void It_is_one_until_introductions_took_something_else_and_keeps_its_bounds()
    {
        Assert.Equal(1, Pace([]));
        Assert.Equal(1, Pace(Always(Reckoned)));
        Assert.Equal(1, Pace(Lessons([(0, null)])));
        Assert.Equal(1.3m, Pace(Lessons([(0, 60)])));
        Assert.Equal(2, Pace(Always(60)));
        Assert.Equal(0.5m, Pace(Always(0)));
    }

    [Fact]
    public void The_latest_counts_most() =>
        Assert.True(Pace(Lessons([(0, 60)], [(1, 1)])) < Pace(Lessons([(0, 1)], [(1, 60)])));

    [Fact]
    public void Only_what_this_cohort_was_introduced_to_counts()
    {
        var lessons = Lessons([(0, 60)]);
        Assert.Equal(1, CohortPace.Of(Guid.NewGuid(), lessons, Segment));
        Assert.Equal(1, CohortPace.Of(FernNewer, lessons, Segment.Skip(1).ToList()));
        Assert.Equal(
            1,
            Pace(
                lessons.Select(lesson =>
                    lesson with
                    {
                        Taught = [.. lesson.Taught.Select(item => item with { How = TaughtHow.Reviewed })],
                    }
                )
            )
        );
    }

    /// <summary>Facts about one evening come from several devices, and a week later than the next evening's.</summary>
    [Property]
    public void It_does_not_hang_on_the_order_in_which_anything_was_said(byte[] minutes, int seed)
    {
        var taught = minutes.Take(Segment.Count).Select((took, unit) => (unit, (decimal?)(took % 20))).ToList();
        var lessons = Lessons([.. taught.Chunk(3)]);
        var random = new Random(seed);
        var shuffled = lessons
            .Select(lesson => lesson with { Taught = [.. lesson.Taught.OrderBy(_ => random.Next())] })
            .OrderBy(_ => random.Next());
        Assert.Equal(Pace(lessons), Pace(shuffled));
    }
}
