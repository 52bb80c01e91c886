using System.Globalization;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>A change to the school that could make a term fit: one more lesson, one more teacher, a shorter segment, a
/// longer term, longer lessons (domain.md 4.3).</summary>
/// <param name="Id">Names it from one look at the term to the next.</param>
/// <param name="Says">As the head would put it.</param>
public sealed record Remedy(string Id, string Says, Action<Term, SchoolClass, IReadOnlyCollection<Assignment>> Apply);

/// <summary>What a remedy may touch, and what it must get on with.</summary>
/// <param name="Others">The school's other classes that go on.</param>
/// <param name="OtherTerms">Terms it must not run into.</param>
public sealed record RemedyQuestion(
    SolvedTerm Solved,
    Term Term,
    SchoolClass Class,
    DateOnly Today,
    IReadOnlyCollection<Assignment> Assignments,
    IReadOnlyDictionary<Guid, Form> Forms,
    IReadOnlyDictionary<Guid, PostureOutline> Postures,
    IReadOnlyList<SchoolClass> Others,
    IReadOnlyDictionary<Guid, Hall> Halls,
    IReadOnlyList<StaffMember> Staff,
    IReadOnlyCollection<Term> OtherTerms
);

/// <summary>Proposes remedies that the halls, the staff and the calendar allow. Whether one helps, and how much, is
/// found by planning with it.</summary>
public static class Remedies
{
    public const int MoreMinutes = 15;
    public const int MoreWeeks = 2;

    public static IReadOnlyList<Remedy> For(RemedyQuestion asked) =>
        [
            .. new[]
            {
                OneMoreLesson(asked),
                AnotherTeacher(asked),
                LongerLessons(asked),
                LongerTerm(asked),
            }.OfType<Remedy>(),
            .. ShorterSegments(asked),
        ];

    /// <summary>Near a closed date where there is one, on the first day on which hall and staff are free.</summary>
    private static Remedy? OneMoreLesson(RemedyQuestion asked)
    {
        var days = LessonCalendar.Of(asked.Term, asked.Class);
        var last = days.LastOrDefault(day =>
            day.Closed is null && day.Kind == LessonKind.Ordinary && day.Date > asked.Today
        )?.Date;
        var dates =
            from day in days.OrderBy(day => day.Closed is null).ThenBy(day => day.Date)
            from offset in new[] { 2, 1, -1, 3, -2 }
            let date = day.Date.AddDays(offset)
            where
                date > asked.Today
                && date <= last
                && !asked.Term.Closures.Any(closure => closure.Covers(date))
                && !asked.Term.TestDays.Contains(date)
                && date.DayOfWeek != asked.Class.Weekday
            where
                new LessonChange(date)
                    .Check(asked.Class, [.. days.Select(day => day.Date)], asked.Halls, asked.Others)
                    .Any()
                    is false
                && asked.Halls[asked.Class.HallId].IsOpen(date.DayOfWeek, asked.Class.Start, asked.Class.End)
                && !asked.Others.Any(other =>
                    other.Weekday == date.DayOfWeek
                    && other.StaffIds.Intersect(asked.Class.StaffIds).Any()
                    && other.Start < asked.Class.End
                    && asked.Class.Start < other.End
                )
            select (DateOnly?)date;
        return dates.FirstOrDefault() is { } found
            ? new(
                $"lesson-{found:yyyy-MM-dd}",
                string.Create(CultureInfo.InvariantCulture, $"One more lesson, on {found:dddd d MMMM}"),
                (_, schoolClass, _) => schoolClass.ChangeLesson(new(found), found, [])
            )
            : null;
    }

    /// <summary>The least senior of those who teach nowhere else at that time.</summary>
    private static Remedy? AnotherTeacher(RemedyQuestion asked)
    {
        var free = asked
            .Staff.Where(member => !asked.Class.StaffIds.Contains(member.Id))
            .Where(member =>
                !asked.Others.Any(other =>
                    other.Weekday == asked.Class.Weekday
                    && other.StaffIds.Contains(member.Id)
                    && other.Start < asked.Class.End
                    && asked.Class.Start < other.End
                )
            )
            .OrderBy(member => member.Role)
            .ThenBy(member => member.Name)
            .FirstOrDefault();
        return free is null
            ? null
            : new(
                $"teacher-{free.Id}",
                $"{free.Name} teaches {asked.Class.Name} too",
                (_, schoolClass, _) =>
                    schoolClass.Rewrite(TextOf(schoolClass) with { StaffIds = [.. schoolClass.StaffIds, free.Id] })
            );
    }

