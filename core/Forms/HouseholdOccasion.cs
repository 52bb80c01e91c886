namespace Zeitplan.Core.Forms;

/// <summary>A moment of the day into which practice can be worked (domain.md 4.5), and what to do then.</summary>
/// <param name="Id">Names it in what was handed out.</param>
/// <param name="When">As a sheet says it: "While the kettle boils".</param>
/// <param name="Asks">What it asks of a body, in the words of limits.</param>
/// <param name="For">Whom it suits: whoever stands freely, whoever holds on, whoever sits.</param>
public sealed record HouseholdOccasion(
    string Id,
    string When,
    string How,
    Training Trains,
    IReadOnlyList<Demand> Asks,
    IReadOnlyList<HouseholdOccasion.Posed> For
)
{
    public enum Posed
    {
        Free,
        Holding,
        Sitting,
    }

    private static readonly Posed[] Standing = [Posed.Free, Posed.Holding];

    /// <summary>More are not read through.</summary>
    private const int Most = 60;

    /// <summary>Until a school sets its own.</summary>
    public static IReadOnlyList<HouseholdOccasion> Shipped { get; } =
    [
        new(
            "sweeping",
            "While sweeping the floor",
            "Stand with one foot ahead. The weight goes to the front foot as the broom goes out and to the back foot as it comes home; the trunk stays upright and the arms only follow.",
            Training.ShiftingWeight,
            [],
            [Posed.Free]
        ),
        new(
            "kettle",
            "While the kettle boils",
            "A hand on the worktop, feet a shoulder apart. Let one leg empty until its heel is light, then the other, slower than you want to.",
            Training.ShiftingWeight,
            [],
            Standing
        ),
        new(
            "tea",
            "While the tea cools",
            "Sit tall, away from the back of the chair. Let the weight go over to one side of the seat, wait a breath, and come back; then to the other.",
            Training.ShiftingWeight,
            [],
            [Posed.Sitting]
        ),
        new(
            "corridor",
            "On the way down the corridor",
            "Five steps along the wall: the heel comes down empty, and only then the weight follows.",
            Training.Stepping,
            [],
            Standing
        ),
        new(
            "stairs",
            "On the stairs",
            "A hand on the rail. The whole sole on the step, the weight over it, and only then the other foot leaves.",
            Training.Stepping,
            [Demand.OneLegBalance, Demand.DeepBend],
            Standing
        ),
        new(
            "teeth",
            "While brushing your teeth",
            "A hand on the basin. Let one heel float until only the toes rest, for five breaths; then the other.",
            Training.EmptyingAFoot,
            [],
            Standing
        ),
        new(
            "socks",
            "Before putting on socks",
            "Hold the back of a firm chair. Empty one leg, let its foot leave the floor for a breath, and put it down as softly as it went.",
            Training.EmptyingAFoot,
            [Demand.OneLegBalance],
            [Posed.Free]
        ),
        new(
            "dishes",
            "While putting the dishes away",
            "Take a plate with both hands and let the navel carry it to the shelf; the feet turn along, the shoulders do nothing.",
            Training.TurningTheWaist,
            [Demand.BothHandsFree],
            [Posed.Free]
        ),
        new(
            "door",
            "Whenever somebody speaks from the side",
            "Turn to them from the navel, then the chest, and the head last.",
            Training.TurningTheWaist,
            [Demand.TrunkTwist, Demand.HeadTurning],
            [Posed.Free, Posed.Sitting]
        ),
        new(
            "washing",
            "While hanging out the washing",
            "Before each piece let the shoulders drop; the hand goes up as if something lifted the wrist.",
            Training.CarryingTheArms,
            [Demand.ArmsAtShoulderHeight, Demand.OverheadReach, Demand.BothHandsFree],
            [Posed.Free]
        ),
        new(
            "table",
            "While wiping the table",
            "A flat palm, a heavy elbow, slow circles: the shoulder stays where it is.",
            Training.CarryingTheArms,
            [],
            [Posed.Free, Posed.Holding, Posed.Sitting]
        ),
        new(
            "queue",
            "While waiting in a queue",
            "Feel both soles whole on the ground, let the knees go a little and the crown float; three breaths as they come.",
            Training.StandingStill,
            [],
            Standing
        ),
        new(
            "news",
            "Before the news begins",
            "Sit tall, both soles on the floor if they reach it, hands on the thighs; three breaths as they come.",
            Training.StandingStill,
            [],
            [Posed.Sitting]
        ),
    ];

    internal static IEnumerable<Problem> Check(IReadOnlyList<HouseholdOccasion> occasions, string path) =>
        [
            .. occasions.SelectMany((occasion, at) => occasion.Check($"{path}[{at}]")),
            .. occasions
                .Index()
                .Where(occasion => occasions.Take(occasion.Index).Any(before => before.Id == occasion.Item.Id))
                .Select(occasion => new Problem(
                    $"{path}[{occasion.Index}].id",
                    "Another moment is named by this already."
                )),
            .. occasions.Count > Most
                ? [new Problem(path, $"A school has {Most} moments of the day at most.")]
                : Array.Empty<Problem>(),
        ];

    private IEnumerable<Problem> Check(string path) =>
        [
            .. Problem.WithName(Id, $"{path}.id"),
            .. Problem.WithName(When, $"{path}.when"),
            .. Problem.WithText(How, $"{path}.how", Problem.LongestText, "word of what is done then"),
            .. For.Count == 0 ? [new Problem($"{path}.for", "Say whom it suits.")] : Array.Empty<Problem>(),
        ];
}
