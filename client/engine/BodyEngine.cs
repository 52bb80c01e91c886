using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Figures;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Engine;

/// <summary>
/// The body above the feet: checked, asked what it asks for, drawn, and moved by its hands. A run of counts comes as one
/// text, because every text that crosses from the page costs; see <see cref="Run"/>.
/// </summary>
public static partial class FormsEngine
{
    /// <summary>What the checks find in a run of counts: rule, severity, count (from 1, 0 where it starts), message, and its
    /// mends of each. A mend is its label, then count, feet and body of each count it writes anew, all apart by
    /// <see cref="Run.Apart"/>; mends are apart by lines.</summary>
    /// <param name="breaths">What the breath does in each count.</param>
    /// <param name="measures">What the checkpoints measure.</param>
    [JSExport]
    public static string[] Check(
        string run,
        string[] breaths,
        string[] measures,
        bool weightedPivots,
        bool handsSettleAfter
    )
    {
        var known = Walked(run);
        return Say(
            PostureCheck.Run(
                known.Walk,
                [.. known.Of.Counts.Zip(breaths, (count, breath) => count with { Breath = breath })],
                [.. measures.Select(measure => new Checkpoint("", "", "", "", measure))],
                known.Of.Mode,
                [],
                Ways(known.Of, weightedPivots, handsSettleAfter)
            )
        );
    }

    /// <summary>What the checks find on the way back of a run of counts that is practised as a loop, as <see cref="Check"/>
    /// tells it: as the count after the last.</summary>
    /// <param name="loop">The return and what hands, trunk and gaze do meanwhile.</param>
    [JSExport]
    public static string[] CheckLoop(string run, string[] loop, bool weightedPivots, bool handsSettleAfter)
    {
        var of = Run.Read(run);
        return Say(
            LoopCheck.Run(
                of.Entry,
                of.Start,
                of.Counts,
                new("", loop[0], loop[1]),
                [],
                Ways(of, weightedPivots, handsSettleAfter)
            )
        );
    }

    private static Conventions Ways(Run of, bool weightedPivots, bool handsSettleAfter) =>
        of.Ways with
        {
            WeightedPivots = weightedPivots,
            HandsSettleAfter = handsSettleAfter,
        };

