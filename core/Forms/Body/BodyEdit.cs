using Zeitplan.Core.Forms.Figures;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Body;

/// <summary>A hand moved in the picture, or turned and shaped beside it, instead of written: what it changes of a count's
/// body notation.</summary>
public static class BodyEdit
{
    /// <summary>How much a change along the line of sight, which nobody sees, weighs against one across it.</summary>
    private const double Unseen = 0.4;

    /// <summary>Puts a hand at the place in words that is nearest to a point of the picture.</summary>
    /// <param name="count">From 1; 0 is where it starts.</param>
    /// <param name="x">Centimetres to the right and down, as the picture has them.</param>
    public static string MoveHand(BodyWalk walk, int count, string text, Hand hand, FigureView view, double x, double y)
    {
        var (body, projection) = (walk.After(count), view.Projection);
        var (_, _, near) = projection.Of(body.ArmOf(hand).Palm);
        return Change(
            text,
            hand,
            arm =>
                arm with
                {
                    Place = Places.MinBy(place =>
                    {
                        var (right, down, depth) = projection.Of(walk.PlaceAfter(count, hand, place));
                        var (dx, dy, dz) = (right - x, down - y, (depth - near) * 100 * Unseen);
                        return (dx * dx) + (dy * dy) + (dz * dz);
                    }),
                    Holds = arm.Holds is Holding.Nothing or null ? null : Holding.Nothing,
                }
        );
    }

    /// <summary>The next place in words from where a hand is: higher or lower, or to one side, or nearer and further.</summary>
    /// <param name="up">1 higher, -1 lower; likewise outwards and ahead.</param>
    public static string Nudge(BodyWalk walk, int count, string text, Hand hand, int up, int outwards, int ahead)
    {
        var place = walk.StateAfter(count)[hand].Place;
        return Change(
            text,
            hand,
            arm =>
                arm with
                {
                    Place = new(
                        Next(place.Height ?? Height.Chest, up),
                        Next(place.Line ?? Line.Own, outwards),
                        Next(place.Reach ?? Reach.Bent, ahead)
                    ),
                }
        );
    }

    /// <summary>A statement of body notation about one hand, without the hand: what it says is added to what the count says of
    /// it, or replaces that.</summary>
    /// <exception cref="FormatException">It is no body notation.</exception>
    public static string Detail(string text, Hand hand, string detail) =>
        BodyNotation.Read($"{(hand == Hand.Left ? "L" : "R")} {detail}") is [BodyAction.Arm said]
            ? Change(
                text,
                hand,
                arm =>
                    arm with
                    {
                        Palm = said.Palm ?? arm.Palm,
                        Fingers = said.Fingers ?? (said.Palm is null ? arm.Fingers : null),
                        Shape = said.Shape ?? arm.Shape,
                        Elbow = said.Elbow ?? arm.Elbow,
                        Holds = said.Holds ?? arm.Holds,
                    }
            )
            : throw new FormatException($"{detail} says nothing of one hand.");

    /// <summary>The text with what it says of a hand changed; what it says of everything else stays.</summary>
    private static string Change(string text, Hand hand, Func<BodyAction.Arm, BodyAction.Arm> change)
    {
        var actions = BodyNotation.Parse(text).Actions;
        var at = actions.ToList().FindLastIndex(action => action is BodyAction.Arm arm && arm.Hand == hand);
        var changed = change(at < 0 ? new(hand) : (BodyAction.Arm)actions[at]);
        return BodyNotation.Print(
            at < 0 ? [.. actions, changed] : [.. actions.Select((action, place) => place == at ? changed : action)]
        );
    }

    private static T Next<T>(T value, int by)
        where T : struct, Enum
    {
        var all = Enum.GetValues<T>();
        return all[Math.Clamp(Array.IndexOf(all, value) + by, 0, all.Length - 1)];
    }

    private static readonly HandPlace[] Places =
    [
        .. from height in Enum.GetValues<Height>()
        from line in Enum.GetValues<Line>()
        from reach in Enum.GetValues<Reach>()
        select new HandPlace(height, line, reach),
    ];
}
