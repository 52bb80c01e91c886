using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>
/// One statement of the body notation (docs/body-notation.md): what a hand, the trunk or the gaze is like when the
/// count ends. Turns are degrees seen from the pelvis, to the right positive.
/// </summary>
public abstract record BodyAction
{
    private BodyAction() { }

    /// <summary>The same on the other side, by the rule of the feet (domain.md 4.1, "Mirror"): left and right exchanged,
    /// turns negated. In and out are each hand's own.</summary>
    public abstract BodyAction Mirror();

    /// <summary>A hand goes somewhere, turns, changes its shape or takes hold. What is null stays as it was.</summary>
    /// <param name="First">By where it goes, when not straight.</param>
    /// <param name="Then">By where it goes after that.</param>
    public sealed record Arm(
        Hand Hand,
        HandPlace Place = default,
        Aim? Palm = null,
        Aim? Fingers = null,
        HandShape? Shape = null,
        Elbow? Elbow = null,
        Holding? Holds = null,
        Passing? First = null,
        Passing? Then = null
    ) : BodyAction
    {
        public override BodyAction Mirror() => this with { Hand = Other(Hand) };
    }

    /// <summary>The chest's turn against the pelvis.</summary>
    public sealed record Chest(int Turn) : BodyAction
    {
        public override BodyAction Mirror() => new Chest(-Turn);
    }

    /// <summary>The trunk's lean in degrees: forwards and to the right are positive.</summary>
    public sealed record Lean(int Forward, int Right) : BodyAction
    {
        public override BodyAction Mirror() => new Lean(Forward, -Right);
    }

    /// <summary>How far the body is above the school's usual height, in centimetres; below it is negative.</summary>
    public sealed record Rise(int Centimetres) : BodyAction
    {
        public override BodyAction Mirror() => this;
    }

    /// <summary>The eyes follow a hand.</summary>
    public sealed record GazeAtHand(Hand Hand) : BodyAction
    {
        public override BodyAction Mirror() => new GazeAtHand(Other(Hand));
    }

    /// <summary>The eyes look so far to the side of the pelvis' direction, and up or down.</summary>
    /// <param name="Up">1 upwards, -1 downwards, 0 level.</param>
    public sealed record Gaze(int Turn, int Up = 0) : BodyAction
    {
        public override BodyAction Mirror() => this with { Turn = -Turn };
    }

    public static Hand Other(Hand hand) => hand == Hand.Left ? Hand.Right : Hand.Left;
}

/// <summary>By where a hand goes: through a place, or on an arc that bulges one way.</summary>
public readonly record struct Passing(HandPlace Place, Way? Arc = null);
