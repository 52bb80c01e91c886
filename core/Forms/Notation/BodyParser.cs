using System.Globalization;
using Zeitplan.Core.Forms.Body;
using static Zeitplan.Core.Forms.Notation.BodyWord;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>Reads body notation by recursive descent: one statement at a time, each problem with its place.</summary>
internal sealed class BodyParser(string source)
{
    private const int MostChestTurn = 90;
    private const int MostLean = 60;
    private const int MostGaze = 120;
    private const int MostRise = 60;

    private readonly NotationText text = new(source);

    /// <summary>The last word was a palm that might still be said to face somewhere.</summary>
    private bool mayFace;

    public BodyText Run()
    {
        var (actions, problems) = text.Read(Statement);
        return new(actions, problems);
    }

    private IEnumerable<BodyAction> Statement()
    {
        var subject = text.Next(Subjects, "a hand, both, the chest, the trunk or the gaze");
        return subject switch
        {
            "L" => [ArmOf(Hand.Left)],
            "R" => [ArmOf(Hand.Right)],
            "both" => Both(ArmOf(Hand.Left)),
            "chest" =>
            [
                text.Take(Square) is null ? new BodyAction.Chest(Turn(MostChestTurn, Square)) : new BodyAction.Chest(0),
            ],
            "lean" => [Lean()],
            "upright" => [new BodyAction.Lean(0, 0)],
            "sink" => [new BodyAction.Rise(-Centimetres())],
            "rise" => [new BodyAction.Rise(Centimetres())],
            "level" => [new BodyAction.Rise(0)],
            _ => [Gaze()],
        };
    }

    private static IEnumerable<BodyAction> Both(BodyAction.Arm left) => [left, left with { Hand = Hand.Right }];

    private BodyAction.Arm ArmOf(Hand hand)
    {
        var arm = new BodyAction.Arm(hand);
        mayFace = false;
        while (!text.Ends)
        {
            arm = Detail(arm);
        }

        return arm == new BodyAction.Arm(hand)
            ? throw text.Missing(
                "Here should stand where the hand is, how it faces or its shape; the statement ends.",
                [.. Details.Select(word => word.Full)]
            )
            : arm;
    }

    private BodyAction.Arm Detail(BodyAction.Arm arm)
    {
        if (Place(arm.Place) is { } place)
        {
            return arm with { Place = place };
        }

        var detail = text.Next(
            Details,
            "a place, the palm, the fingers, a shape, a way or the end",
            mayFace ? Ways : []
        );
        mayFace = detail == "palm" && text.Peek(Ways) is null;
        switch (detail)
        {
            case "palm" when mayFace:
                return arm with { Shape = Once(arm.Shape, "shape", HandShape.Palm) };
            case "palm":
                return arm with { Palm = Once(arm.Palm, "palm", Aim()) };
            case "fingers":
                return arm with { Fingers = Once(arm.Fingers, "fingers", Aim()) };
            case "elbow":
                return arm with
                {
                    Elbow = Once(arm.Elbow, "elbow", Read<Elbow>(text.Next(Elbows, "how the elbow hangs"))),
                };
            case "hold":
                return arm with { Holds = Once(arm.Holds, "hold", Read<Holding>(text.Next(Held, "what is held"))) };
            case "free":
                return arm with { Holds = Once(arm.Holds, "hold", Holding.Nothing) };
            case "via" when arm.First is null:
                return arm with { First = PassingOf() };
            case "via":
                return arm with { Then = Once(arm.Then, "second way", PassingOf()) };
            default:
                return arm with { Shape = Once(arm.Shape, "shape", Read<HandShape>(detail)) };
        }
    }

    /// <summary>One more word of a place, or null when what follows is none.</summary>
    private HandPlace? Place(HandPlace place)
    {
        if (text.Take(Relations) is { } relation)
        {
            if (!place.IsEmpty)
            {
                throw text.Unreadable("A hand is at a height or against something, not both.", []);
            }

            var other = text.Take(OtherSide) is not null;
            var landmark = Read<Landmark>(text.Next(Landmarks, "against what", OtherSide));
            return new(Against: new(Read<Relation>(relation), landmark, other && landmark >= Landmark.Ear));
        }

        if ((text.Peek(Heights) ?? text.Peek(Lines) ?? text.Peek(Reaches)) is not { } word)
        {
            return null;
        }

        if (place.Against is not null)
        {
            throw text.Unreadable("A hand is at a height or against something, not both.", []);
        }

        return text.Take(Heights) is { } height
                ? place with
                {
                    Height = Once(place.Height, "height", Read<Height>(height)),
                }
            : text.Take(Lines) is { } line ? place with { Line = Once(place.Line, "line", Read<Line>(line)) }
            : place with { Reach = Once(place.Reach, "reach", Read<Reach>(text.Next(Reaches, word))) };
    }

    private Passing PassingOf()
    {
        if (text.Take(Arcs) is not null)
        {
            return new(default, Read<Way>(text.Next(Ways, "which way the arc bulges")));
        }

        HandPlace place = default;
        while (!text.Ends && place.Against is null && Place(place) is { } more)
        {
            place = more;
        }

        return place.IsEmpty
            ? throw text.Missing(
                "Here should stand by where the hand goes: a place, or an arc.",
                [.. Arcs.Concat(Relations).Concat(Heights).Select(word => word.Full)]
            )
            : new(place);
    }

    private Aim Aim()
    {
        var first = Read<Way>(text.Next(Ways, "which way it faces"));
        if (!text.TakeSign('-'))
        {
            return new(first);
        }

        var corner = new Aim(first, Read<Way>(text.Next(Ways, "the other way of the corner")));
        return corner.IsCorner ? corner : throw text.Unreadable("There is no corner between these two ways.", []);
    }

    private BodyAction.Lean Lean()
    {
        var lean = new BodyAction.Lean(0, 0);
        do
        {
            var way = text.Next(Leans, "which way the trunk leans");
            var degrees = Degrees(MostLean);
            lean = way switch
            {
                "front" or "back" => lean with { Forward = way == "front" ? degrees : -degrees },
                _ => lean with { Right = way == "right" ? degrees : -degrees },
            };
        } while (!text.Ends);

        return lean;
    }

    private BodyAction Gaze()
    {
        var hand = text.Take(Hands);
        if (hand is not null && !text.HasNumber)
        {
            return new BodyAction.GazeAtHand(hand == "L" ? Hand.Left : Hand.Right);
        }

        var turn =
            hand is not null ? Degrees(MostGaze) * (hand == "L" ? -1 : 1)
            : text.Take(Ahead) is not null ? 0
            : Turn(MostGaze, [.. Ahead, .. Hands]);
        return new BodyAction.Gaze(
            turn,
            text.Take(Levels) switch
            {
                "up" => 1,
                "down" => -1,
                _ => 0,
            }
        );
    }

    private int Turn(int most, Word[] also)
    {
        var side = text.Next(Turns, "a direction", also);
        return Degrees(most) * (side == "left" ? -1 : 1);
    }

    private int Degrees(int most) =>
        text.Whole(
            "degrees",
            "45",
            most,
            degrees => $"{Shown(degrees)} degrees: whole degrees up to {most} are possible here."
        );

    private int Centimetres() =>
        text.Whole(
            "centimetres",
            "5",
            MostRise,
            length => $"{Shown(length)} centimetres: whole centimetres up to {MostRise} are possible."
        );

    private static string Shown(decimal number) => number.ToString(CultureInfo.InvariantCulture);

    private T Once<T>(T? before, string detail, T value)
        where T : struct => before is null ? value : throw text.Unreadable($"There is a {detail} already.", []);
}
