using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Demo;

/// <summary>Where the demo school is being written, on which day, and what everything in it is called.</summary>
internal sealed class DemoScene(SchoolContext db)
{
    public SchoolContext Db { get; } = db;
    public WalkingTime Time { get; } = new();
    public SchoolClock Clock => new(Db, Time);
    public Actor Head => As("Noor Adeyemi");
    public Guid Evening { get; } = Guid.CreateVersion7();
    public Guid Morning { get; } = Guid.CreateVersion7();
    public Dictionary<string, Guid> Sashes { get; } = [];
    public Dictionary<string, Guid> Halls { get; } = [];
    public Dictionary<string, Guid> Staff { get; } = [];
    public Dictionary<string, StaffRole> Roles { get; } = [];
    public Dictionary<string, Guid> Cohorts { get; } = [];
    public Dictionary<string, Guid> Students { get; } = [];
    public Dictionary<string, Guid> Postures { get; } = [];

    /// <summary>Who does or sees something, by name.</summary>
    public Actor As(string name) => new(Staff[name], Roles[name]);

    /// <summary>The form everybody works on, and its positions in order.</summary>
    public Guid FormId { get; set; }
    public List<Guid> Positions { get; } = [];
}

/// <summary>A clock that is set from day to day while the demo's past is written: eight in the evening, the registers
/// just filled in.</summary>
internal sealed class WalkingTime() : SchoolTime(null)
{
    private DateTimeOffset now = DateTimeOffset.UnixEpoch;

    public void GoTo(DateOnly day, int hour = 20) => now = new(day, new(hour, 0), TimeSpan.Zero);

    // Facts made one after the other are told apart by their time.
    public override DateTimeOffset GetUtcNow() => now = now.AddMilliseconds(1);
}
