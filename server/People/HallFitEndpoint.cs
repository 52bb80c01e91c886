using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>Whether a form fits one of the school's halls, with so many people.</summary>
internal static class HallFitEndpoint
{
    /// <param name="Positions">From and to, by identifier; null for the whole form.</param>
    public sealed record HallRequest(
        Guid HallId,
        int Standing,
        int Seated,
        int Frames,
        int RailUsers,
        Guid? FromId,
        Guid? ToId
    );

    /// <param name="DrillSteps">How many bow steps of a walking drill fit along the depth before it must turn.</param>
    public sealed record HallResponse(HallAnswer Answer, FloorNeed Need, decimal Width, decimal Depth, int DrillSteps);

    public static void Map(ByRank api) =>
        api.Anyone.MapPost("/forms/{id:guid}/hall", FitHall).ProducesProblem(404).WithName("fitHall");

    private static async Task<Results<Ok<HallResponse>, ValidationProblem, ProblemHttpResult>> FitHall(
        Guid id,
        HallRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Refusals.NotFound("This form");
        }

        if (
            await db.Halls.AsNoTracking().SingleOrDefaultAsync(hall => hall.Id == request.HallId, cancel)
            is not { } hall
        )
        {
            return Refusals.Invalid("hallId", "Choose one of the school's halls.");
        }

        List<Problem> problems = [];
        foreach (
            var (field, people) in new[]
            {
                ("standing", request.Standing),
                ("seated", request.Seated),
                ("frames", request.Frames),
                ("railUsers", request.RailUsers),
            }
        )
        {
            problems.AddRange(
                people is < 0 or > 300 ? [new Problem(field, "Between 0 and 300 people.")] : Array.Empty<Problem>()
            );
        }

        if (request.RailUsers > request.Standing)
        {
            problems.Add(new("railUsers", "Whoever holds the rail stands: no more than those standing."));
        }

        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var material = await Material.LoadAsync(db, cancel);
        var (from, to) = (
            request.FromId is { } first ? form.IndexOf(first) : 0,
            request.ToId is { } last ? form.IndexOf(last) : form.Positions.Count - 1
        );
        var walk = FloorWalk
            .Of(form.Positions, material.Postures, material.Ways)
            .Part(Math.Max(0, from), to < 0 ? form.Positions.Count - 1 : to);
        var foot = (double)material.Ways.FootMetres;
        var answer = HallFit.Of(
            walk,
            foot,
            new(
                (double)hall.Width,
                (double)hall.Depth,
                request.Standing,
                request.Seated,
                request.Frames,
                request.RailUsers,
                hall.Chairs,
                (double)hall.Rail,
                hall.RailWall
            )
        );
        return TypedResults.Ok(
            new HallResponse(
                answer,
                FloorNeed.Of(walk, foot, answer.Best.Turned),
                hall.Width,
                hall.Depth,
                HallFit.StepsBeforeTurning((double)hall.Depth, HallFit.BowStepFeet, foot)
            )
        );
    }
}
