namespace Zeitplan.Core.Forms;

/// <summary>A posture on one side: what a student knows or does not.</summary>
public readonly record struct PostureSide(Guid PostureId, Side Side);

/// <summary>What kind of thing is introduced in one go.</summary>
public enum UnitKind
{
    /// <summary>A posture on a side the cohort has not met, with the link into it.</summary>
    Posture,

    /// <summary>An exercise a later posture needs.</summary>
    Drill,

    /// <summary>The way from one known posture to another.</summary>
    Link,

    /// <summary>A known posture taken up again, with the layers its level expects.</summary>
    Layer,
}

/// <summary>Names a unit whatever plan it is in.</summary>
/// <param name="FromPostureId">With a link, the posture it leads on from.</param>
public readonly record struct UnitKey(
    UnitKind Kind,
    Guid PostureId,
    Side Side,
    Guid? FromPostureId = null,
    Side? FromSide = null
)
{
    /// <summary>What somebody is watched in: whatever of a posture is taught, it is the posture that is seen.</summary>
    public UnitKey AsWatched() => Kind == UnitKind.Link ? this : new(UnitKind.Posture, PostureId, Side);

    /// <summary>As people call it: "Push, left", or "Push → Single Whip, left".</summary>
    /// <param name="nameOf">What a posture is called on a side.</param>
    public string NameWith(Func<PostureSide, string> nameOf)
    {
        var name = nameOf(new(PostureId, Side));
        return From() is { } from ? $"{nameOf(from)} → {name}" : name;
    }

    /// <summary>Of a link, the posture it leads on from.</summary>
    public PostureSide? From() => FromPostureId is { } from && FromSide is { } side ? new(from, side) : null;
}
