using System.Diagnostics;

namespace Zeitplan.Bench;

/// <summary>Milliseconds of repeated runs, the first few not counted.</summary>
internal sealed record Timing(double P50, double P95)
{
    private const int WarmUp = 5;

    public static Timing Of(int runs, Action run) => OfAsync(runs, () =>
    {
        run();
        return Task.CompletedTask;
    }).GetAwaiter().GetResult();

    public static async Task<Timing> OfAsync(int runs, Func<Task> run)
    {
        List<double> times = [];
        for (var at = 0; at < WarmUp + runs; at++)
        {
            var watch = Stopwatch.StartNew();
            await run();
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        var sorted = times.Skip(WarmUp).Order().ToList();
        return new(sorted[(int)((sorted.Count - 1) * 0.50)], sorted[(int)Math.Ceiling((sorted.Count - 1) * 0.95)]);
    }
}
