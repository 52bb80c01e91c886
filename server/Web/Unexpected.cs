using System.Diagnostics;
using Microsoft.AspNetCore.Diagnostics;

namespace Zeitplan.Server.Web;

/// <summary>
/// Our own mistake: written down with a number, and the number is said to whoever met it. What is written down is where
/// it happened and never what was being worked on: messages may hold names.
/// </summary>
internal sealed partial class Unexpected(ILogger<Unexpected> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        if (httpContext.RequestAborted.IsCancellationRequested)
        {
            // Nobody is there to be answered, and nothing went wrong.
            httpContext.Response.StatusCode = StatusCodes.Status499ClientClosedRequest;
            return true;
        }

        LogUnexpected(
            log,
            httpContext.Request.Method,
            (httpContext.GetEndpoint() as RouteEndpoint)?.RoutePattern.RawText ?? "",
            Number(httpContext),
            string.Join(" < ", Chain(exception).Select(cause => cause.GetType().FullName)),
            exception.StackTrace ?? ""
        );
        await Refusals.Unexpected(Number(httpContext)).ExecuteAsync(httpContext);
        return true;
    }

    /// <summary>One request's number, in the log and on the screen.</summary>
    public static string Number(HttpContext http) => Activity.Current?.TraceId.ToString() ?? http.TraceIdentifier;

    private static IEnumerable<Exception> Chain(Exception exception)
    {
        for (var cause = exception; cause is not null; cause = cause.InnerException)
        {
            yield return cause;
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "{Method} {Route} failed ({TraceId}): {Causes} {Where}")]
    private static partial void LogUnexpected(
        ILogger log,
        string method,
        string route,
        string traceId,
        string causes,
        string where
    );
}
