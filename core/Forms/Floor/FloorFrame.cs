using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>
/// A stand as sixteen numbers. Left foot, then right: heel to the right of the start and ahead of it (foot-lengths),
/// toes (degrees), contact (place in <see cref="Contact"/>), load (per cent); then the hips (degrees), the chest's turn
/// against them, 1 when low, per cent of the seat's load on its left, and how far the left and the right heel are off
/// the floor (foot-lengths).
/// </summary>
public static class FloorFrame
{
    public const int Length = 16;

    public static IReadOnlyList<double> Of(Stand stand)
    {
        var frame = new double[Length];
        Write(stand, frame);
        return frame;
    }

    /// <summary>Writes the sixteen numbers where they are wanted: the page asks for hundreds of them at every
    /// keystroke.</summary>
    public static void Write(Stand stand, Span<double> frame)
    {
        WriteSole(stand.Left, frame);
        WriteSole(stand.Right, frame[5..]);
        (frame[10], frame[11], frame[12], frame[13]) = (stand.Hips, stand.Chest, stand.Low ? 1 : 0, stand.SeatLeft);
        (frame[14], frame[15]) = (Round(stand.Left.Up), Round(stand.Right.Up));
    }

    private static void WriteSole(Sole sole, Span<double> frame) =>
        (frame[0], frame[1], frame[2], frame[3], frame[4]) = (
            Round(sole.Heel.Right),
            Round(sole.Heel.Ahead),
            sole.Toes,
            (int)sole.Contact,
            sole.Load
        );

    /// <exception cref="FormatException">These are not sixteen numbers.</exception>
    public static Stand Read(IReadOnlyList<double> frame) =>
        frame.Count != Length
            ? throw new FormatException($"A frame has {Length} numbers, not {frame.Count}.")
            : new(
                ReadSole(frame, 0) with
                {
                    Up = frame[14],
                },
                ReadSole(frame, 5) with
                {
                    Up = frame[15],
                },
                (int)frame[10],
                (int)frame[11],
                frame[12] > 0,
                (int)frame[13]
            );

    private static Sole ReadSole(IReadOnlyList<double> frame, int at) =>
        new(new(frame[at], frame[at + 1]), (int)frame[at + 2], (Contact)(int)frame[at + 3], (int)frame[at + 4]);

    private static double Round(double length) => Math.Round(length, 3);
}
