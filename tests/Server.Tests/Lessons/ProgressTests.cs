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
                .Where(standing => standing.GetProperty("from").ValueKind == JsonValueKind.Null)
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
    public async Task The_table_of_an_earlier_day_is_what_was_known_then()
    {
        var head = await HeadAsync();
        var path = $"/api/classes/{(await ClassAsync(head)).Text("id")}/progress";
        async Task<(string Columns, int[] Met)> OnAsync(string query)
        {
            var table = await head.GetAsync(path + query);
            return (
                table.GetProperty("columns").GetRawText(),
                [
                    .. table
                        .GetProperty("rows")
                        .EnumerateArray()
                        .Select(row =>
                            row.GetProperty("cells").EnumerateArray().Count(cell => cell.Text("stage") != "notMet")
                        ),
                ]
            );
        }

        var now = await OnAsync("");
        var times = new List<(string Columns, int[] Met)>();
        foreach (var day in (string[])["2026-10-27", "2026-11-03", "2026-11-10", "2026-11-17", DemoTemplate.Today])
        {
            times.Add(await OnAsync($"?on={day}"));
        }

        // The same people and postures stand in the same places, and nobody unlearns that they met something.
        Assert.All(times, then => Assert.Equal(now.Columns, then.Columns));
        Assert.All(
            times.Zip(times.Skip(1)),
            weeks => Assert.All(weeks.First.Met.Zip(weeks.Second.Met), met => Assert.True(met.First <= met.Second))
        );
        Assert.True(times[0].Met.Sum() < now.Met.Sum());
        Assert.Equal(now.Met, times[^1].Met);
        Assert.Equal(now.Met, (await OnAsync("?on=2027-06-01")).Met);
        Assert.Equal(now.Met.Length, times[0].Met.Length);
    }

    [Fact]
    public async Task A_link_and_a_mode_are_watched_by_themselves_and_what_is_noted_is_not_called()
    {
        var head = await HeadAsync();
        var lesson = await LastLessonAsync(head);
        var register = await head.GetAsync($"{lesson}/register");
        var student = register
            .GetProperty("students")
            .EnumerateArray()
            .First(student => student.GetProperty("cells").EnumerateArray().Any());
        var (id, of) = (student.Text("studentId"), student.GetProperty("cells")[0]);
        var link = new { postureId = of.Text("postureId"), side = of.Text("side") };
        var before = await StandingsAsync();
        await SayAsync("stage", "alone", from: link, mode: "standing");
        await SayAsync("noted", null, from: null, mode: "seated");
        var after = await StandingsAsync();
        Assert.Equal(before.Count + 1, after.Count);
        Assert.Equal(
            "alone",
            Assert
                .Single(after, standing => standing.GetProperty("from").ValueKind == JsonValueKind.Object)
                .Text("stage")
        );
        Assert.DoesNotContain(
            after.SelectMany(standing => standing.GetProperty("corrections").EnumerateArray()),
            correction => correction.Text("words") == "looks at the boats"
        );
        await head.PostAsync($"{lesson}/observations", Marks("stage", "alone", null, "floating")).ProblemAsync(400);

        Task SayAsync(string sign, string? stage, object? from, string mode) =>
            head.PostAsync($"{lesson}/observations", Marks(sign, stage, from, mode)).OkAsync();
        object Marks(string sign, string? stage, object? from, string mode) =>
            new
            {
                marks = new[]
                {
                    new
                    {
                        id = Guid.NewGuid(),
                        studentId = id,
                        postureId = of.Text("postureId"),
                        side = of.Text("side"),
                        sign,
                        stage,
                        faultId = (string?)null,
                        words = sign == "noted" ? "looks at the boats" : null,
                        weight = (string?)null,
                        from,
                        mode,
                    },
                },
            };
        async Task<List<JsonElement>> StandingsAsync() =>
            [.. (await head.GetAsync($"/api/students/{id}")).GetProperty("standings").EnumerateArray()];
    }

    [Fact]
    public async Task The_tables_say_what_the_pages_say_and_each_reads_those_of_their_classes()
    {
        var (head, odile) = (await HeadAsync(), await AssistantAsync());
        var corrections = await TableAsync(head, "/api/corrections.csv");
        Assert.Equal(
            "student,posture,side,what,weight,state,since,last_seen,times_seen,stuck,tried",
            corrections[0].TrimStart('\uFEFF')
        );
        var imke = Assert.Single(corrections, row => row.StartsWith("Imke", StringComparison.Ordinal));
        Assert.Contains("key-point,open,", imke, StringComparison.Ordinal);
        Assert.Contains("yes,feet-only", imke, StringComparison.Ordinal);
        Assert.Contains(corrections, row => row.StartsWith("Conrad", StringComparison.Ordinal));
        Assert.DoesNotContain(
            await TableAsync(odile, "/api/corrections.csv"),
            row => row.StartsWith("Conrad", StringComparison.Ordinal)
        );

        var evening = (await ClassAsync(head)).Text("id");
        var progress = await TableAsync(head, $"/api/classes/{evening}/progress.csv");
        Assert.Equal("student,posture,side,mode,stage,taken_over,fading,last_touched", progress[0].TrimStart('\uFEFF'));
        var board = await head.GetAsync($"/api/classes/{evening}/progress");
        Assert.Equal(
            board
                .GetProperty("rows")
                .EnumerateArray()
                .Sum(row => row.GetProperty("cells").EnumerateArray().Count(cell => cell.Text("stage") != "notMet")),
            // A posture has a row for every mode somebody was seen in.
            progress
                .Skip(1)
                .Where(row => !row.Contains('→', StringComparison.Ordinal))
                .Select(row => string.Join(',', row.Split(',')[..^5]))
                .Distinct()
                .Count()
        );

        var seen = await TableAsync(head, "/api/observations.csv");
        var facts = (await head.GetAsync($"/api/students/{(await StudentAsync(head, "Imke")).Text("id")}"))
            .GetProperty("facts")
            .EnumerateArray()
            .Count(fact => fact.Text("kind") == "observation");
        Assert.Equal(facts, seen.Count(row => row.Contains("Imke", StringComparison.Ordinal)));
        // What Kofi does wrong in the flow alone reads so in the table and with the person.
        Assert.Equal(
            2,
            seen.Count(row =>
                row.Contains("Kofi", StringComparison.Ordinal) && row.Contains(",yes,fault,", StringComparison.Ordinal)
            )
        );
        var kofi = Assert.Single(
            from person in await ToCorrectAsync(head)
            where person.Text("name").StartsWith("Kofi", StringComparison.Ordinal)
            from its in person.GetProperty("corrections").EnumerateArray()
            where its.GetProperty("correction").GetProperty("inRunThroughs").GetInt32() > 0
            select its.GetProperty("correction")
        );
        Assert.Equal(2, kofi.GetProperty("timesSeen").GetInt32());

        static async Task<string[]> TableAsync(Caller caller, string path) =>
            (await caller.Client.GetStringAsync(path)).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
    }

    [Fact]
    public async Task A_lesson_that_is_marked_is_looked_back_on_and_an_unmarked_one_stays()
    {
        var jonas = await InstructorAsync();
        var evening = (await ClassAsync(jonas)).Text("id");
        Assert.Equal(("2026-11-24", "2026-11-17"), await NextAndHeldAsync());
        var lesson = $"/api/classes/{evening}/lessons/2026-11-24";
        await jonas
            .PostAsync($"{lesson}/taught", new { marks = await TicksAsync(jonas, lesson, taught: true) })
            .OkAsync();
        Assert.Equal(("2026-12-01", "2026-11-24"), await NextAndHeldAsync());
        Assert.DoesNotContain(
            (await jonas.GetAsync("/api/today/left-to-do")).EnumerateArray(),
            errand => errand.Text("kind") is "outOfDate" or "doesNotFit"
        );

        async Task<(string Next, string Held)> NextAndHeldAsync()
        {
            var next = (await jonas.GetAsync("/api/today")).GetProperty("next")[0];
            return (next.Text("date"), next.Text("held"));
        }
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
