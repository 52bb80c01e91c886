using System.Globalization;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>Turns what each lesson introduces, and where the reviews found room, into a cohort's plan with the reason
/// for every placement and every refusal.</summary>
internal sealed class PlanWriter(CohortLessonRules rules)
{
    private TermProblem Problem => rules.Problem;
    private CohortProblem Cohort => rules.Cohort;

    public CohortPlan Write(CohortReviews placed, int[] introductions)
    {
        var reviews = placed.Held.ToLookup(held => held.Unit, held => held.Review);
        var pinned = Cohort.Pins.ToHashSet();
        var placements = placed
            .LessonOf.Select(
                (lesson, unit) =>
                    new Placement(
                        unit,
                        lesson,
                        [.. reviews[unit].OrderBy(review => review.Lesson)],
                        Because(unit, placed.LessonOf, introductions),
                        pinned.Contains(new(unit, lesson))
                    )
            )
            .ToList();
        return new(
            Cohort.Id,
            placements,
            [
                .. introductions.Select(
                    (count, lesson) =>
                        rules.Content(
                            lesson,
                            placed.KnownBefore[lesson],
                            count,
                            placed.ReviewSecondsIn(lesson),
                            placed.TimeLeft(lesson)
                        )
                ),
            ],
            [
                .. Enumerable
                    .Range(placements.Count, Cohort.Units.Count - placements.Count)
                    .Select(unit => new LeftOver(
                        unit,
                        Cohort.Units[unit].IntroduceSeconds,
                        WhyLeft(unit, introductions)
                    )),
            ],
            [
                .. placed.Dropped.Select(dropped => new DroppedReview(
                    dropped.Unit,
                    dropped.DueLesson,
                    Cohort.Units[dropped.Unit].ReviewSeconds
                )),
            ],
            Exact: false,
            Cost: 0
        )
        {
            Refused =
            [
                .. Cohort
                    .Pins.Where(pin => placements.Count <= pin.Unit || placements[pin.Unit].Lesson != pin.Lesson)
                    .Select(pin => new RefusedPin(pin, WhyRefused(pin, placements))),
            ],
        };
    }

    private string Because(int unit, int[] lessonOf, int[] introductions)
    {
        var lesson = lessonOf[unit];
        if (Problem.Lessons[lesson].Held)
        {
            return "Taught in this lesson.";
        }

        if (Cohort.Pins.Contains(new(unit, lesson)))
        {
            return "You put it here.";
        }

        return string.Join(
            " ",
            new[] { Order(unit), WhyNotEarlier(unit, lesson, lessonOf, introductions), WhyNow(unit, lesson) }.Where(
                part => part.Length > 0
            )
        );
    }

    private string Order(int unit)
    {
        var here = Cohort.Units[unit];
        var order =
            unit == 0 ? "First of what it has been given."
            : here.Kind == UnitKind.Layer ? ""
            : $"After {Cohort.Units[unit - 1].Name}, in teaching order.";
        return here.NeededBy is { } later ? $"{later} needs it."
            : here.Kind == UnitKind.Link ? "Both postures are known; the way from one to the other is new."
            : order;
    }

    private string WhyNotEarlier(int unit, int lesson, int[] lessonOf, int[] introductions)
    {
        var previous = lesson - 1;
        if (previous < rules.FirstOpen)
        {
            return "";
        }

        var closed = Problem
            .Closed.Where(closure =>
                closure.Date > Problem.Lessons[previous].Date && closure.Date < Problem.Lessons[lesson].Date
            )
            .Select(closure => $"{Day(closure.Date)} is closed.")
            .FirstOrDefault();
        if (lesson > Cohort.TargetOf(unit))
        {
            return $"Past its target: no earlier lesson has room.{(closed is null ? "" : " " + closed)}";
        }

        if (closed is not null || (unit > 0 && lessonOf[unit - 1] == lesson))
        {
            return closed ?? "";
        }

        var known = lessonOf.Count(at => at < previous);
        var postures = Enumerable
            .Range(known, introductions[previous])
            .Count(at => Cohort.Units[at].Kind == UnitKind.Posture);
        return Problem.Lessons[previous].Kind switch
        {
            LessonKind.Consolidation => $"{Day(Problem.Lessons[previous].Date)} brings nothing new: a test follows it.",
            LessonKind.Test => $"{Day(Problem.Lessons[previous].Date)} is a test.",
            _ when postures == Cohort.MaxNew && Cohort.Units[unit].Kind == UnitKind.Posture => Cohort.MaxNew == 1
                ? "One new posture a lesson for this cohort."
                : $"{Day(Problem.Lessons[previous].Date)} has its {Cohort.MaxNew} new postures.",
            _ when postures > 0 && Cohort.Units[unit] is { Kind: UnitKind.Posture, Difficulty: >= 3 } =>
                "A hard posture has a lesson to itself.",
            _ when Problem.Lessons[previous].Staff == 0 => $"Nobody teaches on {Day(Problem.Lessons[previous].Date)}.",
            _ when rules.Over(previous, known, introductions[previous] + 1) is > 0 and var over =>
                $"{Day(Problem.Lessons[previous].Date)} would be over by {new Seconds(over)}.",
            _ => "Spread evenly up to the target.",
        };
    }

