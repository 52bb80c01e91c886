using System.Text.Json;

namespace Zeitplan.Server.Tests.Progress;

public sealed class HomePracticeTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_sheet_that_is_handed_out_is_no_longer_new_until_it_says_something_else()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var before = await PeopleAsync(head, evening);
        var somebody = before.First(one => one.GetProperty("isNew").GetBoolean());
        var name = somebody.Text("name");
        var others = before
            .Where(one => one.GetProperty("isNew").GetBoolean())
            .Select(one => one.Text("name"))
            .ToList();

        var handed = Handed(somebody);
        await head.PostAsync($"/api/classes/{evening}/home/given", handed).OkAsync();
        // Sent again because the answer was lost.
        await head.PostAsync($"/api/classes/{evening}/home/given", handed).OkAsync();
        var after = await PeopleAsync(head, evening);
        Assert.Equal(
            others.Except([name]),
            after.Where(one => one.GetProperty("isNew").GetBoolean()).Select(one => one.Text("name"))
        );
        Assert.Equal(DemoTemplate.Today, after.Single(one => one.Text("name") == name).Text("given"));
    }

    [Fact]
    public async Task Nothing_is_handed_out_that_says_something_else_by_now()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var imke = (await PeopleAsync(head, evening)).Single(one => one.Text("name") == "Imke R.");
        var correction = imke.GetProperty("sheet")
            .GetProperty("things")
            .EnumerateArray()
            .Single(thing => thing.Text("kind") == "correction");
        var done = correction.GetProperty("postures")[0];
        // Seen clean on two days, it is cleared.
        foreach (var date in new[] { "2026-11-17", "2026-11-24" })
        {
            await head.PostAsync(
                    $"/api/classes/{evening}/lessons/{date}/observations",
                    SeenAndFine(imke.Text("studentId"), done.Text("postureId"), done.Text("side"))
                )
                .OkAsync();
        }

        var refused = await head.PostAsync($"/api/classes/{evening}/home/given", Handed(imke)).ProblemAsync(409);
        Assert.Contains("says something else now", refused.Text("title"), StringComparison.Ordinal);
        Assert.True(
            (await PeopleAsync(head, evening))
                .Single(one => one.Text("name") == "Imke R.")
                .GetProperty("isNew")
                .GetBoolean()
        );
    }

    [Fact]
    public async Task What_somebody_practised_is_kept_taken_back_and_moves_no_stage()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var progress = (await head.GetAsync($"/api/classes/{evening}/progress")).GetRawText();
        var bernd = (await PeopleAsync(head, evening)).Single(one => one.Text("name") == "Bernd H.").Text("studentId");
        await SayAsync("2026-11-23", 12).OkAsync();
        await SayAsync("2026-11-22", 8).OkAsync();
        await SayAsync("2026-11-23", 0).OkAsync();
        var practised = (await PeopleAsync(head, evening))
            .Single(one => one.Text("studentId") == bernd)
            .GetProperty("practised")
            .EnumerateArray()
            .ToList();
        Assert.Equal(
            ("2026-11-22", 8),
            (Assert.Single(practised).Text("date"), practised[0].GetProperty("minutes").GetInt32())
        );
        Assert.Equal(progress, (await head.GetAsync($"/api/classes/{evening}/progress")).GetRawText());

        Assert.Equal(["logs[0].date"], await SayAsync("2026-11-25", 5).FieldsAsync());
        Assert.Equal(["logs[0].minutes"], await SayAsync("2026-11-23", 601).FieldsAsync());
        var chair = (await ClassAsync(head, "Tuesday morning, seated")).Text("id");
        Assert.Equal(
            ["logs[0].studentId"],
            await head.PostAsync($"/api/classes/{chair}/home/practice", Log(bernd, "2026-11-23", 5)).FieldsAsync()
        );

        Task<HttpResponseMessage> SayAsync(string date, int minutes) =>
            head.PostAsync($"/api/classes/{evening}/home/practice", Log(bernd, date, minutes));
    }

    [Fact]
    public async Task Whoever_sits_is_given_seated_sheets_with_the_cautions_of_a_home()
    {
        var head = await HeadAsync();
        var morning = (await ClassAsync(head, "Tuesday morning, seated")).Text("id");
        var home = await head.GetAsync($"/api/classes/{morning}/home");
        var sheets = home.GetProperty("people")
            .EnumerateArray()
            .Select(one => one.GetProperty("sheet"))
            .Where(sheet => sheet.ValueKind == JsonValueKind.Object)
            .ToList();
        Assert.NotEmpty(sheets);
        Assert.All(
            sheets,
            sheet =>
            {
                Assert.All(
                    sheet
                        .GetProperty("things")
                        .EnumerateArray()
                        .SelectMany(thing => thing.GetProperty("postures").EnumerateArray()),
                    done => Assert.Equal("seated", done.Text("mode"))
                );
                var cautions = sheet.GetProperty("cautions").GetRawText();
                Assert.Contains("never push on footplates", cautions, StringComparison.Ordinal);
                Assert.Contains("clear, dry floor", cautions, StringComparison.Ordinal);
            }
        );
        Assert.All(
            home.GetProperty("postures").EnumerateArray(),
            written => Assert.NotEqual(0, written.GetProperty("cues").GetArrayLength())
        );
    }

    private static async Task<List<JsonElement>> PeopleAsync(Caller head, string classId) =>
        [.. (await head.GetAsync($"/api/classes/{classId}/home")).GetProperty("people").EnumerateArray()];

    private static object Handed(JsonElement person) =>
        new
        {
            sheets = new[]
            {
                new
                {
                    id = Guid.NewGuid(),
                    studentId = person.Text("studentId"),
                    says = person.GetProperty("sheet").Text("says"),
                },
            },
        };

    private static object Log(string student, string date, int minutes) =>
        new
        {
            logs = new[]
            {
                new
                {
                    id = Guid.NewGuid(),
                    studentId = student,
                    date,
                    minutes,
                },
            },
        };
}
