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

    /// <summary>A text of step notation as it was understood: in plain words, then line, column and message of each
    /// problem.</summary>
    [JSExport]
    public static string[] ReadSteps(string text)
    {
        var read = StepNotation.Parse(text);
        return
        [
            StepWords.Say(read.Actions),
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
            .. read.Problems.SelectMany(problem => new[] { Text(problem.Line), Text(problem.Column), problem.Message }),
        ];
    }

    [JSExport]
    public static string[] CompleteBody(string text) => [.. BodyCompletion.At(text)];

    /// <summary>The words that could stand at the end of a text of step notation.</summary>
    [JSExport]
    public static string[] Complete(string text) => [.. StepCompletion.At(text)];

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
