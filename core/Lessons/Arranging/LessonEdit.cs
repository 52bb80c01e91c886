using System.Text.Json.Serialization;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>What somebody does to the arrangement of a lesson by hand, or says has become different. Edits are kept in
/// their order, and the lesson is arranged around all of them.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Pin), "pin")]
[JsonDerivedType(typeof(Free), "free")]
[JsonDerivedType(typeof(Stretch), "stretch")]
[JsonDerivedType(typeof(Split), "split")]
[JsonDerivedType(typeof(TakeOut), "takeOut")]
[JsonDerivedType(typeof(Add), "add")]
[JsonDerivedType(typeof(AllowAlone), "allowAlone")]
[JsonDerivedType(typeof(Teacher), "teacher")]
[JsonDerivedType(typeof(People), "people")]
[JsonDerivedType(typeof(Length), "length")]
[JsonDerivedType(typeof(Pause), "pause")]
[JsonDerivedType(typeof(Since), "since")]
[JsonDerivedType(typeof(Focus), "focus")]
[JsonDerivedType(typeof(Joins), "joins")]
[JsonDerivedType(typeof(Everybody), "everybody")]
[JsonDerivedType(typeof(MakesUp), "makesUp")]
public abstract record LessonEdit
{
    /// <summary>Nobody arranges a longer lesson than this.</summary>
    private const int MostMinutes = 300;

    /// <summary>No lesson has more of them.</summary>
    private const int MostBlocks = 500;

    private const int LeastMadeUp = 3;
    private const int MostMadeUp = 60;
    private const int MostAtOnce = 20;

    /// <summary>What makes no sense of it, whatever lesson it is about; null where nothing does.</summary>
    public string? Refused() =>
        this switch
        {
            Pin { Start: not (null or (>= 0 and <= MostMinutes)) } => "A minute lies within the lesson.",
            Stretch { Minutes: < 1 or > MostMinutes } or Split { Minutes: < 1 or > MostMinutes } =>
                "A block lasts between a minute and the whole lesson.",
            AllowAlone { Minutes: < 0 or > MostMinutes } => "Minutes alone lie within the lesson.",
            People { Count: < 0 or > 1000 } => "Say how many came: 0 to 1000.",
            MakesUp { Minutes: < LeastMadeUp or > MostMadeUp } =>
                $"What is made up for before class takes {LeastMadeUp} to {MostMadeUp} minutes.",
            MakesUp { Students: null or { Count: < 1 or > MostAtOnce } } =>
                $"One to {MostAtOnce} people make up for something at once.",
            Everybody { Minutes: < 0 or > MostMinutes } => "What everybody does lasts no longer than the lesson.",
            Length { Minutes: < 1 or > MostMinutes } => "A lesson has between a minute and five hours.",
            Pause { From: < 0 or > MostMinutes } or Since { From: < 0 or > MostMinutes } =>
                "A minute lies within the lesson.",
            Since since when since.Until < since.From || since.Until > MostMinutes =>
                "What was lost ends after it began.",
            Since { Stood.Count: > MostBlocks } => $"A lesson has at most {MostBlocks} blocks.",
            Since since when since.Stood.Any(block => block is null || block.Start < 0 || block.End <= block.Start) =>
                "A block that has happened has minutes.",
            Since { What.Length: > Problem.LongestText } or Pause { Who.Length: > Problem.LongestName } =>
                $"A text has at most {Problem.LongestText} letters.",
            Teacher { Who: { From: < 0 or > MostMinutes } or { Until: < 0 or > MostMinutes } } =>
                "Somebody is there from one minute of the lesson to another.",
            Teacher { Who.Name: { Length: > Problem.LongestName } }
            or Focus { Name.Length: > Problem.LongestName }
            or Joins { Name.Length: > Problem.LongestName } => "A name is shorter.",
            Add { Task: { Minutes: < 1 or > MostMinutes } or { CohortIds.Count: 0 } } =>
                "A block has a cohort, and lasts between a minute and the whole lesson.",
            Add
            {
                Task: { Key.Length: > Problem.LongestText }
                    or { What.Length: > Problem.LongestText }
                    or { Because.Length: > Problem.LongestText }
            } => $"A text has at most {Problem.LongestText} letters.",
            _ => null,
        };

    /// <summary>A task is fixed to a minute, to a teacher, or to both.</summary>
    public sealed record Pin(string Key, int? Start, Guid? TeacherId) : LessonEdit;

    /// <summary>A task may go where it is best again.</summary>
    public sealed record Free(string Key) : LessonEdit;

    public sealed record Stretch(string Key, int Minutes) : LessonEdit;

    /// <summary>A task in two parts, the first of so many minutes.</summary>
    public sealed record Split(string Key, int Minutes) : LessonEdit;

    /// <summary>A task is left for another lesson.</summary>
    public sealed record TakeOut(string Key) : LessonEdit;

    public sealed record Add(LessonTask Task) : LessonEdit;

    /// <summary>A cohort may be without a teacher's eye for longer tonight.</summary>
    public sealed record AllowAlone(Guid CohortId, int Minutes) : LessonEdit;

