using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.People;

/// <summary>The school at a glance: sash ladder, halls, staff, and the classes whoever asks may see.</summary>
internal static class PeopleEndpoints
{
    public sealed record Sash(
        Guid Id,
        string Name,
        int Order,
        string Colour,
        bool HasHalves,
        SashAsks Asks,
        int Students,
        uint Version
    );

    public sealed record HallResponse(
        Guid Id,
        string Name,
        decimal Width,
        decimal Depth,
        int Chairs,
        decimal Rail,
        Wall RailWall,
        bool Mirror,
        IReadOnlyList<OpenHours> Hours,
        int? Allowed,
        uint Version
    );

    /// <param name="Closed">Whether they teach here no longer; what they taught keeps their name.</param>
    public sealed record StaffResponse(Guid Id, string Name, StaffRole Role, bool Closed);

    public sealed record CohortResponse(
        Guid Id,
        string Name,
        int Order,
        Guid? SashId,
        Half Half,
        Mode Mode,
        string Colour,
        bool Beginners,
        bool MustBeAttended,
        int Students,
        uint Version
    );

    public sealed record ClassResponse(
        Guid Id,
        string Name,
        DayOfWeek Weekday,
        TimeOnly Start,
        int Minutes,
        Guid HallId,
        IReadOnlyList<Guid> StaffIds,
        IReadOnlyList<Substitute> Substitutes,
        IReadOnlyList<CohortResponse> Cohorts,
        uint Version
    );

    public sealed record Response(
        IReadOnlyList<Sash> Sashes,
        IReadOnlyList<HallResponse> Halls,
        IReadOnlyList<StaffResponse> Staff,
        IReadOnlyList<ClassResponse> Classes
    );

    public static void Map(ByRank api) => api.Anyone.MapGet("/people", Read).WithName("people");

    private static async Task<Ok<Response>> Read(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        var classes = await actor.ClassesAsync(db, today, cancel);
        var mine = classes.Select(schoolClass => schoolClass.Id).ToHashSet();
        var cohorts = (await db.Cohorts.AsNoTracking().OrderBy(cohort => cohort.Order).ToListAsync(cancel))
            .Where(cohort => mine.Contains(cohort.ClassId))
            .ToLookup(cohort => cohort.ClassId);
        var students = await db
            .Students.AsNoTracking()
            .Where(student => student.Left == null)
            .Select(student => new { student.CohortIds, student.SashId })
            .ToListAsync(cancel);
        var perCohort = students.SelectMany(student => student.CohortIds).CountBy(cohort => cohort).ToDictionary();
        var perSash = students.CountBy(student => student.SashId).ToDictionary();
        return TypedResults.Ok(
            new Response(
                [
                    .. (await db.Sashes.AsNoTracking().OrderBy(sash => sash.Order).ToListAsync(cancel)).Select(
                        sash => new Sash(
                            sash.Id,
                            sash.Name,
                            sash.Order,
                            sash.Colour,
                            sash.HasHalves,
                            sash.Asks,
                            perSash.GetValueOrDefault(sash.Id),
                            sash.Version
                        )
                    ),
                ],
                [
                    .. (await db.Halls.AsNoTracking().OrderBy(hall => hall.Name).ToListAsync(cancel)).Select(
                        hall => new HallResponse(
                            hall.Id,
                            hall.Name,
                            hall.Width,
                            hall.Depth,
                            hall.Chairs,
                            hall.Rail,
                            hall.RailWall,
                            hall.Mirror,
                            hall.Hours,
                            hall.Allowed,
                            hall.Version
                        )
                    ),
                ],
                [
                    .. (await db.Staff.AsNoTracking().ToListAsync(cancel))
                        .OrderByDescending(member => member.Role)
                        .ThenBy(member => member.Name)
                        .Select(member => new StaffResponse(
                            member.Id,
                            member.Name,
                            member.Role,
                            member.Closed is not null
                        )),
                ],
                [
                    .. classes.Select(schoolClass => new ClassResponse(
                        schoolClass.Id,
                        schoolClass.Name,
                        schoolClass.Weekday,
                        schoolClass.Start,
                        schoolClass.Minutes,
                        schoolClass.HallId,
                        schoolClass.StaffIds,
                        schoolClass.Substitutes,
                        [
                            .. cohorts[schoolClass.Id]
                                .Select(cohort => new CohortResponse(
                                    cohort.Id,
                                    cohort.Name,
                                    cohort.Order,
                                    cohort.SashId,
                                    cohort.Half,
                                    cohort.Mode,
                                    cohort.Colour,
                                    cohort.Beginners,
                                    cohort.MustBeAttended,
                                    perCohort.GetValueOrDefault(cohort.Id),
                                    cohort.Version
                                )),
                        ],
                        schoolClass.Version
                    )),
                ]
            )
        );
    }
}
