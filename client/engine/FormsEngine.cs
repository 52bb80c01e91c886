using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using System.Runtime.Versioning;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

[assembly: SupportedOSPlatform("browser")]

namespace Zeitplan.Engine;

/// <summary>
/// Core's step notation and its two feet in the page, so that the picture follows every keystroke and every drag. It
/// keeps nothing: texts and numbers go in and come out. A stand is a <see cref="FloorFrame"/>; a foot is 0 for left and
/// 1 for right.
/// </summary>
public static partial class FormsEngine
{
    /// <summary>Lines that were read before: while somebody types, all but one are the same again.</summary>
    private static readonly Dictionary<string, IReadOnlyList<StepAction>> Known = [];

    private const int MostKnown = 4000;

    /// <summary>A text of step notation as it was understood: in plain words, written out in full, then line, column
    /// and message of each problem.</summary>
    [JSExport]
    public static string[] ReadSteps(string text)
    {
        var read = StepNotation.Parse(text);
        return
        [
            StepWords.Say(read.Actions),
            StepNotation.Print(read.Actions),
            .. read.Problems.SelectMany(problem => new[] { Text(problem.Line), Text(problem.Column), problem.Message }),
        ];
    }

    /// <summary>The same of a text of body notation.</summary>
    [JSExport]
    public static string[] ReadBody(string text)
    {
        var read = BodyNotation.Parse(text);
        return
        [
            BodyWords.Say(read.Actions),
            BodyNotation.Print(read.Actions),
            .. read.Problems.SelectMany(problem => new[] { Text(problem.Line), Text(problem.Column), problem.Message }),
        ];
    }

    [JSExport]
    public static string[] CompleteBody(string text) => [.. BodyCompletion.At(text)];

    /// <summary>The words that could stand at the end of a text of step notation.</summary>
    [JSExport]
    public static string[] Complete(string text) => [.. StepCompletion.At(text)];

    [JSExport]
    public static string MirrorSteps(string text) => StepNotation.Mirror(text);

    /// <summary>Two feet walked through counts: for each of them how many frames it has, then the frames.</summary>
    [JSExport]
    public static double[] Walk(double[] start, string[] counts, bool pivotOnBall)
    {
        var steps = counts.Select(Read).ToList();
        var numbers = new double[steps.Count + (steps.Sum(count => count.Count) * FloorFrame.Length)];
        var stand = FloorFrame.Read(start);
        var at = 0;
        foreach (var count in steps)
        {
            numbers[at++] = count.Count;
            foreach (var step in count)
            {
                stand = stand.After(step, On(pivotOnBall));
                FloorFrame.Write(stand, numbers.AsSpan(at));
                at += FloorFrame.Length;
            }
        }

        return numbers;
    }

    /// <summary>What the checks find in a run of counts: rule, severity, count (from 1, 0 where it starts), message, and its
    /// mends of each. A mend is its label, then count, feet and body of each count it writes anew, all apart by
    /// <see cref="Apart"/>; mends are apart by lines.</summary>
    /// <param name="breaths">What the breath does in each count.</param>
    /// <param name="measures">What the checkpoints measure.</param>
    [JSExport]
    public static string[] Check(
        string entry,
        string start,
        string[] feet,
        string[] bodies,
        string[] breaths,
        string[] measures,
        string mode,
        string rail,
        bool pivotOnBall,
        bool weightedPivots,
        bool handsSettleAfter
    )
    {
        var walk = BodyOf(entry, start, feet, bodies, mode, rail, pivotOnBall);
        return
        [
            .. PostureCheck
                .Run(
                    walk,
                    [
                        .. feet.Zip(bodies, breaths)
                            .Select(count => new Count("", count.First, Body: count.Second, Breath: count.Third)),
                    ],
                    [.. measures.Select(measure => new Checkpoint("", "", "", "", measure))],
                    Mode.FromName(mode) ?? Mode.Standing,
                    [],
                    Conventions.Default with
                    {
                        PivotOn = On(pivotOnBall),
                        WeightedPivots = weightedPivots,
                        HandsSettleAfter = handsSettleAfter,
                    }
                )
                .SelectMany(finding =>
                    new[]
                    {
                        finding.Rule.ToString(),
                        finding.Severity.ToString(),
                        Text(finding.Count),
                        finding.Message,
                        string.Join('\n', finding.Mends.Select(Write)),
                    }
                ),
        ];
    }

