using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>A rectangle on the floor, its sides along the form's zero; metres.</summary>
public readonly record struct Area(double Left, double Back, double Right, double Front)
{
    public double Width => Right - Left;
    public double Depth => Front - Back;

    public Area Grow(double by) => new(Left - by, Back - by, Right + by, Front + by);

    public static Area Around(Area a, Area b) =>
        new(Math.Min(a.Left, b.Left), Math.Min(a.Back, b.Back), Math.Max(a.Right, b.Right), Math.Max(a.Front, b.Front));
}

/// <summary>The floor somebody needs (domain.md 4.1, "Floor"): the soles of every moment with the reach of arms, and of
/// the leg where it kicks, all round. Metres.</summary>
/// <param name="Feet">The rectangle around every sole, without reach.</param>
/// <param name="Travelled">How far the middle between the feet went in all.</param>
/// <param name="FromHome">How far from the start the last stand is.</param>
public sealed record FloorNeed(Area Feet, Area Reach, double Travelled, double FromHome)
{
    public const double ArmReach = 0.75;
    public const double KickReach = 1.2;

    public static FloorNeed Of(FloorWalk walk, double footMetres, int turned = 0)
    {
        var feet = Around(Rotate(walk.Start, turned), footMetres);
        var reach = feet.Grow(ArmReach);
        var travelled = 0.0;
        foreach (var moment in walk.Beats.SelectMany(beat => beat.Moments))
        {
            var here = Around(Rotate(moment.After, turned), footMetres);
            feet = Area.Around(feet, here);
            reach = Area.Around(
                reach,
                here.Grow(moment.Action is StepAction.Move { Verb: FootVerb.Kick } ? KickReach : ArmReach)
            );
            travelled += (moment.After.Middle - moment.Before.Middle).Length * footMetres;
        }

        return new(feet, reach, travelled, (walk.End.Middle - walk.Start.Middle).Length * footMetres);
    }

    private static Stand Rotate(Stand stand, int degrees) => degrees == 0 ? stand : stand.Turned(degrees);

    private static Area Around(Stand stand, double footMetres) =>
        Area.Around(Around(stand.Left, footMetres), Around(stand.Right, footMetres));

    private static Area Around(Sole sole, double footMetres)
    {
        var (heel, tip) = (sole.Heel, sole.Tip);
        return new(
            (Math.Min(heel.Right, tip.Right) - Sole.HalfWidth) * footMetres,
            (Math.Min(heel.Ahead, tip.Ahead) - Sole.HalfWidth) * footMetres,
            (Math.Max(heel.Right, tip.Right) + Sole.HalfWidth) * footMetres,
            (Math.Max(heel.Ahead, tip.Ahead) + Sole.HalfWidth) * footMetres
        );
    }
}
