using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;

namespace Zeitplan.Core.Tests.Terms;

public sealed class RemedyTests
{
    private static readonly Hall Lower = Hall.Create(Guid.NewGuid(), new("Lower Hall", 14, 10.5m, 20, 6, [], 40));
    private static readonly StaffMember Noor = StaffMember.Create(Guid.NewGuid(), new("Noor Adeyemi", StaffRole.Head));
    private static readonly StaffMember Odile = StaffMember.Create(
        Guid.NewGuid(),
        new("Odile Marchetti", StaffRole.Assistant)
    );
    private static readonly Term Autumn = Core.Terms.Term.Create(
        Guid.NewGuid(),
        new(
            "Autumn term",
            new(2026, 9, 1),
            new(2026, 11, 3),
            [new(new(2026, 9, 22), "Halls closed")],
            [new(2026, 11, 3)]
        )
    );

    /// <summary>A beginners' cohort with more postures than the term has lessons for one each.</summary>
    private static RemedyQuestion Asked(params SchoolClass[] others)
    {
        var schoolClass = Meeting("Tuesday evening", DayOfWeek.Tuesday);
        List<Posture> postures =
        [
            .. Enumerable.Range(1, 12).Select(number => Material.Posture($"Posture {number}", Side.Left, counts: 5)),
        ];
        var section = new Section(Guid.NewGuid(), "All of it");
        var form = Form.Create(
            Guid.NewGuid(),
            new FormText(
                "Lamp Form",
                [section],
                [
                    .. postures.Select(posture => new Position(
                        Guid.NewGuid(),
                        section.Id,
                        posture.Id,
                        Side.Left,
                        0,
                        Facing.FromDegrees(0)
                    )),
                ]
            )
        );
        var outlines = postures.ToDictionary(posture => posture.Id, posture => posture.Outline);
        var units = SegmentMaterial
            .Of([new(form.Positions)], outlines, new HashSet<PostureSide>(), TeachingWay.Of(Mode.Standing))
            .Units;
        var days = LessonCalendar.Of(Autumn, schoolClass).Where(day => day.Closed is null).ToList();
        var problem = new TermProblem(
            [.. days.Select(day => new LessonSlot(day.Date, LessonSlot.Teachable(day.Minutes), 1, day.Kind, false))],
            [Material.Cohort("Ivory", units, maxNew: 1, target: days.Count - 1)]
        );
        var assignment = Assignment.Create(
            Guid.NewGuid(),
            Autumn.Id,
            problem.Cohorts[0].Id,
            [new(Guid.NewGuid(), form.Id, form.Positions[0].Id, form.Positions[^1].Id, Autumn.End, Purpose.New, [])]
        );
        return new(
            new(problem, TermPlanner.Plan(problem)),
            Autumn,
            schoolClass,
            new(2026, 9, 1),
            [assignment],
            new Dictionary<Guid, Form> { [form.Id] = form },
            outlines,
            others,
            new Dictionary<Guid, Hall> { [Lower.Id] = Lower },
            [Noor, Odile],
            []
        );
    }

    private static SchoolClass Meeting(string name, DayOfWeek weekday, int hour = 18) =>
        SchoolClass.Create(Guid.NewGuid(), new(name, weekday, new(hour, hour == 20 ? 0 : 30), 90, Lower.Id, [Noor.Id]));

    private static string[] Kinds(RemedyQuestion asked) =>
        [.. Remedies.For(asked).Select(remedy => remedy.Id.Split('-')[0])];

    [Fact]
    public void Every_kind_of_remedy_is_proposed_with_a_date_a_name_and_an_end()
    {
        var asked = Asked();
        Assert.NotEmpty(asked.Solved.Plan.Cohorts[0].LeftOver);
        var last = asked.Solved.Plan.Cohorts[0].Placements[^1].Unit;
        Assert.Equal(
            [
                "One more lesson, on Thursday 24 September",
                "Odile Marchetti teaches Tuesday evening too",
                "Every lesson 15 minutes longer",
                "Autumn term runs 2 weeks more, to 17 November",
                $"Ivory learns only to {asked.Solved.Problem.Cohorts[0].Units[last].Name}",
            ],
            Remedies.For(asked).Select(remedy => remedy.Says)
        );
    }

    [Fact]
    public void What_the_halls_the_staff_and_other_terms_do_not_allow_is_not_proposed()
    {
        Assert.Equal("lesson", Kinds(Asked(Meeting("Thursday", DayOfWeek.Thursday)))[0]);
        Assert.Equal(
            "One more lesson, on Wednesday 23 September",
            Remedies.For(Asked(Meeting("Thursday", DayOfWeek.Thursday)))[0].Says
        );
        Assert.DoesNotContain("minutes", Kinds(Asked(Meeting("Late Tuesday", DayOfWeek.Tuesday, hour: 20))));
        var winter = Core.Terms.Term.Create(
            Guid.NewGuid(),
            new("Winter term", new(2026, 11, 10), new(2027, 1, 20), [], [])
        );
        Assert.DoesNotContain("weeks", Kinds(Asked() with { OtherTerms = [winter] }));
        Assert.DoesNotContain("teacher", Kinds(Asked() with { Staff = [Noor] }));
    }

    [Fact]
    public void Applying_a_remedy_changes_what_it_says_and_nothing_else()
    {
        foreach (var kind in Kinds(Asked()))
        {
            var asked = Asked();
            var term = Core.Terms.Term.Create(
                Autumn.Id,
                new(Autumn.Name, Autumn.Start, Autumn.End, Autumn.Closures, Autumn.TestDays)
            );
            Remedies
                .For(asked)
                .Single(remedy => remedy.Id.StartsWith(kind, StringComparison.Ordinal))
                .Apply(term, asked.Class, asked.Assignments);
            var days = LessonCalendar.Of(term, asked.Class);
            Assert.Equal(
                kind == "lesson" ? 11
                    : kind == "weeks" ? 12
                    : 10,
                days.Count
            );
            Assert.Equal(
                kind == "weeks" ? new(2026, 11, 17) : new DateOnly(2026, 11, 3),
                days.Single(day => day.Kind == LessonKind.Test).Date
            );
            Assert.Equal(kind == "teacher" ? 2 : 1, asked.Class.StaffOn(days[0].Date).Count);
            Assert.Equal(kind == "minutes" ? 105 : 90, days[0].Minutes);
            var form = asked.Forms.Values.Single();
            Assert.Equal(
                kind == "shorter" ? asked.Solved.Plan.Cohorts[0].Placements.Count : 12,
                asked.Assignments.Single().Segments.Single().PositionsOf(form).Count
            );
        }
    }
}
