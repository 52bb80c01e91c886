using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>What is to be put on minutes and teachers: one lesson (domain.md 4.4). Minutes are counted from its
/// beginning.</summary>
/// <param name="Minutes">How long the lesson lasts.</param>
/// <param name="Tasks">What is led in it, apart from what the whole class does together.</param>
/// <param name="Whole">What the whole class does together, in its order.</param>
public sealed record LessonProblem(
    int Minutes,
    IReadOnlyList<CohortHere> Cohorts,
    IReadOnlyList<TeacherHere> Teachers,
    IReadOnlyList<LessonTask> Tasks,
    IReadOnlyList<WholeClass> Whole,
    LessonRules Rules
)
{
    /// <summary>What a head has fixed.</summary>
    public IReadOnlyList<TaskPin> Pins { get; init; } = [];

    /// <summary>Who led whom in the lesson before: much the same is easier for everybody.</summary>
    public IReadOnlyList<TeacherOfCohort> LastTime { get; init; } = [];

    /// <summary>The minute from which it is arranged: what came before has happened.</summary>
    public int Now { get; init; }

    /// <summary>What has happened.</summary>
    public IReadOnlyList<ArrangedBlock> Stood { get; init; } = [];

    /// <summary>When the cohorts' own work begins, or goes on.</summary>
    public int Begins => Now + Whole.Where(block => !block.AtEnd).Sum(block => block.Minutes);

    /// <summary>When the cohorts' own work is over.</summary>
    public int Ends => Minutes - Whole.Where(block => block.AtEnd).Sum(block => block.Minutes);

    public CohortHere Cohort(Guid id) => Cohorts.First(cohort => cohort.Id == id);
}

/// <summary>The measures of domain.md 4.4; minutes.</summary>
public sealed record LessonRules
{
    public static LessonRules Default { get; } = Of(TeachersEyes.Default);

    /// <summary>As a school has them.</summary>
    public static LessonRules Of(TeachersEyes eyes) =>
        new()
        {
            LongestAlone = eyes.LongestAlone,
            LongestVisit = eyes.LongestVisit,
            ManyToVisit = eyes.ManyToVisit,
            NoNewInLast = eyes.NoNewInLast,
        };

    /// <summary>A cohort is never longer than this without a teacher's eye.</summary>
    public int LongestAlone { get; init; }

    /// <summary>Own practice after something new, before the next new thing.</summary>
    public int PractiseAfterNew { get; init; } = CohortProblem.OwnPracticeAfterNewSeconds / 60;

    /// <summary>New material is not begun so close to the end of the lesson.</summary>
    public int NoNewInLast { get; init; }

    /// <summary>How many people a minute of a visit shows to a teacher.</summary>
    public int SeenAMinute { get; init; } = 2;

    /// <summary>How many people a watch block shows to a teacher, or the watching at the end of what is new.</summary>
    public int SeenInABlock { get; init; } = CohortProblem.SeenPerRepetition;

    /// <summary>A longer visit is as good as being led.</summary>
    public int LongestVisit { get; init; }

    /// <summary>A visit to so many people and more takes two minutes, to fewer one.</summary>
    public int ManyToVisit { get; init; }

    public int ShortestVisit(int people) => people >= ManyToVisit ? 2 : 1;

    /// <summary>How many people a teacher truly sees in a block of one cohort. A visit shows no more than anybody can keep in
    /// mind; whoever stays for longer looks again.</summary>
    public int SeenIn(BlockKind kind, int minutes) =>
        kind switch
        {
            BlockKind.Visit => Math.Min(
                minutes * SeenAMinute,
                (minutes + LongestVisit - 1) / Math.Max(1, LongestVisit) * SeenInABlock
            ),
            BlockKind.New or BlockKind.Watch => SeenInABlock,
            _ => 0,
        };
}

/// <summary>A cohort as it is there tonight.</summary>
/// <param name="Level">The place of its sash on the ladder, from 1; null for an adapted group.</param>
/// <param name="People">How many are expected, or there.</param>
/// <param name="NeverAlone">Somebody who can help is with it all the time.</param>
/// <param name="Practises">What it can do by itself, at <i>follows</i> or better; empty while there is nothing.</param>
/// <param name="Due">How many of its people are due a look.</param>
/// <param name="Need">How much of the teachers' time it should have, against the others: people count, beginners
/// twice.</param>
public sealed record CohortHere(
    Guid Id,
    string Name,
    int? Level,
    int People,
    bool NeverAlone,
    string Practises,
    int Due,
    int Need
)
{
    /// <summary>How long it may be without a teacher's eye tonight, where not as long as everybody else.</summary>
    public int? Alone { get; init; }

    /// <summary>For how long it has been without a teacher's eye already when the lesson is arranged from its middle.</summary>
    public int AloneFor { get; init; }

    /// <summary>Minutes of own practice it still owes to what was new last, before the next new thing.</summary>
    public int StillToPractise { get; init; }

    public bool IsAdapted => Level is null;

    /// <summary>It can be left to its own practice for a while.</summary>
    public bool PractisesAlone => !NeverAlone && Practises.Length > 0;
}

/// <summary>Somebody who teaches tonight.</summary>
/// <param name="LeadsEverything">An instructor or a head; an assistant leads what their own level allows.</param>
/// <param name="Level">The place of an assistant's own sash on the ladder; null where nobody has said.</param>
/// <param name="From">The minute from which they are there.</param>
/// <param name="Until">The minute at which they leave.</param>
public sealed record TeacherHere(Guid Id, string Name, bool LeadsEverything, int? Level, int From, int Until)
{
    /// <summary>An assistant leads material of their own level less one and below, and adapted groups (domain.md
    /// 4.4).</summary>
    public bool MayLead(CohortHere cohort) =>
        LeadsEverything || cohort.Level is not { } level || (Level is { } own && level <= own - 1);
}

public readonly record struct TeacherOfCohort(Guid TeacherId, Guid CohortId);

/// <summary>Something to be led to a cohort, or to several that do the same.</summary>
/// <param name="Key">The same thing in every arrangement of this lesson.</param>
/// <param name="Minutes">How long it takes.</param>
/// <param name="What">As a sheet says it.</param>
/// <param name="Because">What asks for it.</param>
public sealed record LessonTask(
    string Key,
    BlockKind Kind,
    IReadOnlyList<Guid> CohortIds,
    int Minutes,
    string What,
    string Because
)
{
    /// <summary>The postures it is about, in their order.</summary>
    public IReadOnlyList<PostureSide> Material { get; init; } = [];
}

/// <summary>A block that holds everybody.</summary>
/// <param name="AtEnd">It belongs to the end of the lesson; otherwise to its beginning.</param>
public sealed record WholeClass(BlockKind Kind, int Minutes, string What, string Because, bool AtEnd);

/// <summary>What a head has decided about a task: when it begins, who leads it, or both.</summary>
public sealed record TaskPin(string Key, int? Start, Guid? TeacherId);
