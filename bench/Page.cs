using System.Net.Http.Json;
using System.Text.Json;

namespace Zeitplan.Bench;

/// <summary>Somebody signed in as the head, reading over HTTP as the browser does.</summary>
internal sealed class Page : IDisposable
{
    private readonly HttpClient client;

    private Page(HttpClient client) => this.client = client;

    public static async Task<Page> SignInAsync()
    {
        var client = new HttpClient { BaseAddress = new(Environment.GetEnvironmentVariable("ZEITPLAN_BASE")!) };
        var session = await client.GetFromJsonAsync<JsonElement>("/api/session");
        client.DefaultRequestHeaders.Add("X-Zeitplan-Token", session.GetProperty("token").GetString());
        var response = await client.PostAsJsonAsync(
            "/api/session/sign-in",
            new { email = "head@heronquay.example", password = Environment.GetEnvironmentVariable("ZEITPLAN_PASSWORD") }
        );
        response.EnsureSuccessStatusCode();
        return new(client);
    }

    public async Task ReadAsync(string path)
    {
        using var response = await client.GetAsync(path, HttpCompletionOption.ResponseHeadersRead);
        response.EnsureSuccessStatusCode();
        await response.Content.CopyToAsync(Stream.Null);
    }

    public async Task SendAsync(string path, object body)
    {
        using var response = await client.PostAsJsonAsync(path, body);
        response.EnsureSuccessStatusCode();
    }

    public void Dispose() => client.Dispose();
}
