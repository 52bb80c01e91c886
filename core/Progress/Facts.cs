using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>Whether somebody was in a lesson. A later fact about the same student and lesson replaces an earlier one;
/// neither is deleted.</summary>
public sealed record Attendance(
    Guid Id,
    Guid ClassId,
    DateOnly Date,
    Guid StudentId,
    bool Present,
    Guid By,
    DateTimeOffset At
) : IFact<Attendance>
{
    /// <inheritdoc/>
    public bool SaysTheSame(Attendance other) => this with { By = other.By, At = other.At } == other;
}

/// <summary>How a posture was met in a lesson.</summary>
public enum TaughtHow
{
    Introduced,
    Reviewed,
    RunThrough,
}

/// <summary>One posture, drill or link a cohort was taught.</summary>
public sealed record TaughtItem(Guid CohortId, Guid PostureId, Side Side, TaughtHow How)
{
    public UnitKind Kind { get; init; }

    /// <summary>With a link, the posture it leads on from.</summary>
    public PostureSide? From { get; init; }

    /// <summary>How long it took, where somebody said so.</summary>
    public decimal? Minutes { get; init; }

    public UnitKey Key => new(Kind, PostureId, Side, From?.PostureId, From?.Side);
}

/// <summary>
/// Something said about a lesson: that one posture, drill or link was taught to a cohort, or was not, and how long it
/// took. The latest about an item of a lesson counts; none is deleted. What nobody has said anything about was not
/// taught as far as the school knows.
/// </summary>
/// <param name="FromId">With a link, the posture it leads on from; with <paramref name="FromSide"/>.</param>
/// <param name="Minutes">How long it took, where somebody said so.</param>
public sealed record TaughtFact(
    Guid Id,
    Guid ClassId,
    DateOnly Date,
    Guid CohortId,
    UnitKind Kind,
    Guid PostureId,
    Side Side,
    Guid? FromId,
    Side? FromSide,
    TaughtHow How,
    bool Taught,
    decimal? Minutes,
    Guid By,
    DateTimeOffset At
) : IFact<TaughtFact>
{
    public TaughtItem Item =>
        new(CohortId, PostureId, Side, How)
        {
            Kind = Kind,
            From = FromId is { } from && FromSide is { } side ? new(from, side) : null,
            Minutes = Minutes,
        };

    /// <inheritdoc/>
    public bool SaysTheSame(TaughtFact other) => this with { By = other.By, At = other.At } == other;
}

/// <summary>What was really taught in a lesson about which something has been said.</summary>
/// <param name="Said">Everything something has been said about, taught or not.</param>
/// <param name="Taught">What was taught.</param>
public sealed record LessonRecord(
    Guid ClassId,
    DateOnly Date,
    IReadOnlyList<TaughtFact> Said,
    IReadOnlyList<TaughtItem> Taught
);

/// <summary>What an observation says.</summary>
public enum Sign
{
    /// <summary>What the student can do now: follows, alone or flowing.</summary>
    Stage,

    /// <summary>A fault seen: opens a correction, or adds to it.</summary>
    Fault,

    /// <summary>A fault seen better than before.</summary>
    Better,

    /// <summary>A fault seen and not called: the level still accepts it, or the lesson was about something else. It opens
    /// nothing.</summary>
    Noted,

    /// <summary>Watched and fine: clean of the faults open on this posture.</summary>
    Fine,
}

/// <summary>A dated fact: who saw whom do what. Never edited, only added or withdrawn.</summary>
/// <param name="Stage">With <see cref="Sign.Stage"/> only.</param>
/// <param name="FaultId">A known fault of the posture, or null with own <paramref name="Words"/>.</param>
/// <param name="Words">What was seen, as it read on the day.</param>
public sealed record Observation(
    Guid Id,
    Guid ClassId,
    DateOnly Date,
    Guid StudentId,
    Guid PostureId,
    Side Side,
    Sign Sign,
    Stage? Stage,
    Guid? FaultId,
    string Words,
    Weight? Weight,
    Guid By,
    DateTimeOffset At
) : IFact<Observation>
{
    /// <summary>With a link, the posture it leads on from; otherwise it is about the posture itself.</summary>
    public Guid? FromId { get; init; }
    public Side? FromSide { get; init; }

    /// <summary>The mode in which it was done that day; null for as they usually take part.</summary>
    public Mode? Mode { get; init; }

    /// <summary>The principle it is about, where it is about one; the posture is then where it was seen.</summary>
    public Guid? PrincipleId { get; init; }

    /// <summary>Whether it was seen inside a run-through, and not by itself. What flows always was.</summary>
    public bool InRunThrough { get; init; }

    /// <summary>What was watched: a posture, or a link.</summary>
    public UnitKey Key => KeyOf(PostureId, Side, FromId, FromSide);

    /// <summary>What makes two fault observations one correction: the same principle, the same known fault, or the same own
    /// words.</summary>
    public string CorrectionKey => Correction.KeyOf(FaultId, Words, PrincipleId);

    /// <summary>What an observation is about, from its columns.</summary>
    public static UnitKey KeyOf(Guid postureId, Side side, Guid? fromId, Side? fromSide) =>
        new(fromId is null ? UnitKind.Posture : UnitKind.Link, postureId, side, fromId, fromSide);

    /// <inheritdoc/>
    public bool SaysTheSame(Observation other) => this with { By = other.By, At = other.At } == other;

    public IEnumerable<Problem> Check(string path)
    {
        if (Sign == Sign.Stage && Stage is not (Forms.Stage.Follows or Forms.Stage.Alone or Forms.Stage.Flowing))
        {
            yield return new(
                $"{path}.stage",
                "Only follows, alone and flowing are observed; the other stages are computed."
            );
        }

        if (PrincipleId is not null && (Sign == Sign.Stage || FaultId is not null))
        {
            yield return new(
                $"{path}.principleId",
                "A principle is kept or broken, and is one correction: it has no stage and no faults of its own."
            );
        }

        if (FromId is null != FromSide is null)
        {
            yield return new($"{path}.from", "A link leads on from a posture on a side.");
        }

        if (Sign is Sign.Fault or Sign.Better or Sign.Noted)
        {
            foreach (
                var problem in Problem.WithText(
                    Words,
                    $"{path}.words",
                    Problem.LongestText,
                    "description of what is seen"
                )
            )
            {
                yield return problem;
            }

            if (Sign == Sign.Fault && Weight is null)
            {
                yield return new($"{path}.weight", "Say how much it weighs: key point, shape or finesse.");
            }
        }
    }
}

/// <summary>An observation taken back, by whom and when. The observation itself stays.</summary>
public sealed record Withdrawal(Guid Id, Guid ObservationId, Guid By, DateTimeOffset At);
