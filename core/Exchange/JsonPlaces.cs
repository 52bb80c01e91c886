using System.Text.Json;

namespace Zeitplan.Core.Exchange;

/// <summary>Where things stand in a JSON text: line and column, both from 1, columns in characters.</summary>
internal static class JsonPlaces
{
    /// <summary>Where the value at <paramref name="path"/> (as <c>forms[0].text.positions[3].facing</c>) begins, or the
    /// nearest thing around it that is there.</summary>
    public static (int Line, int Column) Of(byte[] json, string path)
    {
        var reader = new Utf8JsonReader(json, new() { MaxDepth = 128 });
        Stack<Step> steps = [];
        var (best, length) = (0L, -1);
        while (reader.Read())
        {
            if (reader.TokenType is JsonTokenType.EndObject or JsonTokenType.EndArray)
            {
                steps.Pop();
            }
            else if (reader.TokenType == JsonTokenType.PropertyName)
            {
                steps.Peek().Name = reader.GetString()!;
            }
            else
            {
                if (steps.TryPeek(out var around))
                {
                    around.Next();
                }

                var here = string.Concat(steps.Reverse().Select((step, at) => step.Text(at == 0)));
                if (here.Length > length && Leads(here, path))
                {
                    (best, length) = (reader.TokenStartIndex, here.Length);
                }

                if (reader.TokenType is JsonTokenType.StartObject or JsonTokenType.StartArray)
                {
                    steps.Push(new(reader.TokenType == JsonTokenType.StartArray));
                }
            }
        }

        return At(json, best);
    }

    /// <summary>The line and column of a byte.</summary>
    public static (int Line, int Column) At(byte[] json, long index)
    {
        var before = json.AsSpan(0, (int)Math.Min(index, json.Length));
        var lineStart = before.LastIndexOf((byte)'\n') + 1;
        return (before.Count((byte)'\n') + 1, System.Text.Encoding.UTF8.GetCharCount(before[lineStart..]) + 1);
    }

    private static bool Leads(string here, string path) =>
        path.StartsWith(here, StringComparison.Ordinal)
        && (path.Length == here.Length || path[here.Length] is '.' or '[' || here.Length == 0);

    /// <summary>One level of nesting: a place in an array, or a name in an object.</summary>
    private sealed class Step(bool isArray)
    {
        private int at = -1;

        public string Name { get; set; } = "";

        public void Next() => at++;

        public string Text(bool first) =>
            isArray ? $"[{at}]"
            : first ? Name
            : $".{Name}";
    }
}
