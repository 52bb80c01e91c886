using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests.Terms;

/// <summary>A naive second opinion: adds a plan's minutes up from its placements alone and asserts every hard
/// rule.</summary>
internal static class PlanChecker
{
    public static void Check(TermProblem problem, TermPlan plan)
    {
        var teachers = new int[problem.Lessons.Count];
        foreach (var (cohort, mine) in problem.Cohorts.Zip(plan.Cohorts))
        {
            Assert.Equal(cohort.Id, mine.CohortId);
            Assert.Equal(
                Enumerable.Range(0, cohort.Units.Count),
                mine.Placements.Select(placement => placement.Unit).Concat(mine.LeftOver.Select(left => left.Unit))
            );
            Assert.Equal(
                cohort.IntroducedIn,
                mine.Placements.Take(cohort.IntroducedIn.Count).Select(placement => placement.Lesson)
            );
            Assert.All(
                mine.Placements.Zip(mine.Placements.Skip(1)),
                pair => Assert.True(pair.First.Lesson <= pair.Second.Lesson, "teaching order")
            );
            foreach (var (lesson, _) in problem.Lessons.Index().Where(at => !at.Item.Held))
            {
                teachers[lesson] += CheckLesson(problem, cohort, mine, lesson);
            }

            CheckReviews(problem, cohort, mine);
            CheckKept(problem, cohort, mine);
            CheckPins(cohort, mine);
        }

        foreach (var (lesson, slot) in problem.Lessons.Index().Where(at => !at.Item.Held))
        {
            teachers[lesson] -= Saved(problem, plan, lesson);
            Assert.Equal(teachers[lesson], plan.LedSeconds[lesson]);
            Assert.True(teachers[lesson] <= slot.TeacherSeconds, "the teachers' minutes");
        }
    }

    /// <summary>What is led to several cohorts at once is led once: whoever is not attended joins, and only the longest
    /// of them is led beside an attended one.</summary>
    private static int Saved(TermProblem problem, TermPlan plan, int lesson)
    {
        var blocks = problem
            .Cohorts.Zip(plan.Cohorts)
            .SelectMany(pair =>
                pair.Second.Placements.Select(placement =>
                        (Cohort: pair.First, Unit: pair.First.Units[placement.Unit], placement)
                    )
                    .Where(one => one.Unit.Kind != UnitKind.Link)
                    .Select(one =>
                        (
                            one.Cohort,
                            one.Unit,
                            Seconds: one.placement.Lesson == lesson ? one.Unit.IntroduceSeconds
                            : one.placement.Reviews.Any(review => review.Lesson == lesson && !review.InRunThrough)
                                ? one.Unit.ReviewSeconds
                            : 0
                        )
                    )
                    .Where(one => one.Seconds > 0)
            );
        return blocks
            .GroupBy(block => (block.Unit.PostureId, block.Unit.Side, block.Cohort.Mode))
            .Sum(together =>
            {
                var attended = together
                    .Where(block => lesson < block.Cohort.AttendedLessons)
                    .Select(block => block.Seconds)
                    .DefaultIfEmpty(0)
                    .Max();
                var alone = together
                    .Where(block => lesson >= block.Cohort.AttendedLessons)
                    .Select(block => block.Seconds)
                    .DefaultIfEmpty(0)
                    .ToList();
                return alone.Sum() - Math.Max(0, alone.Max() - attended);
            });
    }

    /// <summary>A pin is where it was put, or refused with a reason.</summary>
    private static void CheckPins(CohortProblem cohort, CohortPlan plan) =>
        Assert.All(
            cohort.Pins,
            pin =>
            {
                var kept = plan.Placements.Any(placement =>
                    placement.Unit == pin.Unit && placement.Lesson == pin.Lesson
                );
                var refused = plan.Refused.Where(one => one.Pin == pin).ToList();
                Assert.Equal(kept ? 0 : 1, refused.Count);
                Assert.All(refused, one => Assert.EndsWith(".", one.Because, StringComparison.Ordinal));
            }
        );

    /// <summary>Whatever is kept is touched in time, or it is said that it is not.</summary>
    private static void CheckKept(TermProblem problem, CohortProblem cohort, CohortPlan plan)
    {
        Assert.All(plan.Kept.Refreshes, refresh => Assert.True(refresh.Lesson >= problem.FirstOpen, "an open lesson"));
        if (problem.FirstOpen == problem.Lessons.Count)
        {
            return;
        }

        foreach (var (at, kept) in cohort.Keeping.Postures.Index())
        {
            var due = kept.Due;
            List<(DateOnly Due, int? Lesson)> missed = [];
            for (var lesson = problem.FirstOpen; lesson < problem.Lessons.Count; lesson++)
            {
                if (!Touches(cohort, plan, lesson, at))
                {
                    continue;
                }

                var date = problem.Lessons[lesson].Date;
                missed.AddRange(date > due ? [(due, lesson)] : []);
                // Whatever is touched early does not fade the sooner for it.
                due = new[] { due, kept.HoldsDays is { } days ? date.AddDays(days) : DateOnly.MaxValue }.Max();
            }

            missed.AddRange(problem.Lessons[^1].Date > due ? [(due, null)] : []);
            Assert.Equal(
                missed,
                plan.Kept.NotKept.Where(not => not.Posture == at).Select(not => (not.Due, not.Lesson))
            );
        }
    }

