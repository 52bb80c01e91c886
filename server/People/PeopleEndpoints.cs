using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.People;

/// <summary>The school at a glance: sash ladder, halls, staff, and the classes whoever asks may see.</summary>
internal static class PeopleEndpoints
{
    public sealed record Sash(Guid Id, string Name, int Order, string Colour, bool HasHalves, int Students);

    public sealed record HallResponse(Guid Id, string Name, decimal Width, decimal Depth, int Chairs, decimal Rail);

    public sealed record StaffResponse(Guid Id, string Name, StaffRole Role);

    public sealed record CohortResponse(Guid Id, string Name, Guid? SashId, Half Half, string Mode, string Colour, bool Beginners, int Students, AssignmentResponse? Assignment);

    public sealed record AssignmentResponse(Guid FormId, string Form, Guid FromPositionId, Guid ToPositionId, string From, string To, DateOnly Target, uint Version);

    public sealed record ClassResponse(Guid Id, string Name, DayOfWeek Weekday, TimeOnly Start, int Minutes, Guid HallId, IReadOnlyList<Guid> StaffIds, IReadOnlyList<CohortResponse> Cohorts, uint Version);

    public sealed record Response(IReadOnlyList<Sash> Sashes, IReadOnlyList<HallResponse> Halls, IReadOnlyList<StaffResponse> Staff, IReadOnlyList<ClassResponse> Classes);

    public static void Map(IEndpointRouteBuilder api) => api.MapGet("/people", Read).RequireAuthorization(Policies.Anyone).WithName("people");

    private static async Task<Ok<Response>> Read(SchoolContext db, Actor actor, SchoolClock clock, CancellationToken cancel)
    {
        var classes = await actor.ClassesAsync(db, cancel);
        var mine = classes.Select(meeting => meeting.Id).ToHashSet();
        var cohorts = (await db.Cohorts.AsNoTracking().OrderBy(cohort => cohort.Order).ToListAsync(cancel)).Where(cohort => mine.Contains(cohort.ClassId)).ToLookup(cohort => cohort.ClassId);
        var students = await db.Students.AsNoTracking().Select(student => new { student.CohortId, student.SashId }).ToListAsync(cancel);
        var perCohort = students.CountBy(student => student.CohortId).ToDictionary();
        var perSash = students.CountBy(student => student.SashId).ToDictionary();
        var assignments = await AssignmentsAsync(db, await clock.TodayAsync(cancel), cancel);
        return TypedResults.Ok(new Response(
            [.. (await db.Sashes.AsNoTracking().OrderBy(sash => sash.Order).ToListAsync(cancel)).Select(sash => new Sash(sash.Id, sash.Name, sash.Order, sash.Colour, sash.HasHalves, perSash.GetValueOrDefault(sash.Id)))],
            await db.Halls.OrderBy(hall => hall.Name).Select(hall => new HallResponse(hall.Id, hall.Name, hall.Width, hall.Depth, hall.Chairs, hall.Rail)).ToListAsync(cancel),
            [.. (await db.Staff.AsNoTracking().ToListAsync(cancel)).OrderByDescending(member => member.Role).ThenBy(member => member.Name).Select(member => new StaffResponse(member.Id, member.Name, member.Role))],
            [.. classes.Select(meeting => new ClassResponse(
                meeting.Id, meeting.Name, meeting.Weekday, meeting.Start, meeting.Minutes, meeting.HallId, meeting.StaffIds,
                [.. cohorts[meeting.Id].Select(cohort => new CohortResponse(
                    cohort.Id, cohort.Name, cohort.SashId, cohort.Half, cohort.Mode.Name, cohort.Colour, cohort.Beginners, perCohort.GetValueOrDefault(cohort.Id), assignments.GetValueOrDefault(cohort.Id)))],
                meeting.Version))]));
    }

    private static async Task<Dictionary<Guid, AssignmentResponse>> AssignmentsAsync(SchoolContext db, DateOnly today, CancellationToken cancel)
    {
        if (await CurrentTerm.FindAsync(db, today, cancel) is not { } term)
        {
            return [];
        }

        var forms = await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel);
        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var assignments = await db.Assignments.AsNoTracking().Where(assignment => assignment.TermId == term.Id).ToListAsync(cancel);
        return assignments.ToDictionary(assignment => assignment.CohortId, assignment => Show(assignment, forms[assignment.FormId], postures));
    }

    internal static AssignmentResponse Show(Assignment assignment, Core.Forms.Form form, IReadOnlyDictionary<Guid, Core.Forms.Posture> postures)
    {
        var segment = assignment.SegmentOf(form);
        return new(form.Id, form.Name, assignment.FromPositionId, assignment.ToPositionId, NameOf(segment[0]), NameOf(segment[^1]), assignment.Target, assignment.Version);

        string NameOf(Core.Forms.Position position) => postures[position.PostureId].NameOn(position.Side);
    }
}

/// <summary>The term a date lies in, or else the next one to come.</summary>
internal static class CurrentTerm
{
    public static Task<Term?> FindAsync(SchoolContext db, DateOnly today, CancellationToken cancel) =>
        db.Terms.AsNoTracking().Where(term => term.End >= today).OrderBy(term => term.Start).FirstOrDefaultAsync(cancel);
}
