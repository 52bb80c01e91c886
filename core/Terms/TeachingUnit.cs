using System.Text.Json.Serialization;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms;

/// <summary>What is introduced in one go (domain.md 4.3).</summary>
/// <param name="Counts">Counts of the posture in the cohort's mode.</param>
/// <param name="IntroduceSeconds">Posture and links.</param>
/// <param name="Effort">The sum as a head would check it.</param>
public sealed record TeachingUnit(
    Guid PostureId,
    Side Side,
    string Name,
    int Difficulty,
    int Counts,
    Seconds IntroduceSeconds,
    Seconds ReviewSeconds,
    Seconds RunThroughSeconds,
    string Effort
)
{
    public UnitKind Kind { get; init; }

    /// <summary>With a link, the posture it leads on from.</summary>
    public PostureSide? From { get; init; }

    /// <summary>The later posture this one is taught for, where no segment holds it.</summary>
    public string? NeededBy { get; init; }

    /// <summary>The target of its segment.</summary>
    public DateOnly? Target { get; init; }

    [JsonIgnore]
    public PostureSide Of => new(PostureId, Side);

    /// <summary>The same thing, in whatever plan.</summary>
    [JsonIgnore]
    public UnitKey Key => new(Kind, PostureId, Side, From?.PostureId, From?.Side);

    /// <summary>A link is short and every cohort's own; all else can be led to several cohorts at once.</summary>
    [JsonIgnore]
    public bool CanBeShared => Kind != UnitKind.Link;
}

/// <summary>A posture of an assigned segment that cannot be planned, and why.</summary>
public sealed record Unteachable(Guid PostureId, Side Side, string Name, string Because);
