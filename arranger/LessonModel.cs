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
)
{
    public bool IsVisit => Task is null;
}

/// <summary>Minutes a cohort practises by itself, after something its teacher did.</summary>
internal sealed record Practice(int Cohort, IntVar Start, IntVar Minutes);

/// <summary>
/// A lesson as a constraint model. A cohort's tasks come in their order; between them, before the first and after the last
/// it practises by itself, and a teacher may come by. Each stretch follows the one before without a gap, and all of them
/// fill the time between what the whole class does. So nothing has to be compared but teachers, who are in one place at a
/// time.
/// </summary>
internal sealed class LessonModel
{
    /// <summary>Nobody practises for a single minute.</summary>
    private const int ShortestPractice = 2;

    private readonly List<Event> events = [];
    private readonly List<Practice> practices = [];
    private readonly List<IntVar> tooLong = [];
    private readonly Dictionary<string, Event> tasks = [];

    private readonly bool everything;

    /// <param name="first">An arrangement to begin with.</param>
    /// <param name="everything">Whatever is asked has to be there, and nobody may be alone for too long: then there may be no
    /// arrangement at all.</param>
    public LessonModel(LessonFacts facts, IReadOnlyList<Step> first, bool everything)
    {
        (Facts, Problem, this.everything) = (facts, facts.Problem, everything);
        foreach (var task in Problem.Tasks)
        {
            tasks[task.Key] = Lead(task);
        }

        for (var cohort = 0; cohort < Problem.Cohorts.Count; cohort++)
        {
            Chain(cohort, [.. first.Where(step => step.Cohorts.Contains(cohort)).OrderBy(step => step.Start)]);
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

    public IReadOnlyList<Event> Events => events;
    public IReadOnlyList<Practice> Practices => practices;

    /// <summary>For each cohort, by how many minutes its longest stretch without a teacher is longer than it may be.</summary>
    public IReadOnlyList<IntVar> TooLong => tooLong;

    public IEnumerable<Event> Of(int cohort) => events.Where(its => its.Cohorts.Contains(cohort));

    private IntVar Minute(string name) => Model.NewIntVar(Problem.Begins, Math.Max(Problem.Begins, Problem.Ends), name);

    private Event Lead(LessonTask task)
    {
        var (cohorts, pin) = (Facts.CohortsOf[task.Key], Facts.PinOf(task));
        var (start, present) = (Minute(task.Key), Model.NewBoolVar(task.Key));
        if (everything)
        {
            Model.Add(present == 1);
        }

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

    private void Chain(int cohort, List<Step> first)
    {
        var over = Model.NewIntVar(0, everything ? 0 : Window, "too long alone");
        tooLong.Add(over);
        Model.AddHint(over, LongestAloneIn(first) - Facts.LongestAlone[cohort] is > 0 and var longer ? longer : 0);
        var visits = VisitsBetween(cohort);
        var (here, beginning, looks) = (Problem.Cohorts[cohort], practices.Count, events.Count);
        var (minute, now) = (Model.NewConstant(Problem.Begins), Problem.Begins);
        (minute, now) = Practise(cohort, minute, now, over, visits, null, VisitsAfter(-1), StartAfter(-1));
        Model.Add(
            practices[beginning].Minutes <= Math.Max(0, Facts.LongestAlone[cohort] - Facts.AloneFor[cohort]) + over
        );
        var owed = Math.Min(here.StillToPractise, Window);
        Model.Add(
            Facts.LongestAlone[cohort] > 0
                ? practices[beginning].Minutes >= owed
                : LinearExpr.Sum(events.Skip(looks).Select(look => look.Length)) >= owed
        );
        foreach (var task in Facts.Order[cohort])
        {
            var its = tasks[task.Key];
            Model.Add(its.Start == minute);
            var at = first.FindIndex(step => step.Task?.Key == task.Key);
            Hint(its, at < 0 ? null : first[at], now);
            (minute, now) = Practise(
                cohort,
                its.End,
                at < 0 ? now : first[at].End,
                over,
                visits,
                its,
                at < 0 ? [] : VisitsAfter(at),
                at < 0 ? now : StartAfter(at)
            );
        }

        Model.Add(minute == Math.Max(Problem.Begins, Problem.Ends));

        IReadOnlyList<Step> VisitsAfter(int at) => [.. first.Skip(at + 1).TakeWhile(step => step.Task is null)];
        int StartAfter(int at) =>
            first.Skip(at + 1).FirstOrDefault(step => step.Task is not null)?.Start ?? Problem.Ends;
    }

    private int LongestAloneIn(List<Step> first) =>
        first
            .Select(step => step.Start)
            .Append(Problem.Ends)
            .Zip(first.Select(step => step.End).Prepend(Problem.Begins), (start, end) => start - end)
            .Max();

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
    /// <param name="now">That minute in the arrangement to begin with.</param>
    /// <param name="first">The visits there.</param>
    /// <param name="until">When it is over there.</param>
    /// <returns>The minute at which that is over.</returns>
    private (IntVar Minute, int Now) Practise(
        int cohort,
        IntVar minute,
        int now,
        IntVar over,
        int visits,
        Event? after,
        IReadOnlyList<Step> first,
        int until
    )
    {
        var isNew = after?.Task?.Kind == BlockKind.New && Facts.LongestAlone[cohort] > 0;
        minute = Alone(cohort, minute, over, isNew, after?.Present, (first.Count > 0 ? first[0].Start : until) - now);
        for (var visit = 0; visit < Math.Max(visits, first.Count); visit++)
        {
            var here = Problem.Cohorts[cohort];
            var (least, most) =
                Facts.LongestAlone[cohort] > 0
                    ? (Problem.Rules.ShortestVisit(here.People), Problem.Rules.LongestVisit)
                    : (ShortestPractice, Math.Max(Window, ShortestPractice));
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
            Event its = new(
                null,
                [cohort],
                minute,
                length,
                ends,
                present,
                LedBySomebody([cohort], minute, ends, present, null)
            );
            events.Add(its);
            var step = visit < first.Count ? first[visit] : null;
            var next = visit + 1 < first.Count ? first[visit + 1].Start : until;
            Hint(its, step, until);
            Model.AddHint(length, step?.Minutes ?? 0);
            minute =
                Facts.LongestAlone[cohort] > 0
                    ? Alone(cohort, ends, over, false, present, step is null ? 0 : next - step.End)
                    : ends;
        }

        return (minute, until);
    }

    /// <param name="now">The minute in the arrangement to begin with, where it is not in that.</param>
    private void Hint(Event its, Step? first, int now)
    {
        Model.AddHint(its.Present, first is not null);
        Model.AddHint(its.Start, first?.Start ?? now);
        Model.AddHint(its.End, first?.End ?? now);
        foreach (var (teacher, leads) in its.Leads)
        {
            Model.AddHint(leads, first?.Teacher == teacher);
        }
    }

    /// <param name="onlyIf">What it follows; nothing is practised after what is not there.</param>
    /// <param name="first">The minutes in the arrangement to begin with.</param>
    private IntVar Alone(int cohort, IntVar minute, IntVar over, bool isAfterNew, BoolVar? onlyIf, int first)
    {
        var minutes = Model.NewIntVarFromDomain(
            Domain.FromIntervals([
                [0, 0],
                [ShortestPractice, Math.Max(Window, ShortestPractice)],
            ]),
            "alone"
        );
        Model.Add(minutes <= Facts.LongestAlone[cohort] + over);
        if (onlyIf is not null)
        {
            Model.Add(minutes == 0).OnlyEnforceIf(onlyIf.Not());
            if (isAfterNew)
            {
                Model.Add(minutes >= Problem.Rules.PractiseAfterNew).OnlyEnforceIf(onlyIf);
            }
        }

        practices.Add(new(cohort, minute, minutes));
        var ends = Minute("practised");
        Model.Add(ends == minute + minutes);
        Model.AddHint(minutes, first);
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
