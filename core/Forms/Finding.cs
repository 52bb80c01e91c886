using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>What a check looks at (domain.md 4.1).</summary>
public enum Rule
{
    FacingSum,
    BodyFacing,
    LeadingFoot,
    WeightCarriedOver,
    StanceCarriedOver,
    FeetCarriedOver,
    EndShape,
    LoadedFootMoves,
    WeightedPivot,
    NarrowStance,
    KneeTwist,
    FootPath,
    SolesOverlap,
    CrossesUnsaid,
    BowLoad,
    EmptyLoad,
    RearToes,
    ToeTouch,
    HomeComing,
    StepsUnwritten,
    SegmentEntry,
    SegmentClose,
    HandBeyondReach,
    ThroughBody,
    ElbowNobodyHas,
    WristBent,
    ElbowAboveShoulder,
    HandsAfterWeight,
    HandsCarriedOver,
    NothingMoves,
    InBreaths,
    CheckpointMissed,
}

public enum Severity
{
    Note,
    Caution,
    Error,
    Impossible,
}

/// <summary>One disagreement inside a form, both sides of it in the message, and what would settle it.</summary>
/// <param name="Count">The count it concerns, from 1; 0 is the way in; null the whole position.</param>
/// <param name="AcceptedBecause">The school's reason when it keeps this as its way.</param>
public sealed record Finding(
    Rule Rule,
    Severity Severity,
    Guid PositionId,
    int? Count,
    Foot? Foot,
    string Message,
    IReadOnlyList<Mend> Mends,
    string? AcceptedBecause = null
);

/// <summary>An obvious way to settle a finding: a change of the position it was found at.</summary>
public sealed record Mend(
    string Label,
    int? Turn = null,
    Facing? Facing = null,
    Side? Side = null,
    string? WayIn = null,
    string? WayInBody = null
);

/// <summary>A finding the school keeps as its way, with its reason (domain.md 4.1).</summary>
public sealed record Accepted(Rule Rule, Guid PositionId, int? Count, string Reason);
