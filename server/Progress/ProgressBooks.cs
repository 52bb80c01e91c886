using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Progress;

/// <summary>Loads the facts about the students of some cohorts.</summary>
internal static class ProgressBooks
{
    public sealed record Loaded(ProgressBook Book, IReadOnlyList<Student> Students)
    {
        public IReadOnlyList<Guid> In(Guid cohortId) => [.. Students.Where(student => student.CohortId == cohortId).Select(student => student.Id)];
    }

    /// <param name="before">Only facts about lessons before this date; null for all of them.</param>
    public static async Task<Loaded> LoadAsync(SchoolContext db, IReadOnlyCollection<Guid> cohorts, DateOnly today, CancellationToken cancel, DateOnly? before = null)
    {
        var limit = before ?? DateOnly.MaxValue;
        var students = await db.Students.AsNoTracking().Where(student => cohorts.Contains(student.CohortId)).ToListAsync(cancel);
        var ids = students.Select(student => student.Id).ToList();
        var attendance = await db.Attendance.AsNoTracking().Where(fact => ids.Contains(fact.StudentId) && fact.Date < limit).ToListAsync(cancel);
        var classes = attendance.Select(fact => fact.ClassId).Distinct().ToList();
        var records = await db.LessonRecords.AsNoTracking().Where(record => classes.Contains(record.ClassId) && record.Date < limit).ToListAsync(cancel);
        var observations = await db.StandingObservations.AsNoTracking().Where(observation => ids.Contains(observation.StudentId) && observation.Date < limit).ToListAsync(cancel);
        return new(new(students.ToDictionary(student => student.Id, student => student.CohortId), attendance, records, observations, today), students);
    }
}
