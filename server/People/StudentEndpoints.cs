using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.People;

/// <summary>The roster.</summary>
internal static class StudentEndpoints
{
    public sealed record Item(Guid Id, string Name, string GivenName, string FamilyName, Guid SashId, string Sash, string SashColour, Half Half, Guid CohortId, string Cohort, Guid ClassId, string Class, string Mode, DateOnly Joined, uint Version);

    public sealed record CreateRequest(Guid Id, string GivenName, string FamilyName, Guid SashId, Half Half, Guid CohortId, DateOnly Joined, IReadOnlyList<Limit> Limits, string Note);

    public sealed record MoveRequest(string GivenName, string FamilyName, Guid SashId, Half Half, Guid CohortId, uint Version);

    public static void Map(IEndpointRouteBuilder api)
    {
        var students = api.MapGroup("/students");
        students.MapGet("", List).RequireAuthorization(Policies.Anyone).WithName("students");
        students.MapPost("", Create).RequireAuthorization(Policies.Head).ProducesProblem(409).WithName("addStudent");
        students.MapPut("/{id:guid}", Move).RequireAuthorization(Policies.Head).ProducesProblem(404).ProducesProblem(409).WithName("editStudent");
    }

    private static async Task<Ok<IReadOnlyList<Item>>> List(SchoolContext db, Actor actor, CancellationToken cancel)
    {
        var classes = (await actor.ClassesAsync(db, cancel)).ToDictionary(meeting => meeting.Id);
        var sashes = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel);
        var cohorts = (await db.Cohorts.AsNoTracking().ToListAsync(cancel)).Where(cohort => classes.ContainsKey(cohort.ClassId)).ToDictionary(cohort => cohort.Id);
        var students = await db.Students.AsNoTracking().Where(student => cohorts.Keys.Contains(student.CohortId)).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Item>>(
        [
            .. from student in students
               let cohort = cohorts[student.CohortId]
               let sash = sashes[student.SashId]
               orderby sash.Order, student.Half, student.GivenName, student.FamilyName
               select new Item(
                   student.Id, $"{student.GivenName} {student.FamilyName}".Trim(), student.GivenName, student.FamilyName, sash.Id, sash.Name, sash.Colour, student.Half,
                   cohort.Id, cohort.Name, cohort.ClassId, classes[cohort.ClassId].Name, cohort.Mode.Name, student.Joined, student.Version),
        ]);
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> Create(CreateRequest request, SchoolContext db, SchoolClock clock, CancellationToken cancel)
    {
        var text = new StudentText(request.GivenName, request.FamilyName, request.SashId, request.Half, request.CohortId, request.Joined, request.Limits ?? [], request.Note ?? "");
        if (await ProblemsAsync(text, db, clock, cancel) is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Students.AnyAsync(student => student.Id == request.Id, cancel))
        {
            return Answers.Conflict("This student is on the roster already.");
        }

        db.Students.Add(Student.Create(request.Id, text));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/students");
    }

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Move(Guid id, MoveRequest request, SchoolContext db, SchoolClock clock, CancellationToken cancel)
    {
        if (await db.Students.SingleOrDefaultAsync(s => s.Id == id, cancel) is not { } student)
        {
            return Answers.NotFound("This student");
        }

        var text = new StudentText(request.GivenName, request.FamilyName, request.SashId, request.Half, request.CohortId, student.Joined, student.Limits, student.Note);
        if (await ProblemsAsync(text, db, clock, cancel) is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        var kept = $"{student.GivenName} {student.FamilyName} was moved or renamed.";
        student.Rewrite(text);
        if (!await db.SaveFromAsync(student, request.Version, cancel))
        {
            return Answers.Stale("The student", [kept]);
        }

        return TypedResults.NoContent();
    }

    private static async Task<List<Problem>> ProblemsAsync(StudentText text, SchoolContext db, SchoolClock clock, CancellationToken cancel)
    {
        var sashes = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel);
        var cohorts = (await db.Cohorts.Select(cohort => cohort.Id).ToListAsync(cancel)).ToHashSet();
        return [.. text.Check(sashes, cohorts, await clock.TodayAsync(cancel))];
    }
}