    private static string[] Say(IEnumerable<PostureFinding> findings) =>
        [
            .. findings.SelectMany(finding =>
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

    private static string Write(PostureMend mend) =>
        string.Join(
            Run.Apart,
            mend.Edits.SelectMany(edit => new[] { Text(edit.Count), edit.Feet ?? "", edit.Body ?? "" })
                .Prepend(mend.Label)
        );

    /// <summary>What a run of counts asks of a body: known or not, then demand, count and because of each.</summary>
    [JSExport]
    public static string[] Asks(string run, string[] words)
    {
        var of = Run.Read(run);
        var asked = DerivedDemands.Of(
            of.Entry,
            of.Start,
            [.. of.Counts.Zip(words, (count, said) => count with { Hands = said })],
            of.Mode,
            of.Rail,
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
    public static string[] Look(string run, string measure) =>
        PostureCheck.Measured(BodyOf(run), [new Checkpoint("", "", "", "", measure)]).FirstOrDefault() is { } measured
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
            .. read.Problems.SelectMany(problem => new[] { Text(problem.Line), Text(problem.Column), problem.Message }),
        ];
    }

    [JSExport]
    public static string[] CompleteMeasure(string text) => [.. MeasureNotation.At(text)];

    /// <summary>The figure of a run of counts: its box, then path, fill, edge and width of the edge of each shape, from
    /// the furthest to the nearest, a line each.</summary>
    /// <param name="count">From 1; 0 is where it starts.</param>
    /// <param name="part">Of the way through the count.</param>
    /// <param name="view">One of the named views of the body as it faces in the end, turned by
    /// <paramref name="turned"/> degrees.</param>
    /// <param name="sash">Nothing for a sash that is nobody's.</param>
    [JSExport]
    public static string DrawFigure(
        string run,
        int count,
        double part,
        string view,
        double turned,
        bool mirrored,
        string sash,
        bool night
    )
    {
        var (of, walk) = Walked(run);
        var at = Math.Clamp(count, 0, walk.Count);
        var seen = See(walk, view, turned, mirrored);
        var box = BoxOf(of, walk, at, seen);
        var picture = FigurePicture.Of(
            walk,
            at,
            part,
            seen,
            sash.Length > 0 ? sash : Figure.NobodysSash,
            night ? FigureColours.Night : FigureColours.Paper,
            box
        );
        var lines = new List<string>(1 + (4 * picture.Shapes.Count)) { picture.Box.ToString() };
        foreach (var shape in picture.Shapes)
        {
            lines.AddRange([
                shape.Path,
                shape.Fill,
                shape.Edge,
                shape.EdgeWidth.ToString(CultureInfo.InvariantCulture),
            ]);
        }

        return string.Join('\n', lines);
    }

    /// <summary>Where both hands are on the picture, when a count ends: right and down of the left one, then of the right
    /// one.</summary>
    [JSExport]
    public static double[] HandsAt(string run, int count, string view, double turned, bool mirrored)
    {
        var walk = BodyOf(run);
        var body = walk.After(Math.Clamp(count, 0, walk.Count));
        var seen = See(walk, view, turned, mirrored);
        var (left, right) = (seen.On(body.LeftArm.Palm), seen.On(body.RightArm.Palm));
        return [left.Right, left.Down, right.Right, right.Down];
    }

    /// <summary>The text of a count once a hand has been dragged to a point of the picture.</summary>
    /// <param name="hand">0 for the left one, 1 for the right one.</param>
    [JSExport]
    public static string MoveHand(
        string run,
        int count,
        string view,
        double turned,
        bool mirrored,
        int hand,
        double x,
        double y
    )
    {
        var known = Walked(run);
        return BodyEdit.MoveHand(
            known.Walk,
            count,
            known.Of.BodyOf(count),
            (Hand)hand,
            See(known.Walk, view, turned, mirrored),
            x,
            y
        );
    }

    /// <summary>The same, one word higher or lower, outwards or inwards, ahead or back.</summary>
    [JSExport]
    public static string NudgeHand(string run, int count, int hand, int up, int outwards, int ahead)
    {
        var known = Walked(run);
        return BodyEdit.Nudge(known.Walk, count, known.Of.BodyOf(count), (Hand)hand, up, outwards, ahead);
    }

    /// <summary>How a hand is when a count ends, in the words it is written in: where the palm faces, where the fingers point,
    /// its shape, how the elbow hangs, what it holds. A corner between two ways is nothing.</summary>
    [JSExport]
    public static string[] HandSaid(string run, int count, int hand)
    {
        var walk = BodyOf(run);
        var said = walk.StateAfter(Math.Clamp(count, 0, walk.Count))[(Hand)hand];
        static string Word<T>(T name)
            where T : struct, Enum => name.ToString().ToLowerInvariant();
        static string Way(Aim aim) => aim.Second is null ? Word(aim.First) : "";
        return [Way(said.Palm), Way(said.Fingers), Word(said.Shape), Word(said.Elbow), Word(said.Holds)];
    }

    /// <summary>The text of a count once one thing is said of a hand: how the palm faces, its shape, what it holds.</summary>
    [JSExport]
    public static string SayOfHand(string text, int hand, string detail) => BodyEdit.Detail(text, (Hand)hand, detail);

    /// <summary>A run of counts once round as a loop: the feet of every count, then the body of every count.</summary>
    /// <param name="back">The feet of its return, and what hands, trunk and gaze do meanwhile.</param>
    [JSExport]
    public static string[] Round(string run, string[] back)
    {
        var of = Run.Read(run);
        var round = new Loop("", back[0], back[1]).Round(of.Entry, of.Counts, of.Ways);
        return [.. round.Select(count => count.Feet), .. round.Select(count => count.Body)];
    }

    private static FigureView See(BodyWalk walk, string view, double turned, bool mirrored)
    {
        var named = FigureView.Named(view, walk.StandAfter(walk.Count).Hips, mirrored) ?? default;
        return named with { From = named.From + turned };
    }

    /// <summary>The joints that are elsewhere in the end shape of another run of counts: name and how far, centimetres, then
    /// right and down of where it is on the picture of the one, and of the other, for each.</summary>
    [JSExport]
    public static string[] Differ(string run, string otherRun, string view)
    {
        var here = BodyOf(run);
        var there = BodyOf(otherRun);
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

    /// <summary>Runs that were drawn before: while one plays it is the same, frame after frame, and a page shows
    /// several.</summary>
    private static readonly Dictionary<string, (Run Of, BodyWalk Walk)> Drawn = [];
    private const int MostDrawn = 60;

    /// <summary>The last body on each run of steps: whoever writes what the hands do changes one count of many.</summary>
    private static readonly Dictionary<string, BodyWalk> OnSteps = [];
    private static readonly Dictionary<string, IReadOnlyList<BodyAction>> ReadBodies = [];
    private const int MostReadBodies = 400;

    /// <summary>The room of the last figure. It is roomy where it was made for what was written before.</summary>
    private static (BodyWalk Walk, FigureView View, string Steps, FigureBox Box, bool IsRoomy)? boxed;

    /// <summary>Room for every count. While somebody writes, the room stays as it is and grows only for the count that is shown:
    /// the picture holds still, and the other counts need not be reckoned for every key.</summary>
    private static FigureBox BoxOf(Run of, BodyWalk walk, int count, FigureView seen)
    {
        if (boxed is { } known && known.View == seen)
        {
            if (known.Walk == walk && !known.IsRoomy)
            {
                return known.Box;
            }

            if (known.Walk != walk && known.Steps == of.Steps)
            {
                var box = known.Box.With(FigureBox.Of([walk.After(count)], seen));
                boxed = (walk, seen, of.Steps, box, true);
                return box;
            }
        }

        var exact = FigureBox.Of(walk, seen);
        boxed = (walk, seen, of.Steps, exact, false);
        return exact;
    }

    private static BodyWalk BodyOf(string run) => Walked(run).Walk;

    private static (Run Of, BodyWalk Walk) Walked(string run)
    {
        if (Drawn.TryGetValue(run, out var known))
        {
            return known;
        }

        if (Drawn.Count >= MostDrawn)
        {
            Drawn.Clear();
            OnSteps.Clear();
        }

        var of = Run.Read(run);
        var steps = of.Steps;
        var walk = OnSteps.TryGetValue(steps, out var other)
            ? other.With(BodyState.AtRest.After(Actions(of.Start)), [.. of.Bodies.Select(Actions)])
            : PostureBody.Of(of.Entry, of.Start, of.Counts, of.Aid, of.Ways, Physique.Standard);
        OnSteps[steps] = walk;
        return Drawn[run] = (of, walk);
    }

    private static IReadOnlyList<BodyAction> Actions(string body)
    {
        if (ReadBodies.Count >= MostReadBodies)
        {
            ReadBodies.Clear();
        }

        return ReadBodies.TryGetValue(body, out var known)
            ? known
            : ReadBodies[body] = BodyNotation.Parse(body).Actions;
    }
}
