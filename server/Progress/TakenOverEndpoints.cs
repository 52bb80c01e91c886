using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>What the people of a cohort came with (domain.md 4.5): what their sash says, and what the head says instead.</summary>
internal static class TakenOverEndpoints
{
    /// <param name="Sections">Every form's sections in order; the columns of <paramref name="Rows"/> one after the
    /// other.</param>
    public sealed record Response(
        Guid CohortId,
        string Cohort,
        IReadOnlyList<SectionColumns> Sections,
        IReadOnlyList<Row> Rows
    );

    /// <summary>A section of a form, with what of it no earlier one has.</summary>
    public sealed record SectionColumns(Guid FormId, string Form, string Section, IReadOnlyList<Column> Columns);

    public sealed record Column(Guid PostureId, Side Side, string Name);

    /// <param name="Sash">The one they entered with.</param>
    public sealed record Row(
        Guid StudentId,
        string Name,
        string Sash,
        string Colour,
        Half Half,
        IReadOnlyList<Cell> Cells
    );

    /// <param name="Stage">Taken over: not met, shown or alone.</param>
    /// <param name="Said">Whether the head has said so; their sash does otherwise.</param>
    /// <param name="Seen">The stage somebody here has seen since, which counts instead; null while nobody has.</param>
    public sealed record Cell(Stage Stage, bool Said, Stage? Seen);

    public sealed record SayRequest(IReadOnlyList<Mark> Marks);

    public sealed record Mark(Guid Id, Guid StudentId, Guid PostureId, Side Side, Stage Stage);

    public static void Map(ByRank api)
    {
        var cohort = api.Group("/cohorts/{id:guid}/taken-over");
        cohort.Head.MapGet("", Read).ProducesProblem(404).WithName("takenOver");
        cohort.Head.MapPost("", Say).ProducesProblem(404).ProducesProblem(409).WithName("sayTakenOver");
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        Guid id,
        SchoolContext db,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Cohorts.AsNoTracking().SingleOrDefaultAsync(its => its.Id == id, cancel) is not { } cohort)
        {
            return Refusals.NotFound("This cohort");
        }

        var facts = await ProgressBooks.LoadAsync(db, [id], await clock.TodayAsync(cancel), cancel);
        var sashes = facts.Facts.Syllabus.Ladder.ToDictionary(sash => sash.Id);
        var outlines = facts.Facts.Syllabus.Outlines;
        var sections = Columns(await db.Forms.AsNoTracking().ToListAsync(cancel), outlines, facts);
        return TypedResults.Ok(
            new Response(
                id,
                cohort.Name,
                sections,
                [
                    .. facts
                        .Students.OrderBy(student => student.GivenName)
                        .ThenBy(student => student.FamilyName)
                        .Select(student => RowOf(student, facts, sections, sashes)),
                ]
            )
        );
    }

    private static Row RowOf(
        Student student,
        ProgressBooks.Loaded facts,
        IReadOnlyList<SectionColumns> sections,
        Dictionary<Guid, SashLevel> sashes
    )
    {
        var entered = student.Levels[0];
        var said = facts.Facts.Corrected[student.Id].Select(fact => fact.Of).ToHashSet();
        var held = facts.Facts.Syllabus.Entry.By(entered, [.. facts.Facts.Corrected[student.Id]]);
        return new(
            student.Id,
            student.FullName,
            sashes[entered.SashId].Name,
            sashes[entered.SashId].Colour,
            entered.Half,
            [
                .. from section in sections
                from column in section.Columns
                let of = new PostureSide(column.PostureId, column.Side)
                let standing = facts.Book.StandingOf(student.Id, of)
                select new Cell(
                    held.GetValueOrDefault(of),
                    said.Contains(of),
                    standing is { Stage: > Stage.Shown, TakenOver: false } ? standing.Stage : null
                ),
            ]
        );
    }

    /// <summary>Each form section by section, the longest first; then the drills and whatever else somebody has come
    /// with.</summary>
    private static List<SectionColumns> Columns(
        List<Form> forms,
        IReadOnlyDictionary<Guid, PostureOutline> outlines,
        ProgressBooks.Loaded facts
    )
    {
        HashSet<PostureSide> there = [];
        List<SectionColumns> sections =
        [
            .. from form in forms.OrderByDescending(form => form.Positions.Count).ThenBy(form => form.Name)
            from section in form.Sections
            let columns = form
                .Positions.Where(position => position.SectionId == section.Id)
                .Select(position => new PostureSide(position.PostureId, position.Side))
                .Where(there.Add)
                .Select(Show)
                .ToList()
            where columns.Count > 0
            select new SectionColumns(form.Id, form.Name, section.Name, columns),
        ];
        var others = facts
            .Students.SelectMany(student => facts.Book.TakenOverBy(student.Id))
            .Where(there.Add)
            .Select(Show)
            .OrderBy(column => column.Name)
            .ToList();
        return others.Count == 0 ? sections : [.. sections, new(Guid.Empty, "Outside the forms", "Drills", others)];

        Column Show(PostureSide of) => new(of.PostureId, of.Side, outlines[of.PostureId].NameOn(of.Side));
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Say(
        Guid id,
        SayRequest request,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var students = await db.StudentsIn([id]).Select(student => student.Id).ToListAsync(cancel);
        if (students.Count == 0)
        {
            return Refusals.NotFound("This cohort, or anybody in it,");
        }

        var outlines = await Material.OutlinesAsync(
            db,
            cancel,
            [.. request.Marks.Select(mark => mark.PostureId).Distinct()]
        );
        var facts = request
            .Marks.Select(mark => new TakenOverFact(
                mark.Id,
                mark.StudentId,
                mark.PostureId,
                mark.Side,
                mark.Stage,
                actor.StaffId,
                clock.Now
            ))
            .ToList();
        List<Problem> problems =
        [
            .. facts.Index().SelectMany(fact => fact.Item.Check($"marks[{fact.Index}]")),
            .. facts
                .Index()
                .Where(fact => !students.Contains(fact.Item.StudentId))
                .Select(fact => new Problem($"marks[{fact.Index}].studentId", "This person is not in the cohort.")),
            .. facts
                .Index()
                .Where(fact =>
                    !outlines.TryGetValue(fact.Item.PostureId, out var outline) || !outline.HasSide(fact.Item.Side)
                )
                .Select(fact => new Problem($"marks[{fact.Index}].postureId", "The school has no such posture.")),
        ];
        return problems.Count > 0 ? Refusals.Invalid(problems) : await AppendOnly.AddAsync(db, facts, cancel);
    }
}
