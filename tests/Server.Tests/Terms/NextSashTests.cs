using System.Text.Json;
using System.Text.Json.Nodes;

namespace Zeitplan.Server.Tests.Terms;

/// <summary>Who is ready for the next sash, and what the others lack.</summary>
public sealed class NextSashTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task What_somebody_came_with_is_missing_until_it_is_seen_and_again_once_that_is_withdrawn()
    {
        var head = await HeadAsync();
        var before = await MissingAsync(head, "Wilma");
        var knee = before.Single(lack => lack.Text("what") == "Brush Knee, left");
        Assert.Equal(("alone", true), Goal(knee));
        var mark = await SeeAsync(head, "Wilma", "Brush Knee", "left", stage: "alone");
        var after = await MissingAsync(head, "Wilma");
        Assert.Equal(
            before.Select(lack => lack.Text("what")).Except(["Brush Knee, left"]),
            after.Select(lack => lack.Text("what"))
        );
        await head.PostAsync($"/api/observations/{mark}/withdrawal").OkAsync();
        Assert.Equal(
            before.Select(lack => lack.Text("what")),
            (await MissingAsync(head, "Wilma")).Select(lack => lack.Text("what"))
        );

        static (string, bool) Goal(JsonElement lack) =>
            (lack.GetProperty("toSee").Text("has"), lack.GetProperty("toSee").GetProperty("takenOver").GetBoolean());
    }

    [Fact]
    public async Task Everybody_missing_something_of_the_plan_has_it_dated_no_sooner_than_the_plan_brings_it()
    {
        var head = await HeadAsync();
        var people = await PeopleAsync(head);
        var planned = people
            .SelectMany(person => person.GetProperty("next").GetProperty("missing").EnumerateArray())
            .Where(lack =>
                lack.GetProperty("toSee") is { ValueKind: JsonValueKind.Object } goal
                && goal.GetProperty("new").ValueKind == JsonValueKind.String
            )
            .ToList();
        Assert.NotEmpty(planned);
        Assert.All(
            planned.Where(lack => lack.GetProperty("likely").ValueKind == JsonValueKind.String),
            lack =>
                Assert.True(
                    string.CompareOrdinal(lack.Text("likely"), lack.GetProperty("toSee").Text("new")) >= 0,
                    lack.GetRawText()
                )
        );
        // The ready come first, then whoever is likely to be soonest, then those without a date.
        var order = people
            .Select(person => person.GetProperty("next"))
            .Select(next =>
                next.GetProperty("missing").GetArrayLength() == 0
                    ? "ready"
                    : next.GetProperty("likely").GetString() ?? "some day"
            )
            .ToList();
        Assert.Equal("ready", order[0]);
        Assert.Equal(order.Skip(1).Order(StringComparer.Ordinal), order.Skip(1));
    }

    [Fact]
    public async Task Shape_corrections_hold_nobody_back_where_the_key_point_alone_decides()
    {
        var head = await HeadAsync();
        var before = await CorrectionsAsync();
        Assert.Contains("keyPoint", before);
        await SeeAsync(head, "Yusuf", "Brush Knee", "right", fault: "finesse");
        Assert.Equal(before, await CorrectionsAsync());
        await SeeAsync(head, "Per", "Push", "right", fault: "shape");
        Assert.Equal(before.Count + 1, (await CorrectionsAsync()).Count);

        var conventions = await head.GetAsync("/api/conventions");
        var ways = JsonNode.Parse(conventions.GetProperty("ways").GetRawText())!;
        ways["keyPointDecides"] = true;
        await head.PutAsync(
                "/api/conventions",
                new JsonObject { ["ways"] = ways, ["version"] = conventions.GetProperty("version").GetInt64() }
            )
            .OkAsync();
        Assert.All(await CorrectionsAsync(), weight => Assert.Equal("keyPoint", weight));
        Assert.Equal(before.Count(weight => weight == "keyPoint"), (await CorrectionsAsync()).Count);

        async Task<List<string>> CorrectionsAsync() =>
            [
                .. (await PeopleAsync(head))
                    .SelectMany(person => person.GetProperty("next").GetProperty("missing").EnumerateArray())
                    .Where(lack => lack.Text("kind") == "correction")
                    .Select(lack => lack.GetProperty("toClear").Text("weight"))
                    .Order(),
            ];
    }

    [Fact]
    public async Task The_table_has_a_row_for_each_thing_missing_and_whoever_is_promoted_begins_anew()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var rows = (await head.Client.GetStringAsync($"/api/classes/{evening}/readiness.csv")).Split(
            "\r\n",
            StringSplitOptions.RemoveEmptyEntries
        );
        Assert.Equal("student,sash,next,kind,what,has,asked,likely", rows[0].TrimStart('\uFEFF'));
        Assert.Equal(
            (await PeopleAsync(head)).Sum(person =>
                Math.Max(1, person.GetProperty("next").GetProperty("missing").GetArrayLength())
            ),
            rows.Length - 1
        );
        Assert.Contains(
            rows,
            row =>
                row.StartsWith("Wilma", StringComparison.Ordinal)
                && row.Contains("\"alone, taken over\",alone,", StringComparison.Ordinal)
        );
        await RunAsync(
            $$"""
            update students set sash_id = (select id from sashes where name = 'Slate'), half = 'None',
              sash_since = '{{DemoTemplate.Today}}',
              levels = levels || jsonb_build_array(jsonb_build_object('sashId', (select id from sashes where name = 'Slate'), 'half', 'none', 'since', '{{DemoTemplate.Today}}'))
            where given_name = 'Anselm'
            """
        );
        Assert.DoesNotContain(await PeopleAsync(head), person => person.Text("name") == "Anselm K.");
    }

    /// <summary>Marks what was seen of somebody, and says the mark's name.</summary>
    private static async Task<Guid> SeeAsync(
        Caller head,
        string who,
        string posture,
        string side,
        string? stage = null,
        string? fault = null
    )
    {
        var mark = new
        {
            id = Guid.CreateVersion7(),
            studentId = (await StudentAsync(head, who)).Text("id"),
            postureId = await PostureAsync(head, posture),
            side,
            sign = fault is null ? "stage" : "fault",
            stage,
            faultId = (Guid?)null,
            words = fault is null ? null : "looks at the boats",
            weight = fault,
        };
        await head.PostAsync($"{await LastLessonAsync(head)}/observations", new { marks = new[] { mark } }).OkAsync();
        return mark.id;
    }

    private static async Task<string> PostureAsync(Caller caller, string name) =>
        (await caller.GetAsync("/api/postures"))
            .EnumerateArray()
            .Single(posture => posture.Text("name") == name)
            .Text("id");

    private static async Task<List<JsonElement>> PeopleAsync(Caller caller) =>
        [
            .. (await caller.GetAsync($"/api/classes/{(await ClassAsync(caller)).Text("id")}/readiness"))
                .GetProperty("people")
                .EnumerateArray(),
        ];

    private static async Task<List<JsonElement>> MissingAsync(Caller caller, string name) =>
        [
            .. (await PeopleAsync(caller))
                .Single(person => person.Text("name").StartsWith(name, StringComparison.Ordinal))
                .GetProperty("next")
                .GetProperty("missing")
                .EnumerateArray(),
        ];
}
