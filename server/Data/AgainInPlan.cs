using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Data;

/// <summary>What has been put into a lesson of a term to be taught again, as the lesson's page has it: the plan keeps its
/// minutes free.</summary>
internal sealed record AgainInPlan(
    Guid ClassId,
    DateOnly Date,
    IReadOnlyList<Guid> CohortIds,
    int Minutes,
    string What,
    string Because
)
{
    public static async Task<IReadOnlyList<AgainInPlan>> LoadAsync(
        SchoolContext db,
        Term term,
        IReadOnlyCollection<Guid> classes,
        CancellationToken cancel
    ) =>
        [
            .. from kept in await db
                .Arrangements.AsNoTracking()
                .Where(kept => classes.Contains(kept.ClassId) && kept.Date >= term.Start && kept.Date <= term.End)
                .Select(kept => new
                {
                    kept.ClassId,
                    kept.Date,
                    kept.Edits,
                })
                .ToListAsync(cancel)
            from task in kept.Edits.TaughtAgain()
            select new AgainInPlan(kept.ClassId, kept.Date, task.CohortIds, task.Minutes, task.What, task.Because),
        ];
}
