using System.Diagnostics;
using System.Globalization;
using Google.OrTools.Sat;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Bench;

/// <summary>
/// The same term as one constraint model over all cohorts together, with the planner's own rules and penalties, solved
/// by CP-SAT: its proven bound is what no plan can undercut.
/// </summary>
internal sealed class Yardstick
{
    /// <param name="Found">The points of the best plan found; null while there is none.</param>
    public sealed record Result(double Milliseconds, double Bound, double? Found, bool Proven);

    private readonly CpModel model = new();
    private readonly TermProblem problem;
    private readonly int firstOpen;
    private readonly IReadOnlyList<IReadOnlyList<Review>> reviewsAfter;
    private readonly List<LinearExpr> cost = [];
    private readonly List<LinearExpr>[] teachers;

    /// <summary>What each cohort is led in, lesson by lesson, of the postures it has in common with another of its
    /// mode.</summary>
    private readonly Dictionary<
        (int Lesson, PostureSide Of, string Mode),
        List<(bool Attended, LinearExpr New, LinearExpr Seconds, LinearExpr Present)>
    > common = [];

    private Yardstick(TermProblem problem)
    {
        this.problem = problem;
        firstOpen = problem.FirstOpen;
        reviewsAfter = ReviewCalendar.Of([.. problem.Lessons.Select(lesson => lesson.Date)]);
        teachers = [.. problem.Lessons.Select(_ => new List<LinearExpr>())];
    }

    public static Result Solve(TermProblem problem, TimeSpan limit)
    {
        var watch = Stopwatch.StartNew();
        var yardstick = new Yardstick(problem);
        foreach (var cohort in problem.Cohorts)
        {
            yardstick.Add(cohort);
        }

        yardstick.Share();
        for (var lesson = yardstick.firstOpen; lesson < problem.Lessons.Count; lesson++)
        {
            yardstick.model.Add(Sum(yardstick.teachers[lesson]) <= problem.Lessons[lesson].TeacherSeconds);
        }

        yardstick.model.Minimize(Sum(yardstick.cost));
        var solver = new CpSolver
        {
            StringParameters = string.Create(
                CultureInfo.InvariantCulture,
                $"max_time_in_seconds:{limit.TotalSeconds:0},num_workers:2,random_seed:1"
            ),
        };
        var status = solver.Solve(yardstick.model);
        return new(
            watch.Elapsed.TotalMilliseconds,
            solver.BestObjectiveBound,
            status is CpSolverStatus.Optimal or CpSolverStatus.Feasible ? solver.ObjectiveValue : null,
            status == CpSolverStatus.Optimal
        );
    }

