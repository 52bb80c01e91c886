using System.Security.Cryptography;
using Microsoft.Extensions.FileProviders;

namespace Zeitplan.Server.Web;

/// <summary>The one page, whatever its address; each answer carries a nonce of its own for the style elements its
/// scripts write.</summary>
internal static class Page
{
    private const string NoncePlace = "__STYLE_NONCE__";

    public static async Task<IResult> Serve(HttpContext http, IWebHostEnvironment environment, CancellationToken cancel)
    {
        var file = environment.WebRootFileProvider.GetFileInfo("index.html");
        if (!file.Exists)
        {
            return Results.NotFound();
        }

        var nonce = Convert.ToHexString(RandomNumberGenerator.GetBytes(16));
        var html = await ReadAsync(file, cancel);
        http.Response.Headers.ContentSecurityPolicy = SecurityHeaders.ContentSecurityPolicy(nonce);
        http.Response.Headers.CacheControl = "no-store";
        return Results.Text(html.Replace(NoncePlace, nonce, StringComparison.Ordinal), "text/html; charset=utf-8");
    }

    private static async Task<string> ReadAsync(IFileInfo file, CancellationToken cancel)
    {
        using var reader = new StreamReader(file.CreateReadStream());
        return await reader.ReadToEndAsync(cancel);
    }
}
