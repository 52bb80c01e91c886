using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;

namespace Zeitplan.Server.Terms;

/// <summary>Some classes in a term: who learns in them, and what their cohorts have been given.</summary>
/// <param name="Cohorts">In the school's order.</param>
/// <param name="Students">Who learns in one of the cohorts now.</param>
/// <param name="Assignments">By cohort.</param>
internal sealed record TermClasses(
    Term Term,
    IReadOnlyList<SchoolClass> Classes,
    IReadOnlyList<Cohort> Cohorts,
    IReadOnlyList<Student> Students,
    IReadOnlyDictionary<Guid, Form> Forms,
    IReadOnlyDictionary<Guid, PostureOutline> Postures,
    IReadOnlyDictionary<Guid, Assignment> Assignments
)
{
    public static async Task<TermClasses> LoadAsync(
        SchoolContext db,
        Term term,
        IReadOnlyList<SchoolClass> classes,
        CancellationToken cancel
    )
    {
        var ids = classes.Select(its => its.Id).ToList();
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => ids.Contains(cohort.ClassId))
            .OrderBy(cohort => cohort.Order)
            .ToListAsync(cancel);
        var groups = cohorts.Select(cohort => cohort.Id).ToList();
        return new(
            term,
            classes,
            cohorts,
            await db.StudentsIn(groups).AsNoTracking().ToListAsync(cancel),
            await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel),
            await Material.OutlinesAsync(db, cancel),
            await db
                .Assignments.AsNoTracking()
                .Where(given => given.TermId == term.Id && groups.Contains(given.CohortId))
                .ToDictionaryAsync(given => given.CohortId, cancel)
        );
    }

    public IReadOnlyList<Cohort> CohortsOf(Guid classId) => [.. Cohorts.Where(cohort => cohort.ClassId == classId)];

    public IReadOnlyList<Student> StudentsOf(IReadOnlyCollection<Cohort> cohorts) =>
        [.. Students.Where(student => cohorts.Any(cohort => student.CohortIds.Contains(cohort.Id)))];

    /// <returns>What the segments of each cohort hold, by cohort.</returns>
    public IReadOnlyDictionary<Guid, IReadOnlyList<PostureSide>> Assigned(IReadOnlyCollection<Cohort> cohorts) =>
        cohorts
            .Where(cohort => Assignments.ContainsKey(cohort.Id))
            .ToDictionary(
                cohort => cohort.Id,
                cohort =>
                    (IReadOnlyList<PostureSide>)
                        [
                            .. Assignments[cohort.Id]
                                .Segments.Where(segment => segment.StillFits(Forms[segment.FormId].Positions))
                                .SelectMany(segment => segment.PositionsOf(Forms[segment.FormId]))
                                .Select(position => new PostureSide(position.PostureId, position.Side))
                                .Distinct(),
                        ]
            );
}
