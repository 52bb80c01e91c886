using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.People;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>Posture by member: the mode each needs, what is still to be written, what is best left out (domain.md
/// 4.6).</summary>
internal static class CoverageEndpoints
{
    /// <param name="Choices">Every way there is in this table; the cells name them by their place.</param>
    public sealed record Response(
        Guid CohortId,
        string Cohort,
        string Class,
        string Mode,
        string Summary,
        IReadOnlyList<MemberResponse> Members,
        IReadOnlyList<Row> Rows,
        IReadOnlyList<Cell> Choices,
        IReadOnlyList<string> Cautions
    );

    /// <param name="Mode">The least adapted mode this person is taught in here.</param>
    public sealed record MemberResponse(Guid StudentId, string Name, string Mode, bool HasLimits);

    /// <param name="Write">The versions to be written, the least adapted first.</param>
    /// <param name="Cells">For each member the place of the choice.</param>
    public sealed record Row(
        Guid PostureId,
        Side Side,
        string Name,
        Verdict Verdict,
        IReadOnlyList<string> Write,
        IReadOnlyList<Demand> RuledOutBy,
        IReadOnlyList<string> Versions,
        IReadOnlyList<int> Cells
    );

    public enum Fate
    {
        Fits,
        ToWrite,
        NoneFits,
    }

    /// <param name="Mode">Null where nothing fits.</param>
    /// <param name="Because">The demands that rule out anything less adapted; empty for assistants.</param>
    public sealed record Cell(Fate Fate, string? Mode, IReadOnlyList<Demand> Because);

    public static void Map(ByRank api) =>
        api
            .Anyone.MapGet("/cohorts/{id:guid}/coverage", Read)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .WithName("coverage");

    /// <param name="formId">With <paramref name="fromId"/> and <paramref name="toId"/> a segment to look at; what is
    /// assigned now when there is none.</param>
    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        Guid id,
        Guid? formId,
        Guid? fromId,
        Guid? toId,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        if (
            await (
                from asked in db.Cohorts.AsNoTracking()
                join its in db.Classes on asked.ClassId equals its.Id
                where asked.Id == id
                select new { Cohort = asked, Class = its }
            ).SingleOrDefaultAsync(cancel)
            is not { } found
        )
        {
            return Refusals.NotFound("This cohort");
        }

        var (cohort, schoolClass) = (found.Cohort, found.Class);
        if (!actor.Teaches(schoolClass, today))
        {
            return Refusals.NotYours();
        }

        // Trying one segment after the other, somebody could work out limits from the modes that come out.
        if (!actor.SeesLimits && formId is not null)
        {
            return Refusals.Forbidden("Only what is assigned can be looked at.");
        }

        var students = (
            await db.StudentsIn([id])
                .AsNoTracking()
                .Select(student => new
                {
                    student.Id,
                    student.GivenName,
                    student.FamilyName,
                    student.UsualMode,
                    student.HasLimits,
                    student.Limits,
                })
                .ToListAsync(cancel)
        ).OrderBy(student => student.GivenName, StringComparer.OrdinalIgnoreCase).ThenBy(student => student.FamilyName, StringComparer.OrdinalIgnoreCase).ToList();
        var postures = await PosturesAsync(id, formId, fromId, toId, db, today, cancel);
        var outlines = await Material.OutlinesAsync(db, cancel, [.. postures.Select(of => of.PostureId).Distinct()]);
        var coverage = Coverage.Of(
            postures,
            [.. students.Select(student => new Member(student.Id, student.UsualMode, student.Limits))],
            cohort.Mode,
            outlines
        );
        await LimitEndpoints.NoteReadingAsync(
            db,
            actor,
            clock,
            students.Where(student => student.HasLimits).Select(student => student.Id),
            actor.SeesLimits ? $"coverage of {cohort.Name}" : $"modes in the coverage of {cohort.Name}",
            cancel
        );

        Dictionary<string, int> places = [];
        List<Cell> choices = [];
        return TypedResults.Ok(
            new Response(
                id,
                cohort.Name,
                schoolClass.Name,
                cohort.Mode.Name,
                coverage.Summary,
                [
                    .. students.Select(student => new MemberResponse(
                        student.Id,
                        Student.ShortNameOf(student.GivenName, student.FamilyName),
                        Mode.MoreAdapted(cohort.Mode, student.UsualMode).Name,
                        actor.SeesLimits && student.HasLimits
                    )),
                ],
                [
                    .. coverage.Rows.Select(row => new Row(
                        row.Of.PostureId,
                        row.Of.Side,
                        row.Name,
                        row.Verdict,
                        [.. row.Write.Select(mode => mode.Name)],
                        actor.SeesLimits ? row.RuledOutBy : [],
                        [.. outlines[row.Of.PostureId].Versions.Select(version => version.Mode.Name)],
                        [.. row.Cells.Select(PlaceOf)]
                    )),
                ],
                choices,
                [.. Cautions.For(cohort.Mode), .. Cautions.Always]
            )
        );

        int PlaceOf(ModeChoice choice)
        {
            var cell = Show(choice, actor.SeesLimits);
            var key = $"{cell.Fate} {cell.Mode} {string.Join(' ', cell.Because)}";
            if (!places.TryGetValue(key, out var place))
            {
                places[key] = place = choices.Count;
                choices.Add(cell);
            }

            return place;
        }
    }

    private static Cell Show(ModeChoice choice, bool because) =>
        choice switch
        {
            ModeChoice.Fits fits => new(Fate.Fits, fits.Mode.Name, because ? choice.Because : []),
            ModeChoice.ToWrite write => new(Fate.ToWrite, write.Mode.Name, because ? choice.Because : []),
            _ => new(Fate.NoneFits, null, because ? choice.Because : []),
        };

    private static async Task<IReadOnlyList<PostureSide>> PosturesAsync(
        Guid cohortId,
        Guid? formId,
        Guid? fromId,
        Guid? toId,
        SchoolContext db,
        DateOnly today,
        CancellationToken cancel
    )
    {
        IReadOnlyList<AssignedSegment> segments =
            formId is { } form && fromId is { } from && toId is { } to
                ? [new(Guid.Empty, form, from, to, today, Purpose.New, [])]
                : await (
                    from given in db.Assignments
                    join term in db.Terms on given.TermId equals term.Id
                    where given.CohortId == cohortId && term.End >= today
                    orderby term.Start
                    select given.Segments
                ).FirstOrDefaultAsync(cancel) ?? [];
        var ids = segments.Select(segment => segment.FormId).Distinct().ToList();
        var forms = await db
            .Forms.AsNoTracking()
            .Where(form => ids.Contains(form.Id))
            .ToDictionaryAsync(form => form.Id, cancel);
        return
        [
            .. segments
                .Where(segment =>
                    forms.TryGetValue(segment.FormId, out var known) && segment.StillFits(known.Positions)
                )
                .SelectMany(segment => segment.PositionsOf(forms[segment.FormId]))
                .Select(position => new PostureSide(position.PostureId, position.Side))
                .Distinct(),
        ];
    }
}