    /// <summary>Somebody more is there, or somebody is there from or until another minute; never, where both are the
    /// same.</summary>
    public sealed record Teacher(TeacherHere Who) : LessonEdit;

    /// <summary>Other people came than were expected.</summary>
    public sealed record People(Guid CohortId, int Count) : LessonEdit;

    /// <summary>Somebody is with a cohort tonight that is not theirs: a student of another group, or a visitor. Of what is
    /// said of one person the last counts.</summary>
    /// <param name="Who">The student; of a visitor any that is nobody else's.</param>
    /// <param name="Name">A visitor's; empty for a student, whose name is in the records and goes with them.</param>
    /// <param name="CohortId">Null where they are not after all.</param>
    /// <param name="From">The cohort of the same class they would be with otherwise.</param>
    /// <param name="NeverAlone">Somebody who can help stays with them, and so with the cohort: they hold on, sit or are
    /// unsteady, or come from a group that is never left alone.</param>
    public sealed record Joins(Guid Who, string Name, Guid? CohortId, Guid? From, bool NeverAlone) : LessonEdit
    {
        /// <summary>Nobody the school keeps records of.</summary>
        [JsonIgnore]
        public bool IsVisitor => Name.Length > 0;
    }

    /// <summary>What the whole class does together lasts so many minutes tonight; none leaves it out.</summary>
    public sealed record Everybody(BlockKind Does, int Minutes) : LessonEdit;

    /// <summary>Before class somebody shows something to those who were away when it was new (domain.md 4.5). The lesson stays
    /// as it is, and it is made up for when somebody has seen them do it.</summary>
    /// <param name="From">Of a link, the posture it leads on from.</param>
    /// <param name="Minutes">They begin so long before class.</param>
    public sealed record MakesUp(
        Guid Id,
        IReadOnlyList<Guid> Students,
        Guid PostureId,
        Side Side,
        PostureSide? From,
        Guid TeacherId,
        int Minutes
    ) : LessonEdit
    {
        [JsonIgnore]
        public UnitKey Of =>
            new(From is null ? UnitKind.Posture : UnitKind.Link, PostureId, Side, From?.PostureId, From?.Side);

        /// <summary>For the same people; lists are not compared by what is in them.</summary>
        public bool SaysTheSame(MakesUp other) =>
            this with { Students = other.Students } == other && Students.SequenceEqual(other.Students);
    }

    /// <summary>The lesson is over after so many minutes: the hall is free for longer, or has to be left sooner.</summary>
    public sealed record Length(int Minutes) : LessonEdit;

    /// <summary>The lesson stands still from this minute on, and nobody knows yet for how long.</summary>
    public sealed record Pause(int From, string Who) : LessonEdit;

    /// <summary>What the lesson is about above all: a principle by its name, or nothing in particular any more.</summary>
    public sealed record Focus(Guid? PrincipleId, string Name) : LessonEdit
    {
        /// <summary>The other faults are recorded and not called, but for those of a key point: that is kept when everything
        /// else gives way (domain.md 2).</summary>
        public bool Calls(Fault fault) =>
            PrincipleId is not { } principle || fault.PrincipleId == principle || fault.Weight == Weight.KeyPoint;
    }

    /// <summary>Until a minute the lesson went as these blocks say; from there until another nothing was taught, where
    /// that is later. The rest is arranged from there.</summary>
    public sealed record Since(int From, int Until, string What, IReadOnlyList<ArrangedBlock> Stood) : LessonEdit;
}

public static class LessonEdits
{
    /// <summary>The focus that stands after all of these; null while there is none.</summary>
    public static LessonEdit.Focus? FocusOf(this IEnumerable<LessonEdit> edits) =>
        edits.OfType<LessonEdit.Focus>().LastOrDefault() is { PrincipleId: not null } focus ? focus : null;

    /// <summary>What is taught or introduced again, after all of these.</summary>
    public static IReadOnlyList<LessonTask> TaughtAgain(this IReadOnlyCollection<LessonEdit> edits)
    {
        var gone = edits.OfType<LessonEdit.TakeOut>().Select(edit => edit.Key).ToHashSet();
        return
        [
            .. edits
                .OfType<LessonEdit.Add>()
                .Select(edit => edit.Task)
                .Where(task => task.Kind is BlockKind.ReTeach or BlockKind.New && !gone.Contains(task.Key))
                .DistinctBy(task => task.Key),
        ];
    }

    /// <summary>Who is with another cohort than theirs after all of these.</summary>
    public static IReadOnlyList<LessonEdit.Joins> Joining(this IEnumerable<LessonEdit> edits) =>
        [
            .. edits
                .OfType<LessonEdit.Joins>()
                .GroupBy(joins => joins.Who)
                .Select(same => same.Last())
                .Where(joins => joins.CohortId is not null),
        ];

    /// <summary>The problem as it is once all of these have been done, one after the other. What they name that is no
    /// longer there is passed over.</summary>
    public static LessonProblem With(this LessonProblem problem, IReadOnlyCollection<LessonEdit> edits)
    {
        var joining = edits.Joining().ToHashSet<LessonEdit>(ReferenceEqualityComparer.Instance);
        return edits.Where(edit => edit is not LessonEdit.Joins || joining.Contains(edit)).Aggregate(problem, With);
    }

