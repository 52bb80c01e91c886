using System.Text.Json.Serialization;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;

namespace Zeitplan.Core.Progress;

/// <summary>Whether somebody was in a lesson. A later fact about the same student and lesson replaces an earlier one; neither is deleted.</summary>
public sealed record Attendance(Guid Id, Guid ClassId, DateOnly Date, Guid StudentId, bool Present, Guid By, DateTimeOffset At);

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

    [JsonIgnore]
    public UnitKey Key => new(Kind, PostureId, Side, From?.PostureId, From?.Side);
}

/// <summary>What was really taught in a lesson. The latest record of a lesson counts; none is deleted.</summary>
public sealed class LessonRecord
{
    private LessonRecord()
    {
    }

    public Guid Id { get; private set; }
    public Guid ClassId { get; private set; }
    public DateOnly Date { get; private set; }
    public IReadOnlyList<TaughtItem> Taught { get; private set; } = [];
    public Guid By { get; private set; }
    public DateTimeOffset At { get; private set; }

    public static LessonRecord Create(Guid id, Guid classId, DateOnly date, IReadOnlyList<TaughtItem> taught, Guid by, DateTimeOffset at) =>
        new() { Id = id, ClassId = classId, Date = date, Taught = taught, By = by, At = at };
}

/// <summary>What an observation says.</summary>
public enum Sign
{
    /// <summary>What the student can do now: follows, alone or flowing.</summary>
    Stage,

    /// <summary>A fault seen: opens a correction, or adds to it.</summary>
    Fault,

    /// <summary>A fault seen better than before.</summary>
    Better,

    /// <summary>Watched and fine: clean of the faults open on this posture.</summary>
    Fine,
}

/// <summary>A dated fact: who saw whom do what. Never edited, only added or withdrawn.</summary>
/// <param name="Stage">With <see cref="Sign.Stage"/> only.</param>
/// <param name="FaultId">A known fault of the posture, or null with own <paramref name="Words"/>.</param>
/// <param name="Words">What was seen, as it read on the day.</param>
public sealed record Observation(
    Guid Id, Guid ClassId, DateOnly Date, Guid StudentId, Guid PostureId, Side Side, Sign Sign, Stage? Stage, Guid? FaultId, string Words, Weight? Weight, Guid By, DateTimeOffset At)
{
    public PostureSide Of => new(PostureId, Side);

    /// <summary>What makes two fault observations one correction: the same known fault, or the same own words.</summary>
    public string CorrectionKey => FaultId?.ToString() ?? Words.Trim().ToUpperInvariant();

    public IEnumerable<Problem> Check(string path)
    {
        if (Sign == Sign.Stage && Stage is not (Progress.Stage.Follows or Progress.Stage.Alone or Progress.Stage.Flowing))
        {
            yield return new($"{path}.stage", "Only follows, alone and flowing are observed; the other stages are computed.");
        }

        if (Sign is Sign.Fault or Sign.Better)
        {
            foreach (var problem in Problem.WithText(Words, $"{path}.words", Problem.LongestText, "description of what is seen"))
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
