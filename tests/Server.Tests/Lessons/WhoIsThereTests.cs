using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

/// <summary>Who joins a lesson for once, and who works with whom in it.</summary>
public sealed class WhoIsThereTests(DemoTemplate template) : ArrangingTests(template)
{
    private static object Joins(JsonElement student, string? cohortId) =>
        new
        {
            kind = "joins",
            who = student.Text("id"),
            name = "",
            cohortId,
            from = (string?)null,
            neverAlone = false,
        };

    private static JsonElement Named(JsonElement all, string name) =>
        all.EnumerateArray().Single(one => one.Text("name") == name);

    private static object Attends(JsonElement student, bool present) =>
        new
        {
            marks = new[]
            {
                new
                {
                    id = Guid.CreateVersion7(),
                    studentId = student.Text("id"),
                    present,
                },
            },
        };

    [Fact]
    public async Task Somebody_of_the_rail_group_is_with_copper_tonight_and_it_is_said_how_and_that_they_are_not_left_alone()
    {
        var head = await HeadAsync();
        var path = await ComingAsync(head);
        var lesson = path.Replace("/arrangement", "", StringComparison.Ordinal);
        var edda = await StudentAsync(head, "Edda");
        var before = await head.GetAsync(path);
        var (copper, rail) = (
            Named(before.GetProperty("cohorts"), "Copper"),
            Named(before.GetProperty("cohorts"), "Rail group")
        );
        Assert.False(copper.GetProperty("neverAlone").GetBoolean());

        await head.PutAsync(path, Edits(before, Joins(edda, copper.Text("id")))).OkAsync();
        var after = await head.GetAsync(path);
        int People(JsonElement arrangement, string name) =>
            Named(arrangement.GetProperty("cohorts"), name).GetProperty("people").GetInt32();
        Assert.Equal(
            (People(before, "Copper") + 1, People(before, "Rail group") - 1),
            (People(after, "Copper"), People(after, "Rail group"))
        );
        Assert.True(Named(after.GetProperty("cohorts"), "Copper").GetProperty("neverAlone").GetBoolean());
        var joining = Assert.Single(after.GetProperty("joining").EnumerateArray());
        Assert.Equal(("Edda T.", "supported"), (joining.Text("name"), joining.Text("mode")));
        Assert.Equal("", after.GetProperty("edits")[0].Text("name"));
        bool IsLed(int minute) =>
            after
                .GetProperty("blocks")
                .EnumerateArray()
                .Any(block =>
                    block.GetProperty("start").GetInt32() <= minute
                    && block.GetProperty("end").GetInt32() > minute
                    && block.GetProperty("ledBy").ValueKind == JsonValueKind.String
                    && (
                        block.Text("cohortId") is null
                        || block.Text("cohortId") == copper.Text("id")
                        || block.GetProperty("with").EnumerateArray().Any(with => with.ValueEquals(copper.Text("id")))
                    )
                );
        Assert.All(Enumerable.Range(0, after.GetProperty("minutes").GetInt32()), minute => Assert.True(IsLed(minute)));

        // By name, on the sheet and in the register; what somebody must not be asked for is said in the group they are with.
        var yusuf = await StudentAsync(head, "Yusuf");
        await head.PutAsync(path, Edits(after, Joins(edda, copper.Text("id")), Joins(yusuf, copper.Text("id"))))
            .OkAsync();
        var sheet = await head.GetAsync(lesson);
        IEnumerable<string?> Names(string cohort) =>
            Named(sheet.GetProperty("cohorts"), cohort)
                .GetProperty("people")
                .EnumerateArray()
                .Select(name => name.GetString());
        Assert.Contains("Edda T.", Names("Copper"));
        Assert.DoesNotContain("Edda T.", Names("Rail group"));
        var stepsBack = sheet
            .GetProperty("care")
            .EnumerateArray()
            .Where(care =>
                care.Text("student") == "Yusuf D." && care.Text("says").Contains("Step Back", StringComparison.Ordinal)
            )
            .ToList();
        Assert.Equal(2, stepsBack.Count);
        Assert.All(stepsBack, care => Assert.Equal(copper.Text("id"), care.Text("cohortId")));
        var row = (await head.GetAsync($"{lesson}/register"))
            .GetProperty("students")
            .EnumerateArray()
            .Single(student => student.Text("name") == "Edda T.");
        Assert.Equal((copper.Text("id"), "supported"), (row.Text("cohortId"), row.Text("mode")));

        // The last word counts, and taking it back takes everything back.
        var both = await head.GetAsync(path);
        await head.PutAsync(path, Edits(both, Joins(edda, copper.Text("id")), Joins(edda, null))).OkAsync();
        var no = await head.GetAsync(path);
        Assert.Equal(People(before, "Copper"), People(no, "Copper"));
        Assert.Empty(no.GetProperty("joining").EnumerateArray());
        Assert.Equal(
            ["edits[0].cohortId"],
            await head.PutAsync(path, Edits(no, Joins(edda, rail.Text("id")))).FieldsAsync()
        );
    }

