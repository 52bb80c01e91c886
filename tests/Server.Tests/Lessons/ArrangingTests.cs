using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

/// <summary>What tests of arranged lessons share.</summary>
public abstract class ArrangingTests(DemoTemplate template) : HeronQuayTests(template)
{
    protected static async Task<string> ComingAsync(Caller caller, string name = "Tuesday evening") =>
        $"/api/classes/{(await ClassAsync(caller, name)).Text("id")}/lessons/2026-12-01/arrangement";

    protected static object Edits(JsonElement arrangement, params object[] edits) =>
        new { edits, version = arrangement.GetProperty("version") };

    protected static string Happenings(string path) =>
        path.Replace("/arrangement", "/happenings", StringComparison.Ordinal);
}
