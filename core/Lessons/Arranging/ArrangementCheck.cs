namespace Zeitplan.Core.Lessons.Arranging;

/// <summary>The hard rules of a lesson (domain.md 4.4), each by its name.</summary>
public enum LessonRule
{
    /// <summary>The blocks of a cohort follow one another from the first minute to the last.</summary>
    NoGap,

    /// <summary>A teacher is with one cohort at a time, or with several that are led together.</summary>
    OneCohortAtATime,
    MayNotLead,
    NotThere,
    NeverAlone,
    TooLongAlone,
    VisitOutsidePractice,
    VisitTooShort,
    PractiseAfterNew,
    NewTooLate,
}

public sealed record BrokenRule(LessonRule Rule, string Says);

/// <summary>Judges an arrangement by its table alone, knowing nothing of how it came about: who wrote it, whether the
/// program or a pen, is the same to it.</summary>
public static class ArrangementCheck
{
    private const string NewKind = "new";
    private const string OwnKind = "own-practice";
    private const string VisitKind = "visit";

    /// <param name="facts">Who is there, how long the lesson lasts, and the measures; its tasks are not looked at.</param>
    public static IReadOnlyList<BrokenRule> Broken(IReadOnlyList<ArrangementRow> rows, LessonProblem facts) =>
        [
            .. facts.Cohorts.SelectMany(cohort => OfCohort(rows, cohort, facts)),
            .. facts.Teachers.SelectMany(teacher => OfTeacher(rows, teacher, facts)),
            .. rows.Where(row => row.Kind == NewKind && row.StartMinute >= facts.Minutes - facts.Rules.NoNewInLast)
                .Select(row => new BrokenRule(
                    LessonRule.NewTooLate,
                    $"{row.What} begins in minute {row.StartMinute}."
                )),
        ];

    private static IEnumerable<BrokenRule> OfCohort(
        IReadOnlyList<ArrangementRow> rows,
        CohortHere cohort,
        LessonProblem facts
    )
    {
        var own = rows.Where(row => row.Cohort == cohort.Name || row.Cohort == ArrangementRow.Everybody).ToList();
        var blocks = own.Where(row => row.Kind != VisitKind).OrderBy(row => row.StartMinute).ToList();
        var visits = own.Where(row => row.Kind == VisitKind).ToList();
        var minute = 0;
        foreach (var block in blocks)
        {
            if (block.StartMinute != minute || block.EndMinute <= block.StartMinute)
            {
                yield return new(
                    LessonRule.NoGap,
                    $"{cohort.Name}: {block.Kind} begins in minute {block.StartMinute}, what comes before ends in {minute}."
                );
            }

            minute = Math.Max(minute, block.EndMinute);
        }

        if (minute != facts.Minutes)
        {
            yield return new(LessonRule.NoGap, $"{cohort.Name}: its last block ends in minute {minute}.");
        }

        foreach (var visit in visits)
        {
            var practice = blocks.Where(block =>
                block.Kind == OwnKind && block.StartMinute <= visit.StartMinute && block.EndMinute >= visit.EndMinute
            );
            if (!practice.Any())
            {
                yield return new(
                    LessonRule.VisitOutsidePractice,
                    $"{cohort.Name}: a visit in minute {visit.StartMinute} while it does not practise."
                );
            }

            // One that was broken off has happened as it is.
            if (
                visit.EndMinute > facts.Now
                && visit.EndMinute - visit.StartMinute < facts.Rules.ShortestVisit(cohort.People)
            )
            {
                yield return new(
                    LessonRule.VisitTooShort,
                    $"{cohort.Name}: {cohort.People} people are not seen in {visit.EndMinute - visit.StartMinute} min."
                );
            }
        }

        foreach (var (from, to) in Alone(blocks, visits))
        {
            var allowed = cohort.NeverAlone ? 0 : cohort.Alone ?? facts.Rules.LongestAlone;
            if (to - from > allowed)
            {
                yield return new(
                    allowed == 0 ? LessonRule.NeverAlone : LessonRule.TooLongAlone,
                    $"{cohort.Name} is without a teacher from minute {from} to {to}."
                );
            }
        }

        var fresh = blocks.Where(block => block.Kind == NewKind).ToList();
        foreach (var (first, second) in fresh.Zip(fresh.Skip(1)))
        {
            var practised = blocks
                .Where(block => block.Kind == OwnKind)
                .Sum(block =>
                    Math.Max(
                        0,
                        Math.Min(block.EndMinute, second.StartMinute) - Math.Max(block.StartMinute, first.EndMinute)
                    )
                );
            // What went on after something had come between is not new once more.
            if (first.What != second.What && practised < facts.Rules.PractiseAfterNew)
            {
                yield return new(
                    LessonRule.PractiseAfterNew,
                    $"{cohort.Name}: {second.What} comes after {practised} min of own practice of {first.What}."
                );
            }
        }
    }

    /// <summary>Stretches in which a cohort practises and nobody looks.</summary>
    private static IEnumerable<(int From, int To)> Alone(
        IReadOnlyList<ArrangementRow> blocks,
        IReadOnlyList<ArrangementRow> visits
    )
    {
        int? since = null;
        var last = blocks.Count == 0 ? 0 : blocks.Max(block => block.EndMinute);
        for (var minute = 0; minute <= last; minute++)
        {
            var alone =
                blocks.Any(block => block.LedBy.Length == 0 && Covers(block, minute))
                && !visits.Any(visit => Covers(visit, minute));
            if (alone)
            {
                since ??= minute;
            }
            else if (since is { } from)
            {
                yield return (from, minute);
                since = null;
            }
        }

        static bool Covers(ArrangementRow row, int minute) => row.StartMinute <= minute && row.EndMinute > minute;
    }

    private static IEnumerable<BrokenRule> OfTeacher(
        IReadOnlyList<ArrangementRow> rows,
        TeacherHere teacher,
        LessonProblem facts
    )
    {
        var led = rows.Where(row => row.LedBy == teacher.Name).OrderBy(row => row.StartMinute).ToList();
        foreach (var (at, row) in led.Index())
        {
            var cohort = facts.Cohorts.FirstOrDefault(cohort => cohort.Name == row.Cohort);
            if (cohort is not null && !teacher.MayLead(cohort))
            {
                yield return new(LessonRule.MayNotLead, $"{teacher.Name} may not lead {cohort.Name}.");
            }

            if (row.StartMinute < teacher.From || row.EndMinute > teacher.Until)
            {
                yield return new(LessonRule.NotThere, $"{teacher.Name} is not there in minute {row.StartMinute}.");
            }

            foreach (var other in led.Skip(at + 1).TakeWhile(other => other.StartMinute < row.EndMinute))
            {
                var together = other.StartMinute == row.StartMinute && row.With.Split(';').Contains(other.Cohort);
                if (!together)
                {
                    yield return new(
                        LessonRule.OneCohortAtATime,
                        $"{teacher.Name} is with {row.Cohort} and with {other.Cohort} in minute {other.StartMinute}."
                    );
                }
            }
        }
    }
}
