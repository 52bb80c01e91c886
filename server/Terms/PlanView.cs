using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Terms;

/// <summary>A class's term as the weave shows it.</summary>
internal static class PlanView
{
    /// <param name="Lessons">Every date of the term, closures included.</param>
    /// <param name="PlannedAt">Null while the term has not been planned: the rows then have no chips.</param>
    /// <param name="Draft">What the head is working on; null when the plan shown is the announced one.</param>
    /// <param name="Redo">The step that was taken back last and can be taken again; null when there is none.</param>
    /// <param name="Announced">Number of the plan people know, or of the earlier one this is compared with; null while
    /// none has been announced.</param>
    /// <param name="Changes">Against the announced plan; empty without one.</param>
    public sealed record Response(
        Guid TermId,
        string Term,
        Guid ClassId,
        string Class,
        IReadOnlyList<Column> Lessons,
        IReadOnlyList<Row> Rows,
        DateTimeOffset? PlannedAt,
        bool OutOfDate,
        Draft? Draft,
        string? Redo,
        int? Announced,
        IReadOnlyList<Change> Changes
    );

    /// <param name="Steps">How often it can be undone.</param>
    /// <param name="Cause">What the head did last.</param>
    public sealed record Draft(Guid Id, int Steps, string Cause);

    public sealed record Change(
        Guid CohortId,
        string Name,
        IReadOnlyList<UnitMove> Moves,
        int ReviewsMoved,
        Outlook Before,
        Outlook After
    );

    /// <param name="LeftMinutes">Of what no lesson has room for.</param>
    public sealed record Outlook(decimal LeftMinutes, int LateUnits, int LateReviews, DateOnly? Finish);

    /// <param name="WatchMinutes">Of the teachers' time, kept for watching.</param>
    /// <param name="LedMinutes">Minutes of the teachers' time used, of <paramref name="TeacherMinutes"/>; null before
    /// planning and on closures.</param>
    public sealed record Column(
        DateOnly Date,
        DateOnly Usual,
        TimeOnly Start,
        int Minutes,
        Guid HallId,
        int? Number,
        LessonKind Kind,
        string? Closed,
        bool Held,
        int WatchMinutes,
        decimal? LedMinutes,
        decimal? TeacherMinutes
    );

    /// <param name="LeftMinutes">Of units no lesson has room for.</param>
    public sealed record Row(
        Guid CohortId,
        string Name,
        string Colour,
        Half Half,
        string Mode,
        int People,
        bool Assigned,
        IReadOnlyList<Chip> Chips,
        IReadOnlyList<RunThrough> RunThroughs,
        IReadOnlyList<Refreshed> Kept,
        Keeps? Keeps,
        IReadOnlyList<Left> LeftOver,
        decimal LeftMinutes,
        IReadOnlyList<Refused> Refused,
        DateOnly? Finish,
        DateOnly? Target,
        bool Exact,
        Forecast? Forecast
    );

    /// <param name="Id">Names it among the chips of the class, whatever lesson it is in.</param>
    /// <param name="Pinned">The head put it here.</param>
    /// <param name="Was">The lesson it was announced for, where that is another one.</param>
    /// <param name="From">With a link, the posture it leads on from.</param>
    /// <param name="SharedWith">Cohorts that are led in it at the same time.</param>
    public sealed record Chip(
        string Id,
        bool Pinned,
        DateOnly? Was,
        UnitKind Kind,
        Guid PostureId,
        Core.Forms.Side Side,
        PostureSide? From,
        IReadOnlyList<string> SharedWith,
        string Name,
        DateOnly Date,
        bool Taught,
        decimal Minutes,
        string Effort,
        string Because,
        IReadOnlyList<Knot> Reviews
    );

    public sealed record Knot(DateOnly Date, int WeeksAfter, bool Late);

    /// <summary>A lesson whose work is the run-through: before a test, in it, and once everything has been
    /// introduced.</summary>
    public sealed record RunThrough(DateOnly Date, LessonKind Kind, decimal Minutes);

    /// <summary>What the cohort can do and is not to lose.</summary>
    /// <param name="Lessons">How many lessons do something for that alone; 0 where all of it comes up in time
    /// anyway.</param>
    /// <param name="Fading">Those that fade before anything touches them.</param>
    public sealed record Keeps(int Postures, int Lessons, IReadOnlyList<string> Fading);

    /// <summary>What a lesson does to keep what the cohort can do already, or to mend what many of it share.</summary>
    /// <param name="Changed">What the school does otherwise than they learned it; null for a refresh and a
    /// run-through.</param>
    public sealed record Refreshed(
        DateOnly Date,
        string Name,
        bool RunThrough,
        string? Changed,
        decimal Minutes,
        string Because
    );

    /// <summary>A unit that could not stay where the head put it.</summary>
    public sealed record Refused(string Name, DateOnly Date, string Because);

    /// <param name="Minutes">0 for what cannot be taught at all yet.</param>
    public sealed record Left(string Name, decimal Minutes, string Because);

