using Microsoft.AspNetCore.StaticFiles;

namespace Zeitplan.Server.Web;

/// <summary>Files that lie there compressed as well (<c>name.br</c>) are sent so to whoever can read it: compressing the
/// page's engine anew for every visit takes a second, and its scripts come a third larger when they are compressed in
/// haste.</summary>
internal static class Precompressed
{
    public static IApplicationBuilder UsePrecompressedFiles(this IApplicationBuilder app, params string[] below) =>
        app.Use(
            (http, next) =>
            {
                var request = http.Request;
                if (
                    below.Any(folder => request.Path.StartsWithSegments(folder, StringComparison.Ordinal))
                    && request.Headers.AcceptEncoding.ToString().Contains("br", StringComparison.Ordinal)
                    && http.RequestServices.GetRequiredService<IWebHostEnvironment>()
                        .WebRootFileProvider.GetFileInfo($"{request.Path}.br")
                        .Exists
                )
                {
                    http.Response.Headers.ContentEncoding = "br";
                    http.Response.Headers.Vary = "Accept-Encoding";
                    request.Path += ".br";
                }

                return next(http);
            }
        );

    /// <summary>What a file is, compressed or not.</summary>
    public sealed class ContentTypes : IContentTypeProvider
    {
        private readonly FileExtensionContentTypeProvider usual = new();

        public bool TryGetContentType(string subpath, out string contentType) =>
            usual.TryGetContentType(
                subpath.EndsWith(".br", StringComparison.Ordinal) ? subpath[..^3] : subpath,
                out contentType!
            );
    }
}
