using Zeitplan.Core.Terms;

namespace Zeitplan.Core.Tests.Terms;

/// <summary>A naive second opinion: adds a plan's minutes up from its placements alone and asserts every hard rule.</summary>
internal static class PlanChecker
{
    public static void Check(TermProblem problem, TermPlan plan)
    {
        var teachers = new int[problem.Lessons.Count];
        foreach (var (cohort, mine) in problem.Cohorts.Zip(plan.Cohorts))
        {
            Assert.Equal(cohort.Id, mine.CohortId);
            Assert.Equal(Enumerable.Range(0, cohort.Units.Count), mine.Placements.Select(placement => placement.Unit).Concat(mine.LeftOver.Select(left => left.Unit)));
            Assert.Equal(cohort.IntroducedIn, mine.Placements.Take(cohort.IntroducedIn.Count).Select(placement => placement.Lesson));
            Assert.All(mine.Placements.Zip(mine.Placements.Skip(1)), pair => Assert.True(pair.First.Lesson <= pair.Second.Lesson, "teaching order"));
            foreach (var (lesson, slot) in problem.Lessons.Index().Where(at => !at.Item.Held))
            {
                teachers[lesson] += CheckLesson(cohort, mine, lesson, slot);
            }

            CheckReviews(problem, cohort, mine);
        }

        foreach (var (lesson, slot) in problem.Lessons.Index().Where(at => !at.Item.Held))
        {
            Assert.Equal(teachers[lesson], plan.LedSeconds[lesson]);
            Assert.True(teachers[lesson] <= slot.TeacherSeconds, "the teachers' minutes");
        }
    }

    private static int CheckLesson(CohortProblem cohort, CohortPlan plan, int lesson, LessonSlot slot)
    {
        var fresh = plan.Placements.Where(placement => placement.Lesson == lesson).Select(placement => cohort.Units[placement.Unit]).ToList();
        var known = plan.Placements.Where(placement => placement.Lesson < lesson).ToList();
        Assert.True(slot.Kind == LessonKind.Ordinary || fresh.Count == 0, "nothing new before or in a test");
        Assert.True(fresh.Count <= cohort.MaxNew && (fresh.Count < 2 || fresh.All(unit => unit.Difficulty < 3)), "new postures a lesson");

        var content = plan.Lessons[lesson];
        var covered = known.Count == cohort.Units.Count && known.Count > 0;
        var reviews = covered ? 0 : known.Where(placement => placement.Reviews.Any(review => review.Lesson == lesson)).Sum(placement => cohort.Units[placement.Unit].ReviewSeconds);
        Assert.Equal(fresh.Sum(unit => unit.IntroduceSeconds), content.IntroduceSeconds);
        Assert.Equal(reviews, content.ReviewSeconds);
        var led = content.LeadInSeconds + content.IntroduceSeconds + reviews + content.RunThroughSeconds + content.WatchSeconds;
        Assert.True(led + (fresh.Count * 240) <= slot.TeachableSeconds, "the cohort's own minutes");
        var attended = lesson < cohort.AttendedLessons;
        Assert.True(content.TeacherSeconds == (attended ? slot.TeachableSeconds : led) || (attended && content.TeacherSeconds == 0 && led == 0), "attended all the time or not taught");
        return content.TeacherSeconds;
    }

    /// <summary>Every review that falls due inside the term is held somewhere or reported.</summary>
    private static void CheckReviews(TermProblem problem, CohortProblem cohort, CohortPlan plan)
    {
        var calendar = ReviewCalendar.Of([.. problem.Lessons.Select(lesson => lesson.Date)]);
        foreach (var placement in plan.Placements)
        {
            Assert.Equal(calendar[placement.Lesson].Count, placement.Reviews.Count + plan.Dropped.Count(dropped => dropped.Unit == placement.Unit));
            Assert.All(placement.Reviews, review =>
            {
                var due = problem.Lessons[placement.Lesson].Date.AddDays(7 * review.WeeksAfter).DayNumber;
                Assert.Equal(problem.Lessons[review.Lesson].Date.DayNumber - due > 7, review.Late);
            });
            Assert.Distinct(placement.Reviews.Select(review => review.Lesson));
        }

        Assert.All(plan.Dropped, dropped => Assert.Equal(cohort.Units[dropped.Unit].ReviewSeconds, dropped.Seconds));
    }
}
