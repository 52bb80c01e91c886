using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

public sealed class ArrangementTests(DemoTemplate template) : HeronQuayTests(template)
{
    private static async Task<string> ComingAsync(Caller caller, string name = "Tuesday evening") =>
        $"/api/classes/{(await ClassAsync(caller, name)).Text("id")}/lessons/2026-12-01/arrangement";

    private static JsonElement New(JsonElement arrangement) =>
        arrangement
            .GetProperty("blocks")
            .EnumerateArray()
            .First(block => block.Text("kind") == "new" && block.Text("what") == "Press, right");

    private static object Edits(JsonElement arrangement, params object[] edits) =>
        new { edits, version = arrangement.GetProperty("version") };

    [Fact]
    public async Task The_coming_lesson_is_arranged_and_nobody_is_forgotten()
    {
        var head = await HeadAsync();
        foreach (var name in new[] { "Tuesday evening", "Tuesday morning, seated" })
        {
            var arrangement = await head.GetAsync(await ComingAsync(head, name));
            Assert.Equal(0, arrangement.GetProperty("shortfalls").GetArrayLength());
            Assert.Equal(0, arrangement.GetProperty("edits").GetArrayLength());
            foreach (var cohort in arrangement.GetProperty("cohorts").EnumerateArray())
            {
                Assert.Contains(
                    arrangement.GetProperty("blocks").EnumerateArray(),
                    block =>
                        block.GetProperty("cohortId").ValueEquals(cohort.Text("id"))
                        && block.GetProperty("ledBy").ValueKind == JsonValueKind.String
                );
            }
        }
    }

    [Fact]
    public async Task As_a_table_a_lesson_reads_from_its_first_minute_to_its_last()
    {
        var head = await HeadAsync();
        var answer = await head.Client.GetAsync($"{await ComingAsync(head)}.csv");
        Assert.Equal("text/csv", answer.Content.Headers.ContentType!.MediaType);
        var lines = (await answer.Content.ReadAsStringAsync()).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal("start_minute,end_minute,cohort,kind,what,led_by,with", lines[0].TrimStart('\uFEFF'));
        Assert.StartsWith("0,10,all,warm-up,", lines[1], StringComparison.Ordinal);
        Assert.StartsWith("85,90,all,settle,", lines[^1], StringComparison.Ordinal);
        Assert.Contains(lines, line => line.Contains(",all,together,", StringComparison.Ordinal));
        Assert.Contains(lines, line => line.Contains(",visit,", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_is_done_by_hand_is_kept_and_taken_back_and_two_hands_do_not_overwrite_each_other()
    {
        var head = await HeadAsync();
        var path = await ComingAsync(head);
        var before = await head.GetAsync(path);
        var press = New(before);
        var pin = new
        {
            kind = "pin",
            key = press.Text("task"),
            start = press.GetProperty("start").GetInt32() + 3,
            teacherId = (string?)null,
        };
        await head.PutAsync(path, Edits(before, pin)).OkAsync();
        var moved = await head.GetAsync(path);
        Assert.Equal(
            (press.GetProperty("start").GetInt32() + 3, true),
            (New(moved).GetProperty("start").GetInt32(), New(moved).GetProperty("fixed").GetBoolean())
        );
        await head.PutAsync(path, Edits(before)).ProblemAsync(409);
        await head.PutAsync(path, Edits(moved, pin, new { kind = "takeOut", key = press.Text("task") })).OkAsync();
        Assert.DoesNotContain(
            (await head.GetAsync(path)).GetProperty("blocks").EnumerateArray(),
            block => block.Text("what") == "Press, right" && block.Text("kind") == "new"
        );
        await head.PutAsync(path, Edits(await head.GetAsync(path))).OkAsync();
        Assert.Equal(
            before.GetProperty("blocks").ToString(),
            (await head.GetAsync(path)).GetProperty("blocks").ToString()
        );
    }

    [Fact]
    public async Task Without_somebody_who_is_ill_the_lesson_is_arranged_with_whoever_is_there()
    {
        var head = await HeadAsync();
        var path = (await ComingAsync(head)).Replace("2026-12-01", "2026-12-08", StringComparison.Ordinal);
        var before = await head.GetAsync(path);
        var jonas = before
            .GetProperty("teachers")
            .EnumerateArray()
            .Single(teacher => teacher.Text("name").StartsWith("Jonas", StringComparison.Ordinal));
        var who = new
        {
            id = jonas.Text("id"),
            name = jonas.Text("name"),
            leadsEverything = true,
            level = (int?)null,
            from = 0,
            until = 0,
        };
        await head.PutAsync(path, Edits(before, new { kind = "teacher", who })).OkAsync();
        var without = await head.GetAsync(path);
        Assert.DoesNotContain(
            without.GetProperty("blocks").EnumerateArray(),
            block => block.GetProperty("ledBy").ValueEquals(jonas.Text("id"))
        );
        Assert.All(
            without.GetProperty("shortfalls").EnumerateArray(),
            shortfall => Assert.EndsWith(".", shortfall.Text("says"), StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task An_assistant_reads_an_arrangement_and_changes_none()
    {
        var (head, assistant) = (await HeadAsync(), await AssistantAsync());
        var path = await ComingAsync(head);
        Assert.NotEmpty((await assistant.GetAsync(path)).GetProperty("blocks").EnumerateArray());
        await assistant.PutAsync(path, new { edits = Array.Empty<object>(), version = (uint?)null }).ProblemAsync(403);
    }

    [Fact]
    public async Task Too_much_done_by_hand_or_something_unknown_is_refused()
    {
        var head = await HeadAsync();
        var path = await ComingAsync(head);
        var free = new { kind = "free", key = "nothing" };
        Assert.Equal(
            ["edits"],
            await head.PutAsync(path, new { edits = Enumerable.Repeat(free, 201), version = (uint?)null }).FieldsAsync()
        );
        await head.PutAsync(path, new { edits = new[] { new { kind = "juggle" } }, version = (uint?)null })
            .ProblemAsync(400);
    }
}
