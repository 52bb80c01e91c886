namespace Zeitplan.Server.Tests.Terms;

/// <summary>What is looked at before a step is taken: remedies, efforts, one plan beside another.</summary>
public sealed class PlanLooksTests(DemoTemplate template) : PlanTests(template)
{
    [Fact]
    public async Task What_would_make_it_fit_is_planned_looked_at_and_taken()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var options = (await head.GetAsync($"{path}/remedies")).EnumerateArray().ToList();
        var best = options[0];
        Assert.True(best.GetProperty("leftNow").GetDecimal() > 0);
        Assert.Equal(0, best.GetProperty("leftMinutes").GetDecimal());
        Assert.Contains(options, option => option.Text("says") == "One more lesson, on Thursday 17 December");
        Assert.Equal(
            options.Select(option => option.GetProperty("leftMinutes").GetDecimal()).Order(),
            options.Select(option => option.GetProperty("leftMinutes").GetDecimal())
        );

        var preview = await head.GetAsync($"{path}/remedies/lesson-2026-12-17");
        Assert.Contains(preview.GetProperty("lessons").EnumerateArray(), lesson => lesson.Text("date") == "2026-12-17");
        Assert.DoesNotContain(
            (await head.GetAsync(path)).GetProperty("lessons").EnumerateArray(),
            lesson => lesson.Text("date") == "2026-12-17"
        );
        await head.PostAsync($"{path}/remedies/lesson-2026-12-17").OkAsync();
        var taken = await head.GetAsync(path);
        Assert.Equal(
            preview.GetProperty("rows").EnumerateArray().Select(row => row.GetProperty("leftOver").GetArrayLength()),
            taken.GetProperty("rows").EnumerateArray().Select(row => row.GetProperty("leftOver").GetArrayLength())
        );
        Assert.Equal("One more lesson, on Thursday 17 December", taken.GetProperty("draft").Text("cause"));
        Assert.False(taken.GetProperty("outOfDate").GetBoolean());
        await head.PostAsync($"{path}/remedies/lesson-2026-12-17").ProblemAsync(409);
    }

    [Fact]
    public async Task Any_two_announced_plans_stand_beside_each_other()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var chip = Chip(await head.GetAsync(path), "Fern, senior", "Shoulder Stroke, right").Text("id");
        foreach (var date in new[] { "2026-12-22", "2027-01-05" })
        {
            await StepAsync(head, path, $"/chips/{chip}/pin", new { date }).OkAsync();
            await StepAsync(head, path, "/announcement").OkAsync();
        }

        async Task<string> MovesOf(string query)
        {
            var plan = await head.GetAsync($"{path}?{query}");
            var move = plan.GetProperty("changes")
                .EnumerateArray()
                .SelectMany(change => change.GetProperty("moves").EnumerateArray())
                .Single(move => move.Text("name") == "Shoulder Stroke, right");
            return $"{plan.GetProperty("announced").GetInt32()}: {move.Text("from")} to {move.Text("to")}";
        }

        Assert.Equal("4: 2027-01-05 to 2026-12-29", await MovesOf("version=2"));
        Assert.Equal("3: 2026-12-22 to 2026-12-29", await MovesOf("version=2&beside=3"));
        Assert.Equal("2: 2026-12-29 to 2026-12-22", await MovesOf("version=3&beside=2"));
        await head.Client.GetAsync($"{path}?version=2&beside=9").ProblemAsync(404);
    }

    [Fact]
    public async Task What_a_posture_takes_each_cohort_is_added_up_before_anybody_is_given_it()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var chip = Chip(await head.GetAsync(path), "Fern, newer", "Cross Hands, right");
        var rows = (await head.GetAsync($"/api/postures/{chip.Text("postureId")}/effort?side=right"))
            .EnumerateArray()
            .ToDictionary(row => row.Text("cohort"), row => row.GetProperty("needs"));
        // The chip has the link into it besides.
        Assert.StartsWith(
            rows["Fern, newer"].Text("sum")[
                rows["Fern, newer"].Text("sum").IndexOf("talk", StringComparison.Ordinal)..
            ],
            chip.Text("effort")[chip.Text("effort").IndexOf("talk", StringComparison.Ordinal)..],
            StringComparison.Ordinal
        );
        Assert.Equal(7, rows.Count);
        Assert.Contains("supported", rows["Rail group"].Text("sum"), StringComparison.Ordinal);
        await head.Client.GetAsync($"/api/postures/{Guid.NewGuid()}/effort").ProblemAsync(404);
    }
}
