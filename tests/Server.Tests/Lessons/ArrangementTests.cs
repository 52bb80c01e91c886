using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Zeitplan.Server.Tests.Lessons;

public sealed class ArrangementTests(DemoTemplate template) : ArrangingTests(template)
{
    private static JsonElement New(JsonElement arrangement) =>
        arrangement
            .GetProperty("blocks")
            .EnumerateArray()
            .First(block => block.Text("kind") == "new" && block.Text("what") == "Press, right");

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
    public async Task A_school_says_for_how_long_nobody_may_look_at_a_cohort()
    {
        var head = await HeadAsync();
        var kept = JsonNode.Parse((await head.GetAsync("/api/teaching")).GetRawText())!;
        JsonNode Alone(int minutes)
        {
            kept["teaching"]!["eyes"]!["longestAlone"] = minutes;
            return new JsonObject
            {
                ["teaching"] = kept["teaching"]!.DeepClone(),
                ["version"] = kept["version"]!.DeepClone(),
            };
        }

        Assert.Equal(["eyes.longestAlone"], await head.PutAsync("/api/teaching", Alone(2)).FieldsAsync());
        await head.PutAsync("/api/teaching", Alone(3)).OkAsync();

        // More than three teachers can do for five cohorts.
        var arrangement = await head.GetAsync(await ComingAsync(head));
        Assert.Contains("3 are the most", arrangement.GetProperty("shortfalls").GetRawText(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_lesson_begins_with_the_schools_own_pieces_in_its_own_order()
    {
        var head = await HeadAsync();
        var path = await ComingAsync(head);
        async Task<JsonElement> WarmUpAsync() =>
            (await head.GetAsync(path))
                .GetProperty("blocks")
                .EnumerateArray()
                .Single(block => block.Text("kind") == "warmUp");

        var warmUp = await WarmUpAsync();
        Assert.Equal(
            [
                (0, "ankles and knees"),
                (2, "Waist Turning"),
                (4, "shoulders, elbows and wrists"),
                (6, "neck, turning only"),
                (7, "Weight Shifting"),
            ],
            warmUp
                .GetProperty("pieces")
                .EnumerateArray()
                .Select(piece => (piece.GetProperty("start").GetInt32(), piece.Text("what")))
        );

        var kept = JsonNode.Parse((await head.GetAsync("/api/teaching")).GetRawText())!;
        JsonNode With(string what, Guid? drill, int minutes)
        {
            var teaching = kept["teaching"]!.DeepClone();
            teaching["warmUp"] = JsonSerializer.SerializeToNode(
                new[]
                {
                    new
                    {
                        what,
                        minutes,
                        drillId = drill,
                    },
                },
                JsonSerializerOptions.Web
            );
            return new JsonObject { ["teaching"] = teaching, ["version"] = kept["version"]!.DeepClone() };
        }

        Assert.Equal(["warmUp"], await head.PutAsync("/api/teaching", With("waist", null, 9)).FieldsAsync());
        Assert.Equal(
            ["warmUp[0].drillId"],
            await head.PutAsync("/api/teaching", With("waist", Guid.NewGuid(), 10)).FieldsAsync()
        );
        await head.PutAsync("/api/teaching", With("waist", null, 10)).OkAsync();
        warmUp = await WarmUpAsync();
        Assert.Equal("waist", warmUp.Text("what"));
        Assert.Equal(1, warmUp.GetProperty("pieces").GetArrayLength());
    }

    [Fact]
    public async Task Teaching_something_again_takes_a_cohort_as_long_as_its_pace_says()
    {
        var head = await HeadAsync();
        var path = await ComingAsync(head);
        async Task<int> MinutesAsync() =>
            (await head.GetAsync($"{path}/re-teach"))
                .EnumerateArray()
                .Single(one => one.GetProperty("changedSince").ValueKind == JsonValueKind.Null)
                .GetProperty("task")
                .GetProperty("minutes")
                .GetInt32();
        var before = await MinutesAsync();
        await using var db = await OpenAsync();
        await db.Database.ExecuteSqlRawAsync(
            """UPDATE plans SET snapshot = regexp_replace(snapshot::text, '"pace": [0-9.]+', '"pace": 2', 'g')::jsonb"""
        );
        Assert.InRange(await MinutesAsync(), before + 3, 3 * before);
    }

    [Fact]
    public async Task What_many_share_is_offered_with_what_it_takes_and_is_a_block_once_it_is_put_in()
    {
        var head = await HeadAsync();
        var path = await ComingAsync(head);
        var arrangement = await head.GetAsync(path);
        var offer = Assert.Single(await SharedAsync(path));
        Assert.True(offer.GetProperty("have").GetInt32() >= 3);
        var task = offer.GetProperty("task");
        await head.PutAsync(path, Edits(arrangement, new { kind = "add", task })).OkAsync();
        var with = await head.GetAsync(path);
        Assert.Equal(offer.GetProperty("givesWay").GetArrayLength(), with.GetProperty("shortfalls").GetArrayLength());
        Assert.Contains(
            with.GetProperty("blocks").EnumerateArray(),
            block =>
                block.Text("kind") == "reTeach"
                && block.Text("what") == task.Text("what")
                && block.GetProperty("end").GetInt32() - block.GetProperty("start").GetInt32()
                    == task.GetProperty("minutes").GetInt32()
        );
        Assert.Empty(await SharedAsync(path));
        var held = path.Replace("2026-12-01", "2026-11-17", StringComparison.Ordinal);
        Assert.Empty((await head.GetAsync($"{held}/re-teach")).EnumerateArray());

        async Task<IEnumerable<JsonElement>> SharedAsync(string lesson) =>
            (await head.GetAsync($"{lesson}/re-teach"))
                .EnumerateArray()
                .Where(one => one.GetProperty("changedSince").ValueKind == JsonValueKind.Null);
    }

    private static object Happening(JsonElement arrangement, Guid id, int from, int until) =>
        new
        {
            id,
            version = arrangement.GetProperty("version"),
            edits = new object[]
            {
                new
                {
                    kind = "since",
                    from,
                    until,
                    what = "The alarm rang.",
                    stood = arrangement.GetProperty("blocks"),
                },
            },
        };

    private static List<string> Before(JsonElement arrangement, int minute) =>
        [
            .. arrangement
                .GetProperty("blocks")
                .EnumerateArray()
                .Where(block => block.GetProperty("end").GetInt32() <= minute)
                .Select(block =>
                    $"{block.GetProperty("start")} {block.GetProperty("end")} {block.GetProperty("cohortId")} {block.Text("kind")} {block.Text("what")}"
                )
                .Order(StringComparer.Ordinal),
        ];

    [Fact]
    public async Task Twelve_minutes_are_lost_what_has_happened_stands_and_saying_it_twice_loses_them_once()
    {
        var odile = await AssistantAsync();
        var path = await ComingAsync(odile);
        var before = await odile.GetAsync(path);
        var happening = Happening(before, Guid.CreateVersion7(), 40, 52);
        await odile.PostAsync(Happenings(path), happening).OkAsync();
        await odile.PostAsync(Happenings(path), happening).OkAsync();
        var after = await odile.GetAsync(path);
        Assert.Equal(1, after.GetProperty("edits").GetArrayLength());
        Assert.Superset(Before(before, 40).ToHashSet(), Before(after, 40).ToHashSet());
        var lost = Assert.Single(
            after.GetProperty("blocks").EnumerateArray(),
            block => block.Text("what") == "The alarm rang."
        );
        Assert.Equal((40, 52), (lost.GetProperty("start").GetInt32(), lost.GetProperty("end").GetInt32()));
    }

    [Fact]
    public async Task Two_devices_in_one_lesson_both_are_heard_and_see_the_same_in_the_end()
    {
        var (head, odile) = (await HeadAsync(), await AssistantAsync());
        var path = await ComingAsync(head);
        var shown = await head.GetAsync(path);
        await Task.WhenAll(
            head.PostAsync(Happenings(path), Happening(shown, Guid.CreateVersion7(), 30, 40)).OkAsync(),
            odile.PostAsync(Happenings(path), Happening(shown, Guid.CreateVersion7(), 45, 45)).OkAsync()
        );
        var (one, other) = (await head.GetAsync(path), await odile.GetAsync(path));
        Assert.Equal(one.GetProperty("blocks").GetRawText(), other.GetProperty("blocks").GetRawText());
        Assert.Equal(2, one.GetProperty("edits").GetArrayLength());
    }

    [Fact]
    public async Task Two_are_ill_and_what_would_help_has_been_tried()
    {
        var head = await HeadAsync();
        var path = await ComingAsync(head);
        var before = await head.GetAsync(path);
        var ill = before
            .GetProperty("teachers")
            .EnumerateArray()
            .Skip(1)
            .Select(teacher => new
            {
                kind = "teacher",
                who = new
                {
                    id = teacher.Text("id"),
                    name = teacher.Text("name"),
                    leadsEverything = true,
                    level = (int?)null,
                    from = 0,
                    until = 0,
                },
            })
            .ToArray<object>();
        await head.PutAsync(path, Edits(before, ill)).OkAsync();
        var missing = (await head.GetAsync(path)).GetProperty("shortfalls").GetArrayLength();
        Assert.True(missing > 0);
        var collision = await head.GetAsync($"{path}/ways-out");
        Assert.True(collision.GetProperty("collide").GetArrayLength() > 1);
        Assert.NotEqual(0, collision.GetProperty("ways").GetArrayLength());
        Assert.All(
            collision.GetProperty("ways").EnumerateArray(),
            way => Assert.NotEqual(0, way.GetProperty("edits").GetArrayLength())
        );
    }

    [Fact]
    public async Task A_calendar_carries_the_outline_of_the_coming_lesson()
    {
        var head = await HeadAsync();
        var of = (await ClassAsync(head, "Tuesday evening")).Text("id");
        var calendar = Ical.Net.Calendar.Load(
            await head.Client.GetStringAsync(new Uri($"/api/classes/{of}/calendar.ics", UriKind.Relative))
        )!;
        string Said(int day, int month) =>
            calendar.Events.Single(lesson => lesson.Start!.Value.Date == new DateTime(2026, month, day)).Description!;
        Assert.Contains(
            "18:30 Everybody: warm-up ankles and knees; Waist Turning; shoulders, elbows and wrists; neck, turning only; Weight Shifting (Noor Adeyemi)",
            Said(1, 12)
        );
        Assert.Matches(@"1[89]:\d\d Copper: new Side Stepping, left \(\w+ \w+\)", Said(1, 12));
        Assert.DoesNotContain("warm-up", Said(15, 12), StringComparison.Ordinal);
    }

    [Fact]
    public async Task In_the_hall_nobody_adds_what_was_never_planned()
    {
        var odile = await AssistantAsync();
        var path = await ComingAsync(odile);
        var cohort = (await odile.GetAsync(path)).GetProperty("cohorts")[0].Text("id");
        var task = new
        {
            key = "more",
            kind = "talk",
            cohortIds = new[] { cohort },
            minutes = 5,
            what = "a talk",
            because = "",
            material = Array.Empty<object>(),
        };
        await odile
            .PostAsync(
                Happenings(path),
                new
                {
                    id = Guid.CreateVersion7(),
                    version = (uint?)null,
                    edits = new object[] { new { kind = "add", task } },
                }
            )
            .ProblemAsync(400);
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
        // What need not move stays where it was seen.
        var (asked, now) = (Asked(before), Asked(moved));
        Assert.True(asked.Intersect(now).Count() > asked.Count / 2);
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

        List<(string, int, string)> Asked(JsonElement arrangement) =>
            [
                .. arrangement
                    .GetProperty("blocks")
                    .EnumerateArray()
                    .Where(block => block.GetProperty("task").ValueKind == JsonValueKind.String)
                    .Where(block => block.Text("task") != press.Text("task"))
                    .Select(block => (block.Text("task"), block.GetProperty("start").GetInt32(), block.Text("ledBy"))),
            ];
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
