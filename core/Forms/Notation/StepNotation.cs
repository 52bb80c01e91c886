using System.Globalization;

namespace Zeitplan.Core.Forms.Notation;

/// <summary>A text of step notation as it was understood: all its statements, or the first thing wrong in each that
/// could not be read.</summary>
public sealed record StepText(IReadOnlyList<StepAction> Actions, IReadOnlyList<NotationProblem> Problems);

/// <summary>The feet of a count as text (docs/step-notation.md). Printing what was parsed and parsing what was printed
/// give the same steps.</summary>
public static class StepNotation
{
    /// <summary>Reads a text; statements end with a semicolon or a line. What cannot be read is reported and left out,
    /// the rest is understood.</summary>
    public static StepText Parse(string text) => new StepParser(text).Run();

    /// <exception cref="FormatException">The text is not step notation; the message is its first problem.</exception>
    public static IReadOnlyList<StepAction> Read(string text) =>
        Parse(text) is { Problems: [] } good
            ? good.Actions
            : throw new FormatException($"{text}: {Parse(text).Problems[0].Message}");

    public static string Print(IEnumerable<StepAction> actions) => string.Join("; ", actions.Select(Print));

    /// <summary>The text on the other side.</summary>
    public static string Mirror(string text) => Print(Parse(text).Actions.Select(action => action.Mirror()));

    public static string Print(StepAction action) =>
        action switch
        {
            StepAction.Move move => Print(move),
            StepAction.Pivot pivot =>
                $"{Letter(pivot.Foot)} pivot{(pivot.On is { } on ? $" {Word(on)}" : "")} {Turn(pivot.Turn)}{Percent(pivot.Load)}",
            StepAction.Weigh weigh => $"{Letter(weigh.Foot)}{Percent(weigh.Load)}",
            StepAction.WeighSeat seat => $"seat {Letter(seat.Side)}{Percent(seat.Load)}",
            StepAction.Hips hips => $"hips {Turn(hips.Turn)}",
            StepAction.Chest chest => $"chest {Turn(chest.Turn)}",
            StepAction.Height { Low: true } => "hips low",
            _ => "hips level",
        };

    private static string Print(StepAction.Move move)
    {
        List<string> words = [$"{Letter(move.Foot)} {Word(move.Verb)}"];
        if (move.To is { } to)
        {
            words.AddRange(to.Toward == 0 ? [] : [$"toward {Turn(to.Toward)}"]);
            words.AddRange(
                to.Forward == 0 && to.Side != 0 ? [] : [$"{(to.Forward < 0 ? "back" : "fwd")} {Number(to.Forward)}"]
            );
            words.AddRange(to.Side == 0 ? [] : [$"{(to.Side < 0 ? "left" : "right")} {Number(to.Side)}"]);
        }

        words.AddRange(move.Toes is { } toes ? [$"toes {Turn(toes)}"] : []);
        words.AddRange(move.Up is { } up ? [$"up {Number(up)}"] : []);
        words.AddRange(move.Lands is { } lands ? [Word(lands)] : []);
        words.AddRange(move.Crosses ? ["cross"] : []);
        return string.Join(' ', words) + Percent(move.Load);
    }

    private static string Number(decimal number) => decimal.Abs(number).ToString("0.##", CultureInfo.InvariantCulture);

    private static string Word<T>(T name)
        where T : struct, Enum => name.ToString().ToLowerInvariant();

    private static char Letter(Foot foot) => foot == Foot.Left ? 'L' : 'R';

    private static string Turn(int degrees) => $"{(degrees < 0 ? "left" : "right")} {Math.Abs(degrees)}";

    private static string Percent(int? load) => load is { } percent ? $" {percent}%" : "";
}
