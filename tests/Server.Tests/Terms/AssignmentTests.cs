using System.Text.Json;
using System.Text.Json.Nodes;

namespace Zeitplan.Server.Tests.Terms;

/// <summary>Segments given to cohorts.</summary>
public sealed class AssignmentTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Segments_are_checked_on_the_spot_given_in_order_and_replace_what_they_were_made_from()
    {
        var head = await HeadAsync();
        var (term, form) = (await TermAsync(head), await FormAsync(head));
        var copper = (await ClassAsync(head))
            .GetProperty("cohorts")
            .EnumerateArray()
            .Single(c => c.Text("name") == "Copper");
        var path = $"/api/terms/{term}/cohorts/{copper.Text("id")}/assignment";
        var version = (await GivenAsync(head, copper)).GetProperty("version").GetInt64();
        string Position(int at) => form.GetProperty("text").GetProperty("positions")[at].Text("id");
        object Segment(int from, int to, string target, string purpose = "new", params string[] leftOut) =>
            new
            {
                id = Guid.CreateVersion7(),
                formId = form.Text("id"),
                fromId = Position(from),
                toId = Position(to),
                target,
                purpose,
                leftOut,
            };
        Assert.Equal(
            ["segments[0].toId"],
            await head.PutAsync(path, new { segments = new[] { Segment(9, 4, "2026-12-20") }, version }).FieldsAsync()
        );
        Assert.Equal(
            ["segments[0].target"],
            await head.PutAsync(path, new { segments = new[] { Segment(4, 9, "2031-12-20") }, version }).FieldsAsync()
        );

        var check = JsonSerializer.Deserialize<JsonElement>(
            await (
                await head.PostAsync($"{path}/check", new { segments = new[] { Segment(43, 63, "2026-12-01") } })
            ).Content.ReadAsStringAsync()
        );
        var kinds = check.GetProperty("findings").EnumerateArray().Select(finding => finding.Text("kind")).ToHashSet();
        Assert.Superset(new HashSet<string> { "prerequisite", "minutes" }, kinds);
        Assert.True(
            check.GetProperty("minutes").GetDecimal() > 0 && check.GetProperty("minutesThere").GetDecimal() > 0
        );
        var own = JsonSerializer.Deserialize<JsonElement>(
            await (
                await head.PostAsync(
                    $"{path}/check",
                    new { segments = new[] { Segment(28, 42, "2026-12-29", "new", Position(30)) } }
                )
            ).Content.ReadAsStringAsync()
        );
        Assert.Contains(
            "Shoulder Stroke, right is left out; Brush Knee, left follows Raise Hands, right",
            own.GetProperty("segments")[0].GetProperty("changes")[0].GetString(),
            StringComparison.Ordinal
        );

        await head.PutAsync(
                path,
                new
                {
                    segments = new[] { Segment(28, 42, "2026-12-20"), Segment(0, 10, "2026-12-20", "maintain") },
                    version = (long?)null,
                }
            )
            .ProblemAsync(409);
        await head.PutAsync(
                path,
                new
                {
                    segments = new[] { Segment(28, 42, "2026-12-20"), Segment(0, 10, "2026-12-20", "maintain") },
                    version,
                }
            )
            .OkAsync();
        Assert.Equal(
            "urn:zeitplan:problem:stale",
            (await head.PutAsync(path, new { segments = Array.Empty<object>(), version }).ProblemAsync(409)).Text(
                "type"
            )
        );
        var given = await GivenAsync(head, copper);
        Assert.Equal(
            ["new", "maintain"],
            given
                .GetProperty("segments")
                .EnumerateArray()
                .Select(segment => segment.GetProperty("segment").Text("purpose"))
        );
    }

    [Fact]
    public async Task A_template_gives_every_cohort_its_segments_at_once()
    {
        var head = await HeadAsync();
        var term = await TermAsync(head);
        async Task<List<JsonElement>> Propose(string template) =>
            [
                .. JsonSerializer
                    .Deserialize<JsonElement>(
                        await (
                            await head.PostAsync(
                                $"/api/terms/{term}/assignments/proposals",
                                new { template, target = "2026-12-29" }
                            )
                        ).Content.ReadAsStringAsync()
                    )
                    .EnumerateArray(),
            ];
        Assert.Equal(
            ["target"],
            await head.PostAsync(
                    $"/api/terms/{term}/assignments/proposals",
                    new { template = "ladder", target = "2031-01-01" }
                )
                .FieldsAsync()
        );
        var ladder = await Propose("ladder");
        Assert.Equal(5, ladder.Count(proposal => proposal.GetProperty("segments").GetArrayLength() == 1));
        Assert.Contains(ladder, proposal => proposal.Text("because") == "It belongs to no level of the ladder.");
        Assert.Equal(
            4,
            (await Propose("lastTerm")).Count(proposal => proposal.GetProperty("segments").GetArrayLength() == 1)
        );
        await head.PutAsync(
                $"/api/terms/{term}/assignments",
                new
                {
                    cohorts = ladder
                        .Where(proposal => proposal.GetProperty("segments").GetArrayLength() > 0)
                        .Select(proposal => new
                        {
                            cohortId = proposal.Text("cohortId"),
                            segments = proposal.GetProperty("segments"),
                            version = proposal.GetProperty("version"),
                        }),
                }
            )
            .OkAsync();
    }

    [Fact]
    public async Task A_segment_without_a_seated_version_is_said_and_left_out_of_the_plan()
    {
        var head = await HeadAsync();
        var term = await TermAsync(head);
        var morning = await ClassAsync(head, "Tuesday morning, seated");
        var chair = morning.GetProperty("cohorts")[0];
        await WithoutVersionsAsync(head, "Embrace Tiger");
        Assert.Equal(
            "11 of 12 postures can be taught seated tonight, 1 needs a version.",
            (await head.GetAsync($"/api/cohorts/{chair.Text("id")}/coverage")).Text("summary")
        );
        await head.PostAsync($"/api/terms/{term}/classes/{morning.Text("id")}/plan").OkAsync();
        var row = (await head.GetAsync($"/api/terms/{term}/classes/{morning.Text("id")}/plan")).GetProperty("rows")[0];
        Assert.Equal(
            ["Cannot be taught: no seated version has been written."],
            row.GetProperty("leftOver")
                .EnumerateArray()
                .Where(left => left.Text("name") == "Embrace Tiger, right")
                .Select(left => left.Text("because"))
        );
        Assert.DoesNotContain(
            row.GetProperty("chips").EnumerateArray(),
            chip => chip.Text("name") == "Embrace Tiger, right"
        );
    }

    private static async Task WithoutVersionsAsync(Caller head, string name)
    {
        var id = (await head.GetAsync("/api/postures"))
            .EnumerateArray()
            .Single(posture => posture.Text("name") == name)
            .Text("id");
        var posture = JsonNode.Parse((await head.GetAsync($"/api/postures/{id}")).GetRawText())!;
        posture["text"]!["versions"] = new JsonArray();
        await head.PutAsync($"/api/postures/{id}", new { text = posture["text"], version = posture["version"] })
            .OkAsync();
    }

    private static async Task<JsonElement> GivenAsync(Caller caller, JsonElement cohort) =>
        (await caller.GetAsync("/api/assignments"))
            .EnumerateArray()
            .Single(given => given.Text("cohortId") == cohort.Text("id"));
}
