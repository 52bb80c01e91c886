using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>Classes: when and where they meet, and who teaches them.</summary>
internal static class ClassEndpoints
{
    public sealed record Text(
        string Name,
        DayOfWeek Weekday,
        TimeOnly Start,
        int Minutes,
        Guid HallId,
        IReadOnlyList<Guid> StaffIds,
        IReadOnlyList<Substitute> Substitutes
    )
    {
        internal ClassText Write() =>
            new(Name, Weekday, Start, Minutes, HallId, StaffIds) { Substitutes = Substitutes };
    }

    public sealed record CreateRequest(Guid Id, Text Text);

    public sealed record EditRequest(Text Text, uint Version);

    /// <param name="ClassId">The class that is being written; null for a new one.</param>
    public sealed record CheckRequest(Guid? ClassId, Text Text);

    public sealed record Response(Guid Id, uint Version);

    /// <param name="Into">For each of its cohorts, the cohort of another class that takes its people over.</param>
    public sealed record RemoveRequest(IReadOnlyDictionary<Guid, Guid> Into);

    public static void Map(ByRank api)
    {
        var classes = api.Head.MapGroup("/classes");
        classes.MapPost("", Create).ProducesProblem(409).WithName("createClass");
        classes.MapPost("/check", Check).WithName("checkClass");
        classes.MapPut("/{id:guid}", Rewrite).ProducesProblem(404).ProducesProblem(409).WithName("editClass");
        classes.MapPost("/{id:guid}/removal", Remove).ProducesProblem(404).ProducesProblem(409).WithName("removeClass");
    }

    internal static async Task<Results<Created<Response>, ValidationProblem, ProblemHttpResult>> Create(
        CreateRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        await using var turn = await AllOrNothing.InTurnAsync(db, Turn.Timetable, cancel);
        var text = request.Text.Write();
        if (await ProblemsAsync(text, request.Id, db, clock, cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        if (await db.Classes.AnyAsync(schoolClass => schoolClass.Id == request.Id, cancel))
        {
            return Refusals.Conflict("This class is here already.");
        }

        var schoolClass = SchoolClass.Create(request.Id, text);
        db.Classes.Add(schoolClass);
        await db.SaveChangesAsync(cancel);
        await turn.KeepAsync(cancel);
        return TypedResults.Created("/api/people", new Response(schoolClass.Id, schoolClass.Version));
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Rewrite(
        Guid id,
        EditRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        await using var turn = await AllOrNothing.InTurnAsync(db, Turn.Timetable, cancel);
        if (await db.Classes.SingleOrDefaultAsync(c => c.Id == id, cancel) is not { } schoolClass)
        {
            return Refusals.NotFound("This class");
        }

        var text = request.Text.Write() with
        {
            OtherDates = [.. schoolClass.Changes.Select(change => change.MovedTo ?? change.Date)],
        };
        if (await ProblemsAsync(text, id, db, clock, cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        var kept =
            $"{schoolClass.Name} meets on {schoolClass.Weekday} at {schoolClass.Start:HH:mm} for {schoolClass.Minutes} minutes with {schoolClass.StaffIds.Count} staff.";
        schoolClass.Rewrite(text);
        if (!await db.SaveFromAsync(schoolClass, request.Version, cancel))
        {
            return Refusals.Stale("The class", [kept]);
        }

        await turn.KeepAsync(cancel);
        return TypedResults.Ok(new Response(schoolClass.Id, schoolClass.Version));
    }

    /// <summary>What collides, while it is still being written, with ways out.</summary>
    private static async Task<Ok<IReadOnlyList<ClassConcern>>> Check(
        CheckRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    ) => TypedResults.Ok(await ConcernsAsync(request.Text.Write(), request.ClassId, db, clock, cancel));

    /// <summary>A class nobody was ever taught in goes; any other is closed, so that its history stays.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        RemoveRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Classes.SingleOrDefaultAsync(c => c.Id == id, cancel) is not { } schoolClass)
        {
            return Refusals.NotFound("This class");
        }

        var today = await clock.TodayAsync(cancel);
        var cohorts = await db.Cohorts.Where(cohort => cohort.ClassId == id).ToListAsync(cancel);
        var ids = cohorts.Select(cohort => cohort.Id).ToList();
        var students = await db.StudentsIn(ids).ToListAsync(cancel);
        var targets = await db
            .Cohorts.Where(cohort => cohort.ClassId != id && request.Into.Values.Contains(cohort.Id))
            .Select(cohort => cohort.Id)
            .ToListAsync(cancel);
        var homeless = cohorts
            .Where(cohort =>
                students.Any(student => student.CohortIds.Contains(cohort.Id))
                && !(request.Into.TryGetValue(cohort.Id, out var into) && targets.Contains(into))
            )
            .ToList();
        if (homeless.Count > 0)
        {
            return Refusals.InUse(
                schoolClass.Name,
                [
                    .. homeless.Select(cohort =>
                        $"{students.Count(student => student.CohortIds.Contains(cohort.Id))} people learn in {cohort.Name}. Say which cohort takes them over."
                    ),
                ]
            );
        }

        foreach (var student in students)
        {
            student.MoveTo(
                [.. student.CohortIds.Select(cohort => request.Into.GetValueOrDefault(cohort, cohort)).Distinct()],
                today
            );
        }

        if (await db.HasHistoryAsync(id, ids, cancel))
        {
            schoolClass.Close(today);
        }
        else
        {
            await db.TakeBackAssignmentsAsync(ids, cancel);
            db.Plans.RemoveRange(await db.Plans.Where(plan => plan.ClassId == id).ToListAsync(cancel));
            db.Cohorts.RemoveRange(cohorts);
            db.Classes.Remove(schoolClass);
        }

        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<List<Problem>> ProblemsAsync(
        ClassText text,
        Guid id,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var halls = await db.Halls.AsNoTracking().ToDictionaryAsync(hall => hall.Id, cancel);
        var staff = await db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        return
        [
            .. text.Check(halls, staff),
            .. (await ConcernsAsync(text, id, db, clock, cancel))
                .Where(concern => concern.Blocks)
                .Select(concern => new Problem(concern.Field, concern.Message)),
        ];
    }

    private static async Task<IReadOnlyList<ClassConcern>> ConcernsAsync(
        ClassText text,
        Guid? id,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        var others = await db
            .Classes.AsNoTracking()
            .Where(schoolClass => schoolClass.Id != id && (schoolClass.Closed == null || schoolClass.Closed >= today))
            .ToListAsync(cancel);
        var cohorts = await db.Cohorts.AsNoTracking().Where(cohort => cohort.ClassId == id).ToListAsync(cancel);
        var seats = cohorts
            .Where(cohort => cohort.Mode.Support == Support.Seat)
            .Select(cohort => cohort.Id)
            .ToHashSet();
        var members = await db.StudentsIn([.. cohorts.Select(cohort => cohort.Id)])
            .Select(student => student.CohortIds)
            .ToListAsync(cancel);
        var seated = members.Count(cohorts => cohorts.Any(seats.Contains));
        return ClassCheck.Of(
            text,
            others,
            await db.Halls.AsNoTracking().ToListAsync(cancel),
            await db.Staff.AsNoTracking().ToListAsync(cancel),
            members.Count - seated,
            seated
        );
    }
}
