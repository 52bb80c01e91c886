using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>A named movement of the art or a drill. Written down for one side; the other is its mirror.</summary>
public sealed class Posture
{
    private Posture() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";

    /// <summary>All that is written about it.</summary>
    public PostureText Text { get; private set; } = new();

    /// <summary>The counts, with what a posture it is built from lends them. Equal to <see cref="PostureText.Counts"/>
    /// when it is built from none.</summary>
    public IReadOnlyList<Count> Counts { get; private set; } = [];

    /// <summary>The part of the text that tables of many postures need.</summary>
    public PostureOutline Outline { get; private set; } = PostureOutline.Of(new(), []);

    /// <summary>No longer in the catalogue, and still in what was recorded, planned and decided with it.</summary>
    public bool Retired { get; private set; }

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    /// <summary>The side the counts are written for; <see cref="Side.Symmetric"/> when there is no other.</summary>
    public Side WrittenSide => Text.WrittenSide;
    public SideNamedBy NamedBy => Text.NamedBy;
    public int Difficulty => Text.Difficulty;
    public string KeyPoint => Text.KeyPoint;
    public IReadOnlyList<Fault> Faults => Text.Faults;
    public IReadOnlyList<Demand> Demands => Outline.Demands;
    public IReadOnlyList<string> Cautions => Text.Cautions;
    public IReadOnlyList<AdaptedVersion> Versions => Text.Versions;

    /// <param name="basis">The posture it is built from, when it is.</param>
    public static Posture Create(Guid id, PostureText text, Posture? basis = null)
    {
        var posture = new Posture { Id = id };
        posture.Rewrite(text, basis);
        return posture;
    }

    public void Rewrite(PostureText text, Posture? basis = null)
    {
        Text = text with { Name = text.Name.Trim(), KeyPoint = text.KeyPoint.Trim() };
        Name = Text.Name;
        Rebuild(basis);
    }

    /// <summary>Takes over what changed in the posture this one is built from.</summary>
    public void Rebuild(Posture? basis)
    {
        Counts = BuiltFrom.Resolve(Text, basis);
        OutlineAnew();
    }

    /// <summary>Works the outline out again, by how it is done now.</summary>
    public void OutlineAnew() => Outline = PostureOutline.Of(Text, Counts);

    public void Retire() => Retired = true;

    /// <summary>Back in the catalogue.</summary>
    public void TakeUpAgain() => Retired = false;

    public void Rename(string name)
    {
        Name = name.Trim();
        Text = Text with { Name = Name };
        Outline = Outline with { Name = Name };
    }

    /// <summary>Adds a fault it is known for from now on, as it reads on a side. Its causes can be written later.</summary>
    public void KnowFault(Side side, Fault fault) => Text = Text with { Faults = [.. Faults, On(side, fault)] };

    /// <summary>The counts taught to somebody in <paramref name="mode"/>, or null while no version has been written for
    /// it (domain.md 4.6).</summary>
    public IReadOnlyList<Count>? CountsFor(Mode mode) =>
        mode == Mode.Standing ? Counts : Versions.FirstOrDefault(version => version.Mode == mode)?.Counts;

    /// <summary>The number of the count that small pictures show in <paramref name="mode"/>, from 1; null when they show
    /// how it ends.</summary>
    public int? PicturedIn(Mode mode) =>
        CountsFor(mode)
            ?.Index()
            .Where(count => count.Item.Pictured)
            .Select(count => (int?)(count.Index + 1))
            .FirstOrDefault();

    public IReadOnlyList<string> CautionsFor(Mode mode) =>
        mode == Mode.Standing
            ? Cautions
            : Versions.FirstOrDefault(version => version.Mode == mode)?.Cautions ?? Cautions;

    /// <summary>The feet of every count on <paramref name="side"/>.</summary>
    public IReadOnlyList<IReadOnlyList<StepAction>> StepsOn(Side side) =>
        [.. Counts.Select(count => StepsOn(side, count.Feet))];

    /// <summary>Hands, trunk and gaze of every count on <paramref name="side"/>.</summary>
    public IReadOnlyList<IReadOnlyList<BodyAction>> BodiesOn(Side side) =>
        [.. Counts.Select(count => BodyOn(side, count.Body))];

