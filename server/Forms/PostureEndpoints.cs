using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Notation;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>The school's postures and drills: list, open on a side, add, edit as a whole, take out.</summary>
internal static class PostureEndpoints
{
    /// <param name="Turn">How far the body turns from its start to its end on the written side, degrees
    /// clockwise.</param>
    public sealed record Item(
        Guid Id,
        string Name,
        IReadOnlyList<string> OtherNames,
        PostureKind Kind,
        string Family,
        Side WrittenSide,
        int Difficulty,
        int Counts,
        bool IsCompound,
        int Turn,
        IReadOnlyList<string> Modes,
        IReadOnlyList<Demand> Demands
    );

    /// <summary>A posture as written, and as it reads on one side.</summary>
    /// <param name="Reads">The text on that side, with the counts that other postures lend it.</param>
    /// <param name="Retired">It has been taken out, and stays in what was recorded.</param>
    public sealed record Response(
        Guid Id,
        PostureText Text,
        Side Side,
        PostureText Reads,
        IReadOnlyList<CountWords> Said,
        IReadOnlyList<VersionWords> VersionsSaid,
        IReadOnlyList<InMode> Modes,
        IReadOnlyList<Looked> Looked,
        IReadOnlyList<UsedIn> UsedIn,
        bool Retired,
        uint Version
    );

    /// <summary>The counts of an adapted version in plain words.</summary>
    public sealed record VersionWords(Mode Mode, IReadOnlyList<CountWords> Counts);

    /// <summary>What it asks of a body in a mode that is written, and what the checks find there.</summary>
    /// <param name="FeetCarry">Somebody who sits puts weight on the feet; otherwise the seat alone carries.</param>
    public sealed record InMode(
        Mode Mode,
        bool IsKnown,
        bool FeetCarry,
        IReadOnlyList<AskedFor> Asks,
        IReadOnlyList<NotAsked> TakenOff,
        IReadOnlyList<PostureFinding> Findings
    );

    /// <summary>A checkpoint as it was measured on the end shape, at its place among them.</summary>
    public sealed record Looked(int At, string Said, bool Fulfilled);

    /// <param name="WayInAsks">What the way into it asks for in this form, on the side that is shown.</param>
    public sealed record UsedIn(Guid FormId, string Form, int Positions, IReadOnlyList<Demand> WayInAsks);

    public sealed record CreateRequest(Guid Id, PostureText Text);

    public sealed record EditRequest(PostureText Text, uint Version);

    public static void Map(ByRank api)
    {
        var postures = api.Group("/postures");
        postures.Anyone.MapGet("", List).WithName("postures");
        postures.Anyone.MapGet("/{id:guid}", Read).ProducesProblem(404).WithName("posture");
        postures.Head.MapPost("", Create).ProducesProblem(409).WithName("createPosture");
        postures.Head.MapPut("/{id:guid}", Edit).ProducesProblem(404).ProducesProblem(409).WithName("editPosture");
        postures
            .Head.MapDelete("/{id:guid}", Remove)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("removePosture");
    }

    private static async Task<Ok<IReadOnlyList<Item>>> List(SchoolContext db, CancellationToken cancel)
    {
        var postures = await db.Catalogue.AsNoTracking().OrderBy(posture => posture.Name).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Item>>([
            .. postures.Select(posture => new Item(
                posture.Id,
                posture.Name,
                posture.Text.OtherNames,
                posture.Text.Kind,
                posture.Text.Family,
                posture.WrittenSide,
                posture.Difficulty,
                posture.Counts.Count,
                posture.Text.Parts.Count > 0,
                posture
                    .StepsOn(posture.WrittenSide)
                    .SelectMany(steps => steps)
                    .OfType<StepAction.Hips>()
                    .Sum(hips => hips.Turn),
                [.. posture.Versions.Select(version => version.Mode.Name)],
                posture.Demands
            )),
        ]);
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        Guid id,
        Word<Side>? side,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        await db.Postures.AsNoTracking().SingleOrDefaultAsync(posture => posture.Id == id, cancel) is { } posture
            ? TypedResults.Ok(
                await ShowAsync(
                    posture,
                    side is { } asked && posture.HasSide(asked.Value) ? asked.Value : posture.WrittenSide,
                    db,
                    cancel
                )
            )
            : Refusals.NotFound("This posture");

    internal static async Task<Results<Created<Response>, ValidationProblem, ProblemHttpResult>> Create(
        CreateRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var retired = await db.Postures.SingleOrDefaultAsync(posture => posture.Id == request.Id, cancel);
        if (retired is { Retired: false })
        {
            return Refusals.Conflict("This posture is here already.");
        }

        var (problems, basis) = await CheckAsync(request.Id, request.Text, db, cancel);
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var posture = retired ?? Posture.Create(request.Id, request.Text, basis);
        if (retired is null)
        {
            db.Postures.Add(posture);
        }
        else
        {
            posture.Rewrite(request.Text, basis);
            posture.TakeUpAgain();
        }

        await db.SaveChangesAsync(cancel);
        return TypedResults.Created(
            $"/api/postures/{posture.Id}",
            await ShowAsync(posture, posture.WrittenSide, db, cancel)
        );
    }

    internal static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Edit(
        Guid id,
        EditRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Catalogue.SingleOrDefaultAsync(posture => posture.Id == id, cancel) is not { } posture)
        {
            return Refusals.NotFound("This posture");
        }

        var (problems, basis) = await CheckAsync(id, request.Text, db, cancel);
        if (
            posture.WrittenSide != request.Text.WrittenSide
            && (posture.WrittenSide == Side.Symmetric || request.Text.WrittenSide == Side.Symmetric)
            && (await FormsWithAsync(id, posture.WrittenSide, db, cancel)).Count > 0
        )
        {
            problems.Add(new("writtenSide", "It stands in a form with the sides it has. Take it out there first."));
        }

        if (
            request.Text.Parts.Count > 0
            && posture.Text.Parts.Count == 0
            && (await FormsWithAsync(id, posture.WrittenSide, db, cancel)).Count > 0
        )
        {
            problems.Add(new("parts", "It stands in a form as one posture. Take it out there first."));
        }

        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var before = posture.Text;
        posture.Rewrite(request.Text, basis);
        PostureSet.Rebuild([id], await db.Postures.ToListAsync(cancel));
        if (!await db.SaveFromAsync(posture, request.Version, cancel))
        {
            return Refusals.Stale("The posture", PostureDifferences.Between(before, request.Text));
        }

        return TypedResults.Ok(await ShowAsync(posture, posture.WrittenSide, db, cancel));
    }

