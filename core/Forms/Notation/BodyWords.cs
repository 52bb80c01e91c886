using Zeitplan.Core.Forms.Body;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>Body notation read back in plain words, for sheets and for whoever never learns the notation.</summary>
public static class BodyWords
{
    public static string Say(IReadOnlyList<BodyAction> actions) =>
        string.Join(
            "; ",
            BodyNotation
                .Paired(actions)
                .Select(one => one.Both ? $"both hands{Details((BodyAction.Arm)one.Action)}" : Say(one.Action))
        );

    /// <summary>Only what the hands do, as the layer of that name.</summary>
    public static string Hands(IReadOnlyList<BodyAction> actions) =>
        Say([.. actions.Where(action => action is BodyAction.Arm)]);

    /// <summary>Only what the trunk does: the layer called waist.</summary>
    public static string Waist(IReadOnlyList<BodyAction> actions) =>
        Say([.. actions.Where(action => action is BodyAction.Chest or BodyAction.Lean or BodyAction.Rise)]);

    public static string Gaze(IReadOnlyList<BodyAction> actions) =>
        Say([.. actions.Where(action => action is BodyAction.Gaze or BodyAction.GazeAtHand)]);

    public static string Say(BodyAction action) =>
        action switch
        {
            BodyAction.Arm arm => $"{Name(arm.Hand)} hand{Details(arm)}",
            BodyAction.Chest { Turn: 0 } => "chest over the hips",
            BodyAction.Chest chest => $"chest {Turn(chest.Turn)} of the hips",
            BodyAction.Lean { Forward: 0, Right: 0 } => "trunk upright",
            BodyAction.Lean lean => string.Join(
                ", ",
                new[]
                {
                    lean.Forward == 0
                        ? ""
                        : $"trunk leans {Math.Abs(lean.Forward)}° {(lean.Forward > 0 ? "forward" : "back")}",
                    lean.Right == 0 ? "" : $"trunk leans {Turn(lean.Right)}",
                }.Where(part => part.Length > 0)
            ),
            BodyAction.Rise { Centimetres: 0 } => "at the usual height",
            BodyAction.Rise rise =>
                $"body {Math.Abs(rise.Centimetres)} cm {(rise.Centimetres > 0 ? "higher" : "lower")}",
            BodyAction.GazeAtHand gaze => $"eyes on the {Name(gaze.Hand)} hand",
            BodyAction.Gaze gaze => $"eyes {(gaze.Turn == 0 ? "ahead" : Turn(gaze.Turn))}{Up(gaze.Up)}",
            _ => throw new ArgumentOutOfRangeException(nameof(action)),
        };

    private static string Details(BodyAction.Arm arm)
    {
        var hand = string.Join(
            ", ",
            new[]
            {
                arm.Shape is { } shape ? Say(shape) : "",
                arm.Palm is { } palm ? $"palm {Say(palm)}" : "",
                arm.Fingers is { } fingers ? $"fingers {Say(fingers)}" : "",
                arm.Elbow switch
                {
                    Elbow.Down => "elbow hanging",
                    Elbow.Out => "elbow rounded out",
                    Elbow.Up => "elbow raised",
                    _ => "",
                },
                Ways(arm),
            }.Where(part => part.Length > 0)
        );
        var where =
            arm.Holds switch
            {
                Holding.Rail => " holds the rail",
                Holding.Chair => " holds the edge of the chair",
                Holding.Frame => " holds the frame",
                Holding.Nothing => " lets go",
                _ => "",
            } + (arm.Place.IsEmpty ? "" : $" {Say(arm.Place)}");
        return where
            + (
                hand.Length == 0 ? ""
                : where.Length == 0 ? $": {hand}"
                : $", {hand}"
            );
    }

    private static string Ways(BodyAction.Arm arm) =>
        arm.First is not { } first ? ""
        : arm.Then is { } then ? $"{Say(first)}, then {Say(then)}"
        : Say(first);

    private static string Say(Passing by) =>
        by.Arc is { } arc ? $"on an arc {Say(new Aim(arc))}" : $"by way of {Say(by.Place, at: "")}";

    private static string Say(HandPlace place, string at = "at ")
    {
        if (place.Against is { } against)
        {
            var relation = BodyWord.Name(against.Relation);
            var landmark = BodyWord.Name(against.Landmark);
            return against.Landmark <= Landmark.Elbow || against.Other
                ? $"{relation} the other {landmark}"
                : $"{relation} its own {landmark}";
        }

        return string.Join(
            ", ",
            new[]
            {
                place.Height is { } height ? $"{at}{BodyWord.Name(height)} height" : "",
                place.Line switch
                {
                    Line.Across => "beyond the centre line",
                    Line.Centre => "on the centre line",
                    Line.Own => "before its own shoulder",
                    Line.Outside => "outside its shoulder",
                    Line.Wide => "wide to its side",
                    _ => "",
                },
                place.Reach switch
                {
                    Reach.Rear => "behind the body",
                    Reach.Side => "beside the body",
                    Reach.Near => "near",
                    Reach.Bent => "the arm bent",
                    Reach.Long => "the arm long",
                    _ => "",
                },
            }.Where(part => part.Length > 0)
        );
    }

    private static string Say(HandShape shape) =>
        shape switch
        {
            HandShape.Palm => "open",
            HandShape.Fist => "a fist",
            HandShape.Hook => "a hook",
            _ => "loose",
        };

    private static string Say(Aim aim) =>
        aim.Second is { } second ? $"{Say(aim.First)} and {Say(second)}" : Say(aim.First);

    private static string Say(Way way) =>
        way switch
        {
            Way.Front => "forward",
            Way.In => "inward",
            Way.Out => "outward",
            _ => BodyWord.Name(way),
        };

    private static string Turn(int degrees) => $"{Math.Abs(degrees)}° {(degrees < 0 ? "left" : "right")}";

    private static string Up(int up) =>
        up switch
        {
            > 0 => " and up",
            < 0 => " and down",
            _ => "",
        };

    private static string Name(Hand hand) => hand == Hand.Left ? "left" : "right";
}
