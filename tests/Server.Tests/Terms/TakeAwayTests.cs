using System.Globalization;
using CsvHelper;
using Calendar = Ical.Net.Calendar;

namespace Zeitplan.Server.Tests.Terms;

/// <summary>Calendars, tables, patterns and short stays.</summary>
public sealed class TakeAwayTests(DemoTemplate template) : HeronQuayTests(template)
{
    private async Task<Calendar> FeedAsync(string path)
    {
        var response = await Anonymous().GetAsync(path);
        Assert.Equal("text/calendar", response.Content.Headers.ContentType?.MediaType);
        return Calendar.Load(await response.Content.ReadAsStringAsync())!;
    }

    [Fact]
    public async Task A_moved_lesson_moves_in_a_subscribed_calendar()
    {
        var head = await HeadAsync();
        var evening = await ClassAsync(head);
        var path = $"/api/terms/{await TermAsync(head)}/classes/{evening.Text("id")}/plan";
        var link = await (
            await head.PostAsync($"/api/classes/{evening.Text("id")}/calendar-link")
        ).Content.ReadAsStringAsync();
        var address = System.Text.Json.JsonDocument.Parse(link).RootElement.Text("path");
        var before = (await FeedAsync(address)).Events.Single(lesson =>
            lesson.Start!.Date == new DateOnly(2026, 12, 8)
        );
        Assert.Equal(("Tuesday evening", "Lower Hall", "CONFIRMED"), (before.Summary, before.Location, before.Status));
        Assert.Equal(new DateTime(2026, 12, 8, 18, 30, 0), before.Start!.Value);
        Assert.Equal(90, (before.End!.Value - before.Start.Value).TotalMinutes);

        await head.PutAsync(
                $"/api/classes/{evening.Text("id")}/calendar/2026-12-08",
                new
                {
                    closed = (string?)null,
                    movedTo = "2026-12-10",
                    start = "19:00:00",
                    minutes = (int?)null,
                    hallId = (string?)null,
                    away = Array.Empty<object>(),
                    version = evening.GetProperty("version").GetUInt32(),
                }
            )
            .OkAsync();
        Assert.Equal(
            before.Start.Value,
            (await FeedAsync(address)).Events.Single(lesson => lesson.Uid == before.Uid).Start!.Value
        );
        await StepAsync(head, path).OkAsync();
        await StepAsync(head, path, "/announcement").OkAsync();
        var after = (await FeedAsync(address)).Events.Single(lesson => lesson.Uid == before.Uid);
        Assert.Equal(new DateTime(2026, 12, 10, 19, 0, 0), after.Start!.Value);
        Assert.True(after.Sequence > before.Sequence);

        await head.PostAsync($"/api/classes/{evening.Text("id")}/calendar-link?renew=true").OkAsync();
        Assert.Equal(404, (int)(await Anonymous().GetAsync(address)).StatusCode);
    }

    [Fact]
    public async Task A_calendar_carries_the_schools_time_zone_across_the_change_of_clocks()
    {
        await RunAsync("UPDATE schools SET time_zone = 'Europe/Berlin'");

        var jonas = await InstructorAsync();
        var response = await jonas.PostAsync("/api/calendar-link");
        var feed = await FeedAsync(
            System.Text.Json.JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement.Text("path")
        );
        Assert.Equal("Europe/Berlin", Assert.Single(feed.TimeZones).TzId);
        Assert.All(
            feed.Events,
            lesson => Assert.Equal((18, 30), (lesson.Start!.Value.Hour, lesson.Start.Value.Minute))
        );
        Assert.Equal(
            [1, 2],
            feed.Events.Select(lesson => (int)(lesson.Start!.Value - lesson.Start.AsUtc).TotalHours).Distinct().Order()
        );
    }

    [Fact]
    public async Task The_plan_is_a_table_that_any_program_reads()
    {
        var (head, assistant) = (await HeadAsync(), await AssistantAsync());
        var path = $"/api/terms/{await TermAsync(head)}/classes/{(await ClassAsync(head)).Text("id")}/plan.csv";
        using var csv = CsvReader.Create(
            new StringReader(
                (await (await head.Client.GetAsync(path)).Content.ReadAsStringAsync()).TrimStart('\uFEFF')
            ),
            new() { HasHeader = false }
        );
        List<string[]> rows = [];
        while (csv.Read())
        {
            rows.Add([.. Enumerable.Range(0, csv.FieldCount).Select(at => csv.GetString(at))]);
        }

        Assert.Equal(
            ["date", "lesson", "class", "cohort", "work", "kind", "posture", "minutes", "fixed", "because"],
            rows[0]
        );
        Assert.Contains(
            rows,
            row =>
                row
                    is [
                        "2026-12-29",
                        _,
                        "Tuesday evening",
                        "Fern, senior",
                        "new",
                        "posture",
                        "Shoulder Stroke, right",
                        ..,
                    ]
        );
        Assert.All(rows.Skip(1), row => Assert.True(decimal.Parse(row[7], CultureInfo.InvariantCulture) >= 0));
        Assert.Equal(200, (int)(await assistant.Client.GetAsync(path)).StatusCode);
    }

