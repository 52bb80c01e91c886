using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>Limits are private (domain.md 6): for the head and those who teach the student. Every reading and change is
/// written into a log the head can read.</summary>
internal static class LimitEndpoints
{
    public sealed record Response(IReadOnlyList<Limit> Limits, string Note, uint Version);

    public sealed record EditRequest(IReadOnlyList<Limit> Limits, string Note, uint Version);

    public sealed record EditResponse(uint Version);

    public sealed record LogEntry(DateTimeOffset At, string By, string Student, AccessKind Kind, string Where);

    public static void Map(ByRank api)
    {
        api.Teacher.MapGet("/students/{id:guid}/limits", Read)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .WithName("limits");
        api.Teacher.MapPut("/students/{id:guid}/limits", Edit)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("editLimits");
        api.Head.MapGet("/access-log", Log).WithName("accessLog");
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        Guid id,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var (student, no) = await FindAsync(id, db, actor, clock, cancel);
        if (student is null)
        {
            return no!;
        }

        await NoteReadingAsync(db, actor, clock, [id], "limits of the student", cancel);
        return TypedResults.Ok(new Response(student.Limits, student.Note, student.Version));
    }

    internal static async Task<Results<Ok<EditResponse>, ValidationProblem, ProblemHttpResult>> Edit(
        Guid id,
        EditRequest request,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var (student, no) = await FindAsync(id, db, actor, clock, cancel);
        if (student is null)
        {
            return no!;
        }

        if (
            Limit.Check(request.Limits, request.Note, await clock.TodayAsync(cancel)).ToList() is
            { Count: > 0 } problems
        )
        {
            return Refusals.Invalid(problems);
        }

        var before = student.Limits;
        student.Limit(request.Limits, request.Note);
        db.AccessLog.Add(Entry(actor, clock, id, AccessKind.Changed, Change(before, request.Limits)));
        if (!await db.SaveFromAsync(student, request.Version, cancel))
        {
            return Refusals.Stale("The limits", ["Somebody else changed this student."]);
        }

        return TypedResults.Ok(new EditResponse(student.Version));
    }

    private static async Task<Ok<IReadOnlyList<LogEntry>>> Log(SchoolContext db, CancellationToken cancel)
    {
        var staff = await db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        var names = await db
            .Students.Select(student => new
            {
                student.Id,
                student.GivenName,
                student.FamilyName,
            })
            .ToDictionaryAsync(
                student => student.Id,
                student => $"{student.GivenName} {student.FamilyName}".Trim(),
                cancel
            );
        var entries = await db
            .AccessLog.AsNoTracking()
            .OrderByDescending(entry => entry.At)
            .Take(500)
            .ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<LogEntry>>([
            .. entries.Select(entry => new LogEntry(
                entry.At,
                staff.GetValueOrDefault(entry.By, "somebody who left"),
                names.GetValueOrDefault(entry.StudentId, "somebody"),
                entry.Kind,
                entry.Where
            )),
        ]);
    }

    /// <summary>Writes down that limits were read, for every student who has some. One statement, whatever their
    /// number: reading a table must not wait for its log.</summary>
    public static async Task NoteReadingAsync(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        IEnumerable<Guid> students,
        string where,
        CancellationToken cancel
    )
    {
        Guid[] of = [.. students];
        Guid[] ids = [.. of.Select(_ => Guid.CreateVersion7(clock.Now))];
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO access_log (id, at, by, student_id, kind, place)
            SELECT id, {clock.Now}, {actor.StaffId}, student_id, {nameof(
                AccessKind.Read
            )}, {where} FROM unnest({ids}, {of}) AS read (id, student_id)
            """,
            cancel
        );
    }

    private static AccessEntry Entry(Actor actor, SchoolClock clock, Guid student, AccessKind kind, string where) =>
        new(Guid.CreateVersion7(clock.Now), clock.Now, actor.StaffId, student, kind, where);

    /// <summary>How many, not which: the log says that limits were touched, it does not repeat them.</summary>
    private static string Change(IReadOnlyList<Limit> before, IReadOnlyList<Limit> after)
    {
        var (added, taken) = (
            after.Count(limit => !before.Any(old => (old.Demand, old.Side) == (limit.Demand, limit.Side))),
            before.Count(limit => !after.Any(now => (now.Demand, now.Side) == (limit.Demand, limit.Side)))
        );
        return $"limits of the student: {added} added, {taken} taken out";
    }

    private static async Task<(Student? Student, ProblemHttpResult? No)> FindAsync(
        Guid id,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (!await db.Students.AnyAsync(student => student.Id == id && student.Erased == null, cancel))
        {
            return (null, Refusals.NotFound("This student"));
        }

        var mine = await StudentEndpoints.MineAsync(db, actor, clock, cancel);
        return await mine.SingleOrDefaultAsync(student => student.Id == id, cancel) is { } found
            ? (found, null)
            : (null, Refusals.Forbidden("This student is not one of yours."));
    }
}