    [Fact]
    public async Task Who_joins_is_somebody_one_teaches_or_a_visitor_and_is_marked_like_everybody()
    {
        var (head, jonas, odile) = (await HeadAsync(), await InstructorAsync(), await AssistantAsync());
        var path = (await ComingAsync(head)).Replace("2026-12-01", "2026-11-24", StringComparison.Ordinal);
        var lesson = path.Replace("/arrangement", "", StringComparison.Ordinal);
        var hedda = await StudentAsync(head, "Hedda");
        async Task<bool> CouldAsync(Caller caller) =>
            (await caller.GetAsync($"{lesson}/who-could-join"))
                .EnumerateArray()
                .Any(person => person.Text("studentId") == hedda.Text("id"));
        Assert.True(await CouldAsync(head));
        Assert.False(await CouldAsync(jonas));
        Assert.False(await CouldAsync(odile));

        var before = await head.GetAsync(path);
        var copper = Named(before.GetProperty("cohorts"), "Copper").Text("id");
        Assert.Equal(["edits[0].who"], await jonas.PutAsync(path, Edits(before, Joins(hedda, copper))).FieldsAsync());
        Assert.Equal(
            ["marks[0].studentId"],
            await odile.PostAsync($"{lesson}/attendance", Attends(hedda, true)).FieldsAsync()
        );

        await head.PutAsync(path, Edits(before, Joins(hedda, copper))).OkAsync();
        var joined = await head.GetAsync(path);
        await odile.PostAsync($"{lesson}/attendance", Attends(hedda, true)).OkAsync();
        var row = (await odile.GetAsync($"{lesson}/register"))
            .GetProperty("students")
            .EnumerateArray()
            .Single(student => student.Text("studentId") == hedda.Text("id"));
        Assert.Equal(
            (copper, "seated", true),
            (row.Text("cohortId"), row.Text("mode"), row.GetProperty("present").GetBoolean())
        );

        // Whom the head has asked in stays when somebody else goes on arranging.
        var visitor = new
        {
            kind = "joins",
            who = Guid.NewGuid(),
            name = " Wenke ",
            cohortId = copper,
            from = (string?)null,
            neverAlone = true,
        };
        await jonas
            .PutAsync(path, Edits(joined, Joins(hedda, copper), new { kind = "length", minutes = 95 }))
            .OkAsync();
        await odile
            .PostAsync(
                Happenings(path),
                new
                {
                    id = Guid.NewGuid(),
                    version = (uint?)null,
                    edits = new object[] { visitor },
                }
            )
            .OkAsync();
        var shown = await odile.GetAsync(path);
        Assert.Equal(
            ["Hedda B.", "Wenke"],
            shown.GetProperty("joining").EnumerateArray().Select(person => person.Text("name")).Order()
        );
        Assert.Contains(
            "Wenke",
            Named((await odile.GetAsync(lesson)).GetProperty("cohorts"), "Copper").GetProperty("people").GetRawText(),
            StringComparison.Ordinal
        );
        Assert.Equal(
            ["edits[0].who"],
            await head.PutAsync(
                    path,
                    Edits(
                        shown,
                        new
                        {
                            kind = "joins",
                            who = Guid.NewGuid(),
                            name = " ",
                            cohortId = copper,
                            from = (string?)null,
                            neverAlone = false,
                        }
                    )
                )
                .FieldsAsync()
        );
    }

