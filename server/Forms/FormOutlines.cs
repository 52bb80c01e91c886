using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Forms;

/// <summary>Whatever changes a form, one of its postures or how the school does things, changes what follows from forms
/// in the same save.</summary>
internal sealed class FormOutlines : SaveChangesInterceptor
{
    public override async ValueTask<InterceptionResult<int>> SavingChangesAsync(
        DbContextEventData eventData,
        InterceptionResult<int> result,
        CancellationToken cancellationToken = default
    )
    {
        if (
            eventData.Context is SchoolContext db
            && db.ChangeTracker.Entries()
                .Any(entry =>
                    entry
                        is { Entity: Form or Posture or Core.School, State: EntityState.Added or EntityState.Modified }
                )
        )
        {
            await RenewAsync(db, cancellationToken);
        }

        return await base.SavingChangesAsync(eventData, result, cancellationToken);
    }

    /// <summary>What an earlier version of this program worked out about postures and forms is worked out anew.</summary>
    public static async Task BringUpToDateAsync(SchoolContext db, CancellationToken cancel)
    {
        var postures = await db
            .Postures.FromSql(
                $"SELECT *, xmin FROM postures WHERE coalesce((outline ->> 'revision')::int, 0) <> {PostureOutline.Latest}"
            )
            .ToListAsync(cancel);
        foreach (var posture in postures)
        {
            posture.OutlineAnew();
        }

        if ((await db.Forms.Select(form => form.Outline).ToListAsync(cancel)).Any(outline => !outline.IsLatest))
        {
            await RenewAsync(db, cancel);
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Works out anew what follows from every form, as it would stand after the save.</summary>
    private static async Task RenewAsync(SchoolContext db, CancellationToken cancel)
    {
        await db.Forms.LoadAsync(cancel);
        await db.Postures.LoadAsync(cancel);
        await db.Schools.LoadAsync(cancel);
        var postures = db.Postures.Local.ToDictionary(posture => posture.Id);
        var ways = db.Schools.Local.SingleOrDefault()?.Conventions ?? Conventions.Default;
        foreach (var form in db.Forms.Local)
        {
            form.OutlineAnew(postures, ways);
        }
    }
}
