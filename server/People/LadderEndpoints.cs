using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.People;

/// <summary>The sash ladder: levels are added, written anew, put into another order and taken out. What a change does
/// can be asked before it is made.</summary>
internal static class LadderEndpoints
{
    public sealed record CreateRequest(Guid Id, SashText Text);

    public sealed record EditRequest(SashText Text, uint Version);

    /// <param name="Order">Every level, lowest first.</param>
    public sealed record OrderRequest(IReadOnlyList<Guid> Order);

    public sealed record PatternRequest(LadderPattern Pattern);

    public static void Map(ByRank api)
    {
        var ladder = api.Head.MapGroup("/sashes");
        ladder.MapPost("", Add).ProducesProblem(409).WithName("addSash");
        ladder.MapPost("/pattern", BeginFrom).ProducesProblem(409).WithName("beginLadder");
        ladder.MapPut("/{id:guid}", Edit).ProducesProblem(404).ProducesProblem(409).WithName("editSash");
        ladder.MapPost("/{id:guid}/effects", EffectsOfEdit).ProducesProblem(404).WithName("effectsOfSash");
        ladder.MapDelete("/{id:guid}", Remove).ProducesProblem(404).ProducesProblem(409).WithName("removeSash");
        ladder.MapPut("/order", Reorder).ProducesProblem(409).WithName("orderSashes");
        ladder.MapPost("/order/effects", EffectsOfOrder).WithName("effectsOfOrder");
    }

    /// <summary>A new level stands at the top.</summary>
    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> Add(
        CreateRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var ladder = await LadderAsync(db, cancel);
        if (await ProblemsAsync(request.Text, ladder, db, cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        if (ladder.Any(sash => sash.Id == request.Id))
        {
            return Refusals.Conflict("This sash is on the ladder already.");
        }

        db.Sashes.Add(SashLevel.Create(request.Id, ladder.Count + 1, request.Text));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/people");
    }

    /// <summary>A whole ladder at once, where there is none yet.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> BeginFrom(
        PatternRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Sashes.AnyAsync(cancel))
        {
            return Refusals.Conflict("There is a ladder already; it can be changed sash by sash.");
        }

        db.Sashes.AddRange(
            Ladder.From(request.Pattern).Select((text, at) => SashLevel.Create(Guid.CreateVersion7(), at + 1, text))
        );
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Where the level no longer has halves, nobody stays in one.</summary>
    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Edit(
        Guid id,
        EditRequest request,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Sashes.SingleOrDefaultAsync(sash => sash.Id == id, cancel) is not { } sash)
        {
            return Refusals.NotFound("This sash");
        }

        if (
            await ProblemsAsync(
                request.Text,
                [.. (await LadderAsync(db, cancel)).Where(sash => sash.Id != id)],
                db,
                cancel
            ) is
            { Count: > 0 } problems
        )
        {
            return Refusals.Invalid(problems);
        }

        if (sash.HasHalves && !request.Text.HasHalves)
        {
            var today = await clock.TodayAsync(cancel);
            (
                await db
                    .Students.Where(student => student.SashId == id && student.Half != Half.None)
                    .ToListAsync(cancel)
            ).ForEach(student => student.Reach(id, Half.None, today));
            (
                await db.Cohorts.Where(cohort => cohort.SashId == id && cohort.Half != Half.None).ToListAsync(cancel)
            ).ForEach(cohort =>
                cohort.Rewrite(
                    new(
                        cohort.Name,
                        cohort.Order,
                        cohort.SashId,
                        Half.None,
                        cohort.Mode,
                        cohort.Colour,
                        cohort.Beginners,
                        cohort.MustBeAttended
                    )
                )
            );
        }

        var kept = $"{sash.Name} asks for {sash.Asks.Weeks} weeks and {sash.Asks.Lessons} lessons.";
        sash.Rewrite(request.Text);
        return await db.SaveFromAsync(sash, request.Version, cancel)
            ? TypedResults.NoContent()
            : Refusals.Stale("The sash", [kept]);
    }

