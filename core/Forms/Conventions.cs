using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>Four ways to print one angle (domain.md 4.1, "Notation").</summary>
public enum FacingNotation
{
    Clock,
    Compass,
    Hall,
    Degrees,
}

/// <summary>Where the teacher stands while showing, and which side they then do.</summary>
public enum Demonstration
{
    BackToClass,
    FacingMirrored,
    FacingUnmirrored,
}

/// <summary>What counts as one repeat of a repeated posture (domain.md 4.1, "Counting").</summary>
public enum RepeatCount
{
    Each,
    Once,
    EachStep,
    EachPair,
}

/// <summary>How a form is numbered.</summary>
public sealed record NumberingSwitches(
    bool CompoundAsOne = true,
    RepeatCount Repeats = RepeatCount.Each,
    bool EndsCounted = true
);

public enum CountingLayers
{
    FeetFirst,
    HandsFirst,
}

/// <summary>
/// What schools do differently (domain.md 5), with the shipped defaults. Loads are per cent, angles degrees, lengths
/// foot-lengths.
/// </summary>
public sealed record Conventions
{
    public static Conventions Default { get; } = new();

    public FacingNotation Facing { get; init; } = FacingNotation.Clock;

    /// <summary>The compass point the form's zero is called when directions are compass points: 0 north, 90
    /// east.</summary>
    public int ZeroIsCompass { get; init; }
    public Demonstration Demonstration { get; init; } = Demonstration.BackToClass;
    public bool ToeTouchAllowed { get; init; } = true;
    public bool WeightedPivots { get; init; }
    public PivotOn PivotOn { get; init; } = PivotOn.Heel;
    public NumberingSwitches Numbering { get; init; } = new();
    public bool BothSides { get; init; }
    public CountingLayers Layers { get; init; } = CountingLayers.FeetFirst;
    public int CountsPerBreath { get; init; } = 2;

    /// <summary>What the leading foot of a bow carries. The shipped 70 leaves the squared hips' rear knee with no more
    /// than it can bear.</summary>
    public int BowLoad { get; init; } = 70;
    public int EmptyLoad { get; init; } = 10;
    public int RearToes { get; init; } = 45;
    public bool RisesAndSinks { get; init; }
    public bool TrunkInclined { get; init; }
    public bool ClosesTogether { get; init; }
    public bool KneeOverToes { get; init; }

    /// <summary>The hands settle after the weight has arrived; otherwise they arrive with it.</summary>
    public bool HandsSettleAfter { get; init; }
    public int NewPostures { get; init; } = 2;
    public bool KeyPointDecides { get; init; }

    /// <summary>The length of a foot in metres (domain.md 4.1, "Floor").</summary>
    public decimal FootMetres { get; init; } = 0.26m;

    /// <summary>What cannot be kept.</summary>
    public IEnumerable<Problem> Check() =>
        [
            .. Within(BowLoad, 60, 70, "bowLoad", "The leading foot of a bow carries 60 to 70 %."),
            .. Within(EmptyLoad, 0, 30, "emptyLoad", "The light foot of an empty stance carries 0 to 30 %."),
            .. Within(RearToes, 45, 60, "rearToes", "The rear toes of a bow turn out 45 to 60°."),
            .. Within(CountsPerBreath, 1, 4, "countsPerBreath", "A breath lasts one to four counts."),
            .. Within(NewPostures, 1, 5, "newPostures", "A lesson brings one to five new postures."),
            .. Within(ZeroIsCompass, 0, 359, "zeroIsCompass", "A compass direction is between 0 and 359 degrees."),
            .. FootMetres is < 0.2m or > 0.34m
                ? [new Problem("footMetres", "A foot is 0.20 to 0.34 m long.")]
                : Array.Empty<Problem>(),
        ];

    private static IEnumerable<Problem> Within(int value, int least, int most, string field, string message) =>
        value < least || value > most ? [new(field, message)] : [];

    /// <summary>A direction as this school says it.</summary>
    public string Say(Facing facing) =>
        Facing switch
        {
            FacingNotation.Compass => CompassPoints[(facing.Turn(ZeroIsCompass + 22).Degrees / 45) % 8],
            FacingNotation.Hall => HallPlaces[facing.Turn(22).Degrees / 45 % 8],
            FacingNotation.Degrees => $"{facing.Degrees}°",
            _ => facing.Clock(),
        };

    private static readonly string[] CompassPoints =
    [
        "north",
        "north-east",
        "east",
        "south-east",
        "south",
        "south-west",
        "west",
        "north-west",
    ];
    private static readonly string[] HallPlaces =
    [
        "front",
        "front-right corner",
        "right wall",
        "back-right corner",
        "back wall",
        "back-left corner",
        "left wall",
        "front-left corner",
    ];
}
