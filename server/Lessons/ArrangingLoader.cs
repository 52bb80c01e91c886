using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Server.Data;
using Zeitplan.Server.Progress;

namespace Zeitplan.Server.Lessons;

/// <summary>A lesson that is to be arranged, and what it was made from.</summary>
/// <param name="Known">All that is known now.</param>
/// <param name="Facts">What was known before the lesson: it is arranged by that, whatever was marked in it and came
/// later.</param>
internal sealed record ToArrange(
    LessonProblem Problem,
    IReadOnlyList<Cohort> Cohorts,
    ProgressBooks.Loaded Known,
    ProgressBooks.Loaded Facts,
    IReadOnlyDictionary<Guid, PostureOutline> Outlines,
    IReadOnlySet<Guid> Overlooked,
    IReadOnlyList<WarmUpPiece> WarmUp
);

/// <summary>What the arranger is given for one lesson: what the term plan asks of it, and who is there.</summary>
internal static class ArrangingLoader
{
    /// <param name="edits">What is done to it: whoever joins by that is among those there.</param>
    /// <returns>Null while the term plan knows nothing of the lesson.</returns>
    public static async Task<ToArrange?> LoadAsync(
        SchoolContext db,
        Lesson lesson,
        LessonPlan plan,
        IEnumerable<LessonEdit> edits,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == lesson.Class.Id)
            .OrderBy(cohort => cohort.Order)
            .ToListAsync(cancel);
        var teaching = await db.Schools.Select(school => school.Teaching).SingleAsync(cancel);
        if (
            plan.At is not { } at
            || plan.Asks(cohorts.Where(cohort => cohort.SashId is null), teaching) is not { } asked
        )
        {
            return null;
        }

