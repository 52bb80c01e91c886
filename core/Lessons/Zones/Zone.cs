using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Lessons.Zones;

/// <summary>The hall a lesson is held in; metres. Left and right are those of somebody who faces the front.</summary>
public sealed record HallFloor(double Width, double Depth, double Rail, Wall RailWall, int Chairs);

/// <summary>What a group does for a while, as the floor sees it.</summary>
/// <param name="GroupId">A cohort; nobody's where everybody moves together.</param>
/// <param name="Support">Who holds on is at the rail's wall, who sits on chairs.</param>
/// <param name="Parts">What it would do, and after that shorter and shorter parts of it, where it has no room for all; at
/// least one.</param>
public sealed record FloorAsk(Guid GroupId, string Name, int People, Support Support, IReadOnlyList<FloorPart> Parts)
{
    /// <summary>How many of them need a chair: all where the group sits, and whoever sits in a group that stands.</summary>
    public int Sitting { get; init; } = Support == Support.Seat ? People : 0;

    /// <summary>How many of them need the rail.</summary>
    public int Holding { get; init; } = Support is Support.Hold or Support.Touch ? People : 0;
}

/// <summary>A part of what a group does.</summary>
/// <param name="What">From its first to its last; nothing where it goes without saying.</param>
/// <param name="Reach">The floor one of them needs on the way through it (<see cref="FloorNeed.Reach"/>), from where
/// they begin.</param>
public sealed record FloorPart(string What, Area Reach);

/// <summary>Who needs the floor from one minute to another.</summary>
public sealed record FloorTime(int Start, int End, IReadOnlyList<FloorAsk> Asks);

/// <summary>A rectangle of the hall that is a group's for a while; metres from the left wall and from the front
/// wall.</summary>
/// <param name="Shorter">The part it does, because all of it has no room; null where it does all.</param>
/// <param name="Abreast">How many stand side by side.</param>
/// <param name="Waves">How often the group takes turns, because not all of it has room at once.</param>
/// <param name="Turned">Where the form's zero points, degrees clockwise from the front.</param>
/// <param name="StartLeft">How far from its left edge the first of them begins.</param>
/// <param name="StartFront">How far from its front edge.</param>
public sealed record Zone(
    Guid GroupId,
    double Left,
    double Front,
    double Width,
    double Depth,
    int Abreast,
    int Rows,
    int Waves,
    int Turned,
    double StartLeft,
    double StartFront,
    string? Shorter = null
)
{
    public double Right => Left + Width;
    public double Back => Front + Depth;

    public bool Overlaps(Zone other) =>
        Left < other.Right && other.Left < Right && Front < other.Back && other.Front < Back;
}

/// <summary>Who works where from one minute to another.</summary>
/// <param name="Moved">The groups that have to go elsewhere when it begins.</param>
/// <param name="Says">What does not hold and what would, and what runs short.</param>
public sealed record FloorStretch(
    int Start,
    int End,
    IReadOnlyList<Zone> Zones,
    IReadOnlyList<Guid> Moved,
    IReadOnlyList<string> Says
);