    private const char Apart = '\u001f';

    private static string Write(PostureMend mend) =>
        string.Join(
            Apart,
            mend.Edits.SelectMany(edit => new[] { Text(edit.Count), edit.Feet ?? "", edit.Body ?? "" })
                .Prepend(mend.Label)
        );

    /// <summary>What a run of counts asks of a body: known or not, then demand, count and because of each.</summary>
    [JSExport]
    public static string[] Asks(
        string entry,
        string start,
        string[] feet,
        string[] bodies,
        string[] words,
        string mode,
        string rail
    )
    {
        var asked = DerivedDemands.Of(
            entry,
            start,
            [
                .. feet.Zip(bodies, words)
                    .Select(count => new Count("", count.First, Body: count.Second, Hands: count.Third)),
            ],
            Mode.FromName(mode) ?? Mode.Standing,
            SideOf(rail),
            [],
            []
        );
        return
        [
            asked.IsKnown ? "known" : "",
            .. asked.Asks.SelectMany(one => new[] { one.Demand.ToString(), Text(one.Count ?? 0), one.Because }),
        ];
    }

    /// <summary>What a checkpoint measures on the end shape of a run of counts: a word when it is fulfilled, and what was
    /// measured; nothing where there is no measure.</summary>
    [JSExport]
    public static string[] Look(
        string entry,
        string start,
        string[] feet,
        string[] bodies,
        string measure,
        bool pivotOnBall
    ) =>
        PostureCheck
            .Measured(
                BodyOf(entry, start, feet, bodies, Mode.Standing.Name, "", pivotOnBall),
                [new Checkpoint("", "", "", "", measure)]
            )
            .FirstOrDefault()
            is { } measured
            ? [measured.Fulfilled ? "yes" : "", measured.Say()]
            : [];

    /// <summary>A text of the measure of a checkpoint, read as the others are.</summary>
    [JSExport]
    public static string[] ReadMeasure(string text)
    {
        var read = MeasureNotation.Parse(text);
        return
        [
            read.Measure is { } measure ? MeasureNotation.Say(measure) : "",
            read.Measure is { } printed ? MeasureNotation.Print(printed) : "",
            .. read.Problems.SelectMany(problem => new[] { Text(problem.Line), Text(problem.Column), problem.Message }),
        ];
    }

    [JSExport]
    public static string[] CompleteMeasure(string text) => [.. MeasureNotation.At(text)];

    /// <summary>Where two feet stand after an entry and counts, as a sentence says it.</summary>
    [JSExport]
    public static string EndsIn(double[] frame) => Footing.Of(FloorFrame.Read(frame)).Say();

    [JSExport]
    public static string MoveFoot(
        string steps,
        double[] before,
        bool pivotOnBall,
        int foot,
        double right,
        double ahead
    ) =>
        StepNotation.Print(
            StepEdit.MoveFoot(Read(steps), FloorFrame.Read(before), On(pivotOnBall), (Foot)foot, new(right, ahead))
        );

    [JSExport]
    public static string TurnFoot(string steps, double[] before, bool pivotOnBall, int foot, int toes) =>
        StepNotation.Print(
            StepEdit.TurnFoot(
                Read(steps),
                FloorFrame.Read(before),
                On(pivotOnBall),
                (Foot)foot,
                Facing.FromDegrees(toes)
            )
        );

    [JSExport]
    public static string WeighFoot(string steps, double[] before, bool pivotOnBall, int foot, int load) =>
        StepNotation.Print(StepEdit.WeighFoot(Read(steps), FloorFrame.Read(before), On(pivotOnBall), (Foot)foot, load));

