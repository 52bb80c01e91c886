using System.Globalization;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.RateLimiting;

namespace Zeitplan.Server.Web;

/// <summary>
/// Planning and reading files keep a processor busy for long, so they take turns: what is tapped in the hall never waits
/// for them, and what they hold in memory at once is bounded. Whoever would wait too long is told so.
/// </summary>
internal static class WorkQueue
{
    /// <summary>How many may wait for their turn.</summary>
    public const int Places = 30;

    private const string Name = "work";
    private const int RetryAfterSeconds = 5;

    /// <summary>One processor is left to everything else.</summary>
    private static int AtOnce => Math.Max(1, Environment.ProcessorCount - 1);

    public static void Add(IServiceCollection services) =>
        services.AddRateLimiter(limits =>
        {
            limits.AddConcurrencyLimiter(
                Name,
                queue =>
                    (queue.PermitLimit, queue.QueueLimit, queue.QueueProcessingOrder) = (
                        AtOnce,
                        Places,
                        QueueProcessingOrder.OldestFirst
                    )
            );
            limits.OnRejected = async (refused, _) =>
            {
                refused.HttpContext.Response.Headers.RetryAfter = RetryAfterSeconds.ToString(
                    CultureInfo.InvariantCulture
                );
                await Refusals.Busy().ExecuteAsync(refused.HttpContext);
            };
        });

    /// <summary>The endpoint waits for its turn.</summary>
    public static T TakesATurn<T>(this T endpoint)
        where T : IEndpointConventionBuilder => endpoint.RequireRateLimiting(Name).ProducesProblem(429);
}
