using System.Text.Json;

namespace Zeitplan.Server.Tests.People;

/// <summary>The ladder while people stand on it.</summary>
public sealed class LadderTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_sash_in_use_stays_until_another_takes_it_over_and_the_order_says_what_it_does()
    {
        var head = await HeadAsync();
        async Task<JsonElement> Sash(string name) =>
            (await head.GetAsync("/api/people"))
                .GetProperty("sashes")
                .EnumerateArray()
                .Single(sash => sash.Text("name") == name);
        var (fern, copper) = (await Sash("Fern"), await Sash("Copper"));
        var order = (await head.GetAsync("/api/people"))
            .GetProperty("sashes")
            .EnumerateArray()
            .Select(sash => sash.Text("id"))
            .ToList();
        var swapped = new[] { order[0], order[2], order[1], order[3], order[4] };
        Assert.Contains(
            "at Fern would work towards Garnet next, not Copper",
            await (
                await head.PostAsync("/api/sashes/order/effects", new { order = swapped })
            ).Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
        Assert.Equal(
            ["order"],
            await head.PostAsync("/api/sashes/order/effects", new { order = order.Take(3) }).FieldsAsync()
        );
        await head.PutAsync("/api/sashes/order", new { order = swapped }).OkAsync();
        Assert.Equal(3, (await Sash("Fern")).GetProperty("order").GetInt32());

        var refused = await head.SendAsync(HttpMethod.Delete, $"/api/sashes/{fern.Text("id")}", null).ProblemAsync(409);
        Assert.Equal("urn:zeitplan:problem:in-use", refused.Text("type"));
        Assert.Contains("The cohort Fern, newer is made from it.", refused.GetRawText(), StringComparison.Ordinal);
        await head.SendAsync(HttpMethod.Delete, $"/api/sashes/{fern.Text("id")}?into={copper.Text("id")}", null)
            .OkAsync();
        Assert.Equal(copper.Text("id"), (await StudentAsync(head, "Emeka")).Text("sashId"));
        Assert.Equal(
            [1, 2, 3, 4],
            (await head.GetAsync("/api/people"))
                .GetProperty("sashes")
                .EnumerateArray()
                .Select(sash => sash.GetProperty("order").GetInt32())
        );
    }

    [Fact]
    public async Task A_level_without_halves_leaves_nobody_in_one()
    {
        var head = await HeadAsync();
        var fern = (await head.GetAsync("/api/people"))
            .GetProperty("sashes")
            .EnumerateArray()
            .Single(sash => sash.Text("name") == "Fern");
        object Text(string name) =>
            new
            {
                name,
                colour = "#6E8C4A",
                hasHalves = false,
                asks = JsonSerializer.Deserialize<JsonElement>(
                    fern.GetProperty("asks")
                        .GetRawText()
                        .Replace("\"half\":\"newer\"", "\"half\":\"none\"", StringComparison.Ordinal)
                        .Replace("\"half\":\"senior\"", "\"half\":\"none\"", StringComparison.Ordinal)
                ),
            };
        Assert.Contains(
            "would lose their half",
            await (
                await head.PostAsync($"/api/sashes/{fern.Text("id")}/effects", Text("Fern"))
            ).Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
        await head.PutAsync(
                $"/api/sashes/{fern.Text("id")}",
                new { text = Text("Fern"), version = fern.GetProperty("version").GetInt64() }
            )
            .OkAsync();
        Assert.Equal("none", (await StudentAsync(head, "Emeka")).Text("half"));
        await head.PutAsync(
                $"/api/sashes/{fern.Text("id")}",
                new { text = Text("Ferns"), version = fern.GetProperty("version").GetInt64() }
            )
            .ProblemAsync(409);
    }
}
