using System.Text;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>The figure of a posture at the end of one of its counts, from one side, as a picture.</summary>
internal static class FigureEndpoint
{
    public static void Map(ByRank api) =>
        api
            .Anyone.MapGet("/postures/{id:guid}/figure.svg", Draw)
            .ProducesProblem(404)
            .ProducesValidationProblem()
            .Produces<string>(200, "image/svg+xml")
            .WithName("figure");

    /// <param name="side">The written one unless it is said.</param>
    /// <param name="count">0 is where it starts; the end shape unless it is said.</param>
    /// <param name="view">front, behind, left, right or above.</param>
    /// <param name="version">The name of a mode.</param>
    private static async Task<IResult> Draw(
        Guid id,
        Word<Side>? side,
        int? count,
        string? view,
        string? version,
        bool? mirrored,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var material = await Material.LoadAsync(db, cancel);
        if (!material.Postures.TryGetValue(id, out var posture))
        {
            return Refusals.NotFound("This posture");
        }

        var on = side?.Value ?? posture.WrittenSide;
        var ways = material.Ways;
        var physique = Physique.OfFoot((double)ways.FootMetres);
        var mode = Mode.FromName(version ?? "standing");
        var walk = mode is { } known && posture.HasSide(on) ? PostureBody.Of(posture, on, known, ways, physique) : null;
        var facing = walk?.StandAfter(walk.Count).Hips ?? 0;
        var from = FigureView.Named(view ?? "front", facing, mirrored ?? false);
        var at = count ?? walk?.Count ?? 0;
        Problem[] problems =
        [
            .. posture.HasSide(on) ? Array.Empty<Problem>() : [new("side", $"{posture.Name} has no such side.")],
            .. mode is null || (walk is null && posture.HasSide(on))
                ? [new Problem("version", $"{posture.Name} is not written for this mode.")]
                : Array.Empty<Problem>(),
            .. from is null
                ? [new Problem("view", "A figure is seen from the front, behind, left, right or above.")]
                : Array.Empty<Problem>(),
            .. walk is not null && (at < 0 || at > walk.Count)
                ? [new Problem("count", $"It has {walk.Count} counts; 0 is where it starts.")]
                : Array.Empty<Problem>(),
        ];
        if (problems.Length > 0)
        {
            return Refusals.Invalid(problems);
        }

        var picture = FigurePicture.Of(walk!, at, 1, from!.Value, Figure.NobodysSash, FigureColours.Paper);
        var title = $"{posture.NameOn(on)}, {(at == 0 ? "where it starts" : $"count {at}")}, {view ?? "front"}";
        return TypedResults.File(Encoding.UTF8.GetBytes(FigureSvg.Write(picture, title)), "image/svg+xml");
    }
}
