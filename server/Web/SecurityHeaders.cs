namespace Zeitplan.Server.Web;

internal static class SecurityHeaders
{
    /// <summary>
    /// Everything comes from here and from nowhere else; no inline script, and no inline style but the few elements
    /// that carry the nonce of the page they are in. WebAssembly may be compiled: the page walks steps with core's own
    /// rules.
    /// </summary>
    /// <param name="styleNonce">Of the page that is answered with; null for everything that is no page.</param>
    public static string ContentSecurityPolicy(string? styleNonce = null) =>
        $"default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self'{(styleNonce is null ? "" : $" 'nonce-{styleNonce}'")}; img-src 'self'; font-src 'self'; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    public static IApplicationBuilder UseSecurityHeaders(this IApplicationBuilder app) =>
        app.Use(
            (http, next) =>
            {
                var headers = http.Response.Headers;
                headers.ContentSecurityPolicy = ContentSecurityPolicy();
                headers.XContentTypeOptions = "nosniff";
                headers.XFrameOptions = "DENY";
                headers["Referrer-Policy"] = "same-origin";
                headers["Permissions-Policy"] = "camera=(), microphone=(), geolocation=()";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                if (http.Request.Path.StartsWithSegments("/api", StringComparison.OrdinalIgnoreCase))
                {
                    headers.CacheControl = "no-store";
                }

                return next(http);
            }
        );
}
