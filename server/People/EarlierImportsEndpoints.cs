using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>The rosters that were taken in, each of which can be taken back as a whole.</summary>
internal static class EarlierImportsEndpoints
{
    public sealed record Item(
        Guid Id,
        DateTimeOffset At,
        string FileName,
        string By,
        int Added,
        int Changed,
        bool TakenBack
    );

    public static void Map(ByRank api)
    {
        var roster = api.Head.MapGroup("/roster");
        roster.MapGet("/imports", List).WithName("rosterImports");
        roster
            .MapDelete("/imports/{id:guid}", TakeBack)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("takeBackImport");
    }

    private static async Task<Ok<IReadOnlyList<Item>>> List(SchoolContext db, CancellationToken cancel)
    {
        var staff = await db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        var imports = await db
            .Imports.AsNoTracking()
            .OrderByDescending(import => import.At)
            .Take(10)
            .ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Item>>([
            .. imports.Select(import => new Item(
                import.Id,
                import.At,
                import.FileName,
                staff.GetValueOrDefault(import.By, "somebody who left"),
                import.Entries.Count(entry => entry.Before is null),
                import.Entries.Count(entry => entry.Before is not null),
                import.TakenBack
            )),
        ]);
    }

    /// <summary>Takes an import back as a whole; refused where somebody it touched has been changed, taught or watched
    /// since.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBack(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (
            await db.Imports.SingleOrDefaultAsync(import => import.Id == id && !import.TakenBack, cancel)
            is not { } import
        )
        {
            return Refusals.NotFound("This import");
        }

        var ids = import.Entries.Select(entry => entry.StudentId).ToList();
        var students = await db
            .Students.Where(student => ids.Contains(student.Id))
            .ToDictionaryAsync(student => student.Id, cancel);
        var busy = await db.MarkedAsync(ids, cancel);
        List<string> changed =
        [
            .. import
                .Entries.Where(entry =>
                    students.TryGetValue(entry.StudentId, out var student)
                    && Json.Write(student.Keep()) != Json.Write(entry.After)
                )
                .Select(entry => $"{students[entry.StudentId].FullName} was changed since."),
            .. import
                .Entries.Where(entry => entry.Before is null && busy.Contains(entry.StudentId))
                .Select(entry => $"{students[entry.StudentId].FullName} has been in a lesson since."),
            .. import
                .Entries.Where(entry =>
                    entry.Before is null
                    && students.TryGetValue(entry.StudentId, out var student)
                    && student.Limits.Count > 0
                )
                .Select(entry => $"{students[entry.StudentId].FullName} has limits written down since."),
        ];
        if (changed.Count > 0)
        {
            return Refusals.InUse("The import", changed);
        }

        await using var all = await AllOrNothing.BeginAsync(db, cancel);
        if (import.FactIds.Count > 0)
        {
            await db.TakeKnowledgeBackAsync(import.FactIds, cancel);
        }

        foreach (var entry in import.Entries)
        {
            if (entry.Before is { } before)
            {
                students[entry.StudentId].Restore(before);
            }
            else
            {
                db.Students.Remove(students[entry.StudentId]);
            }
        }

        import.TakeBack();
        await db.SaveChangesAsync(cancel);
        await all.KeepAsync(cancel);
        return TypedResults.NoContent();
    }
}
