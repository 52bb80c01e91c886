using System.Diagnostics;
using Zeitplan.Arranger;
using Zeitplan.Arranger.Tests;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Bench;

/// <summary>Lessons arranged by the program, beside the same lessons as a careful teacher would arrange them on
/// paper.</summary>
internal static class LessonBench
{
    private const int Lessons = 40;

    public static void Run(Action<string, double, string> say)
    {
        Measure("6 cohorts, 3 teachers, 90 min", 6, 3, 90, Timing.Once ? 1 : Lessons, say);
        Measure("10 cohorts, 5 teachers, 120 min", 10, 5, 120, Timing.Once ? 0 : 6, say);
    }

    private static void Measure(
        string what,
        int cohorts,
        int teachers,
        int minutes,
        int count,
        Action<string, double, string> say
    )
    {
        List<double> times = [];
        List<double> gaps = [];
        var (whole, wholeOnPaper, alone, aloneOnPaper, crossings, crossingsOnPaper) = (0, 0, 0, 0, 0, 0);
        for (var seed = 0; seed < count; seed++)
        {
            var problem = GeneratedLesson.Of(seed, cohorts, teachers, minutes);
            var watch = Stopwatch.StartNew();
            var found = LessonArranger.Arrange(problem);
            times.Add(watch.Elapsed.TotalMilliseconds);
            var paper = LessonArranger.OnPaper(problem);
            whole += found.Shortfalls.Count == 0 ? 1 : 0;
            wholeOnPaper += paper.Shortfalls.Count == 0 ? 1 : 0;
            (alone, aloneOnPaper) = (alone + Alone(found), aloneOnPaper + Alone(paper));
            (crossings, crossingsOnPaper) = (crossings + Crossings(found), crossingsOnPaper + Crossings(paper));
            if (found.Shortfalls.Count == 0)
            {
                gaps.Add(found.Gap * 100);
            }
        }

        if (count == 0)
        {
            return;
        }

        times.Sort();
        gaps.Sort();
        say($"arranged, {what}, p50", times[times.Count / 2], "ms");
        say($"arranged, {what}, p95", times[(int)(times.Count * 0.95)], "ms");
        say($"whole lessons of {count}, {what}", whole, $"; {wholeOnPaper} on paper");
        say($"farthest from the bound where whole, {what}, p50", gaps.Count == 0 ? 100 : gaps[gaps.Count / 2], "%");
        say(
            $"minutes alone in a lesson, {what}",
            (double)alone / count,
            $"; {(double)aloneOnPaper / count:0.#} on paper"
        );
        say(
            $"crossings in a lesson, {what}",
            (double)crossings / count,
            $"; {(double)crossingsOnPaper / count:0.#} on paper"
        );
    }

    private static int Alone(Arrangement arrangement) =>
        arrangement.Blocks.Where(block => block.Kind == BlockKind.OwnPractice).Sum(block => block.Minutes)
        - arrangement.Blocks.Where(block => block.Kind == BlockKind.Visit).Sum(block => block.Minutes);

    private static int Crossings(Arrangement arrangement) =>
        arrangement
            .Blocks.Where(block => block is { LedBy: not null, CohortId: not null })
            .GroupBy(block => block.LedBy)
            .Sum(led =>
            {
                var cohorts = led.OrderBy(block => block.Start).Select(block => block.CohortId).ToList();
                return cohorts.Zip(cohorts.Skip(1)).Count(pair => pair.First != pair.Second);
            });
}
