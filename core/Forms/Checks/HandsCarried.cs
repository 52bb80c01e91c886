using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>The hands of each posture begin where those of the one before ended, through every link of a form (domain.md
/// 4.1, "The body"). What is said of the way in comes between.</summary>
internal static class HandsCarried
{
    private const double Tolerance = 0.25;

    public static IEnumerable<Finding> Check(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        Conventions ways
    )
    {
        Dictionary<(Guid, Side), BodyWalk?> walks = [];
        BodyWalk? Walk(Position position)
        {
            var key = (position.PostureId, position.Side);
            if (!walks.TryGetValue(key, out var walk))
            {
                var posture = postures[position.PostureId];
                walks[key] = walk =
                    posture.Text.Start.Length > 0 && posture.Counts.Any(count => count.Body.Length > 0)
                        ? PostureBody.Of(posture, position.Side, Mode.Standing, ways, Physique.Standard)
                        : null;
            }

            return walk;
        }

        foreach (var (before, position) in positions.Zip(positions.Skip(1)))
        {
            if (
                Walk(before) is { } left
                && Walk(position) is { } next
                && Compare(
                    left,
                    next,
                    position,
                    postures[before.PostureId].NameOn(before.Side),
                    postures[position.PostureId]
                )
                    is { } finding
            )
            {
                yield return finding;
            }
        }
    }

    private static Finding? Compare(BodyWalk before, BodyWalk next, Position position, string from, Posture posture)
    {
        var ended = before.StateAfter(before.Count);
        var reached = ended.After(BodyNotation.Parse(position.WayInBody).Actions);
        return Between(reached, next) is not { } gap
            ? null
            : new(
                Rule.HandsCarriedOver,
                Severity.Error,
                position.Id,
                1,
                null,
                $"{from} leaves the {gap.Has}; {posture.NameOn(position.Side)} starts with it {gap.Wants}, {gap.Apart} cm away.",
                [WayIn(Lead(ended, next.StateAfter(0)))]
            );
    }

    private static Mend WayIn(IReadOnlyList<BodyAction> lead) =>
        new($"Write the way in: {BodyWords.Say(lead)}", WayInBody: BodyNotation.Print(lead));

    /// <summary>A hand that is elsewhere than where it is to begin.</summary>
    /// <param name="Has">"left hand at chest height …".</param>
    /// <param name="Wants">Where it begins, as it goes on after "with it".</param>
    /// <param name="Apart">Centimetres.</param>
    /// <param name="Lead">What has to be said so that hands, trunk and gaze come there.</param>
    public readonly record struct Gap(string Has, string Wants, int Apart, IReadOnlyList<BodyAction> Lead);

    /// <summary>How far the hands are from where what comes next begins; null where they are there.</summary>
    public static Gap? Between(BodyState reached, BodyWalk next)
    {
        var wanted = next.StateAfter(0);
        var (has, wants) = (next.Palms(0, reached), next.Palms(0, wanted));
        var (left, right) = (
            IsPlaced(next, Hand.Left) ? 0 : (has.Left - wants.Left).Length,
            IsPlaced(next, Hand.Right) ? 0 : (has.Right - wants.Right).Length
        );
        if (Math.Max(left, right) <= Tolerance)
        {
            return null;
        }

        var hand = left > right ? Hand.Left : Hand.Right;
        return new(Say(reached, hand), Place(wanted, hand), ArmRules.Cm(Math.Max(left, right)), Lead(reached, wanted));
    }

    /// <summary>A hand that the first count puts somewhere may come from anywhere, as a foot may that it sets down anew.</summary>
    private static bool IsPlaced(BodyWalk walk, Hand hand) =>
        walk.Count > 0 && walk.ActionsOf(1).OfType<BodyAction.Arm>().Any(arm => arm.Hand == hand && !arm.Place.IsEmpty);

    private static string Say(BodyState state, Hand hand) => $"{ArmRules.Name(hand)} hand {Place(state, hand)}";

    private static string Place(BodyState state, Hand hand) =>
        BodyWords.Say([new BodyAction.Arm(hand, state[hand].Place)]) is var said
        && said.IndexOf("hand ", StringComparison.Ordinal) is >= 0 and var at
            ? said[(at + "hand ".Length)..]
            : said;

    /// <summary>What has to be said so that hands, trunk and gaze come from one state to another.</summary>
    public static IReadOnlyList<BodyAction> Lead(BodyState from, BodyState to)
    {
        List<BodyAction> actions = [];
        foreach (var hand in new[] { Hand.Left, Hand.Right })
        {
            var (has, wants) = (from[hand], to[hand]);
            var arm = new BodyAction.Arm(
                hand,
                has.Place == wants.Place ? default : wants.Place,
                has.Palm == wants.Palm ? null : wants.Palm,
                has.Fingers == wants.Fingers && has.Palm == wants.Palm ? null : wants.Fingers,
                has.Shape == wants.Shape ? null : wants.Shape,
                wants.Elbow == Elbow.Down ? null : wants.Elbow,
                wants.Holds == has.Holds ? null : wants.Holds
            );
            if (arm != new BodyAction.Arm(hand))
            {
                actions.Add(arm);
            }
        }

        return actions;
    }
}
