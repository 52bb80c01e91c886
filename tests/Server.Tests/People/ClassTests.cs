using System.Text.Json;

namespace Zeitplan.Server.Tests.People;

/// <summary>Classes, halls and who teaches.</summary>
public sealed class ClassTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Two_classes_cannot_have_the_same_staff_at_once_and_a_way_out_is_offered()
    {
        var head = await HeadAsync();
        var morning = await ClassAsync(head, "Tuesday morning, seated");
        object Text(string start) =>
            new
            {
                name = morning.Text("name"),
                weekday = "tuesday",
                start,
                minutes = 60,
                hallId = morning.Text("hallId"),
                staffIds = morning.GetProperty("staffIds"),
                substitutes = Array.Empty<object>(),
            };
        object Moved(string start) => new { text = Text(start), version = morning.GetProperty("version").GetInt64() };
        var check = JsonSerializer.Deserialize<JsonElement>(
            await (
                await head.PostAsync(
                    "/api/classes/check",
                    new { classId = morning.Text("id"), text = Text("19:00:00") }
                )
            ).Content.ReadAsStringAsync()
        );
        var concerns = check.EnumerateArray().ToDictionary(concern => concern.Text("field"));
        Assert.True(concerns["staffIds[1]"].GetProperty("blocks").GetBoolean());
        Assert.Contains(
            concerns["staffIds[1]"].GetProperty("ways").EnumerateArray(),
            way =>
                way.Text("label") == "Jonas Lindqvist teaches instead"
                || way.Text("label").StartsWith("Start at", StringComparison.Ordinal)
        );
        Assert.Equal("Quay Day-room is open from 09:00 to 13:00 that day.", concerns["start"].Text("message"));

        var problem = await head.PutAsync($"/api/classes/{morning.Text("id")}", Moved("19:00:00")).ProblemAsync(400);
        var error = Assert.Single(problem.GetProperty("errors").EnumerateObject());
        Assert.Equal("staffIds[1]", error.Name);
        Assert.Contains(
            "Noor Adeyemi teaches Tuesday evening at that time",
            error.Value[0].GetString(),
            StringComparison.Ordinal
        );
        await head.PutAsync($"/api/classes/{morning.Text("id")}", Moved("11:00:00")).OkAsync();
        await head.PutAsync($"/api/classes/{morning.Text("id")}", Moved("11:30:00")).ProblemAsync(409);
    }

    [Fact]
    public async Task A_cohort_takes_in_who_has_its_sash_and_no_class_all_of_them_or_none()
    {
        var head = await HeadAsync();
        var morning = (await ClassAsync(head, "Tuesday morning, seated")).Text("id");
        var copper = (await head.GetAsync("/api/people"))
            .GetProperty("sashes")
            .EnumerateArray()
            .Single(sash => sash.Text("name") == "Copper")
            .Text("id");
        string[] free = [.. Enumerable.Range(0, 2).Select(_ => Guid.CreateVersion7().ToString())];
        foreach (var (at, id) in free.Index())
        {
            await head.PostAsync(
                    "/api/students",
                    new
                    {
                        id,
                        text = new
                        {
                            givenName = at == 0 ? "Runa" : "Sefton",
                            familyName = "Moor",
                            sashId = copper,
                            half = "none",
                            cohortIds = Array.Empty<string>(),
                            joined = "2026-11-01",
                            details = new
                            {
                                aim = "theArt",
                                scope = "",
                                mode = "standing",
                                heldHand = "symmetric",
                                contactName = "",
                                contactPhone = "",
                                consents = Array.Empty<string>(),
                            },
                        },
                        sashSince = (string?)null,
                    }
                )
                .OkAsync();
        }

        var imke = (await StudentAsync(head, "Imke")).Text("id");
        object Cohort(string name, params string[] takesIn) =>
            new
            {
                id = Guid.CreateVersion7(),
                text = new
                {
                    name,
                    order = 5,
                    sashId = copper,
                    half = "none",
                    mode = "standing",
                    colour = "#AE6A38",
                    beginners = false,
                    mustBeAttended = false,
                },
                takesIn,
            };
        await head.PostAsync($"/api/classes/{morning}/cohorts", Cohort("Copper", free[0], imke)).ProblemAsync(409);
        Assert.Equal(0, (await StudentAsync(head, "Runa")).GetProperty("cohortIds").GetArrayLength());
        await head.PostAsync($"/api/classes/{morning}/cohorts", Cohort("Copper", free)).OkAsync();
        Assert.Equal(
            2,
            (await ClassAsync(head, "Tuesday morning, seated"))
                .GetProperty("cohorts")
                .EnumerateArray()
                .Single(cohort => cohort.Text("name") == "Copper")
                .GetProperty("students")
                .GetInt32()
        );
    }

    [Fact]
    public async Task A_class_with_people_says_who_and_is_closed_when_they_have_a_place()
    {
        var head = await HeadAsync();
        var (morning, evening) = (await ClassAsync(head, "Tuesday morning, seated"), await ClassAsync(head));
        var chair = morning.GetProperty("cohorts")[0].Text("id");
        var rail = evening
            .GetProperty("cohorts")
            .EnumerateArray()
            .Single(cohort => cohort.Text("name") == "Rail group")
            .Text("id");
        Assert.Contains(
            "9 people learn in Chair group",
            (
                await head.PostAsync($"/api/classes/{morning.Text("id")}/removal", new { into = new { } })
                    .ProblemAsync(409)
            ).GetRawText(),
            StringComparison.Ordinal
        );
        await head.PostAsync(
                $"/api/classes/{morning.Text("id")}/removal",
                new { into = new Dictionary<string, string> { [chair] = rail } }
            )
            .OkAsync();
        Assert.Equal(rail, (await StudentAsync(head, "Agnes")).GetProperty("cohortIds")[0].GetString());

        // What Agnes was shown in the class that is gone is still hers.
        Assert.NotEqual(
            0,
            (await head.GetAsync($"/api/students/{(await StudentAsync(head, "Agnes")).Text("id")}"))
                .GetProperty("standings")
                .GetArrayLength()
        );
    }

    [Fact]
    public async Task Halls_say_what_is_wrong_with_them()
    {
        var head = await HeadAsync();
        object Hall(string name, decimal depth) =>
            new
            {
                name,
                width = 8,
                depth,
                chairs = 4,
                rail = 0,
                hours = Array.Empty<object>(),
                allowed = (int?)null,
            };
        Assert.Equal(
            ["depth", "name"],
            (await head.PostAsync("/api/halls", new { id = Guid.NewGuid(), text = Hall("", 0) }).FieldsAsync()).Order()
        );
        Assert.Equal(
            ["name"],
            await head.PostAsync("/api/halls", new { id = Guid.NewGuid(), text = Hall("lower hall", 8) }).FieldsAsync()
        );
        var lower = (await head.GetAsync("/api/people"))
            .GetProperty("halls")
            .EnumerateArray()
            .Single(hall => hall.Text("name") == "Lower Hall");
        Assert.Contains(
            "Tuesday evening meets there.",
            (
                await head.SendAsync(HttpMethod.Delete, $"/api/halls/{lower.Text("id")}", null).ProblemAsync(409)
            ).GetRawText(),
            StringComparison.Ordinal
        );
    }
}
