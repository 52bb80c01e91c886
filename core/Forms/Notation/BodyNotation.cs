using Zeitplan.Core.Forms.Body;
using static Zeitplan.Core.Forms.Notation.BodyWord;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>A text of body notation as it was understood: all its statements, or the first thing wrong in each that could
/// not be read.</summary>
public sealed record BodyText(IReadOnlyList<BodyAction> Actions, IReadOnlyList<NotationProblem> Problems);

/// <summary>Hands, trunk and gaze of a count as text (docs/body-notation.md). Printing what was parsed and parsing what
/// was printed give the same body.</summary>
public static class BodyNotation
{
    /// <summary>Reads a text; statements end with a semicolon or a line. What cannot be read is reported and left out,
    /// the rest is understood.</summary>
    public static BodyText Parse(string text) => new BodyParser(text).Run();

    /// <exception cref="FormatException">The text is not body notation; the message is its first problem.</exception>
    public static IReadOnlyList<BodyAction> Read(string text) =>
        Parse(text) is { Problems: [] } good
            ? good.Actions
            : throw new FormatException($"{text}: {Parse(text).Problems[0].Message}");

    public static string Print(IReadOnlyList<BodyAction> actions) =>
        string.Join(
            "; ",
            Paired(actions).Select(one => one.Both ? $"both{Details((BodyAction.Arm)one.Action)}" : Print(one.Action))
        );

    /// <summary>The statements, two hands that do the same one after the other as one that is both.</summary>
    internal static IEnumerable<(BodyAction Action, bool Both)> Paired(IReadOnlyList<BodyAction> actions)
    {
        for (var at = 0; at < actions.Count; at++)
        {
            var both =
                actions[at] is BodyAction.Arm { Hand: Hand.Left } left
                && at + 1 < actions.Count
                && actions[at + 1].Equals(left with { Hand = Hand.Right });
            yield return (actions[at], both);
            at += both ? 1 : 0;
        }
    }

    /// <summary>The text on the other side. What cannot be read is left out.</summary>
    public static string Mirror(string text) => Print(Mirror(Parse(text).Actions));

    /// <summary>The statements on the other side, the left hand before the right one as before.</summary>
    public static IReadOnlyList<BodyAction> Mirror(IReadOnlyList<BodyAction> actions)
    {
        var mirrored = actions.Select(action => action.Mirror()).ToArray();
        for (var at = 0; at + 1 < mirrored.Length; at++)
        {
            // Both hands are the left and the right one, in this order, on either side.
            if (
                mirrored[at] is BodyAction.Arm { Hand: Hand.Right } right
                && mirrored[at + 1].Equals(right with { Hand = Hand.Left })
            )
            {
                (mirrored[at], mirrored[at + 1]) = (mirrored[at + 1], mirrored[at]);
                at++;
            }
        }

        return mirrored;
    }

    public static string Print(BodyAction action) =>
        action switch
        {
            BodyAction.Arm arm => (arm.Hand == Hand.Left ? "L" : "R") + Details(arm),
            BodyAction.Chest { Turn: 0 } => "chest square",
            BodyAction.Chest chest => $"chest {Turn(chest.Turn)}",
            BodyAction.Lean { Forward: 0, Right: 0 } => "upright",
            BodyAction.Lean lean => "lean"
                + Degrees(lean.Forward, "front", "back")
                + Degrees(lean.Right, "right", "left"),
            BodyAction.Rise { Centimetres: 0 } => "level",
            BodyAction.Rise rise => $"{(rise.Centimetres > 0 ? "rise" : "sink")} {Math.Abs(rise.Centimetres)}",
            BodyAction.GazeAtHand gaze => $"gaze {(gaze.Hand == Hand.Left ? "L" : "R")}",
            BodyAction.Gaze gaze => string.Join(
                ' ',
                new[]
                {
                    "gaze",
                    gaze.Turn == 0 ? "ahead" : Turn(gaze.Turn),
                    gaze.Up > 0 ? "up"
                    : gaze.Up < 0 ? "down"
                    : "",
                }.Where(word => word.Length > 0)
            ),
            _ => throw new ArgumentOutOfRangeException(nameof(action)),
        };

    private static string Details(BodyAction.Arm arm) =>
        string.Concat(
            Words(arm.Place)
                .Concat(arm.Palm is { } palm ? ["palm", Print(palm)] : [])
                .Concat(arm.Fingers is { } fingers ? ["fingers", Print(fingers)] : [])
                .Concat(arm.Shape is { } shape ? [Name(shape)] : [])
                .Concat(arm.Elbow is { } elbow ? ["elbow", Name(elbow)] : [])
                .Concat(
                    arm.Holds is not { } held ? []
                    : held == Holding.Nothing ? ["free"]
                    : ["hold", Name(held)]
                )
                .Concat(Words(arm.First))
                .Concat(Words(arm.Then))
                .Select(word => " " + word)
        );

    private static IEnumerable<string> Words(Passing? passing) =>
        passing is not { } by ? []
        : by.Arc is { } arc ? ["via", "arc", Name(arc)]
        : ["via", .. Words(by.Place)];

    private static IEnumerable<string> Words(HandPlace place)
    {
        if (place.Against is { } against)
        {
            yield return Name(against.Relation);
            if (against.Other)
            {
                yield return "other";
            }

            yield return Name(against.Landmark);
        }

        if (place.Height is { } height)
        {
            yield return Name(height);
        }

        if (place.Line is { } line)
        {
            yield return Name(line);
        }

        if (place.Reach is { } reach)
        {
            yield return Name(reach);
        }
    }

    private static string Print(Aim aim) =>
        aim.Second is { } second ? $"{Name(aim.First)}-{Name(second)}" : Name(aim.First);

    private static string Turn(int degrees) => $"{(degrees < 0 ? "left" : "right")} {Math.Abs(degrees)}";

    private static string Degrees(int degrees, string positive, string negative) =>
        degrees == 0 ? "" : $" {(degrees > 0 ? positive : negative)} {Math.Abs(degrees)}";
}
