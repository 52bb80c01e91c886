using System.Globalization;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>Something that could be done so that more of a lesson has room; it has been tried.</summary>
/// <param name="Says">As it goes on after "would help": "Mirja until minute 45".</param>
/// <param name="Left">How many things still have no room then: fewer than before, or as many for fewer minutes.</param>
public sealed record LessonWay(string Says, IReadOnlyList<LessonEdit> Edits, int Left);

/// <summary>Why a lesson cannot have everything that is asked of it.</summary>
/// <param name="Collide">Cohorts whose wishes have no room together; without any one of them, those of the others
/// have.</param>
/// <param name="Ways">The best first.</param>
public sealed record Collision(IReadOnlyList<Guid> Collide, IReadOnlyList<LessonWay> Ways);

/// <summary>Finds out what collides in a lesson, and what would help (domain.md 4.4): by arranging it otherwise, not by
/// guessing.</summary>
public static class WaysOut
{
    private const int Longer = 10;
    private const int MoreAlone = 2;
    private const int MostLeftOut = 4;
    private const int MostSaid = 6;
    private static readonly int[] Stay = [20, 40];

    /// <param name="now">The lesson as it is arranged: what helps leaves less undone than that.</param>
    /// <param name="others">Who else could be asked to teach tonight.</param>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more: it takes as long as arranging the lesson some
    /// twenty times.</exception>
    public static Collision Of(
        LessonProblem problem,
        Arrangement now,
        IReadOnlyList<TeacherHere> others,
        CancellationToken cancel
    )
    {
        var missing = now.Shortfalls.Count;
        if (missing == 0)
        {
            return new([], []);
        }

        List<(LessonWay Way, long Points)> ways = [];
        foreach (var other in others.Where(other => Helps(Stays(problem, other, problem.Minutes))))
        {
            // Perhaps a part of the lesson is enough.
            foreach (var until in Stay.Select(stay => problem.Begins + stay).Where(until => until < problem.Minutes))
            {
                Helps(Stays(problem, other, until));
            }
        }

        foreach (var candidate in Candidates(problem))
        {
            Helps(candidate);
        }

        return new(
            Collide(problem, cancel),
            [.. ways.OrderBy(way => way.Points).Take(MostSaid).Select(way => way.Way)]
        );

        bool Helps((string Says, IReadOnlyList<LessonEdit> Edits) candidate)
        {
            cancel.ThrowIfCancellationRequested();
            var then = LessonArranger.Roughly(problem.With(candidate.Edits));
            var left = then.Shortfalls.Count;
            var helps = left < missing || (left == missing && then.Points <= now.Points - Measures.TooLong);
            if (helps)
            {
                ways.Add((new(candidate.Says, candidate.Edits, left), then.Points));
            }

            return helps;
        }
    }

    private static int Missing(LessonProblem problem) => LessonArranger.Roughly(problem).Shortfalls.Count;

    /// <summary>Leaves out one cohort after the other as long as it still does not fit: what is left over cannot do with
    /// any less.</summary>
    private static List<Guid> Collide(LessonProblem problem, CancellationToken cancel)
    {
        var among = problem;
        foreach (var cohort in problem.Cohorts)
        {
            cancel.ThrowIfCancellationRequested();
            var without = Without(among, cohort.Id);
            if (without.Cohorts.Count > 0 && Missing(without) > 0)
            {
                among = without;
            }
        }

        return [.. among.Cohorts.Select(cohort => cohort.Id)];
    }

    private static LessonProblem Without(LessonProblem problem, Guid cohort)
    {
        List<LessonTask> tasks = [.. problem.Tasks.Where(task => !task.CohortIds.Contains(cohort))];
        return problem with
        {
            Cohorts = [.. problem.Cohorts.Where(its => its.Id != cohort)],
            Tasks = tasks,
            Pins = [.. problem.Pins.Where(pin => tasks.Exists(task => task.Key == pin.Key))],
        };
    }

    private static (string Says, IReadOnlyList<LessonEdit> Edits) Stays(
        LessonProblem problem,
        TeacherHere other,
        int until
    ) =>
        (
            until == problem.Minutes
                ? $"{other.Name} for the whole lesson"
                : string.Create(CultureInfo.InvariantCulture, $"{other.Name} until minute {until}"),
            [new LessonEdit.Teacher(other with { From = problem.Now, Until = until })]
        );

    private static IEnumerable<(string Says, IReadOnlyList<LessonEdit> Edits)> Candidates(LessonProblem problem)
    {
        yield return ($"{Longer} minutes longer", [new LessonEdit.Length(problem.Minutes + Longer)]);
        yield return (
            $"{problem.Rules.LongestAlone + MoreAlone} minutes alone for whoever practises",
            [
                .. problem
                    .Cohorts.Where(cohort => cohort.PractisesAlone)
                    .Select(cohort => new LessonEdit.AllowAlone(
                        cohort.Id,
                        (cohort.Alone ?? problem.Rules.LongestAlone) + MoreAlone
                    )),
            ]
        );

        const int least = PlannedLesson.LeastTogether;
        foreach (var together in problem.Whole.Where(whole => whole is { Kind: BlockKind.Together, Minutes: > least }))
        {
            yield return (
                $"{least} minutes together instead of {together.Minutes}",
                [new LessonEdit.Everybody(BlockKind.Together, least)]
            );
        }

        // What can best be done another time, the longest first.
        foreach (
            var task in problem
                .Tasks.Where(task => task.Kind is BlockKind.Review or BlockKind.Watch or BlockKind.LeadIn)
                .OrderByDescending(task => task.Minutes)
                .Take(MostLeftOut)
        )
        {
            var names = string.Join(" and ", task.CohortIds.Select(id => problem.Cohort(id).Name));
            yield return ($"{names}: {task.What} next time", [new LessonEdit.TakeOut(task.Key)]);
        }
    }
}