    private static bool Touches(CohortProblem cohort, CohortPlan plan, int lesson, int at)
    {
        var kept = cohort.Keeping.Postures[at];
        var by = plan.Kept.In(lesson).ToList();
        if (by.Any(refresh => refresh.Posture == at))
        {
            return true;
        }

        // Told once, and by itself; what is introduced is no difference told.
        return kept.HoldsDays is not null
            && (
                by.Any(refresh => refresh.Run is { } run && cohort.Keeping.Runs[run].Postures.Contains(at))
                || plan.Placements.Any(placement =>
                    cohort.Units[placement.Unit].Of == kept.Of
                    && cohort.Units[placement.Unit].Kind != UnitKind.Link
                    && (
                        placement.Lesson == lesson
                        || placement.Reviews.Any(review => review.Lesson == lesson && !review.InRunThrough)
                        || (placement.Lesson < lesson && IsWhole(cohort, plan, lesson))
                    )
                )
            );
    }

    /// <summary>The run-through is as long as what is known then.</summary>
    private static bool IsWhole(CohortProblem cohort, CohortPlan plan, int lesson) =>
        plan.Lessons[lesson].RunThroughSeconds is var run
        && run > 0
        && run
            >= cohort.BeforeSeconds
                + plan.Placements.Where(placement => placement.Lesson < lesson)
                    .Sum(placement => cohort.Units[placement.Unit].RunThroughSeconds);

    private static int CheckLesson(TermProblem problem, CohortProblem cohort, CohortPlan plan, int lesson)
    {
        var slot = problem.Lessons[lesson];
        var fresh = plan
            .Placements.Where(placement => placement.Lesson == lesson)
            .Select(placement => cohort.Units[placement.Unit])
            .ToList();
        var known = plan.Placements.Where(placement => placement.Lesson < lesson).ToList();
        Assert.True(slot.Kind == LessonKind.Ordinary || fresh.Count == 0, "nothing new before or in a test");
        var postures = fresh.Where(unit => unit.Kind == UnitKind.Posture).ToList();
        Assert.True(
            postures.Count <= cohort.MaxNew && (postures.Count < 2 || postures.All(unit => unit.Difficulty < 3)),
            "new postures a lesson"
        );

        var content = plan.Lessons[lesson];
        var covered = known.Count == cohort.Units.Count && known.Count > 0;
        var reviews = covered
            ? 0
            : known
                .Where(placement => placement.Reviews.Any(review => review.Lesson == lesson))
                .Sum(placement => cohort.Units[placement.Unit].ReviewSeconds);
        Assert.Equal(fresh.Sum(unit => unit.IntroduceSeconds), content.IntroduceSeconds);
        Assert.Equal(reviews, content.ReviewSeconds);
        var led =
            content.LeadInSeconds
            + content.IntroduceSeconds
            + reviews
            + content.RunThroughSeconds
            + content.WatchSeconds
            + content.KeepSeconds;
        Assert.Equal(plan.Kept.In(lesson).Sum(refresh => refresh.Seconds), content.KeepSeconds);
        Assert.True(led + (fresh.Count * 240) <= problem.TimeOf(cohort, lesson), "the cohort's own minutes");
        var attended = lesson < cohort.AttendedLessons;
        // Whoever stays with a cohort may watch there in the minutes that are kept for it.
        var least = slot.TeachableSeconds - slot.SpokenForSeconds;
        Assert.True(
            attended
                ? led <= content.TeacherSeconds
                    && (content.TeacherSeconds == 0 || content.TeacherSeconds >= least)
                    && content.TeacherSeconds <= problem.TimeOf(cohort, lesson)
                : content.TeacherSeconds == led,
            "attended all the time or not taught"
        );
        return content.TeacherSeconds;
    }

    /// <summary>Every review that falls due inside the term is held somewhere or reported.</summary>
    private static void CheckReviews(TermProblem problem, CohortProblem cohort, CohortPlan plan)
    {
        var calendar = ReviewCalendar.Of([.. problem.Lessons.Select(lesson => lesson.Date)]);
        foreach (var placement in plan.Placements)
        {
            Assert.Equal(
                calendar[placement.Lesson].Count,
                placement.Reviews.Count + plan.Dropped.Count(dropped => dropped.Unit == placement.Unit)
            );
            Assert.All(
                placement.Reviews,
                review =>
                {
                    var due = problem.Lessons[placement.Lesson].Date.AddDays(7 * review.WeeksAfter).DayNumber;
                    Assert.Equal(problem.Lessons[review.Lesson].Date.DayNumber - due > 7, review.Late);
                }
            );
            Assert.Distinct(placement.Reviews.Select(review => review.Lesson));
        }

        Assert.All(plan.Dropped, dropped => Assert.Equal(cohort.Units[dropped.Unit].ReviewSeconds, dropped.Seconds));
    }
}
