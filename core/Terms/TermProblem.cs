namespace Zeitplan.Core.Terms;

/// <summary>What the planner is given: one class, its lessons in order (closures left out), its cohorts.</summary>
public sealed record TermProblem(IReadOnlyList<LessonSlot> Lessons, IReadOnlyList<CohortProblem> Cohorts);

/// <summary>One lesson to plan.</summary>
/// <param name="TeachableSeconds">Lesson less warm-up and settling.</param>
/// <param name="Staff">How many can lead a cohort at the same time.</param>
/// <param name="Held">In the past: nothing can be introduced in it any more.</param>
public sealed record LessonSlot(DateOnly Date, int TeachableSeconds, int Staff, LessonKind Kind, bool Held)
{
    public const int WarmUpMinutes = 10;
    public const int SettleMinutes = 5;

    /// <summary>A lesson's minutes minus warm-up and settling are teachable (domain.md 4.3).</summary>
    public static int Teachable(int lessonMinutes) => (lessonMinutes - WarmUpMinutes - SettleMinutes) * 60;

    public int TeacherSeconds => TeachableSeconds * Staff;
}

/// <summary>One cohort and what it is to be taught.</summary>
/// <param name="People">How many the watch repetitions have to cover.</param>
/// <param name="Units">In teaching order; the first <c>IntroducedIn.Count</c> of them have been introduced.</param>
/// <param name="IntroducedIn">The lesson, from 0, each of those was introduced in; never decreasing.</param>
/// <param name="MaxNew">New units a lesson: 2, or 1 for beginners and adapted groups.</param>
/// <param name="AttendedLessons">In how many lessons, from the first, staff stays with the cohort all the time; <see cref="int.MaxValue"/> for adapted groups.</param>
/// <param name="TargetLesson">The last lesson, from 0, on or before the target date; -1 when the target lies before the first.</param>
/// <param name="Before">What the cohort knew already from the beginning of the form to the end of its segment: part of every run-through, never new.</param>
/// <param name="BeforeSeconds">One smooth repetition of it.</param>
public sealed record CohortProblem(
    Guid Id, string Name, int People, IReadOnlyList<TeachingUnit> Units, IReadOnlyList<int> IntroducedIn, int MaxNew, int AttendedLessons, int TargetLesson,
    IReadOnlyList<PostureSide> Before, int BeforeSeconds)
{
    /// <summary>Beginners are attended for this many lessons (domain.md 4.3).</summary>
    public const int BeginnersAttended = 3;

    /// <summary>Own practice after each new unit, before the next new thing (domain.md 4.4).</summary>
    public const int OwnPracticeAfterNewSeconds = 4 * 60;

    /// <summary>The last posture of the lesson before, to begin with (domain.md 4.3).</summary>
    public const int LeadInSeconds = 3 * 60;

    /// <summary>How many people one watch repetition lets a teacher truly see (domain.md 4.2).</summary>
    public const int SeenPerRepetition = 3;
}
