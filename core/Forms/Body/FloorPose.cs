using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Body;

/// <summary>A foot at any moment, also on its way: heel in foot-lengths, toes in degrees, load in per cent, how far heel
/// and toes are off the floor in foot-lengths; <paramref name="Air"/> is 1 for a foot that is held up, and
/// <paramref name="Leads"/> 1 when its heel leads, -1 when its toes are long.</summary>
public readonly record struct FootPose(
    Point Heel,
    double Toes,
    double Load,
    double Up,
    double HeelUp,
    double ToesUp,
    double Air,
    double Leads
)
{
    /// <summary>It has left the floor; <see cref="Air"/> grows to 1 while it does.</summary>
    public bool InAir => Air > 0.5;

    private const double RaisedHeel = 0.3;
    private const double RaisedToes = 0.25;

    public static FootPose Of(Sole sole) =>
        new(
            sole.Heel,
            sole.Toes,
            sole.Load,
            sole.Up,
            sole.Contact is Contact.Ball or Contact.Toe ? RaisedHeel : 0,
            sole.Contact == Contact.Heel ? RaisedToes : 0,
            sole.InAir ? 1 : 0,
            sole.Contact switch
            {
                Contact.AirHeel => 1,
                Contact.AirToe => -1,
                _ => 0,
            }
        );

    /// <summary>On the way to where it goes: a foot that goes somewhere is off the floor meanwhile.</summary>
    /// <param name="clearance">How high it is carried, foot-lengths.</param>
    public FootPose Towards(FootPose to, double part, double clearance) =>
        new(
            Heel.Between(to.Heel, part),
            Toes + (TurnBetween(Toes, to.Toes) * part),
            Mix(Load, to.Load, part),
            Mix(Up, to.Up, part) + (clearance * 4 * part * (1 - part)),
            Mix(HeelUp, to.HeelUp, part),
            Mix(ToesUp, to.ToesUp, part),
            Mix(Air, to.Air, part),
            Mix(Leads, to.Leads, part)
        );

    public FootPose Mirror() => this with { Heel = Heel.Mirror(), Toes = -Toes };

    internal static double Mix(double from, double to, double part) => from + ((to - from) * part);

    /// <summary>The shortest way round, degrees.</summary>
    internal static double TurnBetween(double from, double to) => Math.IEEERemainder(to - from, 360);
}

/// <summary>Where a foot is in the hall, in metres.</summary>
/// <param name="Ahead">Where its toes point, along the floor.</param>
/// <param name="Middle">Of the sole: under it is its load.</param>
internal readonly record struct FootPlace(FootPose Pose, Vector Ahead, Vector Middle, Vector Ankle)
{
    public static FootPlace Of(FootPose foot, Physique physique)
    {
        var (length, ahead) = (physique.Foot, Vector.Facing(foot.Toes));
        var heel = Vector.OnFloor(foot.Heel, length);
        var up = physique.AnkleUp + ((foot.Up + foot.HeelUp) * length);
        return new(foot, ahead, heel + (ahead * (0.3 * length)), (heel + (ahead * (0.06 * length))) with { Up = up });
    }
}

/// <summary>Both feet and the pelvis' direction at any moment of a walk.</summary>
/// <param name="Low">From 0, the usual height, to 1, as low as in a drop stance.</param>
public readonly record struct FloorPose(FootPose Left, FootPose Right, double Hips, double Low, double SeatLeft)
{
    private const double Clearance = 0.35;

    public FootPose this[Hand side] => side == Hand.Left ? Left : Right;

    public static FloorPose Of(Stand stand) =>
        new(FootPose.Of(stand.Left), FootPose.Of(stand.Right), stand.Hips, stand.Low ? 1 : 0, stand.SeatLeft);

    /// <summary>A part of the way through one statement of the steps, from 0 to 1.</summary>
    public static FloorPose Within(Moment moment, double part)
    {
        var (from, to) = (Of(moment.Before), Of(moment.After));
        double Carried(Foot foot) =>
            moment.Action is StepAction.Move { To: not null } move && move.Foot == foot
                ? move.Verb switch
                {
                    FootVerb.Drag => 0,
                    FootVerb.Stamp or FootVerb.Hop or FootVerb.Jump => 3 * Clearance,
                    _ => Clearance,
                }
                : 0;
        return new(
            from.Left.Towards(to.Left, part, Carried(Foot.Left)),
            from.Right.Towards(to.Right, part, Carried(Foot.Right)),
            from.Hips + (FootPose.TurnBetween(from.Hips, to.Hips) * part),
            FootPose.Mix(from.Low, to.Low, part),
            FootPose.Mix(from.SeatLeft, to.SeatLeft, part)
        );
    }

    public FloorPose Mirror() => new(Right.Mirror(), Left.Mirror(), -Hips, Low, 100 - SeatLeft);
}
