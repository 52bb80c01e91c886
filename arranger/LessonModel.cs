using Google.OrTools.Sat;
using Google.OrTools.Util;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger;

/// <summary>Something a teacher does in front of a cohort, or of several: a task, or a visit.</summary>
/// <param name="Task">Null for a visit.</param>
/// <param name="Cohorts">Places among the cohorts of the problem.</param>
/// <param name="Start">The minute it begins.</param>
/// <param name="Length">The teacher's minutes; none where it is not there.</param>
/// <param name="End">The minute after its last.</param>
/// <param name="Leads">Who may do it, and whether they do.</param>
internal sealed record Event(
    LessonTask? Task,
    IReadOnlyList<int> Cohorts,
    IntVar Start,
    LinearExpr Length,
    IntVar End,
    BoolVar Present,
    IReadOnlyList<(int Teacher, BoolVar Leads)> Leads
);

/// <summary>
/// A lesson as a constraint model. A cohort's tasks come in their order; between them, before the first and after the last
/// it practises by itself, and a teacher may come by. Each stretch follows the one before without a gap, and all of them
/// fill the time between what the whole class does. So nothing has to be compared but teachers, who are in one place at a
/// time.
/// </summary>
internal sealed class LessonModel
{
    private readonly List<Event> events = [];
    private readonly List<IntVar> practices = [];
    private readonly Dictionary<string, Event> tasks = [];

    public LessonModel(LessonFacts facts)
    {
        (Facts, Problem) = (facts, facts.Problem);
        foreach (var task in Problem.Tasks)
        {
            tasks[task.Key] = Lead(task);
        }

        for (var cohort = 0; cohort < Problem.Cohorts.Count; cohort++)
        {
            Chain(cohort);
        }

        for (var teacher = 0; teacher < Problem.Teachers.Count; teacher++)
        {
            OneAtATime(teacher);
        }

        NoMoreAtOnceThanTeachers();
    }

    public CpModel Model { get; } = new();
    public LessonFacts Facts { get; }
    public LessonProblem Problem { get; }
    public int Window => Facts.Window;

    private IntVar Minute(string name) => Model.NewIntVar(Problem.Begins, Math.Max(Problem.Begins, Problem.Ends), name);

    private Event Lead(LessonTask task)
    {
        var (cohorts, pin) = (Facts.CohortsOf[task.Key], Facts.PinOf(task));
        var (start, present) = (Minute(task.Key), Model.NewBoolVar(task.Key));
        Model.Add(present == 1);
        if (pin?.Start is { } minute)
        {
            Model.Add(start == minute).OnlyEnforceIf(present);
        }

        if (task.Kind == BlockKind.New)
        {
            Model.Add(start < Problem.Minutes - Problem.Rules.NoNewInLast).OnlyEnforceIf(present);
        }

        var (length, end) = (present * Facts.Staying(task), Minute("ends"));
        Model.Add(end == start + length);
        Event its = new(
            task,
            cohorts,
            start,
            length,
            end,
            present,
            LedBySomebody(cohorts, start, end, present, pin?.TeacherId)
        );
        events.Add(its);
        return its;
    }

    private List<(int, BoolVar)> LedBySomebody(int[] cohorts, IntVar start, IntVar end, BoolVar present, Guid? pinnedTo)
    {
        List<(int, BoolVar)> leads = [];
        foreach (var (at, teacher) in Problem.Teachers.Index())
        {
            if ((pinnedTo is { } wanted && wanted != teacher.Id) || !cohorts.All(cohort => Facts.MayLead[at][cohort]))
            {
                continue;
            }

            var does = Model.NewBoolVar(teacher.Name);
            if (teacher.From > Problem.Begins)
            {
                Model.Add(start >= teacher.From).OnlyEnforceIf(does);
            }

            if (teacher.Until < Problem.Ends)
            {
                Model.Add(end <= teacher.Until).OnlyEnforceIf(does);
            }

            leads.Add((at, does));
        }

        Model.Add(LinearExpr.Sum(leads.Select(lead => lead.Item2)) == present);
        return leads;
    }

    private void Chain(int cohort)
    {
        var visits = VisitsBetween(cohort);
        var (here, beginning, looks) = (Problem.Cohorts[cohort], practices.Count, events.Count);
        var minute = Practise(cohort, Model.NewConstant(Problem.Begins), visits, null);
        Model.Add(practices[beginning] <= Math.Max(0, Facts.LongestAlone[cohort] - Facts.AloneFor[cohort]));
        var owed = Math.Min(here.StillToPractise, Window);
        Model.Add(
            Facts.LongestAlone[cohort] > 0
                ? practices[beginning] >= owed
                : LinearExpr.Sum(events.Skip(looks).Select(look => look.Length)) >= owed
        );
        foreach (var task in Facts.Order[cohort])
        {
            var its = tasks[task.Key];
            Model.Add(its.Start == minute);
            minute = Practise(cohort, its.End, visits, its);
        }

        Model.Add(minute == Math.Max(Problem.Begins, Problem.Ends));
    }

