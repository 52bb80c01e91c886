using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;

namespace Zeitplan.Server.Data;

/// <summary>
/// A plan of one class's term as it was made: what was asked, and the answer. It is a draft until it is announced; each
/// step of the head's work adds one, so that steps can be undone. Announcing gives it a number, and it stays as it is.
/// </summary>
public sealed class PlannedTerm
{
    private PlannedTerm() { }

    public Guid Id { get; private set; }
    public Guid TermId { get; private set; }
    public Guid ClassId { get; private set; }

    /// <summary>The plan on the table when this step was taken: of two steps taken from one plan, the database keeps
    /// one.</summary>
    public Guid? BasedOn { get; private set; }
    public DateTimeOffset At { get; private set; }
    public Guid By { get; private set; }

    /// <summary>What the head did to get it: "Planned", "Cross Hands fixed on 22 December".</summary>
    public string Cause { get; private set; } = "";

    /// <summary>What was asked and what was answered, as it is kept.</summary>
    public PlanSnapshot Snapshot { get; private set; } = null!;

    /// <summary>For each cohort, what its segment holds that cannot be taught in its mode yet.</summary>
    public IReadOnlyDictionary<Guid, IReadOnlyList<Unteachable>> Unteachable { get; private set; } =
        new Dictionary<Guid, IReadOnlyList<Unteachable>>();

    /// <summary>Counts the plans announced for this class and term, from 1; null while it is a draft.</summary>
    public int? Number { get; private set; }
    public DateTimeOffset? AnnouncedAt { get; private set; }

    /// <summary>When the step was taken back; null while it stands. It can be taken again until another one is.</summary>
    public DateTimeOffset? UndoneAt { get; private set; }

    /// <summary>When and where the lessons were announced to be, for everybody's calendar.</summary>
    public IReadOnlyList<AnnouncedLesson> Lessons { get; private set; } = [];

    private SolvedTerm? solved;

    /// <summary>The same for whoever reckons with it.</summary>
    public SolvedTerm Solved => solved ??= Snapshot.Solved();
    public TermProblem Problem => Solved.Problem;
    public TermPlan Plan => Solved.Plan;

    public static PlannedTerm Create(
        Guid termId,
        Guid classId,
        Guid? basedOn,
        ClassMaterial material,
        TermPlan plan,
        string cause,
        Guid by,
        DateTimeOffset at
    ) =>
        new()
        {
            Id = Guid.CreateVersion7(at),
            TermId = termId,
            ClassId = classId,
            BasedOn = basedOn,
            Snapshot = PlanSnapshot.Of(new(material.Problem, plan)),
            solved = new(material.Problem, plan),
            Unteachable = material.Unteachable,
            Cause = cause,
            By = by,
            At = at,
        };

    public void Announce(int number, IReadOnlyList<AnnouncedLesson> lessons, DateTimeOffset at) =>
        (Number, Lessons, AnnouncedAt) = (number, lessons, at);
}

/// <summary>A class's term as a problem for the planner, with what had to be left out of it.</summary>
public sealed record ClassMaterial(
    TermProblem Problem,
    IReadOnlyDictionary<Guid, IReadOnlyList<Unteachable>> Unteachable
)
{
    /// <summary>How each cohort is taught, at its own pace.</summary>
    public IReadOnlyDictionary<Guid, TeachingWay> Ways { get; init; } = new Dictionary<Guid, TeachingWay>();
}
