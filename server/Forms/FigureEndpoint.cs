using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Figures;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>The figure of a posture at the end of one of its counts, from one side, as a picture.</summary>
internal static class FigureEndpoint
{
    /// <summary>A posture on one of its sides, small, as it faces whoever looks at it: how it ends, or the count that
    /// shows it better.</summary>
    public sealed record SmallFigure(Guid PostureId, Side Side, string Box, IReadOnlyList<FigureShape> Shapes);

    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/figures", SmallFigures).ProducesValidationProblem().WithName("figures");
        api.Anyone.MapGet("/postures/{id:guid}/figure.svg", Draw)
            .ProducesProblem(404)
            .ProducesValidationProblem()
            .Produces<string>(200, "image/svg+xml")
            .WithName("figure");
    }

    /// <summary>All small figures there are in a mode: lists show many, and ask once.</summary>
    /// <param name="mode">The name of a mode; standing unless it is said.</param>
    private static async Task<Results<Ok<IReadOnlyList<SmallFigure>>, ValidationProblem>> SmallFigures(
        string? mode,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (Mode.FromName(mode ?? "standing") is not { } wanted)
        {
            return Refusals.Invalid([new Problem("mode", "There is no such mode.")]);
        }

        var material = await Material.LoadAsync(db, cancel);
        return TypedResults.Ok<IReadOnlyList<SmallFigure>>([
            .. from posture in material.Postures.Values
            where posture.Outline.In(wanted) is { IsKnown: true } || IsMadeOfKnown(posture, wanted, material)
            from side in Enum.GetValues<Side>()
            where posture.HasSide(side)
            let walk = Walk(posture, side, wanted, material, Physique.Standard)
            let count = posture.PicturedIn(wanted) ?? walk.Count
            let facing = walk.StandAfter(count).Hips
            let picture = FigurePicture.Small(walk, count, FigureView.Named("front", facing)!.Value)
            select new SmallFigure(posture.Id, side, picture.Box.ToString(), picture.Shapes),
        ]);
    }

    /// <summary>A compound posture has no counts of its own, and no versions: it is drawn as its parts are done.</summary>
    private static bool IsMadeOfKnown(Posture posture, Mode mode, Material material) =>
        posture.Text.Parts.Count > 0
        && mode == Mode.Standing
        && posture.Text.Parts.All(part => material.Postures[part.PostureId].Outline.In(mode) is { IsKnown: true });

    private static BodyWalk? Walk(Posture posture, Side side, Mode mode, Material material, Physique physique)
    {
        if (posture.Text.Parts.Count == 0)
        {
            return PostureBody.Of(posture, side, mode, material.Ways, physique);
        }

        return mode == Mode.Standing
            ? PostureBody.OfParts(posture, side, material.Postures, material.Ways, physique)
            : null;
    }

    /// <param name="side">The written one unless it is said.</param>
    /// <param name="count">0 is where it starts; the one small pictures show unless it is said.</param>
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
        if (await db.Postures.AsNoTracking().SingleOrDefaultAsync(found => found.Id == id, cancel) is not { } posture)
        {
            return Refusals.NotFound("This posture");
        }

        var on = side?.Value ?? posture.WrittenSide;
        var drawn = posture.Text.Parts.Select(part => part.PostureId).Append(id).ToList();
        Material material = new(
            await db
                .Postures.AsNoTracking()
                .Where(found => drawn.Contains(found.Id))
                .ToDictionaryAsync(found => found.Id, cancel),
            [],
            await Material.WaysAsync(db, cancel)
        );
        var physique = Physique.OfFoot((double)material.Ways.FootMetres);
        var mode = Mode.FromName(version ?? "standing");
        var walk = mode is { } known && posture.HasSide(on) ? Walk(posture, on, known, material, physique) : null;
        var facing = walk?.StandAfter(walk.Count).Hips ?? 0;
        var from = FigureView.Named(view ?? "front", facing, mirrored ?? false);
        var at = count ?? (mode is { } shown ? posture.PicturedIn(shown) : null) ?? walk?.Count ?? 0;
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
