using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
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

    public static void Map(ByRank api)
    {
        var forms = api.Group("/forms");
        forms.Anyone.MapGet("", List).WithName("forms");
        forms.Anyone.MapGet("/{id:guid}", Read).ProducesProblem(404).WithName("form");
        forms.Head.MapPost("", Create).ProducesProblem(409).WithName("createForm");
        forms.Head.MapPut("/{id:guid}", Edit).ProducesProblem(404).ProducesProblem(409).WithName("editForm");
        forms.Head.MapDelete("/{id:guid}", Remove).ProducesProblem(404).ProducesProblem(409).WithName("removeForm");
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
            .. (await FormUses.LoadAsync(db, id, cancel)).BrokenBy(request.Text.Positions),
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
            .. (await FormUses.LoadAsync(db, id, cancel)).Say(),
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