        var staffIds = lesson.Class.StaffOn(lesson.Date);
        var staff = await db.Staff.AsNoTracking().Where(member => staffIds.Contains(member.Id)).ToListAsync(cancel);
        var levels = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, sash => sash.Order, cancel);
        var known = await ProgressBooks.LoadAsync(
            db,
            [.. cohorts.Select(cohort => cohort.Id)],
            today,
            cancel,
            joining: JoiningTonight.Of(edits)
        );
        var facts = lesson.Date <= today ? known.Before(lesson.Date) : known;
        var own = await SashesAsync(db, staff, cancel);
        var outlines = known.Facts.Syllabus.Outlines;
        var overlooked = FairEyes.Overlooked(
            ProgressBook.Latest(facts.Facts.Attendance.Where(fact => fact.ClassId == lesson.Class.Id)),
            facts.Facts.Observations,
            lesson.Date,
            lessons: 1
        );
        LessonProblem problem = new(
            lesson.Day.Minutes,
            [
                .. cohorts
                    .Where(cohort => plan.AskedOf(cohort.Id) is not null)
                    .Select(cohort => Here(cohort, plan, at, levels, facts, outlines, overlooked)),
            ],
            [
                .. staff
                    .OrderByDescending(member => member.Role)
                    .ThenBy(member => member.Name, StringComparer.OrdinalIgnoreCase)
                    .Select(member => There(member, own, levels, lesson)),
            ],
            asked.Tasks,
            asked.Whole,
            LessonRules.Of(teaching.Eyes)
        )
        {
            LastTime = await LastTimeAsync(db, lesson, cancel),
        };
        return new(problem, cohorts, known, facts, outlines, overlooked, teaching.WarmUp);
    }

    /// <summary>Who teaches at this school, and not this lesson: whoever could be asked.</summary>
    public static async Task<IReadOnlyList<TeacherHere>> OthersAsync(
        SchoolContext db,
        Lesson lesson,
        CancellationToken cancel
    )
    {
        var there = lesson.Class.StaffOn(lesson.Date);
        var staff = await db
            .Staff.AsNoTracking()
            .Where(member => !there.Contains(member.Id))
            .OrderBy(member => member.Name)
            .ToListAsync(cancel);
        var levels = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, sash => sash.Order, cancel);
        var own = await SashesAsync(db, staff, cancel);
        return [.. staff.Select(member => There(member, own, levels, lesson))];
    }

    private static TeacherHere There(
        StaffMember member,
        IReadOnlyDictionary<Guid, Guid> own,
        IReadOnlyDictionary<Guid, int> levels,
        Lesson lesson
    ) =>
        new(
            member.Id,
            member.Name,
            member.Role != StaffRole.Assistant,
            member.StudentId is { } student && own.TryGetValue(student, out var sash) ? levels[sash] : null,
            0,
            lesson.Day.Minutes
        );

    /// <summary>The own sashes of those who teach and learn.</summary>
    private static async Task<Dictionary<Guid, Guid>> SashesAsync(
        SchoolContext db,
        IEnumerable<StaffMember> staff,
        CancellationToken cancel
    )
    {
        var learning = staff.Select(member => member.StudentId).OfType<Guid>().ToList();
        return await db
            .Students.AsNoTracking()
            .Where(student => learning.Contains(student.Id))
            .ToDictionaryAsync(student => student.Id, student => student.SashId, cancel);
    }

    /// <summary>Who led whom in the lesson before, where somebody has arranged that by hand.</summary>
    private static async Task<IReadOnlyList<TeacherOfCohort>> LastTimeAsync(
        SchoolContext db,
        Lesson lesson,
        CancellationToken cancel
    )
    {
        var before = await db
            .Arrangements.AsNoTracking()
            .Where(kept => kept.ClassId == lesson.Class.Id && kept.Date < lesson.Date)
            .OrderByDescending(kept => kept.Date)
            .Select(kept => kept.Arrangement)
            .FirstOrDefaultAsync(cancel);
        return
        [
            .. (before?.Blocks ?? [])
                .Where(block => block is { LedBy: not null, CohortId: not null })
                .Select(block => new TeacherOfCohort(block.LedBy!.Value, block.CohortId!.Value))
                .Distinct(),
        ];
    }

    private static CohortHere Here(
        Cohort cohort,
        LessonPlan plan,
        int at,
        Dictionary<Guid, int> levels,
        ProgressBooks.Loaded facts,
        IReadOnlyDictionary<Guid, PostureOutline> outlines,
        IReadOnlySet<Guid> overlooked
    )
    {
        var (problem, answer) = (plan.AskedOf(cohort.Id)!, plan.AnswerFor(cohort.Id)!);
        var people = facts.In(cohort.Id);
        var touched = plan.Touches(cohort.Id);
        return new(
            cohort.Id,
            cohort.Name,
            cohort.SashId is { } sash ? levels[sash] : null,
            people.Count,
            problem.IsAttended(at) || cohort.MustBeAttended,
            PlannedLesson.Range([
                .. problem
                    .Before.Concat(
                        answer
                            .Placements.Where(placement => placement.Lesson < at)
                            .Select(placement => problem.Units[placement.Unit])
                            .Where(unit => unit.Kind != UnitKind.Link)
                            .Select(unit => unit.Of)
                    )
                    .Where(of => IsFollowed(of, people, facts.Book))
                    .Select(of => outlines[of.PostureId].NameOn(of.Side))
                    .Distinct(),
            ]),
            WatchList
                .Of(
                    people.Select(student => new Watchable(student, cohort.Id, touched, overlooked.Contains(student))),
                    facts.Book,
                    facts.Today
                )
                .Count(watched => watched.IsDue),
            people.Count * (cohort.Beginners ? 2 : 1)
        );
    }

    /// <summary>Own practice is material that is at <i>follows</i> or better already (domain.md 4.4): with most of those who
    /// are there.</summary>
    private static bool IsFollowed(PostureSide of, IReadOnlyList<Guid> people, ProgressBook book) =>
        people.Count(student => book.StandingOf(student, of).Stage >= Stage.Follows) * 2 >= people.Count;
}