    /// <summary>Takes a posture out of the catalogue; whatever was recorded, planned or decided with it still names
    /// it.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Catalogue.SingleOrDefaultAsync(posture => posture.Id == id, cancel) is not { } posture)
        {
            return Refusals.NotFound("This posture");
        }

        List<string> uses =
        [
            .. (await FormsWithAsync(id, posture.WrittenSide, db, cancel)).Select(form => $"It stands in {form.Form}."),
            .. (await db.Catalogue.AsNoTracking().Where(other => other.Id != id).ToListAsync(cancel))
                .Select(other =>
                    other.Text.BuiltFrom?.PostureId == id || other.Text.Parts.Any(part => part.PostureId == id)
                        ? $"{other.Name} is made from it."
                    : other.Text.Needs.Contains(id) ? $"{other.Name} asks for it first."
                    : ""
                )
                .Where(use => use.Length > 0),
            .. (await db.Links.AsNoTracking().ToListAsync(cancel)).Any(link =>
                link.Text.FromId == id || link.Text.ToId == id
            )
                ? ["A link leads to or from it."]
                : Array.Empty<string>(),
        ];
        if (uses.Count > 0)
        {
            return Refusals.InUse(posture.Name, uses);
        }

        posture.Retire();
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<(List<Problem> Problems, Posture? Basis)> CheckAsync(
        Guid id,
        PostureText text,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var all = await db.Catalogue.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var texts = all.ToDictionary(posture => posture.Key, posture => posture.Value.Text);
        texts[id] = text;
        List<Problem> problems = [.. text.Check(), .. PostureSet.Check(id, text, texts)];
        if (
            all.Values.FirstOrDefault(other =>
                other.Id != id && other.Name.Equals(text.Name.Trim(), StringComparison.OrdinalIgnoreCase)
            ) is
            { } namesake
        )
        {
            problems.Add(new("name", $"Another posture is called {namesake.Name}."));
        }

        return (problems, text.BuiltFrom is { } built ? all.GetValueOrDefault(built.PostureId) : null);
    }

    private static async Task<IReadOnlyList<UsedIn>> FormsWithAsync(
        Guid id,
        Side side,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        [
            .. (await db.Forms.AsNoTracking().OrderBy(form => form.Name).ToListAsync(cancel))
                .Select(form => new UsedIn(
                    form.Id,
                    form.Name,
                    form.Positions.Count(position => position.PostureId == id || position.CompoundId == id),
                    form.Outline.WaysIn.FirstOrDefault(way => way.PostureId == id && way.Side == side)?.Demands ?? []
                ))
                .Where(use => use.Positions > 0),
        ];

    private static async Task<Response> ShowAsync(
        Posture posture,
        Side side,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var reads = posture.Reads(side);
        var ways = await Material.WaysAsync(db, cancel);
        return new(
            posture.Id,
            posture.Text,
            side,
            reads,
            [.. reads.Counts.Select(CountWords.Of)],
            [
                .. reads.Versions.Select(version => new VersionWords(
                    version.Mode,
                    [.. version.Counts.Select(CountWords.Of)]
                )),
            ],
            [
                .. Mode
                    .Named.Where(mode => !mode.IsAdapted || reads.Versions.Any(version => version.Mode == mode))
                    .Select(mode => Judge(posture, reads, side, mode, ways)),
            ],
            Look(posture, reads, side, ways),
            await FormsWithAsync(posture.Id, side, db, cancel),
            posture.Retired,
            posture.Version
        );
    }

    private static InMode Judge(Posture posture, PostureText reads, Side side, Mode mode, Conventions ways)
    {
        var asked = DerivedDemands.Of(reads, reads.Counts, mode)!;
        return new(
            mode,
            asked.IsKnown,
            reads.Versions.FirstOrDefault(version => version.Mode == mode)?.FeetCarry() ?? false,
            asked.Asks,
            asked.TakenOff,
            PostureCheck.Run(posture, side, mode, ways)
        );
    }

    private static IReadOnlyList<Looked> Look(Posture posture, PostureText reads, Side side, Conventions ways)
    {
        var walk = PostureBody.Of(posture, side, Mode.Standing, ways, Physique.Standard)!;
        return
        [
            .. reads
                .Checkpoints.Index()
                .SelectMany(point =>
                    PostureCheck
                        .Measured(walk, [point.Item])
                        .Select(measured => new Looked(point.Index, measured.Say(), measured.Fulfilled))
                ),
        ];
    }
}
