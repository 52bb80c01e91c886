using System.Text.Json;

namespace Zeitplan.Server.Tests.Progress;

public sealed class PatternsTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_fault_of_last_spring_has_come_back_and_leads_to_who_had_it_and_what_was_tried()
    {
        var head = await HeadAsync();
        var board = await head.GetAsync("/api/patterns");
        var months = board.GetProperty("months").GetArrayLength();
        var knee = Patterns(board).First();
        Assert.Equal(("Single Whip", 2), (knee.Text("name"), knee.GetProperty("waves").GetArrayLength()));
        Assert.False(knee.GetProperty("sameSeason").GetBoolean());
        Assert.Equal(months, knee.GetProperty("in").GetArrayLength());
        var lucia = knee.GetProperty("cases")
            .EnumerateArray()
            .Single(one => one.Text("name").StartsWith("Lucia", StringComparison.Ordinal));
        Assert.False(Assert.Single(lucia.GetProperty("tried").EnumerateArray()).GetProperty("helped").GetBoolean());
        Assert.Equal("Fern, newer", Patterns(board).Single(one => one.Text("name") == "Brush Knee").Text("onlyIn"));
        // The class went on to other things: nobody has looked since, and two still have it.
        Assert.Equal(
            2,
            Patterns(board).Single(one => one.Text("name") == "Stepping Back Walk").GetProperty("unlooked").GetInt32()
        );
    }

    [Fact]
    public async Task An_instructor_sees_the_threads_of_their_own_classes_only()
    {
        var (head, instructor) = (await HeadAsync(), await InstructorAsync());
        var all = Names(await head.GetAsync("/api/patterns"));
        var own = Names(await instructor.GetAsync("/api/patterns"));
        Assert.Contains("Imke R.", own);
        Assert.Contains("Conrad B.", all.Except(own));

        static IReadOnlySet<string> Names(JsonElement board) =>
            Patterns(board)
                .SelectMany(pattern => pattern.GetProperty("cases").EnumerateArray())
                .Select(one => one.Text("name"))
                .ToHashSet();
    }

    private static IEnumerable<JsonElement> Patterns(JsonElement board) =>
        board.GetProperty("patterns").EnumerateArray();
}
