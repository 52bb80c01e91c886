using Zeitplan.Server.Data;

namespace Zeitplan.Server.Web;

/// <summary>Every request is about the school whose name it was sent to.</summary>
internal static class SchoolByHost
{
    public static IApplicationBuilder UseSchoolByHost(this IApplicationBuilder app) =>
        app.Use(
            async (http, next) =>
            {
                http.RequestServices.GetRequiredService<CurrentSchool>().Is(await OfAsync(http));
                await next(http);
            }
        );

    /// <summary>The school a request is about, for what works beside it in a scope of its own.</summary>
    public static async Task<SchoolDatabase> OfAsync(HttpContext http) =>
        await http
            .RequestServices.GetRequiredService<SchoolDatabases>()
            .AtAsync(http.Request.Host.Host, http.RequestAborted);
}
