using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
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
        var does = now.Cohorts.ToDictionary(cohort => cohort.Id, cohort => plan.Touches(cohort.Id));
        var leftOut = (
            await CareTonight.OfAsync(
                asked.Db,
                toArrange.Known.TakingPart(toArrange.Cohorts),
                does,
                toArrange.Outlines,
                asked.Date,
                cancel
            )
        )
            .Where(care => care.Decided?.Mode is null)
            .Select(care => (care.StudentId, care.Of))
            .ToHashSet();
        var absent = Absent(asked, toArrange);

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

    /// <summary>Whoever is said to be away.</summary>
    public static IReadOnlySet<Guid> Absent(AskedLesson asked, ToArrange toArrange) =>
        ProgressBook
            .Latest(
                toArrange.Known.Facts.Attendance.Where(fact => fact.ClassId == asked.ClassId && fact.Date == asked.Date)
            )
            .Where(fact => !fact.Present)
            .Select(fact => fact.StudentId)
            .ToHashSet();
}
