using System.Text.Json;

namespace Zeitplan.Server.Tests.Forms;

/// <summary>A fault nobody had listed becomes a known fault of the posture from a mark.</summary>
public sealed class KeptFaultTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task What_was_seen_in_the_hall_is_known_of_the_posture_from_then_on_and_reads_for_either_side()
    {
        var head = await HeadAsync();
        var whip = (await head.GetAsync("/api/postures"))
            .EnumerateArray()
            .Single(posture => posture.Text("name") == "Single Whip")
            .Text("id");
        var (id, before) = (Guid.NewGuid(), await FaultsAsync("left"));
        var seen = new
        {
            id,
            side = "right",
            seen = "the left heel hangs in the air",
            weight = "shape",
        };
        await head.PostAsync($"/api/postures/{whip}/faults", seen).OkAsync();
        // Sent again because the answer was lost.
        await head.PostAsync($"/api/postures/{whip}/faults", seen).OkAsync();
        var left = await FaultsAsync("left");
        Assert.Equal(before.Count + 1, left.Count);
        Assert.Equal("the right heel hangs in the air", left[^1].Text("seen"));
        Assert.Equal("the left heel hangs in the air", (await FaultsAsync("right"))[^1].Text("seen"));

        // Once somebody has it open, whoever keeps the text is asked for its cause and mend.
        Assert.Empty(await UnwrittenAsync(head));
        var imke = (await StudentAsync(head, "Imke")).Text("id");
        await head.PostAsync(
                $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/2026-11-24/observations",
                SeenWith(imke, whip, "left", "the right heel hangs in the air", id)
            )
            .OkAsync();
        var asked = Assert.Single(await UnwrittenAsync(head));
        Assert.Equal(whip, asked.Text("postureId"));
        Assert.Equal(
            "Single Whip: the right heel hangs in the air. Write what causes it and how it is mended; 1 has it open.",
            asked.Text("sentence")
        );
        Assert.Empty(await UnwrittenAsync(await InstructorAsync()));
        Assert.Equal(
            ["seen", "side"],
            await head.PostAsync(
                    $"/api/postures/{whip}/faults",
                    new
                    {
                        id = Guid.NewGuid(),
                        side = "symmetric",
                        seen = " ",
                        weight = "shape",
                    }
                )
                .FieldsAsync()
        );

        static async Task<List<JsonElement>> UnwrittenAsync(Caller caller) =>
            [
                .. (await caller.GetAsync("/api/today/left-to-do"))
                    .EnumerateArray()
                    .Where(errand => errand.Text("kind") == "unwritten"),
            ];
        async Task<List<JsonElement>> FaultsAsync(string side) =>
            [
                .. (await head.GetAsync($"/api/postures/{whip}?side={side}"))
                    .GetProperty("reads")
                    .GetProperty("faults")
                    .EnumerateArray(),
            ];
    }
}