    private static async Task<Results<Ok<IReadOnlyList<string>>, ProblemHttpResult>> EffectsOfEdit(
        Guid id,
        SashText text,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        await db.Sashes.AsNoTracking().SingleOrDefaultAsync(sash => sash.Id == id, cancel) is { } sash
            ? TypedResults.Ok(
                Ladder.EffectsOfEdit(
                    sash,
                    text,
                    await db.Students.AsNoTracking().Where(student => student.SashId == id).ToListAsync(cancel),
                    await db.Cohorts.AsNoTracking().ToListAsync(cancel)
                )
            )
            : Refusals.NotFound("This sash");

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Reorder(
        OrderRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var ladder = await db.Sashes.ToListAsync(cancel);
        if (!IsWhole(request.Order, ladder))
        {
            return Refusals.Stale("The ladder", ["It has other levels now than the ones you put in order."]);
        }

        foreach (var (at, id) in request.Order.Index())
        {
            ladder.Single(sash => sash.Id == id).MoveTo(at + 1);
        }

        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<IReadOnlyList<string>>, ValidationProblem>> EffectsOfOrder(
        OrderRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var ladder = await LadderAsync(db, cancel);
        return IsWhole(request.Order, ladder)
            ? TypedResults.Ok(
                Ladder.EffectsOfOrder(
                    ladder,
                    request.Order,
                    await db.Students.AsNoTracking().ToListAsync(cancel),
                    await db.Cohorts.AsNoTracking().ToListAsync(cancel)
                )
            )
            : Refusals.Invalid("order", "Name every level of the ladder once.");
    }

    /// <param name="into">The level that takes over whoever and whatever belongs to this sash.</param>
    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        Guid id,
        Guid? into,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var ladder = await db.Sashes.OrderBy(sash => sash.Order).ToListAsync(cancel);
        if (ladder.SingleOrDefault(sash => sash.Id == id) is not { } sash)
        {
            return Refusals.NotFound("This sash");
        }

        var students = await db.Students.Where(student => student.SashId == id).ToListAsync(cancel);
        var cohorts = await db.Cohorts.Where(cohort => cohort.SashId == id).ToListAsync(cancel);
        var instead = ladder.SingleOrDefault(sash => sash.Id == into && sash.Id != id);
        if (instead is null && (students.Count > 0 || cohorts.Count > 0))
        {
            return Refusals.InUse(
                sash.Name,
                [
                    .. students.Count == 0
                        ? Array.Empty<string>()
                        :
                        [
                            $"{students.Count} {(students.Count == 1 ? "person is" : "people are")} at it, those who left included.",
                        ],
                    .. cohorts.Select(cohort => $"The cohort {cohort.Name} is made from it."),
                    "Choose the sash that takes them over, and it can go.",
                ]
            );
        }

        var today = await clock.TodayAsync(cancel);
        students.ForEach(student => student.Reach(instead!.Id, instead.HasHalves ? student.Half : Half.None, today));
        cohorts.ForEach(cohort =>
            cohort.Rewrite(
                new(
                    cohort.Name,
                    cohort.Order,
                    instead!.Id,
                    instead.HasHalves ? cohort.Half : Half.None,
                    cohort.Mode,
                    cohort.Colour,
                    cohort.Beginners,
                    cohort.MustBeAttended
                )
            )
        );
        db.Sashes.Remove(sash);
        foreach (var (at, left) in ladder.Where(sash => sash.Id != id).Index())
        {
            left.MoveTo(at + 1);
        }

        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static bool IsWhole(IReadOnlyList<Guid> order, List<SashLevel> ladder) =>
        order.Count == ladder.Count && order.ToHashSet().SetEquals(ladder.Select(sash => sash.Id));

    private static Task<List<SashLevel>> LadderAsync(SchoolContext db, CancellationToken cancel) =>
        db.Sashes.AsNoTracking().OrderBy(sash => sash.Order).ToListAsync(cancel);

    private static async Task<List<Problem>> ProblemsAsync(
        SashText text,
        IReadOnlyList<SashLevel> others,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        [
            .. text.Check(
                others,
                await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel),
                await db.Postures.Select(posture => posture.Id).ToHashSetAsync(cancel)
            ),
        ];
}
