using System.Collections;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Exchange;

/// <summary>How the material of a school is written as JSON, in files, over the wire and in the database alike. What
/// says nothing is left out.</summary>
public static class LibraryJson
{
    /// <summary>No honest file nests deeper; a deeper one is refused while it is read.</summary>
    private const int DeepestNesting = 24;

    /// <summary>The converters of the job's own values, for whoever writes JSON beside these files.</summary>
    public static IReadOnlyList<JsonConverter> Converters { get; } = [new OneWord(), new FacingJson(), new ModeJson()];

    /// <summary>For files: strict about what it reads, written for people to read too.</summary>
    public static JsonSerializerOptions Strict { get; } = Make(strict: true);

    /// <summary>For rows this program wrote itself: compact, and forgiving towards what an earlier version left
    /// behind.</summary>
    public static JsonSerializerOptions Stored { get; } = Make(strict: false);

    /// <summary>As <see cref="Strict"/>, with enumerations as the schema's writer knows them: it cannot look into
    /// ours.</summary>
    private static JsonSerializerOptions Describing { get; } =
        new(Strict) { Converters = { [0] = new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) } };

    /// <summary>The published JSON Schema of a library (docs/formats/forms.schema.json).</summary>
    public static JsonNode Schema()
    {
        var schema = Describing
            .GetJsonSchemaAsNode(
                typeof(FormLibrary),
                new() { TreatNullObliviousAsNonNullable = true, TransformSchemaNode = Describe }
            )
            .AsObject();
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", "Zeitplan form library, version 1");
        return schema;
    }

    private static JsonNode Describe(JsonSchemaExporterContext context, JsonNode schema)
    {
        var type = context.TypeInfo.Type;
        if (type == typeof(Facing))
        {
            return new JsonObject
            {
                ["type"] = "integer",
                ["minimum"] = 0,
                ["maximum"] = 359,
                ["description"] = "Degrees clockwise from the form's zero.",
            };
        }

        return type == typeof(Mode)
            ? new JsonObject { ["enum"] = new JsonArray([.. Mode.Named.Select(mode => (JsonNode)mode.Name)]) }
            : schema;
    }

    private static JsonSerializerOptions Make(bool strict)
    {
        JsonSerializerOptions options = new(JsonSerializerDefaults.Web)
        {
            TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { LeaveOutWhatSaysNothing } },
            Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
            WriteIndented = strict,
            PropertyNameCaseInsensitive = false,
            NumberHandling = JsonNumberHandling.Strict,
            RespectNullableAnnotations = true,
            RespectRequiredConstructorParameters = strict,
            AllowDuplicateProperties = !strict,

            // The database keeps the parts of an object in an order of its own.
            AllowOutOfOrderMetadataProperties = !strict,
            UnmappedMemberHandling = strict ? JsonUnmappedMemberHandling.Disallow : JsonUnmappedMemberHandling.Skip,
            MaxDepth = DeepestNesting,
        };
        foreach (var converter in Converters)
        {
            options.Converters.Add(converter);
        }

        return options;
    }

    /// <summary>Empty texts and lists, and what equals the default of an optional parameter, need not be written:
    /// reading puts them back.</summary>
    private static void LeaveOutWhatSaysNothing(JsonTypeInfo type)
    {
        if (
            type.Kind != JsonTypeInfoKind.Object
            || type.Type.Namespace?.StartsWith("Zeitplan.", StringComparison.Ordinal) != true
        )
        {
            return;
        }

        if (type.Type == typeof(AdaptedVersion))
        {
            // Written by earlier libraries; what a version asks for follows from its notation now.
            var asksNothing = type.CreateJsonPropertyInfo(typeof(bool), "asksNothing");
            asksNothing.Set = (_, _) => { };
            type.Properties.Add(asksNothing);
        }

        foreach (var property in type.Properties)
        {
            if (property.AssociatedParameter is { HasDefaultValue: true, DefaultValue: var usual })
            {
                property.ShouldSerialize = (_, value) => !Equals(value, usual);
            }
            else if (property.AssociatedParameter is null or { IsMemberInitializer: true } && !property.IsRequired)
            {
                property.ShouldSerialize = (_, value) => value is not (null or "") and not ICollection { Count: 0 };
            }
        }
    }

    private sealed class FacingJson : JsonConverter<Facing>
    {
        public override Facing Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.Number && reader.TryGetInt32(out var degrees) && degrees is >= 0 and < 360
                ? Facing.FromDegrees(degrees)
                : throw new JsonException("A facing is a whole number of degrees from 0 to 359.");

        public override void Write(Utf8JsonWriter writer, Facing value, JsonSerializerOptions options) =>
            writer.WriteNumberValue(value.Degrees);
    }

    private sealed class ModeJson : JsonConverter<Mode>
    {
        public override Mode Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String && Mode.FromName(reader.GetString()!) is { } mode
                ? mode
                : throw new JsonException(
                    $"A mode is one of {string.Join(", ", Mode.Named.Select(named => named.Name))}."
                );

        public override void Write(Utf8JsonWriter writer, Mode value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.Name);
    }
}
