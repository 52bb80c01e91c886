using System.Text.Json;
using System.Text.Json.Nodes;

namespace Zeitplan.Server.Tests.Forms;

public sealed class MaterialEndpointTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_figure_is_drawn_of_every_count_from_every_side_and_of_nothing_else()
    {
        var odile = await AssistantAsync();
        var postures = (await odile.GetAsync("/api/postures")).EnumerateArray().ToList();
        string Called(string name) => postures.Single(posture => posture.Text("name") == name).Text("id");
        var (whip, kick) = (Called("Single Whip"), Called("Heel Kick"));
        Task<string> DrawnAsync(string of) => odile.Client.GetStringAsync($"/api/postures/{whip}/figure.svg{of}");
        Task<string> KickingAsync(string of) => odile.Client.GetStringAsync($"/api/postures/{kick}/figure.svg{of}");

        // What has folded its leg again is shown as it kicks, unless its end is asked for.
        Assert.Equal(await KickingAsync("?count=4"), await KickingAsync(""));
        Assert.NotEqual(await KickingAsync("?count=5"), await KickingAsync(""));

        var ends = await DrawnAsync("?side=left&count=6&view=front&version=standing");
        Assert.Equal(ends, await DrawnAsync(""));
        Assert.StartsWith("<svg", ends, StringComparison.Ordinal);
        var others = new[] { "?count=0", "?view=behind", "?view=left", "?view=above", "?side=right", "?mirrored=true" };
        Assert.Equal(
            others.Length + 1,
            (await Task.WhenAll(others.Select(DrawnAsync))).Append(ends).Distinct().Count()
        );
        foreach (
            var (of, field) in new[]
            {
                ("?count=7", "count"),
                ("?count=-1", "count"),
                ("?view=inside", "view"),
                ("?side=symmetric", "side"),
                ("?version=flying", "version"),
            }
        )
        {
            Assert.Equal([field], await odile.Client.GetAsync($"/api/postures/{whip}/figure.svg{of}").FieldsAsync());
        }

        await odile.Client.GetAsync($"/api/postures/{Guid.NewGuid()}/figure.svg").ProblemAsync(404);
    }

    [Fact]
    public async Task A_compound_posture_is_drawn_as_its_parts_are_done_one_after_the_other()
    {
        var odile = await AssistantAsync();
        var postures = (await odile.GetAsync("/api/postures")).EnumerateArray().ToList();
        var compound = postures.Single(posture => posture.GetProperty("isCompound").GetBoolean()).Text("id");
        Task<HttpResponseMessage> Drawn(int count) =>
            odile.Client.GetAsync($"/api/postures/{compound}/figure.svg?side=left&count={count}");

        var parts = new[] { "Ward Off", "Roll Back", "Press", "Push" };
        var counts = parts.Sum(name =>
            postures.Single(posture => posture.Text("name") == name).GetProperty("counts").GetInt32()
        );
        var all = await Task.WhenAll(
            Enumerable
                .Range(0, counts + 1)
                .Select(async count => await (await Drawn(count)).Content.ReadAsStringAsync())
        );
        Assert.Equal(counts + 1, all.Distinct().Count());
        Assert.Equal(["count"], await Drawn(counts + 1).FieldsAsync());
        Assert.Equal(
            ["version"],
            await odile.Client.GetAsync($"/api/postures/{compound}/figure.svg?version=seated").FieldsAsync()
        );
        Assert.Equal(
            2,
            (await odile.GetAsync("/api/figures")).EnumerateArray().Count(shape => shape.Text("postureId") == compound)
        );
    }

    [Fact]
    public async Task The_end_shapes_of_a_mode_come_all_at_once()
    {
        var odile = await AssistantAsync();
        var standing = (await odile.GetAsync("/api/figures")).EnumerateArray().ToList();
        var seated = (await odile.GetAsync("/api/figures?mode=seated")).EnumerateArray().ToList();
        Assert.True(standing.Count > seated.Count && seated.Count > 60, $"{standing.Count}, {seated.Count}");
        Assert.All(
            standing.Concat(seated),
            shape => Assert.True(shape.Text("box").Length > 0 && shape.GetProperty("shapes").GetArrayLength() > 10)
        );
        Assert.Equal(
            standing.Count,
            standing.Select(shape => shape.Text("postureId") + shape.Text("side")).Distinct().Count()
        );
        Assert.Equal(["mode"], await odile.Client.GetAsync("/api/figures?mode=flying").FieldsAsync());
    }

    [Fact]
    public async Task What_a_posture_asks_and_what_is_found_is_said_for_every_mode_and_changes_with_its_notation()
    {
        var head = await HeadAsync();
        var id = await PostureAsync(head, "Push");
        async Task<JsonElement> SeatedAsync() =>
            (await head.GetAsync($"/api/postures/{id}"))
                .GetProperty("modes")
                .EnumerateArray()
                .Single(mode => mode.Text("mode") == "seated");
        IEnumerable<string?> Demands(JsonElement mode) =>
            mode.GetProperty("asks").EnumerateArray().Select(asked => asked.Text("demand"));

        var before = await SeatedAsync();
        Assert.True(before.GetProperty("isKnown").GetBoolean());
        Assert.False(before.GetProperty("feetCarry").GetBoolean());
        Assert.DoesNotContain("trunkTwist", Demands(before));
        Assert.Empty(before.GetProperty("findings").EnumerateArray());

        var posture = JsonNode.Parse((await head.GetAsync($"/api/postures/{id}")).GetRawText())!;
        var version = posture["text"]!["versions"]!.AsArray().Single(one => (string)one!["mode"]! == "seated")!;
        version["counts"]![1]!["body"] = "chest left 40; both chest centre rear palm in fingers down";
        version["counts"]![1]!["feet"] = "L 60%";
        await head.PutAsync($"/api/postures/{id}", new { text = posture["text"], version = posture["version"] })
            .OkAsync();
        var after = await SeatedAsync();
        Assert.Contains("trunkTwist", Demands(after));
        Assert.True(after.GetProperty("feetCarry").GetBoolean());
        Assert.Contains(
            "elbowNobodyHas",
            after.GetProperty("findings").EnumerateArray().Select(finding => finding.Text("rule"))
        );

        version["counts"]![1]!["body"] = "";
        version["counts"]![1]!["feet"] = "";
        version["counts"]![1]!["hands"] = "both hands go somewhere";
        var again = await head.GetAsync($"/api/postures/{id}");
        await head.PutAsync(
                $"/api/postures/{id}",
                new { text = posture["text"], version = again.GetProperty("version") }
            )
            .OkAsync();
        Assert.False((await SeatedAsync()).GetProperty("isKnown").GetBoolean());
    }

    [Fact]
    public async Task A_posture_reads_mirrored_on_the_other_side_and_is_edited_once_at_a_time()
    {
        var head = await HeadAsync();
        var id = await PostureAsync(head, "Brush Knee");
        var (left, right) = (
            await head.GetAsync($"/api/postures/{id}?side=left"),
            await head.GetAsync($"/api/postures/{id}?side=right")
        );
        Assert.Equal("step left, heel first", Count(left, 1).Text("cue"));
        Assert.Equal("step right, heel first", Count(right, 1).Text("cue"));
        Assert.StartsWith(
            "right foot steps 3 forward and 1 right",
            right.GetProperty("said")[1].Text("feet"),
            StringComparison.Ordinal
        );

        var body = Body(left);
        body["text"]!["keyPoint"] = "everything arrives together";
        await head.PutAsync($"/api/postures/{id}", body).OkAsync();
        body["text"]!["name"] = "Brush the Knee";
        var stale = await head.PutAsync($"/api/postures/{id}", body).ProblemAsync(409);
        Assert.Contains(
            stale.GetProperty("changes").EnumerateArray(),
            change => change.GetString()!.Contains("Brush the Knee", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task A_slip_in_the_notation_is_said_at_its_count_and_a_name_is_given_once()
    {
        var head = await HeadAsync();
        var posture = await head.GetAsync($"/api/postures/{await PostureAsync(head, "Press")}");
        var body = Body(posture);
        body["text"]!["counts"]![1]!["feet"] = "R 170%";
        Assert.Equal(
            ["counts[1].feet"],
            await head.PutAsync($"/api/postures/{posture.Text("id")}", body).FieldsAsync()
        );
        body = Body(posture);
        body["text"]!["name"] = "push";
        Assert.Equal(["name"], await head.PutAsync($"/api/postures/{posture.Text("id")}", body).FieldsAsync());
    }

    [Fact]
    public async Task What_is_built_from_a_posture_follows_it()
    {
        var head = await HeadAsync();
        var (chop, snake) = (
            await PostureAsync(head, "Turn and Chop"),
            await PostureAsync(head, "White Snake Darts Its Tongue")
        );
        var body = Body(await head.GetAsync($"/api/postures/{chop}"));
        body["text"]!["counts"]![0]!["cue"] = "sit back, toes in";
        await head.PutAsync($"/api/postures/{chop}", body).OkAsync();
        Assert.Equal("sit back, toes in", Count(await head.GetAsync($"/api/postures/{snake}"), 0).Text("cue"));
        body = Body(await head.GetAsync($"/api/postures/{chop}"));
        body["text"]!["builtFrom"] = new JsonObject { ["postureId"] = snake, ["mirrored"] = false };
        Assert.Equal(["builtFrom.postureId"], await head.PutAsync($"/api/postures/{chop}", body).FieldsAsync());
    }

    [Fact]
    public async Task A_posture_in_use_stays_and_says_where()
    {
        var head = await HeadAsync();
        var refusal = await head.SendAsync(
                HttpMethod.Delete,
                $"/api/postures/{await PostureAsync(head, "Single Whip")}",
                null
            )
            .ProblemAsync(409);
        Assert.Equal("Single Whip is in use and stays. Nothing was taken out.", refusal.Text("title"));
        Assert.Contains(
            refusal.GetProperty("changes").EnumerateArray(),
            use => use.GetString() == "It stands in Lantern Form."
        );
        await head.SendAsync(HttpMethod.Delete, $"/api/postures/{await PostureAsync(head, "Wave Low")}", null)
            .OkAsync();
    }

    [Fact]
    public async Task Links_and_principles_are_written_once_and_the_mirrored_pair_is_the_same_link()
    {
        var head = await HeadAsync();
        var brush = await PostureAsync(head, "Brush Knee");
        var mirrored = new
        {
            text = new
            {
                fromId = brush,
                fromSide = "right",
                toId = brush,
                toSide = "left",
                keyPoint = "the same again",
                cues = Array.Empty<string>(),
                faults = Array.Empty<object>(),
            },
            version = (uint?)null,
        };
        Assert.Equal(["toId"], await head.PutAsync($"/api/links/{Guid.CreateVersion7()}", mirrored).FieldsAsync());
        var id = Guid.CreateVersion7();
        await head.PutAsync(
                $"/api/principles/{id}",
                new
                {
                    text = new
                    {
                        order = 9,
                        name = "Quiet face",
                        keyPoint = "the face does nothing",
                        faults = Array.Empty<object>(),
                        images = Array.Empty<string>(),
                    },
                    version = (uint?)null,
                }
            )
            .OkAsync();
        Assert.Equal(10, (await head.GetAsync("/api/principles")).GetArrayLength());
        await head.SendAsync(HttpMethod.Delete, $"/api/principles/{id}", null).OkAsync();
        Assert.Equal(9, (await head.GetAsync("/api/principles")).GetArrayLength());
    }

    [Fact]
    public async Task What_is_exported_is_taken_in_again_and_nothing_changes()
    {
        var head = await HeadAsync();
        var file = await head.Client.GetStringAsync("/api/library");
        var preview = await Read(head.PostAsync("/api/library/preview", new { file }));
        Assert.Equal(0, preview.GetProperty("problems").GetArrayLength());
        Assert.All(preview.GetProperty("items").EnumerateArray(), item => Assert.Equal("same", item.Text("fate")));
        var taken = await Read(head.PostAsync("/api/library/import", new { file, choices = new { } }));
        Assert.Equal(0, taken.GetProperty("postures").GetInt32() + taken.GetProperty("forms").GetInt32());
        Assert.Equal(file, await head.Client.GetStringAsync("/api/library"));
    }

    [Fact]
    public async Task A_changed_file_changes_what_it_says_and_a_bad_one_nothing()
    {
        var head = await HeadAsync();
        var library = JsonNode.Parse(await head.Client.GetStringAsync("/api/library"))!;
        var opening = library["postures"]!
            .AsArray()
            .Single(entry => entry!["text"]!["name"]!.GetValue<string>() == "Opening")!;
        opening["text"]!["keyPoint"] = "let it settle";
        library["forms"]![0]!["text"]!["positions"]![0]!["postureId"] = Guid.NewGuid().ToString();
        Assert.Equal(
            ["file"],
            await head.PostAsync("/api/library/import", new { file = library.ToJsonString(), choices = new { } })
                .FieldsAsync()
        );
        Assert.NotEqual(
            "let it settle",
            (await head.GetAsync($"/api/postures/{await PostureAsync(head, "Opening")}"))
                .GetProperty("text")
                .Text("keyPoint")
        );

        library["forms"] = new JsonArray();
        var taken = await Read(
            head.PostAsync("/api/library/import", new { file = library.ToJsonString(), choices = new { } })
        );
        Assert.Equal((1, 0), (taken.GetProperty("postures").GetInt32(), taken.GetProperty("forms").GetInt32()));
        Assert.Equal(
            "let it settle",
            (await head.GetAsync($"/api/postures/{await PostureAsync(head, "Opening")}"))
                .GetProperty("text")
                .Text("keyPoint")
        );
    }

    [Fact]
    public async Task A_file_that_is_far_too_large_is_refused()
    {
        var head = await HeadAsync();
        var file = new string('x', 50 * 1024 * 1024);
        var preview = await Read(head.PostAsync("/api/library/preview", new { file }));
        Assert.StartsWith(
            "The file has 50 MB",
            Assert.Single(preview.GetProperty("problems").EnumerateArray()).Text("message"),
            StringComparison.Ordinal
        );
        Assert.Equal(
            ["file"],
            await head.PostAsync("/api/library/import", new { file, choices = new { } }).FieldsAsync()
        );
    }

    [Fact]
    public async Task A_convention_is_in_force_everywhere_at_once()
    {
        var head = await HeadAsync();
        var conventions = await head.GetAsync("/api/conventions");
        var body = new JsonObject
        {
            ["ways"] = JsonNode.Parse(conventions.GetProperty("ways").GetRawText()),
            ["version"] = conventions.GetProperty("version").GetInt64(),
        };
        body["ways"]!["facing"] = "hall";
        body["ways"]!["demonstration"] = "facingMirrored";
        body["ways"]!["numbering"]!["compoundAsOne"] = false;
        await head.PutAsync("/api/conventions", body).OkAsync();
        var study = (await FormAsync(head)).GetProperty("study");
        Assert.Equal(
            ("right wall", "5"),
            (study.GetProperty("positions")[3].Text("facingSaid"), study.GetProperty("positions")[4].Text("number"))
        );
        Assert.Contains(
            study.GetProperty("cues").EnumerateArray(),
            line => line.Text("say") == "step left, heel first" && line.Text("do") == "step right, heel first"
        );
        body["ways"]!["countsPerBreath"] = 1;
        await head.PutAsync("/api/conventions", body).ProblemAsync(409);
        body["ways"]!["bowLoad"] = 90;
        Assert.Equal(["bowLoad"], await head.PutAsync("/api/conventions", body).FieldsAsync());
        await (await InstructorAsync()).PutAsync("/api/conventions", body).ProblemAsync(403);
    }

    private static async Task<string> PostureAsync(Caller caller, string name) =>
        (await caller.GetAsync("/api/postures"))
            .EnumerateArray()
            .Single(posture => posture.Text("name") == name)
            .Text("id");

    private static JsonElement Count(JsonElement posture, int at) =>
        posture.GetProperty("reads").GetProperty("counts")[at];

    private static JsonObject Body(JsonElement posture) =>
        new()
        {
            ["text"] = JsonNode.Parse(posture.GetProperty("text").GetRawText()),
            ["version"] = posture.GetProperty("version").GetInt64(),
        };

    private static async Task<JsonElement> Read(Task<HttpResponseMessage> sending)
    {
        var response = await sending;
        var text = await response.Content.ReadAsStringAsync();
        Assert.True(response.IsSuccessStatusCode, text);
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    [Fact]
    public async Task A_posture_that_stands_in_a_form_stays()
    {
        var head = await HeadAsync();
        var whip = (await head.GetAsync("/api/postures"))
            .EnumerateArray()
            .Single(posture => posture.Text("name") == "Single Whip")
            .Text("id");
        Assert.Contains(
            "It stands in Lantern Form.",
            (await head.SendAsync(HttpMethod.Delete, $"/api/postures/{whip}", null).ProblemAsync(409)).GetRawText(),
            StringComparison.Ordinal
        );
    }
}
