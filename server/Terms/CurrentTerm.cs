using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Terms;

/// <summary>The term a date lies in, or else the next one to come.</summary>
internal static class CurrentTerm
{
    public static Task<Term?> FindAsync(SchoolContext db, DateOnly today, CancellationToken cancel) =>
        db
            .Terms.AsNoTracking()
            .Where(term => term.End >= today)
            .OrderBy(term => term.Start)
            .FirstOrDefaultAsync(cancel);
}
