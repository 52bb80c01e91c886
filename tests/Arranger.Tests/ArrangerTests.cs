using System.Diagnostics;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger.Tests;

public sealed class ArrangerTests
{
    [Fact]
    public void Try()
    {
        foreach (var (c, t, m) in new[] { (6, 3, 90), (5, 3, 90), (4, 2, 90), (10, 5, 120) })
        {
            for (var seed = 0; seed < 4; seed++)
            {
                var problem = GeneratedLesson.Of(seed, c, t, m);
                var watch = Stopwatch.StartNew();
                var found = LessonArranger.Arrange(problem);
                var rows = ArrangementTable.Of(
                    found,
                    problem.Cohorts.ToDictionary(x => x.Id, x => x.Name),
                    problem.Teachers.ToDictionary(x => x.Id, x => x.Name)
                );
                var broken = ArrangementCheck.Broken(rows, problem);
                Console.WriteLine(
                    $"{c}x{t}x{m} seed {seed}: {watch.ElapsedMilliseconds} ms, {found.Points} of {found.Bound} gap {found.Gap:P1}, short {found.Shortfalls.Count}, broken {broken.Count} {string.Join(" | ", broken.Take(2).Select(b => b.Says))} {string.Join(" | ", found.Shortfalls.Take(2).Select(b => b.Says))}"
                );
            }
        }
    }
}
