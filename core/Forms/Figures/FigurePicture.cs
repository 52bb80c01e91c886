using System.Globalization;
using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Figures;

/// <summary>The part of the picture's plane a figure needs, in centimetres.</summary>
public readonly record struct FigureBox(double Left, double Top, double Width, double Height)
{
    private const double Margin = 16;

    /// <summary>Room for the body at the end of every count, so that a figure that moves does not jump.</summary>
    public static FigureBox Of(BodyWalk walk, FigureView view) =>
        Of(Enumerable.Range(0, walk.Count + 1).Select(walk.After), view);

    /// <summary>Room for these bodies.</summary>
    public static FigureBox Of(IEnumerable<Skeleton> bodies, FigureView view)
    {
        var projection = view.Projection;
        var (left, right, top, down) = (double.MaxValue, double.MinValue, double.MaxValue, double.MinValue);
        foreach (var body in bodies)
        {
            foreach (var point in Points(body))
            {
                var (x, y, _) = projection.Of(point);
                (left, right) = (Math.Min(left, x), Math.Max(right, x));
                (top, down) = (Math.Min(top, y), Math.Max(down, y));
            }
        }

        return new(left - Margin, top - Margin, right - left + (2 * Margin), down - top + (2 * Margin));
    }

    /// <summary>Room for both.</summary>
    public FigureBox With(FigureBox other)
    {
        var (left, top) = (Math.Min(Left, other.Left), Math.Min(Top, other.Top));
        return new(
            left,
            top,
            Math.Max(Left + Width, other.Left + other.Width) - left,
            Math.Max(Top + Height, other.Top + other.Height) - top
        );
    }

    public override string ToString() =>
        string.Create(CultureInfo.InvariantCulture, $"{Left:0.#} {Top:0.#} {Width:0.#} {Height:0.#}");

    private static Vector[] Points(Skeleton body) =>
        [
            body.Head,
            body.Trunk.Pelvis,
            body.LeftArm.Elbow,
            body.LeftArm.Tip,
            body.RightArm.Elbow,
            body.RightArm.Tip,
            body.LeftLeg.Knee,
            body.LeftLeg.Heel with
            {
                Up = 0,
            },
            body.LeftLeg.Toes,
            body.RightLeg.Knee,
            body.RightLeg.Heel with
            {
                Up = 0,
            },
            body.RightLeg.Toes,
        ];
}

/// <summary>A figure within its box: at the end of a count or on the way to it.</summary>
public sealed record FigurePicture(FigureBox Box, IReadOnlyList<FigureShape> Shapes)
{
    /// <summary>How a count ends, alone, with no more room than it takes, on paper and with nobody's sash.</summary>
    public static FigurePicture Small(BodyWalk walk, int count, FigureView view) =>
        Of(walk, count, 1, view, Figure.NobodysSash, FigureColours.Paper, FigureBox.Of([walk.After(count)], view));

    /// <param name="count">From 1; 0 is where it starts.</param>
    /// <param name="part">Of the way through the count; 1 is its end.</param>
    /// <param name="box">Where it is known already: the same for every moment of a walk seen from one side.</param>
    public static FigurePicture Of(
        BodyWalk walk,
        int count,
        double part,
        FigureView view,
        string sash,
        FigureColours colours,
        FigureBox? box = null
    ) =>
        new(
            box ?? FigureBox.Of(walk, view),
            Figure.Draw(
                count == 0 || part >= 1 ? walk.After(count) : walk.Within(count, part),
                view,
                walk.Physique,
                sash,
                colours
            )
        );
}
