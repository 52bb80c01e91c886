using System.Text.Json;
using System.Text.Json.Serialization;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Forms;

namespace Zeitplan.Server.Demo;

/// <summary>The demo school's postures, read from <c>postures.json</c>: counts as <c>cue|feet|waist|hands|gaze|breath</c>, faults as <c>seen|weight|cause|mend</c>.</summary>
internal static class DemoPostures
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) } };

    private sealed record Written(string Name, Side Side, SideNamedBy NamedBy, int Difficulty, string KeyPoint, string[] Counts, string[] Faults, Demand[] Demands, string[] Cautions, WrittenVersion[] Versions);

    private sealed record WrittenVersion(string Mode, string Replaces, string[] Counts, string[] Cautions);

    public static IReadOnlyList<PostureEndpoints.CreateRequest> Read()
    {
        using var file = typeof(DemoPostures).Assembly.GetManifestResourceStream("Zeitplan.Server.Demo.postures.json")!;
        return [.. JsonSerializer.Deserialize<Written[]>(file, Options)!.Select(posture => new PostureEndpoints.CreateRequest(
            Guid.CreateVersion7(), posture.Name, posture.Side, posture.NamedBy, posture.Difficulty, posture.KeyPoint, [.. posture.Counts.Select(ReadCount)], [.. posture.Faults.Select(ReadFault)],
            posture.Demands, posture.Cautions, [.. posture.Versions.Select(version => new PostureEndpoints.VersionRequest(version.Mode, [.. version.Counts.Select(ReadCount)], version.Cautions, version.Replaces))]))];
    }

    private static Count ReadCount(string text)
    {
        var layers = text.Split('|');
        return new(layers[0], Layer(1), Layer(2), Layer(3), Layer(4), Layer(5));

        string Layer(int at) => layers.ElementAtOrDefault(at) ?? "";
    }

    private static Fault ReadFault(string text) => text.Split('|') is [var seen, var weight, var cause, var mend]
        ? new(Guid.CreateVersion7(), seen, Enum.Parse<Weight>(weight, ignoreCase: true), cause, mend)
        : throw new FormatException($"A fault has four parts: {text}");
}
