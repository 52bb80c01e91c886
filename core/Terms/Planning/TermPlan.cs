using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>A class's term: for every cohort what is introduced, reviewed and run through in which lesson, and what
/// does not fit.</summary>
/// <param name="LedSeconds">For every lesson the teachers' seconds used by all cohorts, what is led together counted
/// once.</param>
/// <param name="Shared">What is led to several cohorts at once.</param>
/// <param name="UnsharedPoints">The penalty for what is introduced to one cohort alone and could have been led
/// together.</param>
public sealed record TermPlan(
    IReadOnlyList<CohortPlan> Cohorts,
    IReadOnlyList<Seconds> LedSeconds,
    IReadOnlyList<SharedBlock> Shared,
    long UnsharedPoints
)
{
    public long Cost => Cohorts.Sum(cohort => cohort.Cost) + UnsharedPoints;
}

/// <summary>One posture led to several cohorts at once (domain.md 4.3, "Sharing").</summary>
/// <param name="Seconds">What it takes of the teachers: the longest of what the cohorts need.</param>
/// <param name="SavedSeconds">What it would take more if each were led by itself.</param>
public sealed record SharedBlock(
    int Lesson,
    Guid PostureId,
    Side Side,
    IReadOnlyList<Guid> CohortIds,
    Seconds Seconds,
    Seconds SavedSeconds
);

/// <param name="Lessons">One for every lesson of the problem.</param>
/// <param name="Exact">The plan costs no more than the bound no plan for this cohort can undercut, given the
/// others.</param>
public sealed record CohortPlan(
    Guid CohortId,
    IReadOnlyList<Placement> Placements,
    IReadOnlyList<CohortLesson> Lessons,
    IReadOnlyList<LeftOver> LeftOver,
    IReadOnlyList<DroppedReview> Dropped,
    bool Exact,
    long Cost
)
{
    /// <summary>Pins that could not be kept, each with its reason.</summary>
    public IReadOnlyList<RefusedPin> Refused { get; init; } = [];

    /// <summary>How what it can do already is kept.</summary>
    public KeptPlan Kept { get; init; } = KeptPlan.Nothing;

    /// <summary>Of units no lesson has room for.</summary>
    public Seconds LeftSeconds => LeftOver.Total(left => left.Seconds);

    /// <summary>The lesson, from 0, in which the last unit is introduced; null while some are left over or there are
    /// none.</summary>
    public int? FinishLesson => LeftOver.Count == 0 && Placements.Count > 0 ? Placements[^1].Lesson : null;
}

/// <summary>One unit in the lesson that introduces it.</summary>
/// <param name="Unit">Index into the cohort's units.</param>
/// <param name="Pinned">The head put it here.</param>
public sealed record Placement(int Unit, int Lesson, IReadOnlyList<Review> Reviews, string Because, bool Pinned = false)
{
    /// <summary>Whether a lesson brings it: new, reviewed, or where all of it is run through.</summary>
    public bool IsIn(int lesson, bool runsThrough) =>
        Lesson == lesson
        || Reviews.Any(review => review.Lesson == lesson && (runsThrough || !review.InRunThrough))
        || (runsThrough && Lesson < lesson);
}

/// <summary>What one lesson holds for one cohort, in seconds.</summary>
/// <param name="RunThroughSeconds">From the first unit to the last one known; it grows with the term. Shorter where the
/// lesson has no room for all of it.</param>
/// <param name="OwnSeconds">Own practice that has to follow what is new.</param>
/// <param name="TeacherSeconds">What it takes of the teachers: the led seconds, or the whole lesson when the cohort may
/// not be left alone.</param>
/// <param name="KeepSeconds">What keeps what it could do before.</param>
public sealed record CohortLesson(
    Seconds IntroduceSeconds,
    Seconds ReviewSeconds,
    Seconds RunThroughSeconds,
    Seconds WatchSeconds,
    Seconds LeadInSeconds,
    Seconds OwnSeconds,
    Seconds TeacherSeconds,
    Seconds KeepSeconds = default
)
{
    public Seconds LedSeconds =>
        new(IntroduceSeconds + ReviewSeconds + RunThroughSeconds + WatchSeconds + LeadInSeconds + KeepSeconds);
}

/// <summary>A unit no lesson had room for.</summary>
public sealed record LeftOver(int Unit, Seconds Seconds, string Because);

/// <summary>A review no lesson within its tolerance, or after it, had room for.</summary>
public sealed record DroppedReview(int Unit, int DueLesson, Seconds Seconds);

/// <summary>A pin that could not be kept: it contradicts a hard rule or another pin.</summary>
public sealed record RefusedPin(Pin Pin, string Because);
