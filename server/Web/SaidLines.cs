using System.Text.Json;

namespace Zeitplan.Server.Web;

/// <summary>An answer that takes a while: a line of JSON at a time says how far it is.</summary>
internal static class SaidLines
{
    public const string ContentType = "application/x-ndjson";

    public static async Task SayAsync<T>(this HttpContext http, T progress, CancellationToken cancel)
    {
        await http.Response.WriteAsync(JsonSerializer.Serialize(progress, JsonSerializerOptions.Web) + "\n", cancel);
        await http.Response.Body.FlushAsync(cancel);
    }
}
