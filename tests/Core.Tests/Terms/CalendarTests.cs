using FsCheck.Xunit;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;

namespace Zeitplan.Core.Tests.Terms;

public sealed class CalendarTests
{
    private static readonly SchoolClass Tuesday = SchoolClass.Create(
        Guid.NewGuid(),
        new("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, Guid.NewGuid(), [Guid.NewGuid()])
    );

    [Fact]
    public void Closures_are_skipped_and_the_lesson_before_a_test_consolidates()
    {
        var term = Term.Create(
            Guid.NewGuid(),
            new(
                "Autumn term",
                new(2026, 9, 2),
                new(2026, 10, 13),
                [new(new(2026, 10, 6), "Hall closed")],
                [new(2026, 10, 13)]
            )
        );
        Assert.Equal(
            [
                (8, 1, LessonKind.Ordinary),
                (15, 2, LessonKind.Ordinary),
                (22, 3, LessonKind.Ordinary),
                (29, 4, LessonKind.Consolidation),
                (6, null, LessonKind.Ordinary),
                (13, 5, LessonKind.Test),
            ],
            LessonCalendar.Of(term, Tuesday).Select(day => (day.Date.Day, day.Number, day.Kind))
        );
    }

    [Property]
    public void Several_days_in_a_row_are_closed_until_one_of_them_is_open_after_all(byte length, byte opened)
    {
        var first = new DateOnly(2026, 10, 1);
        var (last, open) = (first.AddDays(length), first.AddDays(opened));
        var holidays = new Closure(first, "Autumn holidays", length == 0 ? null : last);
        var days = Enumerable.Range(-3, length + 7).Select(day => first.AddDays(day)).ToList();
        Assert.Equal(days.Where(day => day >= first && day <= last), days.Where(holidays.Covers));
        var rest = holidays.Without(open).ToList();
        Assert.Equal(
            days.Where(day => holidays.Covers(day) && day != open),
            days.Where(day => rest.Exists(closure => closure.Covers(day)))
        );
        var term = Term.Create(Guid.NewGuid(), new("Autumn term", new(2026, 9, 2), new(2027, 7, 1), rest, []));
        Assert.Empty(new TermText(term.Name, term.Start, term.End, rest, []).Check([]));
        Assert.All(
            LessonCalendar.Of(term, Tuesday),
            day => Assert.Equal(holidays.Covers(day.Date) && day.Date != open, day.Closed is not null)
        );
    }

    [Fact]
    public void Holidays_that_end_before_they_begin_or_meet_others_say_so() =>
        Assert.Equal(
            ["closures[1].until", "closures[3].until", "closures[2].date"],
            new TermText(
                "Autumn term",
                new(2026, 9, 2),
                new(2026, 12, 15),
                [
                    new(new(2026, 10, 12), "Autumn holidays", new(2026, 10, 25)),
                    new(new(2026, 11, 20), "Harbour days", new(2026, 11, 10)),
                    new(new(2026, 10, 20), "Hall painted"),
                    new(new(2026, 12, 10), "Lantern week", new(2026, 12, 20)),
                ],
                []
            )
                .Check([])
                .Select(problem => problem.Field)
        );

    [Fact]
    public void A_term_across_new_year_and_a_clock_change_meets_every_week()
    {
        var term = Term.Create(Guid.NewGuid(), new("Winter term", new(2026, 10, 1), new(2027, 4, 10), [], []));
        var days = LessonCalendar.Of(term, Tuesday);
        Assert.All(
            days.Zip(days.Skip(1)),
            pair => Assert.Equal(7, pair.Second.Date.DayNumber - pair.First.Date.DayNumber)
        );
        Assert.All(days, day => Assert.Equal(DayOfWeek.Tuesday, day.Date.DayOfWeek));
    }

    [Fact]
    public void A_term_says_what_is_wrong_with_it_and_where()
    {
        var other = Term.Create(Guid.NewGuid(), new("Summer term", new(2026, 6, 1), new(2026, 9, 5), [], []));
        Assert.Equal(
            ["name", "closures[0].date", "testDays[0]", "start"],
            new TermText(
                "",
                new(2026, 9, 1),
                new(2026, 11, 1),
                [new(new(2026, 12, 1), "Hall closed")],
                [new(2026, 8, 1)]
            )
                .Check([other])
                .Select(problem => problem.Field)
        );
        Assert.Equal(
            "end",
            Assert.Single(new TermText("Autumn term", new(2026, 9, 10), new(2026, 9, 1), [], []).Check([])).Field
        );
    }

    [Property]
    public void A_review_lies_after_its_introduction_once_a_lesson_and_says_when_it_is_late(int[] gaps)
    {
        var date = Material.FirstTuesday;
        List<DateOnly> lessons = [.. gaps.Select(gap => date = date.AddDays(7 * (1 + Math.Abs(gap % 4))))];
        foreach (var (from, reviews) in ReviewCalendar.Of(lessons).Index())
        {
            Assert.All(
                reviews.Prepend(new(from, 0, false)).Zip(reviews),
                pair => Assert.True(pair.First.Lesson < pair.Second.Lesson)
            );
            Assert.All(
                reviews,
                review =>
                    Assert.Equal(
                        lessons[review.Lesson].DayNumber - lessons[from].AddDays(7 * review.WeeksAfter).DayNumber > 7,
                        review.Late
                    )
            );
        }
    }

    [Fact]
    public void Weekly_lessons_review_after_one_two_four_and_eight_weeks() =>
        Assert.Equal(
            [1, 2, 4, 8],
            ReviewCalendar
                .Of([.. Material.Lessons(12).Select(lesson => lesson.Date)])[0]
                .Select(review => review.Lesson)
        );

    [Fact]
    public void A_class_that_was_closed_meets_no_more()
    {
        var term = Term.Create(Guid.NewGuid(), new("Autumn term", new(2026, 9, 2), new(2026, 12, 1), [], []));
        var closed = SchoolClass.Create(
            Guid.NewGuid(),
            new("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, Guid.NewGuid(), [Guid.NewGuid()])
        );
        closed.Close(new(2026, 9, 15));
        Assert.Equal([new(2026, 9, 8), new(2026, 9, 15)], LessonCalendar.Of(term, closed).Select(day => day.Date));
    }

    [Fact]
    public void A_single_lesson_is_closed_moved_longer_or_added_and_everything_else_stays()
    {
        var term = Term.Create(
            Guid.NewGuid(),
            new("Autumn term", new(2026, 9, 1), new(2026, 9, 30), [], [new(2026, 9, 29)])
        );
        var schoolClass = SchoolClass.Create(
            Guid.NewGuid(),
            new("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, Guid.NewGuid(), [Guid.NewGuid()])
        );
        var upstairs = Guid.NewGuid();
        schoolClass.ChangeLesson(new(new(2026, 9, 8), Closed: "The head is away"), new(2026, 9, 8), []);
        schoolClass.ChangeLesson(
            new(new(2026, 9, 15), MovedTo: new DateOnly(2026, 9, 17), Minutes: 120, HallId: upstairs),
            new(2026, 9, 17),
            [new(new(2026, 9, 17), schoolClass.StaffIds[0], null)]
        );
        schoolClass.ChangeLesson(new(new(2026, 9, 25)), new(2026, 9, 25), []);
        var days = LessonCalendar.Of(term, schoolClass);
        Assert.Equal([1, 8, 17, 22, 25, 29], days.Select(day => day.Date.Day));
        Assert.Equal([1, null, 2, 3, 4, 5], days.Select(day => day.Number));
        Assert.Equal("The head is away", days[1].Closed);
        Assert.Equal((new DateOnly(2026, 9, 15), 120, upstairs), (days[2].Usual, days[2].Minutes, days[2].HallId));
        Assert.Equal([LessonKind.Consolidation, LessonKind.Test], days.TakeLast(2).Select(day => day.Kind));
        Assert.Empty(schoolClass.StaffOn(new(2026, 9, 17)));

        schoolClass.ChangeLesson(new(new(2026, 9, 15)), new(2026, 9, 15), []);
        schoolClass.ChangeLesson(new(new(2026, 9, 8)), new(2026, 9, 8), []);
        schoolClass.DropLesson(new(2026, 9, 25));
        Assert.Empty(schoolClass.Changes);
        Assert.Empty(schoolClass.Substitutes);
        Assert.Equal(
            LessonCalendar.Of(term, Tuesday).Select(day => day.Date),
            LessonCalendar.Of(term, schoolClass).Select(day => day.Date)
        );
    }

    [Fact]
    public void A_change_of_a_lesson_says_what_is_wrong_with_it_and_where()
    {
        var hall = Hall.Create(Guid.NewGuid(), new("Lower Hall", 14, 10.5m, 20, 6, [], 40));
        var schoolClass = SchoolClass.Create(
            Guid.NewGuid(),
            new("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, hall.Id, [Guid.NewGuid()])
        );
        var other = SchoolClass.Create(
            Guid.NewGuid(),
            new("Thursday, beginners", DayOfWeek.Thursday, new(19, 0), 60, hall.Id, [Guid.NewGuid()])
        );
        string[] Fields(LessonChange change) =>
            [
                .. change
                    .Check(schoolClass, [new(2026, 9, 15)], new Dictionary<Guid, Hall> { [hall.Id] = hall }, [other])
                    .Select(problem => problem.Field),
            ];
        DateOnly date = new(2026, 9, 8);
        Assert.Empty(Fields(new(date)));
        Assert.Equal(["closed"], Fields(new(date, Closed: " ")));
        Assert.Equal(["movedTo"], Fields(new(date, MovedTo: new DateOnly(2026, 9, 15))));
        Assert.Equal(["minutes"], Fields(new(date, Minutes: 10)));
        Assert.Equal(["start"], Fields(new(date, Start: new TimeOnly(23, 0))));
        Assert.Equal(["hallId"], Fields(new(date, HallId: Guid.NewGuid())));
        Assert.Equal(["start"], Fields(new(date, MovedTo: new DateOnly(2026, 9, 10))));
        Assert.Empty(Fields(new(date, MovedTo: new DateOnly(2026, 9, 10), Start: new TimeOnly(20, 0))));
    }
}
