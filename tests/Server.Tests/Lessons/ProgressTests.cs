using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

public sealed class ProgressTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task The_table_and_the_students_record_say_the_same()
    {
        var head = await HeadAsync();
        var table = await head.GetAsync($"/api/classes/{(await ClassAsync(head)).Text("id")}/progress");
        var columns = table
            .GetProperty("columns")
            .EnumerateArray()
            .Select(column => (column.Text("postureId"), column.Text("side")))
            .ToList();
        foreach (var row in table.GetProperty("rows").EnumerateArray().Where((_, at) => at % 5 == 0))
        {
            var student = await head.GetAsync($"/api/students/{row.Text("studentId")}");
            var standings = student
                .GetProperty("standings")
                .EnumerateArray()
                .ToDictionary(standing => (standing.Text("postureId"), standing.Text("side")));
            foreach (var (at, cell) in row.GetProperty("cells").EnumerateArray().Index())
            {
                Assert.Equal(
                    cell.Text("stage"),
                    standings.TryGetValue(columns[at], out var standing) ? standing.Text("stage") : "notMet"
                );
                Assert.Equal(
                    cell.GetProperty("fading").GetBoolean(),
                    standing.ValueKind == JsonValueKind.Object && standing.GetProperty("fading").GetBoolean()
                );
            }
        }
    }

    [Fact]
    public async Task A_stuck_correction_offers_its_mend_and_a_cleared_one_stays_in_the_record()
    {
        var head = await HeadAsync();
        var imke = await head.GetAsync($"/api/students/{(await StudentAsync(head, "Imke")).Text("id")}");
        var stuck = Assert.Single(
            imke.GetProperty("standings")
                .EnumerateArray()
                .SelectMany(standing => standing.GetProperty("corrections").EnumerateArray()),
            correction => correction.GetProperty("stuck").GetBoolean()
        );
        Assert.Equal(4, stuck.GetProperty("timesSeen").GetInt32());
        Assert.StartsWith("feet only, slowly", stuck.GetProperty("causes")[0].Text("mend"), StringComparison.Ordinal);

        var lucia = await head.GetAsync($"/api/students/{(await StudentAsync(head, "Lucia")).Text("id")}");
        Assert.Contains(
            lucia
                .GetProperty("standings")
                .EnumerateArray()
                .SelectMany(standing => standing.GetProperty("corrections").EnumerateArray()),
            correction => correction.Text("state") == "cleared"
        );
    }

    [Fact]
    public async Task A_lesson_that_is_marked_leaves_today_and_an_unmarked_one_stays()
    {
        var jonas = await InstructorAsync();
        var evening = (await ClassAsync(jonas)).Text("id");
        Assert.Equal("2026-11-24", (await jonas.GetAsync("/api/today")).GetProperty("next")[0].Text("date"));
        var lesson = $"/api/classes/{evening}/lessons/2026-11-24";
        await jonas
            .PostAsync($"{lesson}/taught", new { marks = await TicksAsync(jonas, lesson, taught: true) })
            .OkAsync();
        Assert.Equal("2026-12-01", (await jonas.GetAsync("/api/today")).GetProperty("next")[0].Text("date"));
        Assert.DoesNotContain(
            (await jonas.GetAsync("/api/today")).GetProperty("errands").EnumerateArray(),
            errand => errand.Text("kind") is "outOfDate" or "doesNotFit"
        );
    }

    [Fact]
    public async Task What_was_not_seen_is_not_claimed()
    {
        var head = await HeadAsync();
        List<JsonElement> unseen = [];
        foreach (var student in (await head.GetAsync("/api/students")).EnumerateArray())
        {
            var card = await head.GetAsync($"/api/students/{student.Text("id")}");
            if (card.GetProperty("facts").EnumerateArray().All(fact => fact.Text("kind") != "observation"))
            {
                unseen.Add(card);
            }
        }

        Assert.NotEmpty(unseen.SelectMany(card => card.GetProperty("standings").EnumerateArray()));
        Assert.All(
            unseen.SelectMany(card => card.GetProperty("standings").EnumerateArray()),
            standing => Assert.Equal("shown", standing.Text("stage"))
        );
    }
}
