using Google.OrTools.Sat;

namespace Zeitplan.Arranger;

/// <summary>The measures as the objective of the model.</summary>
internal sealed class Preferences(LessonModel lesson)
{
    private readonly List<LinearExpr> points = [];
    private CpModel Model => lesson.Model;

    /// <summary>Adds all measures to the model.</summary>
    public void Apply()
    {
        Everything();
        NobodyAloneForTooLong();
        EverybodySeen();
        FairMinutes();
        FewCrossings();
        NewBeforeTired();
        Model.Minimize(LinearExpr.Sum(points));
    }

    private void Everything()
    {
        foreach (var its in lesson.Events.Where(its => !its.IsVisit))
        {
            points.Add((1 - its.Present) * Measures.LeftOut(its.Task!.Kind));
        }
    }

    private void NobodyAloneForTooLong() =>
        points.AddRange(lesson.TooLong.Select(minutes => minutes * Measures.TooLong));

    /// <summary>A watch block and the watching at the end of what is new let a teacher truly see people; so does a
    /// visit.</summary>
    private void EverybodySeen()
    {
        var rules = lesson.Problem.Rules;
        foreach (var (at, cohort) in lesson.Problem.Cohorts.Index().Where(cohort => cohort.Item.Due > 0))
        {
            var seen = LinearExpr.Sum(
                lesson
                    .Of(at)
                    .Where(its => Measures.Shows(its.Task))
                    .Select(its => its.IsVisit ? its.Length * rules.SeenAMinute : its.Present * rules.SeenInABlock)
            );
            var unseen = Model.NewIntVar(0, cohort.Due, $"{cohort.Name}, unseen");
            Model.Add(unseen >= cohort.Due - seen);
            points.Add(unseen * Measures.Unseen);
        }
    }

    private void FairMinutes()
    {
        var problem = lesson.Problem;
        foreach (var (at, cohort) in problem.Cohorts.Index())
        {
            var share = lesson.Facts.Share[at];
            var led = LinearExpr.Sum(lesson.Of(at).Select(its => its.Length));
            var less = Model.NewIntVar(0, Math.Max(0, share), $"{cohort.Name}, less than its share");
            Model.Add(less >= share - led);
            points.Add(less * Measures.LessThanItsShare);
        }

        points.AddRange(lesson.Practices.Select(practice => practice.Minutes * Measures.ByItself));
    }

    /// <summary>One teacher stays with a cohort, and comes by rather seldom and for longer than often and shortly.</summary>
    private void FewCrossings()
    {
        var problem = lesson.Problem;
        foreach (var (at, cohort) in problem.Cohorts.Index())
        {
            foreach (var (who, teacher) in problem.Teachers.Index())
            {
                var leads = lesson
                    .Of(at)
                    .SelectMany(its => its.Leads.Where(lead => lead.Teacher == who).Select(lead => lead.Leads))
                    .ToList();
                if (leads.Count == 0)
                {
                    continue;
                }

                var together = Model.NewBoolVar($"{teacher.Name} and {cohort.Name}");
                foreach (var does in leads)
                {
                    Model.AddImplication(does, together);
                }

                points.Add(
                    together
                        * (
                            problem.LastTime.Contains(new(teacher.Id, cohort.Id))
                                ? Measures.SameAsLastTime
                                : Measures.OneMoreCohort
                        )
                );
            }
        }

        points.AddRange(lesson.Events.Where(its => its.IsVisit).Select(its => its.Present * Measures.Visit));
    }

    private void NewBeforeTired()
    {
        points.AddRange(
            lesson
                .Events.Where(its => Measures.Later(its.Task?.Kind) > 0)
                .Select(its => (its.Start - lesson.Problem.Begins) * Measures.Later(its.Task?.Kind))
        );
    }
}
