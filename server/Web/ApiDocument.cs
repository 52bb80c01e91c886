using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Zeitplan.Core.Forms;

namespace Zeitplan.Server.Web;

/// <summary>How the API describes itself: the client's types are made from it.</summary>
internal static partial class ApiDocument
{
    public static void Describe(OpenApiOptions options)
    {
        // Response and Item are declared beside each endpoint and carry its name.
        options.CreateSchemaReferenceId = type =>
            OpenApiOptions.CreateDefaultSchemaReferenceId(type) is { } name && type.Type.DeclaringType is { } owner
                ? EndpointName().Replace(owner.Name, "") + name
                : OpenApiOptions.CreateDefaultSchemaReferenceId(type);
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                var type = context.JsonTypeInfo.Type;
                if (type == typeof(Facing) || type == typeof(Facing?))
                {
                    (schema.Type, schema.Minimum, schema.Maximum) = (
                        type == typeof(Facing) ? JsonSchemaType.Integer : JsonSchemaType.Integer | JsonSchemaType.Null,
                        "0",
                        "359"
                    );
                }
                else if (type == typeof(Mode))
                {
                    schema.Type = JsonSchemaType.String;
                    schema.Enum = [.. Mode.Named.Select(mode => (JsonNode)mode.Name)];
                }
                else if (
                    type.Namespace?.StartsWith("Zeitplan.Core", StringComparison.Ordinal) == true
                    && schema.Properties is { Count: > 0 } properties
                )
                {
                    // A text of the school's material is always sent and answered whole.
                    schema.Required = properties.Keys.ToHashSet();
                }

                return Task.CompletedTask;
            }
        );
    }

    /// <summary>What an endpoint's class is called besides what it is about.</summary>
    [GeneratedRegex("(Endpoints?|View)$")]
    private static partial Regex EndpointName();
}
