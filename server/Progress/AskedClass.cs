using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>The class an address names. Whoever teaches it may have it.</summary>
internal sealed record AskedClass(
    [FromRoute(Name = "classId")] Guid ClassId,
    SchoolContext Db,
    Actor Actor,
    SchoolClock Clock
) : IAsked
{
    private SchoolClass? its;

    public SchoolClass Class => its ?? throw new InvalidOperationException("A class is opened before it is used.");

    public DateOnly Today { get; private set; }

    public async Task<ProblemHttpResult?> OpenAsync(CancellationToken cancel)
    {
        Today = await Clock.TodayAsync(cancel);
        its = await Db.Classes.AsNoTracking().SingleOrDefaultAsync(found => found.Id == ClassId, cancel);
        return its is null ? Refusals.NotFound("This class")
            : Actor.Teaches(its, Today) ? null
            : Refusals.NotYours();
    }

    /// <summary>In the class's own order.</summary>
    public Task<List<Cohort>> CohortsAsync(CancellationToken cancel) =>
        Db
            .Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == ClassId)
            .OrderBy(cohort => cohort.Order)
            .ToListAsync(cancel);

    /// <summary>Whoever is named and is not in the class.</summary>
    /// <param name="list">What the request calls the list.</param>
    public static List<Problem> Strangers(IEnumerable<Guid> named, string list, IReadOnlyCollection<Guid> students) =>
        [
            .. named
                .Index()
                .Where(student => !students.Contains(student.Item))
                .Select(student => new Problem(
                    $"{list}[{student.Index}].studentId",
                    "This student is not in the class."
                )),
        ];
}
