using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>In which order a cohort does what is asked of it: it begins with where the lesson before ended, has what is new
/// before it is tired, and runs through what it knows at the end. What a head has fixed comes when it was fixed to: after what
/// stood before that minute, or, where nothing stood, after whatever has time before it.</summary>
internal static class TaskOrder
{
    /// <param name="stood">When each task began, as far as that is known.</param>
    public static IReadOnlyList<IReadOnlyList<LessonTask>> Of(
        LessonProblem problem,
        IReadOnlyDictionary<string, int> stood
    ) => [.. problem.Cohorts.Select(cohort => Of(problem, cohort.Id, stood))];

    private static List<LessonTask> Of(LessonProblem problem, Guid cohort, IReadOnlyDictionary<string, int> stood)
    {
        var starts = problem
            .Pins.Where(pin => pin.Start is not null)
            .ToDictionary(pin => pin.Key, pin => pin.Start!.Value);
        List<LessonTask> order =
        [
            .. problem
                .Tasks.Where(task => task.CohortIds.Contains(cohort) && !starts.ContainsKey(task.Key))
                .OrderBy(task => Rank(task.Kind)),
        ];
        foreach (
            var task in problem
                .Tasks.Where(task => task.CohortIds.Contains(cohort) && starts.ContainsKey(task.Key))
                .OrderBy(task => starts[task.Key])
        )
        {
            order.Insert(PlaceFor(task, starts[task.Key], order, starts, stood, problem), task);
        }

        return order;
    }

    /// <summary>After whatever fits before it, and after what is fixed to an earlier minute.</summary>
    private static int PlaceFor(
        LessonTask task,
        int start,
        List<LessonTask> order,
        Dictionary<string, int> starts,
        IReadOnlyDictionary<string, int> stood,
        LessonProblem problem
    )
    {
        var (place, minute) = (0, problem.Begins);
        for (var at = 0; at < order.Count; at++)
        {
            var ends = Math.Max(minute, starts.GetValueOrDefault(order[at].Key, minute)) + order[at].Minutes;
            var isFixedEarlier = starts.TryGetValue(order[at].Key, out var other) && other < start;
            var isLater = stood.TryGetValue(order[at].Key, out var was) ? was >= start : ends > start;
            if (isLater && !isFixedEarlier)
            {
                break;
            }

            (place, minute) = (at + 1, ends);
        }

        return place;
    }

    private static int Rank(BlockKind kind) =>
        kind switch
        {
            BlockKind.LeadIn => 0,
            BlockKind.New => 1,
            BlockKind.ReTeach => 2,
            BlockKind.Review => 3,
            BlockKind.Rest => 4,
            BlockKind.Partner => 5,
            BlockKind.Watch => 6,
            _ => 7,
        };
}
