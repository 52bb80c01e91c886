using System.Runtime.CompilerServices;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>Something a teacher does from one minute to another.</summary>
/// <param name="Task">Null for a visit.</param>
/// <param name="Cohorts">Places among the cohorts of the problem.</param>
/// <param name="Teacher">A place among the teachers.</param>
internal sealed record Step(LessonTask? Task, int[] Cohorts, int Start, int End, int Teacher)
{
    public int Minutes => End - Start;

    public Step Later(int minutes) => this with { Start = Start + minutes, End = End + minutes };

    public bool Overlaps(Step other) => Start < other.End && End > other.Start;

    public bool IsWith(int cohort) => Cohorts.Length == 1 ? Cohorts[0] == cohort : Array.IndexOf(Cohorts, cohort) >= 0;

    /// <summary>They cannot be at the same time.</summary>
    public bool Excludes(Step other) =>
        Teacher == other.Teacher
        || (Cohorts.Length == 1 ? other.IsWith(Cohorts[0]) : Cohorts.AsSpan().IndexOfAny(other.Cohorts) >= 0);

    /// <summary>Each is the one it is: they are looked for among others with every change that is tried.</summary>
    public bool Equals(Step? other) => ReferenceEquals(this, other);

    public override int GetHashCode() => RuntimeHelpers.GetHashCode(this);
}

/// <summary>What follows from a problem and is asked for again and again.</summary>
internal sealed class LessonFacts
{
    // Asked for with every change that is tried: the tasks are found as the things they are, and no key is read again.
    private readonly Dictionary<LessonTask, TaskPin> pins = new(ReferenceEqualityComparer.Instance);
    private readonly Dictionary<LessonTask, int> staying = new(ReferenceEqualityComparer.Instance);
    private readonly Dictionary<LessonTask, bool[]> canLead = new(ReferenceEqualityComparer.Instance);

    /// <param name="stood">How much the same lesson stood, where it is not arranged for the first time.</param>
    public LessonFacts(LessonProblem problem, IReadOnlyList<ArrangedBlock>? stood = null)
    {
        (Problem, Begins, Ends) = (problem, problem.Begins, problem.Ends);
        Order = TaskOrder.Of(
            problem,
            (stood ?? [])
                .Where(block => block.Task is not null)
                .DistinctBy(block => block.Task)
                .ToDictionary(block => block.Task!, block => block.Start)
        );
        var places = problem.Cohorts.Index().ToDictionary(cohort => cohort.Item.Id, cohort => cohort.Index);
        CohortsOf = problem.Tasks.ToDictionary(
            task => task.Key,
            task => task.CohortIds.Select(id => places[id]).ToArray()
        );
        LongestAlone =
        [
            .. problem.Cohorts.Select(cohort => cohort.PractisesAlone ? cohort.Alone ?? problem.Rules.LongestAlone : 0),
        ];
        AloneFor = [.. problem.Cohorts.Zip(LongestAlone, (cohort, longest) => Math.Min(cohort.AloneFor, longest))];
        MayLead = [.. problem.Teachers.Select(teacher => problem.Cohorts.Select(teacher.MayLead).ToArray())];
        OneMore =
        [
            .. problem.Teachers.Select(teacher =>
                problem
                    .Cohorts.Select(cohort =>
                        problem.LastTime.Contains(new(teacher.Id, cohort.Id))
                            ? Measures.SameAsLastTime
                            : Measures.OneMoreCohort
                    )
                    .ToArray()
            ),
        ];
        var pinned = problem.Pins.ToDictionary(pin => pin.Key);
        foreach (var task in problem.Tasks)
        {
            if (pinned.TryGetValue(task.Key, out var pin))
            {
                pins[task] = pin;
            }

            staying[task] = StayingOf(task);
            canLead[task] = [.. problem.Teachers.Select((_, teacher) => MayLeadIt(teacher, task))];
        }

        var needs = Math.Max(1, problem.Cohorts.Sum(cohort => cohort.Need));
        TeacherMinutes = problem.Teachers.Sum(teacher =>
            Math.Max(0, Math.Min(teacher.Until, Ends) - Math.Max(teacher.From, Begins))
        );
        Share = [.. problem.Cohorts.Select(cohort => Math.Min(Window, TeacherMinutes * cohort.Need / needs))];
        Stood = stood is null ? null : new(this, stood);
    }

