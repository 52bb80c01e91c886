using System.Text.Json;
using Npgsql;

namespace Zeitplan.Server.Tests.Lessons;

public sealed class RegisterTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task What_is_said_of_one_item_moves_none_of_them()
    {
        var head = await HeadAsync();
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/{DemoTemplate.Today}";
        var ticks = await TicksAsync(head, lesson, taught: true);
        var before = await OrderAsync();
        Assert.True(before.Count > 20);
        foreach (var tick in ticks.Reverse().Where((_, at) => at % 7 == 3))
        {
            await head.PostAsync($"{lesson}/taught", new { marks = new[] { tick } }).OkAsync();
            Assert.Equal(before, await OrderAsync());
        }

        async Task<List<string>> OrderAsync() =>
            [
                .. (await head.GetAsync($"{lesson}/register"))
                    .GetProperty("cohorts")
                    .EnumerateArray()
                    .SelectMany(cohort =>
                        cohort.GetProperty("items").EnumerateArray().Select(item => item.Text("name"))
                    ),
            ];
    }

    [Fact]
    public async Task A_mark_sent_twice_lands_once_and_a_different_one_under_its_name_is_refused()
    {
        var odile = await AssistantAsync();
        var (lesson, hanne, cell) = await PlaceAsync(odile, "Hanne");
        var mark = Mark(hanne, cell, "stage", stage: "alone");
        var before = Count("observations");
        await odile.PostAsync($"{lesson}/observations", new { marks = new[] { mark } }).OkAsync();
        await odile.PostAsync($"{lesson}/observations", new { marks = new[] { mark } }).OkAsync();
        Assert.Equal(before + 1, Count("observations"));
        await odile
            .PostAsync($"{lesson}/observations", new { marks = new[] { mark with { Stage = "follows" } } })
            .ProblemAsync(409);
        Assert.Equal(before + 1, Count("observations"));
    }

    [Fact]
    public async Task What_comes_late_is_kept_about_who_has_left_is_withdrawn_still_where_it_was_and_is_never_of_tomorrow()
    {
        var head = await HeadAsync();
        var (lesson, hanne, cell) = await PlaceAsync(head, "Hanne");
        var mark = Mark(hanne, cell, "fault", words: "looks at her feet", weight: "finesse");
        Assert.Equal(
            ["date"],
            await head.PostAsync(
                    $"{lesson.Replace("2026-11-17", "2026-12-01", StringComparison.Ordinal)}/observations",
                    new { marks = new[] { mark } }
                )
                .FieldsAsync()
        );

        await head.PostAsync($"{lesson}/observations", new { marks = new[] { mark } }).OkAsync();
        await head.PostAsync($"/api/observations/{mark.Id}/withdrawal").OkAsync();
        await head.PostAsync($"{lesson}/observations", new { marks = new[] { mark } }).OkAsync();
        Assert.DoesNotContain(mark.Words!, await StandingsAsync(), StringComparison.Ordinal);

        var version = (await StudentAsync(head, "Hanne")).GetProperty("version").GetInt64();
        await head.PostAsync($"/api/students/{hanne}/leaving", new { version }).OkAsync();
        await head.PostAsync($"{lesson}/observations", new { marks = new[] { mark with { Id = Guid.NewGuid() } } })
            .OkAsync();
        Assert.Contains(mark.Words!, await StandingsAsync(), StringComparison.Ordinal);

        async Task<string> StandingsAsync() =>
            (await head.GetAsync($"/api/students/{hanne}")).GetProperty("standings").GetRawText();
    }

    [Fact]
    public async Task Marks_sent_at_the_same_moment_land_once()
    {
        var jonas = await InstructorAsync();
        var (lesson, hanne, cell) = await PlaceAsync(jonas, "Hanne");
        var before = Count("observations");
        var body = new
        {
            marks = Enumerable.Range(0, 3).Select(_ => Mark(hanne, cell, "stage", stage: "alone")).ToList(),
        };
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => jonas.PostAsync($"{lesson}/observations", body))
        );
        Assert.All(answers, answer => Assert.True(answer.IsSuccessStatusCode));
        Assert.Equal(before + 3, Count("observations"));
    }

    [Fact]
    public async Task Two_teachers_who_tick_at_the_same_moment_keep_both_their_ticks()
    {
        var (noor, jonas) = (await HeadAsync(), await InstructorAsync());
        var lesson = $"/api/classes/{(await ClassAsync(jonas)).Text("id")}/lessons/2026-11-24";
        var ticks = await TicksAsync(jonas, lesson, taught: true);
        var answers = await Task.WhenAll(
            ticks
                .Index()
                .Select(tick =>
                    (tick.Index % 2 == 0 ? noor : jonas).PostAsync(
                        $"{lesson}/taught",
                        new { marks = new[] { tick.Item } }
                    )
                )
        );
        Assert.All(answers, answer => Assert.True(answer.IsSuccessStatusCode));
        Assert.All(await TaughtAsync(), taught => Assert.True(taught));

        // One of them takes one tick back, and the network sends an earlier one again.
        await jonas
            .PostAsync(
                $"{lesson}/taught",
                new { marks = new[] { ticks[0] with { Id = Guid.CreateVersion7(), Taught = false } } }
            )
            .OkAsync();
        await noor.PostAsync($"{lesson}/taught", new { marks = new[] { ticks[0] } }).OkAsync();
        Assert.Equal([.. ticks.Select((_, at) => (bool?)(at != 0))], (await TaughtAsync()).ToList());

        async Task<IEnumerable<bool?>> TaughtAsync() =>
            (await jonas.GetAsync($"{lesson}/register"))
                .GetProperty("cohorts")
                .EnumerateArray()
                .SelectMany(cohort => cohort.GetProperty("items").EnumerateArray())
                .Select(item =>
                    item.GetProperty("taught").ValueKind == JsonValueKind.Null
                        ? (bool?)null
                        : item.GetProperty("taught").GetBoolean()
                );
    }

    [Fact]
    public async Task One_bad_mark_among_good_ones_keeps_all_of_them_out()
    {
        var head = await HeadAsync();
        var (lesson, hanne, cell) = await PlaceAsync(head, "Hanne");
        var agnes = (await StudentAsync(head, "Agnes")).Text("id");
        var before = Count("observations");
        var good = Mark(hanne, cell, "stage", stage: "alone");
        Assert.Equal(
            ["marks[1].studentId"],
            await head.PostAsync(
                    $"{lesson}/observations",
                    new { marks = new[] { good, good with { Id = Guid.NewGuid(), StudentId = agnes } } }
                )
                .FieldsAsync()
        );
        Assert.Equal(
            ["marks[1].stage"],
            await head.PostAsync(
                    $"{lesson}/observations",
                    new { marks = new[] { good, good with { Id = Guid.NewGuid(), Stage = "settled" } } }
                )
                .FieldsAsync()
        );
        Assert.Equal(
            ["marks[1].words"],
            await head.PostAsync(
                    $"{lesson}/observations",
                    new { marks = new[] { good, Mark(hanne, cell, "fault", weight: "shape") } }
                )
                .FieldsAsync()
        );
        Assert.Equal(
            ["marks[0].weight"],
            await head.PostAsync(
                    $"{lesson}/observations",
                    new { marks = new[] { Mark(hanne, cell, "fault", words: "leans") } }
                )
                .FieldsAsync()
        );
        Assert.Equal(
            ["marks[0].faultId"],
            await head.PostAsync(
                    $"{lesson}/observations",
                    new
                    {
                        marks = new[]
                        {
                            Mark(hanne, cell, "fault", words: "leans", weight: "shape") with
                            {
                                FaultId = Guid.NewGuid(),
                            },
                        },
                    }
                )
                .FieldsAsync()
        );
        Assert.Equal(
            ["marks[0].studentId"],
            await head.PostAsync(
                    $"{lesson}/attendance",
                    new
                    {
                        marks = new[]
                        {
                            new
                            {
                                id = Guid.NewGuid(),
                                studentId = agnes,
                                present = true,
                            },
                        },
                    }
                )
                .FieldsAsync()
        );
        Assert.Equal(before, Count("observations"));
    }

    [Fact]
    public async Task A_lesson_that_is_not_one_has_no_register()
    {
        var head = await HeadAsync();
        var room = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons";
        Assert.Contains(
            "outside every term",
            (await head.Client.GetAsync($"{room}/2031-01-07").ProblemAsync(404)).Text("title"),
            StringComparison.Ordinal
        );
        await head.Client.GetAsync($"{room}/2026-11-18").ProblemAsync(404);
        await head.Client.GetAsync($"{room}/2026-12-15").ProblemAsync(404);
        Assert.Equal(
            ["date"],
            await head.PostAsync($"{room}/2026-12-01/taught", new { marks = Array.Empty<object>() }).FieldsAsync()
        );
    }

    [Fact]
    public async Task A_correction_opens_in_own_words_and_goes_when_its_observation_is_withdrawn()
    {
        var jonas = await InstructorAsync();
        var (lesson, hanne, cell) = await PlaceAsync(jonas, "Hanne");
        var mark = Mark(hanne, cell, "fault", words: "looks at her feet", weight: "finesse");
        await jonas.PostAsync($"{lesson}/observations", new { marks = new[] { mark } }).OkAsync();
        Assert.Contains(
            "looks at her feet",
            (await jonas.GetAsync($"/api/students/{hanne}")).GetProperty("standings").GetRawText(),
            StringComparison.Ordinal
        );
        await jonas.PostAsync($"/api/observations/{mark.Id}/withdrawal").OkAsync();
        await jonas.PostAsync($"/api/observations/{mark.Id}/withdrawal").OkAsync();
        var student = await jonas.GetAsync($"/api/students/{hanne}");
        Assert.DoesNotContain(
            "looks at her feet",
            student.GetProperty("standings").GetRawText(),
            StringComparison.Ordinal
        );
        Assert.True(
            student
                .GetProperty("facts")
                .EnumerateArray()
                .Single(fact => fact.Text("id") == mark.Id.ToString())
                .GetProperty("withdrawn")
                .GetBoolean()
        );
    }

    [Fact]
    public async Task An_assistant_takes_back_only_what_they_saw_themselves()
    {
        var (jonas, odile) = (await InstructorAsync(), await AssistantAsync());
        var (lesson, hanne, cell) = await PlaceAsync(jonas, "Hanne");
        var (his, hers) = (Mark(hanne, cell, "fine"), Mark(hanne, cell, "stage", stage: "alone"));
        await jonas.PostAsync($"{lesson}/observations", new { marks = new[] { his } }).OkAsync();
        await odile.PostAsync($"{lesson}/observations", new { marks = new[] { hers } }).OkAsync();
        await odile.PostAsync($"/api/observations/{his.Id}/withdrawal").ProblemAsync(403);
        await odile.PostAsync($"/api/observations/{hers.Id}/withdrawal").OkAsync();
        await jonas.PostAsync($"/api/observations/{his.Id}/withdrawal").OkAsync();
    }

    [Fact]
    public async Task Facts_are_added_and_never_changed()
    {
        var head = await HeadAsync();
        var (lesson, hanne, _) = await PlaceAsync(head, "Hanne");
        var before = Count("attendance");
        foreach (var present in new[] { false, true, false })
        {
            await head.PostAsync(
                    $"{lesson}/attendance",
                    new
                    {
                        marks = new[]
                        {
                            new
                            {
                                id = Guid.CreateVersion7(),
                                studentId = hanne,
                                present,
                            },
                        },
                    }
                )
                .OkAsync();
        }

        Assert.Equal(before + 3, Count("attendance"));
        var row = (await head.GetAsync($"{lesson}/register"))
            .GetProperty("students")
            .EnumerateArray()
            .Single(student => student.Text("studentId") == hanne);
        Assert.False(row.GetProperty("present").GetBoolean());
    }

    [Fact]
    public async Task A_fact_keeps_when_it_was_seen_and_no_clock_that_is_wrong_is_believed()
    {
        var head = await HeadAsync();
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/2026-11-24";
        var student = (await head.GetAsync($"{lesson}/register")).GetProperty("students")[0].Text("studentId");
        async Task<DateTime> KeptAsync(DateTimeOffset? seen)
        {
            var id = Guid.CreateVersion7();
            await head.PostAsync(
                    $"{lesson}/attendance",
                    new
                    {
                        marks = new[]
                        {
                            new
                            {
                                id,
                                studentId = student,
                                present = true,
                                seen,
                            },
                        },
                    }
                )
                .OkAsync();
            await using var connection = new NpgsqlConnection(Connection);
            await connection.OpenAsync();
            await using var command = new NpgsqlCommand("SELECT at FROM attendance WHERE id = $1", connection);
            command.Parameters.Add(new() { Value = id });
            return (DateTime)(await command.ExecuteScalarAsync())!;
        }

        var now = await KeptAsync(null);
        Assert.Equal(now.AddMinutes(-20), await KeptAsync(new(now.AddMinutes(-20))));
        Assert.InRange(await KeptAsync(new(now.AddHours(3))), now, now.AddMinutes(2));
        Assert.InRange(await KeptAsync(new(now.AddDays(-30))), now, now.AddMinutes(2));
    }

    [Fact]
    public async Task The_sheet_says_who_is_in_each_cohort_what_it_meets_and_its_cautions()
    {
        var head = await HeadAsync();
        var sheet = await head.GetAsync($"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/2026-11-24");
        foreach (
            var material in sheet.GetProperty("cohorts").EnumerateArray().Select(its => its.GetProperty("material"))
        )
        {
            Assert.True(material.GetArrayLength() > 1);
            Assert.All(
                material.EnumerateArray(),
                of => Assert.True(of.GetProperty("cues").GetArrayLength() > 0 && of.Text("keyPoint").Length > 0)
            );
        }

        var rail = sheet.GetProperty("cohorts").EnumerateArray().Single(cohort => cohort.Text("name") == "Rail group");
        Assert.True(rail.GetProperty("attended").GetBoolean());
        Assert.Contains("the free hand reaches ahead", rail.GetRawText(), StringComparison.Ordinal);
        Assert.Equal(6, rail.GetProperty("people").GetArrayLength());
        Assert.True(sheet.GetProperty("cautions").GetArrayLength() > 2);
    }

    private sealed record Marked(
        Guid Id,
        string StudentId,
        string PostureId,
        string Side,
        string Sign,
        string? Stage,
        Guid? FaultId,
        string? Words,
        string? Weight
    );

    private static Marked Mark(
        string student,
        JsonElement cell,
        string sign,
        string? stage = null,
        string? words = null,
        string? weight = null
    ) =>
        new(
            Guid.CreateVersion7(),
            student,
            cell.Text("postureId"),
            cell.Text("side"),
            sign,
            stage,
            null,
            words,
            weight
        );

    private static async Task<(string Lesson, string Student, JsonElement Cell)> PlaceAsync(Caller caller, string name)
    {
        var lesson = await LastLessonAsync(caller);
        var student = (await caller.GetAsync($"{lesson}/register"))
            .GetProperty("students")
            .EnumerateArray()
            .Single(s => s.Text("name").StartsWith(name, StringComparison.Ordinal));
        return (lesson, student.Text("studentId"), student.GetProperty("cells")[0]);
    }

    private long Count(string table)
    {
        using var connection = new NpgsqlConnection(Connection);
        connection.Open();
        using var command = new NpgsqlCommand($"SELECT count(*) FROM {table}", connection);
        return (long)command.ExecuteScalar()!;
    }
}
