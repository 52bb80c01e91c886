using System.Collections.Concurrent;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Zeitplan.Server.Data;

[assembly: AssemblyFixture(typeof(Zeitplan.Server.Tests.DemoTemplate))]

namespace Zeitplan.Server.Tests;

/// <summary>
/// The demo school, filled once, and one application with as many seats as tests run at once: each seat is a school of
/// its own, told apart by its host, and every test that takes one finds the demo school in it as it was filled.
/// </summary>
public sealed class DemoTemplate : IDisposable
{
    public const string Password = "heron-quay-for-tests";
    public const string Today = "2026-11-24";
    private const string Template = "zeitplan_template";
    private readonly string[] seats =
    [
        .. Enumerable.Range(1, Environment.ProcessorCount + 1).Select(seat => $"zeitplan_seat_{seat}"),
    ];
    private readonly ConcurrentQueue<string> free;
    private readonly string hosts = Path.GetTempFileName();

    public DemoTemplate()
    {
        Server =
            Environment.GetEnvironmentVariable("ZEITPLAN_TEST_DATABASE")
            ?? throw new InvalidOperationException(
                "These tests need PostgreSQL: run ./zeitplan test, or set ZEITPLAN_TEST_DATABASE to a connection string that may create databases."
            );
        Drop(Template);
        using (var filled = Open(Template))
        {
            filled.CreateClient().Dispose();
        }

        foreach (var seat in seats)
        {
            Refill(seat);
        }

        free = new(seats);
        File.WriteAllLines(hosts, seats.Select(seat => $"{HostOf(seat)} = {ConnectionTo(seat)}"));
        Application = Open(seats[0], null, ("ZEITPLAN_HOSTS_FILE", hosts));
    }

    public string Server { get; }

    /// <summary>The one application of all seats: to start another for every class of tests costs minutes.</summary>
    public WebApplicationFactory<Program> Application { get; }

    public static string HostOf(string seat) => $"{seat.Replace('_', '-')}.localhost";

    /// <summary>The database of a school as new, until it is given back.</summary>
    public string Take()
    {
        if (!free.TryDequeue(out var seat))
        {
            throw new InvalidOperationException("More tests run at once than there are processors.");
        }

        Refill(seat);
        return seat;
    }

    public void GiveBack(string seat) => free.Enqueue(seat);

    public WebApplicationFactory<Program> Open(
        string database,
        string? connection = null,
        params (string Key, string Value)[] settings
    ) =>
        new WebApplicationFactory<Program>().WithWebHostBuilder(builder =>
        {
            builder.UseSetting("ZEITPLAN_DATABASE", connection ?? ConnectionTo(database));
            builder.UseSetting("ZEITPLAN_FIRST_PASSWORD", Password);
            builder.UseSetting("ZEITPLAN_TODAY", Today);
            builder.UseSetting("ZEITPLAN_SIGN_INS_A_MINUTE", "1000");
            foreach (var (key, value) in settings)
            {
                builder.UseSetting(key, value);
            }

            // Passwords are as strong here as the tests need: hundreds of sign-ins would cost minutes.
            builder.ConfigureServices(services =>
                services.Configure<PasswordHasherOptions>(hasher => hasher.IterationCount = 100)
            );
        });

    public string ConnectionTo(string database) =>
        new NpgsqlConnectionStringBuilder(Server) { Database = database, MaxPoolSize = 8 }.ConnectionString;

    public void Run(string sql)
    {
        using var connection = new NpgsqlConnection(Server);
        connection.Open();
        using var command = new NpgsqlCommand(sql, connection);
        command.ExecuteNonQuery();
    }

    public void Dispose()
    {
        Application.Dispose();
        NpgsqlConnection.ClearAllPools();
        foreach (var database in seats.Append(Template))
        {
            Drop(database);
        }

        File.Delete(hosts);
    }

    private void Refill(string seat)
    {
        NpgsqlConnection.ClearAllPools();
        Drop(seat);
        Run($"CREATE DATABASE {seat} TEMPLATE {Template}");
    }

    private void Drop(string database) => Run($"DROP DATABASE IF EXISTS {database} WITH (FORCE)");
}

/// <summary>Tests of what the application promises, on a copy of the demo school of their own.</summary>
public abstract class HeronQuayTests : IDisposable
{
    private readonly string seat;

    protected HeronQuayTests(DemoTemplate template)
    {
        Template = template;
        seat = template.Take();
    }

    public void Dispose()
    {
        Template.GiveBack(seat);
        GC.SuppressFinalize(this);
    }

    protected DemoTemplate Template { get; }

    protected IServiceProvider Services => Template.Application.Services;

    protected string Connection => Template.ConnectionTo(seat);

    /// <summary>The school as it is written down, for what no page says.</summary>
    protected async Task<SchoolContext> OpenAsync() => (await SchoolAsync()).Open();

