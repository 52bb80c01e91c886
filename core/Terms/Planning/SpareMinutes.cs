using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// What the teachers have left once all is planned goes to lead-ins, then to run-throughs, then to what keeps what is
/// known (<see cref="KeepingPlanner"/>), then to watching: where it is short, the same to everybody. Nothing that is
/// introduced or reviewed changes by it, and no lesson is overdrawn.
/// </summary>
internal sealed class SpareMinutes
{
    private readonly ClassLedger ledger;
    private readonly CohortPlan[] plans;

    /// <summary>Of the teachers, by lesson.</summary>
    private readonly int[] used;

    /// <summary>What has been given out so far, by cohort and lesson.</summary>
    private readonly CohortLesson[][] lessons;

    private SpareMinutes(ClassLedger ledger, CohortPlan?[] plans)
    {
        (this.ledger, this.plans) = (ledger, [.. plans.Select(plan => plan!)]);
        used = ledger.Used(plans);
        lessons = [.. this.plans.Select(plan => plan.Lessons.ToArray())];
    }

    private TermProblem Problem => ledger.Problem;

    /// <param name="plans">Of every cohort, with what each would like of run-throughs and watching.</param>
    public static TermPlan GivenOut(ClassLedger ledger, CohortPlan?[] plans) => new SpareMinutes(ledger, plans).Plan();

    private TermPlan Plan()
    {
        foreach (var lesson in ledger.Open)
        {
            WantWatching(lesson, (_, _) => 0);
            GiveOut(lesson, RunThroughs);
        }

        var kept = plans.Select((_, cohort) => Keep(cohort)).ToList();
        foreach (var lesson in ledger.Open)
        {
            WantWatching(
                lesson,
                (cohort, wanted) =>
                    lessons[cohort][lesson].RunThroughSeconds < plans[cohort].Lessons[lesson].RunThroughSeconds
                        ? 0
                        : Math.Min(wanted, Left(cohort, lesson))
            );
            GiveOut(lesson, Watches);
        }

        return new(
            [.. plans.Select((plan, cohort) => plan with { Lessons = lessons[cohort], Kept = kept[cohort] })],
            [.. used.Select(seconds => new Seconds(seconds))],
            ledger.Shared.Of(plans),
            ledger.Shared.UnsharedPoints(plans)
        );
    }

    private void WantWatching(int lesson, Func<int, int, int> seconds)
    {
        foreach (var (cohort, plan) in plans.Index())
        {
            lessons[cohort][lesson] = lessons[cohort][lesson] with
            {
                WatchSeconds = new(seconds(cohort, plan.Lessons[lesson].WatchSeconds)),
            };
        }
    }

    /// <summary>Among the cohorts beside each other: an attended one has its teacher already, and all of
    /// them.</summary>
    private void GiveOut(int lesson, Func<int, List<CohortLesson>, List<CohortLesson>> parts)
    {
        var beside = Enumerable
            .Range(0, plans.Length)
            .Where(cohort => !Problem.Cohorts[cohort].IsAttended(lesson))
            .ToList();
        var given = parts(
            Problem.Lessons[lesson].TeacherSeconds - used[lesson],
            [.. beside.Select(cohort => lessons[cohort][lesson])]
        );
        foreach (var (cohort, content) in beside.Zip(given))
        {
            Give(cohort, lesson, content);
        }
    }

    private void Give(int cohort, int lesson, CohortLesson content)
    {
        var teachers = Problem.Cohorts[cohort].IsAttended(lesson) ? content.TeacherSeconds : content.LedSeconds;
        used[lesson] += teachers - lessons[cohort][lesson].TeacherSeconds;
        lessons[cohort][lesson] = content with { TeacherSeconds = teachers };
    }

