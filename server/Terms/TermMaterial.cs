using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Progress;

namespace Zeitplan.Server.Terms;

/// <summary>What the problems of some classes are made of.</summary>
/// <param name="Before">What was known when the term began.</param>
/// <param name="Records">What was taught in the term, by class.</param>
internal sealed record TermMaterial(
    TermClasses Classes,
    Conventions Ways,
    Teaching Teaching,
    IReadOnlyDictionary<Guid, SashLevel> Sashes,
    ProgressBooks.Loaded Before,
    ILookup<Guid, LessonRecord> Records
)
{
    /// <param name="facts">All facts about the classes' students, where they have been loaded.</param>
    public static async Task<TermMaterial> LoadAsync(
        SchoolContext db,
        TermClasses classes,
        CancellationToken cancel,
        ProgressBooks.Loaded? facts = null
    )
    {
        var term = classes.Term;
        var ids = classes.Classes.Select(its => its.Id).ToList();
        return new(
            classes,
            await Material.WaysAsync(db, cancel),
            await Material.TeachingAsync(db, cancel),
            await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel),
            facts?.Before(term.Start)
                ?? await ProgressBooks.OfAsync(
                    db,
                    classes.Students,
                    [.. classes.Cohorts.Select(cohort => cohort.Id)],
                    term.Start,
                    cancel,
                    before: term.Start
                ),
            ProgressBook
                .Records(
                    await db
                        .TaughtFacts.AsNoTracking()
                        .Where(fact => ids.Contains(fact.ClassId) && fact.Date >= term.Start && fact.Date <= term.End)
                        .ToListAsync(cancel)
                )
                .ToLookup(record => record.ClassId)
        );
    }
}
