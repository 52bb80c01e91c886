using Zeitplan.Core.Forms;

namespace Zeitplan.Core;

/// <summary>The school itself: its name, the time zone its lessons happen in, and what it does differently from
/// others.</summary>
public sealed class School
{
    private School() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";

    /// <summary>An IANA name, such as <c>Europe/Berlin</c>.</summary>
    public string TimeZone { get; private set; } = "UTC";

    /// <summary>Whether this installation shows the made-up demo school.</summary>
    public bool IsDemo { get; private set; }
    public Conventions Conventions { get; private set; } = Conventions.Default;

    public Teaching Teaching { get; private set; } = Teaching.Default;

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public void Adopt(Conventions conventions) => Conventions = conventions;

    public void Adopt(Teaching teaching) => Teaching = teaching;

    public static School Create(Guid id, string name, string timeZone, bool isDemo = false) =>
        new()
        {
            Id = id,
            Name = name.Trim(),
            TimeZone = timeZone,
            IsDemo = isDemo,
        };
}
