using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>A named way of standing (domain.md 2, "stance").</summary>
public enum Stance
{
    Bow,
    Empty,
    Horse,
    TStep,
    OneLeg,
    Drop,
    Crossed,
    V,
    Parallel,
    FollowStep,
}

/// <summary>How a posture begins or ends: the stance, the leading foot where it has one, and what the left foot
/// carries, per cent.</summary>
public sealed record Footing(Stance Stance, Side Leading, int LeftLoad)
{
    public Footing Mirror() => new(Stance, Forms.Mirror.Of(Leading), 100 - LeftLoad);

    /// <summary>The stance, leading foot and weight as a sentence says them: "bow, left foot leading, 70 %
    /// left".</summary>
    public string Say() =>
        string.Join(
            ", ",
            new[]
            {
                Name(Stance),
                Leading == Side.Symmetric ? "" : $"{Name(Leading)} foot leading",
                LeftLoad == 50 ? "weight even"
                : LeftLoad > 50 ? $"{LeftLoad} % left"
                : $"{100 - LeftLoad} % right",
            }.Where(part => part.Length > 0)
        );

    public static string Name(Stance stance) =>
        stance switch
        {
            Stance.TStep => "T-step",
            Stance.OneLeg => "one leg",
            Stance.FollowStep => "follow-step",
            Stance.V => "V stance",
            Stance.Parallel => "parallel",
            _ => stance.ToString().ToLowerInvariant(),
        };

    private static string Name(Side side) => side == Side.Left ? "left" : "right";

    /// <summary>
    /// What two feet on the floor amount to, along the direction the body points. A foot that is ahead makes a bow, an
    /// empty stance or, with nearly all weight on it, a follow-step; feet side by side are parallel, V, horse or T-step
    /// by width, toes and touch.
    /// </summary>
    public static Footing Of(Stand stand)
    {
        var (ahead, right) = stand.LeftSeenFromRight(stand.Hips);
        var lighter = stand.Left.Load <= stand.Right.Load ? Side.Left : Side.Right;
        var light = lighter == Side.Left ? stand.Left : stand.Right;
        if (light.InAir)
        {
            return new(Stance.OneLeg, lighter, stand.Left.Load);
        }

        var leading =
            Math.Abs(ahead) < SideBySide ? Side.Symmetric
            : ahead > 0 ? Side.Left
            : Side.Right;
        if (leading == Side.Symmetric)
        {
            return light.Load <= 10 && light.Contact is Contact.Toe or Contact.Ball
                ? new(Stance.TStep, lighter, stand.Left.Load)
                : new(BesideEachOther(stand, right), Side.Symmetric, stand.Left.Load);
        }

        var load = (leading == Side.Left ? stand.Left : stand.Right).Load;
        var stance =
            right > CrossedBy ? Stance.Crossed
            : load <= LightFoot ? (stand.Low && load >= LeastOfADrop ? Stance.Drop : Stance.Empty)
            : load >= HeavyFoot || Math.Abs(ahead) < LongStep ? Stance.FollowStep
            : Stance.Bow;
        return new(stance, leading, stand.Left.Load);
    }

    private static Stance BesideEachOther(Stand stand, double right)
    {
        var spread = Facing.FromDegrees(stand.Left.Toes).TurnTo(Facing.FromDegrees(stand.Right.Toes));
        return right > CrossedBy ? Stance.Crossed
            : -right >= HorseWidth ? Stance.Horse
            : spread >= 40 && -right < 0.8 ? Stance.V
            : Stance.Parallel;
    }

    private const double SideBySide = 0.75;
    private const double LongStep = 1.8;
    private const double HorseWidth = 1.7;
    private const double CrossedBy = 0.15;
    private const int LightFoot = 35;
    private const int LeastOfADrop = 10;
    private const int HeavyFoot = 85;
}