    private static Remedy? LongerLessons(RemedyQuestion asked)
    {
        var (start, minutes) = (asked.Class.Start, asked.Class.Minutes + MoreMinutes);
        var end = start.ToTimeSpan() + TimeSpan.FromMinutes(minutes);
        var taken = asked.Others.Any(other =>
            other.Weekday == asked.Class.Weekday
            && (other.HallId == asked.Class.HallId || other.StaffIds.Intersect(asked.Class.StaffIds).Any())
            && other.Start.ToTimeSpan() < end
            && start < other.End
        );
        return
            taken
            || end > TimeSpan.FromDays(1)
            || !asked.Halls[asked.Class.HallId].IsOpen(asked.Class.Weekday, start, start.AddMinutes(minutes))
            ? null
            : new(
                $"minutes-{minutes}",
                $"Every lesson {MoreMinutes} minutes longer",
                (_, schoolClass, _) => schoolClass.Rewrite(TextOf(schoolClass) with { Minutes = minutes })
            );
    }

    /// <summary>The term ends later, and the test that ends it moves along.</summary>
    private static Remedy? LongerTerm(RemedyQuestion asked)
    {
        var end = asked.Term.End.AddDays(7 * MoreWeeks);
        var lastDay = LessonCalendar.Of(asked.Term, asked.Class).LastOrDefault(day => day.Closed is null)?.Date;
        return
            asked.OtherTerms.Any(other => other.Start <= end && other.End >= asked.Term.Start)
            || (end.DayNumber - asked.Term.Start.DayNumber) > TermText.LongestWeeks * 7
            ? null
            : new(
                $"weeks-{MoreWeeks}",
                $"{asked.Term.Name} runs {MoreWeeks} weeks more, to {end.ToString("d MMMM", CultureInfo.InvariantCulture)}",
                (term, _, _) =>
                    term.Rewrite(
                        new(
                            term.Name,
                            term.Start,
                            end,
                            term.Closures,
                            [.. term.TestDays.Select(day => day == lastDay ? day.AddDays(7 * MoreWeeks) : day)]
                        )
                    )
            );
    }

    /// <summary>For each cohort with something left over, its segment up to what still fits; the rest is for the next
    /// term.</summary>
    private static IEnumerable<Remedy> ShorterSegments(RemedyQuestion asked) =>
        from plan in asked.Solved.Plan.Cohorts
        where plan.LeftOver.Count > 0
        let cohort = asked.Solved.Asked(plan.CohortId)!
        let given = asked.Assignments.FirstOrDefault(assignment => assignment.CohortId == plan.CohortId)
        where given is not null
        let left = plan.LeftOver.Select(unit => cohort.Units[unit.Unit].Of).ToHashSet()
        from cut in given
            .Segments.Where(segment => segment.Purpose == Purpose.New)
            .Select(segment => Cut(asked, segment, left))
            .Where(cut => cut is not null)
            .Take(1)
        select new Remedy(
            $"shorter-{plan.CohortId}-{cut.Value.Segment.ToId}",
            $"{cohort.Name} learns only to {cut.Value.Name}",
            (_, _, assignments) =>
            {
                var given = assignments.Single(assignment => assignment.CohortId == plan.CohortId);
                given.Rewrite([
                    .. given.Segments.Select(segment =>
                        segment.Id == cut.Value.Segment.Id ? cut.Value.Segment : segment
                    ),
                ]);
            }
        );

    /// <summary>A segment up to the position before the first that is left over; null when that leaves nothing of
    /// it.</summary>
    private static (AssignedSegment Segment, string Name)? Cut(
        RemedyQuestion asked,
        AssignedSegment segment,
        HashSet<PostureSide> left
    )
    {
        var positions = segment.PositionsOf(asked.Forms[segment.FormId]);
        var first = positions
            .Index()
            .Where(position => left.Contains(new(position.Item.PostureId, position.Item.Side)))
            .Select(position => (int?)position.Index)
            .FirstOrDefault();
        return first is > 0 && positions[first.Value - 1] is var to
            ? (segment with { ToId = to.Id }, asked.Postures[to.PostureId].NameOn(to.Side))
            : null;
    }

    private static ClassText TextOf(SchoolClass schoolClass) =>
        new(
            schoolClass.Name,
            schoolClass.Weekday,
            schoolClass.Start,
            schoolClass.Minutes,
            schoolClass.HallId,
            schoolClass.StaffIds
        )
        {
            Substitutes = schoolClass.Substitutes,
        };
}
