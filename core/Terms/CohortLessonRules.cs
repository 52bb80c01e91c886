namespace Zeitplan.Core.Terms;

/// <summary>
/// What one lesson of one cohort holds when <c>known</c> units have been introduced before it and so many more are introduced in it: the one place where
/// minutes are added up, for the search and for the finished plan alike.
/// </summary>
internal sealed class CohortLessonRules
{
    private readonly TermProblem problem;
    private readonly CohortProblem cohort;
    private readonly IReadOnlyList<int> teacherSecondsLeft;
    private readonly int[] introduceBefore;
    private readonly int[] runThroughBefore;

    public CohortLessonRules(TermProblem problem, CohortProblem cohort, IReadOnlyList<int> teacherSecondsLeft)
    {
        (this.problem, this.cohort, this.teacherSecondsLeft) = (problem, cohort, teacherSecondsLeft);
        introduceBefore = SumsBefore(unit => unit.IntroduceSeconds);
        runThroughBefore = [.. SumsBefore(unit => unit.RunThroughSeconds).Select(seconds => seconds + cohort.BeforeSeconds)];
    }

    private bool AllIntroduced(int known) => known == cohort.Units.Count;

    public int IntroduceSeconds(int known, int added) => introduceBefore[known + added] - introduceBefore[known];

    /// <summary>A run-through of the whole segment, once all of it has been introduced, is the review of all its postures.</summary>
    public bool RunThroughReviewsAll(int known) => known > 0 && AllIntroduced(known);

    public bool IsAttended(int lesson) => lesson < cohort.AttendedLessons;

    /// <summary>Seconds a teacher can lead this cohort in a lesson: none when it may not be left alone and nobody is free for all of it.</summary>
    public int LedLimit(int lesson) => problem.Lessons[lesson] switch
    {
        { Held: true } => int.MaxValue / 4,
        var slot when IsAttended(lesson) => teacherSecondsLeft[lesson] >= slot.TeachableSeconds ? slot.TeachableSeconds : 0,
        var slot => Math.Max(0, Math.Min(slot.TeachableSeconds, teacherSecondsLeft[lesson])),
    };

    private int TimeLimit(int lesson) => problem.Lessons[lesson].Held ? int.MaxValue / 4 : problem.Lessons[lesson].TeachableSeconds;

    /// <summary>Whether this many units may be introduced here at all, whatever the minutes.</summary>
    public bool MayIntroduce(int lesson, int known, int added) =>
        added == 0
        || (problem.Lessons[lesson].Kind == LessonKind.Ordinary
            && added <= cohort.MaxNew
            && (added == 1 || Enumerable.Range(known, added).All(unit => cohort.Units[unit].Difficulty < 3)));

    /// <summary>The lesson without its reviews, or null when its minutes do not hold what is new.</summary>
    public CohortLesson? WithoutReviews(int lesson, int known, int added)
    {
        var slot = problem.Lessons[lesson];
        var limit = LedLimit(lesson);
        var introduce = IntroduceSeconds(known, added);
        var own = added * CohortProblem.OwnPracticeAfterNewSeconds;
        var leadIn = Math.Min(known > 0 && slot.Kind != LessonKind.Test ? CohortProblem.LeadInSeconds : 0, limit);
        if (added > 0 && (leadIn + introduce > limit || leadIn + introduce + own > TimeLimit(lesson)))
        {
            return null;
        }

        // Every lesson runs through the form from its beginning to what is known so far, and before and in a test people are watched doing it. Both take what is there: with less time
        // fewer people are watched, but nothing promised is broken.
        var runThrough = Math.Min(runThroughBefore[known], Math.Min(limit, TimeLimit(lesson) - own) - leadIn - introduce);
        var watch = slot.Kind != LessonKind.Ordinary
            ? Math.Min(runThrough * ((cohort.People + CohortProblem.SeenPerRepetition - 1) / CohortProblem.SeenPerRepetition), limit - leadIn - introduce - runThrough)
            : 0;
        var led = leadIn + introduce + runThrough + watch;
        return new(introduce, 0, runThrough, watch, leadIn, own, TeacherSeconds(lesson, led));
    }

    /// <summary>Whether one more review fits into the lesson.</summary>
    public bool Fits(int lesson, CohortLesson content, int reviewSeconds) =>
        content.LedSeconds + reviewSeconds <= LedLimit(lesson) && content.LedSeconds + content.OwnSeconds + reviewSeconds <= TimeLimit(lesson);

    public CohortLesson With(int lesson, CohortLesson content, int reviewSeconds) =>
        content with { ReviewSeconds = content.ReviewSeconds + reviewSeconds, TeacherSeconds = TeacherSeconds(lesson, content.LedSeconds + reviewSeconds) };

    private int TeacherSeconds(int lesson, int led) =>
        IsAttended(lesson) ? Math.Min(LedLimit(lesson), problem.Lessons[lesson].TeachableSeconds) : led;

    private int[] SumsBefore(Func<TeachingUnit, int> seconds)
    {
        var sums = new int[cohort.Units.Count + 1];
        for (var unit = 0; unit < cohort.Units.Count; unit++)
        {
            sums[unit + 1] = sums[unit] + seconds(cohort.Units[unit]);
        }

        return sums;
    }
}
