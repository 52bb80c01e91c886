using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>What the other cohorts of the class leave to one of them.</summary>
/// <param name="TeacherSecondsLeft">For every lesson, the teachers' seconds the others do not use.</param>
/// <param name="Shared">What can be done together with them.</param>
internal sealed record LeftByOthers(IReadOnlyList<int> TeacherSecondsLeft, SharedOffer Shared)
{
    /// <summary>The class to itself.</summary>
    public static LeftByOthers Everything(CohortProblem cohort, IEnumerable<int> teacherSeconds) =>
        new([.. teacherSeconds], SharedOffer.Nothing(cohort.Units.Count));
}

/// <summary>Seconds a lesson still has once what is new is in it: of the cohort's own time, and of the
/// teachers.</summary>
internal readonly record struct LessonRoom(int Time, int Teachers);

/// <summary>
/// What one lesson of one cohort holds when <c>known</c> units have been introduced before it and so many more are
/// introduced in it: the one place where minutes are added up, for the search and for the finished plan alike.
/// </summary>
internal sealed class CohortLessonRules
{
    /// <summary>Room in a lesson that has been held: whatever was done in it is done.</summary>
    private const int Past = int.MaxValue / 4;

    private readonly LeftByOthers others;
    private readonly int[] introduceBefore;
    private readonly int[] runThroughBefore;
    private readonly int[] posturesBefore;
    private readonly int[] hardBefore;

    /// <summary>For every lesson, over the units before one: the penalties of introducing them in it, and the teachers'
    /// seconds that sharing saves.</summary>
    private readonly long[][] costBefore;
    private readonly int[][] savedBefore;

    /// <param name="reviewsAfter">The review calendar of the problem's lessons.</param>
    public CohortLessonRules(
        TermProblem problem,
        CohortProblem cohort,
        IReadOnlyList<IReadOnlyList<Review>> reviewsAfter,
        LeftByOthers others,
        PlanningMode mode
    )
    {
        (Problem, Cohort, ReviewsAfter, this.others, Mode) = (problem, cohort, reviewsAfter, others, mode);
        FirstOpen = problem.FirstOpen;
        EvenShare = PlanCost.EvenShare(problem, cohort);
        MostUnits = Math.Max(4, cohort.MaxNew + 1);
        introduceBefore = SumsBefore(unit => cohort.Units[unit].IntroduceSeconds);
        runThroughBefore =
        [
            .. SumsBefore(unit => cohort.Units[unit].RunThroughSeconds)
                .Select(seconds => seconds + cohort.BeforeSeconds),
        ];
        posturesBefore = SumsBefore(unit => cohort.Units[unit].Kind == UnitKind.Posture ? 1 : 0);
        hardBefore = SumsBefore(unit => cohort.Units[unit] is { Kind: UnitKind.Posture, Difficulty: >= 3 } ? 1 : 0);
        costBefore = new long[problem.Lessons.Count][];
        savedBefore = new int[problem.Lessons.Count][];
        for (var lesson = FirstOpen; lesson < problem.Lessons.Count; lesson++)
        {
            var (cost, saved) = (costBefore[lesson], savedBefore[lesson]) = (
                new long[cohort.Units.Count + 1],
                new int[cohort.Units.Count + 1]
            );
            for (var unit = 0; unit < cohort.Units.Count; unit++)
            {
                var seconds = cohort.Units[unit].IntroduceSeconds;
                cost[unit + 1] =
                    cost[unit]
                    + PlanCost.OfIntroducing(cohort, problem, unit, lesson)
                    + UnsharedPoints(lesson, unit, seconds)
                    - Company(unit, lesson).Sum(with => with.Points)
                    + PriceOf(lesson, unit);
                saved[unit + 1] = saved[unit] + Saved(lesson, unit, seconds);
            }
        }
    }

    public TermProblem Problem { get; }
    public CohortProblem Cohort { get; }
    public PlanningMode Mode { get; }
    public IReadOnlyList<IReadOnlyList<Review>> ReviewsAfter { get; }
    public int FirstOpen { get; }
    public int EvenShare { get; }

    /// <summary>The most units of any kind one lesson brings.</summary>
    public int MostUnits { get; }

