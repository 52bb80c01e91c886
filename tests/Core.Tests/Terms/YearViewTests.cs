using FsCheck.Xunit;
using Zeitplan.Core.Terms.Plans;

namespace Zeitplan.Core.Tests.Terms;

public sealed class YearViewTests
{
    private static LadderStep Step(string name, int units, int weeks = 0, int lessons = 0, int mostNew = 2) =>
        new(
            Guid.NewGuid(),
            name,
            Half.None,
            "#808080",
            Material.Units(units),
            mostNew,
            SecondsForNew: 40 * 60,
            weeks,
            lessons
        );

    private static YearQuestion Asked(double lessonsAWeek, params LadderStep[] steps) =>
        new(steps, new(2026, 11, 24), lessonsAWeek, LessonsForNew: 0.8, Attendance: 0.9);

    [Fact]
    public void Each_level_begins_where_the_one_before_it_ends_and_the_last_is_where_the_way_ends()
    {
        var way = YearView.Of(Asked(1, Step("Ivory", 8, mostNew: 1), Step("Fern", 12), Step("Slate", 10)));
        Assert.Equal(["Ivory", "Fern"], way.Select(stretch => stretch.Step.Name));
        Assert.Equal(new DateOnly(2026, 11, 24), way[0].From);
        Assert.Equal(way[0].To, way[1].From);
        Assert.Equal((10, 70), (way[0].Lessons, way[0].To.DayNumber - way[0].From.DayNumber));
    }

    [Fact]
    public void Weeks_and_lessons_asked_for_are_waited_for_and_said()
    {
        var way = YearView.Of(
            Asked(1, Step("Ivory", 2, weeks: 26), Step("Fern", 2, lessons: 36), Step("Copper", 40), Step("Slate", 1))
        );
        Assert.Equal(
            [StretchBound.Weeks, StretchBound.Lessons, StretchBound.Material],
            way.Select(stretch => stretch.Bound)
        );
        Assert.Equal([26, 40], way.Take(2).Select(stretch => stretch.Lessons));
    }

    [Property]
    public void One_lesson_more_a_week_never_takes_longer(byte units, byte weeks, byte lessons)
    {
        LadderStep[] steps = [Step("Ivory", units % 30, weeks % 40, lessons % 60), Step("Slate", 1)];
        Assert.True(YearView.Of(Asked(2, steps))[^1].To <= YearView.Of(Asked(1, steps))[^1].To);
    }

    [Fact]
    public void Lessons_are_filled_as_far_as_the_rules_allow()
    {
        Assert.Equal(4, YearView.LessonsToIntroduce(Step("Fern", 8)));
        Assert.Equal(8, YearView.LessonsToIntroduce(Step("Ivory", 8, mostNew: 1)));
        Assert.Equal(0, YearView.LessonsToIntroduce(Step("Ivory", 0)));
        Assert.Equal(
            3,
            YearView.LessonsToIntroduce(
                Step("Fern", 0) with
                {
                    Units = [Material.Unit(1), Material.Unit(2, difficulty: 3), Material.Unit(3)],
                }
            )
        );
    }

    [Fact]
    public void A_class_that_never_meets_leads_nowhere() =>
        Assert.Empty(YearView.Of(Asked(0, Step("Ivory", 3), Step("Slate", 1))));
}
