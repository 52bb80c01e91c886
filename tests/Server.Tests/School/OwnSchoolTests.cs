using System.Globalization;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Lessons;
using Calendar = Ical.Net.Calendar;

namespace Zeitplan.Server.Tests.School;

/// <summary>A school that is somebody's own: its name and place, its people's sign-ins, the way in.</summary>
public sealed class OwnSchoolTests(DemoTemplate template) : HeronQuayTests(template)
{
    private static object Text(string name = "Heron Quay Tai Chi", string? zone = "Europe/Berlin") =>
        new
        {
            name,
            place = "Heron Quay",
            timeZone = zone,
            weekStart = "sunday",
            dates = "monthDayYear",
            decimals = "comma",
        };

    [Fact]
    public async Task A_school_is_named_and_placed_and_everybody_hears_how_it_writes()
    {
        var (head, odile) = (await HeadAsync(), await AssistantAsync());
        var version = (await head.GetAsync("/api/school")).GetProperty("version").GetUInt32();
        Assert.Equal(
            ["name"],
            await head.PutAsync("/api/school", new { text = Text(name: ""), version }).FieldsAsync()
        );
        foreach (var nowhere in new[] { null, "Europe/Heron_Quay", "", "UTC\0" })
        {
            Assert.Equal(
                400,
                (int)(await head.PutAsync("/api/school", new { text = Text(zone: nowhere), version })).StatusCode
            );
        }

        await odile.PutAsync("/api/school", new { text = Text(), version }).ProblemAsync(403);
        await head.PutAsync("/api/school", new { text = Text("Heron Quay and Boat House"), version }).OkAsync();
        await head.PutAsync("/api/school", new { text = Text("Mine"), version }).ProblemAsync(409);
        var session = await odile.GetAsync("/api/session");
        Assert.Equal(
            ("Heron Quay and Boat House", "sunday", "monthDayYear", "comma"),
            (session.Text("schoolName"), session.Text("weekStart"), session.Text("dates"), session.Text("decimals"))
        );
    }

    [Fact]
    public async Task When_the_zone_changes_lessons_keep_their_wall_time_and_calendars_hear_of_it()
    {
        var head = await HeadAsync();
        var path = System
            .Text.Json.JsonDocument.Parse(
                await (await head.PostAsync("/api/calendar-link")).Content.ReadAsStringAsync()
            )
            .RootElement.Text("path");
        async Task<Calendar> FeedAsync() => Calendar.Load(await Anonymous().GetStringAsync(path))!;

        var before = await FeedAsync();
        var version = (await head.GetAsync("/api/school")).GetProperty("version").GetUInt32();
        await head.PutAsync("/api/school", new { text = Text(zone: "Asia/Tokyo"), version }).OkAsync();
        var after = await FeedAsync();
        Assert.NotEmpty(before.Events);
        foreach (var (was, now) in before.Events.OrderBy(e => e.Uid).Zip(after.Events.OrderBy(e => e.Uid)))
        {
            Assert.Equal((was.Uid, was.Start!.Value), (now.Uid, now.Start!.Value));
            Assert.Equal("Asia/Tokyo", now.Start.TzId);
            Assert.True(now.Sequence > was.Sequence);
        }
    }

    [Theory]
    [InlineData("2026-10-25T01:45", "2026-10-25T01:15", true)]
    [InlineData("2026-03-29T01:45", "2026-03-29T02:15", true)]
    [InlineData("2026-11-24T18:30", "2026-11-24T19:00", false)]
    public void A_lesson_during_which_the_clocks_change_lasts_its_minutes(string start, string end, bool inUtc)
    {
        var at = DateTime.Parse(start, CultureInfo.InvariantCulture);
        var lesson = new AnnouncedLesson(
            DateOnly.FromDateTime(at),
            DateOnly.FromDateTime(at),
            TimeOnly.FromDateTime(at),
            90,
            "Lower Hall",
            [],
            [],
            null
        );
        var school = Core.School.Create(Guid.CreateVersion7(), "Heron Quay Tai Chi", "Europe/Berlin");
        var written = CalendarFile.Write(
            "Night watch",
            school,
            [new("Night watch", new("1", 0, false, lesson), default)]
        );
        var entry = Assert.Single(Calendar.Load(written)!.Events);
        Assert.Equal(DateTime.Parse(end, CultureInfo.InvariantCulture), entry.End!.AsUtc);
        Assert.Equal(90, (entry.End.AsUtc - entry.Start!.AsUtc).TotalMinutes);
        Assert.Equal(inUtc, entry.End.IsUtc);
    }

