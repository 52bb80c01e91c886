using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>The roster: who learns where at which level. Limits are kept apart (<see
/// cref="LimitEndpoints"/>).</summary>
internal static class StudentEndpoints
{
    /// <param name="CohortIds">One for each of their classes, their own first; empty for somebody who left or waits for
    /// a place.</param>
    /// <param name="Mode">The least adapted mode they are taught in.</param>
    public sealed record Item(
        Guid Id,
        string Name,
        string GivenName,
        string FamilyName,
        Guid SashId,
        Half Half,
        DateOnly SashSince,
        IReadOnlyList<Guid> CohortIds,
        string Mode,
        DateOnly Joined,
        DateOnly? Left,
        bool HasLimits,
        uint Version
    );

    public sealed record Text(
        string GivenName,
        string FamilyName,
        Guid SashId,
        Half Half,
        IReadOnlyList<Guid> CohortIds,
        DateOnly Joined,
        StudentDetails Details
    )
    {
        internal StudentText Write() =>
            new(GivenName, FamilyName, SashId, Half, CohortIds, Joined) { Details = Details };
    }

    /// <param name="SashSince">Since when at the level; the day of joining when it is not known.</param>
    /// <param name="Another">Whether it has been said that this is somebody else than whoever has the same name.</param>
    public sealed record CreateRequest(Guid Id, Text Text, DateOnly? SashSince, bool Another = false);

    public sealed record EditRequest(Text Text, DateOnly? SashSince, uint Version);

    /// <summary>Where one student goes; what is null stays.</summary>
    /// <param name="CohortIds">All their cohorts, of every class.</param>
    public sealed record Move(Guid Id, Guid? SashId, Half? Half, IReadOnlyList<Guid>? CohortIds, uint Version);

    public sealed record MovesRequest(IReadOnlyList<Move> Moves);

    public static void Map(ByRank api)
    {
        var students = api.Group("/students");
        students.Anyone.MapGet("", List).WithName("students");
        students
            .Teacher.MapGet("/{id:guid}/details", ReadDetails)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .WithName("studentDetails");
        students.Head.MapPost("", Create).ProducesProblem(409).WithName("addStudent");
        students.Head.MapPut("/{id:guid}", Edit).ProducesProblem(404).ProducesProblem(409).WithName("editStudent");
        students.Head.MapPost("/moves", MoveMany).ProducesProblem(404).ProducesProblem(409).WithName("moveStudents");
    }

    private static async Task<Ok<IReadOnlyList<Item>>> List(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        Guid[]? cohorts = actor.IsHead ? null : [.. await CohortsOfAsync(db, actor, clock, cancel)];
        Dictionary<Guid, Mode> modes = [];
        await foreach (var (id, mode) in AllModes(db).WithCancellation(cancel))
        {
            modes.Add(id, mode);
        }

        List<Line> students = [];
        await foreach (var student in AllLines(db, cohorts).WithCancellation(cancel))
        {
            students.Add(student);
        }

        return TypedResults.Ok<IReadOnlyList<Item>>([
            .. students
                .OrderBy(student => student.GivenName, StringComparer.OrdinalIgnoreCase)
                .ThenBy(student => student.FamilyName, StringComparer.OrdinalIgnoreCase)
                .Select(student => new Item(
                    student.Id,
                    $"{student.GivenName} {student.FamilyName}".Trim(),
                    student.GivenName,
                    student.FamilyName,
                    student.SashId,
                    student.Half,
                    student.SashSince,
                    student.CohortIds,
                    Mode.MoreAdapted(
                        student.CohortIds.Length > 0 && modes.TryGetValue(student.CohortIds[0], out var mode)
                            ? mode
                            : Mode.Standing,
                        student.UsualMode
                    ).Name,
                    student.Joined,
                    student.Left,
                    actor.SeesLimits && student.HasLimits,
                    student.Version
                )),
        ]);
    }

    /// <summary>Only what the list shows: where everybody has been, and every limit, would be read for
    /// nothing.</summary>
    private sealed record Line(
        Guid Id,
        string GivenName,
        string FamilyName,
        Guid SashId,
        Half Half,
        DateOnly SashSince,
        Guid[] CohortIds,
        DateOnly Joined,
        DateOnly? Left,
        bool HasLimits,
        Mode UsualMode,
        uint Version
    );

    // The roster is asked for all the time: its queries are translated once.
    private static readonly Func<SchoolContext, Guid[]?, IAsyncEnumerable<Line>> AllLines = EF.CompileAsyncQuery(
        (SchoolContext db, Guid[]? cohorts) =>
            db
                .Students.AsNoTracking()
                .Where(student =>
                    student.Erased == null
                    && (cohorts == null || student.CohortIds.Any(cohort => cohorts.Contains(cohort)))
                )
                .Select(student => new Line(
                    student.Id,
                    student.GivenName,
                    student.FamilyName,
                    student.SashId,
                    student.Half,
                    student.SashSince,
                    student.CohortIds,
                    student.Joined,
                    student.Left,
                    student.HasLimits,
                    student.UsualMode,
                    student.Version
                ))
    );

    private static readonly Func<SchoolContext, IAsyncEnumerable<ValueTuple<Guid, Mode>>> AllModes =
        EF.CompileAsyncQuery(
            (SchoolContext db) =>
                db.Cohorts.AsNoTracking().Select(cohort => new ValueTuple<Guid, Mode>(cohort.Id, cohort.Mode))
        );

    /// <summary>Contact, aim and what was agreed to: for the head and those who teach.</summary>
    private static async Task<Results<Ok<StudentDetails>, ProblemHttpResult>> ReadDetails(
        Guid id,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var mine = await MineAsync(db, actor, clock, cancel);
        return await mine.AsNoTracking()
                .Where(student => student.Id == id && student.Erased == null)
                .Select(student => student.Details)
                .SingleOrDefaultAsync(cancel)
                is { } details
                ? TypedResults.Ok(details)
            : await db.Students.AnyAsync(student => student.Id == id && student.Erased == null, cancel)
                ? Refusals.Forbidden("This student is not one of yours.")
            : Refusals.NotFound("This student");
    }

    /// <summary>Whom somebody may see: the head everybody, a teacher whoever learns in their classes.</summary>
    internal static async Task<IQueryable<Student>> MineAsync(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (actor.IsHead)
        {
            return db.Students;
        }

        return db.StudentsIn(await CohortsOfAsync(db, actor, clock, cancel));
    }

    private static async Task<List<Guid>> CohortsOfAsync(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var classes = (await actor.ClassesAsync(db, await clock.TodayAsync(cancel), cancel))
            .Select(schoolClass => schoolClass.Id)
            .ToList();
        return await db
            .Cohorts.Where(cohort => classes.Contains(cohort.ClassId))
            .Select(cohort => cohort.Id)
            .ToListAsync(cancel);
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> Create(
        CreateRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var text = request.Text.Write();
        if (await ProblemsAsync([text], db, clock, _ => "", cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        if (await db.Students.AnyAsync(student => student.Id == request.Id, cancel))
        {
            return Refusals.Conflict("This student is on the roster already.");
        }

        if (!request.Another && await NamesakesAsync(text, db, cancel) is { Count: > 0 } namesakes)
        {
            return Refusals.SameName(text.GivenName.Trim(), namesakes);
        }

        db.Students.Add(Student.Create(request.Id, text, request.SashSince));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/students");
    }

    /// <summary>Who is called the same, however it is accented and spaced.</summary>
    private static async Task<List<string>> NamesakesAsync(StudentText text, SchoolContext db, CancellationToken cancel)
    {
        var wanted = RosterColumns.Plain($"{text.GivenName} {text.FamilyName}");
        var roster = await db
            .Students.AsNoTracking()
            .Where(student => student.Erased == null)
            .Select(student => new
            {
                student.GivenName,
                student.FamilyName,
                student.Joined,
                student.Left,
            })
            .ToListAsync(cancel);
        return
        [
            .. roster
                .Where(student => RosterColumns.Plain($"{student.GivenName} {student.FamilyName}") == wanted)
                .Select(student =>
                    $"{student.GivenName} {student.FamilyName}".Trim()
                    + $", here since {student.Joined:yyyy-MM-dd}{(student.Left is null ? "" : ", has left")}."
                ),
        ];
    }

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Edit(
        Guid id,
        EditRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Students.SingleOrDefaultAsync(s => s.Id == id && s.Erased == null, cancel) is not { } student)
        {
            return Refusals.NotFound("This student");
        }

        var text = request.Text.Write();
        var problems = await ProblemsAsync([text], db, clock, _ => "", cancel);
        if (request.SashSince > await clock.TodayAsync(cancel))
        {
            problems.Add(new("sashSince", "A level is reached today at the latest."));
        }

        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var kept = $"{student.FullName} was moved or rewritten.";
        student.Rewrite(text, await clock.TodayAsync(cancel));
        if (request.SashSince is { } since)
        {
            student.ReachedOn(since);
        }

        return await db.SaveFromAsync(student, request.Version, cancel)
            ? TypedResults.NoContent()
            : Refusals.Stale("The student", [kept]);
    }

    /// <summary>Several at once, all or none.</summary>
    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> MoveMany(
        MovesRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var ids = request.Moves.Select(move => move.Id).ToList();
        var students = await db
            .Students.Where(student => ids.Contains(student.Id) && student.Erased == null)
            .ToDictionaryAsync(student => student.Id, cancel);
        if (students.Count != ids.Count)
        {
            return Refusals.NotFound("One of these students");
        }

        var texts = request
            .Moves.Select(move =>
                students[move.Id] is var student
                    ? new StudentText(
                        student.GivenName,
                        student.FamilyName,
                        move.SashId ?? student.SashId,
                        move.Half ?? student.Half,
                        move.CohortIds ?? student.CohortIds,
                        student.Joined
                    )
                    {
                        Details = student.Details,
                    }
                    : throw new InvalidOperationException()
            )
            .ToList();
        if (await ProblemsAsync(texts, db, clock, at => $"moves[{at}].", cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        var today = await clock.TodayAsync(cancel);
        foreach (var (move, text) in request.Moves.Zip(texts))
        {
            students[move.Id].Rewrite(text, today);
            db.Entry(students[move.Id]).Property(student => student.Version).OriginalValue = move.Version;
        }

        try
        {
            await db.SaveChangesAsync(cancel);
            return TypedResults.NoContent();
        }
        catch (DbUpdateConcurrencyException exception)
        {
            return Refusals.Stale(
                "The roster",
                [
                    .. exception.Entries.Select(entry =>
                        $"{((Student)entry.Entity).FullName} was changed by somebody else."
                    ),
                ]
            );
        }
    }

    private static async Task<List<Problem>> ProblemsAsync(
        IReadOnlyList<StudentText> texts,
        SchoolContext db,
        SchoolClock clock,
        Func<int, string> path,
        CancellationToken cancel
    )
    {
        var sashes = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel);
        var cohorts = await db
            .Cohorts.Select(cohort => new { cohort.Id, cohort.ClassId })
            .ToDictionaryAsync(cohort => cohort.Id, cohort => cohort.ClassId, cancel);
        var today = await clock.TodayAsync(cancel);
        return
        [
            .. texts.SelectMany(
                (text, at) =>
                    text.Check(sashes, cohorts, today)
                        .Select(problem => problem with { Field = path(at) + problem.Field })
            ),
        ];
    }
}
