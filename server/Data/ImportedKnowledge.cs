using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Progress;

namespace Zeitplan.Server.Data;

/// <summary>What a roster says people knew when they came, kept as facts beside them for as long as the import
/// stands.</summary>
internal static class ImportedKnowledge
{
    /// <summary>Saved with the next save.</summary>
    /// <returns>The facts' identifiers, by which they are taken back.</returns>
    public static IReadOnlyList<Guid> AddKnowledge(
        this SchoolContext db,
        Guid studentId,
        IEnumerable<RosterKnowledge> knows,
        Guid by,
        DateTimeOffset at
    )
    {
        var facts = knows
            .Select(known => new TakenOverFact(
                Guid.CreateVersion7(),
                studentId,
                known.Of.PostureId,
                known.Of.Side,
                known.Stage,
                by,
                at
            ))
            .ToList();
        db.TakenOverFacts.AddRange(facts);
        return [.. facts.Select(fact => fact.Id)];
    }

    /// <summary>Within a transaction: facts are open to it until that ends, these and no others.</summary>
    public static async Task TakeKnowledgeBackAsync(
        this SchoolContext db,
        IReadOnlyList<Guid> ids,
        CancellationToken cancel
    )
    {
        await db.Database.ExecuteSqlAsync($"SET LOCAL zeitplan.taking_back = 'on'", cancel);
        await db.TakenOverFacts.Where(fact => ids.Contains(fact.Id)).ExecuteDeleteAsync(cancel);
    }
}