    /// <summary>How many visits there can be between two tasks; more than are needed, to be free where to put them.</summary>
    private int VisitsBetween(int cohort)
    {
        var (longest, order) = (Facts.LongestAlone[cohort], Facts.Order[cohort]);
        var own = Math.Max(0, Window - order.Sum(Facts.Staying));
        return longest == 0 ? 1 : Math.Min(4, (own / ((order.Count + 1) * (longest + 1))) + 1);
    }

    /// <summary>A cohort practises, and a teacher may come by once or several times.</summary>
    /// <param name="after">The task it follows; where that is left out, what comes before goes on without a break. After
    /// something new a cohort practises for a while in any case.</param>
    /// <returns>The minute at which that is over.</returns>
    private IntVar Practise(int cohort, IntVar minute, int visits, Event? after)
    {
        var isNew = after?.Task?.Kind == BlockKind.New && Facts.LongestAlone[cohort] > 0;
        minute = Alone(cohort, minute, isNew, after?.Present);
        for (var visit = 0; visit < visits; visit++)
        {
            var here = Problem.Cohorts[cohort];
            var (least, most) =
                Facts.LongestAlone[cohort] > 0
                    ? (Problem.Rules.ShortestVisit(here.People), Problem.Rules.LongestVisit)
                    : (CohortRules.ShortestPractice, Math.Max(Window, CohortRules.ShortestPractice));
            var present = Model.NewBoolVar("visit");
            var length = Model.NewIntVarFromDomain(
                Domain.FromIntervals([
                    [0, 0],
                    [least, most],
                ]),
                "visit"
            );
            Model.Add(length == 0).OnlyEnforceIf(present.Not());
            Model.Add(length >= least).OnlyEnforceIf(present);
            var ends = Minute("visit ends");
            Model.Add(ends == minute + length);
            events.Add(
                new(null, [cohort], minute, length, ends, present, LedBySomebody([cohort], minute, ends, present, null))
            );
            minute = Facts.LongestAlone[cohort] > 0 ? Alone(cohort, ends, false, present) : ends;
        }

        return minute;
    }

    /// <param name="onlyIf">What it follows; nothing is practised after what is not there.</param>
    private IntVar Alone(int cohort, IntVar minute, bool isAfterNew, BoolVar? onlyIf)
    {
        var minutes = Model.NewIntVarFromDomain(
            Domain.FromIntervals([
                [0, 0],
                [CohortRules.ShortestPractice, Math.Max(Window, CohortRules.ShortestPractice)],
            ]),
            "alone"
        );
        Model.Add(minutes <= Facts.LongestAlone[cohort]);
        if (onlyIf is not null)
        {
            Model.Add(minutes == 0).OnlyEnforceIf(onlyIf.Not());
            if (isAfterNew)
            {
                Model.Add(minutes >= Problem.Rules.PractiseAfterNew).OnlyEnforceIf(onlyIf);
            }
        }

        practices.Add(minutes);
        var ends = Minute("practised");
        Model.Add(ends == minute + minutes);
        return ends;
    }

    private void OneAtATime(int teacher) =>
        Model.AddNoOverlap(
            events.SelectMany(its =>
                its.Leads.Where(lead => lead.Teacher == teacher)
                    .Select(lead =>
                        Model.NewOptionalIntervalVar(
                            its.Start,
                            its.Task is { } task ? LinearExpr.Constant(Facts.Staying(task)) : its.Length,
                            its.End,
                            lead.Leads,
                            "led"
                        )
                    )
            )
        );

    /// <summary>Says once more, of all teachers together, what is said of each: it spares much searching.</summary>
    private void NoMoreAtOnceThanTeachers()
    {
        var all = Model.AddCumulative(Problem.Teachers.Count);
        foreach (var its in events)
        {
            all.AddDemand(
                Model.NewOptionalIntervalVar(
                    its.Start,
                    its.Task is { } task ? LinearExpr.Constant(Facts.Staying(task)) : its.Length,
                    its.End,
                    its.Present,
                    "led"
                ),
                1
            );
        }

        Model.Add(LinearExpr.Sum(events.Select(its => its.Length)) <= Facts.TeacherMinutes);
    }

    /// <summary>What the teachers do, as the solver found it.</summary>
    public IReadOnlyList<Step> Steps(CpSolver solver) =>
        [
            .. events
                .Where(its => solver.BooleanValue(its.Present))
                .Select(its => new Step(
                    its.Task,
                    [.. its.Cohorts],
                    (int)solver.Value(its.Start),
                    (int)solver.Value(its.End),
                    its.Leads.First(lead => solver.BooleanValue(lead.Leads)).Teacher
                ))
                .OrderBy(step => step.Start),
        ];
}
