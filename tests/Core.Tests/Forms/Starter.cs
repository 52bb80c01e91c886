using System.Text.Json;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>The catalogue and the house forms that ship with the program: real material for the rules to be tried
/// on.</summary>
internal static class Starter
{
    public static FormLibrary Library { get; } = Read();
    public static IReadOnlyDictionary<Guid, Posture> Postures { get; } = PostureSet.Build(Library.Postures);
    public static FormText Long { get; } = Library.Forms.Single(form => form.Text.Name == "Lantern Form").Text;
    public static FormText Short { get; } = Library.Forms.Single(form => form.Text.Name == "Lamp Form").Text;
    public static IReadOnlyList<Link> Links { get; } =
    [.. Library.Links.Select(entry => Link.Create(entry.Id, entry.Text))];

    public static Posture Called(string name) => Postures.Values.Single(posture => posture.Name == name);

    /// <summary>The form on its other side: every side, turn, facing and way in.</summary>
    public static FormText Mirrored(FormText form) =>
        form with
        {
            Positions =
            [
                .. form.Positions.Select(position =>
                    position with
                    {
                        Side = Mirror.Of(position.Side),
                        Turn = -position.Turn,
                        Facing = position.Facing.Mirror(),
                        WayIn = Core.Forms.Notation.StepNotation.Mirror(position.WayIn),
                        WayInBody = Core.Forms.Notation.BodyNotation.Mirror(position.WayInBody),
                    }
                ),
            ],
            Segments = [],
        };

    private static FormLibrary Read()
    {
        var assembly = typeof(Starter).Assembly;
        var parts = assembly
            .GetManifestResourceNames()
            .Where(name => name.StartsWith("Starter/", StringComparison.Ordinal))
            .Order(StringComparer.Ordinal)
            .Select(name =>
                JsonSerializer.Deserialize<FormLibrary>(assembly.GetManifestResourceStream(name)!, LibraryJson.Strict)!
            )
            .ToList();
        return parts[0] with
        {
            Postures = [.. parts.SelectMany(part => part.Postures)],
            Links = [.. parts.SelectMany(part => part.Links)],
            Principles = [.. parts.SelectMany(part => part.Principles)],
            Forms = [.. parts.SelectMany(part => part.Forms)],
        };
    }
}