    private protected Task<SchoolDatabase> SchoolAsync() =>
        Services
            .GetRequiredService<SchoolDatabases>()
            .AtAsync(DemoTemplate.HostOf(seat), TestContext.Current.CancellationToken);

    protected HttpClient Anonymous() =>
        Template.Application.CreateClient(
            new() { AllowAutoRedirect = false, BaseAddress = new($"http://{DemoTemplate.HostOf(seat)}") }
        );

    protected Task<Caller> HeadAsync() => SignInAsync("head");

    protected Task<Caller> InstructorAsync() => SignInAsync("instructor");

    protected Task<Caller> AssistantAsync() => SignInAsync("assistant");

    protected async Task<Caller> SignInAsync(string name)
    {
        var caller = new Caller(Anonymous());
        await caller.RefreshTokenAsync();
        (
            await caller.PostAsync(
                "/api/session/sign-in",
                new { email = $"{name}@heronquay.example", password = DemoTemplate.Password }
            )
        ).EnsureSuccessStatusCode();
        await caller.RefreshTokenAsync();
        return caller;
    }

    /// <summary>What nobody can do through the application, such as the passing of time.</summary>
    protected async Task RunAsync(string sql)
    {
        await using var connection = new Npgsql.NpgsqlConnection(Connection);
        await connection.OpenAsync();
        await using var command = new Npgsql.NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }

    protected static async Task<JsonElement> ClassAsync(Caller caller, string name = "Tuesday evening") =>
        (await caller.GetAsync("/api/people"))
            .GetProperty("classes")
            .EnumerateArray()
            .Single(c => c.Text("name") == name);

    /// <summary>The last lesson of Tuesday evening that was held.</summary>
    protected static async Task<string> LastLessonAsync(Caller caller) =>
        $"/api/classes/{(await ClassAsync(caller)).Text("id")}/lessons/2026-11-17";

    /// <summary>Everybody of Tuesday evening who has something to correct.</summary>
    protected static async Task<List<JsonElement>> ToCorrectAsync(Caller caller) =>
        [
            .. (await caller.GetAsync($"/api/classes/{(await ClassAsync(caller)).Text("id")}/corrections"))
                .GetProperty("people")
                .EnumerateArray(),
        ];

    protected static async Task<string> TermAsync(Caller caller) =>
        (await caller.GetAsync("/api/terms"))
            .EnumerateArray()
            .Single(term => term.GetProperty("isCurrent").GetBoolean())
            .Text("id");

    protected static async Task<JsonElement> StudentAsync(Caller caller, string name) =>
        (await caller.GetAsync("/api/students"))
            .EnumerateArray()
            .Single(student => student.Text("name").StartsWith(name, StringComparison.Ordinal));

    /// <summary>A step taken from the plan as it stands now.</summary>
    /// <param name="path">Of the class's plan.</param>
    /// <param name="step">What is done to it, such as <c>/undo</c>; nothing for planning it.</param>
    protected static async Task<HttpResponseMessage> StepAsync(
        Caller head,
        string path,
        string step = "",
        object? body = null
    )
    {
        var draft = (await head.GetAsync(path)).GetProperty("draft");
        var seen = draft.ValueKind == JsonValueKind.Null ? "" : $"?draft={draft.Text("id")}";
        var isPut = step.EndsWith("/pin", StringComparison.Ordinal) || step.EndsWith("/kept", StringComparison.Ordinal);
        return await head.SendAsync(isPut ? HttpMethod.Put : HttpMethod.Post, path + step + seen, body);
    }

    /// <summary>A register's request that says that somebody was seen and fine.</summary>
    protected static object SeenAndFine(string student, string posture, string side) =>
        Marked(student, posture, side, "fine");

    /// <summary>A register's request that says that somebody was seen with a fault, a known one or in own words.</summary>
    protected static object SeenWith(string student, string posture, string side, string words, Guid? faultId = null) =>
        Marked(student, posture, side, "fault", words, "shape", faultId);

    private static object Marked(
        string student,
        string posture,
        string side,
        string sign,
        string? words = null,
        string? weight = null,
        Guid? faultId = null
    ) =>
        new
        {
            marks = new[]
            {
                new
                {
                    id = Guid.NewGuid(),
                    studentId = student,
                    postureId = posture,
                    side,
                    sign,
                    stage = (string?)null,
                    faultId,
                    words,
                    weight,
                },
            },
        };

    /// <summary>What a register would send when every item of a lesson is ticked, or every tick taken away.</summary>
    protected static async Task<TaughtTick[]> TicksAsync(Caller caller, string lesson, bool taught) =>
        [
            .. (await caller.GetAsync($"{lesson}/register"))
                .GetProperty("cohorts")
                .EnumerateArray()
                .SelectMany(cohort =>
                    cohort
                        .GetProperty("items")
                        .EnumerateArray()
                        .Select(item => new TaughtTick(
                            Guid.CreateVersion7(),
                            cohort.Text("cohortId"),
                            item.Text("postureId"),
                            item.Text("side"),
                            item.Text("kind"),
                            item.GetProperty("from"),
                            item.Text("how"),
                            taught,
                            null
                        ))
                ),
        ];

