using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>The school itself: its name, the time zone its lessons happen in, and what it does differently from others.</summary>
public sealed class School
{
    private School()
    {
    }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";

    /// <summary>An IANA name, such as <c>Europe/Berlin</c>.</summary>
    public string TimeZone { get; private set; } = "UTC";

    /// <summary>Whether this installation shows the made-up demo school.</summary>
    public bool IsDemo { get; private set; }
    public Conventions Conventions { get; private set; } = Conventions.Default;

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public void Adopt(Conventions conventions) => Conventions = conventions;

    public static School Create(Guid id, string name, string timeZone, bool isDemo = false) =>
        new() { Id = id, Name = name.Trim(), TimeZone = timeZone, IsDemo = isDemo };
}

/// <summary>One level of the ladder, lowest <see cref="Order"/> first.</summary>
public sealed class SashLevel
{
    private SashLevel()
    {
    }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public int Order { get; private set; }

    /// <summary>As <c>#RRGGBB</c>.</summary>
    public string Colour { get; private set; } = "";

    /// <summary>Whether the level is divided into a newer and a senior half.</summary>
    public bool HasHalves { get; private set; }

    public static SashLevel Create(Guid id, string name, int order, string colour, bool hasHalves) =>
        new() { Id = id, Name = name.Trim(), Order = order, Colour = colour, HasHalves = hasHalves };
}

public enum Half
{
    None,
    Newer,
    Senior,
}

/// <summary>A room lessons happen in. Width runs along the front wall, depth away from it; both in metres.</summary>
public sealed class Hall
{
    private Hall()
    {
    }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public decimal Width { get; private set; }
    public decimal Depth { get; private set; }

    /// <summary>Firm chairs without wheels.</summary>
    public int Chairs { get; private set; }

    /// <summary>Metres of rail to hold on to.</summary>
    public decimal Rail { get; private set; }

    public static Hall Create(Guid id, string name, decimal width, decimal depth, int chairs, decimal rail) =>
        new() { Id = id, Name = name.Trim(), Width = width, Depth = depth, Chairs = chairs, Rail = rail };

    public static IEnumerable<Problem> Check(string name, decimal width, decimal depth, int chairs, decimal rail) =>
    [
        .. Problem.WithName(name, "name"),
        .. width is < 2 or > 100 ? [new Problem("width", "A hall is between 2 and 100 m wide.")] : Array.Empty<Problem>(),
        .. depth is < 2 or > 100 ? [new Problem("depth", "A hall is between 2 and 100 m deep.")] : Array.Empty<Problem>(),
        .. chairs is < 0 or > 1000 ? [new Problem("chairs", "Count the chairs: 0 to 1000.")] : Array.Empty<Problem>(),
        .. rail is < 0 or > 400 ? [new Problem("rail", "Metres of rail: 0 to 400.")] : Array.Empty<Problem>(),
    ];
}

/// <summary>What somebody may do in Zeitplan.</summary>
public enum StaffRole
{
    Assistant,
    Instructor,
    Head,
}

/// <summary>A person who teaches: the head, an instructor, an assistant.</summary>
public sealed class StaffMember
{
    private StaffMember()
    {
    }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public StaffRole Role { get; private set; }

    public static StaffMember Create(Guid id, string name, StaffRole role) => new() { Id = id, Name = name.Trim(), Role = role };
}
