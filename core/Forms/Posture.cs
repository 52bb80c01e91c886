using Zeitplan.Core.People;

namespace Zeitplan.Core.Forms;

/// <summary>A named movement of the art: its counts, its one key point, its known faults. Written down for one side; the other is its mirror.</summary>
public sealed class Posture
{
    private Posture()
    {
    }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";

    /// <summary>The side the counts are written for; <see cref="Side.Symmetric"/> when there is no other.</summary>
    public Side WrittenSide { get; private set; }
    public SideNamedBy NamedBy { get; private set; }

    /// <summary>1 (easy) to 3 (hard); see <see cref="Terms.Effort"/>.</summary>
    public int Difficulty { get; private set; }

    /// <summary>The one requirement that is kept when everything else gives way.</summary>
    public string KeyPoint { get; private set; } = "";
    public IReadOnlyList<Count> Counts { get; private set; } = [];
    public IReadOnlyList<Fault> Faults { get; private set; } = [];
    public IReadOnlyList<Demand> Demands { get; private set; } = [];

    /// <summary>What to mind so that nobody is hurt (domain.md 6).</summary>
    public IReadOnlyList<string> Cautions { get; private set; } = [];
    public IReadOnlyList<AdaptedVersion> Versions { get; private set; } = [];

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static Posture Create(Guid id, PostureText text)
    {
        var posture = new Posture { Id = id };
        posture.Rewrite(text);
        return posture;
    }

    public void Rewrite(PostureText text) =>
        (Name, WrittenSide, NamedBy, Difficulty, KeyPoint, Counts, Faults, Demands, Cautions, Versions) =
        (text.Name.Trim(), text.WrittenSide, text.NamedBy, text.Difficulty, text.KeyPoint.Trim(), text.Counts, text.Faults, text.Demands, text.Cautions, text.Versions);

    public void Rename(string name) => Name = name.Trim();

    /// <summary>The counts taught to somebody in <paramref name="mode"/>, or null while no version has been written for it (domain.md 4.6).</summary>
    public IReadOnlyList<Count>? CountsFor(Mode mode) =>
        mode == Mode.Standing ? Counts : Versions.FirstOrDefault(version => version.Mode == mode)?.Counts;

    public IReadOnlyList<string> CautionsFor(Mode mode) =>
        mode == Mode.Standing ? Cautions : Versions.FirstOrDefault(version => version.Mode == mode)?.Cautions ?? Cautions;

    /// <summary>A text of this posture as it reads when the posture is done on <paramref name="side"/>.</summary>
    public string On(Side side, string text) =>
        WrittenSide != Side.Symmetric && side == Mirror.Of(WrittenSide) ? Mirror.Of(text) : text;

    /// <summary>Whether the posture can be done on <paramref name="side"/>: a symmetric one has no side, the others have two.</summary>
    public bool HasSide(Side side) => (WrittenSide == Side.Symmetric) == (side == Side.Symmetric);

    public string NameOn(Side side) => side switch
    {
        Side.Left => $"{Name}, left",
        Side.Right => $"{Name}, right",
        _ => Name,
    };
}

/// <summary>Everything a head writes about a posture, before it has been checked.</summary>
public sealed record PostureText(
    string Name,
    Side WrittenSide,
    SideNamedBy NamedBy,
    int Difficulty,
    string KeyPoint,
    IReadOnlyList<Count> Counts,
    IReadOnlyList<Fault> Faults,
    IReadOnlyList<Demand> Demands,
    IReadOnlyList<string> Cautions,
    IReadOnlyList<AdaptedVersion> Versions)
{
    public IEnumerable<Problem> Check()
    {
        IEnumerable<Problem> problems =
        [
            .. Problem.WithName(Name, "name"),
            .. Problem.WithText(KeyPoint, "keyPoint", Problem.LongestText, "key point"),
            .. Counts.SelectMany((count, at) => Problem.WithName(count.Cue, $"counts[{at}].cue")),
            .. Faults.SelectMany((fault, at) => Problem.WithText(fault.Seen, $"faults[{at}].seen", Problem.LongestText, "description of what is seen")),
            .. Versions.SelectMany((version, at) => version.Counts.SelectMany((count, of) => Problem.WithName(count.Cue, $"versions[{at}].counts[{of}].cue"))),
        ];
        return problems
            .Concat(Difficulty is < 1 or > 3 ? [new("difficulty", "Difficulty is 1, 2 or 3.")] : [])
            .Concat(Counts.Count == 0 ? [new("counts", "Write at least one count.")] : [])
            .Concat(Versions.GroupBy(version => version.Mode).Any(same => same.Count() > 1) ? [new("versions", "Each mode has one version.")] : []);
    }
}

/// <summary>One numbered step: the few words called, and up to five layers. Empty text means the layer does nothing worth saying here.</summary>
public sealed record Count(string Cue, string Feet = "", string Waist = "", string Hands = "", string Gaze = "", string Breath = "");

/// <summary>How much a correction weighs (domain.md 4.5): a key point blocks a pass, a shape is to mend, finesse comes later.</summary>
public enum Weight
{
    Finesse,
    Shape,
    KeyPoint,
}

/// <summary>A known way of going wrong: how it is seen, a possible cause and its mend.</summary>
public sealed record Fault(Guid Id, string Seen, Weight Weight, string Cause, string Mend);

/// <summary>The posture for another mode: its own counts and cautions, and what replaces the steps. The key point stays.</summary>
public sealed record AdaptedVersion(Mode Mode, IReadOnlyList<Count> Counts, IReadOnlyList<string> Cautions, string Replaces);
