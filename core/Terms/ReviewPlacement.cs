namespace Zeitplan.Core.Terms;

/// <summary>
/// Which lesson holds which review, once it is decided what each lesson introduces. Every review first asks for the lesson it is due in, then for one a week either
/// way, then for another review's place that can go elsewhere, then for a later lesson. What finds no lesson is dropped, and said.
/// </summary>
internal sealed class ReviewPlacement
{
    private const int Nowhere = -1;

    private readonly CohortLessonRules rules;
    private readonly int[] days;
    private readonly LessonRoom[] room;
    private readonly bool[] inRunThrough;
    private readonly List<Item> items = [];
    private readonly int[] heldIn;
    private readonly HashSet<(int Unit, int Lesson)> taken = [];

    /// <param name="introductions">How many units each lesson introduces.</param>
    private ReviewPlacement(CohortLessonRules rules, int[] introductions)
    {
        this.rules = rules;
        days = [.. rules.Problem.Lessons.Select(lesson => lesson.Date.DayNumber)];
        LessonOf = [.. introductions.SelectMany((count, lesson) => Enumerable.Repeat(lesson, count))];
        KnownBefore = new int[introductions.Length];
        (room, inRunThrough) = (new LessonRoom[introductions.Length], new bool[introductions.Length]);
        for (var lesson = 0; lesson < introductions.Length; lesson++)
        {
            KnownBefore[lesson] = lesson == 0 ? 0 : KnownBefore[lesson - 1] + introductions[lesson - 1];
            room[lesson] = rules.Room(lesson, KnownBefore[lesson], introductions[lesson])!.Value;
            inRunThrough[lesson] = rules.RunThroughReviewsAll(KnownBefore[lesson]);
        }

        for (var unit = 0; unit < LessonOf.Length; unit++)
        {
            foreach (var review in rules.ReviewsAfter[LessonOf[unit]])
            {
                items.Add(new(unit, review.Lesson, review.WeeksAfter, days[LessonOf[unit]] + (7 * review.WeeksAfter)));
            }
        }

        // Lesson by lesson, what was introduced most recently first: the same order as in the search.
        items.Sort((a, b) => (a.Due, -LessonOf[a.Unit], a.Unit, a.WeeksAfter).CompareTo((b.Due, -LessonOf[b.Unit], b.Unit, b.WeeksAfter)));
        heldIn = new int[items.Count];
        Array.Fill(heldIn, Nowhere);
    }

    /// <summary>For each unit introduced, the lesson that does so.</summary>
    public int[] LessonOf { get; }

    /// <summary>For each lesson, how many units have been introduced before it.</summary>
    public int[] KnownBefore { get; }

    /// <summary>What the reviews leave of each lesson.</summary>
    public IReadOnlyList<LessonRoom> Left => room;

    public static ReviewPlacement Of(CohortLessonRules rules, int[] introductions)
    {
        var placement = new ReviewPlacement(rules, introductions);
        placement.Place();
        if (rules.HasLonely && !rules.IntroductionsOnly)
        {
            var together = new ReviewPlacement(rules, introductions);
            together.KeepCompany();
            together.Place();
            return together.Cost < placement.Cost ? together : placement;
        }

        return placement;
    }

    public int ReviewSecondsIn(int lesson) => inRunThrough[lesson] ? 0 : Enumerable.Range(0, items.Count).Where(at => heldIn[at] == lesson).Sum(Seconds);

    public IEnumerable<(int Unit, Review Review)> Held => Enumerable.Range(0, items.Count).Where(at => heldIn[at] != Nowhere)
        .Select(at => (items[at].Unit, new Review(heldIn[at], items[at].WeeksAfter, IsLate(at, heldIn[at]), inRunThrough[heldIn[at]])));

    public IEnumerable<(int Unit, int DueLesson)> Dropped => Enumerable.Range(0, items.Count).Where(at => heldIn[at] == Nowhere).Select(at => (items[at].Unit, items[at].Due));

    /// <summary>The penalties of reviews that are late, dropped, or not where they would have kept another cohort company.</summary>
    public long Cost
    {
        get
        {
            long cost = 0;
            for (var at = 0; at < items.Count; at++)
            {
                var lesson = heldIn[at];
                cost += lesson == Nowhere ? rules.IntroductionsOnly ? 0 : PlanCost.DroppedReviewSecond * Seconds(at)
                    : lesson < rules.FirstOpen ? 0
                    : IsLate(at, lesson) ? PlanCost.LateReviewSecond * Seconds(at) : 0;
            }

            for (var unit = 0; rules.HasLonely && unit < LessonOf.Length; unit++)
            {
                cost += rules.Company(unit, Math.Max(rules.FirstOpen, LessonOf[unit] + 1)).Where(with => inRunThrough[with.Lesson] || !taken.Contains((unit, with.Lesson))).Sum(with => with.Points);
            }

            return cost;
        }
    }

