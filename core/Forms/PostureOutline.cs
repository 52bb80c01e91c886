using System.Text.Json.Serialization;
using Zeitplan.Core.Forms.Checks;

namespace Zeitplan.Core.Forms;

/// <summary>
/// What planning and coverage need of a posture: a small part of its text, kept beside it so that a table of many
/// postures need not read them whole. Computed from the text whenever that changes.
/// </summary>
/// <param name="Counts">How many counts it has.</param>
/// <param name="Needs">What should be held before it: what it names, and what it is built from.</param>
/// <param name="IsKnown">Whether it is known what it asks for standing, because it is notated.</param>
/// <param name="Revision">By which way of computing outlines it came about.</param>
/// <param name="IsDrill">An exercise and no part of a form; it does not count as a new posture.</param>
public sealed record PostureOutline(
    string Name,
    Side WrittenSide,
    SideNamedBy NamedBy,
    int Difficulty,
    int Counts,
    IReadOnlyList<Demand> Demands,
    IReadOnlyList<VersionOutline> Versions,
    IReadOnlyList<Guid> Needs,
    bool IsDrill = false,
    bool IsKnown = false,
    int Revision = 0
)
{
    /// <summary>Grows when outlines are computed differently, so that those kept before are computed anew.</summary>
    public const int Latest = 2;

    /// <summary>How the school has changed how it is done.</summary>
    public IReadOnlyList<StandardChange> Changes { get; init; } = [];

    /// <summary>What the school's forms ask for on the way into it.</summary>
    [JsonIgnore]
    public IReadOnlyList<WayInAsks> WaysIn { get; init; } = [];

    /// <param name="counts">With what a posture it is built from lends them.</param>
    public static PostureOutline Of(PostureText text, IReadOnlyList<Count> counts)
    {
        var asked = DerivedDemands.Of(text, counts, Mode.Standing)!;
        return new(
            text.Name,
            text.WrittenSide,
            text.NamedBy,
            text.Difficulty,
            counts.Count,
            asked.Demands,
            [
                .. text.Versions.Select(version =>
                {
                    var of = DerivedDemands.Of(text, counts, version.Mode)!;
                    return new VersionOutline(
                        version.Mode,
                        of.Demands,
                        version.Replaces,
                        version.Counts.Count,
                        of.IsKnown,
                        version.Rail
                    );
                }),
            ],
            [.. text.Needs, .. text.BuiltFrom is { } built ? [built.PostureId] : Array.Empty<Guid>()],
            text.Kind == PostureKind.Drill,
            asked.IsKnown,
            Latest
        )
        {
            Changes = text.Changes,
        };
    }

    /// <summary>
    /// What should be held before it by somebody taught in <paramref name="mode"/>. Drills prepare steps: whoever does
    /// not step is asked only for those there is a version of.
    /// </summary>
    public IEnumerable<Guid> NeedsIn(Mode mode, IReadOnlyDictionary<Guid, PostureOutline> postures) =>
        Needs.Where(need =>
            postures.TryGetValue(need, out var needed)
            && (mode.Feet != FeetUse.Still || !needed.IsDrill || needed.In(mode) is not null)
        );

    /// <inheritdoc cref="Posture.HasSide"/>
    public bool HasSide(Side side) => (WrittenSide == Side.Symmetric) == (side == Side.Symmetric);

    public string NameOn(Side side) => side.Name(Name);

    /// <summary>The side on which it is needed for something done on <paramref name="side"/>.</summary>
    public Side SideFor(Side side) =>
        WrittenSide == Side.Symmetric ? Side.Symmetric
        : side == Side.Symmetric ? WrittenSide
        : side;

    /// <summary>The version taught in a mode of this name; null while none is written. Standing is the posture
    /// itself.</summary>
    public VersionOutline? In(Mode mode) =>
        mode.Adapted == 0
            ? new(Mode.Standing, Demands, "", Counts, IsKnown)
            : Versions.FirstOrDefault(version => version.Mode.Adapted == mode.Adapted);

    /// <summary>What a version asks for, with the way into it: the feet come the same way, only shorter, and who sits comes
    /// no way at all.</summary>
    public IReadOnlyList<Demand> AskedIn(VersionOutline version, Side side) =>
        [.. version.Demands.Union(OnTheWay(version.Mode, side))];

    /// <summary>What a version that is still to be written in a mode could not do without.</summary>
    public IReadOnlyList<Demand> AskedUnwritten(Mode mode, Side side) =>
        [.. Demands.Except(mode.TakesAway).Union(OnTheWay(mode, side))];

    private IEnumerable<Demand> OnTheWay(Mode mode, Side side) =>
        mode.Support == Support.Seat
            ? []
            : WaysIn.Where(way => way.Side == side).SelectMany(way => way.Demands).Except(mode.TakesAway);
}

/// <summary>What one adapted version asks for, and what it does instead.</summary>
/// <param name="IsKnown">Whether it is known what it asks for, because it is notated: until then nobody with limits is given
/// it (domain.md 4.1).</param>
/// <param name="Rail">On which side of the body its rail is, for the side the posture is written on.</param>
public sealed record VersionOutline(
    Mode Mode,
    IReadOnlyList<Demand> Demands,
    string Replaces,
    int Counts,
    bool IsKnown = false,
    Side? Rail = null
);
