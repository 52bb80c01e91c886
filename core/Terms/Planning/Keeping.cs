using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>What a cohort can do and is not to lose, and what it is to learn otherwise (domain.md 4.3, <i>maintain</i>;
/// 4.1, a changed standard).</summary>
/// <param name="Runs">What can be gone through as a whole.</param>
public sealed record Keeping(IReadOnlyList<KeptPosture> Postures, IReadOnlyList<KeptRun> Runs)
{
    public static readonly Keeping Nothing = new([], []);

    public bool Touches(Refresh refresh, int posture) =>
        refresh.Run is { } run ? Runs[run].Postures.Contains(posture) : refresh.Posture == posture;

    public IEnumerable<PostureSide> TouchedBy(Refresh refresh) =>
        refresh.Run is { } run
            ? Runs[run].Postures.Select(posture => Postures[posture].Of)
            : [Postures[refresh.Posture!.Value].Of];

    public string NameOf(Refresh refresh) =>
        refresh.Run is { } run ? Runs[run].Name : Postures[refresh.Posture!.Value].Name;

    /// <summary>Whether a plan that was asked to keep this still does: the same things are kept, however soon each of them is
    /// due, and nothing has come to relearn. What has been told since is told.</summary>
    public bool StillAsks(Keeping now) =>
        Postures
            .Where(kept => kept.Changed is null)
            .Select(kept => kept.Of)
            .SequenceEqual(now.Postures.Where(kept => kept.Changed is null).Select(kept => kept.Of))
        && Runs.Select(run => (run.Name, run.Seconds)).SequenceEqual(now.Runs.Select(run => (run.Name, run.Seconds)))
        && now.Postures.Where(kept => kept.Changed is not null)
            .All(kept => Postures.Any(its => (its.Of, its.Changed) == (kept.Of, kept.Changed)));
}

/// <summary>One posture that is kept.</summary>
/// <param name="Seconds">A refresh of it; with a difference, to tell that and try it.</param>
/// <param name="Due">The last day on which it is touched in time.</param>
/// <param name="HoldsDays">So long it holds once it has been touched; null where once is enough.</param>
/// <param name="Changed">What the school does otherwise than they learned it: no run-through tells them. Null for what
/// they do as it is done.</param>
public sealed record KeptPosture(
    PostureSide Of,
    string Name,
    Seconds Seconds,
    DateOnly Due,
    int? HoldsDays,
    Changed? Changed = null
)
{
    /// <summary>The last day on which it is in time once it has been touched on a day: never sooner than without that.</summary>
    public DateOnly DueAfter(DateOnly touched) =>
        HoldsDays is { } days
            ? DateOnly.FromDayNumber(Math.Max(Due.DayNumber, touched.DayNumber + days))
            : DateOnly.MaxValue;
}

/// <param name="Since">When the school changed it, the first of several times.</param>
/// <param name="Difference">All of it, as it is taught.</param>
public sealed record Changed(DateOnly Since, string Difference);

/// <summary>A run of postures a cohort can go through in one piece.</summary>
/// <param name="Postures">Indexes of what it touches.</param>
/// <param name="Seconds">Once through, smoothly.</param>
public sealed record KeptRun(string Name, IReadOnlyList<int> Postures, Seconds Seconds);

/// <summary>What one lesson does to keep something.</summary>
/// <param name="Posture">Index of the posture that is refreshed; null for a run-through.</param>
/// <param name="Run">Index of the run that is gone through; null for a refresh.</param>
public sealed record Refresh(int Lesson, int? Posture, int? Run, Seconds Seconds, string Because);

/// <summary>A posture no lesson touches in time.</summary>
/// <param name="Posture">Index of the posture.</param>
/// <param name="Lesson">The first lesson after it was due that touches it; null where none does.</param>
public sealed record NotKept(int Posture, DateOnly Due, int? Lesson);

/// <summary>How a cohort keeps what it can do.</summary>
/// <param name="Cost">See <see cref="PlanCost.FadedDay"/>.</param>
/// <param name="Exact">Nothing keeps as much at less cost, given what else the lessons hold.</param>
public sealed record KeptPlan(IReadOnlyList<Refresh> Refreshes, IReadOnlyList<NotKept> NotKept, long Cost, bool Exact)
{
    public static readonly KeptPlan Nothing = new([], [], 0, true);

    public IEnumerable<Refresh> In(int lesson) => Refreshes.Where(refresh => refresh.Lesson == lesson);
}
