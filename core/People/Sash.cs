using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>One level of the ladder, lowest <see cref="Order"/> first.</summary>
public sealed class SashLevel
{
    private SashLevel() { }

    public Guid Id { get; private set; }
    public string Name { get; private set; } = "";
    public int Order { get; private set; }

    /// <summary>As <c>#RRGGBB</c>.</summary>
    public string Colour { get; private set; } = "";

    /// <summary>Whether the level is divided into a newer and a senior half.</summary>
    public bool HasHalves { get; private set; }

    /// <summary>What the level studies and what counts as good enough in it.</summary>
    public SashAsks Asks { get; private set; } = new();

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static SashLevel Create(Guid id, int order, SashText text)
    {
        var sash = new SashLevel { Id = id, Order = order };
        sash.Rewrite(text);
        return sash;
    }

    public void Rewrite(SashText text) =>
        (Name, Colour, HasHalves, Asks) = (text.Name.Trim(), text.Colour, text.HasHalves, text.Asks);

    public void MoveTo(int order) => Order = order;
}

public enum Half
{
    None,
    Newer,
    Senior,
}

/// <summary>The faults a level still accepts. A key-point fault is never accepted in general.</summary>
public enum Accepts
{
    Nothing,
    Finesse,
    Shape,
}

/// <summary>A run of a form that a level, or one half of it, studies.</summary>
/// <param name="Half"><see cref="Half.None"/> for the whole level.</param>
public sealed record Study(Guid FormId, Guid FromId, Guid ToId, Half Half = Half.None);

/// <summary>What one posture asks of a level beside or against what the level asks of all.</summary>
/// <param name="Stage">The stage its test asks for; the level's own when null.</param>
/// <param name="AcceptedFaults">Faults of this posture the level still accepts, whatever they weigh.</param>
/// <param name="Layers">The layers expected; the level's own when empty.</param>
/// <param name="BothSides">Whether both sides are asked for; the level's own answer when null.</param>
public sealed record PostureStandard(
    Guid PostureId,
    Stage? Stage,
    IReadOnlyList<Guid> AcceptedFaults,
    IReadOnlyList<Layer> Layers,
    bool? BothSides
);

/// <summary>What a level studies and what counts as good enough in it (domain.md 4.5, "Corrections" and
/// "Readiness").</summary>
public sealed record SashAsks
{
    public IReadOnlyList<Study> Studies { get; init; } = [];

    /// <summary>The stage the test asks for on every posture studied.</summary>
    public Stage Stage { get; init; } = Stage.Alone;

    public Accepts Accepts { get; init; } = Accepts.Finesse;
    public IReadOnlyList<Layer> Layers { get; init; } = [Layer.Feet, Layer.Waist, Layer.Hands];
    public bool BothSides { get; init; }

    /// <summary>Weeks at the level before the next one, at least.</summary>
    public int Weeks { get; init; }

    /// <summary>Lessons attended at the level before the next one, at least.</summary>
    public int Lessons { get; init; }
    public IReadOnlyList<PostureStandard> Postures { get; init; } = [];

    /// <summary>What counts as good enough for one posture.</summary>
    public GoodEnough For(Guid postureId, IReadOnlyList<Fault> faults)
    {
        var own = Postures.FirstOrDefault(posture => posture.PostureId == postureId);
        return new(
            own?.Stage ?? Stage,
            [
                .. faults
                    .Where(fault => Tolerates(fault.Weight) || own?.AcceptedFaults.Contains(fault.Id) == true)
                    .Select(fault => fault.Id),
            ],
            own is { Layers.Count: > 0 } ? own.Layers : Layers,
            own?.BothSides ?? BothSides
        );
    }

    /// <summary>Whether a fault of a posture keeps nobody from passing.</summary>
    /// <param name="postureId">Null for what is against a principle.</param>
    /// <param name="faultId">Null for what was seen in own words.</param>
    public bool IsAccepted(Guid? postureId, Guid? faultId, Weight weight) =>
        Tolerates(weight)
        || (
            faultId is { } fault
            && Postures.Any(own => own.PostureId == postureId && own.AcceptedFaults.Contains(fault))
        );

