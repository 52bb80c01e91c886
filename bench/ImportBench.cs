using System.Diagnostics;
using System.Text;
using MiniExcelLibs;

namespace Zeitplan.Bench;

/// <summary>A roster of 5,000 people out of a workbook, beside as many out of a text file, and what the server holds in
/// memory for it.</summary>
internal static class ImportBench
{
    private const int MostSeconds = 10;
    private const int MostMegabytes = 300;

    private static int People => Timing.Once ? 50 : 5000;

    public static async Task RunAsync(Page page, Action<string, double, string> say)
    {
        var rest = LoadBench.Megabytes("VmRSS");
        await page.ImportAsync("roster.csv", Encoding.UTF8.GetBytes(Text("Text")));
        var fromText = await SecondsAsync(() => page.ImportAsync("roster.csv", Encoding.UTF8.GetBytes(Text("Lines"))));
        var fromWorkbook = await SecondsAsync(() => page.ImportAsync("roster.xlsx", Workbook()));
        say($"import of {People} people, text", fromText, "s");
        say($"import of {People} people, workbook", fromWorkbook, $"s of at most {MostSeconds}");
        say(
            $"memory at most above rest, import of {People}",
            LoadBench.Megabytes("VmHWM") - rest,
            $"MB of at most {MostMegabytes}"
        );
    }

    private static async Task<double> SecondsAsync(Func<Task> run)
    {
        var since = Stopwatch.StartNew();
        await run();
        return since.Elapsed.TotalSeconds;
    }

    private static IEnumerable<string[]> Lines(string family) =>
        Enumerable
            .Range(0, People)
            .Select(at => new[] { $"Given{at}", family, "Ivory", "2026-09-01", "+44 1632 960107" });

    private static string Text(string family) =>
        string.Join('\n', Lines(family).Prepend(Header).Select(cells => string.Join(';', cells)));

    private static readonly string[] Header = ["Given name", "Family name", "Sash", "Joined", "Telephone"];

    private static byte[] Workbook()
    {
        using var file = new MemoryStream();
        file.SaveAs(
            Lines("Workbook")
                .Select(cells => Header.Zip(cells).ToDictionary(cell => cell.First, cell => (object)cell.Second))
        );
        return file.ToArray();
    }
}
