using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Progress;

namespace Zeitplan.Server.Data;

/// <summary>What later rooms hold about people and groups. Whoever and whatever has a past is closed, not
/// deleted.</summary>
internal static class History
{
    /// <summary>Whether anybody has ever been in a class: then their past names it.</summary>
    public static async Task<bool> HasHistoryAsync(
        this SchoolContext db,
        Guid classId,
        IReadOnlyCollection<Guid> cohorts,
        CancellationToken cancel
    ) =>
        await db.Attendance.AnyAsync(fact => fact.ClassId == classId, cancel)
        || await db.TaughtFacts.AnyAsync(record => record.ClassId == classId, cancel)
        || await db.Observations.AnyAsync(observation => observation.ClassId == classId, cancel)
        || await db.WereThereAsync(cohorts, cancel);

    /// <summary>Whether a cohort was ever taught, or anybody ever learned in it.</summary>
    public static async Task<bool> HasHistoryAsync(this SchoolContext db, Guid cohortId, CancellationToken cancel) =>
        await db.WereThereAsync([cohortId], cancel)
        || await db.TaughtFacts.AnyAsync(fact => fact.CohortId == cohortId, cancel);

    /// <returns>Those of the students about whom something has been marked.</returns>
    public static async Task<IReadOnlySet<Guid>> MarkedAsync(
        this SchoolContext db,
        IReadOnlyCollection<Guid> students,
        CancellationToken cancel
    ) =>
        (
            await db
                .Attendance.Where(fact => students.Contains(fact.StudentId))
                .Select(fact => fact.StudentId)
                .Union(db.Observations.Where(fact => students.Contains(fact.StudentId)).Select(fact => fact.StudentId))
                .ToListAsync(cancel)
        ).ToHashSet();

    /// <summary>Takes the words out of everything that was observed about somebody; what was seen stays. Within a
    /// transaction: facts are open to it until that ends.</summary>
    public static async Task ForgetWordsAsync(this SchoolContext db, Guid studentId, CancellationToken cancel)
    {
        await db.Database.ExecuteSqlAsync($"SET LOCAL zeitplan.erasing = 'on'", cancel);
        await db
            .Observations.Where(observation => observation.StudentId == studentId)
            .ExecuteUpdateAsync(rows => rows.SetProperty(observation => observation.Words, ""), cancel);
        await db
            .WaysTried.Where(way => way.StudentId == studentId)
            .ExecuteUpdateAsync(
                rows => rows.SetProperty(way => way.Words, "").SetProperty(way => way.Cause, ""),
                cancel
            );
        var empty = new HomeSheet([], "", "");
        await db
            .HomeSheets.Where(given => given.StudentId == studentId)
            .ExecuteUpdateAsync(rows => rows.SetProperty(given => given.Sheet, empty), cancel);
    }

    /// <summary>What was given to cohorts that go goes with them.</summary>
    public static async Task TakeBackAssignmentsAsync(
        this SchoolContext db,
        IReadOnlyCollection<Guid> cohorts,
        CancellationToken cancel
    ) =>
        db.Assignments.RemoveRange(
            await db.Assignments.Where(given => cohorts.Contains(given.CohortId)).ToListAsync(cancel)
        );

    private static async Task<bool> WereThereAsync(
        this SchoolContext db,
        IReadOnlyCollection<Guid> cohorts,
        CancellationToken cancel
    ) =>
        (await db.Students.AsNoTracking().Select(student => student.Places).ToListAsync(cancel)).Any(places =>
            places.Any(place => cohorts.Contains(place.CohortId))
        );
}
