using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Data;

/// <summary>What has been put into a lesson of a term to be taught again, as the lesson's page has it: the plan keeps its
/// minutes free.</summary>
/// <param name="Tells">What it tells the difference of, where the school does it otherwise than they learned it.</param>
internal sealed record AgainInPlan(
    Guid ClassId,
    DateOnly Date,
    string Key,
    IReadOnlyList<Guid> CohortIds,
    int Minutes,
    string What,
    string Because,
    PostureSide? Tells
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
            select new AgainInPlan(
                kept.ClassId,
                kept.Date,
                task.Key,
                task.CohortIds,
                task.Minutes,
                task.What,
                task.Because,
                PlannedLesson.IsADifference(task.Key) && task.Material is [var of, ..] ? of : null
            ),
        ];
}
