using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Forms;

/// <summary>What forms are made of, and how this school does it.</summary>
internal sealed record Material(
    IReadOnlyDictionary<Guid, Posture> Postures,
    IReadOnlyList<Link> Links,
    Conventions Ways
)
{
    public static async Task<Material> LoadAsync(SchoolContext db, CancellationToken cancel) =>
        new(
            await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel),
            await db.Links.AsNoTracking().ToListAsync(cancel),
            await WaysAsync(db, cancel)
        );

    public static async Task<Conventions> WaysAsync(SchoolContext db, CancellationToken cancel) =>
        await db.Schools.AsNoTracking().Select(school => school.Conventions).SingleOrDefaultAsync(cancel)
        ?? Conventions.Default;

    /// <summary>How the school brings things in.</summary>
    public static async Task<Teaching> TeachingAsync(SchoolContext db, CancellationToken cancel) =>
        await db.Schools.AsNoTracking().Select(school => school.Teaching).SingleOrDefaultAsync(cancel)
        ?? Teaching.Default;

    /// <summary>The small part of every posture that tables and plans need.</summary>
    /// <param name="only">The postures asked for; all of them when it is not given.</param>
    public static async Task<IReadOnlyDictionary<Guid, PostureOutline>> OutlinesAsync(
        SchoolContext db,
        CancellationToken cancel,
        IReadOnlyCollection<Guid>? only = null
    )
    {
        var waysIn = (await db.Forms.AsNoTracking().Select(form => form.Outline).ToListAsync(cancel))
            .SelectMany(form => form.WaysIn)
            .ToLookup(way => way.PostureId);
        return await db
            .Postures.AsNoTracking()
            .Where(posture => only == null || only.Contains(posture.Id))
            .Select(posture => new { posture.Id, posture.Outline })
            .ToDictionaryAsync(
                posture => posture.Id,
                posture => posture.Outline with { WaysIn = [.. waysIn[posture.Id]] },
                cancel
            );
    }

    /// <summary>All of the school's material as it would be exported.</summary>
    public static async Task<FormLibrary> LibraryAsync(SchoolContext db, CancellationToken cancel) =>
        FormLibrary.Of(
            await db.Catalogue.AsNoTracking().OrderBy(posture => posture.Name).ToListAsync(cancel),
            await db.Links.AsNoTracking().OrderBy(link => link.Id).ToListAsync(cancel),
            (await db.Principles.AsNoTracking().ToListAsync(cancel)).OrderBy(principle => principle.Text.Order),
            await db.Forms.AsNoTracking().OrderBy(form => form.Name).ToListAsync(cancel)
        );
}
