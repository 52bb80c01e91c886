using System.Text.Json;
using Zeitplan.Core.Exchange;

namespace Zeitplan.Server.Forms;

/// <summary>The starter catalogue: postures, drills, links, principles and two house forms, in the program's own file
/// format under <c>Starter/</c>, a file for each family.</summary>
internal static class StarterLibrary
{
    private const string Folder = "Zeitplan.Server.Forms.Starter.";

    /// <summary>All files as one.</summary>
    public static byte[] File()
    {
        var parts = typeof(StarterLibrary)
            .Assembly.GetManifestResourceNames()
            .Where(name => name.StartsWith(Folder, StringComparison.Ordinal))
            .Order(StringComparer.Ordinal)
            .Select(Read)
            .ToList();
        return JsonSerializer.SerializeToUtf8Bytes(
            new FormLibrary
            {
                Format = FormLibrary.FormatName,
                Version = FormLibrary.CurrentVersion,
                Postures = [.. parts.SelectMany(part => part.Postures)],
                Links = [.. parts.SelectMany(part => part.Links)],
                Principles = [.. parts.SelectMany(part => part.Principles)],
                Forms = [.. parts.SelectMany(part => part.Forms)],
            },
            LibraryJson.Strict
        );
    }

    private static FormLibrary Read(string name)
    {
        using var file = typeof(StarterLibrary).Assembly.GetManifestResourceStream(name)!;
        return JsonSerializer.Deserialize<FormLibrary>(file, LibraryJson.Strict)!;
    }
}
