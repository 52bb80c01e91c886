using Npgsql;

namespace Zeitplan.Server.Tests.School;

public sealed class IndexTests(DemoTemplate template) : HeronQuayTests(template)
{
    private static readonly string[] Facts =
    [
        "attendance",
        "home_sheets",
        "observations",
        "practice_logs",
        "taught_facts",
        "ways_tried",
        "withdrawals",
    ];

    /// <summary>The database is told to read a whole table only where no index serves, and counts how often it had
    /// to.</summary>
    [Fact]
    public async Task No_screen_reads_all_the_facts_there_are_for_want_of_an_index()
    {
        var database = new NpgsqlConnectionStringBuilder(Connection).Database!;
        var indexed = new NpgsqlConnectionStringBuilder(Connection) { Options = "-c enable_seqscan=off" };
        await using var application = Template.Open(database, indexed.ConnectionString);
        using var client = application.CreateClient();
        var head = new Caller(client);
        await head.RefreshTokenAsync();
        (
            await head.PostAsync(
                "/api/session/sign-in",
                new { email = "head@heronquay.example", password = DemoTemplate.Password }
            )
        ).EnsureSuccessStatusCode();
        await head.RefreshTokenAsync();
        var (term, schoolClass) = (await TermAsync(head), await ClassAsync(head));
        var (id, cohort) = (schoolClass.Text("id"), schoolClass.GetProperty("cohorts")[1].Text("id"));
        var student = (await StudentAsync(head, "Imke")).Text("id");
        var before = await ReadWholeAsync();
        foreach (
            var path in new[]
            {
                "/api/today",
                "/api/today/left-to-do",
                "/api/lessons",
                $"/api/classes/{id}/lessons/2026-11-17",
                $"/api/classes/{id}/lessons/2026-11-17/register",
                $"/api/classes/{id}/progress",
                $"/api/classes/{id}/home",
                "/api/patterns",
                $"/api/students/{student}",
                $"/api/cohorts/{cohort}/coverage",
                "/api/safety",
                $"/api/terms/{term}/classes/{id}/plan",
                $"/api/terms/{term}/classes/{id}/plan/versions",
                $"/api/terms/{term}/classes/{id}/plan/remedies",
                "/api/people",
                "/api/students",
            }
        )
        {
            var response = await client.GetAsync(new Uri(path, UriKind.Relative));
            Assert.True(response.IsSuccessStatusCode, $"{path}: {(int)response.StatusCode}");
        }

        var after = await ReadWholeAsync();
        Assert.Equal(Facts, after.Keys.Order());
        Assert.All(Facts, table => Assert.Equal((table, before[table]), (table, after[table])));
    }

    /// <returns>For each table of facts, how often it was read as a whole.</returns>
    private async Task<Dictionary<string, long>> ReadWholeAsync()
    {
        // What a connection has counted is known to others once it is closed.
        NpgsqlConnection.ClearAllPools();
        await Task.Delay(1500);
        await using var connection = new NpgsqlConnection(Connection);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(
            "SELECT relname, seq_scan FROM pg_stat_user_tables WHERE relname = ANY(@facts)",
            connection
        )
        {
            Parameters = { new("facts", Facts) },
        };
        await using var reader = await command.ExecuteReaderAsync();
        Dictionary<string, long> counts = [];
        while (await reader.ReadAsync())
        {
            counts[reader.GetString(0)] = reader.GetInt64(1);
        }

        return counts;
    }
}
