namespace Zeitplan.Core.Terms;

/// <summary>Turns the number of units introduced in each lesson into a cohort's plan: which reviews happen where, what is left over, and why.</summary>
internal sealed class PlanWriter(TermProblem problem, CohortProblem cohort, CohortLessonRules rules, IReadOnlyList<IReadOnlyList<Review>> reviewsAfter, int firstOpen, int evenShare)
{
    public CohortPlan Write(int[] introductions, bool exact)
    {
        var lessonOf = introductions.SelectMany((count, lesson) => Enumerable.Repeat(lesson, count)).ToArray();
        var knownBefore = new int[introductions.Length];
        for (var lesson = 1; lesson < introductions.Length; lesson++)
        {
            knownBefore[lesson] = knownBefore[lesson - 1] + introductions[lesson - 1];
        }

        var lessons = introductions.Select((count, lesson) => rules.WithoutReviews(lesson, knownBefore[lesson], count)!).ToArray();
        var reviews = lessonOf.Select(_ => new List<Review>()).ToArray();
        List<(int Unit, Review Review)> unplaced = [];
        foreach (var (unit, review) in InOrder(lessonOf))
        {
            if (!TryPlace(unit, review, lessons, reviews, knownBefore))
            {
                unplaced.Add((unit, review));
            }
        }

        var dropped = unplaced.Where(due => !PlaceElsewhere(due.Unit, due.Review, problem.Lessons[lessonOf[due.Unit]].Date.AddDays(7 * due.Review.WeeksAfter), lessons, reviews, knownBefore)).ToList();
        var placements = lessonOf.Select((lesson, unit) => new Placement(unit, lesson, [.. reviews[unit].OrderBy(review => review.Lesson)], Because(unit, lessonOf, introductions))).ToList();
        var left = Enumerable.Range(lessonOf.Length, cohort.Units.Count - lessonOf.Length).Select(unit => new LeftOver(unit, cohort.Units[unit].IntroduceSeconds, WhyLeft(unit, introductions))).ToList();
        return new(
            cohort.Id,
            placements,
            lessons,
            left,
            [.. dropped.Select(due => new DroppedReview(due.Unit, due.Review.Lesson, cohort.Units[due.Unit].ReviewSeconds))],
            exact,
            Cost(introductions, lessonOf, reviews, dropped.Select(due => due.Unit)));
    }

    /// <summary>Lesson by lesson, what was introduced most recently first: the same order as in the search.</summary>
    private IEnumerable<(int Unit, Review Review)> InOrder(int[] lessonOf) =>
        from due in lessonOf.SelectMany((lesson, unit) => reviewsAfter[lesson].Select(review => (Unit: unit, Review: review)))
        orderby due.Review.Lesson, lessonOf[due.Unit] descending, due.Unit
        select due;

    private bool TryPlace(int unit, Review review, CohortLesson[] lessons, List<Review>[] reviews, int[] knownBefore)
    {
        if (rules.RunThroughReviewsAll(knownBefore[review.Lesson]))
        {
            reviews[unit].Add(review);
            return true;
        }

        var seconds = cohort.Units[unit].ReviewSeconds;
        if (!rules.Fits(review.Lesson, lessons[review.Lesson], seconds))
        {
            return false;
        }

        lessons[review.Lesson] = rules.With(review.Lesson, lessons[review.Lesson], seconds);
        reviews[unit].Add(review);
        return true;
    }

