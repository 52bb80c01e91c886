using System.Diagnostics;
using Zeitplan.Arranger;
using Zeitplan.Arranger.Tests;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Lessons.Zones;

namespace Zeitplan.Bench;

/// <summary>Lessons arranged by the program, beside the same lessons as a careful teacher would arrange them on
/// paper.</summary>
internal static class LessonBench
{
    private const int Lessons = 40;

    /// <summary>How much of the hall somebody needs side to side, metres: a section, half of it, a posture.</summary>
    private static readonly double[] Widths = [5.0, 3.0, 2.2];

    public static void Run(Action<string, double, string> say)
    {
        // A school's process has arranged lessons before, and is compiled by then: as many others as are measured.
        var first = Stopwatch.StartNew();
        for (var seed = Lessons; seed < Lessons + (Timing.Once ? 1 : Lessons); seed++)
        {
            LessonArranger.Arrange(GeneratedLesson.Of(seed, 6, 3, 90));
            if (seed == Lessons)
            {
                say("arranged, the first lesson after a start", first.Elapsed.TotalMilliseconds, "ms");
            }
        }

        Measure("6 cohorts, 3 teachers, 90 min", 6, 3, 90, Timing.Once ? 1 : Lessons, say);
        Measure("10 cohorts, 5 teachers, 120 min", 10, 5, 120, Timing.Once ? 0 : 6, say);
        ByHand(Timing.Once ? 1 : Lessons, say);
        FromTheMiddle(Timing.Once ? 1 : Lessons, say);
        OnTheFloor(Timing.Once ? 1 : Lessons, say);
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
        var proven = 0;
        var (whole, wholeOnPaper, alone, aloneOnPaper, crossings, crossingsOnPaper) = (0, 0, 0, 0, 0, 0);
        for (var seed = 0; seed < count; seed++)
        {
            var problem = GeneratedLesson.Of(seed, cohorts, teachers, minutes);
            var watch = Stopwatch.StartNew();
            var found = LessonArranger.Arrange(problem);
            times.Add(watch.Elapsed.TotalMilliseconds);
            var paper = LessonArranger.OnPaper(problem);
            whole += found.Shortfalls.Count == 0 ? 1 : 0;
            proven += found.MeetsNeedsBest ? 1 : 0;
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
        say($"of {count} proven that nobody can be led or seen better, {what}", proven, "");
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

    /// <summary>Something new is moved by two minutes: what stays where it was, beside the lesson arranged anew.</summary>
    private static void ByHand(int count, Action<string, double, string> say)
    {
        List<double> times = [];
        var (others, stay, stayAnew, undone, undoneAnew) = (0, 0, 0, 0, 0);
        for (var seed = 0; seed < count; seed++)
        {
            var problem = GeneratedLesson.Of(seed, 6, 3, 90);
            var stood = LessonArranger.Arrange(problem);
            var block = stood.Blocks.First(block => block.Kind == BlockKind.New);
            var now = problem.With(new LessonEdit.Pin(block.Task!, block.Start + 2, block.LedBy));
            var watch = Stopwatch.StartNew();
            var moved = LessonArranger.Arrange(now, stood);
            times.Add(watch.Elapsed.TotalMilliseconds);
            var anew = LessonArranger.Arrange(now);
            var asked = stood.Blocks.Where(other => other.Task is not null && other.Task != block.Task).ToList();
            others += asked.Count;
            (stay, stayAnew) = (stay + asked.Count(StaysIn(moved)), stayAnew + asked.Count(StaysIn(anew)));
            (undone, undoneAnew) = (undone + moved.Shortfalls.Count, undoneAnew + anew.Shortfalls.Count);
        }

        times.Sort();
        say("a block moved by hand, p50", times[times.Count / 2], "ms");
        say("a block moved by hand, p95", times[(int)(times.Count * 0.95)], "ms");
        say("of the others stay", 100.0 * stay / others, $"%; {100.0 * stayAnew / others:0} % anew");
        say($"without room then, in {count} lessons", undone, $"; {undoneAnew} anew");

        static Func<ArrangedBlock, bool> StaysIn(Arrangement arrangement) =>
            other =>
                arrangement.Blocks.Any(now =>
                    (now.Task, now.Start, now.LedBy) == (other.Task, other.Start, other.LedBy)
                );
    }

    /// <summary>Twelve minutes are lost at minute 40, and the rest is arranged anew; beside the whole lesson from its
    /// beginning.</summary>
    private static void FromTheMiddle(int count, Action<string, double, string> say)
    {
        List<double> times = [];
        var (kept, asked) = (0, 0);
        for (var seed = 0; seed < count; seed++)
        {
            var problem = GeneratedLesson.Of(seed, 6, 3, 90);
            var stood = LessonArranger.Arrange(problem);
            var now = problem.With(new LessonEdit.Since(40, 52, "", stood.Blocks));
            var watch = Stopwatch.StartNew();
            var found = LessonArranger.Arrange(now, stood);
            times.Add(watch.Elapsed.TotalMilliseconds);
            asked += now.Tasks.Count;
            kept += now.Tasks.Count - found.Shortfalls.Count(shortfall => shortfall.Task is not null);
        }

        times.Sort();
        say("arranged anew from minute 40, 12 lost, p50", times[times.Count / 2], "ms");
        say("arranged anew from minute 40, 12 lost, p95", times[(int)(times.Count * 0.95)], "ms");
        say("of what was still asked there is, 12 minutes lost", 100.0 * kept / Math.Max(1, asked), "%");
    }

    /// <summary>A hall of 14 by 10.5 metres, six groups, twenty stretches; beside every stretch by itself.</summary>
    private static void OnTheFloor(int count, Action<string, double, string> say)
    {
        var hall = new HallFloor(14, 10.5, 6.6, Wall.Left, 12);
        List<double> times = [];
        var (moves, movesApart, stretches) = (0, 0, 0);
        for (var seed = 0; seed < count; seed++)
        {
            var random = new Random(seed);
            List<FloorTime> lesson = [.. Enumerable.Range(0, 20).Select(at => Asks(at, random))];
            var watch = Stopwatch.StartNew();
            var plan = ZonePlanner.Of(hall, lesson);
            times.Add(watch.Elapsed.TotalMilliseconds / lesson.Count);
            moves += plan.Sum(stretch => stretch.Moved.Count);
            var apart = lesson.SelectMany(time => ZonePlanner.Of(hall, [time])).ToList();
            movesApart += apart
                .Zip(apart.Skip(1))
                .Sum(pair =>
                    pair.Second.Zones.Count(zone =>
                        pair.First.Zones.Any(was => was.GroupId == zone.GroupId && !was.Overlaps(zone))
                    )
                );
            stretches += lesson.Count;
        }

        times.Sort();
        say("floor of a stretch, 6 groups, p95", times[(int)(times.Count * 0.95)], "ms");
        say(
            "moves of a group in a lesson",
            (double)moves / count,
            $"; {(double)movesApart / count:0.#} where each stretch is planned by itself"
        );

        static FloorTime Asks(int at, Random random) =>
            new(
                at,
                at + 1,
                [
                    .. Enumerable
                        .Range(1, 6)
                        .Select(group => new FloorAsk(
                            new Guid(group, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0),
                            $"group {group}",
                            4 + (group % 3),
                            group == 6 ? Support.Hold : Support.None,
                            [
                                .. Widths
                                    .Skip(random.Next(3))
                                    .Select(width => new FloorPart("", new(-0.75, -0.75, width - 0.75, 1.25))),
                            ]
                        )),
                ]
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
