using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>Somebody leaves, or asks to be forgotten.</summary>
internal static class LeavingEndpoints
{
    public sealed record VersionRequest(uint Version);

    public static void Map(ByRank api)
    {
        var students = api.Group("/students");
        students
            .Head.MapPost("/{id:guid}/leaving", Leave)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("leaveStudent");
        students
            .Head.MapPost("/{id:guid}/erasure", Erase)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("eraseStudent");
    }

    /// <summary>Somebody leaves; everything learned and seen stays.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Leave(
        Guid id,
        VersionRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Students.SingleOrDefaultAsync(s => s.Id == id && s.Erased == null, cancel) is not { } student)
        {
            return Refusals.NotFound("This student");
        }

        student.Leave(await clock.TodayAsync(cancel));
        return await db.SaveFromAsync(student, request.Version, cancel)
            ? TypedResults.NoContent()
            : Refusals.Stale("The student", ["Somebody else changed this student."]);
    }

    /// <summary>On request, whatever tells who this was goes, and stays away when a backup is restored.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Erase(
        Guid id,
        VersionRequest request,
        Erasures erasures,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Students.SingleOrDefaultAsync(s => s.Id == id && s.Erased == null, cancel) is not { } student)
        {
            return Refusals.NotFound("This student");
        }

        await using var all = await db.Database.BeginTransactionAsync(cancel);
        student.Erase(await clock.TodayAsync(cancel));
        if (!await db.SaveFromAsync(student, request.Version, cancel))
        {
            return Refusals.Stale("The student", ["Somebody else changed this student."]);
        }

        await Erasing.AlsoAsync(db, id, cancel);
        await db.SaveChangesAsync(cancel);
        await all.CommitAsync(cancel);
        await erasures.AddAsync([id], cancel);
        return TypedResults.NoContent();
    }
}
