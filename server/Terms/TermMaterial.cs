using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Progress;

namespace Zeitplan.Server.Terms;

/// <summary>What the problems of some classes are made of.</summary>
/// <param name="Before">What was known when the term began.</param>
/// <param name="Now">What is known today; null where nothing is kept that hangs on it.</param>
/// <param name="Retired">Postures that are not taught any more.</param>
/// <param name="Records">What was taught in the term, by class.</param>
/// <param name="Again">What many share and has been put into a lesson.</param>
internal sealed record TermMaterial(
    TermClasses Classes,
    Conventions Ways,
    Teaching Teaching,
    IReadOnlyDictionary<Guid, SashLevel> Sashes,
    ProgressBooks.Loaded Before,
    ProgressBooks.Loaded? Now,
    IReadOnlySet<Guid> Retired,
    ILookup<Guid, LessonRecord> Records,
    IReadOnlyList<AgainInPlan> Again
)
{
    /// <param name="facts">All facts about the classes' students, where they have been loaded.</param>
    public static async Task<TermMaterial> LoadAsync(
        SchoolContext db,
        TermClasses classes,
        DateOnly today,
        CancellationToken cancel,
        ProgressBooks.Loaded? facts = null
    )
    {
        var term = classes.Term;
        var ids = classes.Classes.Select(its => its.Id).ToList();
        var cohorts = classes.Cohorts.Select(cohort => cohort.Id).ToList();
        var keeps =
            classes.Assignments.Values.Any(given => given.Segments.Any(segment => segment.Purpose == Purpose.Maintain))
            || classes.Postures.Values.Any(posture => posture.Changes.Count > 0);
        return new(
            classes,
            await Material.WaysAsync(db, cancel),
            await Material.TeachingAsync(db, cancel),
            await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel),
            facts?.Before(term.Start)
                ?? await ProgressBooks.OfAsync(db, classes.Students, cohorts, term.Start, cancel, before: term.Start),
            keeps ? facts ?? await ProgressBooks.OfAsync(db, classes.Students, cohorts, today, cancel) : null,
            (
                await db.Postures.Where(posture => posture.Retired).Select(posture => posture.Id).ToListAsync(cancel)
            ).ToHashSet(),
            ProgressBook
                .Records(
                    await db
                        .TaughtFacts.AsNoTracking()
                        .Where(fact => ids.Contains(fact.ClassId) && fact.Date >= term.Start && fact.Date <= term.End)
                        .ToListAsync(cancel)
                )
                .ToLookup(record => record.ClassId),
            await AgainInPlan.LoadAsync(db, term, ids, cancel)
        );
    }
}
