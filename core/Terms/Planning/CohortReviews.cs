namespace Zeitplan.Core.Terms.Planning;

/// <summary>The reviews of one cohort while they are given their lessons: which is held where, and what that leaves of
/// the cohort's time and of the teachers' seconds.</summary>
internal sealed class CohortReviews
{
    public const int Nowhere = -1;

    private readonly CohortLessonRules rules;
    private readonly int[] days;
    private readonly int[] timeLeft;
    private readonly int[] teachersLeft;
    private readonly bool[] inRunThrough;

    /// <summary>For every lesson, how much of it is led: its lead-in is needed once something is.</summary>
    private readonly int[] ledParts;
    private readonly int[] leadIn;
    private readonly List<DueReview> items = [];
    private readonly int[] heldIn;
    private readonly HashSet<(int Unit, int Lesson)> taken = [];

    /// <param name="introductions">How many units each lesson introduces.</param>
    /// <param name="teachersLeft">The teachers' seconds of each lesson, the same for all cohorts whose reviews are
    /// placed together: what this one introduces is taken from them.</param>
    public CohortReviews(CohortLessonRules rules, int[] introductions, int[] teachersLeft)
    {
        (this.rules, this.teachersLeft) = (rules, teachersLeft);
        days = [.. rules.Problem.Lessons.Select(lesson => lesson.Date.DayNumber)];
        LessonOf = [.. introductions.SelectMany((count, lesson) => Enumerable.Repeat(lesson, count))];
        KnownBefore = new int[introductions.Length];
        (timeLeft, ledParts, leadIn, inRunThrough) = (
            new int[introductions.Length],
            new int[introductions.Length],
            new int[introductions.Length],
            new bool[introductions.Length]
        );
        for (var lesson = 0; lesson < introductions.Length; lesson++)
        {
            KnownBefore[lesson] = lesson == 0 ? 0 : KnownBefore[lesson - 1] + introductions[lesson - 1];
            timeLeft[lesson] = rules.Room(lesson, KnownBefore[lesson], introductions[lesson])!.Value.Time;
            inRunThrough[lesson] = rules.RunThroughReviewsAll(KnownBefore[lesson]);
            leadIn[lesson] = rules.LeadInSeconds(lesson, KnownBefore[lesson]);
            if (introductions[lesson] > 0 && NeedsTeachers(lesson))
            {
                ledParts[lesson] = 1;
                teachersLeft[lesson] -=
                    leadIn[lesson] + rules.IntroduceTeacherSeconds(lesson, KnownBefore[lesson], introductions[lesson]);
            }
        }

        for (var unit = 0; unit < LessonOf.Length; unit++)
        {
            foreach (var review in rules.ReviewsAfter[LessonOf[unit]])
            {
                items.Add(new(unit, review.Lesson, review.WeeksAfter, days[LessonOf[unit]] + (7 * review.WeeksAfter)));
            }
        }

        heldIn = new int[items.Count];
        Array.Fill(heldIn, Nowhere);
    }

    /// <summary>For each unit introduced, the lesson that does so.</summary>
    public int[] LessonOf { get; }

    /// <summary>For each lesson, how many units have been introduced before it.</summary>
    public int[] KnownBefore { get; }

    public int Count => items.Count;

    public DueReview Wanted(int at) => items[at];

    public int HeldIn(int at) => heldIn[at];

    /// <summary>The cohort's own seconds of a lesson that are left.</summary>
    public int TimeLeft(int lesson) => timeLeft[lesson];

    public int ReviewSecondsIn(int lesson) =>
        inRunThrough[lesson] ? 0 : Enumerable.Range(0, items.Count).Where(at => heldIn[at] == lesson).Sum(Seconds);

    public IEnumerable<(int Unit, Review Review)> Held =>
        Enumerable
            .Range(0, items.Count)
            .Where(at => heldIn[at] != Nowhere)
            .Select(at =>
                (
                    items[at].Unit,
                    new Review(heldIn[at], items[at].WeeksAfter, IsLate(at, heldIn[at]), inRunThrough[heldIn[at]])
                )
            );

    public IEnumerable<(int Unit, int DueLesson)> Dropped =>
        Enumerable
            .Range(0, items.Count)
            .Where(at => heldIn[at] == Nowhere)
            .Select(at => (items[at].Unit, items[at].Due));

    /// <summary>The penalties of reviews that are late, dropped, or not where they would have kept another cohort
    /// company.</summary>
    public long Cost
    {
        get
        {
            long cost = 0;
            for (var at = 0; at < items.Count; at++)
            {
                cost +=
                    heldIn[at] == Nowhere
                        ? rules.Mode.IsNewOnly
                            ? 0
                            : CostOfDropping(at)
                        : CostIn(at, heldIn[at]);
            }

            for (var unit = 0; rules.HasLonely && unit < LessonOf.Length; unit++)
            {
                cost += rules
                    .Company(unit, FirstFor(unit))
                    .Where(with => inRunThrough[with.Lesson] || !taken.Contains((unit, with.Lesson)))
                    .Sum(with => with.Points);
            }

            return cost;
        }
    }

