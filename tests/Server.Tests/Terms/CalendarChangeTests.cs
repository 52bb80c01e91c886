using System.Text.Json;

namespace Zeitplan.Server.Tests.Terms;

/// <summary>Days that close, lessons that move, and what the plan makes of them.</summary>
public sealed class CalendarChangeTests(DemoTemplate template) : PlanTests(template)
{
    [Fact]
    public async Task A_closure_in_mid_term_is_planned_around_and_one_cohort_can_be_kept_out_of_it()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var evening = await ClassAsync(head);
        await head.PutAsync(
                $"/api/classes/{evening.Text("id")}/calendar/2026-12-08",
                Lesson(evening, closed: "Noor is away")
            )
            .OkAsync();
        Assert.True((await head.GetAsync(path)).GetProperty("outOfDate").GetBoolean());
        await StepAsync(head, path).OkAsync();
        var draft = await head.GetAsync(path);
        Assert.Equal(
            "Noor is away",
            draft
                .GetProperty("lessons")
                .EnumerateArray()
                .Single(lesson => lesson.Text("date") == "2026-12-08")
                .Text("closed")
        );
        var moves = draft
            .GetProperty("changes")
            .EnumerateArray()
            .SelectMany(change => change.GetProperty("moves").EnumerateArray())
            .ToList();
        Assert.All(
            moves.Where(move => move.Text("from") == "2026-12-08"),
            move =>
                Assert.StartsWith("8 December is closed: Noor is away.", move.Text("because"), StringComparison.Ordinal)
        );
        var garnet = draft.GetProperty("changes").EnumerateArray().Single(change => change.Text("name") == "Garnet");
        await StepAsync(head, path, $"/cohorts/{garnet.Text("cohortId")}/kept").OkAsync();
        var kept = await head.GetAsync(path);
        var refused = kept.GetProperty("rows")
            .EnumerateArray()
            .Single(row => row.Text("name") == "Garnet")
            .GetProperty("refused")
            .EnumerateArray()
            .Select(pin => pin.Text("name"))
            .ToList();
        var still = kept.GetProperty("changes")
            .EnumerateArray()
            .Where(change => change.Text("name") == "Garnet")
            .SelectMany(change => change.GetProperty("moves").EnumerateArray())
            .ToList();
        Assert.All(
            still,
            move => Assert.True(move.Text("from") == "2026-12-08" || refused.Contains(move.Text("name")))
        );
    }

    [Fact]
    public async Task A_single_lesson_is_moved_added_and_refused_at_the_field()
    {
        var head = await HeadAsync();
        var evening = await ClassAsync(head);
        var calendar = $"/api/classes/{evening.Text("id")}/calendar";
        async Task<string[]> Fields(string date, object request) =>
            await head.PutAsync($"{calendar}/{date}", request).FieldsAsync();
        Assert.Equal(["date"], await Fields("2026-11-17", Lesson(evening, closed: "Too late")));
        Assert.Equal(["movedTo"], await Fields("2026-12-08", Lesson(evening, movedTo: "2026-12-22")));
        Assert.Equal(["minutes"], await Fields("2026-12-08", Lesson(evening, minutes: 5)));
        await head.PutAsync($"{calendar}/2026-12-08", Lesson(evening, movedTo: "2026-12-10", minutes: 120)).OkAsync();
        await head.PutAsync($"{calendar}/2026-12-17", Lesson(evening)).ProblemAsync(409);
        evening = await ClassAsync(head);
        await head.PutAsync($"{calendar}/2026-12-17", Lesson(evening)).OkAsync();
        var lessons = (await head.GetAsync(await PathAsync(head))).GetProperty("lessons").EnumerateArray().ToList();
        var moved = lessons.Single(lesson => lesson.Text("usual") == "2026-12-08");
        Assert.Equal(("2026-12-10", 120), (moved.Text("date"), moved.GetProperty("minutes").GetInt32()));
        Assert.Equal(13, lessons.Count(lesson => lesson.GetProperty("number").ValueKind == JsonValueKind.Number));
        evening = await ClassAsync(head);
        await head.SendAsync(
                HttpMethod.Delete,
                $"{calendar}/2026-12-17?version={evening.GetProperty("version").GetUInt32()}",
                null
            )
            .OkAsync();
        await head.SendAsync(HttpMethod.Delete, $"{calendar}/2026-12-17?version=1", null).ProblemAsync(404);
    }

    [Fact]
    public async Task A_hall_with_a_single_lesson_in_it_stays()
    {
        var head = await HeadAsync();
        var hall = Guid.CreateVersion7();
        await head.PostAsync(
                "/api/halls",
                new
                {
                    id = hall,
                    text = new
                    {
                        name = "Attic",
                        width = 8,
                        depth = 6,
                        chairs = 0,
                        rail = 0,
                        hours = Array.Empty<object>(),
                        allowed = 20,
                    },
                }
            )
            .OkAsync();
        var evening = await ClassAsync(head);
        await head.PutAsync($"/api/classes/{evening.Text("id")}/calendar/2026-12-08", Lesson(evening, hallId: hall))
            .OkAsync();
        Assert.Contains(
            "single lessons",
            (await head.SendAsync(HttpMethod.Delete, $"/api/halls/{hall}", null).ProblemAsync(409))
                .GetProperty("changes")[0]
                .GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Minutes_kept_for_watching_are_left_out_of_the_plan_and_nothing_else_of_the_lesson_changes()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var evening = await ClassAsync(head);
        var lesson = $"/api/classes/{evening.Text("id")}/calendar/2026-12-01";
        var before = Of(await head.GetAsync(path)).GetProperty("teacherMinutes").GetDecimal();
        await head.PutAsync(lesson, Lesson(evening, minutes: 100)).OkAsync();
        evening = await ClassAsync(head);
        var wrong = await head.PutAsync($"{lesson}/watching", Kept(101)).ProblemAsync(400);
        Assert.Contains("Between 1 and 100 minutes", Errors(wrong), StringComparison.Ordinal);
        await head.PutAsync($"{lesson}/watching", Kept(12)).OkAsync();
        // Whoever began from an older state is told.
        await head.PutAsync($"{lesson}/watching", Kept(3)).ProblemAsync(409);
        Assert.True((await head.GetAsync(path)).GetProperty("outOfDate").GetBoolean());
        await StepAsync(head, path).OkAsync();
        var planned = Of(await head.GetAsync(path));
        Assert.Equal(12, planned.GetProperty("watchMinutes").GetInt32());
        Assert.Equal(100, planned.GetProperty("minutes").GetInt32());
        Assert.Equal(before + 30 - 12, planned.GetProperty("teacherMinutes").GetDecimal());
        Assert.True(planned.GetProperty("ledMinutes").GetDecimal() <= before + 18);

        object Kept(int minutes) => new { minutes, version = evening.GetProperty("version").GetUInt32() };
        static JsonElement Of(JsonElement plan) =>
            plan.GetProperty("lessons").EnumerateArray().Single(one => one.Text("date") == "2026-12-01");
        static string Errors(JsonElement problem) => problem.GetProperty("errors").ToString();
    }

    [Fact]
    public async Task A_changed_term_keeps_what_was_held_and_says_what_is_wrong()
    {
        var head = await HeadAsync();
        var term = (await head.GetAsync("/api/terms"))
            .EnumerateArray()
            .Single(one => one.GetProperty("isCurrent").GetBoolean());
        object With(string start, params (string Date, string Reason)[] closures) =>
            new
            {
                name = "Winter term",
                start,
                end = "2027-01-19",
                testDays = new[] { "2027-01-19" },
                version = term.GetProperty("version").GetUInt32(),
                closures = closures.Select(closure => new { date = closure.Date, reason = closure.Reason }),
            };
        var path = $"/api/terms/{term.Text("id")}";
        Assert.Equal(
            ["closures[0].date"],
            await head.PutAsync(path, With("2026-10-21", ("2026-11-17", "Too late"))).FieldsAsync()
        );
        Assert.Equal(
            ["closures[0].reason"],
            await head.PutAsync(path, With("2026-10-21", ("2026-12-15", " "))).FieldsAsync()
        );
        Assert.Equal(["start"], await head.PutAsync(path, With("2026-11-20")).FieldsAsync());
        await head.PutAsync(path, With("2026-10-21", ("2026-12-22", "Halls closed"))).OkAsync();
        await head.PutAsync(path, With("2026-10-21")).ProblemAsync(409);
    }

    [Fact]
    public async Task What_a_day_is_to_the_school_and_to_the_class_is_saved_together_or_not_at_all()
    {
        var head = await HeadAsync();
        var evening = await ClassAsync(head);
        var path = $"/api/classes/{evening.Text("id")}/calendar/2026-12-08";
        async Task<JsonElement> Term() =>
            (await head.GetAsync("/api/terms"))
                .EnumerateArray()
                .Single(one => one.GetProperty("isCurrent").GetBoolean());
        async Task<object> School(bool test, string? closed = null) =>
            new
            {
                test,
                closed,
                version = (await Term()).GetProperty("version").GetUInt32(),
            };
        Assert.Equal(
            ["minutes"],
            await head.PutAsync(path, Lesson(evening, minutes: 5, school: await School(true))).FieldsAsync()
        );
        Assert.DoesNotContain(
            "2026-12-08",
            (await Term()).GetProperty("testDays").GetRawText(),
            StringComparison.Ordinal
        );
        await head.PutAsync(
                path,
                Lesson(
                    evening,
                    minutes: 60,
                    school: new
                    {
                        test = true,
                        closed = (string?)null,
                        version = 1u,
                    }
                )
            )
            .ProblemAsync(409);
        Assert.Equal(90, (await ClassAsync(head)).GetProperty("minutes").GetInt32());
        await head.PutAsync(path, Lesson(evening, minutes: 60, school: await School(true))).OkAsync();
        Assert.Contains("2026-12-08", (await Term()).GetProperty("testDays").GetRawText(), StringComparison.Ordinal);
        var column = (await head.GetAsync(await PathAsync(head)))
            .GetProperty("lessons")
            .EnumerateArray()
            .Single(lesson => lesson.Text("date") == "2026-12-08");
        Assert.Equal((60, "test"), (column.GetProperty("minutes").GetInt32(), column.Text("kind")));
        await head.PutAsync(path, Lesson(await ClassAsync(head), school: await School(false, "Harbour day"))).OkAsync();
        Assert.Contains("Harbour day", (await Term()).GetProperty("closures").GetRawText(), StringComparison.Ordinal);
        Assert.DoesNotContain(
            "2026-12-08",
            (await Term()).GetProperty("testDays").GetRawText(),
            StringComparison.Ordinal
        );
        var fields = await head.PutAsync(
                $"/api/classes/{evening.Text("id")}/calendar/2026-12-22",
                Lesson(await ClassAsync(head), school: await School(false, " "))
            )
            .FieldsAsync();
        Assert.Matches(@"^closures\[\d+\]\.reason$", Assert.Single(fields));
    }

    [Fact]
    public async Task A_chip_fixed_on_a_day_that_closes_is_named_and_comes_back_when_it_opens()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var chip = Chip(await head.GetAsync(path), "Fern, senior", "Shoulder Stroke, right").Text("id");
        await StepAsync(head, path, $"/chips/{chip}/pin", new { date = "2026-12-22" }).OkAsync();
        foreach (var closed in new[] { "Noor is away", null })
        {
            var evening = await ClassAsync(head);
            await head.PutAsync($"/api/classes/{evening.Text("id")}/calendar/2026-12-22", Lesson(evening, closed))
                .OkAsync();
            await StepAsync(head, path).OkAsync();
            var draft = await head.GetAsync(path);
            var refused = draft
                .GetProperty("rows")
                .EnumerateArray()
                .SelectMany(row => row.GetProperty("refused").EnumerateArray())
                .Select(one => (one.Text("name"), one.Text("because")))
                .ToList();
            Assert.Equal(
                closed is null ? [] : [("Shoulder Stroke, right", "22 December is closed: Noor is away.")],
                refused
            );
            Assert.Equal(
                closed is null,
                Chip(draft, "Fern, senior", "Shoulder Stroke, right").GetProperty("pinned").GetBoolean()
            );
        }
    }
}