    /// <param name="now">The problem as it would be stated now: when the plan no longer answers it, the plan is out of
    /// date.</param>
    /// <param name="steps">How many drafts there are.</param>
    /// <param name="redo">What could be done again.</param>
    public static async Task<Response> ShowAsync(
        Term term,
        SchoolClass schoolClass,
        PlannedTerm? planned,
        PlannedTerm? announced,
        int steps,
        string? redo,
        ClassMaterial now,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == schoolClass.Id)
            .OrderBy(cohort => cohort.Order)
            .ToListAsync(cancel);
        var ids = cohorts.Select(cohort => cohort.Id).ToList();
        var people = (await db.StudentsIn(ids).Select(student => student.CohortIds).ToListAsync(cancel))
            .SelectMany(cohorts => cohorts)
            .CountBy(cohort => cohort)
            .ToDictionary();
        var given = (
            await db
                .Assignments.AsNoTracking()
                .Where(a => a.TermId == term.Id && ids.Contains(a.CohortId))
                .ToListAsync(cancel)
        ).ToDictionary(a => a.CohortId);
        var lessonAt =
            planned?.Problem.Lessons.Index().ToDictionary(lesson => lesson.Item.Date, lesson => lesson.Index) ?? [];
        var again = await AgainInPlan.LoadAsync(db, term, [schoolClass.Id], cancel);
        var habits = await HabitsAsync(term, ids, db, cancel);
        var held = now.Problem.Lessons.Where(lesson => lesson.Held).Select(lesson => lesson.Date).ToHashSet();
        return new(
            term.Id,
            term.Name,
            schoolClass.Id,
            schoolClass.Name,
            [
                .. LessonCalendar
                    .Of(term, schoolClass)
                    .Select(day =>
                        lessonAt.TryGetValue(day.Date, out var at)
                            ? new Column(
                                day.Date,
                                day.Usual,
                                day.Start,
                                day.Minutes,
                                day.HallId,
                                day.Number,
                                day.Kind,
                                day.Closed,
                                held.Contains(day.Date),
                                day.WatchMinutes,
                                planned!.Plan.LedSeconds[at].Minutes,
                                planned.Problem.Lessons[at].TeacherSeconds.Minutes
                            )
                            : new Column(
                                day.Date,
                                day.Usual,
                                day.Start,
                                day.Minutes,
                                day.HallId,
                                day.Number,
                                day.Kind,
                                day.Closed,
                                held.Contains(day.Date),
                                day.WatchMinutes,
                                null,
                                null
                            )
                    ),
            ],
            [
                .. cohorts.Select(cohort =>
                    PlanRows.Of(
                        cohort,
                        people.GetValueOrDefault(cohort.Id),
                        given.GetValueOrDefault(cohort.Id),
                        planned,
                        announced,
                        [.. again.Where(its => its.CohortIds.Contains(cohort.Id))],
                        habits[cohort.Id]
                    )
                ),
            ],
            planned?.At,
            planned is not null && !PlanInForce.StillHolds(planned.Problem, planned.Plan, now.Problem),
            planned is { Number: null } ? new(planned.Id, steps, planned.Cause) : null,
            redo,
            announced?.Number,
            announced is null || planned is null || announced.Id == planned.Id
                ? []
                : Show(PlanChanges.Between(announced.Solved, planned.Solved))
        );
    }

    /// <summary>How each cohort has come to its lessons this term, so far as attendance was taken.</summary>
    private static async Task<Dictionary<Guid, LearningHabits>> HabitsAsync(
        Term term,
        List<Guid> cohorts,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var students = await db.StudentsIn(cohorts)
            .AsNoTracking()
            .Select(student => new { student.Id, student.CohortIds })
            .ToListAsync(cancel);
        var ids = students.Select(student => student.Id).ToList();
        var facts = ProgressBook
            .Latest(
                await db
                    .Attendance.AsNoTracking()
                    .Where(fact => ids.Contains(fact.StudentId) && fact.Date >= term.Start && fact.Date <= term.End)
                    .ToListAsync(cancel)
            )
            .ToLookup(fact => fact.StudentId);
        return cohorts.ToDictionary(
            cohort => cohort,
            cohort =>
                students
                    .Where(student => student.CohortIds.Contains(cohort))
                    .SelectMany(student => facts[student.Id])
                    .ToList()
                    is { Count: > 0 } attended
                    ? new LearningHabits(attended.Count(fact => fact.Present) / (double)attended.Count)
                    : new LearningHabits(LearningHabits.UsualAttendance)
        );
    }

    public static IReadOnlyList<Change> Show(IReadOnlyList<CohortChange> changes) =>
        [
            .. changes.Select(change => new Change(
                change.CohortId,
                change.Name,
                change.Moves,
                change.ReviewsMoved,
                Show(change.Before),
                Show(change.After)
            )),
        ];

    private static Outlook Show(CohortOutlook outlook) =>
        new(outlook.LeftSeconds.Minutes, outlook.LateUnits, outlook.LateReviews, outlook.Finish);

    public static string ChipId(Guid cohort, UnitKey key) =>
        string.Join(
            '.',
            new object?[]
            {
                cohort,
                key.Kind,
                key.PostureId,
                key.Side,
                key.FromPostureId,
                key.FromSide,
            }.OfType<object>()
        );

    /// <summary>The unit a chip stands for; null when the class has no such unit.</summary>
    public static (Guid Cohort, int Unit)? Find(TermProblem problem, string chip) =>
        problem
            .Cohorts.SelectMany(cohort =>
                cohort
                    .Units.Index()
                    .Where(unit => ChipId(cohort.Id, unit.Item.Key) == chip)
                    .Select(unit => ((Guid, int)?)(cohort.Id, unit.Index))
            )
            .FirstOrDefault();
}
