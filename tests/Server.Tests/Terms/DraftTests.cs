using System.Text.Json;

namespace Zeitplan.Server.Tests.Terms;

/// <summary>A plan is drafted step by step, undone, and announced.</summary>
public sealed class DraftTests(DemoTemplate template) : PlanTests(template)
{
    [Fact]
    public async Task Of_steps_taken_at_once_from_one_plan_one_is_kept_and_the_others_are_told()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        await StepAsync(head, path).OkAsync();
        var draft = (await head.GetAsync(path)).GetProperty("draft").Text("id");
        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => head.PostAsync($"{path}?draft={draft}")));
        Assert.Single(answers, answer => answer.IsSuccessStatusCode);
        foreach (var answer in answers.Where(answer => !answer.IsSuccessStatusCode))
        {
            await Task.FromResult(answer).ProblemAsync(409);
        }

        Assert.Equal(2, (await head.GetAsync(path)).GetProperty("draft").GetProperty("steps").GetInt32());
        var stale = await head.PostAsync($"{path}/undo?draft={draft}").ProblemAsync(409);
        Assert.Contains("Planned", stale.GetProperty("changes")[0].GetString(), StringComparison.Ordinal);
        Assert.Equal(2, (await head.GetAsync(path)).GetProperty("draft").GetProperty("steps").GetInt32());
    }

    [Fact]
    public async Task The_first_plan_of_a_term_is_dropped_and_never_undone()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        await RunAsync("DELETE FROM plans");

        await StepAsync(head, path).OkAsync();
        await StepAsync(head, path, "/undo").ProblemAsync(409);
        Assert.NotEqual(JsonValueKind.Null, (await head.GetAsync(path)).GetProperty("draft").ValueKind);
        await StepAsync(head, path, "/discard").OkAsync();
        Assert.Equal(JsonValueKind.Null, (await head.GetAsync(path)).GetProperty("draft").ValueKind);
    }

    [Fact]
    public async Task What_was_held_stays_as_it_was_whatever_is_planned_later()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/2026-11-24";
        await head.PostAsync($"{lesson}/taught", new { marks = await TicksAsync(head, lesson, taught: true) })
            .OkAsync();
        var (page, register) = (await PageAsync(), await RegisterAsync());
        await StepAsync(head, path).OkAsync();
        var draft = await head.GetAsync(path);
        Assert.DoesNotContain(
            "It was not taught on 24 November",
            draft.GetRawText(),
            StringComparison.OrdinalIgnoreCase
        );
        await StepAsync(head, path, "/announcement").OkAsync();
        Assert.Equal(page, await PageAsync());
        Assert.Equal(register, await RegisterAsync());

        async Task<string> PageAsync() =>
            (await head.GetAsync(lesson)).GetProperty("cohorts").GetRawText()
            + (await head.GetAsync($"{lesson}/arrangement")).GetProperty("blocks").GetRawText();
        async Task<string> RegisterAsync() =>
            (await head.GetAsync($"{lesson}/register")).GetProperty("cohorts").GetRawText();
    }

    [Fact]
    public async Task What_is_unsafe_is_said_before_anything_is_announced()
    {
        var head = await HeadAsync();
        var announced = await OpenAsync();
        await RunAsync("DELETE FROM plans");

        const string Asked = "Beatrix O.: Part Foot, right";
        Assert.Contains(Asked, announced);
        Assert.Contains(Asked, await OpenAsync());

        async Task<HashSet<string>> OpenAsync() =>
            [
                .. (await head.GetAsync("/api/safety"))
                    .EnumerateArray()
                    .Select(item => $"{item.Text("student")}: {item.Text("posture")}"),
            ];
    }

    [Fact]
    public async Task A_chip_is_fixed_in_a_draft_that_only_the_head_sees_until_it_is_announced()
    {
        var (head, jonas) = (await HeadAsync(), await InstructorAsync());
        var path = await PathAsync(head);
        var chip = Chip(await head.GetAsync(path), "Fern, senior", "Shoulder Stroke, right");
        Assert.Equal("2026-12-29", chip.Text("date"));
        var costs = (await head.GetAsync($"{path}/chips/{chip.Text("id")}/moves"))
            .EnumerateArray()
            .ToDictionary(cost => cost.Text("date"), cost => (cost.Text("verdict"), cost.Text("says")));
        Assert.Equal(("here", "here now"), costs["2026-12-29"]);
        Assert.Equal(("fits", "fits"), costs["2026-12-22"]);
        Assert.Equal(("never", "held"), costs["2026-11-17"]);
        Assert.Equal(("never", "closed"), costs["2026-12-15"]);
        Assert.Equal("pushes", costs["2026-12-01"].Item1);

        await StepAsync(head, path, $"/chips/{chip.Text("id")}/pin", new { date = "2026-12-22" }).OkAsync();
        var draft = await head.GetAsync(path);
        var moved = Chip(draft, "Fern, senior", "Shoulder Stroke, right");
        Assert.Equal(
            ("2026-12-22", "2026-12-29", true, "You put it here."),
            (moved.Text("date"), moved.Text("was"), moved.GetProperty("pinned").GetBoolean(), moved.Text("because"))
        );
        Assert.Equal("Shoulder Stroke, right fixed on 22 December", draft.GetProperty("draft").Text("cause"));
        Assert.Equal(
            "Fern, senior",
            Assert
                .Single(
                    draft.GetProperty("changes").EnumerateArray(),
                    change => change.GetProperty("moves").GetArrayLength() > 0
                )
                .Text("name")
        );
        Assert.Equal(
            "2026-12-29",
            Chip(await jonas.GetAsync(path), "Fern, senior", "Shoulder Stroke, right").Text("date")
        );
        Assert.Equal(
            "2026-12-29",
            Chip(await head.GetAsync($"{path}?announced=true"), "Fern, senior", "Shoulder Stroke, right").Text("date")
        );
        var evening = (await ClassAsync(head)).Text("id");
        Assert.Contains(
            "Shoulder Stroke",
            (await head.GetAsync($"/api/classes/{evening}/lessons/2026-12-29")).GetRawText(),
            StringComparison.Ordinal
        );

        await StepAsync(head, path, "/announcement").OkAsync();
        Assert.False(IsDraft(await head.GetAsync(path)));
        Assert.Equal(
            "2026-12-22",
            Chip(await jonas.GetAsync(path), "Fern, senior", "Shoulder Stroke, right").Text("date")
        );
        var versions = (await head.GetAsync($"{path}/versions")).EnumerateArray().ToList();
        Assert.Equal([3, 2, 1], versions.Select(version => version.GetProperty("number").GetInt32()));
        Assert.Equal(1, versions[0].GetProperty("moves").GetInt32());
        Assert.Equal(
            "2026-12-29",
            Chip(await head.GetAsync($"{path}?version=2"), "Fern, senior", "Shoulder Stroke, right").Text("date")
        );
        await StepAsync(jonas, path, $"/chips/{chip.Text("id")}/pin", new { date = "2026-12-01" })
            .ContinueWith(sent => Assert.Equal(403, (int)sent.Result.StatusCode), TaskScheduler.Default);
    }

    [Fact]
    public async Task Steps_are_undone_one_by_one_and_a_draft_is_dropped_whole()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var before = await head.GetAsync(path);
        foreach (
            var (cohort, name, date) in new[]
            {
                ("Fern, senior", "Shoulder Stroke, right", "2026-12-22"),
                ("Copper", "Cloud Hands, left", "2026-12-29"),
            }
        )
        {
            await StepAsync(head, path, $"/chips/{Chip(before, cohort, name).Text("id")}/pin", new { date }).OkAsync();
        }

        var done = await head.GetAsync(path);
        Assert.Equal(JsonValueKind.Null, done.GetProperty("redo").ValueKind);
        await StepAsync(head, path, "/redo").ProblemAsync(409);
        await StepAsync(head, path, "/undo").OkAsync();
        await StepAsync(head, path, "/undo").OkAsync();
        var announced = await head.GetAsync(path);
        Assert.False(IsDraft(announced));
        Assert.Equal(before.GetProperty("rows").GetRawText(), announced.GetProperty("rows").GetRawText());

        // What was taken back can be done again, in the order in which it was done, as long as nothing else is.
        await StepAsync(head, path, "/redo").OkAsync();
        Assert.Contains(
            "Shoulder Stroke",
            (await head.GetAsync(path)).GetProperty("draft").Text("cause"),
            StringComparison.Ordinal
        );
        await StepAsync(head, path, "/redo").OkAsync();
        Assert.Equal(done.GetRawText(), (await head.GetAsync(path)).GetRawText());

        await StepAsync(head, path, "/undo").OkAsync();
        var undone = await head.GetAsync(path);
        Assert.Contains("Cloud Hands", undone.Text("redo"), StringComparison.Ordinal);
        Assert.Equal(
            JsonValueKind.Null,
            (await (await InstructorAsync()).GetAsync(path)).GetProperty("redo").ValueKind
        );
        Assert.Equal(1, undone.GetProperty("draft").GetProperty("steps").GetInt32());
        Assert.Equal(
            Chip(before, "Copper", "Cloud Hands, left").Text("date"),
            Chip(undone, "Copper", "Cloud Hands, left").Text("date")
        );
        await StepAsync(
                head,
                path,
                $"/chips/{Chip(before, "Fern, senior", "Shoulder Stroke, right").Text("id")}/pin",
                new { date = (string?)null }
            )
            .OkAsync();
        Assert.False(
            Chip(await head.GetAsync(path), "Fern, senior", "Shoulder Stroke, right").GetProperty("pinned").GetBoolean()
        );
        Assert.Equal(JsonValueKind.Null, (await head.GetAsync(path)).GetProperty("redo").ValueKind);
        await StepAsync(head, path, $"/discard").OkAsync();
        Assert.Equal(
            before.GetProperty("rows").GetRawText(),
            (await head.GetAsync(path)).GetProperty("rows").GetRawText()
        );
        await StepAsync(head, path, $"/undo").ProblemAsync(409);
    }

    [Fact]
    public async Task A_pin_that_cannot_be_kept_says_why_and_one_outside_the_term_is_refused()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var chip = Chip(await head.GetAsync(path), "Ivory", "Push, right").Text("id");
        await StepAsync(head, path, $"/chips/{chip}/pin", new { date = "2027-01-19" }).OkAsync();
        var refused = Assert.Single(
            (await head.GetAsync(path))
                .GetProperty("rows")
                .EnumerateArray()
                .SelectMany(row => row.GetProperty("refused").EnumerateArray())
        );
        Assert.Equal(("Push, right", "19 January is a test."), (refused.Text("name"), refused.Text("because")));
        Assert.Equal(
            ["date"],
            await StepAsync(head, path, $"/chips/{chip}/pin", new { date = "2026-12-15" }).FieldsAsync()
        );
        Assert.Equal(
            ["date"],
            await StepAsync(head, path, $"/chips/{chip}/pin", new { date = "2031-01-01" }).FieldsAsync()
        );
        await StepAsync(head, path, $"/chips/nothing/pin", new { date = "2026-12-22" }).ProblemAsync(404);
    }

    [Fact]
    public async Task Only_the_draft_that_was_seen_is_announced_and_only_while_the_school_is_as_it_was_planned_for()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        await StepAsync(head, path).OkAsync();
        var seen = (await head.GetAsync(path)).GetProperty("draft").Text("id");
        await StepAsync(head, path).OkAsync();
        await head.PostAsync($"{path}/announcement?draft={seen}", null).ProblemAsync(409);
        var evening = await ClassAsync(head);
        await head.PutAsync(
                $"/api/classes/{evening.Text("id")}/calendar/2026-12-08",
                Lesson(evening, closed: "Noor is away")
            )
            .OkAsync();
        await StepAsync(head, path, "/announcement").ProblemAsync(409);
    }
}
