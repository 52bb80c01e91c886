using System.Text.Json;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Server.Tests.Lessons;

public sealed class ArrangementTests(DemoTemplate template) : HeronQuayTests(template)
{
    private static async Task<string> ComingAsync(Caller caller, string name = "Tuesday evening") =>
        $"/api/classes/{(await ClassAsync(caller, name)).Text("id")}/lessons/2026-12-01";

    [Fact]
    public async Task The_coming_lesson_is_arranged_and_nobody_is_forgotten()
    {
        var head = await HeadAsync();
        var arrangement = await head.GetAsync($"{await ComingAsync(head)}/arrangement");
        File.WriteAllText("/tmp/arr.json", arrangement.ToString());
        Assert.Equal(0, arrangement.GetProperty("shortfalls").GetArrayLength());
        var csv = await (
            await head.Client.GetAsync($"{await ComingAsync(head)}/arrangement.csv")
        ).Content.ReadAsStringAsync();
        File.WriteAllText("/tmp/arr.csv", csv);
    }
}
