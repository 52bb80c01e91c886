using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

/// <summary>Whom a lesson looks at, and what is called in it.</summary>
public sealed class WatchingTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task After_a_mark_the_coming_lesson_looks_at_others_and_stays_as_people_have_seen_it()
    {
        var head = await HeadAsync();
        var evening = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons";
        async Task<(string Blocks, string? Reason)> ComingAsync()
        {
            var arrangement = await head.GetAsync($"{evening}/2026-12-01/arrangement");
            var look = arrangement
                .GetProperty("looks")
                .EnumerateArray()
                .FirstOrDefault(look => look.Text("student") == "Filippa S.");
            return (
                arrangement.GetProperty("blocks").GetRawText(),
                look.ValueKind == JsonValueKind.Object ? look.Text("reason") : null
            );
        }

        var pipa = (await head.GetAsync($"{evening}/2026-11-17/register"))
            .GetProperty("cohorts")
            .EnumerateArray()
            .SelectMany(cohort => cohort.GetProperty("items").EnumerateArray())
            .First(item => item.Text("name") == "Play the Pipa, left");
        var filippa = (await StudentAsync(head, "Filippa")).Text("id");
        Task SeeAsync(string stage) =>
            head.PostAsync(
                    $"{evening}/2026-11-17/observations",
                    new
                    {
                        marks = new[]
                        {
                            new
                            {
                                id = Guid.CreateVersion7(),
                                studentId = filippa,
                                postureId = pipa.Text("postureId"),
                                side = "left",
                                sign = "stage",
                                stage,
                                faultId = (Guid?)null,
                                words = (string?)null,
                                weight = (string?)null,
                            },
                        },
                    }
                )
                .OkAsync();

        var before = await ComingAsync();
        await SeeAsync("follows");
        var follows = await ComingAsync();
        await SeeAsync("alone");
        var alone = await ComingAsync();
        Assert.Equal("oneFromAlone", follows.Reason);
        Assert.NotEqual("oneFromAlone", alone.Reason);
        Assert.Equal(before.Blocks, follows.Blocks);
        Assert.Equal(before.Blocks, alone.Blocks);
    }

    [Fact]
    public async Task Whoever_is_there_has_a_look_at_what_they_do_or_it_is_said_and_who_is_away_has_none()
    {
        var head = await HeadAsync();
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/{DemoTemplate.Today}";
        var before = await head.GetAsync($"{lesson}/arrangement");
        var looks = before.GetProperty("looks").EnumerateArray().ToList();
        Assert.NotEmpty(looks);
        Assert.Equal(looks.Count, looks.DistinctBy(look => look.Text("studentId")).Count());
        var material = (await head.GetAsync(lesson))
            .GetProperty("cohorts")
            .EnumerateArray()
            .ToDictionary(
                cohort => cohort.Text("cohortId"),
                cohort => cohort.GetProperty("material").EnumerateArray().Select(of => of.Text("name")).ToHashSet()
            );
        Assert.All(
            looks,
            look =>
            {
                Assert.Contains(look.Text("posture"), material[look.Text("cohortId")]);
                // A teacher who looks leads that block, or does not lead what all do together.
                Assert.Contains(
                    before.GetProperty("blocks").EnumerateArray(),
                    block =>
                        block.GetProperty("start").GetInt32() == look.GetProperty("start").GetInt32()
                        && (
                            block.Text("kind") == "together"
                                ? block.Text("ledBy") != look.Text("teacherId")
                                : block.GetProperty("cohortId").ValueEquals(look.Text("cohortId"))
                                    && block.GetProperty("ledBy").ValueEquals(look.Text("teacherId"))
                        )
                );
            }
        );

        var away = looks[0].Text("studentId");
        await head.PostAsync(
                $"{lesson}/attendance",
                new
                {
                    marks = new[]
                    {
                        new
                        {
                            id = Guid.NewGuid(),
                            studentId = away,
                            present = false,
                        },
                    },
                }
            )
            .OkAsync();
        Assert.DoesNotContain(
            (await head.GetAsync($"{lesson}/arrangement")).GetProperty("looks").EnumerateArray(),
            look => look.Text("studentId") == away
        );
    }

    [Fact]
    public async Task Beside_the_focus_of_a_lesson_faults_are_recorded_and_not_called()
    {
        var head = await HeadAsync();
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/{DemoTemplate.Today}";
        var principles = (await head.GetAsync("/api/principles")).EnumerateArray().ToList();
        async Task<List<(JsonElement Fault, bool IsBeside)>> FaultsAsync() =>
            [
                .. (await head.GetAsync($"{lesson}/register"))
                    .GetProperty("cohorts")
                    .EnumerateArray()
                    .SelectMany(cohort => cohort.GetProperty("items").EnumerateArray())
                    .SelectMany(item =>
                    {
                        var beside = item.GetProperty("besideFocus").EnumerateArray().Select(id => id.GetString());
                        return item.GetProperty("faults")
                            .EnumerateArray()
                            .Select(fault => (fault, beside.Contains(fault.Text("id"))));
                    }),
            ];
        Assert.DoesNotContain(await FaultsAsync(), fault => fault.IsBeside);

        var focus = principles[0];
        await head.PutAsync(
                $"{lesson}/arrangement",
                new
                {
                    edits = new[]
                    {
                        new
                        {
                            kind = "focus",
                            principleId = focus.Text("id"),
                            name = focus.GetProperty("text").Text("name"),
                        },
                    },
                    version = (await head.GetAsync($"{lesson}/arrangement")).GetProperty("version"),
                }
            )
            .OkAsync();
        Assert.Equal(
            focus.GetProperty("text").Text("name"),
            (await head.GetAsync($"{lesson}/arrangement")).Text("focus")
        );
        var faults = await FaultsAsync();
        Assert.Contains(faults, fault => fault.IsBeside);
        Assert.All(
            faults,
            fault =>
                Assert.Equal(
                    fault.Fault.Text("weight") != "keyPoint"
                        && fault.Fault.GetProperty("principleId").GetRawText() != focus.GetProperty("id").GetRawText(),
                    fault.IsBeside
                )
        );
    }
}
