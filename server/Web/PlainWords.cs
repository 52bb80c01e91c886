namespace Zeitplan.Server.Web;

/// <summary>Names of the program as a person writes them: "OneLegBalance" is "one leg balance".</summary>
internal static class PlainWords
{
    public static string Of(Enum word) => Of(word.ToString());

    public static string Of(string name) =>
        string.Concat(
            name.Select(
                (letter, at) =>
                    at > 0 && char.IsUpper(letter)
                        ? $" {char.ToLowerInvariant(letter)}"
                        : $"{char.ToLowerInvariant(letter)}"
            )
        );
}