    [JSExport]
    public static string TurnHips(string steps, double[] before, bool pivotOnBall, int hips) =>
        StepNotation.Print(
            StepEdit.TurnHips(Read(steps), FloorFrame.Read(before), On(pivotOnBall), Facing.FromDegrees(hips))
        );

    /// <summary>The figure of a run of counts: its box, then path, fill, edge and width of the edge of each shape, from
    /// the furthest to the nearest.</summary>
    /// <param name="mode">The name of the mode it is drawn in: what steadies it.</param>
    /// <param name="rail">The side a rail is on, left or right; before the body otherwise.</param>
    /// <param name="count">From 1; 0 is where it starts.</param>
    /// <param name="part">Of the way through the count.</param>
    /// <param name="view">One of the named views of the body as it faces in the end, turned by
    /// <paramref name="turned"/> degrees.</param>
    /// <param name="sash">Nothing for a sash that is nobody's.</param>
    [JSExport]
    public static string[] DrawFigure(
        string entry,
        string start,
        string[] feet,
        string[] bodies,
        string mode,
        string rail,
        bool pivotOnBall,
        int count,
        double part,
        string view,
        double turned,
        bool mirrored,
        string sash,
        bool night
    )
    {
        var walk = BodyOf(entry, start, feet, bodies, mode, rail, pivotOnBall);
        var at = Math.Clamp(count, 0, walk.Count);
        var seen = See(walk, view, turned, mirrored);
        if (boxed is not { } known || known.Walk != walk || known.View != seen)
        {
            boxed = known = (walk, seen, FigureBox.Of(walk, seen));
        }

        var picture = FigurePicture.Of(
            walk,
            at,
            part,
            seen,
            sash.Length > 0 ? sash : Figure.NobodysSash,
            night ? FigureColours.Night : FigureColours.Paper,
            known.Box
        );
        return
        [
            picture.Box.ToString(),
            .. picture.Shapes.SelectMany(shape =>
                new[] { shape.Path, shape.Fill, shape.Edge, shape.EdgeWidth.ToString(CultureInfo.InvariantCulture) }
            ),
        ];
    }

    /// <summary>Where both hands are on the picture, when a count ends: right and down of the left one, then of the right
    /// one.</summary>
    [JSExport]
    public static double[] HandsAt(
        string entry,
        string start,
        string[] feet,
        string[] bodies,
        string mode,
        string rail,
        bool pivotOnBall,
        int count,
        string view,
        double turned,
        bool mirrored
    )
    {
        var walk = BodyOf(entry, start, feet, bodies, mode, rail, pivotOnBall);
        var body = walk.After(Math.Clamp(count, 0, walk.Count));
        var seen = See(walk, view, turned, mirrored);
        var (left, right) = (seen.On(body.LeftArm.Palm), seen.On(body.RightArm.Palm));
        return [left.Right, left.Down, right.Right, right.Down];
    }

    /// <summary>The text of a count once a hand has been dragged to a point of the picture.</summary>
    /// <param name="hand">0 for the left one, 1 for the right one.</param>
    [JSExport]
    public static string MoveHand(
        string entry,
        string start,
        string[] feet,
        string[] bodies,
        string mode,
        string rail,
        bool pivotOnBall,
        int count,
        string view,
        double turned,
        bool mirrored,
        int hand,
        double x,
        double y
    )
    {
        var walk = BodyOf(entry, start, feet, bodies, mode, rail, pivotOnBall);
        return BodyEdit.MoveHand(
            walk,
            count,
            count == 0 ? start : bodies[count - 1],
            (Hand)hand,
            See(walk, view, turned, mirrored),
            x,
            y
        );
    }

    /// <summary>The same, one word higher or lower, outwards or inwards, ahead or back.</summary>
    [JSExport]
    public static string NudgeHand(
        string entry,
        string start,
        string[] feet,
        string[] bodies,
        string mode,
        string rail,
        bool pivotOnBall,
        int count,
        int hand,
        int up,
        int outwards,
        int ahead
    ) =>
        BodyEdit.Nudge(
            BodyOf(entry, start, feet, bodies, mode, rail, pivotOnBall),
            count,
            count == 0 ? start : bodies[count - 1],
            (Hand)hand,
            up,
            outwards,
            ahead
        );

