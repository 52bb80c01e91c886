namespace Zeitplan.Server.Tests.People;

public sealed class PeopleEndpointTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Two_classes_cannot_have_the_same_staff_at_once()
    {
        var head = await HeadAsync();
        var (evening, morning) = (await ClassAsync(head), await ClassAsync(head, "Tuesday morning, seated"));
        object Moved(string start) => new
        {
            name = morning.Text("name"),
            weekday = "tuesday",
            start,
            minutes = 60,
            hallId = morning.Text("hallId"),
            staffIds = morning.GetProperty("staffIds"),
            version = morning.GetProperty("version").GetInt64(),
        };
        var problem = await head.PutAsync($"/api/classes/{morning.Text("id")}", Moved("19:00:00")).ProblemAsync(400);
        var error = Assert.Single(problem.GetProperty("errors").EnumerateObject());
        Assert.Equal("staffIds[1]", error.Name);
        Assert.Contains("Noor Adeyemi teaches Tuesday evening at that time", error.Value[0].GetString(), StringComparison.Ordinal);
        await head.PutAsync($"/api/classes/{morning.Text("id")}", Moved("11:00:00")).OkAsync();
        await head.PutAsync($"/api/classes/{morning.Text("id")}", Moved("11:30:00")).ProblemAsync(409);
        Assert.Equal("18:30:00", evening.Text("start"));
    }

    [Fact]
    public async Task A_student_is_added_moved_and_refused_where_something_is_wrong()
    {
        var head = await HeadAsync();
        var (ivory, fern) = (await StudentAsync(head, "Adaeze"), await StudentAsync(head, "Emeka"));
        var id = Guid.CreateVersion7();
        object Added(string name, string joined, string half) => new { id, givenName = name, familyName = "Vane", sashId = ivory.Text("sashId"), half, cohortId = ivory.Text("cohortId"), joined, limits = Array.Empty<object>(), note = "" };
        Assert.Equal(["givenName", "half", "joined"], (await head.PostAsync("/api/students", Added("", "2031-01-01", "senior")).FieldsAsync()).Order());
        await head.PostAsync("/api/students", Added("Orla", "2026-11-24", "none")).OkAsync();
        await head.PostAsync("/api/students", Added("Orla", "2026-11-24", "none")).ProblemAsync(409);

        var orla = await StudentAsync(head, "Orla");
        object Moved(string givenName, long version) => new { givenName, familyName = "Vane", sashId = fern.Text("sashId"), half = "newer", cohortId = fern.Text("cohortId"), version };
        await head.PutAsync($"/api/students/{id}", Moved("Orla", orla.GetProperty("version").GetInt64())).OkAsync();
        await head.PutAsync($"/api/students/{id}", Moved("Olga", orla.GetProperty("version").GetInt64())).ProblemAsync(409);
        Assert.Equal("Fern, newer", (await StudentAsync(head, "Orla")).Text("cohort"));
    }

    [Fact]
    public async Task An_assignment_ends_after_it_starts_in_the_term_and_replaces_the_one_it_was_made_from()
    {
        var head = await HeadAsync();
        var (term, form) = (await TermAsync(head), await FormAsync(head));
        var cohort = (await ClassAsync(head)).GetProperty("cohorts").EnumerateArray().Single(c => c.Text("name") == "Copper");
        var path = $"/api/terms/{term}/cohorts/{cohort.Text("id")}/assignment";
        var version = cohort.GetProperty("assignment").GetProperty("version").GetInt64();
        object Segment(int from, int to, string target, long? of) => new
        {
            formId = form.Text("id"),
            fromPositionId = form.GetProperty("text").GetProperty("positions")[from].Text("id"),
            toPositionId = form.GetProperty("text").GetProperty("positions")[to].Text("id"),
            target,
            version = of,
        };
        Assert.Equal(["toPositionId"], await head.PutAsync(path, Segment(9, 4, "2026-12-20", version)).FieldsAsync());
        Assert.Equal(["target"], await head.PutAsync(path, Segment(4, 9, "2031-12-20", version)).FieldsAsync());
        await head.PutAsync(path, Segment(17, 23, "2026-12-20", null)).ProblemAsync(409);
        await head.PutAsync(path, Segment(17, 23, "2026-12-20", version)).OkAsync();
        Assert.Equal("urn:zeitplan:problem:stale", (await head.PutAsync(path, Segment(17, 22, "2026-12-20", version)).ProblemAsync(409)).Text("type"));
    }

    [Fact]
    public async Task A_segment_without_a_seated_version_is_said_and_left_out_of_the_plan()
    {
        var head = await HeadAsync();
        var (term, form) = (await TermAsync(head), await FormAsync(head));
        var morning = await ClassAsync(head, "Tuesday morning, seated");
        var chair = morning.GetProperty("cohorts")[0];
        var response = await head.PutAsync($"/api/terms/{term}/cohorts/{chair.Text("id")}/assignment", new
        {
            formId = form.Text("id"),
            fromPositionId = form.GetProperty("text").GetProperty("positions")[15].Text("id"),
            toPositionId = form.GetProperty("text").GetProperty("positions")[17].Text("id"),
            target = "2027-01-05",
            version = chair.GetProperty("assignment").GetProperty("version").GetInt64(),
        });
        Assert.Contains("no seated version has been written", await response.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        await head.PostAsync($"/api/terms/{term}/classes/{morning.Text("id")}/plan").OkAsync();
        var row = (await head.GetAsync($"/api/terms/{term}/classes/{morning.Text("id")}/plan")).GetProperty("rows")[0];
        Assert.Equal("Embrace Tiger, right", Assert.Single(row.GetProperty("leftOver").EnumerateArray()).Text("name"));
        Assert.DoesNotContain(row.GetProperty("chips").EnumerateArray(), chip => chip.Text("name") == "Single Whip, left");
    }

    [Fact]
    public async Task Halls_and_staff_say_what_is_wrong_with_them()
    {
        var head = await HeadAsync();
        Assert.Equal(["depth", "name"], (await head.PostAsync("/api/halls", new { id = Guid.NewGuid(), name = "", width = 8, depth = 0, chairs = 4, rail = 0 }).FieldsAsync()).Order());
        Assert.Equal(["password"], await head.PostAsync("/api/staff", new { id = Guid.NewGuid(), name = "Ida Stern", role = "instructor", email = "ida@heronquay.example", password = "short" }).FieldsAsync());
        Assert.DoesNotContain((await head.GetAsync("/api/people")).GetProperty("staff").EnumerateArray(), member => member.Text("name") == "Ida Stern");
    }
}
