using FsCheck.Xunit;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Tests.People;

public sealed class ClassCheckTests
{
    private static readonly StaffMember Noor = StaffMember.Create(Guid.NewGuid(), new("Noor Adeyemi", StaffRole.Head));
    private static readonly StaffMember Jonas = StaffMember.Create(
        Guid.NewGuid(),
        new("Jonas Lindqvist", StaffRole.Instructor)
    );
    private static readonly Hall Lower = Hall.Create(Guid.NewGuid(), new("Lower Hall", 14, 10.5m, 20, 9, [], 60));
    private static readonly Hall Chapel = Hall.Create(
        Guid.NewGuid(),
        new("Chapel Room", 8.2m, 6.4m, 12, 0, [new(DayOfWeek.Tuesday, new(17, 0), new(21, 0))], 24)
    );
    private static readonly ClassText Evening = new(
        "Tuesday evening",
        DayOfWeek.Tuesday,
        new(18, 30),
        90,
        Lower.Id,
        [Noor.Id]
    );
    private static readonly SchoolClass Kept = SchoolClass.Create(Guid.NewGuid(), Evening);

    [Fact]
    public void One_hall_and_one_teacher_cannot_be_in_two_lessons_and_a_way_out_is_offered()
    {
        var concerns = Check(Evening with { Name = "Garnet only", Start = new(19, 0) });
        Assert.Equal(
            [("hallId", true), ("staffIds[0]", true)],
            concerns.Select(concern => (concern.Field, concern.Blocks))
        );
        Assert.Equal("Noor Adeyemi teaches Tuesday evening at that time (18:30 to 20:00).", concerns[1].Message);
        Assert.Contains(concerns[0].Ways, way => way.HallId == Chapel.Id);
        Assert.Contains(concerns[1].Ways, way => way.StaffInId == Jonas.Id);
    }

    [Fact]
    public void Classes_that_only_touch_or_meet_on_other_days_do_not_overlap()
    {
        Assert.Empty(Check(Evening with { Start = new(20, 0) }));
        Assert.Empty(Check(Evening with { Start = new(17, 0) }));
        Assert.Empty(Check(Evening with { Weekday = DayOfWeek.Thursday }));
        Assert.Equal(2, Check(Evening with { Start = new(19, 59) }).Count);
    }

    [Fact]
    public void A_hall_that_is_closed_or_too_small_is_said_and_can_be_kept()
    {
        var closed = Assert.Single(
            Check(Evening with { HallId = Chapel.Id, Start = new(20, 30), StaffIds = [Jonas.Id] })
        );
        Assert.Equal(
            ("start", false, "Chapel Room is open from 17:00 to 21:00 that day."),
            (closed.Field, closed.Blocks, closed.Message)
        );
        Assert.Contains(closed.Ways, way => way.Start is { } start && start <= new TimeOnly(19, 30));
        var full = Assert.Single(Check(Evening with { HallId = Chapel.Id, StaffIds = [Jonas.Id] }, standing: 23));
        Assert.Equal("Chapel Room has room for 20 standing; 23 stand in this class.", full.Message);
        Assert.Equal(
            "30 people are in this class; 24 are allowed in Chapel Room.",
            Check(Evening with { HallId = Chapel.Id, StaffIds = [Jonas.Id] }, standing: 30)[0].Message
        );
        Assert.Equal(
            "13 sit and Chapel Room has 12 firm chairs.",
            Check(Evening with { HallId = Chapel.Id, StaffIds = [Jonas.Id] }, seated: 13)[0].Message
        );
    }

    [Property]
    public void Every_way_out_settles_the_concern_it_stands_with(int quarter, byte minutes, bool chapel, byte standing)
    {
        var text = Evening with
        {
            Start = new(7 + ((quarter & 63) % 14), ((quarter >> 6) & 3) * 15),
            Minutes = 30 + (minutes % 90),
            HallId = chapel ? Chapel.Id : Lower.Id,
            StaffIds = [Noor.Id],
        };
        foreach (var concern in Check(text, standing % 40))
        {
            foreach (var way in concern.Ways)
            {
                var after = Check(
                    text with
                    {
                        HallId = way.HallId ?? text.HallId,
                        Start = way.Start ?? text.Start,
                        StaffIds = way.StaffInId is { } instead ? [instead] : text.StaffIds,
                    },
                    standing % 40
                );
                Assert.DoesNotContain(after, left => left.Field == concern.Field && left.Message == concern.Message);
            }
        }
    }

    [Fact]
    public void A_class_that_only_assistants_would_lead_is_said_with_whom_to_ask()
    {
        var odile = StaffMember.Create(Guid.NewGuid(), new("Odile Marchetti", StaffRole.Assistant));
        IReadOnlyList<ClassConcern> Led(params Guid[] by) =>
            ClassCheck.Of(
                Evening with
                {
                    Weekday = DayOfWeek.Friday,
                    StaffIds = by,
                },
                [],
                [Lower, Chapel],
                [Noor, Jonas, odile],
                0,
                0
            );
        var concern = Assert.Single(Led(odile.Id), found => found.Field == "staffIds[0]");
        Assert.False(concern.Blocks);
        Assert.Equal([Noor.Id, Jonas.Id], concern.Ways.Select(way => way.StaffInId!.Value));
        Assert.DoesNotContain(Led(odile.Id, Jonas.Id), found => found.Field == "staffIds[0]");
    }

    private static IReadOnlyList<ClassConcern> Check(ClassText text, int standing = 0, int seated = 0) =>
        ClassCheck.Of(text, [Kept], [Lower, Chapel], [Noor, Jonas], standing, seated);
}
