using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>Links between postures, and the school's principles: list, write, take out.</summary>
internal static class LinkEndpoints
{
    public sealed record LinkItem(Guid Id, LinkText Text, uint Version);

    public sealed record PrincipleItem(Guid Id, PrincipleText Text, uint Version);

    /// <param name="Version">Null for a new one.</param>
    public sealed record LinkRequest(LinkText Text, uint? Version);

    /// <param name="Version">Null for a new one.</param>
    public sealed record PrincipleRequest(PrincipleText Text, uint? Version);

    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/links", Links).WithName("links");
        api.Head.MapPut("/links/{id:guid}", WriteLink).ProducesProblem(404).ProducesProblem(409).WithName("writeLink");
        api.Head.MapDelete("/links/{id:guid}", RemoveLink).ProducesProblem(404).WithName("removeLink");
        api.Anyone.MapGet("/principles", Principles).WithName("principles");
        api.Head.MapPut("/principles/{id:guid}", WritePrinciple)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("writePrinciple");
        api.Head.MapDelete("/principles/{id:guid}", RemovePrinciple).ProducesProblem(404).WithName("removePrinciple");
    }

    private static async Task<Ok<List<LinkItem>>> Links(SchoolContext db, CancellationToken cancel) =>
        TypedResults.Ok(
            (await db.Links.AsNoTracking().OrderBy(link => link.Id).ToListAsync(cancel)).Select(Show).ToList()
        );

    private static async Task<Ok<List<PrincipleItem>>> Principles(SchoolContext db, CancellationToken cancel) =>
        TypedResults.Ok(
            (await db.Principles.AsNoTracking().ToListAsync(cancel))
                .OrderBy(principle => principle.Text.Order)
                .Select(Show)
                .ToList()
        );

    private static Task<Results<NoContent, ProblemHttpResult>> RemoveLink(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    ) => RemoveAsync(db.Links.Where(link => link.Id == id), "This link", cancel);

    private static Task<Results<NoContent, ProblemHttpResult>> RemovePrinciple(
        Guid id,
        SchoolContext db,
        CancellationToken cancel
    ) => RemoveAsync(db.Principles.Where(principle => principle.Id == id), "This principle", cancel);

    private static async Task<Results<Ok<LinkItem>, ValidationProblem, ProblemHttpResult>> WriteLink(
        Guid id,
        LinkRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        List<Problem> problems =
        [
            .. request.Text.Check(await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel)),
        ];
        var wanted = request.Text;
        if (
            (await db.Links.AsNoTracking().Where(link => link.Id != id).ToListAsync(cancel)).Any(link =>
                SameJoin(link.Text, wanted) || SameJoin(link.Text.Mirrored(), wanted)
            )
        )
        {
            problems.Add(new("toId", "These two are linked already; the mirrored pair is the same link."));
        }

        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        if (await db.Links.SingleOrDefaultAsync(link => link.Id == id, cancel) is not { } link)
        {
            if (request.Version is not null)
            {
                return Refusals.NotFound("This link");
            }

            link = Link.Create(id, request.Text);
            db.Links.Add(link);
            await db.SaveChangesAsync(cancel);
            return TypedResults.Ok(Show(link));
        }

        var before = link.Text.KeyPoint;
        link.Rewrite(request.Text);
        return await db.SaveFromAsync(link, request.Version ?? 0, cancel)
            ? TypedResults.Ok(Show(link))
            : Refusals.Stale("The link", [$"Its key point is “{before}”; you wrote “{request.Text.KeyPoint}”."]);
    }

    private static async Task<Results<Ok<PrincipleItem>, ValidationProblem, ProblemHttpResult>> WritePrinciple(
        Guid id,
        PrincipleRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (request.Text.Check().ToList() is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        if (await db.Principles.SingleOrDefaultAsync(principle => principle.Id == id, cancel) is not { } principle)
        {
            if (request.Version is not null)
            {
                return Refusals.NotFound("This principle");
            }

            principle = Principle.Create(id, request.Text);
            db.Principles.Add(principle);
            await db.SaveChangesAsync(cancel);
            return TypedResults.Ok(Show(principle));
        }

        var before = principle.Text;
        principle.Rewrite(request.Text);
        return await db.SaveFromAsync(principle, request.Version ?? 0, cancel)
            ? TypedResults.Ok(Show(principle))
            : Refusals.Stale("The principle", [$"It is called {before.Name}: “{before.KeyPoint}”."]);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync<T>(
        IQueryable<T> found,
        string what,
        CancellationToken cancel
    )
        where T : class =>
        await found.ExecuteDeleteAsync(cancel) == 1 ? TypedResults.NoContent() : Refusals.NotFound(what);

    private static bool SameJoin(LinkText a, LinkText b) =>
        (a.FromId, a.FromSide, a.ToId, a.ToSide) == (b.FromId, b.FromSide, b.ToId, b.ToSide);

    private static LinkItem Show(Link link) => new(link.Id, link.Text, link.Version);

    private static PrincipleItem Show(Principle principle) => new(principle.Id, principle.Text, principle.Version);
}
