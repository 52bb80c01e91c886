using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>Something a joint or a limb of somebody cannot do, or should not (domain.md 4.1, "The body").</summary>
/// <param name="By">How far it is over what is allowed, in metres or degrees: the worst of a way is said.</param>
internal readonly record struct ArmFault(Rule Rule, Severity Severity, Hand Hand, string Message, double By)
{
    /// <summary>It is as much the other arm's: it hides nothing of the one it is told of.</summary>
    public bool OfBoth { get; init; }

    /// <summary>Two of one kind are the same fault, more and less.</summary>
    public (Rule, Hand, bool) Kind => (Rule, Hand, OfBoth);
}

/// <summary>What is looked at in the arms of one moment, whether it is the end of a count or on the way to it.</summary>
internal static class ArmRules
{
    private static readonly Hand[] Hands = [Hand.Left, Hand.Right];

    private const double ElbowBehindMost = 0.22;
    private const double ElbowAcrossMost = 0.09;

    /// <summary>The words name eight directions; a hand is within this of the one that is said.</summary>
    private const double WordsAreOff = 30;
    private const double ElbowUpMost = 0.06;

    /// <summary>In the order in which they are told. It is asked for every moment of every count, and mostly finds
    /// nothing.</summary>
    public static List<ArmFault> Check(Skeleton body, BodyState state, Physique physique)
    {
        List<ArmFault> faults = [];
        foreach (var hand in Hands)
        {
            var arm = body.ArmOf(hand);
            if (arm.Missing > 0.005)
            {
                faults.Add(
                    new(
                        Rule.HandBeyondReach,
                        Severity.Error,
                        hand,
                        $"The {Name(hand)} hand would have to reach {Cm(arm.Missing)} cm farther than its arm.",
                        arm.Missing
                    )
                );
            }

            AddOfElbow(faults, body, arm, hand, state[hand].Elbow, physique);
            if (Wrist(arm, hand) is { } bent)
            {
                faults.Add(bent);
            }
        }

        ArmCollisions.AddTo(faults, body, state, physique);
        return faults;
    }

    private static void AddOfElbow(
        List<ArmFault> faults,
        Skeleton body,
        Arm arm,
        Hand hand,
        Body.Elbow said,
        Physique physique
    )
    {
        var fromShoulder = body.Trunk.InChest(arm.Elbow - arm.Shoulder);
        var behind = -fromShoulder.Ahead - physique.Of(ElbowBehindMost);
        var across =
            -(body.Trunk.InChest(arm.Elbow - body.Trunk.Neck).Right * Trunk.Sign(hand)) - physique.Of(ElbowAcrossMost);
        if (behind > 0 || across > 0)
        {
            faults.Add(
                new(
                    Rule.ElbowNobodyHas,
                    Severity.Impossible,
                    hand,
                    behind > 0
                        ? $"The {Name(hand)} elbow would be {Cm(-fromShoulder.Ahead)} cm behind the shoulder; no shoulder turns so far back."
                        : $"The {Name(hand)} elbow would be across the middle of the body; no shoulder turns so far in.",
                    Math.Max(behind, across)
                )
            );
        }

        var above = arm.Elbow.Up - arm.Shoulder.Up;
        if (above > physique.Of(ElbowUpMost) && said != Body.Elbow.Up)
        {
            faults.Add(
                new(
                    Rule.ElbowAboveShoulder,
                    Severity.Caution,
                    hand,
                    $"The {Name(hand)} elbow is {Cm(above)} cm above the shoulder; an elbow hangs unless it is said to be up.",
                    above
                )
            );
        }
    }

    /// <summary>How the hand is bent against the forearm: towards the palm, away from it, and to one edge.</summary>
    private static ArmFault? Wrist(Arm arm, Hand hand)
    {
        if (arm.Holds || arm.Shape == HandShape.Hook || arm.Bend.IsWithinAWrist)
        {
            return null;
        }

        var bend = arm.Bend;
        var (toPalm, toBack, aside) = (
            bend.ToPalm - WristBend.MostToPalm,
            -bend.ToPalm - WristBend.MostToBack,
            Math.Abs(bend.Aside) - WristBend.MostAside
        );
        var over = Math.Max(Math.Max(toPalm, toBack), aside);
        return over <= WordsAreOff
            ? null
            : new(
                Rule.WristBent,
                Severity.Impossible,
                hand,
                over == aside ? Say(hand, bend.Aside, "to its edge", WristBend.MostAside)
                    : over == toPalm ? Say(hand, bend.ToPalm, "to the palm", WristBend.MostToPalm)
                    : Say(hand, bend.ToPalm, "to the back of the hand", WristBend.MostToBack),
                over
            );

        static string Say(Hand hand, double degrees, string where, double most) =>
            $"The {Name(hand)} wrist would be bent {Math.Round(Math.Abs(degrees))}° {where}; a wrist bends {most}° at most.";
    }

    internal static string Name(Hand hand) => hand == Hand.Left ? "left" : "right";

    internal static int Cm(double metres) => (int)Math.Round(metres * 100);
}
