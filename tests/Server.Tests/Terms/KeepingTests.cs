using System.Text.Json;

namespace Zeitplan.Server.Tests.Terms;

/// <summary>What a cohort is not to lose, and what it is to learn otherwise, have their place in the plan.</summary>
public sealed class KeepingTests(DemoTemplate template) : PlanTests(template)
{
    [Fact]
    public async Task What_is_maintained_is_run_through_or_refreshed_before_it_fades_and_the_lesson_asks_for_it()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        await GiveCopperAsync(head, "maintain");
        Assert.True((await head.GetAsync(path)).GetProperty("outOfDate").GetBoolean());
        await StepAsync(head, path).OkAsync();

        var plan = await head.GetAsync(path);
        Assert.False(plan.GetProperty("outOfDate").GetBoolean());
        var kept = KeptBy(plan, "Copper")
            .Where(kept => kept.GetProperty("changed").ValueKind == JsonValueKind.Null)
            .ToList();
        Assert.NotEmpty(kept);
        Assert.All(kept, kept => Assert.True(kept.GetProperty("minutes").GetDecimal() > 0));
        var keeps = Row(plan, "Copper").GetProperty("keeps");
        Assert.True(keeps.GetProperty("postures").GetInt32() > 5);
        Assert.Equal(
            kept.Select(kept => kept.Text("date")).Distinct().Count(),
            keeps.GetProperty("lessons").GetInt32()
        );

        await StepAsync(head, path, "/announcement").OkAsync();
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/{kept[0].Text("date")}";
        var named = kept[0].Text("name");
        Assert.Contains(
            (await head.GetAsync($"{lesson}/arrangement")).GetProperty("blocks").EnumerateArray(),
            block => block.Text("what") == named
        );
        Assert.Contains(
            named.Split(" to ")[0],
            (await head.GetAsync($"{lesson}/register"))
                .GetProperty("cohorts")
                .EnumerateArray()
                .Single(cohort => cohort.Text("name") == "Copper")
                .GetProperty("items")
                .EnumerateArray()
                .Select(item => item.Text("name"))
        );
        var table = await head.SendAsync(HttpMethod.Get, $"{path}.csv", null);
        Assert.Contains(",keep,", await table.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_changed_standard_is_told_once_in_the_plan_and_offered_by_nobody_else_then()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var known = (await head.GetAsync($"/api/students/{(await StudentAsync(head, "Imke")).Text("id")}"))
            .GetProperty("standings")
            .EnumerateArray()
            .First(standing =>
                standing.Text("stage") is "alone" or "settled"
                && standing.GetProperty("from").ValueKind == JsonValueKind.Null
            );
        await ChangeAsync(head, known.Text("postureId"), "the back heel stays down");
        Assert.True((await head.GetAsync(path)).GetProperty("outOfDate").GetBoolean());

        await StepAsync(head, path).OkAsync();
        var told = (await head.GetAsync(path))
            .GetProperty("rows")
            .EnumerateArray()
            .SelectMany(row => row.GetProperty("kept").EnumerateArray())
            .Where(kept => kept.GetProperty("changed").GetString() == "the back heel stays down")
            .ToList();
        Assert.NotEmpty(told);
        Assert.All(
            told,
            kept => Assert.Contains("otherwise than they learned it", kept.Text("because"), StringComparison.Ordinal)
        );

        await StepAsync(head, path, "/announcement").OkAsync();
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/{told[0].Text("date")}/arrangement";
        Assert.Contains(
            (await head.GetAsync(lesson)).GetProperty("blocks").EnumerateArray(),
            block =>
                block.Text("kind") == "reTeach"
                && block.Text("what").EndsWith("the back heel stays down", StringComparison.Ordinal)
        );
        // Nor is it offered for a later lesson: it is told by then.
        var (cohort, later) = (
            Telling(await head.GetAsync(path)).First().Text("name"),
            $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/2026-12-08/arrangement/re-teach"
        );
        Assert.DoesNotContain(
            (await head.GetAsync(later)).EnumerateArray(),
            offer =>
                offer.Text("cohort") == cohort
                && offer.GetProperty("task").Text("what").EndsWith("the back heel stays down", StringComparison.Ordinal)
        );

        static IEnumerable<JsonElement> Telling(JsonElement plan) =>
            plan.GetProperty("rows")
                .EnumerateArray()
                .Where(row =>
                    row.GetProperty("kept")
                        .EnumerateArray()
                        .Any(kept => kept.GetProperty("changed").GetString() == "the back heel stays down")
                );
    }

    /// <summary>The first eleven positions of the long form, and nothing else.</summary>
    private static async Task GiveCopperAsync(Caller head, string purpose)
    {
        var form = await FormAsync(head);
        var cohort = (await ClassAsync(head))
            .GetProperty("cohorts")
            .EnumerateArray()
            .Single(cohort => cohort.Text("name") == "Copper")
            .Text("id");
        var given = (await head.GetAsync("/api/assignments"))
            .EnumerateArray()
            .Single(given => given.Text("cohortId") == cohort);
        string Position(int at) => form.GetProperty("text").GetProperty("positions")[at].Text("id");
        await head.PutAsync(
                $"/api/terms/{await TermAsync(head)}/cohorts/{cohort}/assignment",
                new
                {
                    segments = new[]
                    {
                        new
                        {
                            id = Guid.CreateVersion7(),
                            formId = form.Text("id"),
                            fromId = Position(0),
                            toId = Position(10),
                            target = "2026-12-20",
                            purpose,
                            leftOut = Array.Empty<string>(),
                        },
                    },
                    version = given.GetProperty("version").GetInt64(),
                }
            )
            .OkAsync();
    }

    private static JsonElement Row(JsonElement plan, string cohort) =>
        plan.GetProperty("rows").EnumerateArray().Single(row => row.Text("name") == cohort);

    private static List<JsonElement> KeptBy(JsonElement plan, string cohort) =>
        [.. Row(plan, cohort).GetProperty("kept").EnumerateArray()];
}
