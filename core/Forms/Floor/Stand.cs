using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>Somebody on the floor at one moment: both feet, where the hips point (degrees clockwise), the chest's turn
/// against them, and whether the body is low.</summary>
/// <param name="SeatLeft">Per cent of what rests on the seat that rests on its left side; only means something to
/// somebody seated.</param>
public sealed record Stand(Sole Left, Sole Right, int Hips, int Chest = 0, bool Low = false, int SeatLeft = 50)
{
    public Sole this[Foot foot] => foot == Foot.Left ? Left : Right;

    public Point Middle => Left.Heel.Between(Right.Heel, 0.5);

    /// <summary>How far the left heel is ahead of the right one and to its right, seen along the hips.</summary>
    public (double Ahead, double Right) LeftSeenFromRight(double facing) => (Left.Heel - Right.Heel).SeenFacing(facing);

    /// <summary>Feet a shoulder apart, weight even, facing the form's zero.</summary>
    public static Stand AtStart { get; } =
        new(new(new(-0.2, 0), 0, Contact.Flat, 50), new(new(0.2, 0), 0, Contact.Flat, 50), 0);

    public Stand With(Foot foot, Sole sole) =>
        foot == Foot.Left ? this with { Left = sole } : this with { Right = sole };

    /// <summary>One foot carries this much, the other the rest. What carries a third or more has its whole sole down,
    /// and what is in the air carries nothing.</summary>
    public Stand Weigh(Foot foot, int load)
    {
        var other = StepAction.Other(foot);
        return With(foot, Carry(this[foot], load)).With(other, Carry(this[other], 100 - load));
    }

    private static Sole Carry(Sole sole, int load) =>
        sole with
        {
            Load = load,
            Contact = load > LightTouch || (load > 0 && sole.InAir) ? Contact.Flat : sole.Contact,
            Up = load > 0 ? 0 : sole.Up,
        };

    /// <summary>More than this cannot rest on a heel or on the toes alone.</summary>
    private const int LightTouch = 30;

    /// <summary>What one statement of the notation makes of it. <paramref name="usual"/> is the point on which this
    /// school turns a foot when the notation does not say.</summary>
    public Stand After(StepAction action, PivotOn usual) =>
        action switch
        {
            StepAction.Weigh weigh => Weigh(weigh.Foot, weigh.Load),
            StepAction.WeighSeat seat => this with { SeatLeft = seat.Side == Foot.Left ? seat.Load : 100 - seat.Load },
            StepAction.Hips hips => this with { Hips = Facing.FromDegrees(Hips + hips.Turn).Degrees },
            StepAction.Chest chest => this with { Chest = Chest + chest.Turn },
            StepAction.Height height => this with { Low = height.Low },
            StepAction.Pivot pivot => Loaded(
                pivot.Foot,
                With(
                    pivot.Foot,
                    (pivot.On ?? usual) == PivotOn.Heel
                        ? this[pivot.Foot].PivotOnHeel(pivot.Turn)
                        : this[pivot.Foot].PivotOnBall(pivot.Turn)
                ),
                pivot.Load
            ),
            StepAction.Move move => Loaded(move.Foot, Go(move), move.Load),
            _ => this,
        };

    private static Stand Loaded(Foot foot, Stand stand, int? load) =>
        load is { } said ? stand.Weigh(foot, said) : stand;

    private Stand Go(StepAction.Move move)
    {
        var foot = this[move.Foot];
        var frame = Hips + (move.To?.Toward ?? 0);
        var heel = move.To is { } to
            ? this[StepAction.Other(move.Foot)].Heel + Point.Towards(frame, (double)to.Forward, (double)to.Side)
            : foot.Heel;
        var toes =
            move.Toes is { } said ? frame + said
            : move.To is null ? foot.Toes
            : frame;
        var contact = (move.LeavesFloor, move.Lands) switch
        {
            (false, _) => move.Lands ?? Contact.Flat,
            (true, Contact.Heel) => Contact.AirHeel,
            (true, Contact.Toe) => Contact.AirToe,
            _ => Contact.Air,
        };

        // Whatever leaves its place carries nothing while it goes; a foot that is only turned or set as it stands, one
        // that drags and one that hops keep their load.
        var empties = (move.To is not null || move.LeavesFloor) && move.Verb is not (FootVerb.Drag or FootVerb.Hop);
        var moved = With(
            move.Foot,
            foot with
            {
                Heel = heel,
                Toes = Facing.FromDegrees(toes).Degrees,
                Contact = contact,
                Up = move.LeavesFloor ? (double)(move.Up ?? UsualHeight(move.Verb)) : 0,
            }
        );
        if (move.Verb == FootVerb.Jump)
        {
            var pushes = StepAction.Other(move.Foot);
            return moved
                .Weigh(move.Foot, 100)
                .With(pushes, moved[pushes] with { Contact = Contact.Air, Load = 0, Up = AfterAJump });
        }

        return empties
            ? moved.Weigh(StepAction.Other(move.Foot), 100).With(move.Foot, moved[move.Foot] with { Load = 0 })
            : moved;
    }

    /// <summary>In foot-lengths: a lifted foot hangs below a knee at the height of the hip, a kick comes to the
    /// waist.</summary>
    private static decimal UsualHeight(FootVerb verb) => verb == FootVerb.Kick ? 2.6m : 1.3m;

    private const double AfterAJump = 0.5;

    public Stand Mirror() =>
        new(MirrorOf(Right), MirrorOf(Left), Facing.FromDegrees(-Hips).Degrees, -Chest, Low, 100 - SeatLeft);

    private static Sole MirrorOf(Sole sole) =>
        sole with
        {
            Heel = sole.Heel.Mirror(),
            Toes = Facing.FromDegrees(-sole.Toes).Degrees,
        };

    /// <summary>The same stand after the whole hall was turned about the form's start.</summary>
    public Stand Turned(int degrees) =>
        this with
        {
            Left = TurnedSole(Left, degrees),
            Right = TurnedSole(Right, degrees),
            Hips = Facing.FromDegrees(Hips + degrees).Degrees,
        };

    private static Sole TurnedSole(Sole sole, int degrees) =>
        sole with
        {
            Heel = Point.Towards(degrees, sole.Heel.Ahead, sole.Heel.Right),
            Toes = Facing.FromDegrees(sole.Toes + degrees).Degrees,
        };
}