    public static LessonProblem With(this LessonProblem problem, LessonEdit edit) =>
        edit switch
        {
            LessonEdit.Pin pin => problem with
            {
                Pins =
                [
                    .. problem.Pins.Where(kept => kept.Key != pin.Key),
                    .. problem.Tasks.Any(task => task.Key == pin.Key)
                        ? [new TaskPin(pin.Key, pin.Start, pin.TeacherId)]
                        : Array.Empty<TaskPin>(),
                ],
            },
            LessonEdit.Free free => problem with { Pins = [.. problem.Pins.Where(pin => pin.Key != free.Key)] },
            LessonEdit.Stretch stretch => problem.Changing(
                stretch.Key,
                task => [task with { Minutes = Math.Max(1, stretch.Minutes) }]
            ),
            LessonEdit.Split split => problem.Changing(
                split.Key,
                task =>
                    split.Minutes > 0 && split.Minutes < task.Minutes
                        ?
                        [
                            task with
                            {
                                Minutes = split.Minutes,
                            },
                            task with
                            {
                                Key = $"{task.Key}+",
                                Minutes = task.Minutes - split.Minutes,
                            },
                        ]
                        : [task]
            ),
            LessonEdit.TakeOut gone => problem.Changing(gone.Key, _ => []) with
            {
                Pins = [.. problem.Pins.Where(pin => pin.Key != gone.Key)],
            },
            LessonEdit.Add add => problem.Tasks.Any(task => task.Key == add.Task.Key)
            || !add.Task.CohortIds.All(id => problem.Cohorts.Any(cohort => cohort.Id == id))
                ? problem
                : problem with
                {
                    Tasks = [.. problem.Tasks, add.Task],
                },
            LessonEdit.AllowAlone allow => problem.Changing(
                allow.CohortId,
                cohort => cohort with { Alone = allow.Minutes }
            ),
            LessonEdit.People people => problem.Changing(
                people.CohortId,
                cohort => cohort with { People = people.Count, Due = Math.Min(cohort.Due, people.Count) }
            ),
            LessonEdit.Joins { CohortId: { } id } joins => problem
                .Changing(
                    id,
                    cohort =>
                        cohort with
                        {
                            People = cohort.People + 1,
                            NeverAlone = cohort.NeverAlone || joins.NeverAlone,
                        }
                )
                .Changing(
                    joins.From ?? Guid.Empty,
                    cohort =>
                        cohort with
                        {
                            People = Math.Max(0, cohort.People - 1),
                            Due = Math.Min(cohort.Due, Math.Max(0, cohort.People - 1)),
                        }
                ),
            LessonEdit.Teacher teacher => problem with
            {
                Teachers =
                [
                    .. problem.Teachers.Where(here => here.Id != teacher.Who.Id),
                    .. teacher.Who.Until > teacher.Who.From ? [teacher.Who] : Array.Empty<TeacherHere>(),
                ],
            },
            LessonEdit.Everybody everybody => problem.With(everybody),
            LessonEdit.Length length => problem.Lasting(length.Minutes),
            LessonEdit.Since since => problem.Since(since),
            _ => problem,
        };

    /// <summary>As long as is wanted, and as there is time for.</summary>
    private static LessonProblem With(this LessonProblem problem, LessonEdit.Everybody wanted) =>
        problem with
        {
            Whole =
            [
                .. problem
                    .Whole.Select(whole =>
                        whole.Kind == wanted.Does
                            ? whole with
                            {
                                Minutes = Math.Min(
                                    wanted.Minutes,
                                    whole.Minutes + Math.Max(0, problem.Ends - problem.Begins)
                                ),
                            }
                            : whole
                    )
                    .Where(whole => whole.Minutes > 0),
            ],
        };

    /// <summary>What has happened and what everybody does at the end stay; whoever is there to the end stays to the new
    /// one.</summary>
    private static LessonProblem Lasting(this LessonProblem problem, int wanted)
    {
        var minutes = Math.Max(wanted, problem.Now + problem.Whole.Sum(whole => whole.Minutes));
        return problem with
        {
            Minutes = minutes,
            Teachers =
            [
                .. problem.Teachers.Select(teacher =>
                    teacher.Until >= Math.Min(problem.Minutes, minutes) ? teacher with { Until = minutes } : teacher
                ),
            ],
        };
    }

    private static LessonProblem Changing(
        this LessonProblem problem,
        string key,
        Func<LessonTask, IEnumerable<LessonTask>> change
    ) => problem with { Tasks = [.. problem.Tasks.SelectMany(task => task.Key == key ? change(task) : [task])] };

    private static LessonProblem Changing(
        this LessonProblem problem,
        Guid cohortId,
        Func<CohortHere, CohortHere> change
    ) =>
        problem with
        {
            Cohorts = [.. problem.Cohorts.Select(cohort => cohort.Id == cohortId ? change(cohort) : cohort)],
        };
}
