using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Data;

/// <summary>A plan of one class's term as it was made: what was asked, and the answer. Each planning adds one; the latest is in force.</summary>
public sealed class PlannedTerm
{
    private PlannedTerm()
    {
    }

    public Guid Id { get; private set; }
    public Guid TermId { get; private set; }
    public Guid ClassId { get; private set; }
    public DateTimeOffset At { get; private set; }
    public Guid By { get; private set; }
    public TermProblem Problem { get; private set; } = null!;
    public TermPlan Plan { get; private set; } = null!;

    /// <summary>For each cohort, what its segment holds that cannot be taught in its mode yet.</summary>
    public IReadOnlyDictionary<Guid, IReadOnlyList<Unteachable>> Unteachable { get; private set; } = new Dictionary<Guid, IReadOnlyList<Unteachable>>();

    public static PlannedTerm Create(Guid termId, Guid classId, ClassMaterial material, TermPlan plan, Guid by, DateTimeOffset at) =>
        new() { Id = Guid.CreateVersion7(at), TermId = termId, ClassId = classId, Problem = material.Problem, Plan = plan, Unteachable = material.Unteachable, By = by, At = at };
}

/// <summary>A class's term as a problem for the planner, with what had to be left out of it.</summary>
public sealed record ClassMaterial(TermProblem Problem, IReadOnlyDictionary<Guid, IReadOnlyList<Unteachable>> Unteachable);
