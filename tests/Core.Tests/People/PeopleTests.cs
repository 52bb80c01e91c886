using Zeitplan.Core.People;

namespace Zeitplan.Core.Tests.People;

public sealed class PeopleTests
{
    private static readonly SashLevel Ivory = SashLevel.Create(Guid.NewGuid(), "Ivory", 1, "#D9CCA6", hasHalves: false);
    private static readonly SashLevel Fern = SashLevel.Create(Guid.NewGuid(), "Fern", 2, "#6E8C4A", hasHalves: true);
    private static readonly Guid Cohort = Guid.NewGuid();
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly StudentText Orla = new("Orla", "Vane", Fern.Id, Half.Newer, Cohort, Today, [], "");

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
        Assert.Equal(["cohortId"], Problems(Orla with { CohortId = Guid.NewGuid() }));
        Assert.Equal(["joined"], Problems(Orla with { Joined = Today.AddDays(1) }));
        Assert.Equal(["note"], Problems(Orla with { Note = new('x', 401) }));
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
        Assert.Equal(field, Assert.Single(Hall.Check(name, width, depth, chairs, rail)).Field);

    [Fact]
    public void A_class_needs_staff_a_hall_and_time_to_teach()
    {
        var (hall, noor) = (Guid.NewGuid(), Guid.NewGuid());
        var text = new ClassText("Tuesday evening", DayOfWeek.Tuesday, new(18, 30), 90, hall, [noor]);
        string[] Fields(ClassText of) => [.. of.Check([], new Dictionary<Guid, string> { [hall] = "Lower Hall" }, new Dictionary<Guid, string> { [noor] = "Noor" }).Select(problem => problem.Field)];
        Assert.Empty(Fields(text));
        Assert.Equal(["minutes"], Fields(text with { Minutes = 20 }));
        Assert.Equal(["start"], Fields(text with { Start = new(23, 0) }));
        Assert.Equal(["hallId"], Fields(text with { HallId = Guid.NewGuid() }));
        Assert.Equal(["staffIds"], Fields(text with { StaffIds = [] }));
        Assert.Equal(["staffIds[1]"], Fields(text with { StaffIds = [noor, Guid.NewGuid()] }));
        Assert.Equal(["weekday"], Fields(text with { Weekday = (DayOfWeek)9 }));
    }

    [Fact]
    public void Classes_that_only_touch_do_not_overlap()
    {
        var (hall, noor) = (Guid.NewGuid(), Guid.NewGuid());
        var first = new ClassText("Afternoon", DayOfWeek.Tuesday, new(17, 0), 90, hall, [noor]);
        var kept = SchoolClass.Create(Guid.NewGuid(), first);
        IEnumerable<Problem> Check(int hour, int minute) => (first with { Name = "Evening", Start = new(hour, minute) })
            .Check([kept], new Dictionary<Guid, string> { [hall] = "Lower Hall" }, new Dictionary<Guid, string> { [noor] = "Noor" });
        Assert.Empty(Check(18, 30));
        Assert.Empty(Check(15, 30));
        Assert.Equal(2, Check(18, 29).Count());
        Assert.Equal(2, Check(15, 31).Count());
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
        [.. text.Check(new[] { Ivory, Fern }.ToDictionary(sash => sash.Id), new HashSet<Guid> { Cohort }, Today).Select(problem => problem.Field)];
}
