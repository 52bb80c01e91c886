namespace Zeitplan.Core.Forms.Body;

/// <summary>The lengths of somebody, in metres, in proportion to their height.</summary>
public sealed record Physique(double Height)
{
    /// <summary>What the usual proportions are given for.</summary>
    private const double Usual = 1.70;

    private readonly double ofUsual = Height / Usual;

    /// <summary>Somebody whose foot is the school's usual foot of 0.26 m.</summary>
    public static Physique Standard { get; } = new(Usual);

    /// <summary>Somebody whose foot is this long.</summary>
    public static Physique OfFoot(double metres) => new(metres / 0.26 * Usual);

    public double Foot => Of(0.26);
    public double AnkleUp => Of(0.07);
    public double Shank => Of(0.42);
    public double Thigh => Of(0.43);
    public double HalfHips => Of(0.095);
    public double Torso => Of(0.47);
    public double HalfShoulders => Of(0.185);
    public double UpperArm => Of(0.285);
    public double Forearm => Of(0.25);
    public double PalmFromWrist => Of(0.085);
    public double Hand => Of(0.17);
    public double NeckToHead => Of(0.18);
    public double HeadRadius => Of(0.105);

    /// <summary>The hips above the floor with the knees soft; on one leg; in a drop stance; on a chair.</summary>
    public double UsualHips => Of(0.86);
    public double OneLegHips => Of(0.875);
    public double LowHips => Of(0.5);
    public double SeatUp => Of(0.47);
    public double RailUp => Of(0.88);

    /// <summary>Nobody stands or reaches on locked joints.</summary>
    public const double LongestOfALimb = 0.98;

    /// <summary>How far above the hips a height of the trunk is; the knee's is where the knee is.</summary>
    public double AboveHips(Height height) =>
        Of(
            height switch
            {
                Body.Height.Knee => -0.36,
                Body.Height.Thigh => -0.15,
                Body.Height.Hip => 0.0,
                Body.Height.Navel => 0.13,
                Body.Height.Chest => 0.33,
                Body.Height.Shoulder => 0.47,
                Body.Height.Chin => 0.56,
                Body.Height.Ear => 0.65,
                Body.Height.Brow => 0.71,
                _ => 0.82,
            }
        );

    /// <summary>How far to its own side of the centre line a hand is.</summary>
    public double Aside(Line line) =>
        Of(
            line switch
            {
                Line.Across => -0.14,
                Line.Centre => 0.0,
                Line.Own => 0.19,
                Line.Outside => 0.36,
                _ => 0.56,
            }
        );

    /// <summary>How far ahead of the line of the shoulders a hand is.</summary>
    public double Ahead(Reach reach) =>
        Of(
            reach switch
            {
                Reach.Rear => -0.18,
                Reach.Side => 0.02,
                Reach.Near => 0.17,
                Reach.Bent => 0.34,
                _ => 0.5,
            }
        );

    public double Of(double metres) => metres * ofUsual;
}