    [Fact]
    public async Task Whoever_changes_the_password_is_alone_with_it()
    {
        const string Wanted = "lanterns over the quay";
        var (here, elsewhere) = (await AssistantAsync(), await AssistantAsync());
        Assert.Equal(2, (await here.GetAsync("/api/account")).GetProperty("signIns").GetArrayLength());
        Assert.Equal(
            ["current"],
            await here.PutAsync("/api/account/password", new { current = "not this one", wanted = Wanted })
                .FieldsAsync()
        );
        Assert.Equal(
            ["wanted"],
            await here.PutAsync("/api/account/password", new { current = DemoTemplate.Password, wanted = "short" })
                .FieldsAsync()
        );
        await elsewhere.GetAsync("/api/today");

        await here.PutAsync("/api/account/password", new { current = DemoTemplate.Password, wanted = Wanted })
            .OkAsync();
        await here.GetAsync("/api/today");
        await elsewhere.Client.GetAsync("/api/today").ProblemAsync(401);
        var account = await here.GetAsync("/api/account");
        Assert.True(account.GetProperty("ownPassword").GetBoolean());
        Assert.True(Assert.Single(account.GetProperty("signIns").EnumerateArray()).GetProperty("isThis").GetBoolean());
        foreach (var (password, status) in new[] { (DemoTemplate.Password, 401), (Wanted, 200) })
        {
            var again = new Caller(Anonymous());
            await again.RefreshTokenAsync();
            var answer = await again.PostAsync(
                "/api/session/sign-in",
                new { email = "assistant@heronquay.example", password }
            );
            Assert.Equal(status, (int)answer.StatusCode);
        }
    }

    [Fact]
    public async Task A_sign_in_is_ended_from_another_and_nobody_ends_somebody_elses()
    {
        var (here, elsewhere, head) = (await AssistantAsync(), await AssistantAsync(), await HeadAsync());
        var other = (await here.GetAsync("/api/account"))
            .GetProperty("signIns")
            .EnumerateArray()
            .Single(signIn => !signIn.GetProperty("isThis").GetBoolean())
            .Text("id");
        await head.SendAsync(HttpMethod.Delete, $"/api/account/sign-ins/{other}", null).OkAsync();
        await elsewhere.GetAsync("/api/today");
        await here.SendAsync(HttpMethod.Delete, $"/api/account/sign-ins/{other}", null).OkAsync();
        await elsewhere.Client.GetAsync("/api/today").ProblemAsync(401);
        await here.SendAsync(HttpMethod.Delete, "/api/account/sign-ins", null).OkAsync();
        await here.GetAsync("/api/today");
        await head.GetAsync("/api/today");
    }

    [Fact]
    public async Task The_way_in_says_what_is_done_and_what_is_missing()
    {
        var head = await HeadAsync();
        Assert.Equal(["password"], await OpenAsync());
        await RunAsync("UPDATE schools SET time_zone = NULL; DELETE FROM plans; DELETE FROM assignments");
        Assert.Equal(["school", "password", "assign", "plan"], await OpenAsync());
        Assert.False((await head.GetAsync("/api/session")).GetProperty("movingIn").GetBoolean());
        await head.PutAsync("/api/moving-in", new { putAside = false }).OkAsync();
        Assert.True((await head.GetAsync("/api/session")).GetProperty("movingIn").GetBoolean());
        Assert.False((await (await AssistantAsync()).GetAsync("/api/session")).GetProperty("movingIn").GetBoolean());

        async Task<List<string>> OpenAsync() =>
            [
                .. (await head.GetAsync("/api/moving-in"))
                    .GetProperty("steps")
                    .EnumerateArray()
                    .Where(step => !step.GetProperty("done").GetBoolean())
                    .Select(step => step.Text("step")),
            ];
    }
}
