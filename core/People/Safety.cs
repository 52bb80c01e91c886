using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>How one student does one posture, decided by somebody who teaches them. The latest decision counts; none is
/// deleted.</summary>
/// <param name="Mode">The mode's name; null where the student leaves the posture out.</param>
/// <param name="Words">What is different, as a sheet says it: "toe down". Never a diagnosis.</param>
public sealed record Adaptation(
    Guid Id,
    Guid StudentId,
    Guid PostureId,
    string? Mode,
    string Words,
    Guid By,
    DateTimeOffset At
) : IFact<Adaptation>
{
    /// <summary>The decision that counts about each student and posture.</summary>
    public static IEnumerable<Adaptation> Latest(IEnumerable<Adaptation> all) =>
        all.GroupBy(decision => (decision.StudentId, decision.PostureId))
            .Select(same => same.MaxBy(decision => (decision.At, decision.Id))!);

    public const string LeavesItOut = "leaves it out";

    /// <inheritdoc/>
    public bool SaysTheSame(Adaptation other) => this with { By = other.By, At = other.At } == other;

    /// <summary>How they do it, beside the posture: "seated, toe down".</summary>
    public static string How(Adaptation? decided) =>
        decided switch
        {
            null => "left out until it is settled how",
            { Mode: null, Words.Length: > 0 } => $"{LeavesItOut}, {decided.Words}",
            { Mode: null } => LeavesItOut,
            { Words.Length: > 0 } => $"{decided.Mode}, {decided.Words}",
            _ => decided.Mode,
        };

    /// <summary>As a plan or a sheet says it: "Bernd H.: Part Foot, right, toe down".</summary>
    public static string Say(string student, string posture, Adaptation? decided) =>
        decided switch
        {
            null => $"{student}: {posture} is left out until it is settled how",
            { Mode: null, Words.Length: > 0 } => $"{student}: {LeavesItOut}: {posture}, {decided.Words}",
            { Mode: null } => $"{student}: {LeavesItOut}: {posture}",
            { Words.Length: > 0 } => $"{student}: {posture} {decided.Mode}, {decided.Words}",
            _ => $"{student}: {posture} {decided.Mode}",
        };
}

/// <summary>A posture of a coming lesson that asks a student for something they must not be asked for.</summary>
/// <param name="First">The first coming lesson it is in.</param>
/// <param name="Breaks">What their cohort's way of doing it would ask for; empty where nobody has said yet what it asks
/// for.</param>
/// <param name="Best">What would do instead.</param>
/// <param name="Decided">How it has been settled; null while nobody has, or while the decision no longer fits the
/// limits.</param>
public sealed record UnsafeForOne(
    Guid StudentId,
    Guid CohortId,
    PostureSide Of,
    DateOnly First,
    IReadOnlyList<Demand> Breaks,
    ModeChoice Best,
    Adaptation? Decided
)
{
    public bool IsOpen => Decided is null;
}

/// <summary>Somebody who works with a cohort, and how.</summary>
/// <param name="Mode">In which they take part.</param>
public sealed record TakesPart(Student Student, Guid CohortId, Mode Mode)
{
    /// <summary>Everybody in their own cohorts.</summary>
    public static IEnumerable<TakesPart> In(IEnumerable<Cohort> cohorts, IReadOnlyList<Student> students) =>
        from cohort in cohorts
        from student in students
        where student.CohortIds.Contains(cohort.Id)
        select new TakesPart(student, cohort.Id, student.ModeIn(cohort.Mode));
}

/// <summary>Nothing unsafe is silently scheduled: every posture that is to come, against every limit of whoever is to
/// do it (domain.md 4.6).</summary>
public static class Safety
{
    /// <param name="coming">For each cohort, what its coming lessons hold and when first.</param>
    /// <param name="adaptations">All decisions.</param>
    public static IReadOnlyList<UnsafeForOne> Of(
        IEnumerable<TakesPart> there,
        IReadOnlyDictionary<Guid, IReadOnlyDictionary<PostureSide, DateOnly>> coming,
        IReadOnlyDictionary<Guid, PostureOutline> outlines,
        IEnumerable<Adaptation> adaptations
    )
    {
        var latest = Adaptation.Latest(adaptations).ToDictionary(decision => (decision.StudentId, decision.PostureId));
        return
        [
            .. from one in there
            where coming.ContainsKey(one.CohortId)
            where one.Student.Limits.Count > 0 || one.Mode.Support is Support.Touch or Support.Hold
            from touched in coming[one.CohortId]
            let care = Judge(
                one,
                touched.Key,
                touched.Value,
                outlines[touched.Key.PostureId],
                latest.GetValueOrDefault((one.Student.Id, touched.Key.PostureId))
            )
            where care is not null
            orderby care.First, one.Student.ShortName
            select care,
        ];
    }

    private static UnsafeForOne? Judge(
        TakesPart one,
        PostureSide of,
        DateOnly first,
        PostureOutline outline,
        Adaptation? decision
    )
    {
        var (student, cohortId, usual) = one;
        var version = outline.In(usual);
        var breaks = version is null ? [] : ModeChoice.Broken(version, outline, of.Side, student.Limits);
        return breaks.Count == 0 && (version is null || version.IsKnown || student.Limits.Count == 0)
            ? null
            : new(
                student.Id,
                cohortId,
                of,
                first,
                breaks,
                ModeChoice.Of(outline, of.Side, student.Limits, usual),
                decision is not null && Holds(decision, outline, of.Side, student.Limits) ? decision : null
            );
    }

    /// <summary>Whether a decision still keeps every limit: a version that is written, and asks for nothing
    /// forbidden.</summary>
    public static bool Holds(Adaptation decision, PostureOutline outline, Side side, IReadOnlyList<Limit> limits) =>
        decision.Mode is null
        || (
            Mode.FromName(decision.Mode) is { } mode
            && outline.In(mode) is { } version
            && (version.IsKnown || limits.Count == 0)
            && ModeChoice.Broken(version, outline, side, limits).Count == 0
        );
}
