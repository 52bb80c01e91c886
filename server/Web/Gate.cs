using System.Net.Mime;
using System.Text;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.Net.Http.Headers;
using Zeitplan.Core;
using Zeitplan.Core.Exchange;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Web;

/// <summary>What every request to the API goes through before an endpoint sees it.</summary>
internal static class Gate
{
    /// <summary>A change comes from our own page or not at all.</summary>
    public static async ValueTask<object?> RequireToken(
        EndpointFilterInvocationContext context,
        EndpointFilterDelegate next
    )
    {
        var http = context.HttpContext;
        return
            HttpMethods.IsGet(http.Request.Method)
            || await http.RequestServices.GetRequiredService<IAntiforgery>().IsRequestValidAsync(http)
            ? await next(context)
            : Refusals.OtherPage();
    }

    /// <summary>Nothing that cannot mean anything reaches a rule or the database; each problem stands at its
    /// place.</summary>
    public static EndpointFilterDelegate RequireSense(EndpointFilterFactoryContext factory, EndpointFilterDelegate next)
    {
        var sent = factory
            .MethodInfo.GetParameters()
            .Index()
            .Where(parameter => IsSent(parameter.Item.ParameterType))
            .Select(parameter =>
                (parameter.Index, Field: IsBody(parameter.Item.ParameterType) ? "" : parameter.Item.Name ?? "")
            )
            .ToList();
        return sent.Count == 0
            ? next
            : context =>
            {
                List<Problem> problems = [];
                foreach (var (index, field) in sent)
                {
                    problems.AddRange(SoundInput.Check(context.Arguments[index], field));
                }

                return problems.Count > 0 ? ValueTask.FromResult<object?>(Refusals.Invalid(problems)) : next(context);
            };
    }

    /// <summary>What is sent is JSON, and JSON is UTF-8 (RFC 8259); anything else is refused before somebody tries to
    /// read it.</summary>
    public static IApplicationBuilder UseOnlyJson(this IApplicationBuilder app) =>
        app.Use(
            (http, next) =>
            {
                if (
                    // The one file that comes as it is, because it may be large.
                    http.Request.Path != ArchiveEndpoints.Address
                    && http.Request.ContentType is { } sent
                    && !(
                        MediaTypeHeaderValue.TryParse(sent, out var type)
                        && type.MediaType.Equals(MediaTypeNames.Application.Json, StringComparison.OrdinalIgnoreCase)
                        && (
                            !type.Charset.HasValue
                            || type.Charset.Equals(Encoding.UTF8.WebName, StringComparison.OrdinalIgnoreCase)
                        )
                    )
                )
                {
                    http.Response.StatusCode = StatusCodes.Status415UnsupportedMediaType;
                    return Task.CompletedTask;
                }

                return next(http);
            }
        );

    private static bool IsSent(Type type)
    {
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        return plain == typeof(string) || plain == typeof(DateOnly) || plain.IsEnum || IsBody(plain);
    }

    /// <summary>The records declared beside endpoints; services are classes of their own.</summary>
    private static bool IsBody(Type type) =>
        type.IsNested && type.Assembly == typeof(Gate).Assembly && type.GetMethod("<Clone>$") is not null;
}
