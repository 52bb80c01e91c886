using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>How a lesson stood before something was changed: what need not move stays where somebody has seen it.</summary>
internal sealed class AsItStood
{
    /// <summary>What it costs, points, that a task has another teacher; that it begins otherwise, for each minute of so many; that
    /// somebody comes by where nobody did. More than a teacher's minute is worth, and less than anything that has no room.</summary>
    private const int AnotherTeacher = 400;
    private const int AnotherMinute = 40;
    private const int MostMinutes = 10;
    private const int AnotherVisit = 40;

    private readonly Dictionary<string, Step> tasks = [];
    private readonly HashSet<(int Cohort, int Teacher, int Start)> visits = [];

    /// <param name="blocks">Of an arrangement of much the same lesson.</param>
    public AsItStood(LessonFacts facts, IEnumerable<ArrangedBlock> blocks)
    {
        var problem = facts.Problem;
        var teachers = problem.Teachers.Index().ToDictionary(teacher => teacher.Item.Id, teacher => teacher.Index);
        var cohorts = problem.Cohorts.Index().ToDictionary(cohort => cohort.Item.Id, cohort => cohort.Index);
        var asked = problem.Tasks.ToDictionary(task => task.Key);
        foreach (var block in blocks)
        {
            if (
                block.CohortId is not { } cohort
                || !cohorts.TryGetValue(cohort, out var at)
                || block.LedBy is not { } by
                || !teachers.TryGetValue(by, out var teacher)
            )
            {
                continue;
            }

            if (block.Task is { } key && asked.TryGetValue(key, out var task))
            {
                tasks[key] = new(task, facts.CohortsOf[key], block.Start, block.Start + facts.Staying(task), teacher);
            }
            else if (block.Kind == BlockKind.Visit)
            {
                visits.Add((at, teacher, block.Start));
                Visits.Add(new(null, [at], block.Start, block.End, teacher));
            }
        }
    }

    public IEnumerable<Step> Tasks => tasks.Values;

    /// <summary>Those who stayed after something new among them.</summary>
    public List<Step> Visits { get; } = [];

    /// <summary>What it costs that something is otherwise than it stood, points.</summary>
    /// <param name="task">Null for a visit.</param>
    public long Cost(LessonTask? task, int cohort, int start, int teacher)
    {
        if (task is null)
        {
            return visits.Contains((cohort, teacher, start)) ? 0 : AnotherVisit;
        }

        return tasks.TryGetValue(task.Key, out var stood)
            ? (stood.Teacher == teacher ? 0 : AnotherTeacher)
                + (Math.Min(MostMinutes, Math.Abs(stood.Start - start)) * AnotherMinute)
            : 0;
    }
}