    [Fact]
    public async Task Another_way_of_teaching_changes_what_things_take_and_says_so()
    {
        var head = await HeadAsync();
        var kept = await head.GetAsync("/api/teaching");
        Assert.Equal(5, kept.GetProperty("teaching").GetProperty("patterns").GetArrayLength());
        Assert.StartsWith(
            "8.0 min: talk 1.5; show 2 × 6 counts × 12 s",
            kept.GetProperty("examples")[0].GetString(),
            StringComparison.Ordinal
        );
        object Teaching(string standing, object[] passes) =>
            new
            {
                version = kept.GetProperty("version").GetUInt32(),
                teaching = new
                {
                    standing,
                    supported = standing,
                    talkEvery = 4,
                    talkMinutes = 10,
                    patterns = new[]
                    {
                        new
                        {
                            id = "0199c000-0000-7c01-8000-0000000000aa",
                            name = "Once through",
                            passes,
                        },
                    },
                },
            };
        object Pass(int times) =>
            new
            {
                name = "together",
                repetitions = times,
                secondsPerCount = 6,
                who = "all",
                view = "asUsual",
                said = "cues",
                layers = Array.Empty<string>(),
                minutes = (decimal?)null,
            };
        Assert.Equal(
            ["teaching.patterns[0].passes[0].repetitions", "teaching.standing"],
            (await head.PutAsync("/api/teaching", Teaching(Guid.NewGuid().ToString(), [Pass(0)])).FieldsAsync())
                .Where(field => field != "supported" && field != "teaching.supported")
                .Select(field => field.StartsWith("teaching", StringComparison.Ordinal) ? field : $"teaching.{field}")
        );
        await head.PutAsync("/api/teaching", Teaching("0199c000-0000-7c01-8000-0000000000aa", [Pass(1)])).OkAsync();
        var path = $"/api/terms/{await TermAsync(head)}/classes/{(await ClassAsync(head)).Text("id")}/plan";
        Assert.True((await head.GetAsync(path)).GetProperty("outOfDate").GetBoolean());
        await StepAsync(head, path).OkAsync();
        var chips = (await head.GetAsync(path))
            .GetProperty("rows")
            .EnumerateArray()
            .SelectMany(row => row.GetProperty("chips").EnumerateArray())
            .Where(chip => chip.Text("kind") == "posture")
            .ToList();
        Assert.All(chips, chip => Assert.Contains("together 1 ×", chip.Text("effort"), StringComparison.Ordinal));
        var lessons = (await head.GetAsync(path))
            .GetProperty("lessons")
            .EnumerateArray()
            .Where(lesson => lesson.GetProperty("number").ValueKind == System.Text.Json.JsonValueKind.Number)
            .ToList();
        // In what has been held, some of it went to what was taught again.
        Assert.All(
            lessons.Where(lesson => !lesson.GetProperty("held").GetBoolean()),
            lesson =>
                Assert.Equal(
                    lesson.GetProperty("number").GetInt32() % 4 == 0 ? 195 : 225,
                    lesson.GetProperty("teacherMinutes").GetDecimal()
                )
        );
    }

    [Fact]
    public async Task What_introductions_took_becomes_the_cohorts_pace()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var path = $"/api/terms/{await TermAsync(head)}/classes/{evening}/plan";
        var lesson = $"/api/classes/{evening}/lessons/2026-11-17";
        var cohort = (await head.GetAsync($"{lesson}/register"))
            .GetProperty("cohorts")
            .EnumerateArray()
            .Single(one => one.Text("name") == "Ivory");
        var item = cohort.GetProperty("items").EnumerateArray().Single(one => one.Text("how") == "introduced");
        var tick = (await TicksAsync(head, lesson, taught: true)).Single(one =>
            one.CohortId == cohort.Text("cohortId") && one.How == "introduced"
        );
        object Took(decimal minutes) =>
            new { marks = new[] { tick with { Id = Guid.CreateVersion7(), Minutes = minutes } } };
        Assert.Equal(["marks[0].minutes"], await head.PostAsync($"{lesson}/taught", Took(0)).FieldsAsync());
        await head.PostAsync($"{lesson}/taught", Took(3 * item.GetProperty("planned").GetDecimal())).OkAsync();
        await StepAsync(head, path).OkAsync();
        var ivory = (await head.GetAsync(path))
            .GetProperty("rows")
            .EnumerateArray()
            .Single(row => row.Text("name") == "Ivory");
        Assert.Contains(
            ivory.GetProperty("chips").EnumerateArray(),
            chip => chip.Text("effort").Contains("the cohort's pace 1.4", StringComparison.Ordinal)
        );
        Assert.True(
            string.CompareOrdinal(
                ivory.GetProperty("forecast").Text("likely"),
                ivory.GetProperty("forecast").Text("cautious")
            ) <= 0
        );
    }

    [Fact]
    public async Task A_visitor_is_told_what_they_learn_and_what_is_left_out()
    {
        var head = await HeadAsync();
        var form = (await head.GetAsync("/api/forms"))
            .EnumerateArray()
            .Single(one => one.Text("name") == "Lamp Form")
            .Text("id");
        object Asked(int lessons) =>
            new
            {
                formId = form,
                lessons,
                minutes = 60,
                mostNew = 2,
                mode = "standing",
                sashId = (string?)null,
            };
        var stay = System
            .Text.Json.JsonDocument.Parse(
                await (await head.PostAsync("/api/short-stay", Asked(4))).Content.ReadAsStringAsync()
            )
            .RootElement;
        Assert.Equal(4, stay.GetProperty("lessons").GetArrayLength());
        Assert.Equal(16, stay.GetProperty("positions").GetInt32() + stay.GetProperty("leftOut").GetArrayLength());
        Assert.Contains(
            stay.GetProperty("cautions").EnumerateArray(),
            caution => caution.GetString()!.Contains("Stop at pain", StringComparison.Ordinal)
        );
        Assert.Equal(["lessons"], await head.PostAsync("/api/short-stay", Asked(0)).FieldsAsync());
    }
}
