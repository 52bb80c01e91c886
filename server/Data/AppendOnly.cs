using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Data;

/// <summary>Adds facts that name themselves, so that one sent twice lands once.</summary>
internal static class AppendOnly
{
    /// <returns>False when an identifier is taken by a different fact; nothing was added then.</returns>
    public static async Task<bool> AddAsync<T>(
        SchoolContext db,
        DbSet<T> set,
        IReadOnlyList<T> facts,
        Func<T, Guid> idOf,
        Func<T, T, bool> same,
        CancellationToken cancel
    )
        where T : class
    {
        for (var attempt = 0; ; attempt++)
        {
            var ids = facts.Select(idOf).ToList();
            var kept = await set.AsNoTracking()
                .Where(fact => ids.Contains(EF.Property<Guid>(fact, "Id")))
                .ToDictionaryAsync(idOf, cancel);
            if (
                facts.Any(fact => kept.TryGetValue(idOf(fact), out var before) && !same(before, fact))
                || ids.Distinct().Count() != ids.Count
            )
            {
                return false;
            }

            set.AddRange(facts.Where(fact => !kept.ContainsKey(idOf(fact))));
            try
            {
                await db.SaveChangesAsync(cancel);
                return true;
            }
            catch (DbUpdateException exception)
                when (attempt == 0
                    && exception.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation }
                )
            {
                // The same facts arrived on another connection between the look and the save: look again.
                db.ChangeTracker.Clear();
            }
        }
    }

    public static ProblemHttpResult Clash() =>
        Refusals.Conflict("A mark with this identifier says something else. Nothing was saved.");
}