    /// <summary>A week either way is free, later is late; a lesson that reviews the unit already is no second review.</summary>
    private bool PlaceElsewhere(int unit, Review due, DateOnly dueDate, CohortLesson[] lessons, List<Review>[] reviews, int[] knownBefore)
    {
        var elsewhere = Enumerable.Range(firstOpen, lessons.Length - firstOpen)
            .Where(lesson => lesson != due.Lesson && knownBefore[lesson] > unit && reviews[unit].All(review => review.Lesson != lesson))
            .Select(lesson => (Lesson: lesson, Days: problem.Lessons[lesson].Date.DayNumber - dueDate.DayNumber))
            .Where(at => at.Days >= -ReviewCalendar.ToleranceDays)
            .OrderBy(at => Math.Abs(at.Days) > ReviewCalendar.ToleranceDays)
            .ThenBy(at => Math.Abs(at.Days));
        return elsewhere.Any(at => TryPlace(unit, new(at.Lesson, due.WeeksAfter, at.Days > ReviewCalendar.ToleranceDays), lessons, reviews, knownBefore));
    }

    private long Cost(int[] introductions, int[] lessonOf, List<Review>[] reviews, IEnumerable<int> dropped)
    {
        var openUnits = Enumerable.Range(cohort.IntroducedIn.Count, lessonOf.Length - cohort.IntroducedIn.Count);
        var known = cohort.IntroducedIn.Count;
        long cost = 0;
        for (var lesson = firstOpen; lesson < introductions.Length; known += introductions[lesson], lesson++)
        {
            cost += PlanCost.OfUnevenness(rules.IntroduceSeconds(known, introductions[lesson]), evenShare);
        }

        return cost
            + openUnits.Sum(unit => PlanCost.OfIntroducing(cohort, firstOpen, lessonOf[unit]))
            + cohort.Units.Skip(lessonOf.Length).Sum(PlanCost.OfLeaving)
            + dropped.Sum(unit => PlanCost.DroppedReviewSecond * cohort.Units[unit].ReviewSeconds)
            + reviews.Select((held, unit) => held.Count(review => review.Late && review.Lesson >= firstOpen) * PlanCost.LateReviewSecond * cohort.Units[unit].ReviewSeconds).Sum();
    }

    private string Because(int unit, int[] lessonOf, int[] introductions)
    {
        var lesson = lessonOf[unit];
        if (problem.Lessons[lesson].Held)
        {
            return "Taught in this lesson.";
        }

        var order = unit == 0 ? "First of the segment." : $"After {cohort.Units[unit - 1].Name}, in form order.";
        var previous = lesson - 1;
        var late = lesson > cohort.TargetLesson ? " Past its target: no earlier lesson has room." : "";
        if (late.Length > 0 || previous < firstOpen || (unit > 0 && lessonOf[unit - 1] == lesson))
        {
            return order + late;
        }

        return order + problem.Lessons[previous].Kind switch
        {
            LessonKind.Consolidation => " The lesson before brings nothing new: a test follows it.",
            LessonKind.Test => " The lesson before is a test.",
            _ when introductions[previous] == cohort.MaxNew => cohort.MaxNew == 1 ? " One new posture a lesson for this cohort." : $" The lesson before has its {cohort.MaxNew} new postures.",
            _ when introductions[previous] > 0 && cohort.Units[unit].Difficulty == 3 => " A hard posture has a lesson to itself.",
            _ => " Spread evenly up to the target.",
        };
    }

    private string WhyLeft(int unit, int[] introductions)
    {
        var open = Enumerable.Range(firstOpen, introductions.Length - firstOpen).Where(lesson => problem.Lessons[lesson].Kind == LessonKind.Ordinary).ToList();
        if (open.Count == 0)
        {
            return "No lesson that can bring something new is left in the term.";
        }

        if (open.All(lesson => rules.LedLimit(lesson) == 0))
        {
            return cohort.AttendedLessons > open[0] ? $"Nobody is free to stay with {cohort.Name} all lesson." : "The teachers have no minutes left.";
        }

        return open.All(lesson => introductions[lesson] == cohort.MaxNew)
            ? $"Every lesson left has its {(cohort.MaxNew == 1 ? "one new posture" : $"{cohort.MaxNew} new postures")}."
            : unit > 0 && cohort.Units[unit].IntroduceSeconds > open.Max(rules.LedLimit) ? "No single lesson has that many minutes."
            : "The minutes of the lessons left are taken.";
    }
}
