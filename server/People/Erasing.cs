using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.People;

/// <summary>
/// Takes out whatever tells who somebody was (domain.md 7): name, contact, limits, notes, the words of observations, what
/// imports remember, that somebody who teaches is they. Attendance and stages stay as counts.
/// </summary>
internal static class Erasing
{
    /// <summary>Within the transaction of whoever erases; the student is saved by them.</summary>
    public static async Task AlsoAsync(SchoolContext db, Guid id, CancellationToken cancel)
    {
        await db.ForgetWordsAsync(id, cancel);
        await db.Adaptations.Where(decision => decision.StudentId == id).ExecuteDeleteAsync(cancel);
        await db
            .Staff.Where(member => member.StudentId == id)
            .ExecuteUpdateAsync(rows => rows.SetProperty(member => member.StudentId, (Guid?)null), cancel);
        (await db.Imports.ToListAsync(cancel)).ForEach(import => import.Forget(id));
    }

    /// <summary>A database that was restored may be older than an erasure: whoever was erased since is erased
    /// again.</summary>
    /// <returns>How many.</returns>
    public static async Task<int> AgainAsync(
        SchoolContext db,
        Erasures erasures,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var wanted = erasures.Read();
        var back = await db
            .Students.Where(student => wanted.Contains(student.Id) && student.Erased == null)
            .ToListAsync(cancel);
        await using (var all = await AllOrNothing.BeginAsync(db, cancel))
        {
            foreach (var student in back)
            {
                student.Erase(today);
                await AlsoAsync(db, student.Id, cancel);
            }

            await db.SaveChangesAsync(cancel);
            await all.KeepAsync(cancel);
        }

        // Those of a time before there was a list are on it from now on.
        await erasures.AddAsync(
            await db
                .Students.Where(student => student.Erased != null)
                .Select(student => student.Id)
                .ToListAsync(cancel),
            cancel
        );
        return back.Count;
    }
}

/// <summary>Who has been erased, kept outside every database in the file <c>ZEITPLAN_ERASED_FILE</c>: a number a line,
/// which says nothing about anybody, so that no restored backup brings them back.</summary>
internal sealed class Erasures(IConfiguration configuration)
{
    private static readonly SemaphoreSlim Writing = new(1);

    private readonly string? file = configuration["ZEITPLAN_ERASED_FILE"] is { Length: > 0 } said ? said : null;

    public IReadOnlyList<Guid> Read() =>
        file is null || !File.Exists(file)
            ? []
            :
            [
                .. File.ReadLines(file)
                    .Select(line =>
                        Guid.TryParse(line.Trim(), CultureInfo.InvariantCulture, out var id) ? id : Guid.Empty
                    )
                    .Where(id => id != Guid.Empty)
                    .Distinct(),
            ];

    public async Task AddAsync(IReadOnlyCollection<Guid> ids, CancellationToken cancel)
    {
        if (file is null)
        {
            return;
        }

        await Writing.WaitAsync(cancel);
        try
        {
            var known = Read().ToHashSet();
            await File.AppendAllLinesAsync(file, ids.Where(id => !known.Contains(id)).Select(id => $"{id}"), cancel);
        }
        finally
        {
            Writing.Release();
        }
    }
}
