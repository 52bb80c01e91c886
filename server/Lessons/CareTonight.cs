using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Lessons;

/// <summary>Who does something of a lesson otherwise than their cohort, or leaves it out.</summary>
internal static class CareTonight
{
    /// <param name="does">What each cohort does.</param>
    public static async Task<IReadOnlyList<UnsafeForOne>> OfAsync(
        SchoolContext db,
        IReadOnlyList<TakesPart> there,
        IReadOnlyDictionary<Guid, IReadOnlyList<PostureSide>> does,
        IReadOnlyDictionary<Guid, PostureOutline> outlines,
        DateOnly date,
        CancellationToken cancel
    )
    {
        var ids = there.Select(one => one.Student.Id).Distinct().ToList();
        return Safety.Of(
            there,
            does.ToDictionary(
                cohort => cohort.Key,
                cohort =>
                    (IReadOnlyDictionary<PostureSide, DateOnly>)
                        cohort.Value.Distinct().ToDictionary(of => of, _ => date)
            ),
            outlines,
            await db.Adaptations.AsNoTracking().Where(decision => ids.Contains(decision.StudentId)).ToListAsync(cancel)
        );
    }
}
