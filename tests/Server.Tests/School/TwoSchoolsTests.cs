using System.Net;
using Microsoft.AspNetCore.Mvc.Testing;
using Npgsql;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Tests.School;

/// <summary>The demo and a school of one's own, and schools told apart by their host: databases of one
/// installation.</summary>
public sealed class TwoSchoolsTests(DemoTemplate template)
{
    private const string Own = "zeitplan_two_own";
    private const string Demo = "zeitplan_two_demo";
    private const string Harbour = "zeitplan_two_harbour";
    private const string Chosen = "a heron on one leg";

    private static readonly object Head = new
    {
        name = "Runa Falk",
        email = "runa@harbour.example",
        password = Chosen,
    };

    private WebApplicationFactory<Program> Open(params (string Key, string Value)[] settings) =>
        template.Open(Own, null, [("ZEITPLAN_DEMO_DATABASE", Demo), .. settings]);

    private void Clean(bool withDemo = false)
    {
        NpgsqlConnection.ClearAllPools();
        foreach (var database in new[] { Own, Demo, Harbour })
        {
            template.Run($"DROP DATABASE IF EXISTS {database} WITH (FORCE)");
        }

        if (withDemo)
        {
            // The template is nobody's yet; its copy is what an installation of before had as its only school.
            template.Run($"CREATE DATABASE {Own} TEMPLATE zeitplan_template");
        }
    }

    private static async Task<Caller> AtAsync(WebApplicationFactory<Program> application, string host)
    {
        var caller = new Caller(application.CreateClient(new() { BaseAddress = new($"http://{host}:5080") }));
        await caller.RefreshTokenAsync();
        return caller;
    }

    private static async Task<Caller> NoorAsync(WebApplicationFactory<Program> application, string host)
    {
        var noor = await AtAsync(application, host);
        await noor.PostAsync(
                "/api/session/sign-in",
                new { email = "head@heronquay.example", password = DemoTemplate.Password }
            )
            .OkAsync();
        await noor.RefreshTokenAsync();
        return noor;
    }

    private bool Exists(string database)
    {
        using var connection = new NpgsqlConnection(template.Server);
        connection.Open();
        using var asked = new NpgsqlCommand("SELECT count(*) FROM pg_database WHERE datname = @name", connection);
        asked.Parameters.AddWithValue("name", database);
        return (long)asked.ExecuteScalar()! == 1;
    }

    [Fact]
    public async Task An_own_school_is_begun_beside_the_demo_which_is_then_taken_away_without_a_trace()
    {
        Clean(withDemo: true);
        await using (var application = Open())
        {
            // An installation that had the demo as its only school keeps it, in the demo's own database.
            var noor = await NoorAsync(application, "127.0.0.1");
            Assert.True((await noor.GetAsync("/api/session")).GetProperty("mayBegin").GetBoolean());
            Assert.Equal(
                ["name", "password"],
                (
                    await noor.PostAsync(
                            "/api/own-school",
                            new
                            {
                                name = "",
                                email = "a@b.example",
                                password = "short",
                            }
                        )
                        .FieldsAsync()
                )
                    .Concat(
                        await noor.PostAsync(
                                "/api/own-school",
                                new
                                {
                                    name = "Runa",
                                    email = "a@b.example",
                                    password = "short",
                                }
                            )
                            .FieldsAsync()
                    )
                    .Order()
            );
            Assert.True((await noor.GetAsync("/api/session")).GetProperty("isDemo").GetBoolean());
            await noor.DeleteAsync("/api/demo").ProblemAsync(409);
            var second = await NoorAsync(application, "127.0.0.1");
            await noor.PostAsync("/api/own-school", Head).OkAsync();
            await second.PostAsync("/api/own-school", Head).ProblemAsync(401);

            // She who began it comes in as its head, at the address where the demo was.
            await noor.RefreshTokenAsync();
            await noor.PostAsync("/api/session/sign-in", new { email = "runa@harbour.example", password = Chosen })
                .OkAsync();
            var session = await noor.GetAsync("/api/session");
            Assert.Equal(
                ("", false, "Runa Falk", "http://demo.localhost:5080"),
                (
                    session.Text("schoolName"),
                    session.GetProperty("isDemo").GetBoolean(),
                    session.GetProperty("person").Text("name"),
                    session.Text("demoAddress")
                )
            );
            Assert.Empty((await noor.GetAsync("/api/students")).EnumerateArray());
            Assert.Empty((await noor.GetAsync("/api/journal")).GetProperty("entries").EnumerateArray());

            var atDemo = await NoorAsync(application, SchoolDatabases.DemoHost);
            Assert.NotEmpty((await atDemo.GetAsync("/api/students")).EnumerateArray());
            Assert.False((await atDemo.GetAsync("/api/session")).GetProperty("mayBegin").GetBoolean());
            await atDemo.PostAsync("/api/own-school", Head).ProblemAsync(409);
            await atDemo.DeleteAsync("/api/demo").ProblemAsync(409);

            await noor.RefreshTokenAsync();
            await noor.DeleteAsync("/api/demo").OkAsync();
            Assert.False(Exists(Demo));
            Assert.Equal(HttpStatusCode.Unauthorized, (await atDemo.Client.GetAsync("/api/students")).StatusCode);
        }

        // It stays away.
        await using (var again = Open())
        {
            var runa = await AtAsync(again, "127.0.0.1");
            await runa.PostAsync("/api/session/sign-in", new { email = "runa@harbour.example", password = Chosen })
                .OkAsync();
            Assert.Equal("Runa Falk", (await runa.GetAsync("/api/session")).GetProperty("person").Text("name"));
            Assert.False(Exists(Demo));
        }

        Clean();
    }

