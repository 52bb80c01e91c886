using System.Text.Json;

namespace Zeitplan.Server.Tests.People;

/// <summary>Students as they are added, moved, leave and are erased.</summary>
public sealed class StudentTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_student_is_added_changed_moved_leaves_and_is_erased()
    {
        var head = await HeadAsync();
        var (ivory, fern) = (await StudentAsync(head, "Adaeze"), await StudentAsync(head, "Emeka"));
        var id = Guid.CreateVersion7();
        object Text(string name, string joined, string half, JsonElement like) =>
            new
            {
                givenName = name,
                familyName = "Vane",
                sashId = like.Text("sashId"),
                half,
                cohortIds = like.GetProperty("cohortIds"),
                joined,
                details = new
                {
                    aim = "health",
                    scope = "",
                    mode = "standing",
                    heldHand = "symmetric",
                    contactName = "The Vane household",
                    contactPhone = "",
                    consents = new[] { "messages" },
                },
            };
        Assert.Equal(
            ["givenName", "half", "joined"],
            (
                await head.PostAsync(
                        "/api/students",
                        new
                        {
                            id,
                            text = Text("", "2031-01-01", "senior", ivory),
                            sashSince = (string?)null,
                        }
                    )
                    .FieldsAsync()
            ).Order()
        );
        await head.PostAsync(
                "/api/students",
                new
                {
                    id,
                    text = Text("Orla", "2026-11-24", "none", ivory),
                    sashSince = (string?)null,
                }
            )
            .OkAsync();
        await head.PostAsync(
                "/api/students",
                new
                {
                    id,
                    text = Text("Orla", "2026-11-24", "none", ivory),
                    sashSince = (string?)null,
                }
            )
            .ProblemAsync(409);

        var orla = await StudentAsync(head, "Orla");
        object Edit(string givenName) =>
            new
            {
                text = Text(givenName, "2026-11-24", "newer", fern),
                sashSince = (string?)null,
                version = orla.GetProperty("version").GetInt64(),
            };
        await head.PutAsync($"/api/students/{id}", Edit("Orla")).OkAsync();
        await head.PutAsync($"/api/students/{id}", Edit("Olga")).ProblemAsync(409);
        var moved = await StudentAsync(head, "Orla");
        Assert.Equal(
            (fern.GetProperty("cohortIds")[0].GetString(), "2026-11-24"),
            (moved.GetProperty("cohortIds")[0].GetString(), moved.Text("sashSince"))
        );

        await head.PostAsync($"/api/students/{id}/leaving", new { version = moved.GetProperty("version").GetInt64() })
            .OkAsync();
        var left = await StudentAsync(head, "Orla");
        Assert.Equal(("2026-11-24", 0), (left.Text("left"), left.GetProperty("cohortIds").GetArrayLength()));
        Assert.Equal("2026-11-24", (await head.GetAsync($"/api/students/{id}")).Text("left"));
        await head.PostAsync($"/api/students/{id}/erasure", new { version = left.GetProperty("version").GetInt64() })
            .OkAsync();
        Assert.DoesNotContain(
            (await head.GetAsync("/api/students")).EnumerateArray(),
            student => student.Text("id") == id.ToString()
        );
    }

    [Fact]
    public async Task Erasing_somebody_keeps_the_counts_and_no_words()
    {
        var head = await HeadAsync();
        var (schoolClass, imke) = ((await ClassAsync(head)).Text("id"), await StudentAsync(head, "Imke"));
        var facts = (await head.GetAsync($"/api/students/{imke.Text("id")}")).GetProperty("facts").GetArrayLength();
        var whip = (await head.GetAsync("/api/postures"))
            .EnumerateArray()
            .Single(posture => posture.Text("name") == "Single Whip")
            .Text("id");
        await head.PostAsync(
                $"/api/classes/{schoolClass}/lessons/2026-11-17/observations",
                SeenWith(imke.Text("id"), whip, "left", "Imke Rademaker's own knee")
            )
            .OkAsync();
        imke = await StudentAsync(head, "Imke");
        await head.PostAsync(
                $"/api/students/{imke.Text("id")}/erasure",
                new { version = imke.GetProperty("version").GetInt64() }
            )
            .OkAsync();
        var erased = await head.GetAsync($"/api/students/{imke.Text("id")}");
        Assert.Equal("Somebody", erased.Text("name"));
        Assert.Equal(facts + 1, erased.GetProperty("facts").GetArrayLength());
        Assert.DoesNotContain("Rademaker", erased.GetRawText(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Several_students_move_at_once_or_not_at_all_and_keep_what_they_were_shown()
    {
        var head = await HeadAsync();
        var (emeka, wilma, senior) = (
            await StudentAsync(head, "Emeka"),
            await StudentAsync(head, "Wilma"),
            await StudentAsync(head, "Lucia")
        );
        int Stages(JsonElement student) => student.GetProperty("standings").GetArrayLength();
        var before = Stages(await head.GetAsync($"/api/students/{emeka.Text("id")}"));
        object Move(JsonElement student, long version) =>
            new
            {
                id = student.Text("id"),
                sashId = (string?)null,
                half = "senior",
                cohortIds = senior.GetProperty("cohortIds"),
                version,
            };
        await head.PostAsync(
                "/api/students/moves",
                new { moves = new[] { Move(emeka, emeka.GetProperty("version").GetInt64()), Move(wilma, 1) } }
            )
            .ProblemAsync(409);
        Assert.Equal("newer", (await StudentAsync(head, "Emeka")).Text("half"));
        await head.PostAsync(
                "/api/students/moves",
                new
                {
                    moves = new[]
                    {
                        Move(emeka, emeka.GetProperty("version").GetInt64()),
                        Move(wilma, wilma.GetProperty("version").GetInt64()),
                    },
                }
            )
            .OkAsync();
        Assert.Equal("senior", (await StudentAsync(head, "Emeka")).Text("half"));
        Assert.Equal(before, Stages(await head.GetAsync($"/api/students/{emeka.Text("id")}")));
    }
}
