using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Tests.People;

public sealed class PeopleTests
{
    private static readonly SashLevel Ivory = SashLevel.Create(
        Guid.NewGuid(),
        1,
        new("Ivory", "#D9CCA6", false, new())
    );
    private static readonly SashLevel Fern = SashLevel.Create(Guid.NewGuid(), 2, new("Fern", "#6E8C4A", true, new()));
    private static readonly Guid Cohort = Guid.NewGuid();
    private static readonly Guid OtherOfTheClass = Guid.NewGuid();
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly StudentText Orla = new("Orla", "Vane", Fern.Id, Half.Newer, [Cohort], Today);

    [Fact]
    public void A_student_without_a_problem_has_none() => Assert.Empty(Problems(Orla));

    [Fact]
    public void One_name_is_enough() => Assert.Empty(Problems(Orla with { FamilyName = "" }));

    [Fact]
    public void Every_problem_of_a_student_stands_at_its_field()
    {
        Assert.Equal(["givenName"], Problems(Orla with { GivenName = " " }));
        Assert.Equal(["familyName"], Problems(Orla with { FamilyName = new('x', 81) }));
        Assert.Equal(["sashId"], Problems(Orla with { SashId = Guid.NewGuid() }));
        Assert.Equal(["half"], Problems(Orla with { SashId = Ivory.Id }));
        Assert.Equal(["cohortIds[1]"], Problems(Orla with { CohortIds = [Cohort, Guid.NewGuid()] }));
        Assert.Equal(["cohortIds"], Problems(Orla with { CohortIds = [Cohort, OtherOfTheClass] }));
        Assert.Equal(["joined"], Problems(Orla with { Joined = Today.AddDays(1) }));
        Assert.Equal(["details.contactPhone"], Problems(Orla with { Details = new() { ContactPhone = "ask Ruben" } }));
        Assert.Equal(["details.heldHand"], Problems(Orla with { Details = new() { HeldHand = Core.Forms.Side.Left } }));
    }

    [Fact]
    public void On_boards_a_student_is_a_given_name_and_an_initial()
    {
        Assert.Equal("Orla V.", Student.Create(Guid.NewGuid(), Orla).ShortName);
        Assert.Equal("Orla", Student.Create(Guid.NewGuid(), Orla with { FamilyName = "" }).ShortName);
    }

    [Theory]
    [InlineData("", 8, 6, 4, 0, "name")]
    [InlineData("Chapel Room", 1, 6, 4, 0, "width")]
    [InlineData("Chapel Room", 8, 101, 4, 0, "depth")]
    [InlineData("Chapel Room", 8, 6, -1, 0, "chairs")]
    [InlineData("Chapel Room", 8, 6, 4, 401, "rail")]
    public void A_hall_is_the_size_of_a_hall(string name, int width, int depth, int chairs, int rail, string field) =>
        Assert.Equal(field, Assert.Single(new HallText(name, width, depth, chairs, rail, [], null).Check([])).Field);

    [Fact]
    public void A_class_needs_staff_a_hall_and_time_to_teach()
    {
        var (hall, noor) = (Guid.NewGuid(), Guid.NewGuid());
        var text = new ClassText("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, hall, [noor]);
        var lower = Hall.Create(hall, new("Lower Hall", 14, 10, 20, 9, [], null));
        string[] Fields(ClassText of) =>
            [
                .. of.Check(
                        new Dictionary<Guid, Hall> { [hall] = lower },
                        new Dictionary<Guid, string> { [noor] = "Noor" }
                    )
                    .Select(problem => problem.Field),
            ];
        Assert.Empty(Fields(text));
        Assert.Equal(["minutes"], Fields(text with { Minutes = 20 }));
        Assert.Equal(["start"], Fields(text with { Start = new(23, 0) }));
        Assert.Equal(["hallId"], Fields(text with { HallId = Guid.NewGuid() }));
        Assert.Equal(["staffIds"], Fields(text with { StaffIds = [] }));
        Assert.Equal(["staffIds[1]"], Fields(text with { StaffIds = [noor, Guid.NewGuid()] }));
        Assert.Equal(["weekday"], Fields(text with { Weekday = (DayOfWeek)9 }));
    }

    [Fact]
    public void Somebody_away_from_one_lesson_is_stood_in_for_on_that_date_only()
    {
        var (noor, jonas, tamsin) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var schoolClass = SchoolClass.Create(
            Guid.NewGuid(),
            new("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, Guid.NewGuid(), [noor, jonas])
            {
                Substitutes = [new(Today, noor, tamsin), new(Today.AddDays(7), jonas, null)],
            }
        );
        Assert.Equal([jonas, tamsin], schoolClass.StaffOn(Today));
        Assert.Equal([noor], schoolClass.StaffOn(Today.AddDays(7)));
        Assert.Equal([noor, jonas], schoolClass.StaffOn(Today.AddDays(14)));
        Assert.True(schoolClass.IsTaughtBy(tamsin, Today.AddDays(-7)));
        Assert.False(schoolClass.IsTaughtBy(tamsin, Today.AddDays(1)));
    }

    [Fact]
    public void Whoever_leaves_keeps_what_was_learned_and_whoever_is_erased_cannot_be_told()
    {
        var student = Student.Create(
            Guid.NewGuid(),
            Orla with
            {
                Details = new() { ContactName = "The Vane household" },
            }
        );
        student.Limit([new(Demand.Kick)], "prefers the wall");
        student.Leave(Today);
        Assert.Equal(
            (Today, 0, new Place(Cohort, Today, Today)),
            (student.Left, student.CohortIds.Length, Assert.Single(student.Places))
        );
        student.Erase(Today.AddDays(1));
        Assert.Equal(
            (Student.ErasedName, "", "", ""),
            (student.GivenName, student.FamilyName, student.Note, student.Details.ContactName)
        );
        Assert.Empty(student.Limits);
        Assert.Single(student.Places);
    }

    [Fact]
    public void What_is_kept_of_a_student_comes_back_as_it_was()
    {
        var student = Student.Create(Guid.NewGuid(), Orla);
        var kept = student.Keep();
        student.Rewrite(Orla with { GivenName = "Olga", SashId = Ivory.Id, Half = Half.None, CohortIds = [] }, Today);
        Assert.NotEqual(kept, student.Keep());
        student.Restore(kept);
        Assert.Equivalent(kept, student.Keep());
    }

    [Fact]
    public void Every_mode_has_its_name_and_only_standing_is_not_adapted()
    {
        Assert.All(Mode.Named, mode => Assert.Equal(mode, Mode.FromName(mode.Name)));
        Assert.Equal([Mode.Standing], Mode.Named.Where(mode => !mode.IsAdapted));
        Assert.Equal("supported", new Mode(Support.Touch, FeetUse.FullSteps).Name);
        Assert.Null(Mode.FromName("floating"));
    }

    private static string[] Problems(StudentText text) =>
        [
            .. text.Check(
                    new[] { Ivory, Fern }.ToDictionary(sash => sash.Id),
                    new Dictionary<Guid, Guid> { [Cohort] = Guid.Empty, [OtherOfTheClass] = Guid.Empty },
                    Today
                )
                .Select(problem => problem.Field),
        ];
}