    private string WhyNow(int unit, int lesson) =>
        Cohort.Announced.Count > unit && Cohort.Announced[unit] is { } announced && Problem.MovePoints > 0
            ? announced == lesson
                ? "As announced."
                : announced < Problem.Lessons.Count
                    ? $"It was announced for {Day(Problem.Lessons[announced].Date)}."
                    : ""
            : "";

    private string WhyLeft(int unit, int[] introductions)
    {
        var open = Enumerable
            .Range(rules.FirstOpen, introductions.Length - rules.FirstOpen)
            .Where(lesson => Problem.Lessons[lesson].Kind == LessonKind.Ordinary)
            .ToList();
        if (open.Count == 0)
        {
            return "No lesson that can bring something new is left in the term.";
        }

        if (open.All(lesson => Problem.Lessons[lesson].Staff == 0))
        {
            return "Nobody teaches in the lessons left.";
        }

        if (open.All(lesson => rules.LedLimit(lesson) == 0))
        {
            return Cohort.AttendedLessons > open[0]
                ? $"Nobody is free to stay with {Cohort.Name} all lesson."
                : "The teachers have no minutes left.";
        }

        var lessonOf = introductions.SelectMany((count, lesson) => Enumerable.Repeat(lesson, count)).ToList();
        return open.All(lesson =>
                Enumerable
                    .Range(0, lessonOf.Count)
                    .Count(at => lessonOf[at] == lesson && Cohort.Units[at].Kind == UnitKind.Posture) == Cohort.MaxNew
            )
                ? $"Every lesson left has its {(Cohort.MaxNew == 1 ? "one new posture" : $"{Cohort.MaxNew} new postures")}."
            : unit > 0 && Cohort.Units[unit].IntroduceSeconds > open.Max(rules.LedLimit)
                ? "No single lesson has that many minutes."
            : "The minutes of the lessons left are taken.";
    }

    private string WhyRefused(Pin pin, List<Placement> placements)
    {
        var (name, lesson) = (Cohort.Units[pin.Unit].Name, Problem.Lessons[pin.Lesson]);
        if (pin.Unit < Cohort.IntroducedIn.Count)
        {
            return $"{name} has been taught already.";
        }

        if (lesson.Held || lesson.Kind != LessonKind.Ordinary)
        {
            return lesson.Held ? $"{Day(lesson.Date)} has been held."
                : lesson.Kind == LessonKind.Test ? $"{Day(lesson.Date)} is a test."
                : $"{Day(lesson.Date)} brings nothing new: a test follows it.";
        }

        if (
            placements.FirstOrDefault(placement =>
                placement.Pinned
                && (placement.Unit < pin.Unit ? placement.Lesson > pin.Lesson : placement.Lesson < pin.Lesson)
            ) is
            { } against
        )
        {
            return $"{Cohort.Units[against.Unit].Name} is fixed on {Day(Problem.Lessons[against.Lesson].Date)} and comes {(against.Unit < pin.Unit ? "before" : "after")} it.";
        }

        var (known, alone) = (
            placements.Count(placement => placement.Lesson < pin.Lesson),
            rules.Over(pin.Lesson, pin.Unit, 1)
        );
        return lesson.Staff == 0 ? $"Nobody teaches on {Day(lesson.Date)}."
            : alone > 0
                ? rules.LedLimit(pin.Lesson) == 0 ? $"No teacher has minutes for {Cohort.Name} on {Day(lesson.Date)}."
                    : $"{Day(lesson.Date)} would be over by {new Seconds(alone)}."
            : pin.Unit > known
                ? $"What comes before it, from {Cohort.Units[Math.Min(known, pin.Unit - 1)].Name} on, cannot all be taught by {Day(lesson.Date)}."
            : $"{Day(lesson.Date)} has no room for it beside what is fixed there.";
    }

    private static string Day(DateOnly date) => date.ToString("d MMMM", CultureInfo.InvariantCulture);
}
