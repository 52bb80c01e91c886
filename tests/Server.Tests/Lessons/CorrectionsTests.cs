using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

public sealed class CorrectionsTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Progress_counts_as_many_as_are_open()
    {
        var head = await HeadAsync();
        var table = await head.GetAsync($"/api/classes/{(await ClassAsync(head)).Text("id")}/progress");
        var rows = table.GetProperty("rows").EnumerateArray().ToList();
        var open = (await ToCorrectAsync(head)).ToDictionary(
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
        var odile = await AssistantAsync();
        var lesson = await LastLessonAsync(odile);
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
        var people = await ToCorrectAsync(head);
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
        var odile = await AssistantAsync();
        var lesson = await LastLessonAsync(odile);
        var person = (await ToCorrectAsync(odile)).First(person => person.GetProperty("habits").GetArrayLength() > 0);
        var habit = person.GetProperty("habits")[0];
        await SeeAsync("fault", habit.Text("weight")).OkAsync();
        var now = (await ToCorrectAsync(odile)).Single(its => its.Text("studentId") == person.Text("studentId"));
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

    /// <summary>Imke, and her one correction that is stuck.</summary>
    private static async Task<(JsonElement Person, JsonElement About)> StuckAsync(Caller caller) =>
        Assert.Single(
            from person in await ToCorrectAsync(caller)
            where person.Text("name").StartsWith("Imke", StringComparison.Ordinal)
            from about in person.GetProperty("corrections").EnumerateArray()
            where about.GetProperty("correction").GetProperty("stuck").GetBoolean()
            select (person, about)
        );
}