    protected sealed record TaughtTick(
        Guid Id,
        string CohortId,
        string PostureId,
        string Side,
        string Kind,
        JsonElement? From,
        string How,
        bool Taught,
        decimal? Minutes
    );

    /// <summary>The school does a posture otherwise from the day before the next lesson on.</summary>
    protected static async Task ChangeAsync(Caller head, string postureId, string difference)
    {
        var posture = await head.GetAsync($"/api/postures/{postureId}");
        var text = JsonNode.Parse(posture.GetProperty("text").GetRawText())!;
        text["changes"] = new JsonArray(
            new JsonObject
            {
                ["id"] = $"{Guid.NewGuid()}",
                ["from"] = "2026-11-23",
                ["difference"] = difference,
            }
        );
        await head.PutAsync(
                $"/api/postures/{postureId}",
                new JsonObject { ["text"] = text, ["version"] = posture.GetProperty("version").GetInt64() }
            )
            .OkAsync();
    }

    protected static async Task<JsonElement> FormAsync(Caller caller)
    {
        var id = (await caller.GetAsync("/api/forms"))[0].Text("id");
        return await caller.GetAsync($"/api/forms/{id}");
    }
}

/// <summary>Somebody with a browser: cookies and the token that every change carries.</summary>
public sealed class Caller(HttpClient client)
{
    private string token = "";

    public HttpClient Client => client;

    public async Task RefreshTokenAsync() => token = (await GetAsync("/api/session")).Text("token");

    /// <summary>With the token another one got.</summary>
    public void GoOnFrom(Caller other) => token = other.token;

    public async Task<JsonElement> GetAsync(string path)
    {
        var response = await client.GetAsync(path);
        Assert.True(
            response.IsSuccessStatusCode,
            $"GET {path}: {(int)response.StatusCode} {await response.Content.ReadAsStringAsync()}"
        );
        return await response.Content.ReadFromJsonAsync<JsonElement>();
    }

    public Task<HttpResponseMessage> PostAsync(string path, object? body = null) =>
        SendAsync(HttpMethod.Post, path, body);

    public Task<HttpResponseMessage> PutAsync(string path, object? body = null) =>
        SendAsync(HttpMethod.Put, path, body);

    public Task<HttpResponseMessage> DeleteAsync(string path) => SendAsync(HttpMethod.Delete, path, null);

    /// <summary>A body as it is, whatever it is.</summary>
    public async Task<HttpResponseMessage> RawAsync(HttpMethod method, string path, string? body, string mediaType)
    {
        using var request = new HttpRequestMessage(method, path);
        request.Headers.Add("X-Zeitplan-Token", token);
        if (body is not null)
        {
            request.Content = new ByteArrayContent(Encoding.UTF8.GetBytes(body));
            request.Content.Headers.TryAddWithoutValidation("Content-Type", mediaType);
        }

        return await client.SendAsync(request);
    }

    public Task<HttpResponseMessage> SendAsync(HttpMethod method, string path, object? body) =>
        SendContentAsync(method, path, body is null ? null : JsonContent.Create(body));

    public async Task<HttpResponseMessage> SendContentAsync(HttpMethod method, string path, HttpContent? content)
    {
        using var request = new HttpRequestMessage(method, path);
        request.Headers.Add("X-Zeitplan-Token", token);
        request.Content = content;
        return await client.SendAsync(request);
    }
}

internal static class Reading
{
    public static string Text(this JsonElement element, string name) => element.GetProperty(name).GetString()!;

    public static async Task<JsonElement> ProblemAsync(this Task<HttpResponseMessage> sending, int status)
    {
        var response = await sending;
        var text = await response.Content.ReadAsStringAsync();
        Assert.True((int)response.StatusCode == status, $"expected {status}, was {(int)response.StatusCode}: {text}");
        Assert.Equal("application/problem+json", response.Content.Headers.ContentType?.MediaType);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    /// <summary>The fields a 400 complains about.</summary>
    public static async Task<string[]> FieldsAsync(this Task<HttpResponseMessage> sending)
    {
        var problem = await sending.ProblemAsync(400);
        Assert.Equal("urn:zeitplan:problem:invalid", problem.Text("type"));
        return [.. problem.GetProperty("errors").EnumerateObject().Select(error => error.Name)];
    }

    public static async Task OkAsync(this Task<HttpResponseMessage> sending)
    {
        var response = await sending;
        Assert.True(
            response.IsSuccessStatusCode,
            $"{(int)response.StatusCode}: {await response.Content.ReadAsStringAsync()}"
        );
    }
}
