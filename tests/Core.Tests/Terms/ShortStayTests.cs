using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Core.Tests.Forms;

namespace Zeitplan.Core.Tests.Terms;

public sealed class ShortStayTests
{
    private static readonly IReadOnlyDictionary<Guid, PostureOutline> Outlines = Starter.Postures.ToDictionary(
        posture => posture.Key,
        posture => posture.Value.Outline
    );

    private static readonly Form Lamp = Form.Create(Guid.NewGuid(), Starter.Short);

    private static ShortStayQuestion Asked(
        Form form,
        int lessons,
        int minutes,
        int mostNew = 2,
        IEnumerable<Position>? known = null
    )
    {
        List<PostureSide> held =
        [
            .. (known ?? []).Select(position => new PostureSide(position.PostureId, position.Side)),
        ];
        return new(
            form,
            Outlines,
            TeachingWay.Of(Mode.Standing),
            held.ToHashSet(),
            held.Zip(held.Skip(1)).ToHashSet(),
            lessons,
            minutes,
            mostNew
        );
    }

    [Property(MaxTest = 25)]
    public void Every_lesson_holds_what_it_is_given_and_everything_new_is_reviewed_once_in_the_next(
        byte lessons,
        byte minutes,
        byte mostNew
    )
    {
        var asked = Asked(Lamp, 1 + (lessons % 9), 40 + (minutes % 80), 1 + (mostNew % 4));
        var stay = ShortStay.Of(asked);
        Assert.All(stay.Lessons, lesson => Assert.True(lesson.Seconds <= LessonSlot.Teachable(asked.Minutes)));
        Assert.All(
            stay.Lessons,
            lesson => Assert.True(lesson.New.Count(unit => unit.Kind == UnitKind.Posture) <= asked.MostNew)
        );
        Assert.Equal(Lamp.Positions.Count, stay.Positions.Count + stay.LeftOut.Count);
        Assert.Equal(
            stay.Different,
            stay.Lessons.SelectMany(lesson => lesson.New)
                .Where(unit => unit.Kind == UnitKind.Posture && unit.NeededBy is null)
                .Select(unit => unit.Of)
                .Distinct()
                .Count()
        );
        if (asked.Lessons > 1)
        {
            Assert.All(
                stay.Lessons.Zip(stay.Lessons.Skip(1)),
                pair => Assert.Equal(pair.First.New, pair.Second.Reviewed)
            );
            Assert.Empty(stay.Positions.Count == 0 ? [] : stay.Lessons[^1].New);
        }
    }

    [Fact]
    public void More_lessons_never_teach_less()
    {
        var different = Enumerable
            .Range(1, 10)
            .Select(lessons => ShortStay.Of(Asked(Lamp, lessons, 75)).Different)
            .ToList();
        Assert.Equal(different.Order(), different);
        Assert.True(different[^1] > different[1]);
    }

    [Fact]
    public void Whoever_knows_the_form_takes_all_of_it_home_and_learns_nothing_new()
    {
        var stay = ShortStay.Of(Asked(Lamp, 2, 60, known: Lamp.Positions));
        Assert.True(stay.IsWhole && stay.IsSegment);
        Assert.All(stay.Lessons, lesson => Assert.Empty(lesson.New));
        Assert.Empty(stay.LeftOut);
    }

    [Fact]
    public void A_beginner_learns_from_the_beginning_of_the_form()
    {
        var stay = ShortStay.Of(Asked(Lamp, 4, 90));
        Assert.Equal(Lamp.Positions[0], stay.Positions[0]);
        Assert.Contains(stay.LeftOut, left => left.Because == "Comes after the part that is learned.");
    }

    [Fact]
    public void A_question_that_makes_no_sense_is_refused_at_its_field() =>
        Assert.Equal(["lessons", "minutes", "mostNew"], Asked(Lamp, 0, 10, 9).Check().Select(problem => problem.Field));
}
