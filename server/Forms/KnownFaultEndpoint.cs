using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>What was seen in the hall and no list had becomes a known fault of the posture, for everybody.</summary>
internal static class KnownFaultEndpoint
{
    /// <param name="Id">Of the fault; sent twice it is kept once.</param>
    /// <param name="Side">The side on which it was seen, and as which it reads.</param>
    public sealed record Request(Guid Id, Side Side, string Seen, Weight Weight);

    public static void Map(ByRank api) =>
        api
            .Head.MapPost("/postures/{id:guid}/faults", Keep)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("keepFault");

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Keep(
        Guid id,
        Request request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Catalogue.SingleOrDefaultAsync(posture => posture.Id == id, cancel) is not { } posture)
        {
            return Refusals.NotFound("This posture");
        }

        if (posture.Faults.Any(fault => fault.Id == request.Id))
        {
            return TypedResults.NoContent();
        }

        List<Problem> problems =
        [
            .. Problem.WithText(request.Seen, "seen", Problem.LongestText, "description of what is seen"),
            .. posture.HasSide(request.Side)
                ? Array.Empty<Problem>()
                : [new("side", "The school has no such posture on this side.")],
        ];
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        posture.KnowFault(request.Side, new(request.Id, request.Seen.Trim(), request.Weight, []));
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }
}
