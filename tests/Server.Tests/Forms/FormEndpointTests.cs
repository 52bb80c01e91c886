using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Zeitplan.Core.Forms;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Tests.Forms;

public sealed class FormEndpointTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task The_house_forms_add_up_and_come_home()
    {
        var head = await HeadAsync();
        foreach (var item in (await head.GetAsync("/api/forms")).EnumerateArray())
        {
            var study = (await head.GetAsync($"/api/forms/{item.Text("id")}")).GetProperty("study");
            Assert.Equal(0, study.GetProperty("findings").GetArrayLength());
            Assert.Equal(0, study.GetProperty("analysis").GetProperty("homeTurn").GetInt32());
            Assert.True(study.GetProperty("floor").GetProperty("need").GetProperty("fromHome").GetDouble() < 1);
        }
    }

    [Fact]
    public async Task An_edit_is_kept_checked_and_can_be_taken_back()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var path = $"/api/forms/{form.Text("id")}";
        var edited = Body(form);
        edited["text"]!["positions"]![7]!["facing"] = 225;
        await head.PutAsync(path, edited).OkAsync();
        var saved = await head.GetAsync(path);
        Assert.Equal(225, saved.GetProperty("text").GetProperty("positions")[7].GetProperty("facing").GetInt32());
        var messages = saved
            .GetProperty("study")
            .GetProperty("findings")
            .EnumerateArray()
            .Select(finding => finding.Text("message"))
            .ToList();
        Assert.Contains("A turn of -180° from 3 o'clock leads to 9 o'clock; 7:30 is written.", messages);

        var back = Body(form);
        back["version"] = saved.GetProperty("version").GetInt64();
        await head.PutAsync(path, back).OkAsync();
        Assert.Equal(Body(form)["text"]!.ToJsonString(), Body(await head.GetAsync(path))["text"]!.ToJsonString());
    }

    [Fact]
    public async Task What_ways_in_ask_for_follows_every_save_of_a_form_and_of_its_postures()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        Assert.DoesNotContain(Demand.ForwardBend, await AskedAsync());
        var edited = Body(form);
        edited["text"]!["positions"]![1]!["wayInBody"] = "lean front 30";
        await head.PutAsync($"/api/forms/{form.Text("id")}", edited).OkAsync();
        Assert.Contains(Demand.ForwardBend, await AskedAsync());

        edited["text"]!["positions"]![1]!["wayInBody"] = "";
        edited["version"] = (await head.GetAsync($"/api/forms/{form.Text("id")}")).GetProperty("version").GetInt64();
        await head.PutAsync($"/api/forms/{form.Text("id")}", edited).OkAsync();
        Assert.DoesNotContain(Demand.ForwardBend, await AskedAsync());

        async Task<IReadOnlyList<Demand>> AskedAsync()
        {
            await using var db = await OpenAsync();
            return
            [
                .. (await db.Forms.ToListAsync())
                    .SelectMany(kept => kept.Outline.WaysIn)
                    .SelectMany(way => way.Demands),
            ];
        }
    }

    [Fact]
    public async Task A_stale_edit_is_refused_and_told_what_changed()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var path = $"/api/forms/{form.Text("id")}";
        var (first, second) = (Body(form), Body(form));
        first["text"]!["positions"]![1]!["side"] = "left";
        await head.PutAsync(path, first).OkAsync();
        second["text"]!["name"] = "Lamp Form II";
        var problem = await head.PutAsync(path, second).ProblemAsync(409);
        Assert.Equal("urn:zeitplan:problem:stale", problem.Text("type"));
        Assert.Contains(
            problem.GetProperty("changes").EnumerateArray(),
            change => change.GetString()!.StartsWith("Raise Hands, left now ends", StringComparison.Ordinal)
        );
        Assert.Equal("Lantern Form", (await head.GetAsync(path)).GetProperty("text").Text("name"));
    }

    [Fact]
    public async Task Of_edits_sent_at_the_same_moment_exactly_one_is_kept()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var answers = await Task.WhenAll(
            Enumerable
                .Range(1, 6)
                .Select(number =>
                {
                    var body = Body(form);
                    body["text"]!["name"] = $"Lantern Form {number}";
                    return head.PutAsync($"/api/forms/{form.Text("id")}", body);
                })
        );
        Assert.Single(answers, answer => answer.IsSuccessStatusCode);
        Assert.Equal(5, answers.Count(answer => (int)answer.StatusCode == 409));
    }

    [Theory]
    [InlineData("""{"name": " "}""", "name")]
    [InlineData("""{"name": "lamp form"}""", "name")]
    [InlineData(
        """{"name": "a name that goes on and on until no sheet of paper in the whole school could hold it on one line"}""",
        "name"
    )]
    [InlineData("""{"positions/3/facing": 720}""", "text.positions[3].facing")]
    [InlineData("""{"positions/3/facing": -45}""", "text.positions[3].facing")]
    [InlineData("""{"positions/0/side": "left"}""", "positions[0].side")]
    [InlineData("""{"positions/2/repeats": 0}""", "positions[2].repeats")]
    [InlineData("""{"positions/2/wayIn": "R stap"}""", "positions[2].wayIn")]
    [InlineData("""{"segments/0/close": "L 140%"}""", "segments[0].close")]
    [InlineData("""{"sections/0/name": ""}""", "sections[0].name")]
    public async Task What_cannot_be_kept_is_said_at_its_field_and_nothing_is_saved(string change, string field)
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var body = Body(form);
        foreach (var (path, value) in JsonNode.Parse(change)!.AsObject())
        {
            var steps = path.Split('/');
            var at = steps
                .SkipLast(1)
                .Aggregate<string, JsonNode>(
                    body["text"]!,
                    (node, step) => int.TryParse(step, out var index) ? node[index]! : node[step]!
                );
            at[steps[^1]] = value!.DeepClone();
        }

        Assert.Equal([field], await head.PutAsync($"/api/forms/{form.Text("id")}", body).FieldsAsync());
        Assert.Equal(form.GetProperty("version").GetInt64(), (await FormAsync(head)).GetProperty("version").GetInt64());
    }

    [Fact]
    public async Task A_segment_that_is_assigned_cannot_be_turned_round_by_reordering_nor_its_form_taken_out()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var body = Body(form);
        var positions = body["text"]!["positions"]!.AsArray();
        var last = positions[10]!;
        positions.RemoveAt(10);
        positions.Insert(0, last);
        Assert.Equal(["positions"], await head.PutAsync($"/api/forms/{form.Text("id")}", body).FieldsAsync());
        var refusal = await head.SendAsync(HttpMethod.Delete, $"/api/forms/{form.Text("id")}", null).ProblemAsync(409);
        Assert.Equal(3, refusal.GetProperty("changes").GetArrayLength());
    }

    [Fact]
    public async Task A_form_in_a_hall_says_where_everybody_starts_or_what_would_fit()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var halls = (await head.GetAsync("/api/people"))
            .GetProperty("halls")
            .EnumerateArray()
            .ToDictionary(hall => hall.Text("name"), hall => hall.Text("id"));
        var ask = new
        {
            hallId = halls["Lower Hall"],
            standing = 12,
            seated = 2,
            frames = 1,
            railUsers = 3,
            fromId = (string?)null,
            toId = (string?)null,
        };
        var answer = await Read(head.PostAsync($"/api/forms/{form.Text("id")}/hall", ask));
        Assert.True(answer.GetProperty("answer").GetProperty("best").GetProperty("fits").GetBoolean());
        Assert.True(answer.GetProperty("drillSteps").GetInt32() > 5);

        var small = await Read(
            head.PostAsync($"/api/forms/{form.Text("id")}/hall", ask with { hallId = halls["Chapel Room"] })
        );
        Assert.False(small.GetProperty("answer").GetProperty("best").GetProperty("fits").GetBoolean());
        Assert.NotEqual(0, small.GetProperty("answer").GetProperty("wouldFit").GetArrayLength());
        Assert.Equal(
            ["standing"],
            await head.PostAsync($"/api/forms/{form.Text("id")}/hall", ask with { standing = 999 }).FieldsAsync()
        );
        Assert.Equal(
            ["railUsers"],
            await head.PostAsync($"/api/forms/{form.Text("id")}/hall", ask with { railUsers = 20 }).FieldsAsync()
        );

        static async Task<JsonElement> Read(Task<HttpResponseMessage> sending)
        {
            var response = await sending;
            response.EnsureSuccessStatusCode();
            return JsonSerializer.Deserialize<JsonElement>(await response.Content.ReadAsStringAsync());
        }
    }

    [Fact]
    public async Task A_form_is_compared_with_what_a_cohort_does_alone_but_only_by_those_who_teach_it()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var people = await head.GetAsync("/api/people");
        string Cohort(string name) =>
            people
                .GetProperty("classes")
                .EnumerateArray()
                .SelectMany(schoolClass => schoolClass.GetProperty("cohorts").EnumerateArray())
                .Single(cohort => cohort.Text("name") == name)
                .Text("id");
        var copper = await head.GetAsync($"/api/forms/{form.Text("id")}/compare?withCohort={Cohort("Copper")}");
        var ivory = await head.GetAsync($"/api/forms/{form.Text("id")}/compare?withCohort={Cohort("Ivory")}");
        Assert.True(copper.GetProperty("minutes").GetDecimal() < ivory.GetProperty("minutes").GetDecimal());
        Assert.True(copper.GetProperty("known").GetInt32() > ivory.GetProperty("known").GetInt32());
        await (await InstructorAsync())
            .Client.GetAsync($"/api/forms/{form.Text("id")}/compare?withCohort={Cohort("Chair group")}")
            .ProblemAsync(403);
    }

    [Fact]
    public async Task Positions_come_as_a_table_and_the_floor_as_a_picture()
    {
        var head = await HeadAsync();
        var form = await FormAsync(head);
        var table = await head.Client.GetStringAsync($"/api/forms/{form.Text("id")}/positions.csv");
        Assert.Equal(
            System.Text.Encoding.UTF8.Preamble.ToArray(),
            (await head.Client.GetByteArrayAsync($"/api/forms/{form.Text("id")}/positions.csv")).Take(3)
        );
        var lines = table.TrimEnd().Split("\r\n");
        Assert.Equal(1 + form.GetProperty("text").GetProperty("positions").GetArrayLength(), lines.Length);
        Assert.Equal(
            "place,number,section,posture,side,turn,facing,repeats,counts,seconds,note,way in,demands",
            lines[0]
        );
        Assert.StartsWith(
            "8,5,\"Section one, lighting the lantern\",Single Whip,left,-180,270,1,6,24,",
            lines[8],
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "<svg",
            await head.Client.GetStringAsync($"/api/forms/{form.Text("id")}/floor.svg"),
            StringComparison.Ordinal
        );
    }

    private static JsonObject Body(JsonElement form) =>
        new()
        {
            ["text"] = JsonNode.Parse(form.GetProperty("text").GetRawText()),
            ["version"] = form.GetProperty("version").GetInt64(),
        };
}
