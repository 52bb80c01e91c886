using System.Text.Json;
using System.Text.Json.Nodes;

namespace Zeitplan.Server.Tests.Forms;

public sealed class FormEndpointTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task The_demo_form_adds_up_and_ends_where_it_began()
    {
        var form = await FormAsync(await HeadAsync());
        Assert.True(form.GetProperty("positions").GetArrayLength() >= 16);
        Assert.Equal(2, form.GetProperty("sections").GetArrayLength());
        Assert.Equal(0, form.GetProperty("findings").GetArrayLength());
        Assert.Equal(0, form.GetProperty("analysis").GetProperty("homeTurn").GetInt32());
    }

    [Fact]
    public async Task An_edit_is_kept_checked_and_can_be_taken_back()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var path = $"/api/forms/{form.Text("id")}";
        var edited = Body(form);
        edited["positions"]![7]!["facing"] = 225;
        await head.PutAsync(path, edited).OkAsync();
        var saved = await head.GetAsync(path);
        Assert.Equal(225, saved.GetProperty("positions")[7].GetProperty("facing").GetInt32());
        Assert.Equal(2, saved.GetProperty("findings").GetArrayLength());
        Assert.Equal("A turn of -180° from 3 o'clock leads to 9 o'clock; 7:30 is written.", saved.GetProperty("findings")[0].Text("message"));

        var back = Body(form);
        back["version"] = saved.GetProperty("version").GetInt64();
        await head.PutAsync(path, back).OkAsync();
        Assert.Equal(Body(form)["positions"]!.ToJsonString(), Body(await head.GetAsync(path))["positions"]!.ToJsonString());
    }

    [Fact]
    public async Task A_stale_edit_is_refused_and_told_what_changed()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var path = $"/api/forms/{form.Text("id")}";
        var (first, second) = (Body(form), Body(form));
        first["positions"]![1]!["side"] = "left";
        await head.PutAsync(path, first).OkAsync();
        second["name"] = "Lamp Form";
        var problem = await head.PutAsync(path, second).ProblemAsync(409);
        Assert.Equal("urn:zeitplan:problem:stale", problem.Text("type"));
        Assert.Contains(problem.GetProperty("changes").EnumerateArray(), change => change.GetString()!.StartsWith("Raise Hands, left now ends", StringComparison.Ordinal));
        Assert.Equal("Lantern Form", (await head.GetAsync(path)).Text("name"));
    }

    [Fact]
    public async Task Of_edits_sent_at_the_same_moment_exactly_one_is_kept()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var answers = await Task.WhenAll(Enumerable.Range(1, 6).Select(number =>
        {
            var body = Body(form);
            body["name"] = $"Lantern Form {number}";
            return head.PutAsync($"/api/forms/{form.Text("id")}", body);
        }));
        Assert.Single(answers, answer => answer.IsSuccessStatusCode);
        Assert.Equal(5, answers.Count(answer => (int)answer.StatusCode == 409));
    }

    [Theory]
    [InlineData("""{"name": " "}""", "name")]
    [InlineData("""{"name": "a name that goes on and on until no sheet of paper in the whole school could hold it on one line"}""", "name")]
    [InlineData("""{"positions/3/facing": 720}""", "positions[3].facing")]
    [InlineData("""{"positions/3/facing": -45}""", "positions[3].facing")]
    [InlineData("""{"positions/0/side": "left"}""", "positions[0].side")]
    [InlineData("""{"positions/2/repeats": 0}""", "positions[2].repeats")]
    [InlineData("""{"sections/0/name": ""}""", "sections[0].name")]
    public async Task What_cannot_be_kept_is_said_at_its_field_and_nothing_is_saved(string change, string field)
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var body = Body(form);
        foreach (var (path, value) in JsonNode.Parse(change)!.AsObject())
        {
            var steps = path.Split('/');
            var at = steps.SkipLast(1).Aggregate<string, JsonNode>(body, (node, step) => int.TryParse(step, out var index) ? node[index]! : node[step]!);
            at[steps[^1]] = value!.DeepClone();
        }

        Assert.Equal([field], await head.PutAsync($"/api/forms/{form.Text("id")}", body).FieldsAsync());
        Assert.Equal(form.GetProperty("version").GetInt64(), (await FormAsync(head)).GetProperty("version").GetInt64());
    }

    [Fact]
    public async Task A_segment_that_is_assigned_cannot_be_turned_round_by_reordering()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var body = Body(form);
        var positions = body["positions"]!.AsArray();
        var last = positions[10]!;
        positions.RemoveAt(10);
        positions.Insert(0, last);
        Assert.Equal(["positions"], await head.PutAsync($"/api/forms/{form.Text("id")}", body).FieldsAsync());
    }

    [Fact]
    public async Task A_posture_reads_mirrored_on_the_other_side_and_can_be_renamed_once_at_a_time()
    {
        var head = await HeadAsync();
        var id = (await head.GetAsync("/api/postures")).EnumerateArray().Single(posture => posture.Text("name") == "Brush Knee").Text("id");
        var (left, right) = (await head.GetAsync($"/api/postures/{id}?side=left"), await head.GetAsync($"/api/postures/{id}?side=right"));
        Assert.Equal("step left, heel first", left.GetProperty("counts")[2].Text("cue"));
        Assert.Equal("step right, heel first", right.GetProperty("counts")[2].Text("cue"));

        var version = left.GetProperty("version").GetInt64();
        await head.PutAsync($"/api/postures/{id}/name", new { name = "Brush Knee and Step", version }).OkAsync();
        await head.PutAsync($"/api/postures/{id}/name", new { name = "Brush the Knee", version }).ProblemAsync(409);
        Assert.Equal(["name"], await head.PutAsync($"/api/postures/{id}/name", new { name = "Opening", version = version + 1 }).FieldsAsync());
    }

    private static JsonObject Body(JsonElement form) => JsonNode.Parse(form.GetRawText())!.AsObject();
}
