using System.Text;
using System.Text.Json.Nodes;

namespace Zeitplan.Server.Tests.Web;

/// <summary>
/// Requests nobody sends on purpose, made from what the API says about itself: for every operation one that looks right,
/// with one or two places of it spoilt. The same seed makes the same requests.
/// </summary>
/// <param name="identifiers">What can be named in the school, by what it is: "classId".</param>
internal sealed class Nonsense(int seed, ILookup<string, string> identifiers)
{
    private static readonly JsonNode Api = JsonNode.Parse(
        File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "openapi.json"))
    )!;

    private readonly Random random = new(seed);
    private readonly List<string> anything = [.. identifiers.SelectMany(kind => kind).Distinct()];

    public sealed record Asked(HttpMethod Method, string Path, string? Body, string MediaType);

    /// <param name="rounds">How often every operation is asked for.</param>
    public IEnumerable<Asked> Requests(int rounds) =>
        from round in Enumerable.Range(0, rounds)
        from path in Api["paths"]!.AsObject()
        from operation in path.Value!.AsObject()
        where operation.Key is "get" or "post" or "put" or "delete"
        where
            !path.Key.StartsWith("/api/session", StringComparison.Ordinal)
            && !path.Key.StartsWith("/api/account", StringComparison.Ordinal)
        select Make(path.Key, operation.Key, operation.Value!);

    private Asked Make(string path, string method, JsonNode operation)
    {
        var query = new StringBuilder();
        foreach (var parameter in operation["parameters"]?.AsArray() ?? [])
        {
            var name = parameter!["name"]!.GetValue<string>();
            var kind = name == "id" ? Singular(path.Split("/{id}")[0].Split('/')[^1]) : name;
            var value = Uri.EscapeDataString(
                random.Next(8) == 0 ? Word() : Plain(Right(parameter["schema"]!, kind, depth: 0))
            );
            if (parameter["in"]!.GetValue<string>() == "path")
            {
                // No web server takes these in a path; this one's stand-in in tests throws.
                value = value.Replace("%00", "", StringComparison.Ordinal);
                path = path.Replace($"{{{name}}}", value, StringComparison.Ordinal);
            }
            else
            {
                query.Append(query.Length == 0 ? '?' : '&').Append(name).Append('=').Append(value);
            }
        }

        string? body = null;
        if (operation["requestBody"]?["content"]?["application/json"]?["schema"] is { } schema)
        {
            var sent = Right(schema, "", depth: 0);
            for (var spoilt = random.Next(3); spoilt > 0; spoilt--)
            {
                sent = Spoil(sent);
            }

            body = Written(sent);
        }

        var media = random.Next(30) == 0 ? "application/json; charset=utf-7" : "application/json";
        return new(HttpMethod.Parse(method), path + query, body, media);
    }

    private static string Plain(JsonNode? value) => value is JsonValue plain ? plain.ToString() : "";

    /// <summary>Texts are written as they are, halves of characters too: that is for the server to read.</summary>
    private static string Written(JsonNode? sent) =>
        (sent?.ToJsonString() ?? "null").Replace("HALF", "\\ud83e", StringComparison.Ordinal);

    /// <summary>"classes" as the identifier of one of them is called.</summary>
    public static string Singular(string many) =>
        many switch
        {
            "classes" => "classId",
            "sashes" => "sashId",
            "staff" => "staffId",
            _ => $"{many.TrimEnd('s')}Id",
        };

    private JsonNode? Right(JsonNode schema, string name, int depth)
    {
        if (schema["$ref"]?.GetValue<string>() is { } reference)
        {
            return Right(Api["components"]!["schemas"]![reference.Split('/')[^1]]!, name, depth + 1);
        }

        if (schema["oneOf"]?.AsArray() is { } choices)
        {
            return Right(choices[random.Next(choices.Count)]!, name, depth);
        }

        if (schema["enum"]?.AsArray() is { } words)
        {
            return words[random.Next(words.Count)]?.DeepClone();
        }

        var types = schema["type"] is JsonArray several
            ? several.Select(type => type!.GetValue<string>()).ToList()
            : [schema["type"]?.GetValue<string>() ?? "object"];
        return types[random.Next(types.Count)] switch
        {
            "null" => null,
            "boolean" => random.Next(2) == 0,
            "integer" => random.Next(0, 8),
            "number" => random.Next(0, 80) / 4m,
            "string" => Text(schema["format"]?.GetValue<string>(), name),
            "array" => depth > 8
                ? new JsonArray()
                : new JsonArray([
                    .. Enumerable
                        .Range(0, random.Next(1, 4))
                        .Select(_ => Right(schema["items"]!, name.TrimEnd('s'), depth + 1)),
                ]),
            _ => new JsonObject(
                (schema["properties"]?.AsObject() ?? []).Select(property =>
                    KeyValuePair.Create(property.Key, Right(property.Value!, property.Key, depth + 1))
                )
            ),
        };
    }

    private string Text(string? format, string name) =>
        format switch
        {
            "uuid" => Identifier(name),
            "date" => new DateOnly(2026, 11, 24).AddDays(7 * random.Next(-3, 4)).ToString("O", null),
            "date-time" => "2026-11-24T12:00:00Z",
            "time" => "18:30:00",
            "byte" => Convert.ToBase64String(Encoding.UTF8.GetBytes("First name;Level\nMarisol;Fern\n")),
            _ => new[] { "Fern", "Press", "right", "#6C8F4E", "L step fwd 2", "" }[random.Next(6)],
        };

    private string Identifier(string name)
    {
        var fitting = identifiers[name].ToList();
        return random.Next(12) switch
        {
            0 => anything[random.Next(anything.Count)],
            > 1 when fitting.Count > 0 => fitting[random.Next(fitting.Count)],
            _ => NewId(),
        };
    }

    private string NewId()
    {
        var bytes = new byte[16];
        random.NextBytes(bytes);
        return new Guid(bytes).ToString();
    }

    /// <summary>Puts something into one place where nothing of its kind belongs.</summary>
    private JsonNode? Spoil(JsonNode? sent)
    {
        if (sent is JsonObject { Count: > 0 } parts && random.Next(8) != 0)
        {
            var (name, part) = parts.ElementAt(random.Next(parts.Count));
            parts[name] = Spoil(part?.DeepClone());
            return parts;
        }

        if (sent is JsonArray { Count: > 0 } items && random.Next(4) != 0)
        {
            var at = random.Next(items.Count);
            items[at] = Spoil(items[at]?.DeepClone());
            return items;
        }

        return random.Next(10) switch
        {
            0 => null,
            1 => random.Next(2) == 0 ? int.MaxValue : int.MinValue,
            2 => 1e300,
            3 => new JsonArray(null, sent?.DeepClone()),
            4 when Written(sent).Length < 1000 => new JsonArray([
                .. Enumerable.Range(0, 3000).Select(_ => sent?.DeepClone()),
            ]),
            5 => new JsonObject { ["deep"] = Deep(40) },
            6 => random.Next(2) == 0 ? "0001-01-01" : "9999-12-31",
            7 => anything[random.Next(anything.Count)],
            _ => Word(),
        };
    }

    private static JsonNode Deep(int levels) => levels == 0 ? new JsonArray() : new JsonArray(Deep(levels - 1));

    private string Word() =>
        new[]
        {
            "left, right",
            "head, instructor",
            "99",
            "-1",
            "none",
            "elbows\0low",
            "\u0001\u0007",
            "HALF",
            "' OR 1=1 --",
            "../../etc",
            "0001-01-01",
            "9999-12-31",
            "2026-02-30",
            "NaN",
            new string('q', 5000),
            string.Concat(Enumerable.Repeat("q;", 3000)),
            "",
            " ",
            "🦩",
        }[random.Next(19)];
}
