using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

public sealed class ProgressTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task The_table_the_students_record_and_what_is_to_be_corrected_say_the_same()
    {
        var head = await HeadAsync();
        var table = await head.GetAsync($"/api/classes/{(await ClassAsync(head)).Text("id")}/progress");
        var columns = table
            .GetProperty("columns")
            .EnumerateArray()
            .Select(column => (column.Text("postureId"), column.Text("side")))
            .ToList();
        var rows = table.GetProperty("rows").EnumerateArray().ToList();
        var open = (await PeopleAsync(head)).ToDictionary(
            person => person.Text("studentId"),
            person =>
                person.GetProperty("corrections").GetArrayLength() + person.GetProperty("against").GetArrayLength()
        );
        Assert.All(
            rows,
            row =>
                Assert.Equal(
                    open.GetValueOrDefault(row.Text("studentId")),
                    row.GetProperty("openCorrections").GetInt32()
                )
        );
        // Two of one posture, of a link and against a principle are in the demo: cells do not count them.
        Assert.Contains(
            rows,
            row =>
                row.GetProperty("openCorrections").GetInt32()
                > row.GetProperty("cells")
                    .EnumerateArray()
                    .Count(cell => cell.GetProperty("correction").ValueKind == JsonValueKind.String)
        );
        foreach (var row in rows.Where((_, at) => at % 5 == 0))
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
    public async Task What_was_tried_is_kept_taken_back_and_proposed_no_more_and_what_helped_others_comes_first()
    {
        var (odile, lesson) = (await AssistantAsync(), await LessonAsync());
        var (person, about) = await StuckAsync(odile);
        var correction = about.GetProperty("correction");
        Assert.Equal(["feetOnly", "image"], Tried(correction));
        // Five of six in the spring; of three with an image nothing is claimed.
        var wall = correction
            .GetProperty("next")
            .EnumerateArray()
            .Single(step => step.TryGetProperty("way", out var way) && way.GetString() == "atTheWall");
        Assert.Equal((5, 6), (wall.GetProperty("helped").GetInt32(), wall.GetProperty("others").GetInt32()));

        var mark = new
        {
            id = Guid.NewGuid(),
            studentId = person.Text("studentId"),
            postureId = about.Text("postureId"),
            side = about.Text("side"),
            from = (object?)null,
            faultId = correction.Text("faultId"),
            words = correction.Text("words"),
            way = "atTheWall",
            cause = (string?)null,
            done = true,
        };
        await odile.PostAsync($"{lesson}/ways", new { marks = new[] { mark } }).OkAsync();
        await odile.PostAsync($"{lesson}/ways", new { marks = new[] { mark } }).OkAsync();
        Assert.Equal(["feetOnly", "image", "atTheWall"], Tried(await CorrectionAsync()));
        Assert.DoesNotContain(
            (await CorrectionAsync()).GetProperty("next").EnumerateArray(),
            step => step.TryGetProperty("way", out var way) && way.GetString() == "atTheWall"
        );
        await odile
            .PostAsync($"{lesson}/ways", new { marks = new[] { mark with { way = "image" } } })
            .ProblemAsync(409);
        await odile
            .PostAsync($"{lesson}/ways", new { marks = new[] { mark with { id = Guid.NewGuid(), done = false } } })
            .OkAsync();
        Assert.Equal(["feetOnly", "image"], Tried(await CorrectionAsync()));

        async Task<JsonElement> CorrectionAsync() => (await StuckAsync(odile)).About.GetProperty("correction");
        static List<string> Tried(JsonElement correction) =>
            [.. correction.GetProperty("tried").EnumerateArray().Select(way => way.Text("way"))];
    }

    [Fact]
    public async Task The_same_fault_in_three_postures_is_one_habit()
    {
        var head = await HeadAsync();
        var people = await PeopleAsync(head);
        var habit = Assert.Single(
            people.SelectMany(person => person.GetProperty("habits").EnumerateArray()),
            habit => habit.Text("principle") == "Shoulders let go"
        );
        Assert.Equal(3, habit.GetProperty("where").GetArrayLength());
        var oskar = await head.GetAsync($"/api/students/{(await StudentAsync(head, "Oskar")).Text("id")}");
        Assert.Equal("Shoulders let go", Assert.Single(oskar.GetProperty("habits").EnumerateArray()).Text("principle"));
    }

    [Fact]
    public async Task A_habit_is_made_one_correction_which_is_marked_wherever_it_is_seen_and_stands_in_every_table()
    {
        var (odile, lesson) = (await AssistantAsync(), await LessonAsync());
        var person = (await PeopleAsync(odile)).First(person => person.GetProperty("habits").GetArrayLength() > 0);
        var habit = person.GetProperty("habits")[0];
        await SeeAsync("fault", habit.Text("weight")).OkAsync();
        var now = (await PeopleAsync(odile)).Single(its => its.Text("studentId") == person.Text("studentId"));
        Assert.Empty(now.GetProperty("habits").EnumerateArray());
        var against = Assert.Single(now.GetProperty("against").EnumerateArray());
        Assert.Equal(
            (habit.Text("principle"), "open"),
            (against.Text("principle"), against.GetProperty("correction").Text("state"))
        );
        Assert.NotEmpty(against.GetProperty("correction").GetProperty("next").EnumerateArray());

        await TryAsync("image").OkAsync();
        await SeeAsync("fine", null).OkAsync();
        Assert.Equal("easing", (await AgainstAsync()).GetProperty("correction").Text("state"));
        Assert.Equal(
            ["image"],
            (await AgainstAsync())
                .GetProperty("correction")
                .GetProperty("tried")
                .EnumerateArray()
                .Select(way => way.Text("way"))
        );
        var row = (await odile.GetAsync($"{lesson}/register"))
            .GetProperty("students")
            .EnumerateArray()
            .Single(student => student.Text("studentId") == person.Text("studentId"))
            .GetProperty("against")[0];
        Assert.Equal(["fault", "fine"], row.GetProperty("today").EnumerateArray().Select(seen => seen.Text("sign")));
        var head = await HeadAsync();
        foreach (var table in new[] { "/api/corrections.csv", "/api/observations.csv" })
        {
            Assert.Contains($"{habit.Text("principle")}: ", await TextAsync(head, table), StringComparison.Ordinal);
        }

        Assert.Contains(
            $"{habit.Text("principle")}, in ",
            await TextAsync(head, $"/api/students/{person.Text("studentId")}/everything"),
            StringComparison.Ordinal
        );

        // It has no stage; nobody marks what the school does not ask; and what is written down keeps its principle.
        await SeeAsync("stage", null).ProblemAsync(400);
        await SeeAsync("fault", "shape", $"{Guid.NewGuid()}").ProblemAsync(400);
        await head.SendAsync(HttpMethod.Delete, $"/api/principles/{habit.Text("principleId")}", null).ProblemAsync(409);

        static async Task<string> TextAsync(Caller caller, string path) => await caller.Client.GetStringAsync(path);
        async Task<JsonElement> AgainstAsync() =>
            (await odile.GetAsync($"/api/students/{person.Text("studentId")}")).GetProperty("against")[0];
        Task<HttpResponseMessage> SeeAsync(string sign, string? weight, string? principle = null) =>
            odile.PostAsync(
                $"{lesson}/observations",
                new
                {
                    marks = new[]
                    {
                        new
                        {
                            id = Guid.NewGuid(),
                            studentId = person.Text("studentId"),
                            postureId = habit.Text("postureId"),
                            side = habit.Text("side"),
                            sign,
                            stage = sign == "stage" ? "alone" : null,
                            faultId = (string?)null,
                            words = habit.Text("principle"),
                            weight,
                            principleId = principle ?? habit.Text("principleId"),
                        },
                    },
                }
            );
        Task<HttpResponseMessage> TryAsync(string way) =>
            odile.PostAsync(
                $"{lesson}/ways",
                new
                {
                    marks = new[]
                    {
                        new
                        {
                            id = Guid.NewGuid(),
                            studentId = person.Text("studentId"),
                            postureId = habit.Text("postureId"),
                            side = habit.Text("side"),
                            from = (object?)null,
                            faultId = (string?)null,
                            words = habit.Text("principle"),
                            way,
                            cause = (string?)null,
                            done = true,
                            principleId = habit.Text("principleId"),
                        },
                    },
                }
            );
    }

    [Fact]
    public async Task A_link_and_a_mode_are_watched_by_themselves_and_what_is_noted_is_not_called()
    {
        var (head, lesson) = (await HeadAsync(), await LessonAsync());
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
            from person in await PeopleAsync(head)
            where person.Text("name").StartsWith("Kofi", StringComparison.Ordinal)
            from its in person.GetProperty("corrections").EnumerateArray()
            where its.GetProperty("correction").GetProperty("inRunThroughs").GetInt32() > 0
            select its.GetProperty("correction")
        );
        Assert.Equal(2, kofi.GetProperty("timesSeen").GetInt32());

        static async Task<string[]> TableAsync(Caller caller, string path) =>
            (await caller.Client.GetStringAsync(path)).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
    }

    private async Task<string> LessonAsync() =>
        $"/api/classes/{(await ClassAsync(await HeadAsync())).Text("id")}/lessons/2026-11-17";

    private static async Task<List<JsonElement>> PeopleAsync(Caller caller) =>
        [
            .. (await caller.GetAsync($"/api/classes/{(await ClassAsync(caller)).Text("id")}/corrections"))
                .GetProperty("people")
                .EnumerateArray(),
        ];

    /// <summary>Imke, and her one correction that is stuck.</summary>
    private static async Task<(JsonElement Person, JsonElement About)> StuckAsync(Caller caller) =>
        Assert.Single(
            from person in await PeopleAsync(caller)
            where person.Text("name").StartsWith("Imke", StringComparison.Ordinal)
            from about in person.GetProperty("corrections").EnumerateArray()
            where about.GetProperty("correction").GetProperty("stuck").GetBoolean()
            select (person, about)
        );

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
            (await jonas.GetAsync("/api/today/left-to-do")).EnumerateArray(),
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
