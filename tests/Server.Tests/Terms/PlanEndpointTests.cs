using System.Text.Json;

namespace Zeitplan.Server.Tests.Terms;

public sealed class PlanEndpointTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Planning_an_unchanged_term_again_changes_nothing()
    {
        var head = await HeadAsync();
        var path = $"/api/terms/{await TermAsync(head)}/classes/{(await ClassAsync(head)).Text("id")}/plan";
        var before = await head.GetAsync(path);
        await StepAsync(head, path).OkAsync();
        var after = await head.GetAsync(path);
        Assert.Equal(before.GetProperty("rows").GetRawText(), after.GetProperty("rows").GetRawText());
        Assert.NotEqual(before.Text("plannedAt"), after.Text("plannedAt"));
        Assert.False(after.GetProperty("outOfDate").GetBoolean());
    }

    [Fact]
    public async Task The_weave_has_twelve_lessons_one_closure_and_never_more_minutes_than_there_are()
    {
        var head = await HeadAsync();
        var plan = await head.GetAsync(
            $"/api/terms/{await TermAsync(head)}/classes/{(await ClassAsync(head)).Text("id")}/plan"
        );
        var lessons = plan.GetProperty("lessons").EnumerateArray().ToList();
        Assert.Equal(12, lessons.Count(lesson => lesson.GetProperty("number").ValueKind == JsonValueKind.Number));
        var closed = Assert
            .Single(lessons, lesson => lesson.GetProperty("closed").ValueKind == JsonValueKind.String)
            .Text("date");
        foreach (
            var lesson in lessons.Where(lesson =>
                !lesson.GetProperty("held").GetBoolean() && lesson.Text("date") != closed
            )
        )
        {
            Assert.True(
                lesson.GetProperty("ledMinutes").GetDecimal() <= lesson.GetProperty("teacherMinutes").GetDecimal()
            );
        }

        foreach (var row in plan.GetProperty("rows").EnumerateArray())
        {
            Assert.DoesNotContain(row.GetProperty("chips").EnumerateArray(), chip => chip.Text("date") == closed);
            Assert.All(
                row.GetProperty("chips")
                    .EnumerateArray()
                    .Where(chip => chip.Text("kind") == "posture")
                    .CountBy(chip => chip.Text("date")),
                same => Assert.InRange(same.Value, 1, 2)
            );
        }

        var ivory = plan.GetProperty("rows").EnumerateArray().Single(row => row.Text("name") == "Ivory");
        var drills = ivory.GetProperty("chips").EnumerateArray().Where(chip => chip.Text("kind") == "drill").ToList();
        Assert.Equal(["Toes In, Toes Out, left", "Stance Walking, left"], drills.Select(chip => chip.Text("name")));
        Assert.StartsWith("Single Whip, left needs it.", drills[0].Text("because"), StringComparison.Ordinal);
        Assert.Equal(
            11 + drills.Count,
            ivory.GetProperty("chips").GetArrayLength() + ivory.GetProperty("leftOver").GetArrayLength()
        );
    }

    [Fact]
    public async Task A_lesson_taught_as_planned_leaves_the_plan_in_force()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var lesson = $"/api/classes/{evening}/lessons/2026-11-24";
        await head.PostAsync($"{lesson}/taught", new { marks = await TicksAsync(head, lesson, taught: true) })
            .OkAsync();
        Assert.False(
            (await head.GetAsync($"/api/terms/{await TermAsync(head)}/classes/{evening}/plan"))
                .GetProperty("outOfDate")
                .GetBoolean()
        );
        Assert.DoesNotContain(
            (await head.GetAsync("/api/today/left-to-do")).EnumerateArray(),
            errand => errand.Text("kind") == "outOfDate"
        );
    }

    [Fact]
    public async Task What_was_not_taught_comes_again()
    {
        var head = await HeadAsync();
        var evening = await ClassAsync(head);
        var path = $"/api/terms/{await TermAsync(head)}/classes/{evening.Text("id")}/plan";
        var lesson = $"/api/classes/{evening.Text("id")}/lessons/2026-11-17";
        await head.PostAsync($"{lesson}/taught", new { marks = await TicksAsync(head, lesson, taught: false) })
            .OkAsync();
        Assert.True((await head.GetAsync(path)).GetProperty("outOfDate").GetBoolean());
        Assert.Contains(
            (await head.GetAsync("/api/today/left-to-do")).EnumerateArray(),
            errand => errand.Text("kind") == "outOfDate"
        );
        await StepAsync(head, path).OkAsync();
        var rows = (await head.GetAsync(path)).GetProperty("rows").EnumerateArray().ToList();
        Assert.All(
            rows,
            row =>
                Assert.DoesNotContain(
                    row.GetProperty("chips").EnumerateArray(),
                    chip => chip.Text("date") == "2026-11-17"
                )
        );
        Assert.Equal(
            "2026-11-24",
            rows[0]
                .GetProperty("chips")
                .EnumerateArray()
                .Single(chip => chip.Text("name") == "Ward Off, right")
                .Text("date")
        );
    }

    [Fact]
    public async Task A_term_says_what_is_wrong_with_it()
    {
        var head = await HeadAsync();
        object Term(string start, string end, string closure) =>
            new
            {
                id = Guid.CreateVersion7(),
                name = "Next term",
                start,
                end,
                closures = new[] { new { date = closure, reason = "Halls closed" } },
                testDays = Array.Empty<string>(),
            };
        Assert.Equal(
            ["end"],
            await head.PostAsync("/api/terms", Term("2027-05-01", "2027-04-01", "2027-04-15"))
                .FieldsAsync()
                .ContinueWith(fields => fields.Result.Where(field => field == "end"), TaskScheduler.Default)
        );
        Assert.Equal(
            ["closures[0].date"],
            await head.PostAsync("/api/terms", Term("2027-02-01", "2027-05-01", "2027-06-15")).FieldsAsync()
        );
        Assert.Equal(
            ["start"],
            await head.PostAsync("/api/terms", Term("2027-01-01", "2027-05-01", "2027-04-15")).FieldsAsync()
        );
        await head.PostAsync("/api/terms", Term("2027-02-01", "2027-05-01", "2027-04-15")).OkAsync();
    }
}