    public LessonProblem Problem { get; }

    /// <summary>What it costs to move what stood; null where nobody has seen it yet.</summary>
    public AsItStood? Stood { get; private set; }

    /// <summary>The same lesson in the same order, judged without a look at how it stood.</summary>
    public LessonFacts InItself()
    {
        var same = (LessonFacts)MemberwiseClone();
        same.Stood = null;
        return same;
    }

    /// <summary>For each cohort its tasks in the order it does them.</summary>
    public IReadOnlyList<IReadOnlyList<LessonTask>> Order { get; }
    public IReadOnlyDictionary<string, int[]> CohortsOf { get; }

    /// <summary>How long each cohort may be by itself at a stretch; not at all where it cannot be left.</summary>
    public int[] LongestAlone { get; }

    /// <summary>How long each has been by itself when this begins: what was too long already cannot be mended.</summary>
    public int[] AloneFor { get; }

    /// <summary>Who may lead whom.</summary>
    public bool[][] MayLead { get; }

    /// <summary>What it costs that a teacher has to do with a cohort at all.</summary>
    public int[][] OneMore { get; }

    /// <summary>How many cohorts do one task together at most.</summary>
    public int MostTogether => CohortsOf.Values.Select(cohorts => cohorts.Length).DefaultIfEmpty(1).Max();

    /// <summary>The minutes all teachers have together.</summary>
    public int TeacherMinutes { get; }

    /// <summary>The led minutes each cohort should have at least, by its need.</summary>
    public int[] Share { get; }

    /// <summary>When the cohorts' own work begins, and when it is over.</summary>
    public int Begins { get; }
    public int Ends { get; }

    /// <summary>The minutes between what the whole class does.</summary>
    public int Window => Math.Max(0, Ends - Begins);

    /// <summary>The teacher's minutes: whoever is never alone practises what is new with the teacher still there.</summary>
    public int Staying(LessonTask task) => staying[task];

    private int StayingOf(LessonTask task) =>
        task.Minutes
        + (
            task.Kind == BlockKind.New && CohortsOf[task.Key].Any(cohort => LongestAlone[cohort] == 0)
                ? Problem.Rules.PractiseAfterNew
                : 0
        );

    /// <summary>The place of a task in the order of a cohort.</summary>
    public int PlaceOf(int cohort, LessonTask task)
    {
        var order = Order[cohort];
        for (var at = 0; at < order.Count; at++)
        {
            if (ReferenceEquals(order[at], task))
            {
                return at;
            }
        }

        return -1;
    }

    /// <summary>A head has fixed the minute it begins.</summary>
    public bool IsFixed(Step step) => step.Task is { } task && PinOf(task)?.Start is not null;

    public TaskPin? PinOf(LessonTask task) => pins.GetValueOrDefault(task);

    public bool CanLead(int teacher, LessonTask task) => canLead[task][teacher];

    /// <summary>There is time for it, and the teacher is there and may do it.</summary>
    public bool MayBe(Step step)
    {
        var teacher = Problem.Teachers[step.Teacher];
        return step.Start >= Math.Max(Begins, teacher.From)
            && step.End <= Math.Min(Ends, teacher.Until)
            && (step.Task is { } task ? CanLead(step.Teacher, task) : MayLead[step.Teacher][step.Cohorts[0]]);
    }

    private bool MayLeadIt(int teacher, LessonTask task) =>
        CohortsOf[task.Key].All(cohort => MayLead[teacher][cohort])
        && (PinOf(task)?.TeacherId is not { } wanted || wanted == Problem.Teachers[teacher].Id);
}
