using System.Globalization;
using System.Threading.RateLimiting;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Web;

/// <summary>
/// Planning and reading files keep a processor busy for long, so they take turns: what is tapped in the hall never waits
/// for them, and what they hold in memory at once is bounded. Whoever would wait too long is told so.
/// </summary>
internal static class WorkQueue
{
    /// <summary>How many may wait for their turn.</summary>
    public const int Places = 30;

    private const int RetryAfterSeconds = 5;

    /// <summary>One processor is left to everything else.</summary>
    private static int AtOnce => Math.Max(1, Environment.ProcessorCount - 1);

    /// <summary>Each school waits in a queue of its own, and only the first of each stand in the queue of all: however
    /// much one of them asks for, the others come next.</summary>
    public static void Add(IServiceCollection services) =>
        services.AddRateLimiter(limits =>
        {
            limits.GlobalLimiter = PartitionedRateLimiter.CreateChained(
                InTurn(http => http.RequestServices.GetRequiredService<CurrentSchool>().Database.Name, Places),
                InTurn(_ => "all", int.MaxValue)
            );
            limits.OnRejected = async (refused, _) =>
            {
                refused.HttpContext.Response.Headers.RetryAfter = RetryAfterSeconds.ToString(
                    CultureInfo.InvariantCulture
                );
                await Refusals.Busy().ExecuteAsync(refused.HttpContext);
            };
        });

    private static PartitionedRateLimiter<HttpContext> InTurn(Func<HttpContext, string> queue, int places) =>
        PartitionedRateLimiter.Create<HttpContext, string>(http =>
            http.GetEndpoint()?.Metadata.GetMetadata<Turns>() is null
                ? RateLimitPartition.GetNoLimiter("")
                : RateLimitPartition.GetConcurrencyLimiter(
                    queue(http),
                    _ =>
                        new()
                        {
                            PermitLimit = AtOnce,
                            QueueLimit = places,
                            QueueProcessingOrder = QueueProcessingOrder.OldestFirst,
                        }
                )
        );

    private sealed record Turns;

    /// <summary>The endpoint waits for its turn.</summary>
    public static T TakesATurn<T>(this T endpoint)
        where T : IEndpointConventionBuilder => endpoint.WithMetadata(new Turns()).ProducesProblem(429);
}
