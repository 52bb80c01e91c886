using System.Collections;
using System.Reflection;
using System.Runtime.CompilerServices;
using System.Text.Json;

namespace Zeitplan.Core.Exchange;

/// <summary>Beside a text that is a whole file and is as long as it is.</summary>
[AttributeUsage(AttributeTargets.Property)]
public sealed class WholeFileAttribute : Attribute;

/// <summary>
/// What nothing in a school can mean, found before any rule looks at it: a text with control characters, a list with a
/// hole in it, a word that no enumeration has, a date no school lives in, a text or a list without end. One place for
/// all that comes from outside: requests, addresses, files.
/// </summary>
public static class SoundInput
{
    /// <summary>The most anything in a school has of one thing.</summary>
    public const int MostItems = 2000;

    /// <summary>In characters: longer than any field of its own allows.</summary>
    public const int LongestText = 4000;

    /// <summary>Whoever reads a list of problems mends the first ones first.</summary>
    public const int MostProblems = 20;

    private const int FirstYear = 1900;
    private const int LastYear = 2199;

    /// <summary>Beyond it no measure of a school lies: minutes, metres, people.</summary>
    private const double LargestNumber = 1e9;

    private static readonly ConditionalWeakTable<Type, Part[]> Parts = [];

    private sealed record Part(string Name, PropertyInfo Property, bool IsFile);

    /// <param name="field">The path of <paramref name="value"/> in what was sent; empty for all of it.</param>
    public static IReadOnlyList<Problem> Check(object? value, string field = "")
    {
        List<Problem> problems = [];
        Look(value, field, problems);
        return problems;
    }

    private static void Look(object? value, string field, List<Problem> problems)
    {
        if (problems.Count >= MostProblems)
        {
            return;
        }

        if (WhyNot(value) is { } why)
        {
            problems.Add(new(field, why));
            return;
        }

        switch (value)
        {
            case null or string or Enum or byte[]:
                break;
            case IDictionary pairs:
                LookAtPairs(pairs, field, problems);
                break;
            case IEnumerable items:
                LookAtItems(items, field, problems);
                break;
            default:
                foreach (var part in PartsOf(value.GetType()))
                {
                    if (!part.IsFile)
                    {
                        var path = field.Length == 0 ? part.Name : $"{field}.{part.Name}";
                        Look(part.Property.GetValue(value), path, problems);
                    }
                }

                break;
        }
    }

    private static string? WhyNot(object? value) =>
        value switch
        {
            string { Length: > LongestText } text => $"This text has {text.Length} characters; keep it shorter.",
            string text when HasStrangeCharacters(text) => "This text has characters in it that cannot be written.",
            Enum word when !Enum.IsDefined(word.GetType(), word) =>
                $"Say one of these: {string.Join(", ", OneWord.Of(word.GetType()))}.",
            DateOnly { Year: < FirstYear or > LastYear } or DateTimeOffset { Year: < FirstYear or > LastYear } =>
                $"Write a date between {FirstYear} and {LastYear}.",
            double number when !(Math.Abs(number) <= LargestNumber) => "No number in a school is this large.",
            decimal number when Math.Abs(number) > (decimal)LargestNumber => "No number in a school is this large.",
            _ => null,
        };

    /// <summary>Everything below a space but tabs and new lines, and halves of characters.</summary>
    private static bool HasStrangeCharacters(string text)
    {
        for (var at = 0; at < text.Length; at++)
        {
            var letter = text[at];
            if (char.IsControl(letter) && letter is not ('\t' or '\n' or '\r'))
            {
                return true;
            }

            if (char.IsSurrogate(letter))
            {
                if (!char.IsHighSurrogate(letter) || at + 1 == text.Length || !char.IsLowSurrogate(text[at + 1]))
                {
                    return true;
                }

                at++;
            }
        }

        return false;
    }

    private static void LookAtItems(IEnumerable items, string field, List<Problem> problems)
    {
        var mayBeMissing = ItemOf(items.GetType()) is { } kind && Nullable.GetUnderlyingType(kind) is not null;
        var at = 0;
        foreach (var item in items)
        {
            if (at >= MostItems)
            {
                problems.Add(new(field, $"There are more than {MostItems} of these; no school has so many."));
                return;
            }

            if (item is null && !mayBeMissing)
            {
                problems.Add(new($"{field}[{at}]", "Something is missing here."));
            }

            Look(item, $"{field}[{at}]", problems);
            if (problems.Count >= MostProblems)
            {
                return;
            }

            at++;
        }
    }

    private static void LookAtPairs(IDictionary pairs, string field, List<Problem> problems)
    {
        if (pairs.Count > MostItems)
        {
            problems.Add(new(field, $"There are more than {MostItems} of these; no school has so many."));
            return;
        }

        foreach (DictionaryEntry pair in pairs)
        {
            Look(pair.Key, field, problems);
            Look(pair.Value, $"{field}.{pair.Key}", problems);
        }
    }

    private static Type? ItemOf(Type list) =>
        list.GetInterfaces()
            .FirstOrDefault(face => face.IsGenericType && face.GetGenericTypeDefinition() == typeof(IEnumerable<>))
            ?.GetGenericArguments()[0];

    /// <summary>What was sent of a value of ours; nothing of anybody else's.</summary>
    private static Part[] PartsOf(Type type) =>
        Parts.GetValue(
            type,
            static type =>
                type.Namespace?.StartsWith("Zeitplan.", StringComparison.Ordinal) == true
                    ?
                    [
                        .. type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                            .Where(property => property.CanWrite && property.GetIndexParameters().Length == 0)
                            .Select(property => new Part(
                                JsonNamingPolicy.CamelCase.ConvertName(property.Name),
                                property,
                                property.GetCustomAttribute<WholeFileAttribute>() is not null
                            )),
                    ]
                    : []
        );
}
