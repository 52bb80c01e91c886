using System.Diagnostics;

namespace Zeitplan.Bench;

/// <summary>Milliseconds of repeated runs, once the runtime has compiled what they call.</summary>
internal sealed record Timing(double P50, double P95)
{
    /// <summary>Runs are repeated uncounted for this long: before it the runtime still replaces its quick first code.</summary>
    private static readonly TimeSpan WarmUp = TimeSpan.FromSeconds(4);

    public static Timing Of(int runs, Action run) => OfAsync(runs, () =>
    {
        run();
        return Task.CompletedTask;
    }).GetAwaiter().GetResult();

    public static async Task<Timing> OfAsync(int runs, Func<Task> run)
    {
        for (var since = Stopwatch.StartNew(); since.Elapsed < WarmUp;)
        {
            await run();
        }

        List<double> times = [];
        for (var at = 0; at < runs; at++)
        {
            var watch = Stopwatch.StartNew();
            await run();
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        return new(times[(int)((runs - 1) * 0.50)], times[(int)Math.Ceiling((runs - 1) * 0.95)]);
    }
}
