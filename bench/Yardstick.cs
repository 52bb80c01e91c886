using System.Diagnostics;
using Google.OrTools.Sat;
using Zeitplan.Core.Terms;

namespace Zeitplan.Bench;

/// <summary>
/// The same term as one constraint model over all cohorts together, with the planner's own penalties, solved by CP-SAT: its proven bound is what no plan can
/// undercut. Reviews that do not fit count as dropped here; the planner may still find them another lesson.
/// </summary>
internal sealed class Yardstick
{
    public sealed record Result(double Milliseconds, double Bound, bool Proven);

    private readonly CpModel model = new();
    private readonly TermProblem problem;
    private readonly int firstOpen;
    private readonly IReadOnlyList<IReadOnlyList<Review>> reviewsAfter;
    private readonly List<LinearExpr> cost = [];
    private readonly List<LinearExpr>[] teachers;

    private Yardstick(TermProblem problem)
    {
        this.problem = problem;
        firstOpen = problem.Lessons.TakeWhile(lesson => lesson.Held).Count();
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

        for (var lesson = yardstick.firstOpen; lesson < problem.Lessons.Count; lesson++)
        {
            yardstick.model.Add(LinearExpr.Sum(yardstick.teachers[lesson]) <= problem.Lessons[lesson].TeacherSeconds);
        }

        yardstick.model.Minimize(LinearExpr.Sum(yardstick.cost));
        var solver = new CpSolver { StringParameters = string.Create(System.Globalization.CultureInfo.InvariantCulture, $"max_time_in_seconds:{limit.TotalSeconds:0},num_workers:2,random_seed:1") };
        var status = solver.Solve(yardstick.model);
        return new(watch.Elapsed.TotalMilliseconds, solver.BestObjectiveBound, status == CpSolverStatus.Optimal);
    }

    private void Add(CohortProblem cohort)
    {
        var (units, lessons, done) = (cohort.Units, problem.Lessons, cohort.IntroducedIn.Count);
        var evenShare = PlanCost.EvenShare(problem, cohort, firstOpen);
        var introduced = new ILiteral?[units.Count, lessons.Count];
        for (var unit = done; unit < units.Count; unit++)
        {
            for (var lesson = firstOpen; lesson < lessons.Count; lesson++)
            {
                if (lessons[lesson].Kind == LessonKind.Ordinary)
                {
                    introduced[unit, lesson] = model.NewBoolVar($"{cohort.Name} {unit} {lesson}");
                    cost.Add((LinearExpr)introduced[unit, lesson]! * PlanCost.OfIntroducing(cohort, firstOpen, lesson));
                }
            }

            model.Add(Until(unit, lessons.Count) <= 1);
            cost.Add((1 - Until(unit, lessons.Count)) * PlanCost.OfLeaving(units[unit]));
            for (var lesson = firstOpen; unit > done && lesson < lessons.Count; lesson++)
            {
                model.Add(Until(unit, lesson + 1) <= Until(unit - 1, lesson + 1));
            }
        }

        for (var lesson = firstOpen; lesson < lessons.Count; lesson++)
        {
            AddLesson(lesson);
        }

        // How many of one unit were introduced before a lesson: 0 or 1.
        LinearExpr Until(int unit, int before) => unit < done
            ? LinearExpr.Constant(1)
            : Sum(Enumerable.Range(0, before).Select(lesson => introduced[unit, lesson]).Where(literal => literal is not null).Select(literal => (LinearExpr)literal!));

        LinearExpr Here(int unit, int lesson) => introduced[unit, lesson] is { } literal ? (LinearExpr)literal : LinearExpr.Constant(0);

        void AddLesson(int lesson)
        {
            var slot = lessons[lesson];
            var attended = lesson < cohort.AttendedLessons;
            var open = Enumerable.Range(done, units.Count - done).ToList();
            var fresh = Sum(open.Select(unit => Here(unit, lesson)));
            model.Add(fresh <= cohort.MaxNew);
            foreach (var unit in open.Where(unit => units[unit].Difficulty == 3))
            {
                model.Add(fresh + ((cohort.MaxNew - 1) * Here(unit, lesson)) <= cohort.MaxNew);
            }

            var seconds = Sum(open.Select(unit => Here(unit, lesson) * units[unit].IntroduceSeconds));
            var uneven = model.NewIntVar(0, 100_000, "");
            model.Add(uneven >= seconds - evenShare);
            cost.Add(uneven * PlanCost.UnevenSecond);

            var leadIn = slot.Kind == LessonKind.Test || units.Count == 0 ? LinearExpr.Constant(0) : Until(0, lesson) * CohortProblem.LeadInSeconds;
            var known = Sum(Enumerable.Range(0, units.Count).Select(unit => Until(unit, lesson) * units[unit].RunThroughSeconds)) + cohort.BeforeSeconds;
            var runThrough = model.NewIntVar(0, slot.TeachableSeconds, "");
            var own = fresh * CohortProblem.OwnPracticeAfterNewSeconds;
            var covered = units.Count == 0 ? LinearExpr.Constant(0) : Until(units.Count - 1, lesson);
            var reviews = AddReviews(lesson, covered);
            var led = leadIn + seconds + runThrough + reviews;
            model.Add(led + own <= slot.TeachableSeconds);
            model.Add(runThrough <= known);

            // A run-through is cut short only by the end of the lesson or of the teachers' minutes, never to make room for a review: left free here, which can only lower the bound.
            teachers[lesson].Add(attended ? LinearExpr.Constant(slot.TeachableSeconds) : led);
        }

        LinearExpr AddReviews(int lesson, LinearExpr covered)
        {
            List<LinearExpr> held = [];
            for (var unit = 0; unit < units.Count; unit++)
            {
                var due = Sum(Enumerable.Range(0, lesson).Where(from => reviewsAfter[from].Any(review => review.Lesson == lesson))
                    .Select(from => unit < done ? LinearExpr.Constant(cohort.IntroducedIn[unit] == from ? 1 : 0) : Here(unit, from)));
                var (kept, dropped) = (model.NewBoolVar(""), model.NewBoolVar(""));
                model.Add(kept + dropped >= due - covered);
                cost.Add(dropped * (PlanCost.DroppedReviewSecond * units[unit].ReviewSeconds));
                held.Add(kept * units[unit].ReviewSeconds);
            }

            return Sum(held);
        }
    }

    private static LinearExpr Sum(IEnumerable<LinearExpr> parts) => parts.ToList() is { Count: > 0 } list ? LinearExpr.Sum(list) : LinearExpr.Constant(0);
}