    public int IntroduceSeconds(int known, int added) => introduceBefore[known + added] - introduceBefore[known];

    /// <summary>A run-through of the whole segment, once all of it has been introduced, is the review of all its
    /// postures.</summary>
    public bool RunThroughReviewsAll(int known) => known > 0 && known == Cohort.Units.Count;

    /// <summary>What is led is begun with the last posture of the lesson before.</summary>
    public int LeadInSeconds(int lesson, int known) =>
        known > 0 && Problem.Lessons[lesson].Kind != LessonKind.Test ? CohortProblem.LeadInSeconds : 0;

    /// <summary>The teachers' seconds that introducing these units takes, without what they are led in together with
    /// others.</summary>
    public int IntroduceTeacherSeconds(int lesson, int known, int added) =>
        IntroduceSeconds(known, added) - (savedBefore[lesson][known + added] - savedBefore[lesson][known]);

    /// <summary>The teachers' seconds the others leave, whatever this cohort can use of them.</summary>
    public int TeachersLeft(int lesson) =>
        Problem.Lessons[lesson].Held ? Past : Math.Max(0, others.TeacherSecondsLeft[lesson]);

    /// <summary>Seconds a teacher can lead this cohort in a lesson: none when it may not be left alone and nobody is
    /// free for all of it. Whoever stays with it can watch and teach again there too: what is kept for that leaves it with
    /// less to be led, not alone.</summary>
    public int LedLimit(int lesson)
    {
        var (slot, left) = (Problem.Lessons[lesson], others.TeacherSecondsLeft[lesson]);
        var isAlone = Cohort.IsAttended(lesson) && left + slot.SpokenForSeconds < slot.TeachableSeconds;
        return slot switch
        {
            { Held: true } => Past,
            _ when isAlone => 0,
            _ => Math.Clamp(left, 0, TimeOf(lesson)),
        };
    }

    /// <summary>Whether this many units may be introduced here at all, whatever the minutes.</summary>
    public bool MayIntroduce(int lesson, int known, int added)
    {
        if (added == 0)
        {
            return true;
        }

        var postures = posturesBefore[known + added] - posturesBefore[known];
        return Problem.Lessons[lesson].Kind == LessonKind.Ordinary
            && added <= MostUnits
            && postures <= Cohort.MaxNew
            && (postures <= 1 || hardBefore[known + added] == hardBefore[known]);
    }

    /// <summary>How many units a lesson can introduce after so many; none is always possible.</summary>
    public IEnumerable<int> Steps(int lesson, int known)
    {
        yield return 0;
        for (var added = 1; added <= MostUnits && known + added <= Cohort.Units.Count; added++)
        {
            if (!MayIntroduce(lesson, known, added))
            {
                yield break;
            }

            if (Room(lesson, known, added) is not null)
            {
                yield return added;
            }
        }
    }

    /// <summary>What a lesson still has once what is new is in it, or null when its minutes do not hold that.</summary>
    public LessonRoom? Room(int lesson, int known, int added)
    {
        var slot = Problem.Lessons[lesson];
        if (slot.Held)
        {
            return new(Past, Past);
        }

        var leadIn = LeadInSeconds(lesson, known);
        var time = TimeOf(lesson) - leadIn - IntroduceSeconds(known, added) - OwnSeconds(added);
        var teachers = LedLimit(lesson) - leadIn - IntroduceTeacherSeconds(lesson, known, added);
        // All that a cohort which is never left alone does, but for its own practice, is led.
        time = Cohort.IsAttended(lesson) ? Math.Min(time, teachers) : time;
        return added > 0 && (time < 0 || teachers < 0) ? null : new(Math.Max(0, time), Math.Max(0, teachers));
    }

    /// <summary>By how many seconds what is new does not fit into a lesson; 0 when it does.</summary>
    public int Over(int lesson, int known, int added)
    {
        var led = LeadInSeconds(lesson, known) + IntroduceSeconds(known, added);
        return Problem.Lessons[lesson].Held
            ? 0
            : Math.Max(0, Math.Max(led + OwnSeconds(added) - TimeOf(lesson), led - LedLimit(lesson)));
    }

