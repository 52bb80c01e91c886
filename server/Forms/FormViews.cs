using System.Text;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Forms;

/// <summary>Ways of looking at a form: in a hall, in another book's numbers, beside another form or what a cohort
/// knows, as a picture and as a table.</summary>
internal static class FormViews
{
    /// <param name="Positions">From and to, by identifier; null for the whole form.</param>
    public sealed record HallRequest(
        Guid HallId,
        int Standing,
        int Seated,
        int Frames,
        int RailUsers,
        Guid? FromId,
        Guid? ToId
    );

    /// <param name="DrillSteps">How many bow steps of a walking drill fit along the depth before it must turn.</param>
    public sealed record HallResponse(HallAnswer Answer, FloorNeed Need, decimal Width, decimal Depth, int DrillSteps);

    public static void Map(IEndpointRouteBuilder api)
    {
        var forms = api.MapGroup("/forms/{id:guid}").RequireAuthorization(Policies.Anyone);
        forms.MapPost("/hall", FitHall).ProducesProblem(404).WithName("fitHall");
        forms.MapGet("/numbers", Numbers).ProducesProblem(404).WithName("numbers");
        forms.MapGet("/compare", Compare).ProducesProblem(404).WithName("compare");
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

    private static async Task<Results<Ok<HallResponse>, ValidationProblem, ProblemHttpResult>> FitHall(
        Guid id,
        HallRequest request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Refusals.NotFound("This form");
        }

        if (
            await db.Halls.AsNoTracking().SingleOrDefaultAsync(hall => hall.Id == request.HallId, cancel)
            is not { } hall
        )
        {
            return Refusals.Invalid("hallId", "Choose one of the school's halls.");
        }

        List<Problem> problems = [];
        foreach (
            var (field, people) in new[]
            {
                ("standing", request.Standing),
                ("seated", request.Seated),
                ("frames", request.Frames),
                ("railUsers", request.RailUsers),
            }
        )
        {
            problems.AddRange(
                people is < 0 or > 300 ? [new Problem(field, "Between 0 and 300 people.")] : Array.Empty<Problem>()
            );
        }

        if (request.RailUsers > request.Standing)
        {
            problems.Add(new("railUsers", "Whoever holds the rail stands: no more than those standing."));
        }

        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var material = await Material.LoadAsync(db, cancel);
        var (from, to) = (
            request.FromId is { } first ? form.IndexOf(first) : 0,
            request.ToId is { } last ? form.IndexOf(last) : form.Positions.Count - 1
        );
        var walk = FloorWalk
            .Of(form.Positions, material.Postures, material.Ways)
            .Part(Math.Max(0, from), to < 0 ? form.Positions.Count - 1 : to);
        var foot = (double)material.Ways.FootMetres;
        var answer = HallFit.Of(
            walk,
            foot,
            new(
                (double)hall.Width,
                (double)hall.Depth,
                request.Standing,
                request.Seated,
                request.Frames,
                request.RailUsers,
                hall.Chairs,
                (double)hall.Rail
            )
        );
        return TypedResults.Ok(
            new HallResponse(
                answer,
                FloorNeed.Of(walk, foot, answer.Best.Turned),
                hall.Width,
                hall.Depth,
                HallFit.StepsBeforeTurning((double)hall.Depth, HallFit.BowStepFeet, foot)
            )
        );
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

    /// <param name="withForm">Another form that is known.</param>
    /// <param name="withCohort">A cohort: what most of it does alone is known.</param>
    private static async Task<Results<Ok<FormComparison>, ProblemHttpResult>> Compare(
        Guid id,
        Guid? withForm,
        Guid? withCohort,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Refusals.NotFound("This form");
        }

        var postures = (await Material.LoadAsync(db, cancel)).Postures;
        if (withForm is { } other)
        {
            return await db.Forms.AsNoTracking().SingleOrDefaultAsync(f => f.Id == other, cancel) is { } known
                ? TypedResults.Ok(
                    FormComparison.Of(
                        form.Positions,
                        Knowledge.OfForm(known.Positions),
                        postures,
                        Mode.Standing,
                        await Material.TeachingAsync(db, cancel)
                    )
                )
                : Refusals.NotFound("The form to compare with");
        }

        if (await db.Cohorts.AsNoTracking().SingleOrDefaultAsync(c => c.Id == withCohort, cancel) is not { } cohort)
        {
            return Refusals.NotFound("The cohort to compare with");
        }

        if (
            !actor.Teaches(
                await db.Classes.AsNoTracking().SingleAsync(schoolClass => schoolClass.Id == cohort.ClassId, cancel),
                await clock.TodayAsync(cancel)
            )
        )
        {
            return Refusals.NotYours();
        }

        var everything = (await db.Forms.AsNoTracking().ToListAsync(cancel)).SelectMany(f => f.Positions).ToList();
        var books = await ProgressBooks.LoadAsync(db, [cohort.Id], DateOnly.MaxValue, cancel);
        var held = KnownPostures.By(
            books.In(cohort.Id),
            everything.Select(position => new PostureSide(position.PostureId, position.Side)),
            books.Book
        );
        return TypedResults.Ok(
            FormComparison.Of(
                form.Positions,
                Knowledge.OfSides(held, everything),
                postures,
                cohort.Mode,
                await Material.TeachingAsync(db, cancel)
            )
        );
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
        var study = PositionStudy.Of(form.Positions, material.Postures, material.Links, material.Ways);
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
