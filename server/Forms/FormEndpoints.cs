using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Forms;

/// <summary>The school's forms: list, open, add, edit as a whole.</summary>
internal static class FormEndpoints
{
    public sealed record Item(Guid Id, string Name, int Positions);

    public sealed record PositionRequest(Guid Id, Guid SectionId, Guid PostureId, Side Side, int Turn, int Facing, int Repeats, bool Numbered, string Note);

    public sealed record Request(string Name, IReadOnlyList<Section> Sections, IReadOnlyList<PositionRequest> Positions, uint Version);

    public sealed record CreateRequest(Guid Id, string Name, IReadOnlyList<Section> Sections, IReadOnlyList<PositionRequest> Positions);

    public sealed record PositionResponse(Guid Id, int? Number, Guid SectionId, Guid PostureId, string Posture, Side Side, bool HasSides, int Turn, int Facing, int Repeats, bool Numbered, string Note);

    /// <summary>Both sides of a facing that does not add up, and the turn that would mend it. Degrees clockwise.</summary>
    public sealed record Finding(Guid PositionId, int Reached, int Written, int TurnThatFits, string Message);

    public sealed record Response(Guid Id, string Name, IReadOnlyList<Section> Sections, IReadOnlyList<PositionResponse> Positions, FormAnalysis Analysis, IReadOnlyList<Finding> Findings, uint Version);

    public static void Map(IEndpointRouteBuilder api)
    {
        var forms = api.MapGroup("/forms");
        forms.MapGet("", List).RequireAuthorization(Policies.Anyone).WithName("forms");
        forms.MapGet("/{id:guid}", Read).RequireAuthorization(Policies.Anyone).ProducesProblem(404).WithName("form");
        forms.MapPost("", Create).RequireAuthorization(Policies.Head).ProducesProblem(409).WithName("createForm");
        forms.MapPut("/{id:guid}", Rewrite).RequireAuthorization(Policies.Head).ProducesProblem(404).ProducesProblem(409).WithName("editForm");
    }

    private static async Task<Ok<IReadOnlyList<Item>>> List(SchoolContext db, CancellationToken cancel)
    {
        var forms = await db.Forms.AsNoTracking().OrderBy(form => form.Name).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Item>>([.. forms.Select(form => new Item(form.Id, form.Name, form.Positions.Count))]);
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(Guid id, SchoolContext db, CancellationToken cancel) =>
        await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is { } form
            ? TypedResults.Ok(Show(form, await PosturesAsync(db, cancel)))
            : Answers.NotFound("This form");

    internal static async Task<Results<Created<Response>, ValidationProblem, ProblemHttpResult>> Create(CreateRequest request, SchoolContext db, CancellationToken cancel)
    {
        var postures = await PosturesAsync(db, cancel);
        var (text, problems) = Understand(request.Name, request.Sections, request.Positions, postures);
        if (problems.Count > 0)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Forms.AnyAsync(form => form.Id == request.Id, cancel))
        {
            return Answers.Conflict("This form is here already.");
        }

        var form = Form.Create(request.Id, text);
        db.Forms.Add(form);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created($"/api/forms/{form.Id}", Show(form, postures));
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Rewrite(Guid id, Request request, SchoolContext db, CancellationToken cancel)
    {
        if (await db.Forms.SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Answers.NotFound("This form");
        }

        var postures = await PosturesAsync(db, cancel);
        var (text, problems) = Understand(request.Name, request.Sections, request.Positions, postures);
        var assignments = await db.Assignments.AsNoTracking().Where(assignment => assignment.FormId == id).ToListAsync(cancel);
        if (assignments.FirstOrDefault(assignment => !assignment.StillFits(text.Positions)) is { } broken)
        {
            var cohort = await db.Cohorts.Where(c => c.Id == broken.CohortId).Select(c => c.Name).SingleAsync(cancel);
            problems.Add(new("positions", $"{cohort} has been assigned a segment that would end before it starts, or lose an end. Change its assignment first."));
        }

        if (problems.Count > 0)
        {
            return Answers.Invalid(problems);
        }

        var kept = new FormText(form.Name, form.Sections, form.Positions);
        form.Rewrite(text);
        if (!await db.SaveFromAsync(form, request.Version, cancel))
        {
            return Answers.Stale("The form", FormDifferences.Between(kept, text, postures));
        }

        return TypedResults.Ok(Show(form, postures));
    }

    private static Task<Dictionary<Guid, Posture>> PosturesAsync(SchoolContext db, CancellationToken cancel) =>
        db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);

    private static (FormText Text, List<Problem> Problems) Understand(string name, IReadOnlyList<Section> sections, IReadOnlyList<PositionRequest> positions, IReadOnlyDictionary<Guid, Posture> postures)
    {
        var text = new FormText(name ?? "", sections, [.. positions.Select(p => new Position(p.Id, p.SectionId, p.PostureId, p.Side, p.Turn, Facing.FromDegrees(p.Facing), p.Repeats, p.Numbered, p.Note ?? ""))]);
        List<Problem> problems =
        [
            .. positions.Index().Where(p => p.Item.Facing is < 0 or > 359).Select(p => new Problem($"positions[{p.Index}].facing", $"A facing is between 0 and 359 degrees; {p.Item.Facing} is off the circle.")),
            .. positions.Index().Where(p => p.Item.Note?.Length > Problem.LongestText).Select(p => new Problem($"positions[{p.Index}].note", $"Keep the note to {Problem.LongestText} characters.")),
            .. text.Check(postures),
        ];
        return (text, problems);
    }

    private static Response Show(Form form, IReadOnlyDictionary<Guid, Posture> postures) => new(
        form.Id,
        form.Name,
        form.Sections,
        [.. form.Positions.Zip(Numbering.Of(form.Positions), (position, number) => new PositionResponse(
            position.Id, number, position.SectionId, position.PostureId, postures[position.PostureId].Name, position.Side, postures[position.PostureId].WrittenSide != Side.Symmetric,
            position.Turn, position.Facing.Degrees, position.Repeats, position.Numbered, position.Note))],
        FormAnalysis.Of(form.Positions, postures),
        [.. FacingCheck.Run(form.Positions).Select(finding => new Finding(
            finding.PositionId, finding.Reached.Degrees, finding.Written.Degrees, finding.TurnThatFits,
            $"A turn of {finding.Turn}° from {finding.Before.Clock()} leads to {finding.Reached.Clock()}; {finding.Written.Clock()} is written."))],
        form.Version);
}
