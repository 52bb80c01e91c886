using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;

namespace Zeitplan.Server.Web;

/// <summary>A request that cannot be read is a 400 that says where: the path inside the JSON, or the part of the
/// address.</summary>
internal sealed class Unreadable(IProblemDetailsService problems) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        // One of several kinds of thing that does not say which of them it is.
        var bad = exception is NotSupportedException { Source: "System.Text.Json" }
            ? new BadHttpRequestException("It does not say what kind of thing it is.")
            : exception as BadHttpRequestException;
        if (bad is null)
        {
            return false;
        }

        httpContext.Response.StatusCode = bad.StatusCode;
        if (bad.StatusCode != StatusCodes.Status400BadRequest)
        {
            return await problems.TryWriteAsync(
                new()
                {
                    HttpContext = httpContext,
                    ProblemDetails = new() { Status = bad.StatusCode },
                }
            );
        }

        var json = bad.InnerException as JsonException;
        if (json?.Path is { Length: > 2 } path && json.Message.StartsWith("A ", StringComparison.Ordinal))
        {
            // A value of the job that refuses to be made says so in its own words: that is a problem of the field.
            var message = json.Message.Split(" Path: ", 2)[0];
            await Refusals.Invalid(path[2..], message).ExecuteAsync(httpContext);
            return true;
        }

        return await problems.TryWriteAsync(
            new()
            {
                HttpContext = httpContext,
                ProblemDetails = new ProblemDetails
                {
                    Status = bad.StatusCode,
                    Type = Refusals.Unreadable,
                    Title = "This cannot be read. Nothing was saved.",
                    Detail = json is null ? bad.Message : $"At {json.Path ?? "the start"}: {json.Message}",
                },
            }
        );
    }
}
