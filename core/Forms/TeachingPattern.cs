namespace Zeitplan.Core.Forms;

/// <summary>Seconds a count takes, by what is said (domain.md 4.2).</summary>
public static class Pace
{
    public const int Smooth = 4;
    public const int CuesOnly = 6;
    public const int Explained = 12;
    public const int FaultsShown = 16;

    public static int Of(Said said) =>
        said switch
        {
            Said.Nothing => Smooth,
            Said.Cues => CuesOnly,
            Said.Faults => FaultsShown,
            _ => Explained,
        };
}

/// <summary>Who moves in a pass.</summary>
public enum Mover
{
    Teacher,
    All,
    Students,
    Pairs,
}

/// <summary>What is said in a pass, and so its pace.</summary>
public enum Said
{
    Nothing,
    Cues,
    Explained,
    Faults,
    Questions,
}

/// <summary>How the teacher is seen in a pass.</summary>
public enum PassView
{
    AsUsual,
    FromBehind,
    FromTheFront,
    FromTheSide,
}

/// <summary>One pass through the counts: who moves, how it is seen and what is said, how often, and so how
/// long.</summary>
/// <param name="Name">As on the sheet: show, together, watch.</param>
/// <param name="SecondsPerCount">See <see cref="Pace"/>; a school may go slower or faster.</param>
public sealed record Pass(string Name, int Repetitions, int SecondsPerCount)
{
    public Mover Who { get; init; } = Mover.All;
    public PassView View { get; init; }
    public Said Said { get; init; } = Said.Cues;

    /// <summary>The layers it is about; all of them when empty.</summary>
    public IReadOnlyList<Layer> Layers { get; init; } = [];

    /// <summary>So long whatever the counts, in place of repetitions.</summary>
    public decimal? Minutes { get; init; }

    /// <param name="counts">Of what is brought in.</param>
    public decimal Seconds(int counts) =>
        Minutes is { } minutes ? minutes * 60 : Repetitions * counts * SecondsPerCount;

    public bool Equals(Pass? other) =>
        other is not null
        && (Name, Repetitions, SecondsPerCount, Who, View, Said, Minutes)
            == (other.Name, other.Repetitions, other.SecondsPerCount, other.Who, other.View, other.Said, other.Minutes)
        && Layers.SequenceEqual(other.Layers);

    public override int GetHashCode() => HashCode.Combine(Name, Repetitions, SecondsPerCount);

    internal IEnumerable<Problem> Check(string path)
    {
        foreach (var problem in Problem.WithName(Name, $"{path}.name"))
        {
            yield return problem;
        }

        if (Minutes is null && Repetitions is < 1 or > 50)
        {
            yield return new($"{path}.repetitions", "A pass is done 1 to 50 times.");
        }

        if (SecondsPerCount is < 1 or > 60)
        {
            yield return new($"{path}.secondsPerCount", "A count takes 1 to 60 seconds.");
        }

        if (Minutes is <= 0 or > 60)
        {
            yield return new($"{path}.minutes", "A pass lasts up to 60 minutes.");
        }
    }
}

/// <summary>How something is brought in (domain.md 4.2).</summary>
public sealed record TeachingPattern(Guid Id, string Name, IReadOnlyList<Pass> Passes)
{
    public static readonly TeachingPattern ShowTogetherWatch = new(
        new("0199c000-0000-7c01-8000-000000000001"),
        "Show, then together, then watch",
        [Teacher("show", 2, Said.Explained), new("together", 3, Pace.CuesOnly), Students("watch", 2)]
    );

    public static readonly TeachingPattern WeightFirst = new(
        new("0199c000-0000-7c01-8000-000000000002"),
        "Weight first, then turning, then arms",
        [
            new("weight", 1, Pace.Explained) { Said = Said.Explained, Layers = [Layer.Feet] },
            new("turning", 1, Pace.CuesOnly) { Layers = [Layer.Waist] },
            new("arms", 2, Pace.CuesOnly) { Layers = [Layer.Hands] },
            new("together", 2, Pace.CuesOnly),
            Students("watch", 2),
        ]
    );

    public static readonly TeachingPattern LayerByLayer = new(
        new("0199c000-0000-7c01-8000-000000000003"),
        "Layer by layer, then joined",
        [
            new("feet", 2, Pace.CuesOnly) { Layers = [Layer.Feet] },
            new("waist", 2, Pace.CuesOnly) { Layers = [Layer.Waist] },
            new("hands", 2, Pace.CuesOnly) { Layers = [Layer.Hands] },
            new("joined", 2, Pace.CuesOnly),
            Students("watch", 2),
        ]
    );

    public static readonly TeachingPattern CountsFaultsFlow = new(
        new("0199c000-0000-7c01-8000-000000000004"),
        "Slowly by counts, its usual faults, then flowing",
        [
            new("by counts", 2, Pace.Explained) { Said = Said.Explained },
            Teacher("faults", 1, Said.Faults),
            new("flowing", 4, Pace.Smooth) { Said = Said.Nothing },
        ]
    );

