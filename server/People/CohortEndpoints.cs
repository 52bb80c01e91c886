using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>The cohorts of a class.</summary>
internal static class CohortEndpoints
{
    /// <param name="TakesIn">Students of no class who learn in it from today.</param>
    public sealed record CreateRequest(Guid Id, CohortText Text, IReadOnlyList<Guid>? TakesIn = null);

    public sealed record EditRequest(CohortText Text, uint Version);

    public static void Map(ByRank api)
    {
        api.Head.MapPost("/classes/{classId:guid}/cohorts", Add)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("addCohort");
        var cohorts = api.Head.MapGroup("/cohorts/{id:guid}");
        cohorts.MapPut("", Edit).ProducesProblem(404).ProducesProblem(409).WithName("editCohort");
        cohorts.MapDelete("", Remove).ProducesProblem(404).ProducesProblem(409).WithName("removeCohort");
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> Add(
        Guid classId,
        CreateRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (!await db.Classes.AnyAsync(schoolClass => schoolClass.Id == classId, cancel))
        {
            return Refusals.NotFound("This class");
        }

        if (await ProblemsAsync(request.Text, classId, request.Id, db, cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        if (await db.Cohorts.AnyAsync(cohort => cohort.Id == request.Id, cancel))
        {
            return Refusals.Conflict("This cohort is here already.");
        }

        var wanted = request.TakesIn ?? [];
        var free = await db
            .Students.Where(student =>
                wanted.Contains(student.Id) && student.CohortIds.Length == 0 && student.Erased == null
            )
            .ToListAsync(cancel);
        if (wanted.Except(free.Select(student => student.Id)).Any())
        {
            return Refusals.Stale("The roster", ["Somebody who was to be taken in has a class by now, or has gone."]);
        }

        var today = await clock.TodayAsync(cancel);
        free.ForEach(student => student.MoveTo([request.Id], today));
        db.Cohorts.Add(Cohort.Create(request.Id, classId, request.Text));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/people");
    }

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Edit(
        Guid id,
        EditRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Cohorts.SingleOrDefaultAsync(cohort => cohort.Id == id, cancel) is not { } cohort)
        {
            return Refusals.NotFound("This cohort");
        }

        if (await ProblemsAsync(request.Text, cohort.ClassId, id, db, cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        var kept = $"{cohort.Name} works {cohort.Mode.Name}.";
        cohort.Rewrite(request.Text);
        return await db.SaveFromAsync(cohort, request.Version, cancel)
            ? TypedResults.NoContent()
            : Refusals.Stale("The cohort", [kept]);
    }

    /// <param name="into">The cohort that takes its people over.</param>
    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        Guid? into,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Cohorts.SingleOrDefaultAsync(cohort => cohort.Id == id, cancel) is not { } cohort)
        {
            return Refusals.NotFound("This cohort");
        }

        var students = await db.StudentsIn([id]).ToListAsync(cancel);
        var target = await db
            .Cohorts.Where(other => other.Id == into && other.Id != id)
            .Select(other => (Guid?)other.Id)
            .SingleOrDefaultAsync(cancel);
        if (students.Count > 0 && target is null)
        {
            return Refusals.InUse(
                cohort.Name,
                [
                    $"{students.Count} {(students.Count == 1 ? "person learns" : "people learn")} in it. Choose the cohort that takes them over.",
                ]
            );
        }

        if (students.Count == 0 && await db.HasHistoryAsync(id, cancel))
        {
            return Refusals.InUse(
                cohort.Name,
                [
                    "It is empty and stays in the history of whoever learned in it. It is not shown on lessons while nobody is in it.",
                ]
            );
        }

        var today = await clock.TodayAsync(cancel);
        students.ForEach(student =>
            student.MoveTo(
                [.. student.CohortIds.Select(cohort => cohort == id ? target!.Value : cohort).Distinct()],
                today
            )
        );
        if (students.Count == 0)
        {
            await db.TakeBackAssignmentsAsync([id], cancel);
            db.Cohorts.Remove(cohort);
        }

        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<List<Problem>> ProblemsAsync(
        CohortText text,
        Guid classId,
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        [
            .. text.Check(
                await db
                    .Cohorts.AsNoTracking()
                    .Where(other => other.ClassId == classId && other.Id != id)
                    .ToListAsync(cancel),
                await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel)
            ),
        ];
}
