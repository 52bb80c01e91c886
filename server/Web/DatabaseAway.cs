using System.Net.Sockets;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Npgsql;

namespace Zeitplan.Server.Web;

/// <summary>A database that does not answer is a 503 that says so: nothing was saved, and the next try may
/// succeed.</summary>
internal sealed partial class DatabaseAway(IProblemDetailsService problems, ILogger<DatabaseAway> log)
    : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        if (!IsSaidBy(exception))
        {
            return false;
        }

        LogAway(log, exception.Message);
        httpContext.Response.StatusCode = StatusCodes.Status503ServiceUnavailable;
        httpContext.Response.Headers.RetryAfter = "5";
        return await problems.TryWriteAsync(
            new()
            {
                HttpContext = httpContext,
                ProblemDetails = new ProblemDetails
                {
                    Status = StatusCodes.Status503ServiceUnavailable,
                    Type = Refusals.DatabaseAway,
                    Title = "The database does not answer. Nothing was saved; try again in a moment.",
                },
            }
        );
    }

    public static bool IsSaidBy(Exception exception) => Chain(exception).Any(IsAway);

    /// <summary>Nobody listens, nothing is free, it is being shut down, or it is gone and may be restored.</summary>
    private static bool IsAway(Exception exception) =>
        exception
            is SocketException
                or NpgsqlException { IsTransient: true }
                or PostgresException { SqlState: ['5', '3' or '7', ..] or PostgresErrorCodes.InvalidCatalogName };

    private static IEnumerable<Exception> Chain(Exception exception)
    {
        for (var current = exception; current is not null; current = current.InnerException)
        {
            yield return current;
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The database does not answer: {Reason}")]
    private static partial void LogAway(ILogger log, string reason);
}
