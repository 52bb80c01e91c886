using FsCheck.Xunit;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;

namespace Zeitplan.Core.Tests.Terms;

public sealed class ForecastTests
{
    private static SolvedTerm Term(int units, int lessons = 12, int staff = 2)
    {
        var problem = new TermProblem(
            Material.Lessons(lessons, staff),
            [Material.Cohort("Fern, newer", Material.Units(units), target: lessons - 3)]
        );
        return new(problem, TermPlanner.Plan(problem));
    }

    private static Forecast? Of(
        SolvedTerm term,
        double attendance,
        double spread = LearningHabits.UsualSpread,
        int seed = 1
    ) => Forecasts.Of(term, term.Problem.Cohorts[0].Id, new(attendance, spread), seed, runs: 200);

    [Fact]
    public void Where_everybody_comes_and_everything_takes_what_is_reckoned_the_plan_is_the_forecast()
    {
        var term = Term(8);
        var finish = term.DateOf(term.Plan.Cohorts[0].FinishLesson!.Value);
        Assert.Equal(new(finish, finish, 1), Of(term, attendance: 1, spread: 0));
    }

    [Property(MaxTest = 30)]
    public void The_cautious_date_is_never_before_the_likely_one_and_fewer_people_never_make_it_earlier(int seed)
    {
        var term = Term(units: 4 + Math.Abs(seed % 8));
        var (full, sparse) = (Of(term, 0.95, seed: seed)!, Of(term, 0.6, seed: seed)!);
        Assert.True(full.Likely <= full.Cautious && sparse.Likely <= sparse.Cautious);
        Assert.True(full.Likely <= sparse.Likely, $"{full} {sparse}");
        Assert.InRange(full.WithinTerm, 0, 1);
        Assert.Equal(full, Of(term, 0.95, seed: seed));
    }

    [Fact]
    public void What_does_not_fit_the_term_is_forecast_past_its_end()
    {
        var term = Term(units: 30);
        Assert.NotEmpty(term.Plan.Cohorts[0].LeftOver);
        var forecast = Of(term, 0.9)!;
        Assert.True(forecast.Likely > term.Problem.Lessons[^1].Date);
        Assert.Equal(0, forecast.WithinTerm);
    }

    [Fact]
    public void Nothing_left_is_no_forecast()
    {
        var problem = new TermProblem(
            Material.Lessons(4, held: 1),
            [Material.Cohort("Fern, newer", Material.Units(1), introducedIn: [0])]
        );
        Assert.Null(Of(new(problem, TermPlanner.Plan(problem)), 1));
    }
}
