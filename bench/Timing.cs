using System.Diagnostics;

namespace Zeitplan.Bench;

/// <summary>Milliseconds of repeated runs, once the runtime has compiled what they call.</summary>
internal sealed record Timing(double P50, double P95)
{
    /// <summary>Runs are repeated uncounted for this long: before it the runtime still replaces its quick first
    /// code.</summary>
    private static readonly TimeSpan WarmUp = TimeSpan.FromSeconds(10);

    /// <summary>Everything is run a single time and nothing is measured: only to see that the benchmarks still fit what
    /// they measure.</summary>
    public static bool Once { get; set; }

    public static Timing Of(int runs, Action run) =>
        OfAsync(
                runs,
                () =>
                {
                    run();
                    return Task.CompletedTask;
                }
            )
            .GetAwaiter()
            .GetResult();

    public static async Task<Timing> OfAsync(int runs, Func<Task> run) =>
        (await OfBothAsync(runs, run, () => Task.CompletedTask)).One;

    /// <summary>Two things in turn, so that whatever else the machine does falls on both.</summary>
    public static async Task<(Timing One, Timing Other)> OfBothAsync(int runs, Func<Task> one, Func<Task> other)
    {
        for (var since = Stopwatch.StartNew(); !Once && since.Elapsed < WarmUp; )
        {
            await one();
            await other();
        }

        List<double> ones = [],
            others = [];
        for (var at = 0; at < (Once ? 1 : runs); at++)
        {
            ones.Add(await MillisecondsAsync(one));
            others.Add(await MillisecondsAsync(other));
        }

        return (Of(ones), Of(others));
    }

    /// <summary>What a page takes beside the bare SQL of the rows it needs.</summary>
    public static void Compare(string what, Timing page, Timing sql, Action<string, double, string> say)
    {
        say($"{what}, p50", page.P50, "ms");
        say($"{what}, p95", page.P95, "ms");
        say($"{what}, bare SQL, p50", sql.P50, "ms");
        say($"{what}, bare SQL, p95", sql.P95, "ms");
        say($"{what}, times the bare SQL", page.P50 / sql.P50, "×");
    }

    /// <summary>Of a single run, as it is for whoever comes first.</summary>
    public static async Task<double> MillisecondsAsync(Func<Task> run)
    {
        var watch = Stopwatch.StartNew();
        await run();
        return watch.Elapsed.TotalMilliseconds;
    }

    private static Timing Of(List<double> times)
    {
        times.Sort();
        return new(times[(int)((times.Count - 1) * 0.50)], times[(int)Math.Ceiling((times.Count - 1) * 0.95)]);
    }
}
