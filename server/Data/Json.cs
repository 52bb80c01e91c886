using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;

namespace Zeitplan.Server.Data;

/// <summary>How the immutable parts of an aggregate are kept inside its row.</summary>
internal static class Json
{
    private static readonly JsonSerializerOptions Options = LibraryJson.Stored;

    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    public static T Read<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Options) ?? throw new JsonException($"A stored {typeof(T).Name} is null.");

    /// <summary>Keeps a property as <c>jsonb</c>; it has changed when it reads differently.</summary>
    public static PropertyBuilder<T> IsJson<T>(this PropertyBuilder<T> property)
    {
        property.HasConversion(
            new ValueConverter<T, string>(value => Write(value), json => Read<T>(json)),
            new ValueComparer<T>(
                (a, b) => Write(a) == Write(b),
                value => Write(value).GetHashCode(StringComparison.Ordinal),
                value => value
            )
        );
        return property.HasColumnType("jsonb");
    }
}

/// <summary>A mode as two words: <c>hold/short-steps</c>.</summary>
internal sealed class ModeConverter()
    : ValueConverter<Mode, string>(mode => $"{mode.Support}/{mode.Feet}", text => Parse(text))
{
    private static Mode Parse(string text) =>
        text.Split('/') is [var support, var feet]
            ? new(Enum.Parse<Support>(support), Enum.Parse<FeetUse>(feet))
            : throw new FormatException($"'{text}' is no mode.");
}
