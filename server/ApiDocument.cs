using System.Text.Json.Nodes;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Server;

/// <summary>How the API describes itself: the client's types are made from it.</summary>
internal static class ApiDocument
{
    public static void Describe(OpenApiOptions options)
    {
        // Response and Item are declared beside each endpoint and carry its name.
        options.CreateSchemaReferenceId = type => OpenApiOptions.CreateDefaultSchemaReferenceId(type) is { } name && type.Type.DeclaringType is { } owner
            ? owner.Name.Replace("Endpoints", "", StringComparison.Ordinal).Replace("Endpoint", "", StringComparison.Ordinal) + name
            : OpenApiOptions.CreateDefaultSchemaReferenceId(type);
        options.AddSchemaTransformer((schema, context, _) =>
        {
            if (context.JsonTypeInfo.Type == typeof(Facing))
            {
                (schema.Type, schema.Minimum, schema.Maximum) = (JsonSchemaType.Integer, "0", "359");
            }
            else if (context.JsonTypeInfo.Type == typeof(Mode))
            {
                schema.Type = JsonSchemaType.String;
                schema.Enum = [.. Mode.Named.Select(mode => (JsonNode)mode.Name)];
            }

            return Task.CompletedTask;
        });
    }
}
