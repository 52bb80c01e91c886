using Microsoft.EntityFrameworkCore;

namespace Zeitplan.Server.Data;

internal static class VersionedSaves
{
    /// <summary>Saves an edited aggregate if it still is what the editor saw.</summary>
    /// <param name="version">Of the aggregate when the editor read it.</param>
    /// <returns>False when somebody saved in between; nothing was saved then.</returns>
    public static async Task<bool> SaveFromAsync<T>(
        this SchoolContext db,
        T aggregate,
        uint version,
        CancellationToken cancel
    )
        where T : class
    {
        db.Entry(aggregate).Property<uint>("Version").OriginalValue = version;
        try
        {
            await db.SaveChangesAsync(cancel);
            return true;
        }
        catch (DbUpdateConcurrencyException)
        {
            return false;
        }
    }
}
