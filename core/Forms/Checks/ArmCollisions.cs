using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>A forearm or a hand that would go through the trunk, the head, a thigh or the other arm (domain.md 4.1, "The
/// body"). Touching is no collision: what is soft gives a little.</summary>
internal static class ArmCollisions
{
    private const double HalfWidth = 0.145;
    private const double HalfDepth = 0.105;
    private const double ForearmRadius = 0.03;
    private const double ThighRadius = 0.07;
    private const double Gives = 0.035;
    private const double ArmsGive = 0.035;
    private const int Points = 6;

    public static IEnumerable<ArmFault> Of(Skeleton body, BodyState state, Physique physique)
    {
        foreach (var hand in new[] { Hand.Left, Hand.Right })
        {
            var arm = body.ArmOf(hand);
            var points = Along(arm);
            if (Say(points.Max(point => IntoTrunk(point, body.Trunk, physique)), "body", hand) is { } trunk)
            {
                yield return trunk;
            }

            if (
                Say(
                    points.Max(point => physique.HeadRadius + physique.Of(ForearmRadius) - (point - body.Head).Length),
                    "head",
                    hand
                ) is
                { } head
            )
            {
                yield return head;
            }

            var thighs = new[] { body.LeftLeg, body.RightLeg }.Max(leg =>
                points.Max(point =>
                    physique.Of(ThighRadius + ForearmRadius) - Segments.Distance(leg.Hip, leg.Knee, point, point)
                )
            );
            if (!arm.Holds && Say(thighs - physique.Of(Gives), "thigh", hand) is { } thigh)
            {
                yield return thigh;
            }
        }

        var (left, right) = (body.LeftArm, body.RightArm);
        var apart = Segments.Distance(
            left.Elbow.Towards(left.Wrist, 0.25),
            left.Palm,
            right.Elbow.Towards(right.Wrist, 0.25),
            right.Palm
        );
        if (
            apart < physique.Of(ArmsGive)
            && !left.Holds
            && !right.Holds
            && !Touches(state.Left)
            && !Touches(state.Right)
        )
        {
            yield return new(
                Rule.ThroughBody,
                Severity.Error,
                Hand.Right,
                "The arms would go through each other.",
                physique.Of(ArmsGive) - apart
            );
        }

        ArmFault? Say(double depth, string what, Hand hand) =>
            depth > physique.Of(Gives)
                ? new(
                    Rule.ThroughBody,
                    Severity.Error,
                    hand,
                    $"The {ArmRules.Name(hand)} arm would go {ArmRules.Cm(depth)} cm into the {what}.",
                    depth
                )
                : null;
    }

    private static bool Touches(HandState hand) =>
        hand.Place.Against is { Relation: Relation.On, Landmark: <= Landmark.Elbow };

    /// <summary>From the forearm's second half to the palm: the elbow hangs beside the body anyway.</summary>
    private static Vector[] Along(Arm arm) =>
        [
            .. Enumerable
                .Range(0, Points)
                .Select(at => at / (Points - 1.0))
                .Select(part => arm.Elbow.Towards(arm.Wrist, 0.4 + (0.6 * part))),
            arm.Palm,
        ];

    /// <summary>How deep a point is in the trunk, which is taken as an oval from hips to shoulders.</summary>
    private static double IntoTrunk(Vector point, Trunk trunk, Physique physique)
    {
        var from = trunk.InChest(point - trunk.Neck);
        var height = from.Up + physique.Torso;
        if (height < physique.Of(-0.05) || height > physique.Torso)
        {
            return 0;
        }

        var out1 = Math.Sqrt(
            Math.Pow(from.Right / physique.Of(HalfWidth), 2) + Math.Pow(from.Ahead / physique.Of(HalfDepth), 2)
        );
        return Math.Max(0, (1 - out1) * physique.Of(HalfDepth)) + (out1 < 1 ? physique.Of(ForearmRadius) : 0);
    }
}

/// <summary>Straight stretches in space.</summary>
internal static class Segments
{
    /// <summary>The shortest distance between two stretches.</summary>
    public static double Distance(Vector fromA, Vector toA, Vector fromB, Vector toB)
    {
        var (a, b, between) = (toA - fromA, toB - fromB, fromA - fromB);
        var (aa, ab, bb) = (a.Dot(a), a.Dot(b), b.Dot(b));
        var (onA, onB) = (a.Dot(between), b.Dot(between));
        var wide = (aa * bb) - (ab * ab);
        var s = wide > 1e-12 ? Math.Clamp(((ab * onB) - (bb * onA)) / wide, 0, 1) : 0;
        var t = bb > 1e-12 ? Math.Clamp(((ab * s) + onB) / bb, 0, 1) : 0;
        s = aa > 1e-12 ? Math.Clamp(((ab * t) - onA) / aa, 0, 1) : 0;
        return (between + (a * s) - (b * t)).Length;
    }
}