    /// <summary>The runs of the school's forms it studies.</summary>
    public IEnumerable<IReadOnlyList<Position>> RunsOf(
        Func<Study, bool> which,
        IReadOnlyDictionary<Guid, Form> forms
    ) =>
        from study in Studies
        where which(study) && forms.ContainsKey(study.FormId)
        let form = forms[study.FormId]
        let first = form.IndexOf(study.FromId)
        where first >= 0
        select form.Positions.Skip(first).Take(form.IndexOf(study.ToId) - first + 1).ToList();

    /// <summary>Where a position is asked for: as it stands in the form, and on its other side where both are.</summary>
    public IEnumerable<PostureSide> SidesOf(Position position) =>
        position.Side != Side.Symmetric && For(position.PostureId, []).BothSides
            ? [new(position.PostureId, position.Side), new(position.PostureId, Mirror.Of(position.Side))]
            : [new(position.PostureId, position.Side)];

    private bool Tolerates(Weight weight) =>
        weight switch
        {
            Weight.Finesse => Accepts >= Accepts.Finesse,
            Weight.Shape => Accepts == Accepts.Shape,
            _ => false,
        };
}

/// <summary>What counts as good enough for a level on one posture.</summary>
/// <param name="AcceptedFaults">Faults that do not keep anybody from passing.</param>
public sealed record GoodEnough(
    Stage Stage,
    IReadOnlyList<Guid> AcceptedFaults,
    IReadOnlyList<Layer> Layers,
    bool BothSides
)
{
    /// <summary>As it reads beside a posture while marking: "alone, one side; feet, waist, hands".</summary>
    public string Say() => $"{StageWords.Say(Stage)}, {(BothSides ? "both sides" : "one side")}; {SayLayers()}";

    public string SayLayers() => string.Join(", ", Layers.Select(layer => layer.ToString().ToLowerInvariant()));
}

/// <summary>Everything a head writes about a level, before it has been checked.</summary>
public sealed record SashText(string Name, string Colour, bool HasHalves, SashAsks Asks)
{
    /// <param name="others">The ladder's other levels.</param>
    public IEnumerable<Problem> Check(
        IEnumerable<SashLevel> others,
        IReadOnlyDictionary<Guid, Form> forms,
        IReadOnlySet<Guid> postures
    ) =>
        [
            .. Problem.WithName(Name, "name"),
            .. others.Any(other => other.Name.Equals(Name.Trim(), StringComparison.OrdinalIgnoreCase))
                ? [new Problem("name", $"The ladder has a {Name.Trim()} already.")]
                : Array.Empty<Problem>(),
            .. Problem.WithColour(Colour, "colour"),
            .. Asks.Weeks is < 0 or > 520
                ? [new Problem("asks.weeks", "Weeks at a level: 0 to 520.")]
                : Array.Empty<Problem>(),
            .. Asks.Lessons is < 0 or > 1000
                ? [new Problem("asks.lessons", "Lessons at a level: 0 to 1000.")]
                : Array.Empty<Problem>(),
            .. Asks.Layers.Count == 0
                ? [new Problem("asks.layers", "At least one layer is expected of everybody.")]
                : Array.Empty<Problem>(),
            .. Asks.Studies.SelectMany((study, at) => CheckStudy(study, $"asks.studies[{at}]", forms)),
            .. Asks
                .Postures.Index()
                .Where(own => !postures.Contains(own.Item.PostureId))
                .Select(own => new Problem($"asks.postures[{own.Index}].postureId", "The school has no such posture.")),
        ];

    private IEnumerable<Problem> CheckStudy(Study study, string path, IReadOnlyDictionary<Guid, Form> forms)
    {
        if (!forms.TryGetValue(study.FormId, out var form))
        {
            yield return new($"{path}.formId", "Choose one of the school's forms.");
            yield break;
        }

        var (from, to) = (form.IndexOf(study.FromId), form.IndexOf(study.ToId));
        if (from < 0 || to < from)
        {
            yield return new(
                $"{path}.toId",
                from < 0 || to < 0 ? $"{form.Name} has no such position." : "The segment ends before it starts."
            );
        }

        if (study.Half != Half.None && !HasHalves)
        {
            yield return new($"{path}.half", $"{Name.Trim()} has no halves.");
        }
    }
}