    /// <summary>A line of step notation on <paramref name="side"/>.</summary>
    /// <remarks>Read once: a check of a form asks for them again at every position.</remarks>
    public IReadOnlyList<StepAction> StepsOn(Side side, string feet) =>
        ReadOnce(
            ref stepsRead,
            side,
            feet,
            text => StepNotation.Parse(text).Actions,
            actions => [.. actions.Select(step => step.Mirror())]
        );

    /// <summary>A line of body notation on <paramref name="side"/>; read once, too.</summary>
    public IReadOnlyList<BodyAction> BodyOn(Side side, string body) =>
        ReadOnce(ref bodiesRead, side, body, text => BodyNotation.Parse(text).Actions, BodyNotation.Mirror);

    private IReadOnlyList<T> ReadOnce<T>(
        ref Dictionary<(bool, string), IReadOnlyList<T>> known,
        Side side,
        string text,
        Func<string, IReadOnlyList<T>> parse,
        Func<IReadOnlyList<T>, IReadOnlyList<T>> mirror
    )
    {
        var isMirrored = IsMirrored(side);
        if (!known.TryGetValue((isMirrored, text), out var actions))
        {
            actions = isMirrored ? mirror(parse(text)) : parse(text);

            // Several look at one posture at once: what is known is never changed, only replaced by more.
            known = new(known) { [(isMirrored, text)] = actions };
        }

        return actions;
    }

    // What was read belongs to its line: whatever is written anew is read anew.
    private Dictionary<(bool, string), IReadOnlyList<StepAction>> stepsRead = [];
    private Dictionary<(bool, string), IReadOnlyList<BodyAction>> bodiesRead = [];

    /// <summary>A text of this posture as it reads when the posture is done on <paramref name="side"/>.</summary>
    public string On(Side side, string text) => IsMirrored(side) ? Mirror.Of(text) : text;

    /// <summary>A count as it reads on <paramref name="side"/>, its feet in mirrored notation.</summary>
    public Count On(Side side, Count count) => IsMirrored(side) ? count.Mirror() : count;

    /// <summary>A fault as it reads on <paramref name="side"/>.</summary>
    public Fault On(Side side, Fault fault) => IsMirrored(side) ? fault.Mirror() : fault;

    /// <summary>The whole text as it reads on <paramref name="side"/>, with the counts that another posture lends
    /// it.</summary>
    public PostureText Reads(Side side)
    {
        var text = Text with { Counts = Counts };
        return IsMirrored(side) ? text.Mirror() : text;
    }

    private bool IsMirrored(Side side) => WrittenSide != Side.Symmetric && side == Mirror.Of(WrittenSide);

    /// <summary>Whether the posture can be done on <paramref name="side"/>: a symmetric one has no side, the others
    /// have two.</summary>
    public bool HasSide(Side side) => (WrittenSide == Side.Symmetric) == (side == Side.Symmetric);

    public string NameOn(Side side) => side.Name(Name);
}

/// <summary>One numbered step: the few words called, and up to five layers. Empty text means the layer does nothing
/// worth saying here.</summary>
/// <param name="Feet">Step notation (docs/step-notation.md).</param>
/// <param name="Shape">The shape of the hands: palm, fist, hook.</param>
/// <param name="OnlyIf">The condition under which the count is done at all: "if unsteady".</param>
/// <param name="As">The count of the posture it is built from that lends it every layer it leaves empty; 0 for
/// none.</param>
/// <param name="Body">Body notation (docs/body-notation.md): what hands, trunk and gaze are like when the count ends.
/// Waist, hands, gaze and shape are remarks beside it.</param>
/// <param name="Pictured">Small pictures show the posture as this count ends: for what comes back from the shape it is
/// known by, as a kick does. Where no count says so they show it as it ends.</param>
public sealed record Count(
    string Cue,
    string Feet = "",
    string Waist = "",
    string Hands = "",
    string Gaze = "",
    string Breath = "",
    string Shape = "",
    string OnlyIf = "",
    int As = 0,
    string Body = "",
    bool Pictured = false
)
{
    public Count Mirror() =>
        this with
        {
            Cue = Forms.Mirror.Of(Cue),
            Feet = StepNotation.Mirror(Feet),
            Waist = Forms.Mirror.Of(Waist),
            Hands = Forms.Mirror.Of(Hands),
            Gaze = Forms.Mirror.Of(Gaze),
            Shape = Forms.Mirror.Of(Shape),
            OnlyIf = Forms.Mirror.Of(OnlyIf),
            Body = BodyNotation.Mirror(Body),
        };
}

