using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Progress;

namespace Zeitplan.Server.Terms;

/// <summary>States a class's term as a problem for the planner, from what is assigned, known and taught.</summary>
internal static class ClassMaterials
{
    /// <param name="instead">Segments to try for one cohort in place of what it has been given.</param>
    public static async Task<ClassMaterial> LoadAsync(SchoolContext db, Term term, SchoolClass meeting, DateOnly today, CancellationToken cancel, Assignment? instead = null)
    {
        var cohorts = await db.Cohorts.AsNoTracking().Where(cohort => cohort.ClassId == meeting.Id).OrderBy(cohort => cohort.Order).ToListAsync(cancel);
        var ids = cohorts.Select(cohort => cohort.Id).ToList();
        var assignments = await db.Assignments.AsNoTracking().Where(a => a.TermId == term.Id && ids.Contains(a.CohortId)).ToDictionaryAsync(a => a.CohortId, cancel);
        var forms = await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel);
        var postures = await Material.OutlinesAsync(db, cancel);
        var ways = await Material.WaysAsync(db, cancel);
        var before = await ProgressBooks.LoadAsync(db, ids, term.Start, cancel, before: term.Start);
        var records = ProgressBook.Latest(await db.LessonRecords.AsNoTracking().Where(record => record.ClassId == meeting.Id && record.Date >= term.Start && record.Date <= term.End).ToListAsync(cancel)).ToList();

        var recorded = records.Select(record => record.Date).ToHashSet();
        var days = LessonCalendar.Of(term, meeting).Where(day => day.Closed is null).ToList();
        var lessons = days.Select(day => new LessonSlot(day.Date, LessonSlot.Teachable(meeting.Minutes), meeting.StaffOn(day.Date).Count, day.Kind, day.Date < today || recorded.Contains(day.Date))).ToList();
        var introduced = Introductions(records, days);

        List<CohortProblem> problems = [];
        Dictionary<Guid, IReadOnlyList<Unteachable>> left = [];
        foreach (var cohort in cohorts)
        {
            var given = instead?.CohortId == cohort.Id ? instead.Segments : assignments.GetValueOrDefault(cohort.Id)?.Segments ?? [];
            var segments = given.Where(segment => segment.Purpose == Purpose.New).ToList();
            var toHere = segments.SelectMany(segment => forms[segment.FormId].Positions.Take(forms[segment.FormId].IndexOf(segment.ToId) + 1)).DistinctBy(position => position.Id).ToList();
            var students = before.In(cohort.Id);
            var known = Known.By(students, toHere.Select(position => new PostureSide(position.PostureId, position.Side)), before.Book);
            var material = SegmentMaterial.Of([.. segments.Select(segment => segment.PositionsOf(forms[segment.FormId]))], postures, known, cohort.Mode, ways.BothSides);
            left[cohort.Id] = material.Left;
            problems.Add(Problem(cohort, students.Count, material.Units, introduced, lessons, segments.Max(segment => (DateOnly?)segment.Target) ?? term.End, ways.NewPostures) with
            {
                Before = [.. toHere.Select(position => new PostureSide(position.PostureId, position.Side)).Where(known.Contains).Distinct()],
                BeforeSeconds = toHere.Where(position => known.Contains(new(position.PostureId, position.Side)))
                    .Sum(position => position.Repeats * (postures[position.PostureId].In(cohort.Mode)?.Counts ?? 0) * Pace.Smooth),
            });
        }

        return new(new(lessons, problems), left);
    }

    private static CohortProblem Problem(Cohort cohort, int people, IReadOnlyList<TeachingUnit> units, IReadOnlyDictionary<(Guid Cohort, PostureSide Of), int> introduced, List<LessonSlot> lessons, DateOnly target, int mostNew)
    {
        int? LessonOf(TeachingUnit unit) => introduced.TryGetValue((cohort.Id, new(unit.PostureId, unit.Side)), out var lesson) ? lesson : null;

        // What has been taught comes first, in the order it was taught in; the rest follows in form order.
        var ordered = units.OrderBy(unit => LessonOf(unit) ?? int.MaxValue).ToList();
        var careful = cohort.Beginners || cohort.Mode.IsAdapted;
        return new(
            cohort.Id,
            cohort.Name,
            people,
            ordered,
            [.. ordered.Select(LessonOf).OfType<int>()],
            MaxNew: careful ? 1 : mostNew,
            AttendedLessons: cohort.MustBeAttended ? int.MaxValue : cohort.Beginners ? CohortProblem.BeginnersAttended : 0,
            TargetLesson: lessons.FindLastIndex(lesson => lesson.Date <= target),
            Before: [],
            BeforeSeconds: 0);
    }

    /// <summary>For each cohort and posture, the first lesson that introduced it.</summary>
    private static Dictionary<(Guid, PostureSide), int> Introductions(List<LessonRecord> records, List<LessonDay> days)
    {
        Dictionary<(Guid, PostureSide), int> introduced = [];
        foreach (var record in records.OrderByDescending(record => record.Date))
        {
            var lesson = days.FindIndex(day => day.Date == record.Date);
            foreach (var item in record.Taught.Where(item => lesson >= 0 && item.How == TaughtHow.Introduced))
            {
                introduced[(item.CohortId, new(item.PostureId, item.Side))] = lesson;
            }
        }

        return introduced;
    }
}