    /// <summary>Puts reviews first where another cohort is introduced to the same and would be alone.</summary>
    private void KeepCompany()
    {
        for (var at = 0; at < items.Count; at++)
        {
            var item = items[at];
            _ = rules.Company(item.Unit, Math.Max(rules.FirstOpen, LessonOf[item.Unit] + 1))
                .Any(with => !inRunThrough[with.Lesson] && Math.Abs(days[with.Lesson] - item.DueDay) <= ReviewCalendar.ToleranceDays && TryPut(at, with.Lesson));
        }
    }

    private void Place()
    {
        if (rules.IntroductionsOnly)
        {
            return;
        }

        List<int> waiting = [];
        for (var at = 0; at < items.Count; at++)
        {
            if (heldIn[at] == Nowhere && !TryPut(at, items[at].Due))
            {
                waiting.Add(at);
            }
        }

        foreach (var at in waiting)
        {
            var onTime = OnTime(at).ToList();
            _ = onTime.Any(lesson => TryPut(at, lesson)) || onTime.Any(lesson => TryMakeRoom(at, lesson)) || Later(at).Any(lesson => TryPut(at, lesson)) || onTime.Any(lesson => TryReplace(at, lesson));
        }
    }

    /// <summary>Lessons within the tolerance of the due date, the nearest first.</summary>
    private IEnumerable<int> OnTime(int at) => Allowed(at).Where(lesson => Math.Abs(days[lesson] - items[at].DueDay) <= ReviewCalendar.ToleranceDays).OrderBy(lesson => Math.Abs(days[lesson] - items[at].DueDay));

    private IEnumerable<int> Later(int at) => Allowed(at).Where(lesson => days[lesson] - items[at].DueDay > ReviewCalendar.ToleranceDays);

    private IEnumerable<int> Allowed(int at)
    {
        for (var lesson = Math.Max(rules.FirstOpen, LessonOf[items[at].Unit] + 1); lesson < days.Length; lesson++)
        {
            if (!taken.Contains((items[at].Unit, lesson)))
            {
                yield return lesson;
            }
        }
    }

    private bool TryPut(int at, int lesson)
    {
        var (seconds, saved) = Takes(at, lesson);
        if (seconds > room[lesson].Time || seconds - saved > room[lesson].Teachers || !taken.Add((items[at].Unit, lesson)))
        {
            return false;
        }

        room[lesson] = new(room[lesson].Time - seconds, room[lesson].Teachers - seconds + saved);
        heldIn[at] = lesson;
        return true;
    }

    private void TakeOut(int at)
    {
        var lesson = heldIn[at];
        var (seconds, saved) = Takes(at, lesson);
        room[lesson] = new(room[lesson].Time + seconds, room[lesson].Teachers + seconds - saved);
        taken.Remove((items[at].Unit, lesson));
        heldIn[at] = Nowhere;
    }

    /// <summary>Sends another review of the lesson to another lesson of its own, on time as well.</summary>
    private bool TryMakeRoom(int at, int lesson)
    {
        foreach (var other in Enumerable.Range(0, items.Count).Where(other => heldIn[other] == lesson && Takes(other, lesson).Seconds > 0).ToList())
        {
            foreach (var elsewhere in OnTime(other).Where(elsewhere => elsewhere != lesson).ToList())
            {
                TakeOut(other);
                if (TryPut(other, elsewhere))
                {
                    if (TryPut(at, lesson))
                    {
                        return true;
                    }

                    TakeOut(other);
                }

                TryPut(other, lesson);
            }
        }

        return false;
    }

    /// <summary>Drops a shorter review for a longer one: what is not held weighs by its seconds.</summary>
    private bool TryReplace(int at, int lesson)
    {
        foreach (var other in Enumerable.Range(0, items.Count).Where(other => heldIn[other] == lesson && Takes(other, lesson).Seconds is > 0 and var seconds && seconds < Seconds(at)).OrderBy(Seconds).ToList())
        {
            TakeOut(other);
            if (TryPut(at, lesson))
            {
                _ = OnTime(other).ToList().Any(elsewhere => TryPut(other, elsewhere)) || Later(other).ToList().Any(elsewhere => TryPut(other, elsewhere));
                return true;
            }

            TryPut(other, lesson);
        }

        return false;
    }

    private (int Seconds, int Saved) Takes(int at, int lesson) =>
        inRunThrough[lesson] || lesson < rules.FirstOpen ? (0, 0) : (Seconds(at), rules.Saved(lesson, items[at].Unit, Seconds(at)));

    private int Seconds(int at) => rules.Cohort.Units[items[at].Unit].ReviewSeconds;

    private bool IsLate(int at, int lesson) => days[lesson] - items[at].DueDay > ReviewCalendar.ToleranceDays;

    /// <param name="Due">The lesson the calendar asks for.</param>
    /// <param name="DueDay">The day it is due, lesson or not.</param>
    private readonly record struct Item(int Unit, int Due, int WeeksAfter, int DueDay);
}
