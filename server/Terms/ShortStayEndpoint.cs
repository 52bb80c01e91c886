using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>What a visitor learns in a few lessons.</summary>
internal static class ShortStayEndpoint
{
    /// <param name="SashId">The visitor knows what this level and those below it study; null for somebody who
    /// begins.</param>
    public sealed record Request(Guid FormId, int Lessons, int Minutes, int MostNew, Mode Mode, Guid? SashId);

    public sealed record Response(
        string Form,
        int Positions,
        int Different,
        bool IsWhole,
        bool IsSegment,
        IReadOnlyList<string> Learned,
        IReadOnlyList<Lesson> Lessons,
        IReadOnlyList<LeftOutRow> LeftOut,
        IReadOnlyList<string> Cautions
    );

    /// <param name="Minutes">Of everything, without warm-up and settling.</param>
    public sealed record Lesson(
        IReadOnlyList<Item> Reviewed,
        IReadOnlyList<Item> New,
        decimal RunThrough,
        decimal Minutes,
        decimal Teachable
    );

    public sealed record Item(string Name, UnitKind Kind, decimal Minutes, string KeyPoint);

    public sealed record LeftOutRow(string Name, string Because);

    public static void Map(ByRank api) =>
        api.Teacher.MapPost("/short-stay", Plan).ProducesProblem(404).TakesATurn().WithName("shortStay");

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Plan(
        Request request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var forms = await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel);
        if (!forms.TryGetValue(request.FormId, out var form))
        {
            return Refusals.NotFound("This form");
        }

        var sashes = await db.Sashes.AsNoTracking().ToListAsync(cancel);
        var level = request.SashId is { } id ? sashes.FirstOrDefault(sash => sash.Id == id) : null;
        if (request.SashId is not null && level is null)
        {
            return Refusals.NotFound("This sash");
        }

        List<IReadOnlyList<Position>> studied = level is null
            ? []
            :
            [
                .. sashes
                    .Where(sash => sash.Order <= level.Order)
                    .SelectMany(sash => sash.Asks.Studies)
                    .Where(study => forms.ContainsKey(study.FormId))
                    .Select(study =>
                        new AssignedSegment(
                            Guid.Empty,
                            study.FormId,
                            study.FromId,
                            study.ToId,
                            default,
                            Purpose.New,
                            []
                        ).PositionsOf(forms[study.FormId])
                    ),
            ];
        var postures = await Material.OutlinesAsync(db, cancel);
        var ways = await Material.WaysAsync(db, cancel);
        var question = new ShortStayQuestion(
            form,
            postures,
            new TeachingWay(request.Mode, (await Material.TeachingAsync(db, cancel)).For(request.Mode))
            {
                BothSides = ways.BothSides,
            },
            studied.SelectMany(positions => positions).Select(Of).ToHashSet(),
            studied
                .SelectMany(positions => positions.Zip(positions.Skip(1), (position, next) => (Of(position), Of(next))))
                .ToHashSet(),
            request.Lessons,
            request.Minutes,
            request.MostNew
        );
        if (question.Check().ToList() is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        var plan = ShortStay.Of(question);
        var needed = plan.Lessons.SelectMany(lesson => lesson.New).Select(unit => unit.PostureId).ToHashSet();
        var points = await db
            .Postures.AsNoTracking()
            .Where(posture => needed.Contains(posture.Id))
            .ToDictionaryAsync(posture => posture.Id, cancel);
        Item Show(TeachingUnit unit, Seconds seconds) =>
            new(
                unit.Name,
                unit.Kind,
                seconds.Minutes,
                unit.Kind == UnitKind.Link ? "" : points[unit.PostureId].On(unit.Side, points[unit.PostureId].KeyPoint)
            );
        return TypedResults.Ok(
            new Response(
                form.Name,
                plan.Positions.Count,
                plan.Different,
                plan.IsWhole,
                plan.IsSegment,
                [.. plan.Positions.Select(position => postures[position.PostureId].NameOn(position.Side))],
                [
                    .. plan.Lessons.Select(lesson => new Lesson(
                        [.. lesson.Reviewed.Select(unit => Show(unit, unit.ReviewSeconds))],
                        [.. lesson.New.Select(unit => Show(unit, unit.IntroduceSeconds))],
                        lesson.RunThroughSeconds.Minutes,
                        lesson.Seconds.Minutes,
                        LessonSlot.Teachable(request.Minutes).Minutes
                    )),
                ],
                [.. plan.LeftOut.Select(left => new LeftOutRow(left.Name, left.Because))],
                [.. Cautions.For(request.Mode), .. Cautions.Always]
            )
        );
    }

    private static PostureSide Of(Position position) => new(position.PostureId, position.Side);
}
