using System.Text.Json;
using System.Text.Json.Serialization;

namespace Zeitplan.Core.Exchange;

/// <summary>
/// An enumeration as exactly one of its words, in camel case. No number and no list: the framework's own converter
/// takes "left, right" and adds the two up to a value nobody defined.
/// </summary>
internal sealed class OneWord : JsonConverterFactory
{
    public override bool CanConvert(Type typeToConvert) => typeToConvert.IsEnum;

    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
        (JsonConverter)Activator.CreateInstance(typeof(Converter<>).MakeGenericType(typeToConvert))!;

    /// <summary>The words of an enumeration as they are written.</summary>
    public static IEnumerable<string> Of(Type enumeration) =>
        Enum.GetNames(enumeration).Select(JsonNamingPolicy.CamelCase.ConvertName);

    private sealed class Converter<T> : JsonConverter<T>
        where T : struct, Enum
    {
        private static readonly Dictionary<string, T> Values = Of(typeof(T))
            .Zip(Enum.GetNames<T>().Select(Enum.Parse<T>))
            .ToDictionary(pair => pair.First, pair => pair.Second, StringComparer.Ordinal);
        private static readonly Dictionary<T, string> Words = Values
            .DistinctBy(pair => pair.Value)
            .ToDictionary(pair => pair.Value, pair => pair.Key);

        public override T Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String ? Meant(reader.GetString()!) : throw NoneOf();

        public override T ReadAsPropertyName(
            ref Utf8JsonReader reader,
            Type typeToConvert,
            JsonSerializerOptions options
        ) => Meant(reader.GetString()!);

        public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            writer.WriteStringValue(Words[value]);

        public override void WriteAsPropertyName(Utf8JsonWriter writer, T value, JsonSerializerOptions options) =>
            writer.WritePropertyName(Words[value]);

        private static T Meant(string word) => Values.TryGetValue(word, out var value) ? value : throw NoneOf();

        private static JsonException NoneOf() =>
            new($"A word of these belongs here: {string.Join(", ", Values.Keys)}.");
    }
}
