using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Forms.Body;

/// <summary>What steadies somebody and stays where it is while they move: a rail beside them or before them, a seat, a
/// frame.</summary>
/// <param name="At">A point of the rail, or the middle of the seat, in metres.</param>
/// <param name="Facing">Along the rail, or where somebody on the seat looks; degrees.</param>
public sealed record Aid(Holding Kind, Vector At, double Facing)
{
    private const double RailAside = 0.34;
    private const double RailAhead = 0.38;
    private const double SeatBehindHeels = 0.32;
    private const double FrameAhead = 0.3;
    private const double HalfSeat = 0.21;

    /// <summary>A rail along the way somebody faces, on one side of them; before them when no side is given.</summary>
    public static Aid Rail(Stand start, Side side, Physique physique)
    {
        var ahead = Vector.Facing(start.Hips);
        var right = Vector.Facing(start.Hips + 90);
        var middle = Vector.OnFloor(start.Middle, physique.Foot, physique.RailUp);
        return side switch
        {
            Side.Left => new(Holding.Rail, middle - (right * RailAside), start.Hips),
            Side.Right => new(Holding.Rail, middle + (right * RailAside), start.Hips),
            _ => new(Holding.Rail, middle + (ahead * RailAhead), start.Hips + 90),
        };
    }

    /// <summary>A chair behind the feet of somebody who sits.</summary>
    public static Aid Chair(Stand start, Physique physique) =>
        new(
            Holding.Chair,
            Vector.OnFloor(start.Middle, physique.Foot, physique.SeatUp)
                - (Vector.Facing(start.Hips) * SeatBehindHeels),
            start.Hips
        );

    public static Aid Frame(Stand start, Physique physique) =>
        new(
            Holding.Frame,
            Vector.OnFloor(start.Middle, physique.Foot, physique.RailUp) + (Vector.Facing(start.Hips) * FrameAhead),
            start.Hips
        );

    /// <summary>Where a hand takes hold: on the rail beside its shoulder, on the edge of the seat, on the grip of the
    /// frame.</summary>
    public Vector Grip(Hand hand, Vector shoulder)
    {
        if (Kind == Holding.Rail)
        {
            var along = Vector.Facing(Facing);
            var from = shoulder - At;
            return At + (along * from.Dot(along));
        }

        var aside = Vector.Facing(Facing + 90) * (hand == Hand.Left ? -HalfSeat : HalfSeat);
        return At + aside;
    }

    public Aid Mirror() => this with { At = At.Mirror(), Facing = -Facing };
}
