using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Web;

/// <summary>For whoever looks after the machine: whether the program runs (<c>/health/live</c>), and whether it can be
/// sent people (<c>/health/ready</c>: its database answers). Neither says anything about the school.</summary>
internal static class Health
{
    private const string Ready = "ready";

    public static void Add(IServiceCollection services) =>
        services.AddHealthChecks().AddCheck<DatabaseAnswers>("database", tags: [Ready]);

    public static void Map(IEndpointRouteBuilder app)
    {
        app.MapHealthChecks("/health/live", new() { Predicate = _ => false }).AllowAnonymous();
        app.MapHealthChecks("/health/ready", new HealthCheckOptions { Predicate = check => check.Tags.Contains(Ready) })
            .AllowAnonymous();
    }

    private sealed class DatabaseAnswers(SchoolContext db) : IHealthCheck
    {
        public async Task<HealthCheckResult> CheckHealthAsync(
            HealthCheckContext context,
            CancellationToken cancellationToken = default
        ) =>
            await db.Database.CanConnectAsync(cancellationToken)
                ? HealthCheckResult.Healthy()
                : HealthCheckResult.Unhealthy("The database does not answer.");
    }
}
