using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Server.Lessons;

/// <summary>Whom a lesson can look at.</summary>
internal static class PeopleThere
{
    /// <summary>Whoever is expected, or there, and what each of them does: nobody is asked for what they leave out.</summary>
    public static async Task<IReadOnlyList<Watchable>> LoadAsync(
        AskedLesson asked,
        ToArrange toArrange,
        LessonProblem now,
        CancellationToken cancel
    )
    {
        var plan = await asked.PlanAsync(cancel);
        var students = toArrange.Known.Students;
        var ids = students.Select(student => student.Id).ToList();
        var adaptations = await asked
            .Db.Adaptations.AsNoTracking()
            .Where(decision => ids.Contains(decision.StudentId))
            .ToListAsync(cancel);
        var does = now.Cohorts.ToDictionary(cohort => cohort.Id, cohort => plan.Touches(cohort.Id));
        var leftOut = Safety
            .Of(
                toArrange.Known.TakingPart(toArrange.Cohorts),
                does.ToDictionary(
                    cohort => cohort.Key,
                    cohort =>
                        (IReadOnlyDictionary<PostureSide, DateOnly>)cohort.Value.ToDictionary(of => of, _ => asked.Date)
                ),
                toArrange.Outlines,
                adaptations
            )
            .Where(care => care.Decided?.Mode is null)
            .Select(care => (care.StudentId, care.Of))
            .ToHashSet();
        var absent = ProgressBook
            .Latest(
                toArrange.Known.Facts.Attendance.Where(fact => fact.ClassId == asked.ClassId && fact.Date == asked.Date)
            )
            .Where(fact => !fact.Present)
            .Select(fact => fact.StudentId)
            .ToHashSet();

        // Arranged anew in its middle: whoever was seen already is seen.
        var seen = toArrange
            .Known.Facts.Observations.Where(fact => now.Now > 0 && fact.Date == asked.Date)
            .Select(fact => fact.StudentId)
            .ToHashSet();
        return
        [
            .. students
                .Where(student => !absent.Contains(student.Id) && !seen.Contains(student.Id))
                .Select(student => (student.Id, Cohort: toArrange.Known.Cohorts[student.Id]))
                .Where(student => does.ContainsKey(student.Cohort))
                .Select(student => new Watchable(
                    student.Id,
                    student.Cohort,
                    [.. does[student.Cohort].Where(of => !leftOut.Contains((student.Id, of)))],
                    toArrange.Overlooked.Contains(student.Id)
                )),
        ];
    }
}