    [Fact]
    public async Task Copper_works_in_pairs_those_who_agreed_and_are_there_and_what_they_do_breaks_no_limit()
    {
        var head = await HeadAsync();
        var path = (await ComingAsync(head)).Replace("2026-12-01", "2026-11-24", StringComparison.Ordinal);
        var lesson = path.Replace("/arrangement", "", StringComparison.Ordinal);
        var copper = Named((await head.GetAsync(path)).GetProperty("cohorts"), "Copper").Text("id");
        var sheet = Named((await head.GetAsync(lesson)).GetProperty("cohorts"), "Copper");
        async Task<JsonElement> PairsAsync(string what)
        {
            var now = await head.GetAsync(path);
            var material = sheet
                .GetProperty("material")
                .EnumerateArray()
                .Where(one => one.Text("name") == what)
                .Select(one => new { postureId = one.Text("postureId"), side = one.Text("side") });
            var task = new
            {
                key = "pairs",
                kind = "partner",
                cohortIds = new[] { copper },
                minutes = 6,
                what,
                because = "",
                material,
            };
            await head.PutAsync(path, Edits(now, new { kind = "add", task })).OkAsync();
            return (await head.GetAsync(path))
                .GetProperty("blocks")
                .EnumerateArray()
                .Single(block => block.Text("kind") == "partner")
                .GetProperty("pairs");
        }

        static string[][] Groups(JsonElement pairs) =>
            [
                .. pairs
                    .GetProperty("groups")
                    .EnumerateArray()
                    .Select(group => group.EnumerateArray().Select(name => name.GetString()!).Order().ToArray()),
            ];

        // Nobody has written down what sticking hands ask for: whoever has a limit works beside.
        var sticking = await PairsAsync("sticking hands");
        Assert.Equal(
            [
                ["Imke R.", "Jorun A.", "Per L."],
            ],
            Groups(sticking)
        );
        Assert.Equal(
            ["Kofi M.", "Vera Q."],
            sticking.GetProperty("beside").EnumerateArray().Select(one => one.Text("name")).Order()
        );

        // What Press asks for is known, and breaks nobody's limit; a visitor is asked first.
        Assert.Equal([2, 3], Groups(await PairsAsync("Press, right")).Select(group => group.Length).Order());
        var imke = await StudentAsync(head, "Imke");
        await head.PostAsync($"{lesson}/attendance", Attends(imke, false)).OkAsync();
        var press = await PairsAsync("Press, right");
        Assert.Equal([2, 2], Groups(press).Select(group => group.Length));
        Assert.DoesNotContain("Imke", press.GetRawText(), StringComparison.Ordinal);

        // On the floor two move as one: three places for five.
        var minute = (await head.GetAsync(path))
            .GetProperty("blocks")
            .EnumerateArray()
            .Single(block => block.Text("kind") == "partner")
            .GetProperty("start")
            .GetInt32();
        var zone = (await head.GetAsync($"{lesson}/floor"))
            .GetProperty("stretches")
            .EnumerateArray()
            .Single(stretch =>
                stretch.GetProperty("start").GetInt32() <= minute && stretch.GetProperty("end").GetInt32() > minute
            )
            .GetProperty("zones")
            .EnumerateArray()
            .Single(zone => zone.Text("groupId") == copper);
        Assert.InRange(
            zone.GetProperty("abreast").GetInt32()
                * zone.GetProperty("rows").GetInt32()
                * zone.GetProperty("waves").GetInt32(),
            3,
            4
        );
    }
}
