using Microsoft.EntityFrameworkCore.Storage;

namespace Zeitplan.Server.Data;

/// <summary>Several saves of which all are kept or none; a part of what is under way already, when something
/// is.</summary>
internal sealed class AllOrNothing : IAsyncDisposable
{
    private readonly IDbContextTransaction? own;

    private AllOrNothing(IDbContextTransaction? own) => this.own = own;

    public static async Task<AllOrNothing> BeginAsync(SchoolContext db, CancellationToken cancel) =>
        new(db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(cancel) : null);

    /// <summary>Keeps all of it.</summary>
    public Task KeepAsync(CancellationToken cancel) => own?.CommitAsync(cancel) ?? Task.CompletedTask;

    public ValueTask DisposeAsync() => own?.DisposeAsync() ?? ValueTask.CompletedTask;
}
