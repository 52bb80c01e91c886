using Npgsql;
using OpenTelemetry;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;

namespace Zeitplan.Server.Web;

/// <summary>Metrics and traces for whoever looks after the machine, by OTLP to the collector that
/// <c>OTEL_EXPORTER_OTLP_ENDPOINT</c> names; without one nothing is measured. No name and no word of a school is in
/// them: addresses of the API have identifiers only.</summary>
internal static class Telemetry
{
    public static void Add(IServiceCollection services, IConfiguration configuration)
    {
        if (configuration["OTEL_EXPORTER_OTLP_ENDPOINT"] is not { Length: > 0 })
        {
            return;
        }

        services
            .AddOpenTelemetry()
            .ConfigureResource(resource => resource.AddService("zeitplan"))
            .WithMetrics(metrics =>
                metrics
                    .AddMeter(
                        "Microsoft.AspNetCore.Hosting",
                        "Microsoft.AspNetCore.Server.Kestrel",
                        "Microsoft.AspNetCore.RateLimiting",
                        "System.Runtime"
                    )
                    .AddNpgsqlInstrumentation()
            )
            .WithTracing(traces =>
                traces
                    .AddAspNetCoreInstrumentation(requests =>
                        requests.Filter = http => http.Request.Path.StartsWithSegments("/api")
                    )
                    .AddNpgsql()
            )
            .UseOtlpExporter();
    }
}
