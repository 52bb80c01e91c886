using System.Text;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>Ways of looking at a form: in another book's numbers, as a picture and as a table.</summary>
internal static class FormViews
{
    public static void Map(ByRank api)
    {
        var forms = api.Anyone.MapGroup("/forms/{id:guid}");
        forms.MapGet("/numbers", Numbers).ProducesProblem(404).WithName("numbers");
        forms
            .MapGet("/floor.svg", Picture)
            .ProducesProblem(404)
            .Produces<string>(200, "image/svg+xml")
            .WithName("floorPicture");
        forms
            .MapGet("/positions.csv", Table)
            .ProducesProblem(404)
            .Produces<string>(200, "text/csv")
            .WithName("positionsTable");
    }

    private static async Task<Results<Ok<IReadOnlyList<string?>>, ProblemHttpResult>> Numbers(
        Guid id,
        bool compoundAsOne,
        Word<RepeatCount> repeats,
        bool endsCounted,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        return await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is { } form
            ? TypedResults.Ok<IReadOnlyList<string?>>([
                .. Numbering
                    .Of(
                        form.Positions,
                        (await Material.LoadAsync(db, cancel)).Postures,
                        new(compoundAsOne, repeats.Value, endsCounted)
                    )
                    .Select(number => number?.ToString()),
            ])
            : Refusals.NotFound("This form");
    }

    private static async Task<IResult> Picture(Guid id, SchoolContext db, CancellationToken cancel)
    {
        if (await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Refusals.NotFound("This form");
        }

        var material = await Material.LoadAsync(db, cancel);
        var numbers = Numbering.Of(form.Positions, material.Postures, material.Ways.Numbering);
        var svg = FloorSvg.Of(
            form.Name,
            FloorWalk.Of(form.Positions, material.Postures, material.Ways),
            [.. numbers.Select(number => number?.ToString())],
            (double)material.Ways.FootMetres
        );
        return TypedResults.File(Encoding.UTF8.GetBytes(svg), "image/svg+xml", $"{form.Name}.svg");
    }

    private static async Task<IResult> Table(Guid id, SchoolContext db, CancellationToken cancel)
    {
        if (await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Refusals.NotFound("This form");
        }

        var material = await Material.LoadAsync(db, cancel);
        var study = PositionStudy.Of(
            form.Positions,
            material.Postures,
            material.Links,
            material.Ways,
            FloorWalk.Of(form.Positions, material.Postures, material.Ways)
        );
        using var file = new MemoryStream();
        using (
            var csv = CsvWriter.Create(
                file,
                new() { WriteByteOrderMark = true, Injection = CsvInjection.Escape },
                leaveOpen: true
            )
        )
        {
            csv.WriteRecord(
                "place",
                "number",
                "section",
                "posture",
                "side",
                "turn",
                "facing",
                "repeats",
                "counts",
                "seconds",
                "note",
                "way in",
                "demands"
            );
            foreach (var (at, position) in form.Positions.Index())
            {
                csv.WriteField(at + 1);
                csv.WriteField(study[at].Number);
                csv.WriteField(form.Sections.First(section => section.Id == position.SectionId).Name);
                csv.WriteField(material.Postures[position.PostureId].Name);
                csv.WriteField(
                    position.Side == Side.Symmetric ? ""
                    : position.Side == Side.Left ? "left"
                    : "right"
                );
                csv.WriteField(position.Turn);
                csv.WriteField(position.Facing.Degrees);
                csv.WriteField(position.Repeats);
                csv.WriteField(study[at].Counts);
                csv.WriteField(study[at].Seconds);
                csv.WriteField(position.Note);
                csv.WriteField(position.WayIn);
                csv.WriteField(string.Join("; ", study[at].Demands.Select(DemandWords.Say)));
                csv.EndRecord();
            }
        }

        return TypedResults.File(file.ToArray(), "text/csv; charset=utf-8", $"{form.Name}.csv");
    }
}