    public static readonly TeachingPattern TwoViews = new(
        new("0199c000-0000-7c01-8000-000000000005"),
        "The same thing from two views",
        [
            Teacher("from behind", 1, Said.Explained) with
            {
                View = PassView.FromBehind,
            },
            Teacher("from the side", 1, Said.Explained) with
            {
                View = PassView.FromTheSide,
            },
            new("together", 3, Pace.CuesOnly),
            new("in pairs", 1, Pace.CuesOnly) { Who = Mover.Pairs, Said = Said.Questions },
        ]
    );

    public static IReadOnlyList<TeachingPattern> Shipped { get; } =
    [ShowTogetherWatch, WeightFirst, LayerByLayer, CountsFaultsFlow, TwoViews];

    /// <param name="counts">Of what is brought in.</param>
    public decimal Seconds(int counts) => Passes.Sum(pass => pass.Seconds(counts));

    private static Pass Teacher(string name, int repetitions, Said said) =>
        new(name, repetitions, Pace.Of(said)) { Who = Mover.Teacher, Said = said };

    private static Pass Students(string name, int repetitions) =>
        new(name, repetitions, Pace.Smooth) { Who = Mover.Students, Said = Said.Nothing };

    internal IEnumerable<Problem> Check(string path) =>
        [
            .. Problem.WithName(Name, $"{path}.name"),
            .. Passes.Count is 0 or > 20
                ? [new Problem($"{path}.passes", "A pattern has 1 to 20 passes.")]
                : Array.Empty<Problem>(),
            .. Passes.SelectMany((pass, at) => pass.Check($"{path}.passes[{at}]")),
        ];
}

/// <summary>How a school teaches: its patterns, which of them whom, and how often it sits together and talks.</summary>
/// <param name="Standing">The pattern for whoever stands freely.</param>
/// <param name="Supported">The pattern for whoever holds on or sits.</param>
/// <param name="TalkEvery">A talk in every so manyth lesson; 0 for none (domain.md 4.3, "Talks").</param>
public sealed record Teaching(
    IReadOnlyList<TeachingPattern> Patterns,
    Guid Standing,
    Guid Supported,
    int TalkEvery,
    int TalkMinutes
)
{
    /// <summary>The pattern for what many share and is taught again: one that shows the fault.</summary>
    public Guid Again { get; init; } = TeachingPattern.CountsFaultsFlow.Id;

    /// <summary>How long a cohort works without its teacher.</summary>
    public TeachersEyes Eyes { get; init; } = TeachersEyes.Default;

    /// <summary>What every lesson begins with, in this order.</summary>
    public IReadOnlyList<WarmUpPiece> WarmUp { get; init; } = Forms.WarmUp.Shipped;

    /// <summary>Moments of the day that sheets for home offer.</summary>
    public IReadOnlyList<HouseholdOccasion> Occasions { get; init; } = HouseholdOccasion.Shipped;

    public static Teaching Default { get; } =
        new(TeachingPattern.Shipped, TeachingPattern.ShowTogetherWatch.Id, TeachingPattern.WeightFirst.Id, 0, 10);

    public TeachingPattern For(Mode mode) =>
        Patterns.First(pattern => pattern.Id == (mode.Support == Support.None ? Standing : Supported));

    /// <summary>How what many share is taught again to whoever takes part so; a school that has no pattern for it teaches it
    /// as it brings it in.</summary>
    public TeachingPattern AgainFor(Mode mode) => Patterns.FirstOrDefault(pattern => pattern.Id == Again) ?? For(mode);

    /// <summary>Seconds the whole class sits together in a lesson.</summary>
    /// <param name="number">Of the lesson, from 1.</param>
    public int TalkSeconds(int number) => TalkEvery > 0 && number % TalkEvery == 0 ? TalkMinutes * 60 : 0;

    public IEnumerable<Problem> Check() =>
        [
            .. Patterns.SelectMany((pattern, at) => pattern.Check($"patterns[{at}]")),
            .. Patterns
                .Index()
                .Where(pattern =>
                    Patterns
                        .Take(pattern.Index)
                        .Any(before =>
                            before.Id == pattern.Item.Id
                            || before.Name.Trim().Equals(pattern.Item.Name.Trim(), StringComparison.OrdinalIgnoreCase)
                        )
                )
                .Select(pattern => new Problem(
                    $"patterns[{pattern.Index}].name",
                    "Another pattern is called that already."
                )),
            .. Patterns.All(pattern => pattern.Id != Standing)
                ? [new Problem("standing", "Choose one of the patterns.")]
                : Array.Empty<Problem>(),
            .. Patterns.All(pattern => pattern.Id != Supported)
                ? [new Problem("supported", "Choose one of the patterns.")]
                : Array.Empty<Problem>(),
            .. TalkEvery is < 0 or > 52
                ? [new Problem("talkEvery", "A talk every 1 to 52 lessons, or 0 for none.")]
                : Array.Empty<Problem>(),
            .. TalkMinutes is < 1 or > 60
                ? [new Problem("talkMinutes", "A talk lasts 1 to 60 minutes.")]
                : Array.Empty<Problem>(),
            .. Eyes.Check("eyes"),
            .. Forms.WarmUp.Check(WarmUp, "warmUp"),
            .. HouseholdOccasion.Check(Occasions, "occasions"),
        ];
}
