using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Forms;

/// <summary>The school's postures: list, open on a side, add, rename.</summary>
internal static class PostureEndpoints
{
    public sealed record Item(Guid Id, string Name, Side WrittenSide, int Difficulty, IReadOnlyList<string> Modes);

    /// <summary>A posture as it reads on one side.</summary>
    public sealed record Response(
        Guid Id, string Name, Side Side, Side WrittenSide, SideNamedBy NamedBy, int Difficulty, string KeyPoint, IReadOnlyList<Count> Counts, IReadOnlyList<Fault> Faults,
        IReadOnlyList<Demand> Demands, IReadOnlyList<string> Cautions, IReadOnlyList<VersionResponse> Versions, uint Version);

    public sealed record VersionResponse(string Mode, IReadOnlyList<Count> Counts, IReadOnlyList<string> Cautions, string Replaces);

    public sealed record CreateRequest(
        Guid Id, string Name, Side WrittenSide, SideNamedBy NamedBy, int Difficulty, string KeyPoint, IReadOnlyList<Count> Counts, IReadOnlyList<Fault> Faults,
        IReadOnlyList<Demand> Demands, IReadOnlyList<string> Cautions, IReadOnlyList<VersionRequest> Versions);

    public sealed record VersionRequest(string Mode, IReadOnlyList<Count> Counts, IReadOnlyList<string> Cautions, string Replaces);

    public sealed record RenameRequest(string Name, uint Version);

    public static void Map(IEndpointRouteBuilder api)
    {
        var postures = api.MapGroup("/postures");
        postures.MapGet("", List).RequireAuthorization(Policies.Anyone).WithName("postures");
        postures.MapGet("/{id:guid}", Read).RequireAuthorization(Policies.Anyone).ProducesProblem(404).WithName("posture");
        postures.MapPost("", Create).RequireAuthorization(Policies.Head).ProducesProblem(409).WithName("createPosture");
        postures.MapPut("/{id:guid}/name", Rename).RequireAuthorization(Policies.Head).ProducesProblem(404).ProducesProblem(409).WithName("renamePosture");
    }

    private static async Task<Ok<IReadOnlyList<Item>>> List(SchoolContext db, CancellationToken cancel)
    {
        var postures = await db.Postures.AsNoTracking().OrderBy(posture => posture.Name).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Item>>([.. postures.Select(posture => new Item(posture.Id, posture.Name, posture.WrittenSide, posture.Difficulty, [.. posture.Versions.Select(version => version.Mode.Name)]))]);
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(Guid id, string? side, SchoolContext db, CancellationToken cancel) =>
        await db.Postures.AsNoTracking().SingleOrDefaultAsync(posture => posture.Id == id, cancel) is { } posture
            ? TypedResults.Ok(On(posture, Enum.TryParse<Side>(side, ignoreCase: true, out var asked) && posture.HasSide(asked) ? asked : posture.WrittenSide))
            : Answers.NotFound("This posture");

    internal static async Task<Results<Created<Response>, ValidationProblem, ProblemHttpResult>> Create(CreateRequest request, SchoolContext db, CancellationToken cancel)
    {
        List<Problem> problems = [.. request.Versions.Index().Where(version => Mode.FromName(version.Item.Mode) is null).Select(version => new Problem($"versions[{version.Index}].mode", "There is no such mode."))];
        var text = new PostureText(
            request.Name, request.WrittenSide, request.NamedBy, request.Difficulty, request.KeyPoint, request.Counts, request.Faults, request.Demands, request.Cautions,
            [.. request.Versions.Select(version => new AdaptedVersion(Mode.FromName(version.Mode) ?? default, version.Counts, version.Cautions, version.Replaces))]);
        problems.AddRange(text.Check());
        if (problems.Count > 0)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Postures.AnyAsync(posture => posture.Id == request.Id || posture.Name == request.Name.Trim(), cancel))
        {
            return Answers.Conflict($"The school has a posture {request.Name.Trim()} already.");
        }

        var posture = Posture.Create(request.Id, text);
        db.Postures.Add(posture);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created($"/api/postures/{posture.Id}", On(posture, posture.WrittenSide));
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Rename(Guid id, RenameRequest request, SchoolContext db, CancellationToken cancel)
    {
        if (await db.Postures.SingleOrDefaultAsync(posture => posture.Id == id, cancel) is not { } posture)
        {
            return Answers.NotFound("This posture");
        }

        if (Problem.WithName(request.Name, "name").ToList() is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Postures.AnyAsync(other => other.Id != id && other.Name == request.Name.Trim(), cancel))
        {
            return Answers.Invalid("name", $"Another posture is called {request.Name.Trim()}.");
        }

        var before = posture.Name;
        posture.Rename(request.Name);
        if (!await db.SaveFromAsync(posture, request.Version, cancel))
        {
            return Answers.Stale("The posture", [$"The posture is called {before}; you wrote {request.Name.Trim()}."]);
        }

        return TypedResults.Ok(On(posture, posture.WrittenSide));
    }

    private static Response On(Posture posture, Side side)
    {
        return new(
            posture.Id, posture.Name, side, posture.WrittenSide, posture.NamedBy, posture.Difficulty, Say(posture.KeyPoint), Counts(posture.Counts),
            [.. posture.Faults.Select(fault => fault with { Seen = Say(fault.Seen), Cause = Say(fault.Cause), Mend = Say(fault.Mend) })],
            posture.Demands, [.. posture.Cautions.Select(Say)],
            [.. posture.Versions.Select(version => new VersionResponse(version.Mode.Name, Counts(version.Counts), [.. version.Cautions.Select(Say)], Say(version.Replaces)))],
            posture.Version);

        string Say(string text) => posture.On(side, text);

        IReadOnlyList<Count> Counts(IReadOnlyList<Count> counts) =>
            [.. counts.Select(count => new Count(Say(count.Cue), Say(count.Feet), Say(count.Waist), Say(count.Hands), Say(count.Gaze), Say(count.Breath)))];
    }
}
