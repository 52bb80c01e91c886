using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>What students say they practised at home: a record, and no stage.</summary>
internal static class PracticeLogEndpoint
{
    public sealed record Request(IReadOnlyList<Mark> Logs);

    /// <param name="Minutes">0 takes it back.</param>
    public sealed record Mark(Guid Id, Guid StudentId, DateOnly Date, int Minutes);

    public static void Map(ByRank api) =>
        api.Group("/classes/{classId:guid}/home/practice")
            .Each(classes => classes.OpensFirst())
            .Teacher.MapPost("", Log)
            .ProducesProblem(409)
            .WithName("logPractice");

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Log(
        [AsParameters] AskedClass asked,
        Request request,
        CancellationToken cancel
    )
    {
        var cohorts = (await asked.CohortsAsync(cancel)).Select(cohort => cohort.Id).ToList();
        var students = await asked.Db.StudentsIn(cohorts).Select(student => student.Id).ToListAsync(cancel);
        List<PracticeLog> logs =
        [
            .. request.Logs.Select(log => new PracticeLog(
                log.Id,
                log.StudentId,
                log.Date,
                log.Minutes,
                asked.Actor.StaffId,
                asked.Clock.Now
            )),
        ];
        List<Problem> problems =
        [
            .. AskedClass.Strangers(logs.Select(log => log.StudentId), "logs", students),
            .. logs.Index().SelectMany(log => log.Item.Check($"logs[{log.Index}]", asked.Today)),
        ];
        return problems.Count > 0 ? Refusals.Invalid(problems) : await AppendOnly.AddAsync(asked.Db, logs, cancel);
    }
}
