using System.Globalization;
using Npgsql;
using Zeitplan.Bench;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;

// Every figure stands beside a reference taken in the same run, on the demo school. Output: name: value unit
// Named parts only, when some are named: forms, term, lesson, progress, people, load, import, years, opening.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var connection =
    Environment.GetEnvironmentVariable("ZEITPLAN_DATABASE")
    ?? throw new InvalidOperationException("Run ./zeitplan bench: it starts the demo school.");
Timing.Once = args.Contains("--once");
var parts = args.Except(["--once"]).ToList();
await using var database = NpgsqlDataSource.Create(connection);

if (IsWanted("forms"))
{
    await FormsBench.RunAsync(connection, Say);
}

if (IsWanted("term"))
{
    var problem = Json.Read<PlanSnapshot>(
            await OneAsync<string>(
                """
                SELECT p.snapshot::text FROM plans p JOIN classes c ON c.id = p.class_id WHERE c.name = 'Tuesday evening' ORDER BY p.id DESC LIMIT 1
                """
            )
        )
        .Solved()
        .Problem;
    TermBench.Run(
        problem with
        {
            Lessons = [.. problem.Lessons.Select(lesson => lesson with { Held = false })],
            Cohorts = [.. problem.Cohorts.Select(cohort => cohort with { IntroducedIn = [] })],
        },
        Say
    );
}

if (IsWanted("lesson"))
{
    LessonBench.Run(Say);
}

using var page = await Page.SignInAsync();
if (IsWanted("progress"))
{
    var classId = await OneAsync<Guid>("SELECT id FROM classes WHERE name = 'Tuesday evening'");
    var (table, sql) = await Timing.OfBothAsync(
        50,
        () => page.ReadAsync($"/api/classes/{classId}/progress"),
        () => ProgressSql.ReadAsync(database, classId)
    );
    Timing.Compare("progress table", table, sql, Say);
}

if (IsWanted("people"))
{
    await PeopleBench.RunAsync(connection, database, page, Say);
    await SchoolBench.RunAsync(database, page, Say);
}

if (IsWanted("load"))
{
    await LoadBench.RunAsync(database, page, Say);
}

if (IsWanted("import"))
{
    await ImportBench.RunAsync(page, Say);
}

// It leaves five years of evenings behind, so it is measured by itself, or last where everything is only tried out.
if (parts.Contains("years") || (Timing.Once && parts.Count == 0))
{
    if (!IsWanted("people"))
    {
        await PeopleBench.GrowAsync(connection);
        await SchoolBench.FillAsync(database);
    }

    await SchoolBench.OverFiveYearsAsync(database, page, Say);
}

// After the years, on a server started anew.
if (parts.Contains("opening") || (Timing.Once && parts.Count == 0))
{
    await SchoolBench.AfterAStartAsync(database, page, Say);
}

bool IsWanted(string part) => parts.Count == 0 || parts.Contains(part);

static void Say(string name, double value, string unit) => Console.WriteLine($"{name}: {value:0.##} {unit}");

async Task<T> OneAsync<T>(string text)
{
    await using var command = database.CreateCommand(text);
    return (T)(await command.ExecuteScalarAsync())!;
}
