using System.Diagnostics.CodeAnalysis;

namespace Zeitplan.Core.Forms.Body;

/// <summary>One of two hands, and of whatever else the body has two.</summary>
public enum Hand
{
    Left,
    Right,
}

/// <summary>The heights at which a hand can be, from below (domain.md 2, "hand place"). All but the knee rise and sink
/// with the body.</summary>
public enum Height
{
    Knee,
    Thigh,
    Hip,
    Navel,
    Chest,
    Shoulder,
    Chin,
    Ear,
    Brow,
    Crown,
}

/// <summary>How far to the side, seen from the chest: beyond the centre line, on it, before the own shoulder, outside
/// it, or as wide as an arm reaches.</summary>
public enum Line
{
    Across,
    Centre,
    Own,
    Outside,
    Wide,
}

/// <summary>How far ahead of the shoulders.</summary>
[SuppressMessage("Naming", "CA1720", Justification = "The words of the field (domain.md 2, \"hand place\").")]
public enum Reach
{
    /// <summary>Behind the line of the shoulders.</summary>
    Rear,

    /// <summary>In their line, beside the body.</summary>
    Side,
    Near,
    Bent,
    Long,
}

/// <summary>Against what of the body a hand is placed: the other arm's hand, wrist, forearm or elbow, or an ear, a hip
/// or a knee.</summary>
public enum Landmark
{
    Hand,
    Wrist,
    Forearm,
    Elbow,
    Ear,
    Hip,
    Knee,
}

public enum Relation
{
    On,
    Over,
    Under,
    Before,
    Behind,
    Beside,
}

/// <summary>Which way something of a hand faces, seen from the chest: in is towards the centre line.</summary>
public enum Way
{
    Up,
    Down,
    Front,
    Back,
    In,
    Out,
}

public enum HandShape
{
    Loose,
    Palm,
    Fist,
    Hook,
}

/// <summary>What a hand has hold of.</summary>
public enum Holding
{
    Nothing,
    Rail,
    Chair,
    Frame,
}

/// <summary>How an elbow hangs; down unless something else is said.</summary>
public enum Elbow
{
    Down,
    Out,
    Up,
}

/// <summary>Against a landmark instead of at a height.</summary>
/// <param name="Other">The ear, hip or knee of the other side.</param>
public readonly record struct Against(Relation Relation, Landmark Landmark, bool Other = false);

/// <summary>Which way a palm or the fingers face: one way, or the corner between two.</summary>
public readonly record struct Aim(Way First, Way? Second = null)
{
    /// <summary>The two ways of a corner are no opposites and no repeats.</summary>
    public bool IsCorner => Second is { } second && (int)second / 2 != (int)First / 2;

    /// <summary>Fingers cannot point the way the palm faces, nor away from it.</summary>
    public bool SharesLineWith(Aim other) =>
        Second is null && other.Second is null && (int)First / 2 == (int)other.First / 2;
}

/// <summary>A place for a hand: a height with line and reach, or against a landmark. What is null stays as it
/// was.</summary>
public readonly record struct HandPlace(
    Height? Height = null,
    Line? Line = null,
    Reach? Reach = null,
    Against? Against = null
)
{
    public bool IsEmpty => Height is null && Line is null && Reach is null && Against is null;
}
