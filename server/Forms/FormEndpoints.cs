using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>The school's forms: list, open, add, edit as a whole, take out.</summary>
internal static class FormEndpoints
{
    public sealed record Item(Guid Id, string Name, int Positions, Guid? ParentId);

    public sealed record EditRequest(FormText Text, uint Version);

    public sealed record CreateRequest(Guid Id, FormText Text);

    /// <param name="Derivation">How it comes from its parent, when it is derived.</param>
    public sealed record Response(Guid Id, FormText Text, FormStudy Study, FormDerivation? Derivation, uint Version);

    public static void Map(IEndpointRouteBuilder api)
    {
        var forms = api.MapGroup("/forms");
        forms.MapGet("", List).RequireAuthorization(Policies.Anyone).WithName("forms");
        forms.MapGet("/{id:guid}", Read).RequireAuthorization(Policies.Anyone).ProducesProblem(404).WithName("form");
        forms.MapPost("", Create).RequireAuthorization(Policies.Head).ProducesProblem(409).WithName("createForm");
        forms
            .MapPut("/{id:guid}", Edit)
            .RequireAuthorization(Policies.Head)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("editForm");
        forms
            .MapDelete("/{id:guid}", Remove)
            .RequireAuthorization(Policies.Head)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("removeForm");
    }

    private static async Task<Ok<IReadOnlyList<Item>>> List(SchoolContext db, CancellationToken cancel)
    {
        var forms = await db.Forms.AsNoTracking().OrderByDescending(form => form.Name).ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Item>>([
            .. forms
                .OrderByDescending(form => form.Positions.Count)
                .Select(form => new Item(form.Id, form.Name, form.Positions.Count, form.Text.ParentId)),
        ]);
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is { } form
            ? TypedResults.Ok(await ShowAsync(form, await Material.LoadAsync(db, cancel), db, cancel))
            : Refusals.NotFound("This form");

    internal static async Task<Results<Created<Response>, ValidationProblem, ProblemHttpResult>> Create(
        CreateRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Forms.AnyAsync(form => form.Id == request.Id, cancel))
        {
            return Refusals.Conflict("This form is here already.");
        }

        var material = await Material.LoadAsync(db, cancel);
        if (await CheckAsync(request.Id, request.Text, material, db, cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        var form = Form.Create(request.Id, request.Text);
        db.Forms.Add(form);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created($"/api/forms/{form.Id}", await ShowAsync(form, material, db, cancel));
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Edit(
        Guid id,
        EditRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Forms.SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Refusals.NotFound("This form");
        }

        var material = await Material.LoadAsync(db, cancel);
        List<Problem> problems =
        [
            .. await CheckAsync(id, request.Text, material, db, cancel),
            .. await BrokenUsesAsync(id, request.Text, db, cancel),
        ];
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var kept = form.Text;
        form.Rewrite(request.Text);
        if (!await db.SaveFromAsync(form, request.Version, cancel))
        {
            return Refusals.Stale(
                "The form",
                FormDifferences.Between(kept, request.Text, material.Postures, material.Ways)
            );
        }

        return TypedResults.Ok(await ShowAsync(form, material, db, cancel));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Forms.SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Refusals.NotFound("This form");
        }

        List<string> uses =
        [
            .. (await SegmentsOfAsync(id, db, cancel)).Select(segment => segment.CohortId).Distinct().ToList()
                is { Count: > 0 } cohorts
                ? [$"{cohorts.Count} cohorts have been assigned a part of it."]
                : Array.Empty<string>(),
            .. (await LadderWithAsync(id, db, cancel)).Select(asked => asked.Sash).Distinct().ToList()
                is { Count: > 0 } sashes
                ? [$"{string.Join(", ", sashes)} ask for a part of it."]
                : Array.Empty<string>(),
            .. (await db.Forms.AsNoTracking().Where(other => other.Id != id).ToListAsync(cancel))
                .Where(other => other.Text.ParentId == id)
                .Select(other => $"{other.Name} is derived from it."),
        ];
        if (uses.Count > 0)
        {
            return Refusals.InUse(form.Name, uses);
        }

        db.Forms.Remove(form);
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Segments given to cohorts, or asked for by the ladder, that the text would turn round or cut off.</summary>
    internal static async Task<IReadOnlyList<Problem>> BrokenUsesAsync(
        Guid id,
        FormText text,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var cut = (await SegmentsOfAsync(id, db, cancel))
            .Where(given => !given.Segment.StillFits(text.Positions))
            .Select(given => given.CohortId)
            .ToList();
        var cohorts = await db
            .Cohorts.Where(cohort => cut.Contains(cohort.Id))
            .Select(cohort => cohort.Name)
            .ToListAsync(cancel);
        return
        [
            .. cohorts.Select(cohort => new Problem(
                "positions",
                $"{cohort} has been assigned a segment that would end before it starts, or lose an end. Change its assignment first."
            )),
            .. (await LadderWithAsync(id, db, cancel))
                .Where(asked => !asked.Segment.StillFits(text.Positions))
                .Select(asked => new Problem(
                    "positions",
                    $"The sash {asked.Sash} asks for a part that would end before it starts, or lose an end. Change what it asks for first."
                )),
        ];
    }

    /// <summary>The parts of a form that the ladder asks for.</summary>
    private static async Task<IReadOnlyList<(string Sash, AssignedSegment Segment)>> LadderWithAsync(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        [
            .. (await db.Sashes.AsNoTracking().OrderBy(sash => sash.Order).ToListAsync(cancel)).SelectMany(sash =>
                sash.Asks.Studies.Where(study => study.FormId == id)
                    .Select(study =>
                        (
                            sash.Name,
                            new AssignedSegment(Guid.Empty, id, study.FromId, study.ToId, default, Purpose.New, [])
                        )
                    )
            ),
        ];

    /// <summary>Whatever of a form has been given to cohorts.</summary>
    private static async Task<IReadOnlyList<(Guid CohortId, AssignedSegment Segment)>> SegmentsOfAsync(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        [
            .. (await db.Assignments.AsNoTracking().ToListAsync(cancel)).SelectMany(given =>
                given.Segments.Where(segment => segment.FormId == id).Select(segment => (given.CohortId, segment))
            ),
        ];

    private static async Task<List<Problem>> CheckAsync(
        Guid id,
        FormText text,
        Material material,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var others = await db.Forms.AsNoTracking().Where(form => form.Id != id).ToListAsync(cancel);
        var parents = others.ToDictionary(form => form.Id, form => form.Text.ParentId);
        parents[id] = text.ParentId;
        return
        [
            .. text.Check(material.Postures),
            .. FormText.CheckParent(id, text.ParentId, parents),
            .. others.Any(form => form.Name.Equals(text.Name.Trim(), StringComparison.OrdinalIgnoreCase))
                ? [new Problem("name", $"Another form is called {text.Name.Trim()}.")]
                : Array.Empty<Problem>(),
        ];
    }

    private static async Task<Response> ShowAsync(
        Form form,
        Material material,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var parent = form.Text.ParentId is { } id
            ? await db.Forms.AsNoTracking().SingleOrDefaultAsync(other => other.Id == id, cancel)
            : null;
        return new(
            form.Id,
            form.Text,
            FormStudy.Of(form.Text, material.Postures, material.Links, material.Ways),
            parent is null ? null : FormDerivation.Of(parent.Positions, form.Positions),
            form.Version
        );
    }
}
