using System.Text.Json;

namespace Zeitplan.Server.Tests.People;

/// <summary>What a limit changes in the middle of a term.</summary>
public sealed class LimitTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_limit_added_in_the_middle_of_a_term_raises_every_coming_lesson_it_touches()
    {
        var head = await HeadAsync();
        var path = $"/api/students/{(await StudentAsync(head, "Goran")).Text("id")}/limits";
        var kept = await head.GetAsync(path);
        object Limits(string since) =>
            new
            {
                limits = new[]
                {
                    new
                    {
                        demand = "wideStep",
                        side = "symmetric",
                        since,
                        note = "",
                    },
                },
                note = "",
                version = kept.GetProperty("version").GetInt64(),
            };
        Assert.Equal(["limits[0].since"], await head.PutAsync(path, Limits("2031-01-01")).FieldsAsync());
        (await head.PutAsync(path, Limits("2026-11-20"))).EnsureSuccessStatusCode();
        async Task<List<JsonElement>> Open() =>
            [
                .. (await head.GetAsync("/api/safety"))
                    .EnumerateArray()
                    .Where(item => item.Text("student") == "Goran V." && item.GetProperty("open").GetBoolean()),
            ];
        var open = await Open();
        Assert.NotEmpty(open);
        // Whoever assists cannot settle it, and asks.
        foreach (
            var (caller, says) in new[] { (head, "Settle how Goran V."), (await AssistantAsync(), "Ask how Goran V.") }
        )
        {
            Assert.Contains(
                (await caller.GetAsync("/api/today/left-to-do")).EnumerateArray(),
                errand =>
                    errand.Text("kind") == "unsafe"
                    && errand.Text("sentence").StartsWith(says, StringComparison.Ordinal)
            );
        }

        var student = open[0].Text("studentId");
        Assert.Equal(
            ["mode"],
            await head.PostAsync(
                    $"/api/students/{student}/adaptations",
                    new
                    {
                        id = Guid.CreateVersion7(),
                        postureId = open[0].Text("postureId"),
                        mode = "standing",
                        words = "",
                    }
                )
                .FieldsAsync()
        );
        foreach (var item in open.DistinctBy(one => one.Text("postureId")))
        {
            var mode =
                item.GetProperty("modes").GetArrayLength() > 0 ? item.GetProperty("modes")[0].Text("mode") : null;
            await head.PostAsync(
                    $"/api/students/{student}/adaptations",
                    new
                    {
                        id = Guid.CreateVersion7(),
                        postureId = item.Text("postureId"),
                        mode,
                        words = "",
                    }
                )
                .OkAsync();
        }

        Assert.Empty(await Open());
    }
}
