using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>When a cohort will have met all it has been given.</summary>
/// <param name="Likely">In half of the runs it is done by then.</param>
/// <param name="Cautious">In four of five.</param>
/// <param name="WithinTerm">The share of runs that end within the term, from 0 to 1.</param>
public sealed record Forecast(DateOnly Likely, DateOnly Cautious, double WithinTerm);

/// <summary>How a cohort comes to its lessons and how evenly it learns.</summary>
/// <param name="Attendance">The share of its people that is there, from 0 to 1.</param>
/// <param name="Spread">How far what an introduction takes lies from what is reckoned: the standard deviation of its
/// logarithm.</param>
public sealed record LearningHabits(double Attendance, double Spread = LearningHabits.UsualSpread)
{
    /// <summary>One introduction in three takes more than a sixth longer or shorter than reckoned.</summary>
    public const double UsualSpread = 0.16;

    /// <summary>Before anybody has been counted.</summary>
    public const double UsualAttendance = 0.85;
}

/// <summary>
/// Plays the rest of a term many times over (domain.md 4.3, "Forecast"): what takes longer than its lesson has room
/// slides into the next, and where a third of the cohort is missing it is introduced again (domain.md 4.5). Past the
/// term it goes on week by week. The same seed gives the same dates.
/// </summary>
public static class Forecasts
{
    public const int Runs = 1000;

    /// <summary>A run that is not done after so many lessons past the term is counted as done then.</summary>
    private const int MostLessonsAfter = 60;

    /// <returns>Null when nothing is left to introduce.</returns>
    public static Forecast? Of(SolvedTerm term, Guid cohortId, LearningHabits habits, int seed, int runs = Runs)
    {
        var at = term.Problem.Cohorts.Index().Single(cohort => cohort.Item.Id == cohortId).Index;
        var (cohort, plan) = (term.Problem.Cohorts[at], term.Plan.Cohorts[at]);
        if (cohort.IntroducedIn.Count == cohort.Units.Count || term.Problem.Lessons.Count == 0)
        {
            return null;
        }

        var (lessons, random) = (Lessons(term, at), new Random(seed));
        var ends = Enumerable.Range(0, runs).Select(_ => Run(cohort, plan, lessons, habits, random)).Order().ToList();
        return new(
            ends[(runs - 1) / 2],
            ends[(runs - 1) * 4 / 5],
            ends.Count(end => end <= term.Problem.Lessons[^1].Date) / (double)runs
        );
    }

    /// <summary>The seconds a middling lesson of a cohort has for what is new.</summary>
    public static int SecondsForNew(SolvedTerm term, Guid cohortId)
    {
        var at = term.Problem.Cohorts.Index().Single(cohort => cohort.Item.Id == cohortId).Index;
        return Typical(Lessons(term, at), term.Problem.Lessons[^1].TeachableSeconds);
    }

    /// <summary>A lesson still to come and the seconds it has for what is new; <paramref name="Number"/> counts on past
    /// the term.</summary>
    private readonly record struct Coming(DateOnly Date, int Number, int Seconds);

    /// <param name="at">Index of the cohort.</param>
    private static List<Coming> Lessons(SolvedTerm term, int at)
    {
        var rules = Coordination.RulesBeside(term.Problem, term.Plan, at);
        var contents = term.Plan.Cohorts[at].Lessons;
        List<Coming> coming =
        [
            .. term
                .Problem.Lessons.Index()
                .Where(lesson => lesson.Item is { Held: false, Kind: LessonKind.Ordinary })
                .Select(lesson => new Coming(
                    lesson.Item.Date,
                    lesson.Index,
                    Math.Max(
                        0,
                        Math.Min(rules.LedLimit(lesson.Index), lesson.Item.TeachableSeconds)
                            - contents[lesson.Index].LeadInSeconds
                            - contents[lesson.Index].ReviewSeconds
                    )
                )),
        ];
        var (last, usual) = (term.Problem.Lessons[^1], Typical(coming, term.Problem.Lessons[^1].TeachableSeconds));
        coming.AddRange(
            Enumerable
                .Range(1, MostLessonsAfter)
                .Select(week => new Coming(last.Date.AddDays(7 * week), term.Problem.Lessons.Count - 1 + week, usual))
        );
        return coming;
    }

    private static int Typical(List<Coming> coming, int otherwise) =>
        coming.Count == 0 ? otherwise : coming.Select(lesson => lesson.Seconds).Order().ElementAt(coming.Count / 2);

    private static DateOnly Run(
        CohortProblem cohort,
        CohortPlan plan,
        List<Coming> lessons,
        LearningHabits habits,
        Random random
    )
    {
        var next = cohort.IntroducedIn.Count;
        foreach (var lesson in lessons)
        {
            var (begun, left, postures) = (next, lesson.Seconds, 0);
            while (
                next < cohort.Units.Count
                && (next >= plan.Placements.Count || plan.Placements[next].Lesson <= lesson.Number)
            )
            {
                var unit = cohort.Units[next];
                var takes = (int)(unit.IntroduceSeconds * Math.Exp(habits.Spread * Normal(random)));

                // What is too long for any lesson is taught in one all the same: it takes all of it.
                if (
                    (unit.Kind == UnitKind.Posture && postures == cohort.MaxNew)
                    || (takes > left && next > begun)
                    || left <= 0
                )
                {
                    break;
                }

                left -= takes + CohortProblem.OwnPracticeAfterNewSeconds;
                postures += unit.Kind == UnitKind.Posture ? 1 : 0;
                next++;
            }

            if (next > begun && IsAThirdMissing(cohort.People, habits.Attendance, random))
            {
                next = begun;
            }

            if (next == cohort.Units.Count)
            {
                return lesson.Date;
            }
        }

        return lessons[^1].Date;
    }

    private static bool IsAThirdMissing(int people, double attendance, Random random)
    {
        var missing = 0;
        for (var person = 0; person < people; person++)
        {
            missing += random.NextDouble() < attendance ? 0 : 1;
        }

        return missing * 3 >= people && missing > 0;
    }

    /// <summary>A draw from the standard normal distribution (Box and Muller).</summary>
    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
}
