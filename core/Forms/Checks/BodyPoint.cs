using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>What of a body a checkpoint looks at. The first ones come twice; without a side the middle of both is
/// meant.</summary>
public enum BodyPart
{
    Palm,
    Fingers,
    Fist,
    Hook,
    Wrist,
    Forearm,
    Elbow,
    Shoulder,
    Temple,
    Hip,
    Thigh,
    Knee,
    Ankle,
    Heel,
    Toes,
    Sole,
    Nose,
    Brow,
    Head,
    Crown,
    Throat,
    Breastbone,
    Navel,
    Tailbone,
    Pelvis,
    Trunk,
    Floor,
    Front,
}

/// <summary>A part of the body, of one side where it has two.</summary>
public readonly record struct BodyPoint(BodyPart Part, Hand? Side = null)
{
    public static bool ComesTwice(BodyPart part) => part <= BodyPart.Sole;

    public BodyPoint Mirror() => this with { Side = Side is { } side ? BodyAction.Other(side) : null };

    /// <summary>Where it is; for the floor, right below <paramref name="other"/>.</summary>
    internal Vector On(Skeleton body, Physique physique, Vector other) =>
        ComesTwice(Part) ? (Side is { } side ? Of(body, side) : Of(body, Hand.Left).Towards(Of(body, Hand.Right), 0.5))
        : Part is BodyPart.Floor or BodyPart.Front ? other with { Up = 0 }
        : Part switch
        {
            BodyPart.Nose => body.Head + (body.Face * physique.HeadRadius),
            BodyPart.Brow => body.Head + (body.Face * physique.HeadRadius) + (body.Trunk.ChestUp * physique.Of(0.05)),
            BodyPart.Head => body.Head,
            BodyPart.Crown => body.Head + (body.Trunk.ChestUp * physique.HeadRadius),
            BodyPart.Throat => body.Trunk.Neck + (body.Trunk.ChestUp * physique.Of(0.05)),
            BodyPart.Breastbone => body.Trunk.Neck
                + (body.Trunk.ChestUp * physique.Of(-0.14))
                + (body.Trunk.ChestAhead * physique.Of(0.1)),
            BodyPart.Navel => body.Trunk.Pelvis
                + (body.Trunk.ChestUp * physique.Of(0.13))
                + (body.Trunk.PelvisAhead * physique.Of(0.1)),
            BodyPart.Tailbone => body.Trunk.Pelvis - (body.Trunk.PelvisAhead * physique.Of(0.06)),
            BodyPart.Trunk => body.Trunk.Pelvis.Towards(body.Trunk.Neck, 0.5),
            _ => body.Trunk.Pelvis,
        };

    private Vector Of(Skeleton body, Hand side)
    {
        var (arm, leg) = (body.ArmOf(side), body.LegOf(side));
        return Part switch
        {
            BodyPart.Palm or BodyPart.Fist => arm.Palm,
            BodyPart.Fingers => arm.Tip,
            BodyPart.Hook or BodyPart.Wrist => arm.Wrist,
            BodyPart.Forearm => arm.Elbow.Towards(arm.Wrist, 0.5),
            BodyPart.Elbow => arm.Elbow,
            BodyPart.Shoulder => arm.Shoulder,
            BodyPart.Temple => body.Head + (body.Trunk.ChestRight * (Trunk.Sign(side) * 0.1)),
            BodyPart.Hip => leg.Hip,
            BodyPart.Thigh => leg.Hip.Towards(leg.Knee, 0.5),
            BodyPart.Knee => leg.Knee,
            BodyPart.Ankle => leg.Ankle,
            BodyPart.Heel => leg.Heel,
            BodyPart.Toes => leg.Toes,
            _ => leg.Heel.Towards(leg.Toes, 0.5),
        };
    }

    /// <summary>Where it points along the floor; null for what points nowhere.</summary>
    internal Vector? Direction(Skeleton body, Vector start) =>
        Part switch
        {
            BodyPart.Toes or BodyPart.Sole or BodyPart.Heel or BodyPart.Ankle => Leg(body) is { } leg
                ? leg.Toes - leg.Heel
                : body.Trunk.PelvisAhead,
            BodyPart.Knee or BodyPart.Thigh => Leg(body) is { } leg ? leg.Knee - leg.Hip.Towards(leg.Ankle, 0.5) : null,
            BodyPart.Nose or BodyPart.Head or BodyPart.Brow => body.Face,
            BodyPart.Pelvis or BodyPart.Navel or BodyPart.Tailbone => body.Trunk.PelvisAhead,
            BodyPart.Breastbone or BodyPart.Trunk => body.Trunk.ChestAhead,
            BodyPart.Palm => Arm(body)?.PalmFaces,
            BodyPart.Fingers or BodyPart.Fist => Arm(body) is { } arm ? arm.Tip - arm.Wrist : null,
            BodyPart.Forearm => Arm(body) is { } arm ? arm.Wrist - arm.Elbow : null,
            BodyPart.Front => start,
            _ => null,
        };

    private Leg? Leg(Skeleton body) => Side is { } side ? body.LegOf(side) : null;

    private Arm? Arm(Skeleton body) => Side is { } side ? body.ArmOf(side) : null;

    public string Say() =>
        Side is { } side
            ? $"{(side == Hand.Left ? "left" : "right")} {BodyWord.Name(Part)}"
            : BodyWord.Name(Part) + (ComesTwice(Part) && Part is not (BodyPart.Fingers or BodyPart.Toes) ? "s" : "");
}
