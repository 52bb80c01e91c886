using FsCheck.Xunit;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;

namespace Zeitplan.Core.Tests.Terms;

public sealed class CalendarTests
{
    private static readonly SchoolClass Tuesday = SchoolClass.Create(Guid.NewGuid(), new("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, Guid.NewGuid(), [Guid.NewGuid()]));

    [Fact]
    public void Closures_are_skipped_and_the_lesson_before_a_test_consolidates()
    {
        var term = Term.Create(Guid.NewGuid(), new("Autumn term", new(2026, 9, 2), new(2026, 10, 13), [new(new(2026, 10, 6), "Hall closed")], [new(2026, 10, 13)]));
        Assert.Equal(
            [(8, 1, LessonKind.Ordinary), (15, 2, LessonKind.Ordinary), (22, 3, LessonKind.Ordinary), (29, 4, LessonKind.Consolidation), (6, null, LessonKind.Ordinary), (13, 5, LessonKind.Test)],
            LessonCalendar.Of(term, Tuesday).Select(day => (day.Date.Day, day.Number, day.Kind)));
    }

    [Fact]
    public void A_term_across_new_year_and_a_clock_change_meets_every_week()
    {
        var term = Term.Create(Guid.NewGuid(), new("Winter term", new(2026, 10, 1), new(2027, 4, 10), [], []));
        var days = LessonCalendar.Of(term, Tuesday);
        Assert.All(days.Zip(days.Skip(1)), pair => Assert.Equal(7, pair.Second.Date.DayNumber - pair.First.Date.DayNumber));
        Assert.All(days, day => Assert.Equal(DayOfWeek.Tuesday, day.Date.DayOfWeek));
    }

    [Fact]
    public void A_term_says_what_is_wrong_with_it_and_where()
    {
        var other = Term.Create(Guid.NewGuid(), new("Summer term", new(2026, 6, 1), new(2026, 9, 5), [], []));
        Assert.Equal(
            ["name", "closures[0].date", "testDays[0]", "start"],
            new TermText("", new(2026, 9, 1), new(2026, 11, 1), [new(new(2026, 12, 1), "Hall closed")], [new(2026, 8, 1)]).Check([other]).Select(problem => problem.Field));
        Assert.Equal("end", Assert.Single(new TermText("Autumn term", new(2026, 9, 10), new(2026, 9, 1), [], []).Check([])).Field);
    }

    [Property]
    public void A_review_lies_after_its_introduction_once_a_lesson_and_says_when_it_is_late(int[] gaps)
    {
        var date = Material.FirstTuesday;
        List<DateOnly> lessons = [.. gaps.Select(gap => date = date.AddDays(7 * (1 + Math.Abs(gap % 4))))];
        foreach (var (from, reviews) in ReviewCalendar.Of(lessons).Index())
        {
            Assert.All(reviews.Prepend(new(from, 0, false)).Zip(reviews), pair => Assert.True(pair.First.Lesson < pair.Second.Lesson));
            Assert.All(reviews, review => Assert.Equal(lessons[review.Lesson].DayNumber - lessons[from].AddDays(7 * review.WeeksAfter).DayNumber > 7, review.Late));
        }
    }

    [Fact]
    public void Weekly_lessons_review_after_one_two_four_and_eight_weeks() =>
        Assert.Equal([1, 2, 4, 8], ReviewCalendar.Of([.. Material.Lessons(12).Select(lesson => lesson.Date)])[0].Select(review => review.Lesson));

    [Fact]
    public void A_class_that_was_closed_meets_no_more()
    {
        var term = Term.Create(Guid.NewGuid(), new("Autumn term", new(2026, 9, 2), new(2026, 12, 1), [], []));
        var closed = SchoolClass.Create(Guid.NewGuid(), new("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, Guid.NewGuid(), [Guid.NewGuid()]));
        closed.Close(new(2026, 9, 15));
        Assert.Equal([new(2026, 9, 8), new(2026, 9, 15)], LessonCalendar.Of(term, closed).Select(day => day.Date));
    }
}
