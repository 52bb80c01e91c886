using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Server.Tests.Demo;

public sealed class DemoSchoolTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task The_school_is_one_a_head_would_recognise()
    {
        var head = await HeadAsync();
        var people = await head.GetAsync("/api/people");
        Assert.Equal(
            ["Ivory", "Fern", "Copper", "Garnet", "Slate"],
            people.GetProperty("sashes").EnumerateArray().Select(sash => sash.Text("name"))
        );
        Assert.Equal(3, people.GetProperty("halls").GetArrayLength());
        Assert.True((await head.GetAsync("/api/students")).GetArrayLength() >= 34);
        var errands = (await head.GetAsync("/api/today/left-to-do"))
            .EnumerateArray()
            .Select(errand => errand.Text("kind"))
            .ToHashSet();
        Assert.Superset(new HashSet<string> { "doesNotFit", "reTeach", "stuck", "unseen" }, errands);
        var evening = await head.GetAsync($"/api/classes/{(await ClassAsync(head)).Text("id")}/progress");
        var stages = evening
            .GetProperty("rows")
            .EnumerateArray()
            .SelectMany(row => row.GetProperty("cells").EnumerateArray())
            .Select(cell => cell.Text("stage"))
            .ToHashSet();
        Assert.Equal(6, stages.Count);
    }

    [Fact]
    public async Task Its_history_holds_every_kind_of_thing_that_is_seen_done_and_said()
    {
        var cancel = TestContext.Current.CancellationToken;
        await using var db = await OpenAsync();
        var seen = await db.Observations.AsNoTracking().ToListAsync(cancel);
        Assert.Equal(Enum.GetValues<Sign>(), seen.Select(fact => fact.Sign).Distinct().Order());
        Assert.Equal(Enum.GetValues<Weight>(), seen.Select(fact => fact.Weight).OfType<Weight>().Distinct().Order());
        foreach (
            var kind in new Func<Observation, bool>[]
            {
                fact => fact is { FromId: not null, Sign: Sign.Stage },
                fact => fact is { FromId: not null, Sign: Sign.Fault },
                fact => fact is { PrincipleId: not null, Sign: Sign.Fault },
                fact => fact is { PrincipleId: not null, Sign: Sign.Fine },
                fact => fact is { Mode: not null },
                fact => fact is { InRunThrough: true, Sign: Sign.Fault },
                fact => fact is { Sign: Sign.Fault, FaultId: null, PrincipleId: null },
            }
        )
        {
            Assert.Contains(seen, fact => kind(fact));
        }

        Assert.Equal(await db.Staff.CountAsync(cancel), seen.Select(fact => fact.By).Distinct().Count());
        Assert.NotEmpty(await db.Withdrawals.AsNoTracking().ToListAsync(cancel));
        var tried = await db.WaysTried.AsNoTracking().Select(way => way.Way).ToListAsync(cancel);
        Assert.True(tried.Distinct().Count() >= 5);
        // Whatever somebody was seen doing, they were there.
        var there = (await db.Attendance.AsNoTracking().Where(fact => fact.Present).ToListAsync(cancel))
            .Select(fact => (fact.StudentId, fact.Date))
            .ToHashSet();
        Assert.All(seen, fact => Assert.Contains((fact.StudentId, fact.Date), there));

        var head = await HeadAsync();
        var corrections = (await head.Client.GetStringAsync("/api/corrections.csv", cancel)).Split("\r\n");
        foreach (var state in new[] { ",open,", ",easing,", ",cleared,", ",back," })
        {
            Assert.Contains(corrections, row => row.Contains(state, StringComparison.Ordinal));
        }

        var standings = new List<JsonElement>();
        foreach (var student in (await head.GetAsync("/api/students")).EnumerateArray())
        {
            standings.AddRange(
                (await head.GetAsync($"/api/students/{student.Text("id")}")).GetProperty("standings").EnumerateArray()
            );
        }

        Assert.Contains(standings, its => its.GetProperty("fading").GetBoolean());
        Assert.Contains(standings, its => its.GetProperty("relearn").ValueKind == JsonValueKind.Object);
    }

    [Theory]
    [InlineData("2026-11-25")] // a Wednesday, the first day of a week of the term
    [InlineData("2027-01-02")] // a Saturday, with the term across New Year
    public async Task Whatever_the_day_the_term_is_in_its_fifth_week_with_four_lessons_behind_it(string today)
    {
        var database = $"zeitplan_day_{today.Replace("-", "", StringComparison.Ordinal)}";
        Template.Run($"DROP DATABASE IF EXISTS {database} WITH (FORCE)");
        await using var application = Template.Open(database, null, ("ZEITPLAN_TODAY", today));
        var head = new Caller(application.CreateClient());
        await head.RefreshTokenAsync();
        await head.PostAsync(
                "/api/session/sign-in",
                new { email = "head@heronquay.example", password = DemoTemplate.Password }
            )
            .OkAsync();
        var view = await head.GetAsync("/api/today");
        Assert.Equal((today, 5), (view.Text("today"), view.GetProperty("week").GetInt32()));
        foreach (
            var lessons in (await head.GetAsync("/api/lessons"))
                .EnumerateArray()
                .GroupBy(lesson => lesson.Text("class"))
        )
        {
            Assert.Equal(12, lessons.Count());
            Assert.Equal(
                4,
                lessons.Count(lesson =>
                    lesson.GetProperty("past").GetBoolean() && lesson.GetProperty("marked").GetBoolean()
                )
            );
            Assert.Equal(4, lessons.Count(lesson => lesson.GetProperty("past").GetBoolean()));
        }

        Template.Run($"DROP DATABASE {database} WITH (FORCE)");
    }

    [Fact]
    public async Task An_empty_school_opens_and_says_what_to_do()
    {
        const string database = "zeitplan_of_nobody";
        Template.Run($"DROP DATABASE IF EXISTS {database} WITH (FORCE)");
        await using var application = Template.Open(database, null, ("ZEITPLAN_EMPTY", "true"));
        var head = new Caller(application.CreateClient());
        await head.RefreshTokenAsync();
        await head.PostAsync(
                "/api/session/sign-in",
                new { email = "head@school.example", password = DemoTemplate.Password }
            )
            .OkAsync();
        Assert.Equal(JsonValueKind.Null, (await head.GetAsync("/api/today")).GetProperty("term").ValueKind);
        foreach (var path in new[] { "/api/forms", "/api/students", "/api/terms", "/api/lessons", "/api/postures" })
        {
            Assert.Equal(0, (await head.GetAsync(path)).GetArrayLength());
        }

        Assert.True((await head.GetAsync("/api/session")).GetProperty("movingIn").GetBoolean());
        Assert.Equal(
            JsonValueKind.Null,
            (await head.GetAsync("/api/school")).GetProperty("text").GetProperty("timeZone").ValueKind
        );
        await head.RefreshTokenAsync();
        await head.PostAsync("/api/sashes/pattern", new { pattern = "fiveSashes" }).OkAsync();
        await head.PostAsync("/api/sashes/pattern", new { pattern = "threeSteps" }).ProblemAsync(409);
        Assert.Equal(
            ["White", "Straw", "Moss", "Indigo", "Ink"],
            (await head.GetAsync("/api/people"))
                .GetProperty("sashes")
                .EnumerateArray()
                .Select(sash => sash.Text("name"))
        );
        var steps = (await head.GetAsync("/api/moving-in")).GetProperty("steps").EnumerateArray().ToList();
        Assert.Equal(
            ["ladder"],
            steps.Where(step => step.GetProperty("done").GetBoolean()).Select(step => step.Text("step"))
        );

        Template.Run($"DROP DATABASE {database} WITH (FORCE)");
    }
}
