using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Zeitplan.Server.Data;

/// <summary>What only one at a time may look at and change: the second finds what the first has kept.</summary>
internal enum Turn
{
    /// <summary>Which dates are whose term.</summary>
    Terms = 1,

    /// <summary>Who teaches where and when.</summary>
    Timetable,

    /// <summary>Who is on the roster, while a file is taken in.</summary>
    Roster,

    /// <summary>Who is a head and can sign in.</summary>
    Heads,
}

/// <summary>Several saves of which all are kept or none; a part of what is under way already, when something
/// is.</summary>
internal sealed class AllOrNothing : IAsyncDisposable
{
    private readonly IDbContextTransaction? own;

    private AllOrNothing(IDbContextTransaction? own) => this.own = own;

    public static async Task<AllOrNothing> BeginAsync(SchoolContext db, CancellationToken cancel) =>
        new(db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(cancel) : null);

    /// <summary>As <see cref="BeginAsync"/>, once nobody else is at it.</summary>
    public static async Task<AllOrNothing> InTurnAsync(SchoolContext db, Turn turn, CancellationToken cancel)
    {
        var all = await BeginAsync(db, cancel);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock({(long)turn})", cancel);
        return all;
    }

    /// <summary>Keeps all of it.</summary>
    public Task KeepAsync(CancellationToken cancel) => own?.CommitAsync(cancel) ?? Task.CompletedTask;

    public ValueTask DisposeAsync() => own?.DisposeAsync() ?? ValueTask.CompletedTask;
}