    private KeptPlan Keep(int cohort)
    {
        var keeping = Problem.Cohorts[cohort].Keeping;
        // What a test asks for touches it, and nothing is refreshed there.
        var room = Problem.Lessons.Select(
            (slot, lesson) => slot.Held || slot.Kind == LessonKind.Test ? 0 : Left(cohort, lesson)
        );
        var kept = KeepingPlanner.Plan(Problem, keeping, [.. room], (lesson, of) => IsTouched(cohort, lesson, of));
        foreach (var lesson in kept.Refreshes.GroupBy(refresh => refresh.Lesson))
        {
            var seconds = lesson.Total(refresh => refresh.Seconds);
            Give(cohort, lesson.Key, lessons[cohort][lesson.Key] with { KeepSeconds = seconds });
        }

        return kept;
    }

    /// <summary>The lesson brings it anyway.</summary>
    private bool IsTouched(int cohort, int lesson, PostureSide of)
    {
        var (asked, runsThrough) = (Problem.Cohorts[cohort], RunsThroughAll(cohort, lesson));
        return (runsThrough && asked.Before.Contains(of))
            || plans[cohort]
                .Placements.Any(placement =>
                    asked.Units[placement.Unit] is { CanBeShared: true } unit
                    && unit.Of == of
                    && placement.IsIn(lesson, runsThrough)
                );
    }

    /// <summary>From the beginning to all that is known then: a shorter run-through leaves out nobody knows what.</summary>
    private bool RunsThroughAll(int cohort, int lesson)
    {
        var asked = Problem.Cohorts[cohort];
        var all =
            asked.BeforeSeconds
            + plans[cohort]
                .Placements.Where(placement => placement.Lesson < lesson)
                .Sum(placement => asked.Units[placement.Unit].RunThroughSeconds);
        return all > 0 && lessons[cohort][lesson].RunThroughSeconds >= all;
    }

    /// <summary>What a cohort can still be led in: of its own time, and of the teachers'.</summary>
    private int Left(int cohort, int lesson)
    {
        var (content, slot) = (lessons[cohort][lesson], Problem.Lessons[lesson]);
        var time = Problem.TimeOf(Problem.Cohorts[cohort], lesson) - content.LedSeconds - content.OwnSeconds;
        var teachers = Problem.Cohorts[cohort].IsAttended(lesson)
            ? content.TeacherSeconds - content.LedSeconds
            : slot.TeacherSeconds - used[lesson];
        return Math.Max(0, Math.Min(time, teachers));
    }

    /// <summary>One lesson's contents, each with its part of what is spare for lead-ins and run-throughs.</summary>
    private static List<CohortLesson> RunThroughs(int spare, List<CohortLesson> contents)
    {
        // Where something is led, the lead-in to it is promised already.
        var leadIns = Spread(
            spare,
            [.. contents.Select(content => content.TeacherSeconds > 0 ? 0 : content.LeadInSeconds)]
        );
        spare -= leadIns.Sum();
        var runThroughs = Spread(spare, [.. contents.Select(content => content.RunThroughSeconds)]);
        return
        [
            .. contents.Select(
                (content, at) =>
                    content with
                    {
                        LeadInSeconds = new(content.TeacherSeconds > 0 ? content.LeadInSeconds : leadIns[at]),
                        RunThroughSeconds = new(runThroughs[at]),
                    }
            ),
        ];
    }

    private static List<CohortLesson> Watches(int spare, List<CohortLesson> contents)
    {
        var watches = Spread(spare, [.. contents.Select(content => content.WatchSeconds)]);
        return [.. contents.Select((content, at) => content with { WatchSeconds = new(watches[at]) })];
    }

    /// <summary>So much for each of what it wants that the sum stays within what is there, the least wish
    /// first.</summary>
    private static int[] Spread(int seconds, IReadOnlyList<int> wanted)
    {
        var given = new int[wanted.Count];
        var (left, waiting) = (seconds, wanted.Count);
        foreach (var (at, wish) in wanted.Index().OrderBy(want => want.Item).ThenBy(want => want.Index))
        {
            given[at] = Math.Min(wish, left / waiting);
            left -= given[at];
            waiting--;
        }

        return given;
    }
}
