using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.People;

/// <summary>Classes and their cohorts.</summary>
internal static class ClassEndpoints
{
    public sealed record CreateRequest(Guid Id, string Name, DayOfWeek Weekday, TimeOnly Start, int Minutes, Guid HallId, IReadOnlyList<Guid> StaffIds);

    public sealed record Request(string Name, DayOfWeek Weekday, TimeOnly Start, int Minutes, Guid HallId, IReadOnlyList<Guid> StaffIds, uint Version);

    public sealed record CohortRequest(Guid Id, string Name, int Order, Guid? SashId, Half Half, string Mode, string Colour, bool Beginners);

    public sealed record Response(Guid Id, uint Version);

    public static void Map(IEndpointRouteBuilder api)
    {
        var classes = api.MapGroup("/classes").RequireAuthorization(Policies.Head);
        classes.MapPost("", Create).ProducesProblem(409).WithName("createClass");
        classes.MapPut("/{id:guid}", Rewrite).ProducesProblem(404).ProducesProblem(409).WithName("editClass");
        classes.MapPost("/{id:guid}/cohorts", AddCohort).ProducesProblem(404).ProducesProblem(409).WithName("addCohort");
    }

    internal static async Task<Results<Created<Response>, ValidationProblem, ProblemHttpResult>> Create(CreateRequest request, SchoolContext db, CancellationToken cancel)
    {
        var text = new ClassText(request.Name, request.Weekday, request.Start, request.Minutes, request.HallId, request.StaffIds);
        if (await ProblemsAsync(text, request.Id, db, cancel) is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Classes.AnyAsync(meeting => meeting.Id == request.Id, cancel))
        {
            return Answers.Conflict("This class is here already.");
        }

        var meeting = SchoolClass.Create(request.Id, text);
        db.Classes.Add(meeting);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/people", new Response(meeting.Id, meeting.Version));
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Rewrite(Guid id, Request request, SchoolContext db, CancellationToken cancel)
    {
        if (await db.Classes.SingleOrDefaultAsync(c => c.Id == id, cancel) is not { } meeting)
        {
            return Answers.NotFound("This class");
        }

        var text = new ClassText(request.Name, request.Weekday, request.Start, request.Minutes, request.HallId, request.StaffIds);
        if (await ProblemsAsync(text, id, db, cancel) is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        var kept = $"{meeting.Name} meets on {meeting.Weekday} at {meeting.Start:HH:mm} for {meeting.Minutes} minutes with {meeting.StaffIds.Count} staff.";
        meeting.Rewrite(text);
        if (!await db.SaveFromAsync(meeting, request.Version, cancel))
        {
            return Answers.Stale("The class", [kept]);
        }

        return TypedResults.Ok(new Response(meeting.Id, meeting.Version));
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> AddCohort(Guid id, CohortRequest request, SchoolContext db, CancellationToken cancel)
    {
        if (!await db.Classes.AnyAsync(meeting => meeting.Id == id, cancel))
        {
            return Answers.NotFound("This class");
        }

        var sash = request.SashId is { } sashId ? await db.Sashes.SingleOrDefaultAsync(s => s.Id == sashId, cancel) : null;
        List<Problem> problems =
        [
            .. Problem.WithName(request.Name, "name"),
            .. SchoolEndpoints.CheckColour(request.Colour),
            .. Mode.FromName(request.Mode) is null ? [new Problem("mode", "There is no such mode.")] : Array.Empty<Problem>(),
            .. request.SashId is not null && sash is null ? [new Problem("sashId", "Choose a sash of the ladder.")] : Array.Empty<Problem>(),
            .. request.Half != Half.None && sash?.HasHalves != true ? [new Problem("half", "Only a sash with halves can be split.")] : Array.Empty<Problem>(),
        ];
        if (problems.Count > 0)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Cohorts.AnyAsync(cohort => cohort.Id == request.Id, cancel))
        {
            return Answers.Conflict("This cohort is here already.");
        }

        db.Cohorts.Add(Cohort.Create(request.Id, id, request.Name, request.Order, request.SashId, request.Half, Mode.FromName(request.Mode)!.Value, request.Colour, request.Beginners));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/people");
    }

    private static async Task<List<Problem>> ProblemsAsync(ClassText text, Guid id, SchoolContext db, CancellationToken cancel)
    {
        var others = await db.Classes.AsNoTracking().Where(meeting => meeting.Id != id).ToListAsync(cancel);
        var halls = await db.Halls.ToDictionaryAsync(hall => hall.Id, hall => hall.Name, cancel);
        var staff = await db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        return [.. text.Check(others, halls, staff)];
    }
}