/// <summary>How much a correction weighs (domain.md 4.5): a key point blocks a pass, a shape is to mend, finesse comes
/// later.</summary>
public enum Weight
{
    Finesse,
    Shape,
    KeyPoint,
}

/// <summary>A known way of going wrong: how it is seen, its possible causes with the mend of each, and other ways to
/// teach it.</summary>
public sealed record Fault(Guid Id, string Seen, Weight Weight, IReadOnlyList<Cause> Causes)
{
    public IReadOnlyList<string> OtherWays { get; init; } = [];

    /// <summary>The principle it breaks, so that one habit is known again in every posture; null where it is of this posture
    /// alone.</summary>
    public Guid? PrincipleId { get; init; }

    /// <summary>What cannot be kept in a list of faults.</summary>
    public static IEnumerable<Problem> Check(IReadOnlyList<Fault> faults, string path) =>
        [
            .. faults.SelectMany(
                (fault, at) =>
                    Problem.WithText(
                        fault.Seen,
                        $"{path}[{at}].seen",
                        Problem.LongestText,
                        "description of what is seen"
                    )
            ),
            .. faults.Select(fault => fault.Id).Distinct().Count() == faults.Count
                ? Array.Empty<Problem>()
                : [new(path, "Two faults have the same identifier.")],
        ];

    public Fault Mirror() =>
        this with
        {
            Seen = Forms.Mirror.Of(Seen),
            Causes = [.. Causes.Select(cause => new Cause(Forms.Mirror.Of(cause.Why), Forms.Mirror.Of(cause.Mend)))],
            OtherWays = [.. OtherWays.Select(Forms.Mirror.Of)],
        };
}

/// <summary>Why a fault may happen, and how it is mended then.</summary>
public sealed record Cause(string Why, string Mend);

/// <summary>
/// The posture for another mode: its own counts, cautions and demands, what it keeps, what replaces the steps, and how
/// it grows. The key point stays (domain.md 4.6).
/// </summary>
public sealed record AdaptedVersion(
    Mode Mode,
    IReadOnlyList<Count> Counts,
    IReadOnlyList<string> Cautions,
    string Replaces
)
{
    public string Keeps { get; init; } = "";

    /// <summary>What it asks for beyond what follows from its notation, and what it does not ask for all the same.</summary>
    public IReadOnlyList<Demand> Demands { get; init; } = [];
    public IReadOnlyList<NotAsked> NotAsked { get; init; } = [];

    /// <summary>From weight to turning to arms to, perhaps, a step.</summary>
    public IReadOnlyList<string> Progression { get; init; } = [];

    /// <summary>Step notation into the stand before its first count, where that is not the posture's own: feet closer
    /// together, or side by side.</summary>
    public string Entry { get; init; } = "";

    /// <summary>Body notation of how hands, trunk and gaze are before the first count.</summary>
    public string Start { get; init; } = "";

    /// <summary>On which side of the body the rail is, symmetric where it is before it; null where nothing is held or
    /// nobody has said.</summary>
    public Side? Rail { get; init; }

    /// <summary>Step notation into its first stand, given that of the posture itself.</summary>
    public string EntryFrom(string standing) => Entry.Length > 0 ? Entry : standing;

    /// <summary>Of somebody who sits: whether the feet carry, or the seat alone, so that it can be done on the footplates of a
    /// wheelchair.</summary>
    public bool FeetCarry() =>
        Mode.Support == Support.Seat
        && Counts.Any(count => StepNotation.Parse(count.Feet).Actions.Any(step => step is not StepAction.WeighSeat));

    public AdaptedVersion Mirror() =>
        this with
        {
            Counts = [.. Counts.Select(count => count.Mirror())],
            Cautions = [.. Cautions.Select(Forms.Mirror.Of)],
            Replaces = Forms.Mirror.Of(Replaces),
            Keeps = Forms.Mirror.Of(Keeps),
            Progression = [.. Progression.Select(Forms.Mirror.Of)],
            Entry = StepNotation.Mirror(Entry),
            Start = BodyNotation.Mirror(Start),
            Rail = Rail is { } rail ? Forms.Mirror.Of(rail) : null,
        };
}
