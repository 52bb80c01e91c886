using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Body;

/// <summary>One hand at one moment: where it is, how it faces, its shape and what it holds.</summary>
public sealed record HandState(
    HandPlace Place,
    Aim Palm,
    Aim Fingers,
    HandShape Shape = HandShape.Loose,
    Elbow Elbow = Elbow.Down,
    Holding Holds = Holding.Nothing
)
{
    /// <summary>Hanging beside the thigh, the palm to the body.</summary>
    public static HandState Hanging { get; } =
        new(new(Height.Thigh, Line.Outside, Reach.Side), new(Way.In), new(Way.Down));

    /// <summary>What is not named stays as it was. A new height leaves whatever the hand was against, and a palm that
    /// turns takes the fingers along where they cannot stay.</summary>
    public HandState After(BodyAction.Arm arm)
    {
        var palm = arm.Palm ?? Palm;
        return this with
        {
            Place = PlaceAfter(arm.Place),
            Palm = palm,
            Fingers =
                arm.Fingers
                ?? (
                    Fingers.SharesLineWith(palm)
                        ? new(palm.First is Way.Front or Way.Back ? Way.Up : Way.Front)
                        : Fingers
                ),
            Shape = arm.Shape ?? Shape,
            Elbow = arm.Elbow ?? (arm.Place.IsEmpty ? Elbow : Elbow.Down),
            Holds = arm.Holds ?? (arm.Place.IsEmpty ? Holds : Holding.Nothing),
        };
    }

    private HandPlace PlaceAfter(HandPlace named) =>
        named.Against is not null ? named
        : named.IsEmpty ? Place
        : new(
            named.Height ?? Place.Height ?? Height.Chest,
            named.Line ?? Place.Line ?? Line.Own,
            named.Reach ?? Place.Reach ?? Reach.Bent
        );
}

/// <summary>Where the eyes look: at a hand, or so far to the side of the pelvis' direction and up or down.</summary>
public readonly record struct Eyes(Hand? At, int Turn, int Up)
{
    public Eyes Mirror() => new(At is { } hand ? BodyAction.Other(hand) : null, -Turn, Up);
}

/// <summary>Hands, trunk and gaze at one moment. What is below the pelvis is a <see cref="Floor.Stand"/>.</summary>
/// <param name="Chest">Degrees against the pelvis, to the right positive.</param>
/// <param name="LeanForward">Degrees; backwards is negative.</param>
/// <param name="LeanRight">Degrees; to the left is negative.</param>
/// <param name="Rise">Centimetres above the school's usual height; below it is negative.</param>
public sealed record BodyState(
    HandState Left,
    HandState Right,
    int Chest = 0,
    int LeanForward = 0,
    int LeanRight = 0,
    int Rise = 0,
    Eyes Eyes = default
)
{
    /// <summary>Arms hanging, everything straight ahead: how somebody stands before a form.</summary>
    public static BodyState AtRest { get; } = new(HandState.Hanging, HandState.Hanging);

    public HandState this[Hand hand] => hand == Hand.Left ? Left : Right;

    /// <summary>What a statement makes of it; what it does not name stays as it was.</summary>
    public BodyState After(BodyAction action) =>
        action switch
        {
            BodyAction.Arm { Hand: Hand.Left } arm => this with { Left = Left.After(arm) },
            BodyAction.Arm arm => this with { Right = Right.After(arm) },
            BodyAction.Chest chest => this with { Chest = chest.Turn },
            BodyAction.Lean lean => this with { LeanForward = lean.Forward, LeanRight = lean.Right },
            BodyAction.Rise rise => this with { Rise = rise.Centimetres },
            BodyAction.GazeAtHand gaze => this with { Eyes = new(gaze.Hand, 0, 0) },
            BodyAction.Gaze gaze => this with { Eyes = new(null, gaze.Turn, gaze.Up) },
            _ => this,
        };

    public BodyState After(IEnumerable<BodyAction> actions) =>
        actions.Aggregate(this, (state, action) => state.After(action));

    public BodyState Mirror() => new(Right, Left, -Chest, LeanForward, -LeanRight, Rise, Eyes.Mirror());
}
