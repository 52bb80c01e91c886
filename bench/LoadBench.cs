using System.Globalization;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Npgsql;

namespace Zeitplan.Bench;

/// <summary>The demo school under load: a mark beside planning that many ask for at once, and what the server holds in
/// memory while it is sent files that are as large and as bad as they may be, beside what it holds at rest.</summary>
internal static class LoadBench
{
    private const int AskAtOnce = 50;
    private const int SendAtOnce = 16;
    private const int MostMegabytes = 1024;

    public static async Task RunAsync(NpgsqlDataSource database, Page page, Action<string, double, string> say)
    {
        var (classId, termId, studentId) = await EveningAsync(database);
        var plan = $"/api/terms/{termId}/classes/{classId}/plan";
        await page.TryAsync(HttpMethod.Post, plan);
        var alone = await Timing.OfAsync(200, MarkAsync);
        using var over = new CancellationTokenSource();
        var asking = Enumerable.Range(0, AskAtOnce).Select(_ => AskOnAsync()).ToList();
        var beside = await Timing.OfAsync(200, MarkAsync);
        await over.CancelAsync();
        await Task.WhenAll(asking);
        say("one mark, p50", alone.P50, "ms");
        say("one mark, p95", alone.P95, "ms");
        say($"one mark while {AskAtOnce} ask for remedies at once, p50", beside.P50, "ms");
        say($"one mark while {AskAtOnce} ask for remedies at once, p95", beside.P95, "ms");

        var rest = Megabytes("VmRSS");
        var broken = (await Task.WhenAll(Enumerable.Range(0, SendAtOnce).Select(SendBadAsync))).Sum();
        say("memory at rest", rest, "MB");
        say(
            $"memory at most, {SendAtOnce} sending the largest bad files at once",
            Megabytes("VmHWM"),
            $"MB of at most {MostMegabytes}"
        );
        say("bad files answered with a mistake of our own", broken, "");

        Task MarkAsync() =>
            page.SendAsync(
                $"/api/classes/{classId}/lessons/2026-11-17/attendance",
                new
                {
                    marks = new[]
                    {
                        new
                        {
                            id = Guid.CreateVersion7(),
                            studentId,
                            present = true,
                        },
                    },
                }
            );

        async Task AskOnAsync()
        {
            while (!over.IsCancellationRequested)
            {
                // Whoever is told to come back does so after a while.
                if (await page.TryAsync(HttpMethod.Get, $"{plan}/remedies") == 429)
                {
                    await Task.Delay(500);
                }
            }
        }

        async Task<int> SendBadAsync(int sender)
        {
            var broken = 0;
            for (var at = 0; at < (Timing.Once ? 1 : 4); at++)
            {
                foreach (var (path, body) in Bad)
                {
                    using var content = new StringContent(
                        body,
                        Encoding.UTF8,
                        new MediaTypeHeaderValue("application/json")
                    );
                    broken += await page.TryAsync(HttpMethod.Post, path, content) >= 500 ? 1 : 0;
                }
            }

            return broken;
        }
    }

    private static readonly (string Path, string Body)[] Bad =
    [
        ("/api/library/preview", JsonSerializer.Serialize(new { file = Steps() })),
        ("/api/library/preview", JsonSerializer.Serialize(new { file = Repeated("[", 4_000_000) })),
        (
            "/api/roster/preview",
            JsonSerializer.Serialize(
                new { file = Encoding.UTF8.GetBytes(Repeated("name;born\n", 700_000)), answers = new { } }
            )
        ),
        (
            "/api/forms",
            JsonSerializer.Serialize(new { id = Guid.Empty, text = new { name = Repeated("a", 1_000_000) } })
        ),
    ];

    /// <summary>A library as large as one may be, whose every text is steps that nobody can read.</summary>
    private static string Steps()
    {
        var entry = Repeated("q;", 2000);
        return JsonSerializer.Serialize(
            new
            {
                format = "zeitplan-forms",
                version = 1,
                postures = Enumerable
                    .Range(0, 1900)
                    .Select(at => new { id = Guid.Empty, text = new { name = $"{at}", entry } }),
            }
        );
    }

    private static string Repeated(string text, int times) => new StringBuilder().Insert(0, text, times).ToString();

    private static async Task<(Guid Class, Guid Term, Guid Student)> EveningAsync(NpgsqlDataSource database)
    {
        await using var command = database.CreateCommand(
            """
            SELECT c.id, t.id, s.id FROM classes c JOIN cohorts g ON g.class_id = c.id JOIN students s ON s.cohort_ids[1] = g.id, terms t
            WHERE c.name = 'Tuesday evening' AND t.start <= date '2026-11-24' AND t."end" >= date '2026-11-24' ORDER BY s.id LIMIT 1
            """
        );
        await using var reader = await command.ExecuteReaderAsync();
        await reader.ReadAsync();
        return (reader.GetGuid(0), reader.GetGuid(1), reader.GetGuid(2));
    }

    /// <param name="what">A line of the system's own account of the server's process.</param>
    internal static double Megabytes(string what)
    {
        var line = File.ReadLines($"/proc/{Environment.GetEnvironmentVariable("ZEITPLAN_SERVER_PID")}/status")
            .Single(line => line.StartsWith($"{what}:", StringComparison.Ordinal));
        return double.Parse(
                line.Split([' ', '\t'], StringSplitOptions.RemoveEmptyEntries)[1],
                CultureInfo.InvariantCulture
            ) / 1024;
    }
}
