using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;

namespace Zeitplan.Server.People;

/// <summary>Gives a cohort a segment of a form for a term, in place of the one it had.</summary>
internal static class AssignSegment
{
    /// <param name="Version">Of the assignment that is replaced; null for a first one.</param>
    public sealed record Request(Guid FormId, Guid FromPositionId, Guid ToPositionId, DateOnly Target, uint? Version);

    /// <param name="NewUnits">What the cohort has not met yet, with the minutes each takes.</param>
    public sealed record Response(PeopleEndpoints.AssignmentResponse Assignment, IReadOnlyList<Unit> NewUnits, IReadOnlyList<Unteachable> CannotBeTaught, decimal Minutes);

    public sealed record Unit(string Name, decimal Minutes, string Effort);

    public static void Map(IEndpointRouteBuilder api) =>
        api.MapPut("/terms/{termId:guid}/cohorts/{cohortId:guid}/assignment", Handle).RequireAuthorization(Policies.Head).ProducesProblem(404).ProducesProblem(409).WithName("assignSegment");

    internal static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Handle(Guid termId, Guid cohortId, Request request, SchoolContext db, SchoolClock clock, CancellationToken cancel)
    {
        var term = await db.Terms.AsNoTracking().SingleOrDefaultAsync(t => t.Id == termId, cancel);
        var cohort = await db.Cohorts.AsNoTracking().SingleOrDefaultAsync(c => c.Id == cohortId, cancel);
        if (term is null || cohort is null)
        {
            return Answers.NotFound(term is null ? "This term" : "This cohort");
        }

        var form = await db.Forms.AsNoTracking().SingleOrDefaultAsync(f => f.Id == request.FormId, cancel);
        var text = new AssignmentText(request.FormId, request.FromPositionId, request.ToPositionId, request.Target);
        if (text.Check(form, term).ToList() is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var assignment = await db.Assignments.SingleOrDefaultAsync(a => a.TermId == termId && a.CohortId == cohortId, cancel);
        if (assignment is not null)
        {
            var held = await db.Forms.AsNoTracking().SingleAsync(f => f.Id == assignment.FormId, cancel);
            var kept = PeopleEndpoints.Show(assignment, held, postures);
            if (request.Version is null)
            {
                return Answers.Stale("The assignment", [$"{cohort.Name} has {kept.From} to {kept.To} by {kept.Target:yyyy-MM-dd}."]);
            }

            assignment.Rewrite(text);
            if (!await db.SaveFromAsync(assignment, request.Version.Value, cancel))
            {
                return Answers.Stale("The assignment", [$"{cohort.Name} has {kept.From} to {kept.To} by {kept.Target:yyyy-MM-dd}."]);
            }
        }
        else
        {
            assignment = Assignment.Create(Guid.CreateVersion7(), termId, cohortId, text);
            db.Assignments.Add(assignment);
            await db.SaveChangesAsync(cancel);
        }

        var meeting = await db.Classes.AsNoTracking().SingleAsync(c => c.Id == cohort.ClassId, cancel);
        var material = await ClassMaterials.LoadAsync(db, term, meeting, await clock.TodayAsync(cancel), cancel);
        var mine = material.Problem.Cohorts.Single(c => c.Id == cohortId);
        var open = mine.Units.Skip(mine.IntroducedIn.Count).ToList();
        return TypedResults.Ok(new Response(
            PeopleEndpoints.Show(assignment, form!, postures),
            [.. open.Select(unit => new Unit(unit.Name, Minutes.Of(unit.IntroduceSeconds), unit.Effort))],
            material.Unteachable[cohortId],
            Minutes.Of(open.Sum(unit => unit.IntroduceSeconds))));
    }
}
