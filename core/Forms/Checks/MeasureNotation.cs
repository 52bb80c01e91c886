using System.Globalization;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>A measure as it was understood, or what is wrong with it.</summary>
public sealed record MeasureText(Measure? Measure, IReadOnlyList<NotationProblem> Problems);

/// <summary>
/// The measure of a checkpoint as text (docs/body-notation.md, "Checkpoints"): a part, how it is compared, another part, and how
/// far: <c>right wrist level right shoulder 5</c>, <c>left knee behind left toes</c>, <c>left heel beside right heel 20 to 40</c>.
/// Printing what was parsed and parsing what was printed give the same measure.
/// </summary>
public static class MeasureNotation
{
    private static readonly Word[] Sides = [new("left", "l"), new("right", "r")];

    /// <summary>Of what comes twice the plural is read, too.</summary>
    private static readonly Word[] Parts =
    [
        .. Names<BodyPart>()
            .Select(word =>
                BodyPoint.ComesTwice(BodyWord.Read<BodyPart>(word.Full)) ? word with { Short = word.Full + "s" } : word
            ),
    ];
    private static readonly Word[] PartsOfASide =
    [
        .. Parts.Where(word => BodyPoint.ComesTwice(BodyWord.Read<BodyPart>(word.Full))),
    ];
    private static readonly Word[] Comparisons = Names<Comparison>();
    private static readonly Word[] To = [new("to")];
    private const string Part = "a part of the body";
    private const int Most = 200;

    /// <summary>What one number means where none is said: within a hand's breadth, or within this many degrees.</summary>
    private const double Near = 8;
    private const double SameWay = 20;

    public static MeasureText Parse(string text)
    {
        var reader = new NotationText(text);
        var (measures, problems) = reader.Read(() => (IEnumerable<Measure>)[Read(reader)]);
        return new(measures is [var first, ..] ? first : null, problems);
    }

    private static Measure Read(NotationText text)
    {
        var here = Point(text);
        var comparison = BodyWord.Read<Comparison>(text.Next(Comparisons, "how it is compared"));
        var there = Point(text);
        double? first = text.HasNumber ? Number(text) : null;
        double? second = first is not null && text.Take(To) is not null ? Number(text) : null;
        var within = comparison is Comparison.Level or Comparison.Over or Comparison.Along;
        return (first, second) switch
        {
            ({ } from, { } to) => new(here, comparison, there, Math.Min(from, to), Math.Max(from, to)),
            ({ } most, null) => new(here, comparison, there, 0, most),
            _ when within => new(here, comparison, there, 0, comparison == Comparison.Along ? SameWay : Near),
            _ => new(here, comparison, there, 0, null),
        };
    }

    private static BodyPoint Point(NotationText text)
    {
        Hand? side = text.Take(Sides) switch
        {
            "left" => Hand.Left,
            "right" => Hand.Right,
            _ => null,
        };
        var part = side is null ? text.Next(Parts, Part, Sides) : text.Next(PartsOfASide, Part);
        return new(BodyWord.Read<BodyPart>(part), side);
    }

    private static double Number(NotationText text) =>
        text.Whole("how far", "10", Most, found => $"Here should stand at most {Most}; {found} stands here.");

    public static string Print(Measure measure) =>
        $"{Print(measure.Here)} {BodyWord.Name(measure.Comparison)} {Print(measure.There)}"
        + (
            measure is { Least: { } least, Most: { } most }
                ? (least > 0 ? $" {Text(least)} to {Text(most)}" : $" {Text(most)}")
                : ""
        );

    private static string Print(BodyPoint point) =>
        (point.Side is { } side ? (side == Hand.Left ? "left " : "right ") : "") + BodyWord.Name(point.Part);

    public static string Mirror(string text) => Parse(text).Measure is { } measure ? Print(measure.Mirror()) : text;

    /// <summary>In plain words, as it is read back: "right wrist level with right shoulder, 5 cm either way".</summary>
    public static string Say(Measure measure)
    {
        var unit = measure.Comparison == Comparison.Along ? "°" : " cm";
        var how = measure.Comparison switch
        {
            Comparison.Level => "level with",
            Comparison.Over => "over",
            Comparison.From => "away from",
            Comparison.Along => "pointing along",
            var other => BodyWord.Name(other),
        };
        var range = measure switch
        {
            { Least: > 0, Most: not null } => $", {Text(measure.Least.Value)} to {Text(measure.Most.Value)}{unit}",
            { Most: { } most } => measure.Comparison is Comparison.Level or Comparison.Over or Comparison.Along
                ? $" within {Text(most)}{unit}"
                : $", {Text(most)}{unit} at most",
            _ => "",
        };
        return $"{measure.Here.Say()} {how} {measure.There.Say()}{range}";
    }

    private static string Text(double number) => number.ToString("0", CultureInfo.InvariantCulture);

    private static Word[] Names<T>()
        where T : struct, Enum => [.. Enum.GetNames<T>().Select(name => new Word(name.ToLowerInvariant()))];

    /// <summary>The words that could stand at the end of a text.</summary>
    public static IReadOnlyList<string> At(string text) => Completion.At(text, line => Parse(line).Problems);
}
