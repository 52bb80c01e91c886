using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.People;

/// <summary>A room lessons happen in.</summary>
public sealed class Hall
{
    private Hall() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public decimal Width { get; private set; }
    public decimal Depth { get; private set; }

    /// <summary>Firm chairs without wheels.</summary>
    public int Chairs { get; private set; }

    /// <summary>Metres of rail to hold on to.</summary>
    public decimal Rail { get; private set; }

    /// <summary>Along which wall it runs, seen from somebody who faces the front.</summary>
    public Wall RailWall { get; private set; }

    /// <summary>Whether one wall is a mirror: everybody sees themselves, and the teacher the class behind.</summary>
    public bool Mirror { get; private set; }

    /// <summary>When it can be used; whenever anybody likes when there are none.</summary>
    public IReadOnlyList<OpenHours> Hours { get; private set; } = [];

    /// <summary>How many people the local code allows in it; null while nobody has written it down.</summary>
    public int? Allowed { get; private set; }

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Hall Create(Guid id, HallText text)
    {
        var hall = new Hall { Id = id };
        hall.Rewrite(text);
        return hall;
    }

    public void Rewrite(HallText text) =>
        (Name, Width, Depth, Chairs, Rail, RailWall, Mirror, Hours, Allowed) = (
            text.Name.Trim(),
            text.Width,
            text.Depth,
            text.Chairs,
            text.Rail,
            text.RailWall,
            text.Mirror,
            text.Hours,
            text.Allowed
        );

    public bool IsOpen(DayOfWeek day, TimeOnly from, TimeOnly to) =>
        Hours.Count == 0 || Hours.Any(hours => hours.Weekday == day && hours.From <= from && hours.To >= to);
}

/// <summary>A stretch of a weekday in which a hall can be used.</summary>
public sealed record OpenHours(DayOfWeek Weekday, TimeOnly From, TimeOnly To);

/// <summary>Everything a head writes about a hall, before it has been checked. Width runs along the front wall, depth
/// away from it; both in metres.</summary>
public sealed record HallText(
    string Name,
    decimal Width,
    decimal Depth,
    int Chairs,
    decimal Rail,
    IReadOnlyList<OpenHours> Hours,
    int? Allowed,
    bool Mirror = false,
    Wall RailWall = Wall.Back
)
{
    public IEnumerable<Problem> Check(IEnumerable<Hall> others) =>
        [
            .. Problem.WithName(Name, "name"),
            .. others.Any(other => other.Name.Equals(Name.Trim(), StringComparison.OrdinalIgnoreCase))
                ? [new Problem("name", $"The school has a hall {Name.Trim()} already.")]
                : Array.Empty<Problem>(),
            .. Width is < 2 or > 100
                ? [new Problem("width", "A hall is between 2 and 100 m wide.")]
                : Array.Empty<Problem>(),
            .. Depth is < 2 or > 100
                ? [new Problem("depth", "A hall is between 2 and 100 m deep.")]
                : Array.Empty<Problem>(),
            .. Chairs is < 0 or > 1000
                ? [new Problem("chairs", "Count the chairs: 0 to 1000.")]
                : Array.Empty<Problem>(),
            .. Rail is < 0 or > 400 ? [new Problem("rail", "Metres of rail: 0 to 400.")] : Array.Empty<Problem>(),
            .. Allowed is < 1
                ? [new Problem("allowed", "At least one person is allowed in a hall.")]
                : Array.Empty<Problem>(),
            .. Hours
                .Index()
                .Where(hours => hours.Item.To <= hours.Item.From)
                .Select(hours => new Problem($"hours[{hours.Index}].to", "It closes before it opens.")),
        ];
}
