namespace Zeitplan.Core.Terms;

/// <summary>A class's term: for every cohort what is introduced, reviewed and run through in which lesson, and what does not fit.</summary>
/// <param name="LedSeconds">For every lesson the teachers' seconds used by all cohorts.</param>
public sealed record TermPlan(IReadOnlyList<CohortPlan> Cohorts, IReadOnlyList<int> LedSeconds)
{
    public long Cost => Cohorts.Sum(cohort => cohort.Cost);
}

/// <param name="Lessons">One for every lesson of the problem.</param>
/// <param name="Exact">The plan is proven best for this cohort given the others; false when states had to be dropped on the way.</param>
public sealed record CohortPlan(Guid CohortId, IReadOnlyList<Placement> Placements, IReadOnlyList<CohortLesson> Lessons, IReadOnlyList<LeftOver> LeftOver, IReadOnlyList<DroppedReview> Dropped, bool Exact, long Cost)
{
    /// <summary>The lesson, from 0, in which the last unit is introduced; null while some are left over or there are none.</summary>
    public int? FinishLesson => LeftOver.Count == 0 && Placements.Count > 0 ? Placements[^1].Lesson : null;
}

/// <summary>One unit in the lesson that introduces it.</summary>
/// <param name="Unit">Index into the cohort's units.</param>
public sealed record Placement(int Unit, int Lesson, IReadOnlyList<Review> Reviews, string Because);

/// <summary>What one lesson holds for one cohort, in seconds.</summary>
/// <param name="RunThroughSeconds">From the first unit to the last one known; it grows with the term.</param>
/// <param name="TeacherSeconds">What it takes of the teachers: the led seconds, or the whole lesson when the cohort may not be left alone.</param>
public sealed record CohortLesson(int IntroduceSeconds, int ReviewSeconds, int RunThroughSeconds, int WatchSeconds, int LeadInSeconds, int OwnSeconds, int TeacherSeconds)
{
    public int LedSeconds => IntroduceSeconds + ReviewSeconds + RunThroughSeconds + WatchSeconds + LeadInSeconds;
}

/// <summary>A unit no lesson had room for.</summary>
public sealed record LeftOver(int Unit, int Seconds, string Because);

/// <summary>A review no lesson within its tolerance, or after it, had room for.</summary>
public sealed record DroppedReview(int Unit, int DueLesson, int Seconds);