    [Fact]
    public async Task Schools_of_one_installation_are_told_apart_by_their_host_and_know_nothing_of_each_other()
    {
        Clean();
        var file = Path.GetTempFileName();
        await File.WriteAllTextAsync(
            file,
            $"# host = database\nharbour.example = {template.ConnectionTo(Harbour)}\n",
            TestContext.Current.CancellationToken
        );
        await using (
            var application = template.Open(
                Own,
                null,
                ("ZEITPLAN_HOSTS_FILE", file),
                ("ZEITPLAN_EMPTY", "true"),
                ("ZEITPLAN_KEYS_FILE", $"{file}.pfx")
            )
        )
        {
            var (quay, harbour) = (
                await AtAsync(application, "quay.example"),
                await AtAsync(application, "HARBOUR.example")
            );
            foreach (var caller in new[] { quay, harbour })
            {
                await caller
                    .PostAsync(
                        "/api/session/sign-in",
                        new { email = "head@school.example", password = DemoTemplate.Password }
                    )
                    .OkAsync();
                await caller.RefreshTokenAsync();
            }

            await harbour
                .PutAsync(
                    "/api/school",
                    new
                    {
                        text = new
                        {
                            name = "Harbour Tai Chi",
                            place = "",
                            timeZone = "Europe/Berlin",
                            weekStart = "monday",
                            dates = "dayMonthYear",
                            decimals = "point",
                        },
                        version = (await harbour.GetAsync("/api/school")).GetProperty("version").GetUInt32(),
                    }
                )
                .OkAsync();
            Assert.Equal("Harbour Tai Chi", (await harbour.GetAsync("/api/session")).Text("schoolName"));
            Assert.Equal("", (await quay.GetAsync("/api/session")).Text("schoolName"));

            // A cookie of one school opens nothing in another.
            using var crossed = new HttpRequestMessage(HttpMethod.Get, "http://quay.example:5080/api/today");
            var signedIn = await (await AtAsync(application, "harbour.example")).PostAsync(
                "/api/session/sign-in",
                new { email = "head@school.example", password = DemoTemplate.Password }
            );
            crossed.Headers.Add(
                "Cookie",
                signedIn
                    .Headers.GetValues("Set-Cookie")
                    .Single(c => c.StartsWith("zeitplan=", StringComparison.Ordinal))
            );
            var answer = await application
                .CreateClient(new() { HandleCookies = false })
                .SendAsync(crossed, TestContext.Current.CancellationToken);
            Assert.Equal(HttpStatusCode.Unauthorized, answer.StatusCode);

            // What seals the cookies is sealed itself: a copy of the database alone opens nothing.
            await using var connection = new NpgsqlConnection(template.ConnectionTo(Own));
            await connection.OpenAsync(TestContext.Current.CancellationToken);
            await using var keys = new NpgsqlCommand(
                "SELECT string_agg(xml, '') FROM data_protection_keys",
                connection
            );
            var sealedKeys = (string)(await keys.ExecuteScalarAsync(TestContext.Current.CancellationToken))!;
            Assert.Contains("EncryptedData", sealedKeys, StringComparison.Ordinal);
            Assert.DoesNotContain("<value>", sealedKeys, StringComparison.Ordinal);
            Assert.Equal(
                UnixFileMode.UserRead | UnixFileMode.UserWrite,
                OperatingSystem.IsWindows() ? default : File.GetUnixFileMode($"{file}.pfx")
            );
        }

        File.Delete(file);
        File.Delete($"{file}.pfx");
        Clean();
    }
}