    /// <summary>Lessons within the tolerance of the due date, the nearest first.</summary>
    public IEnumerable<int> OnTime(int at) =>
        Allowed(at)
            .Where(lesson => Math.Abs(days[lesson] - items[at].DueDay) <= ReviewCalendar.ToleranceDays)
            .OrderBy(lesson => Math.Abs(days[lesson] - items[at].DueDay));

    /// <summary>Lessons after that, first those whose run-through is the review and takes nothing from
    /// others.</summary>
    public IEnumerable<int> Later(int at) =>
        Allowed(at).Where(lesson => IsLate(at, lesson)).OrderByDescending(lesson => inRunThrough[lesson]);

    /// <summary>Lessons from the tolerance on in which the same unit is reviewed already.</summary>
    public IEnumerable<int> Siblings(int at)
    {
        var (unit, due) = (items[at].Unit, items[at].DueDay);
        return heldIn
            .Where(
                (lesson, other) =>
                    other != at
                    && items[other].Unit == unit
                    && lesson != Nowhere
                    && days[lesson] - due >= -ReviewCalendar.ToleranceDays
            )
            .ToList();
    }

    public int? SiblingIn(int at, int lesson) =>
        taken.Contains((items[at].Unit, lesson))
            ? Enumerable
                .Range(0, items.Count)
                .First(other => heldIn[other] == lesson && items[other].Unit == items[at].Unit)
            : null;

    /// <summary>Lessons on time in which the review would keep another cohort company.</summary>
    public IEnumerable<int> InCompany(int at) =>
        rules
            .Company(items[at].Unit, FirstFor(items[at].Unit))
            .Select(with => with.Lesson)
            .Where(lesson =>
                !inRunThrough[lesson] && Math.Abs(days[lesson] - items[at].DueDay) <= ReviewCalendar.ToleranceDays
            );

    public bool TryPut(int at, int lesson)
    {
        if (taken.Contains((items[at].Unit, lesson)))
        {
            return false;
        }

        if (TakesTime(at, lesson))
        {
            var (seconds, teachers) = (Seconds(at), TeachersFor(at, lesson, ledParts[lesson] == 0));
            if (
                seconds > timeLeft[lesson]
                || (NeedsTeachers(lesson) ? teachers > teachersLeft[lesson] : rules.LedLimit(lesson) == 0)
            )
            {
                return false;
            }

            timeLeft[lesson] -= seconds;
            if (NeedsTeachers(lesson))
            {
                teachersLeft[lesson] -= teachers;
                ledParts[lesson]++;
            }
        }

        taken.Add((items[at].Unit, lesson));
        heldIn[at] = lesson;
        return true;
    }

    public void TakeOut(int at)
    {
        var lesson = heldIn[at];
        if (TakesTime(at, lesson))
        {
            timeLeft[lesson] += Seconds(at);
            if (NeedsTeachers(lesson))
            {
                ledParts[lesson]--;
                teachersLeft[lesson] += TeachersFor(at, lesson, ledParts[lesson] == 0);
            }
        }

        taken.Remove((items[at].Unit, lesson));
        heldIn[at] = Nowhere;
    }

    public int Seconds(int at) => rules.Cohort.Units[items[at].Unit].ReviewSeconds;

    /// <summary>Inside a run-through of the whole segment a review takes no time of its own.</summary>
    public bool TakesTime(int at, int lesson) => !inRunThrough[lesson] && lesson >= rules.FirstOpen && Seconds(at) > 0;

    public long CostIn(int at, int lesson) =>
        lesson >= rules.FirstOpen && IsLate(at, lesson) ? PlanCost.LateReviewSecond * Seconds(at) : 0;

    public long CostOfDropping(int at) => PlanCost.DroppedReviewSecond * Seconds(at);

    /// <summary>A cohort that is attended all lesson has its teacher anyway.</summary>
    private bool NeedsTeachers(int lesson) => lesson >= rules.FirstOpen && !rules.Cohort.IsAttended(lesson);

    private int TeachersFor(int at, int lesson, bool leadIn) =>
        Seconds(at) - rules.Saved(lesson, items[at].Unit, Seconds(at)) + (leadIn ? this.leadIn[lesson] : 0);

    private int FirstFor(int unit) => Math.Max(rules.FirstOpen, LessonOf[unit] + 1);

    private IEnumerable<int> Allowed(int at)
    {
        for (var lesson = FirstFor(items[at].Unit); lesson < days.Length; lesson++)
        {
            if (!taken.Contains((items[at].Unit, lesson)))
            {
                yield return lesson;
            }
        }
    }

    private bool IsLate(int at, int lesson) => days[lesson] - items[at].DueDay > ReviewCalendar.ToleranceDays;

    /// <param name="Due">The lesson the calendar asks for.</param>
    /// <param name="DueDay">The day it is due, lesson or not.</param>
    public readonly record struct DueReview(int Unit, int Due, int WeeksAfter, int DueDay);
}
