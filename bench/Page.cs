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
        await RefreshTokenAsync(client);
        var response = await client.PostAsJsonAsync(
            "/api/session/sign-in",
            new { email = "head@heronquay.example", password = Environment.GetEnvironmentVariable("ZEITPLAN_PASSWORD") }
        );
        response.EnsureSuccessStatusCode();
        // The token of every change is that of whoever is signed in.
        await RefreshTokenAsync(client);
        return new(client);
    }

    private static async Task RefreshTokenAsync(HttpClient client)
    {
        const string header = "X-Zeitplan-Token";
        var session = await client.GetFromJsonAsync<JsonElement>("/api/session");
        client.DefaultRequestHeaders.Remove(header);
        client.DefaultRequestHeaders.Add(header, session.GetProperty("token").GetString());
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

    /// <summary>Takes a roster in; one that is refused is a mistake of the measurement.</summary>
    public async Task ImportAsync(string fileName, byte[] file)
    {
        using var response = await client.PostAsJsonAsync(
            "/api/roster/imports",
            new
            {
                id = Guid.CreateVersion7(),
                fileName,
                file,
                answers = new { },
            }
        );
        var last = (await response.Content.ReadAsStringAsync()).TrimEnd().Split('\n')[^1];
        if (!response.IsSuccessStatusCode || !last.Contains("\"kept\":true", StringComparison.Ordinal))
        {
            throw new InvalidOperationException($"The roster was not taken in: {last}");
        }
    }

    /// <returns>The status: a refusal is an answer too.</returns>
    public async Task<int> TryAsync(HttpMethod method, string path, HttpContent? body = null)
    {
        using var request = new HttpRequestMessage(method, path) { Content = body };
        using var response = await client.SendAsync(request);
        await response.Content.CopyToAsync(Stream.Null);
        return (int)response.StatusCode;
    }

    public void Dispose() => client.Dispose();
}
