using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>What heads have done, newest first: searched by words and names, and taken away as a table.</summary>
internal static class JournalEndpoints
{
    /// <param name="By">The head's name.</param>
    /// <param name="About">The name of whom it was done to; null where it was done to nobody or they are
    /// erased.</param>
    public sealed record Entry(Guid Id, DateTimeOffset At, string By, HeadsAct Act, string? About, string Text);

    /// <param name="Next">What comes after these; null at the end.</param>
    public sealed record Response(IReadOnlyList<Entry> Entries, Guid? Next, int KeptForYears);

    private const int APage = 60;

    public static void Map(ByRank api)
    {
        var journal = api.Head.MapGroup("/journal");
        journal.MapGet("", Read).WithName("journal");
        journal.MapGet("/table", Table).WithName("journalTable").Produces<string>(contentType: "text/csv");
    }

    private static async Task<Ok<Response>> Read(string? find, Guid? after, SchoolContext db, CancellationToken cancel)
    {
        await ForgetOldAsync(db, cancel);
        var page = await Found(db, find, after).Take(APage + 1).ToListAsync(cancel);
        return TypedResults.Ok(
            new Response(
                [.. page.Take(APage)],
                page.Count > APage ? page[APage - 1].Id : null,
                JournalEntry.KeptForYears
            )
        );
    }

    private static async Task<FileContentHttpResult> Table(string? find, SchoolContext db, CancellationToken cancel)
    {
        var entries = await Found(db, find, after: null).ToListAsync(cancel);
        return CsvTable.Of(
            "journal.csv",
            ["at", "by", "act", "about", "what"],
            entries.Select(entry =>
                new[]
                {
                    $"{entry.At.UtcDateTime:yyyy-MM-dd HH:mm:ss}Z",
                    entry.By,
                    entry.Act.ToString(),
                    entry.About ?? "",
                    entry.Text,
                }
            )
        );
    }

    /// <param name="after">Identifiers are made in the order of time: only what is older than this one.</param>
    private static IQueryable<Entry> Found(SchoolContext db, string? find, Guid? after)
    {
        var entries =
            from entry in db.Journal
            where after == null || entry.Id < after
            join head in db.Staff on entry.By equals head.Id
            let member = db.Staff.Where(staff => staff.Id == entry.About).Select(staff => staff.Name).FirstOrDefault()
            let student = db
                .Students.Where(student => student.Id == entry.About && student.Erased == null)
                .Select(student => student.GivenName + " " + student.FamilyName)
                .FirstOrDefault()
            select new
            {
                entry,
                By = head.Name,
                About = member ?? student,
            };
        if (find?.Trim() is { Length: > 0 } words)
        {
            var like = $"%{words.Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%";
            entries = entries.Where(found =>
                EF.Functions.ILike(found.entry.Text, like)
                || EF.Functions.ILike(found.By, like)
                || EF.Functions.ILike(found.About!, like)
                || EF.Functions.ILike((string)(object)found.entry.Act, like)
            );
        }

        return entries
            .OrderByDescending(found => found.entry.Id)
            .Select(found => new Entry(
                found.entry.Id,
                found.entry.At,
                found.By,
                found.entry.Act,
                found.About,
                found.entry.Text
            ));
    }

    private static Task ForgetOldAsync(SchoolContext db, CancellationToken cancel)
    {
        var before = TimeProvider.System.GetUtcNow().AddYears(-JournalEntry.KeptForYears);
        return db.Journal.Where(entry => entry.At < before).ExecuteDeleteAsync(cancel);
    }
}