    /// <summary>The penalties of introducing these units in a lesson.</summary>
    public long Cost(int lesson, int known, int added) =>
        costBefore[lesson][known + added]
        - costBefore[lesson][known]
        + PlanCost.OfUnevenness(IntroduceSeconds(known, added), EvenShare);

    /// <summary>The teachers' seconds that are not needed because the cohort joins another one.</summary>
    public int Saved(int lesson, int unit, int seconds) =>
        Cohort.IsAttended(lesson) ? 0 : Math.Min(seconds, others.Shared.LedSeconds(lesson, unit));

    public bool HasLonely => others.Shared.HasLonely;

    /// <summary>Lessons from one on in which a unit keeps another cohort company, and what that is worth. Introducing
    /// counts on all of them; a review that is not held in one gives it back.</summary>
    public IEnumerable<(int Lesson, long Points)> Company(int unit, int from)
    {
        for (var lesson = from; HasLonely && lesson < Problem.Lessons.Count; lesson++)
        {
            if (others.Shared.LonelyPoints(lesson, unit) is > 0 and var points)
            {
                yield return (lesson, points);
            }
        }
    }

    /// <summary>The penalty for introducing to this cohort alone what another one works on too.</summary>
    public long UnsharedPoints(int lesson, int unit, int seconds) =>
        others.Shared.IsCommon(unit) && others.Shared.LedSeconds(lesson, unit) == 0
            ? PlanCost.UnsharedSecond * seconds
            : 0;

    /// <summary>
    /// The whole lesson: what is new, its reviews, and in what remains of the cohort's time the run-through and, before
    /// and in a test, whom to watch. Those two, and the lead-in to nothing but them, take what the teachers have left
    /// in the end (<see cref="SpareMinutes"/>): with less time fewer people are watched, but nothing promised is
    /// broken. They are not in the teachers' seconds yet.
    /// </summary>
    /// <param name="timeLeft">What the reviews have left of the cohort's own time.</param>
    public CohortLesson Content(int lesson, int known, int added, int reviewSeconds, int timeLeft)
    {
        var slot = Problem.Lessons[lesson];
        var (leadIn, introduce) = (LeadInSeconds(lesson, known), IntroduceSeconds(known, added));
        var isLed = added > 0 || reviewSeconds > 0;
        leadIn = isLed ? leadIn : Math.Min(leadIn, timeLeft);
        var runThrough = Math.Min(runThroughBefore[known], timeLeft);
        var watch =
            slot.Kind == LessonKind.Ordinary
                ? 0
                : Math.Min(
                    runThrough
                        * ((Cohort.People + CohortProblem.SeenPerRepetition - 1) / CohortProblem.SeenPerRepetition),
                    timeLeft - runThrough
                );
        return new(
            new(introduce),
            new(reviewSeconds),
            new(runThrough),
            new(watch),
            new(leadIn),
            new(OwnSeconds(added)),
            new(
                Cohort.IsAttended(lesson) ? Math.Min(LedLimit(lesson), TimeOf(lesson))
                : isLed ? leadIn + introduce + reviewSeconds
                : 0
            )
        );
    }

    /// <summary>The teachers' seconds a unit takes when it is introduced in a lesson.</summary>
    public int TeacherSecondsOf(int lesson, int unit) =>
        Cohort.IsAttended(lesson)
            ? 0
            : Cohort.Units[unit].IntroduceSeconds - Saved(lesson, unit, Cohort.Units[unit].IntroduceSeconds);

    private long PriceOf(int lesson, int unit) => (long)(Mode.PriceIn(lesson) * TeacherSecondsOf(lesson, unit));

    private int TimeOf(int lesson) => Problem.TimeOf(Cohort, lesson);

    private static int OwnSeconds(int added) => added * CohortProblem.OwnPracticeAfterNewSeconds;

    private int[] SumsBefore(Func<int, int> value)
    {
        var sums = new int[Cohort.Units.Count + 1];
        for (var unit = 0; unit < Cohort.Units.Count; unit++)
        {
            sums[unit + 1] = sums[unit] + value(unit);
        }

        return sums;
    }
}
