using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using Zeitplan.Core;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Data;

/// <summary>Adds facts; one sent twice lands once.</summary>
internal static class AppendOnly
{
    /// <returns>A conflict when an identifier is taken by a different fact; nothing was added then.</returns>
    public static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> AddAsync<TFact>(
        SchoolContext db,
        IReadOnlyList<TFact> facts,
        CancellationToken cancel
    )
        where TFact : class, IFact<TFact>
    {
        for (var attempt = 0; ; attempt++)
        {
            var ids = facts.Select(fact => fact.Id).ToList();
            var kept = await db.Set<TFact>()
                .AsNoTracking()
                .Where(fact => ids.Contains(EF.Property<Guid>(fact, nameof(fact.Id))))
                .ToDictionaryAsync(fact => fact.Id, cancel);
            if (
                facts.Any(fact => kept.TryGetValue(fact.Id, out var before) && !before.SaysTheSame(fact))
                || ids.Distinct().Count() != ids.Count
            )
            {
                return Refusals.Conflict("A mark with this identifier says something else. Nothing was saved.");
            }

            db.AddRange(facts.Where(fact => !kept.ContainsKey(fact.Id)));
            try
            {
                await db.SaveChangesAsync(cancel);
                return TypedResults.NoContent();
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
}