    private void Add(CohortProblem cohort)
    {
        var (units, lessons, done) = (cohort.Units, problem.Lessons, cohort.IntroducedIn.Count);
        var evenShare = PlanCost.EvenShare(problem, cohort);
        var introduced = new ILiteral?[units.Count, lessons.Count];
        for (var unit = done; unit < units.Count; unit++)
        {
            for (var lesson = firstOpen; lesson < lessons.Count; lesson++)
            {
                if (lessons[lesson].Kind == LessonKind.Ordinary)
                {
                    introduced[unit, lesson] = model.NewBoolVar($"{cohort.Name} {unit} {lesson}");
                    cost.Add(
                        (LinearExpr)introduced[unit, lesson]! * PlanCost.OfIntroducing(cohort, problem, unit, lesson)
                    );
                }
            }

            model.Add(Until(unit, lessons.Count) <= 1);
            cost.Add((1 - Until(unit, lessons.Count)) * PlanCost.OfLeaving(cohort, problem, unit));
            for (var lesson = firstOpen; unit > done && lesson < lessons.Count; lesson++)
            {
                model.Add(Until(unit, lesson + 1) <= Until(unit - 1, lesson + 1));
            }
        }

        var reviews = Reviews();
        for (var lesson = firstOpen; lesson < lessons.Count; lesson++)
        {
            AddLesson(lesson);
        }

        // How many of one unit were introduced before a lesson: 0 or 1.
        LinearExpr Until(int unit, int before) =>
            unit < done
                ? LinearExpr.Constant(1)
                : Sum(
                    Enumerable
                        .Range(0, before)
                        .Select(lesson => introduced[unit, lesson])
                        .Where(literal => literal is not null)
                        .Select(literal => (LinearExpr)literal!)
                );

        LinearExpr Here(int unit, int lesson) =>
            introduced[unit, lesson] is { } literal ? (LinearExpr)literal : LinearExpr.Constant(0);

        // For each unit and lesson, the reviews that take minutes in it: none once the run-through of the whole segment
        // is the review.
        LinearExpr[,] Reviews()
        {
            var held = new List<LinearExpr>[units.Count, lessons.Count];
            for (var unit = 0; unit < units.Count; unit++)
            {
                for (var from = unit < done ? cohort.IntroducedIn[unit] : firstOpen; from < lessons.Count; from++)
                {
                    if (unit < done ? from != cohort.IntroducedIn[unit] : introduced[unit, from] is null)
                    {
                        continue;
                    }

                    foreach (var review in reviewsAfter[from].Where(review => review.Lesson >= firstOpen))
                    {
                        var due = lessons[from].Date.DayNumber + (7 * review.WeeksAfter);
                        var dropped = model.NewBoolVar("");
                        cost.Add((LinearExpr)dropped * (PlanCost.DroppedReviewSecond * units[unit].ReviewSeconds));
                        List<LinearExpr> somewhere = [dropped];
                        for (var lesson = Math.Max(firstOpen, from + 1); lesson < lessons.Count; lesson++)
                        {
                            // Earlier than a week before its date it may still be held: nothing in the rules forbids
                            // it, and nothing is gained.
                            var late = lessons[lesson].Date.DayNumber - due;
                            var here = model.NewBoolVar("");
                            somewhere.Add(here);
                            (held[unit, lesson] ??= []).Add(here);
                            cost.Add(
                                (LinearExpr)here
                                    * (
                                        late > ReviewCalendar.ToleranceDays
                                            ? PlanCost.LateReviewSecond * units[unit].ReviewSeconds
                                        : late < -ReviewCalendar.ToleranceDays
                                            ? PlanCost.DroppedReviewSecond * units[unit].ReviewSeconds
                                        : 0
                                    )
                            );
                        }

                        model.Add(Sum(somewhere) == Here(unit, from) + (unit < done ? 1 : 0));
                    }
                }
            }

            var timed = new LinearExpr[units.Count, lessons.Count];
            for (var lesson = firstOpen; lesson < lessons.Count; lesson++)
            {
                var covered = units.Count == 0 ? LinearExpr.Constant(0) : Until(units.Count - 1, lesson);
                for (var unit = 0; unit < units.Count; unit++)
                {
                    timed[unit, lesson] = LinearExpr.Constant(0);
                    if (held[unit, lesson] is { } all)
                    {
                        model.Add(Sum(all) <= 1);
                        var takes = model.NewBoolVar("");
                        model.Add(takes >= Sum(all) - covered);
                        if (IsCommon(units[unit]))
                        {
                            model.Add(takes <= Sum(all));
                            model.Add(takes <= 1 - covered);
                        }

                        timed[unit, lesson] = takes;
                    }
                }
            }

            return timed;
        }

        void AddLesson(int lesson)
        {
            var slot = lessons[lesson];
            var attended = cohort.IsAttended(lesson);
            var open = Enumerable.Range(done, units.Count - done).ToList();
            var fresh = Sum(open.Select(unit => Here(unit, lesson)));
            var postures = open.Where(unit => units[unit].Kind == UnitKind.Posture).ToList();
            model.Add(fresh <= Math.Max(4, cohort.MaxNew + 1));
            model.Add(Sum(postures.Select(unit => Here(unit, lesson))) <= cohort.MaxNew);
            foreach (var unit in postures.Where(unit => units[unit].Difficulty >= 3))
            {
                model.Add(
                    Sum(postures.Select(one => Here(one, lesson))) + ((cohort.MaxNew - 1) * Here(unit, lesson))
                        <= cohort.MaxNew
                );
            }

            var seconds = Sum(open.Select(unit => Here(unit, lesson) * units[unit].IntroduceSeconds));
            var uneven = model.NewIntVar(0, 100_000, "");
            model.Add(uneven >= seconds - evenShare);
            cost.Add(uneven * PlanCost.UnevenSecond);

            // Whatever is led needs its lead-in before it; a cohort that may not be left alone has somebody all lesson:
            // the terms measured have staff enough for that.
            var busy = model.NewBoolVar("");
            var leadIn = model.NewIntVar(0, CohortProblem.LeadInSeconds, "");
            var known = units.Count == 0 || slot.Kind == LessonKind.Test ? LinearExpr.Constant(0) : Until(0, lesson);
            var reviewed = Sum(
                Enumerable.Range(0, units.Count).Select(unit => reviews[unit, lesson] * units[unit].ReviewSeconds)
            );
            model.Add(leadIn >= CohortProblem.LeadInSeconds * (known + busy - 1));
            model.Add(seconds + reviewed <= 100_000 * (LinearExpr)busy);
            model.Add(
                leadIn + seconds + reviewed + (fresh * CohortProblem.OwnPracticeAfterNewSeconds)
                    <= slot.TeachableSeconds
            );
            teachers[lesson].Add(attended ? LinearExpr.Constant(slot.TeachableSeconds) : leadIn);

            foreach (var (unit, at) in Enumerable.Range(0, units.Count).Select(unit => (units[unit], unit)))
            {
                var (present, takes) = (
                    Here(at, lesson) + reviews[at, lesson],
                    (Here(at, lesson) * unit.IntroduceSeconds) + (reviews[at, lesson] * unit.ReviewSeconds)
                );
                if (IsCommon(unit))
                {
                    var key = (lesson, unit.Of, cohort.Mode.Name);
                    common.TryAdd(key, []);
                    common[key].Add((attended, Here(at, lesson) * unit.IntroduceSeconds, takes, present));
                }
                else if (!attended)
                {
                    teachers[lesson].Add(takes);
                }
            }
        }

        bool IsCommon(TeachingUnit unit) =>
            unit.CanBeShared
            && problem.Cohorts.Any(other =>
                other.Id != cohort.Id
                && other.Mode == cohort.Mode
                && other.Units.Any(one => one.CanBeShared && one.Of == unit.Of)
            );
    }

    /// <summary>Together takes as long as the longest needs; what is introduced to one cohort alone though it could be
    /// shared costs.</summary>
    private void Share()
    {
        foreach (var (key, all) in common)
        {
            var together = model.NewIntVar(0, 100_000, "");
            teachers[key.Lesson].Add(together);
            foreach (var (at, one) in all.Index())
            {
                if (!one.Attended)
                {
                    model.Add(
                        together >= one.Seconds - Sum(all.Where(other => other.Attended).Select(other => other.Seconds))
                    );
                }

                var alone = model.NewIntVar(0, 100_000, "");
                model.Add(
                    alone
                        >= one.New
                            - (
                                100_000
                                * Sum(all.Index().Where(other => other.Index != at).Select(other => other.Item.Present))
                            )
                );
                cost.Add(alone * PlanCost.UnsharedSecond);
            }
        }
    }

    private static LinearExpr Sum(IEnumerable<LinearExpr> parts) =>
        parts.ToList() is { Count: > 0 } list ? LinearExpr.Sum(list) : LinearExpr.Constant(0);
}
