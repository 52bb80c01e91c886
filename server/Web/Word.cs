using System.Text.Json;

namespace Zeitplan.Server.Web;

/// <summary>One defined word of an enumeration in an address, written as it is in JSON: <c>?side=left</c>. The
/// framework's own reading takes numbers and lists as well.</summary>
internal readonly record struct Word<T>(T Value)
    where T : struct, Enum
{
    public static bool TryParse(string? text, out Word<T> word)
    {
        foreach (var value in Enum.GetValues<T>())
        {
            if (JsonNamingPolicy.CamelCase.ConvertName(value.ToString()) == text)
            {
                word = new(value);
                return true;
            }
        }

        word = default;
        return false;
    }
}
