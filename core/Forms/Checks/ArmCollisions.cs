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

    public static void AddTo(List<ArmFault> faults, Skeleton body, BodyState state, Physique physique)
    {
        var roomOfHead = physique.HeadRadius + physique.Of(ForearmRadius);
        foreach (var hand in Hands)
        {
            var arm = body.ArmOf(hand);
            var (trunk, head, thigh) = (0.0, double.MinValue, double.MinValue);
            for (var at = 0; at <= Points; at++)
            {
                // From the forearm's second half to the palm: the elbow hangs beside the body anyway.
                var point = at == Points ? arm.Palm : arm.Elbow.Towards(arm.Wrist, 0.4 + (0.6 * at / (Points - 1.0)));
                trunk = Math.Max(trunk, IntoTrunk(point, body.Trunk, physique));
                head = Math.Max(head, roomOfHead - (point - body.Head).Length);
                thigh = Math.Max(thigh, IntoThigh(point, body.LeftLeg, physique));
                thigh = Math.Max(thigh, IntoThigh(point, body.RightLeg, physique));
            }

            AddWhereDeep(trunk, "body", hand);
            AddWhereDeep(head, "head", hand);
            if (!arm.Holds)
            {
                AddWhereDeep(thigh - physique.Of(Gives), "thigh", hand);
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
            faults.Add(
                new(
                    Rule.ThroughBody,
                    Severity.Error,
                    Hand.Right,
                    "The arms would go through each other.",
                    physique.Of(ArmsGive) - apart
                )
                {
                    OfBoth = true,
                }
            );
        }

        void AddWhereDeep(double depth, string what, Hand hand)
        {
            if (depth > physique.Of(Gives))
            {
                faults.Add(
                    new(
                        Rule.ThroughBody,
                        Severity.Error,
                        hand,
                        $"The {ArmRules.Name(hand)} arm would go {ArmRules.Cm(depth)} cm into the {what}.",
                        depth
                    )
                );
            }
        }
    }

    private static bool Touches(HandState hand) =>
        hand.Place.Against is { Relation: Relation.On, Landmark: <= Landmark.Elbow };

    private static readonly Hand[] Hands = [Hand.Left, Hand.Right];

    private static double IntoThigh(Vector point, Leg leg, Physique physique)
    {
        var room = physique.Of(ThighRadius + ForearmRadius);
        return point.Up > leg.Hip.Up + room ? 0 : room - Segments.Distance(leg.Hip, leg.Knee, point);
    }

    /// <summary>How deep a point is in the trunk, which is taken as an oval from hips to shoulders.</summary>
    private static double IntoTrunk(Vector point, Trunk trunk, Physique physique)
    {
        var from = trunk.InChest(point - trunk.Neck);
        var height = from.Up + physique.Torso;
        if (height < physique.Of(-0.05) || height > physique.Torso)
        {
            return 0;
        }

        var (aside, ahead) = (from.Right / physique.Of(HalfWidth), from.Ahead / physique.Of(HalfDepth));
        var outwards = (aside * aside) + (ahead * ahead);
        return outwards < 1 ? ((1 - Math.Sqrt(outwards)) * physique.Of(HalfDepth)) + physique.Of(ForearmRadius) : 0;
    }
}

/// <summary>Straight stretches in space.</summary>
internal static class Segments
{
    /// <summary>The shortest distance of a point from a stretch.</summary>
    public static double Distance(Vector from, Vector to, Vector point)
    {
        var (along, away) = (to - from, point - from);
        var length = along.Dot(along);
        var part = length > 1e-12 ? Math.Clamp(along.Dot(away) / length, 0, 1) : 0;
        return (away - (along * part)).Length;
    }

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
