using System.Text.Json.Serialization;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>What the planner is given: one class, its lessons in order (closures left out), its cohorts.</summary>
/// <param name="MovePoints">What it costs when a unit leaves the lesson it was announced for; see <see
/// cref="PlanCost"/>.</param>
public sealed record TermProblem(
    IReadOnlyList<LessonSlot> Lessons,
    IReadOnlyList<CohortProblem> Cohorts,
    long MovePoints = 0
)
{
    /// <summary>Dates of the class on which no lesson is held: what a reason may name.</summary>
    public IReadOnlyList<Closure> Closed { get; init; } = [];

    /// <summary>Of a lesson's teachable seconds, those a cohort has to itself for what is planned.</summary>
    public int TimeOf(CohortProblem cohort, int lesson) =>
        Math.Max(0, Lessons[lesson].TeachableSeconds - cohort.AgainIn(lesson));

    /// <summary>The first lesson, from 0, that is still to be held.</summary>
    [JsonIgnore]
    public int FirstOpen => Lessons.TakeWhile(lesson => lesson.Held).Count();
}

/// <summary>One lesson to plan.</summary>
/// <param name="TeachableSeconds">Lesson less warm-up, settling and a talk.</param>
/// <param name="Staff">How many can lead a cohort at the same time.</param>
/// <param name="Held">In the past: nothing can be introduced in it any more.</param>
/// <param name="TalkSeconds">The whole class sits together for so long; taken off the teachable seconds
/// already.</param>
/// <param name="WatchSeconds">Of the teachers, kept for watching: nothing is planned into them.</param>
/// <param name="AgainSeconds">Of the teachers, for what is taught again because many share a fault: nothing else is planned
/// into them.</param>
public sealed record LessonSlot(
    DateOnly Date,
    Seconds TeachableSeconds,
    int Staff,
    LessonKind Kind,
    bool Held,
    Seconds TalkSeconds = default,
    Seconds WatchSeconds = default,
    Seconds AgainSeconds = default
)
{
    public const int WarmUpMinutes = WarmUp.Minutes;
    public const int SettleMinutes = 5;

    /// <summary>A lesson's minutes minus warm-up and settling are teachable (domain.md 4.3).</summary>
    public static Seconds Teachable(int lessonMinutes) =>
        new(Math.Max(0, lessonMinutes - WarmUpMinutes - SettleMinutes) * 60);

    public Seconds TeacherSeconds => new(Math.Max(0, (TeachableSeconds * Staff) - SpokenForSeconds));

    /// <summary>Of the teachers, what nothing is planned into.</summary>
    public int SpokenForSeconds => WatchSeconds + AgainSeconds;
}

/// <summary>One cohort and what it is to be taught.</summary>
/// <param name="People">How many the watch repetitions have to cover.</param>
/// <param name="Units">In teaching order; the first <c>IntroducedIn.Count</c> of them have been introduced.</param>
/// <param name="IntroducedIn">The lesson, from 0, each of those was introduced in; never decreasing.</param>
/// <param name="MaxNew">New postures a lesson: 2, or 1 for beginners and adapted groups. Drills, links and layers are
/// not counted.</param>
/// <param name="AttendedLessons">In how many lessons, from the first, staff stays with the cohort all the time; <see
/// cref="int.MaxValue"/> for adapted groups.</param>
/// <param name="TargetLesson">The last lesson, from 0, on or before the target date; -1 when the target lies before the
/// first.</param>
/// <param name="Before">What the cohort knew already from the beginning of the form to the end of its segment: part of
/// every run-through, never new.</param>
/// <param name="BeforeSeconds">One smooth repetition of it.</param>
public sealed record CohortProblem(
    Guid Id,
    string Name,
    int People,
    IReadOnlyList<TeachingUnit> Units,
    IReadOnlyList<int> IntroducedIn,
    int MaxNew,
    int AttendedLessons,
    int TargetLesson,
    IReadOnlyList<PostureSide> Before,
    Seconds BeforeSeconds
)
{
    /// <summary>Beginners are attended for this many lessons (domain.md 4.3).</summary>
    public const int BeginnersAttended = 3;

    /// <summary>Own practice after each new unit, before the next new thing (domain.md 4.4).</summary>
    public const int OwnPracticeAfterNewSeconds = 4 * 60;

    /// <summary>The last posture of the lesson before, to begin with (domain.md 4.3).</summary>
    public const int LeadInSeconds = 3 * 60;

    /// <summary>How many people one watch repetition lets a teacher truly see (domain.md 4.2).</summary>
    public const int SeenPerRepetition = 3;

    /// <summary>The most new postures a school may allow in one lesson.</summary>
    public const int MostNew = 5;

    /// <summary>How the cohort does everything: only cohorts of one mode can be led together.</summary>
    public Mode Mode { get; init; } = Mode.Standing;

    /// <summary>Its own pace factor, in the minutes of its units already (domain.md 4.2).</summary>
    public decimal Pace { get; init; } = 1m;

    /// <summary>For each lesson, of the cohort's own time, what goes into teaching something again; nothing in a lesson
    /// past the last here.</summary>
    public IReadOnlyList<Seconds> Again { get; init; } = [];

    /// <summary>For each unit its own target lesson where its segment has one; <see cref="TargetLesson"/> for all when
    /// empty.</summary>
    public IReadOnlyList<int> Targets { get; init; } = [];

    /// <summary>What the head fixed by hand.</summary>
    public IReadOnlyList<Pin> Pins { get; init; } = [];

    /// <summary>What the head fixed on a date that holds it no longer: fixed again as soon as it does.</summary>
    public IReadOnlyList<LostPin> Lost { get; init; } = [];

    /// <summary>What it can do already and is not to lose.</summary>
    public Keeping Keeping { get; init; } = Keeping.Nothing;

    /// <summary>For each unit the lesson it was announced for; null where it was not, empty when nothing was.</summary>
    public IReadOnlyList<int?> Announced { get; init; } = [];

    public int TargetOf(int unit) => Targets.Count == 0 ? TargetLesson : Targets[unit];

    public Seconds AgainIn(int lesson) => lesson < Again.Count ? Again[lesson] : default;

    public bool IsAttended(int lesson) => lesson < AttendedLessons;
}

/// <summary>A unit the head put into a lesson by hand: there it stays, or why it cannot is said.</summary>
/// <param name="Unit">Index into the cohort's units.</param>
/// <param name="Lesson">Index of the lesson, from 0.</param>
public readonly record struct Pin(int Unit, int Lesson);

/// <summary>A unit the head fixed on a date on which no lesson can bring it now.</summary>
/// <param name="Unit">Index into the cohort's units.</param>
public sealed record LostPin(int Unit, DateOnly Date, string Because);