    /// <summary>The text of a count once one thing is said of a hand: how the palm faces, its shape, what it holds.</summary>
    [JSExport]
    public static string SayOfHand(string text, int hand, string detail) => BodyEdit.Detail(text, (Hand)hand, detail);

    private static FigureView See(BodyWalk walk, string view, double turned, bool mirrored)
    {
        var named = FigureView.Named(view, walk.StandAfter(walk.Count).Hips, mirrored) ?? default;
        return named with { From = named.From + turned };
    }

    /// <summary>The joints that are elsewhere in the end shape of another run of counts: name and how far, centimetres, then
    /// right and down of where it is on the picture of the one, and of the other, for each.</summary>
    /// <param name="one">Entry, start, mode and rail.</param>
    /// <param name="other">The same of the other.</param>
    [JSExport]
    public static string[] Differ(
        string[] one,
        string[] feet,
        string[] bodies,
        string[] other,
        string[] otherFeet,
        string[] otherBodies,
        bool pivotOnBall,
        string view
    )
    {
        var here = BodyOf(one[0], one[1], feet, bodies, one[2], one[3], pivotOnBall);
        var there = BodyOf(other[0], other[1], otherFeet, otherBodies, other[2], other[3], pivotOnBall);
        var (seenHere, seenThere) = (See(here, view, 0, false), See(there, view, 0, false));
        return
        [
            .. BodyDifferences
                .Between(here.After(here.Count), there.After(there.Count))
                .SelectMany(joint =>
                {
                    var (from, to) = (seenHere.On(joint.Here), seenThere.On(joint.There));
                    return new[]
                    {
                        joint.Joint,
                        Text((int)Math.Round(joint.Apart * 100)),
                        Text((int)Math.Round(from.Right)),
                        Text((int)Math.Round(from.Down)),
                        Text((int)Math.Round(to.Right)),
                        Text((int)Math.Round(to.Down)),
                    };
                }),
        ];
    }

    /// <summary>Bodies that were drawn before: while one plays it is the same, frame after frame, and a page shows several.</summary>
    private static readonly Dictionary<string, BodyWalk> Walked = [];
    private const int MostWalked = 60;
    private static (BodyWalk Walk, FigureView View, FigureBox Box)? boxed;

    private static BodyWalk BodyOf(
        string entry,
        string start,
        string[] feet,
        string[] bodies,
        string mode,
        string rail,
        bool pivotOnBall
    )
    {
        var key = string.Join('\n', [entry, start, mode, rail, pivotOnBall ? "ball" : "heel", .. feet, "", .. bodies]);
        if (Walked.TryGetValue(key, out var known))
        {
            return known;
        }

        if (Walked.Count >= MostWalked)
        {
            Walked.Clear();
        }

        var walk = PostureBody.Of(
            entry,
            start,
            [.. feet.Zip(bodies, (steps, body) => new Count("", steps, Body: body))],
            AidKind.Of(Mode.FromName(mode) ?? Mode.Standing, SideOf(rail)),
            Conventions.Default with
            {
                PivotOn = On(pivotOnBall),
            },
            Physique.Standard
        );
        return Walked[key] = walk;
    }

    private static Side? SideOf(string rail) =>
        rail == "left" ? Side.Left
        : rail == "right" ? Side.Right
        : null;

    private static IReadOnlyList<StepAction> Read(string text)
    {
        if (Known.TryGetValue(text, out var steps))
        {
            return steps;
        }

        if (Known.Count >= MostKnown)
        {
            Known.Clear();
        }

        return Known[text] = StepNotation.Parse(text).Actions;
    }

    private static PivotOn On(bool ball) => ball ? PivotOn.Ball : PivotOn.Heel;

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
