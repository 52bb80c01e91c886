using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Progress;

/// <summary>After a start nothing is kept of what was seen over the years: it is read before anybody asks for it.</summary>
internal sealed partial class ReadAhead(
    SchoolDatabases schools,
    SeenBefore seen,
    SchoolTime time,
    IOptions<JsonOptions> json,
    ILogger<ReadAhead> logger
) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        foreach (var school in schools.Demo is { } demo ? schools.Own.Append(demo) : schools.Own)
        {
            try
            {
                await using var db = school.Open();
                var students = await db
                    .Students.AsNoTracking()
                    .Where(student => student.Erased == null)
                    .ToListAsync(stoppingToken);
                var today = await new SchoolClock(db, time).TodayAsync(stoppingToken);
                await seen.OfAsync(db, school, students, today, stoppingToken);

                // The largest page that is made of it takes several times as long when it is made for the first time.
                var classes = await db.Classes.AsNoTracking().ToDictionaryAsync(its => its.Id, stoppingToken);
                var cohorts = await db
                    .Cohorts.AsNoTracking()
                    .ToDictionaryAsync(cohort => cohort.Id, cohort => classes[cohort.ClassId], stoppingToken);
                var board = await PatternsEndpoint.OfAsync(db, school, seen, cohorts, today, stoppingToken);
                await JsonSerializer.SerializeAsync(Stream.Null, board, json.Value.SerializerOptions, stoppingToken);
            }
            catch (Exception exception) when (exception is not OperationCanceledException)
            {
                // Whoever opens the page reads it then, and is told what is wrong.
                LogLeft(exception);
            }
        }
    }

    [LoggerMessage(
        LogLevel.Warning,
        "What was seen over the years could not be read ahead; it is read when it is asked for."
    )]
    private partial void LogLeft(Exception exception);
}
