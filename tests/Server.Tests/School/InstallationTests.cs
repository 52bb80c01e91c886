using System.Net;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Tests.School;

/// <summary>An installation as a technician runs it: several servers, a proxy in front, updates.</summary>
public sealed class InstallationTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Somebody_signed_in_at_one_server_goes_on_at_another_when_the_first_is_gone()
    {
        var one = Template.Open("", Connection);
        await using var other = Template.Open("", Connection);
        var cookies = new CookieContainer();
        var at = new Uri("http://localhost/");
        Caller Through(Microsoft.AspNetCore.Mvc.Testing.WebApplicationFactory<Program> server) =>
            new(server.CreateDefaultClient(at, new Carrying(cookies, at)));
        var noor = Through(one);
        await noor.RefreshTokenAsync();
        await noor.PostAsync(
                "/api/session/sign-in",
                new { email = "head@heronquay.example", password = DemoTemplate.Password }
            )
            .OkAsync();
        await noor.RefreshTokenAsync();
        var moved = Through(other);
        Assert.Equal("Noor Adeyemi", (await moved.GetAsync("/api/session")).GetProperty("person").Text("name"));
        // The token she got from the one is good at the other.
        moved.GoOnFrom(noor);
        await moved.PutAsync("/api/moving-in", new { putAside = true }).OkAsync();
        await one.DisposeAsync();
        await moved.DeleteAsync("/api/account/sign-ins").OkAsync();
        await moved.GetAsync("/api/today");
    }

    /// <summary>A browser's cookies, whichever server it is sent to.</summary>
    private sealed class Carrying(CookieContainer cookies, Uri at) : DelegatingHandler
    {
        protected override async Task<HttpResponseMessage> SendAsync(
            HttpRequestMessage request,
            CancellationToken cancellationToken
        )
        {
            if (cookies.GetCookieHeader(at) is { Length: > 0 } kept)
            {
                request.Headers.Add("Cookie", kept);
            }

            var answer = await base.SendAsync(request, cancellationToken);
            foreach (var set in answer.Headers.TryGetValues("Set-Cookie", out var sent) ? sent : [])
            {
                cookies.SetCookies(at, set);
            }

            return answer;
        }
    }

    [Theory]
    [InlineData("10.1.2.3", true)]
    [InlineData("192.0.2.9", false)]
    public async Task Only_a_proxy_that_is_known_is_believed_about_tls(string from, bool isKnown)
    {
        await using var application = Template
            .Open("", Connection, ("ZEITPLAN_PROXIES", "127.0.0.1, 10.0.0.0/8"))
            .WithWebHostBuilder(builder =>
                builder.ConfigureServices(services => services.AddTransient<IStartupFilter>(_ => new From(from)))
            );
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/session");
        request.Headers.Add("X-Forwarded-Proto", "https");
        request.Headers.Add("X-Forwarded-Host", "lessons.heronquay.example");
        request.Headers.Add("X-Forwarded-For", "203.0.113.5");
        var answer = await application.CreateClient().SendAsync(request, TestContext.Current.CancellationToken);
        Assert.Equal(isKnown, answer.Headers.Contains("Strict-Transport-Security"));
        Assert.Equal(
            isKnown,
            answer
                .Headers.GetValues("Set-Cookie")
                .Any(cookie => cookie.Contains("secure", StringComparison.OrdinalIgnoreCase))
        );
    }

    private sealed class From(string address) : IStartupFilter
    {
        public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) =>
            app =>
            {
                app.Use(
                    (http, go) =>
                    {
                        http.Connection.RemoteIpAddress = IPAddress.Parse(address);
                        return go(http);
                    }
                );
                next(app);
            };
    }

    [Fact]
    public async Task Reached_by_tls_no_cookie_travels_in_the_open()
    {
        await using var application = Template.Open(
            "",
            Connection,
            ("ZEITPLAN_ADDRESS", "https://lessons.heronquay.example")
        );
        var noor = new Caller(application.CreateClient());
        await noor.RefreshTokenAsync();
        var answer = await noor.PostAsync(
            "/api/session/sign-in",
            new { email = "head@heronquay.example", password = DemoTemplate.Password }
        );
        Assert.Contains(
            "secure",
            answer
                .Headers.GetValues("Set-Cookie")
                .Single(cookie => cookie.StartsWith("zeitplan=", StringComparison.Ordinal)),
            StringComparison.OrdinalIgnoreCase
        );
    }

    [Fact]
    public async Task What_is_measured_goes_to_a_collector_and_a_collector_that_is_away_stops_nobody()
    {
        await using var application = Template.Open(
            "",
            Connection,
            ("OTEL_EXPORTER_OTLP_ENDPOINT", "http://127.0.0.1:9")
        );
        var stranger = new Caller(application.CreateClient());
        await stranger.RefreshTokenAsync();
        Assert.NotNull(application.Services.GetService<OpenTelemetry.Trace.TracerProvider>());
        Assert.NotNull(application.Services.GetService<OpenTelemetry.Metrics.MeterProvider>());
        Assert.Null(Services.GetService<OpenTelemetry.Trace.TracerProvider>());
    }

    /// <summary>The demo school, taken back to what an earlier version kept and brought up to date again.</summary>
    [Fact]
    public async Task A_school_of_every_earlier_version_comes_up_with_nothing_lost()
    {
        const string Database = "zeitplan_upgraded";
        NpgsqlConnection.ClearAllPools();
        Template.Run($"DROP DATABASE IF EXISTS {Database} WITH (FORCE)");
        Template.Run($"CREATE DATABASE {Database} TEMPLATE zeitplan_template");
        var connection = Template.ConnectionTo(Database);
        await using (var db = new SchoolDatabase(connection, Services).Open())
        {
            // No earlier version could say that something is not called.
            await db.Database.ExecuteSqlAsync(
                $"""
                ALTER TABLE observations DISABLE TRIGGER USER;
                DELETE FROM observations WHERE sign = 'Noted';
                ALTER TABLE observations ENABLE TRIGGER USER;
                """,
                TestContext.Current.CancellationToken
            );
            var migrator = db.GetService<IMigrator>();
            var all = db.Database.GetMigrations().ToList();
            // Plans were of another shape before, and do not go back into it: what is older is written down by hand in
            // the tests of migrations.
            foreach (
                var version in all.SkipWhile(name => !name.EndsWith("_PlanSnapshots", StringComparison.Ordinal))
                    .Reverse()
                    .Skip(1)
            )
            {
                await migrator.MigrateAsync(version);
                var before = await CountAsync(connection);
                await migrator.MigrateAsync(all[^1]);
                var after = await CountAsync(connection);
                foreach (var (table, rows) in before)
                {
                    Assert.True(
                        rows == after.GetValueOrDefault(table),
                        $"{table}: {rows} rows at {version}, {after.GetValueOrDefault(table)} afterwards"
                    );
                }

                Assert.True(before["students"] > 30 && before["observations"] > 100 && before["plans"] > 0);
            }
        }

        await using var opened = Template.Open(Database);
        var head = new Caller(opened.CreateClient());
        await head.RefreshTokenAsync();
        await head.PostAsync(
                "/api/session/sign-in",
                new { email = "head@heronquay.example", password = DemoTemplate.Password }
            )
            .OkAsync();
        Assert.NotEmpty((await head.GetAsync("/api/students")).EnumerateArray());
        NpgsqlConnection.ClearAllPools();
    }

    private static async Task<Dictionary<string, long>> CountAsync(string connectionString)
    {
        await using var connection = new NpgsqlConnection(connectionString);
        await connection.OpenAsync();
        List<string> tables = [];
        await using (
            var asked = new NpgsqlCommand(
                "SELECT tablename FROM pg_tables WHERE schemaname = 'public' AND tablename NOT IN ('__EFMigrationsHistory', 'sign_ins')",
                connection
            )
        )
        await using (var reader = await asked.ExecuteReaderAsync())
        {
            while (await reader.ReadAsync())
            {
                tables.Add(reader.GetString(0));
            }
        }

        Dictionary<string, long> counts = [];
        foreach (var table in tables)
        {
            await using var count = new NpgsqlCommand($"SELECT count(*) FROM \"{table}\"", connection);
            counts[table] = (long)(await count.ExecuteScalarAsync())!;
        }

        return counts;
    }
}
