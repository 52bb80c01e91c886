using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Tests.Terms;

/// <summary>Minutes of a lesson that are for watching or for teaching something again: nothing is planned into
/// them.</summary>
public sealed class SpokenForTests
{
    [Fact]
    public void Nothing_is_planned_into_the_minutes_that_are_kept_for_watching()
    {
        var lessons = Material.Lessons(6, staff: 1);
        var cohort = Material.Cohort("Fern, newer", Material.Units(3));
        Assert.Equal(0, TermPlanner.Plan(new(lessons, [cohort])).Cohorts[0].Placements[0].Lesson);
        var plan = TermPlanner.Plan(
            new([lessons[0] with { WatchSeconds = lessons[0].TeacherSeconds }, .. lessons.Skip(1)], [cohort])
        );
        Assert.Equal(1, plan.Cohorts[0].Placements[0].Lesson);
        Assert.Equal(0, plan.LedSeconds[0].Count);
    }

    [Fact]
    public void Whoever_stays_with_a_group_watches_there_and_the_group_keeps_its_lesson()
    {
        var lessons = Material.Lessons(6, staff: 1);
        var group = Material.Cohort("Rail group", Material.Units(3)) with { AttendedLessons = int.MaxValue };
        var plan = TermPlanner.Plan(
            new([lessons[0] with { WatchSeconds = new(10 * 60) }, .. lessons.Skip(1)], [group])
        );
        Assert.Equal(0, plan.Cohorts[0].Placements[0].Lesson);
        Assert.Equal(lessons[0].TeachableSeconds - (10 * 60), plan.LedSeconds[0].Count);
    }

    [Fact]
    public void What_a_cohort_is_taught_again_is_of_its_own_time_and_of_nobody_elses()
    {
        var lessons = Material.Lessons(6);
        var again = lessons[0].TeachableSeconds;
        CohortProblem[] cohorts =
        [
            Material.Cohort("Fern, newer", Material.Units(3)) with
            {
                Again = [again, .. lessons.Skip(1).Select(_ => new Seconds(0))],
            },
            Material.Cohort("Copper", Material.Units(3)),
        ];
        var plan = TermPlanner.Plan(new([lessons[0] with { AgainSeconds = again }, .. lessons.Skip(1)], cohorts));
        Assert.Equal([1, 0], plan.Cohorts.Select(cohort => cohort.Placements[0].Lesson));
    }
}
