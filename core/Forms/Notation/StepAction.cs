namespace Zeitplan.Core.Forms.Notation;

public enum Foot
{
    Left,
    Right,
}

/// <summary>What a foot does when it goes somewhere.</summary>
public enum FootVerb
{
    Step,
    Adjust,
    Withdraw,
    Follow,
    Lift,
    Kick,
    Set,

    /// <summary>Slides along the floor and may carry a little of the weight.</summary>
    Drag,

    /// <summary>Comes down hard.</summary>
    Stamp,

    /// <summary>Springs off and lands again on the same foot, which carries all the while.</summary>
    Hop,

    /// <summary>Lands from the other foot, which springs off.</summary>
    Jump,
}

/// <summary>What of a foot touches the floor.</summary>
public enum Contact
{
    Flat,
    Heel,
    Ball,
    Toe,

    /// <summary>Held up, the foot as it hangs.</summary>
    Air,

    /// <summary>Held up with the heel leading and the toes drawn back.</summary>
    AirHeel,

    /// <summary>Held up with the toes long.</summary>
    AirToe,
}

public enum PivotOn
{
    Heel,
    Ball,
}

/// <summary>
/// A place on the floor seen from the other foot: <paramref name="Forward"/> and <paramref name="Side"/> (right is
/// positive) in foot-lengths from its heel, along the hips' direction turned by <paramref name="Toward"/> degrees
/// clockwise.
/// </summary>
public readonly record struct Place(decimal Forward, decimal Side, int Toward = 0)
{
    public Place Mirror() => new(Forward, -Side, -Toward);
}

/// <summary>One statement of the step notation (docs/step-notation.md). Turns are degrees, clockwise positive; loads
/// are per cent of the body's weight.</summary>
public abstract record StepAction
{
    private StepAction() { }

    /// <summary>The same on the other side: left and right exchanged, turns and sideways steps negated (domain.md 4.1,
    /// "Mirror").</summary>
    public abstract StepAction Mirror();

    /// <summary>A foot goes somewhere, or is lifted, or is put down where it is.</summary>
    /// <param name="To">Where it goes, or null to stay.</param>
    /// <param name="Toes">Where its toes then point, from the direction it was placed in; null means straight ahead
    /// after going somewhere and unchanged after staying.</param>
    /// <param name="Lands">How it touches, or what leads in the air; null means flat, or as it hangs for a lift and a
    /// kick.</param>
    /// <param name="Crosses">It is meant to land beyond the other foot.</param>
    /// <param name="Load">What it carries afterwards, when that is said.</param>
    /// <param name="Up">How far its heel is held off the floor, in foot-lengths, when it is not as high as usual.</param>
    public sealed record Move(
        Foot Foot,
        FootVerb Verb,
        Place? To = null,
        int? Toes = null,
        Contact? Lands = null,
        bool Crosses = false,
        int? Load = null,
        decimal? Up = null
    ) : StepAction
    {
        public override StepAction Mirror() => this with { Foot = Other(Foot), To = To?.Mirror(), Toes = -Toes };

        public bool LeavesFloor => Verb is FootVerb.Lift or FootVerb.Kick;

        /// <summary>The body is in the air for a moment: it lands on this foot.</summary>
        public bool Springs => Verb is FootVerb.Hop or FootVerb.Jump;
    }

    /// <summary>A foot turns where it stands. <paramref name="On"/> is null when the school's usual point is
    /// meant.</summary>
    public sealed record Pivot(Foot Foot, PivotOn? On, int Turn, int? Load = null) : StepAction
    {
        public override StepAction Mirror() => this with { Foot = Other(Foot), Turn = -Turn };
    }

    /// <summary>Weight goes to a foot; the other carries the rest.</summary>
    public sealed record Weigh(Foot Foot, int Load) : StepAction
    {
        public override StepAction Mirror() => this with { Foot = Other(Foot) };
    }

    /// <summary>Weight goes to one side of the seat: what it carries of all that rests on the seat.</summary>
    public sealed record WeighSeat(Foot Side, int Load) : StepAction
    {
        public override StepAction Mirror() => this with { Side = Other(Side) };
    }

    /// <summary>The pelvis turns.</summary>
    public sealed record Hips(int Turn) : StepAction
    {
        public override StepAction Mirror() => new Hips(-Turn);
    }

    /// <summary>The chest turns against the pelvis.</summary>
    public sealed record Chest(int Turn) : StepAction
    {
        public override StepAction Mirror() => new Chest(-Turn);
    }

    /// <summary>The body sinks low, as in a drop stance, or comes back to its own level.</summary>
    public sealed record Height(bool Low) : StepAction
    {
        public override StepAction Mirror() => this;
    }

    public static Foot Other(Foot foot) => foot == Foot.Left ? Foot.Right : Foot.Left;
}
