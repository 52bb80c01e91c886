namespace Zeitplan.Core;

/// <summary>One thing wrong with what somebody entered: the place it concerns and what to do, in a head's
/// words.</summary>
/// <param name="Field">The path of the field as the request names it, such as <c>positions[3].facing</c>.</param>
public sealed record Problem(string Field, string Message)
{
    /// <summary>The longest name anything in a school may have, in characters.</summary>
    public const int LongestName = 80;

    /// <summary>The longest free text (a key point, a note, a correction in own words), in characters.</summary>
    public const int LongestText = 400;

    /// <summary>A name must say something and fit on a sheet.</summary>
    public static IEnumerable<Problem> WithName(string? name, string field) =>
        WithText(name, field, LongestName, "name");

    /// <summary>A colour as <c>#RRGGBB</c>.</summary>
    public static IEnumerable<Problem> WithColour(string? colour, string field) =>
        colour is { Length: 7 } && colour[0] == '#' && colour.Skip(1).All(char.IsAsciiHexDigit)
            ? []
            : [new(field, "Write a colour as #RRGGBB.")];

    /// <summary>A text that must be there and be no longer than <paramref name="longest"/> characters.</summary>
    public static IEnumerable<Problem> WithText(string? text, string field, int longest, string what)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            yield return new(field, $"Give a {what}.");
        }
        else if (text.Trim().Length > longest)
        {
            yield return new(field, $"This {what} has {text.Trim().Length} characters; keep it to {longest}.");
        }
    }
}
