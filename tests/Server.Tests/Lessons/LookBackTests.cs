using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

public sealed class LookBackTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Whoever_missed_something_new_is_named_until_somebody_has_seen_them_do_it()
    {
        var head = await HeadAsync();
        var (evening, lesson) = await LessonAsync(head);
        var all = Of(await head.GetAsync($"{lesson}/look-back"), "missed");
        var missed = all[0];
        Assert.Equal("2026-11-17", missed.Text("date"));
        Assert.NotEmpty(Of(missed, "canShow"));
        Assert.Contains(
            all,
            its =>
                its.TryGetProperty("recording", out var where)
                && where.ToString().StartsWith("hall cupboard", StringComparison.Ordinal)
        );
        var away = Of(missed, "away");
        var names = all.Select(its => Of(its, "away").Select(one => one.Text("name")).ToList()).ToList();
        Assert.Contains(names, its => its.Count > 1);
        Assert.All(names, its => Assert.Equal(its.Order(StringComparer.OrdinalIgnoreCase), its));
        var person = away[0].Text("studentId");
        var mark = new
        {
            id = Guid.NewGuid(),
            studentId = person,
            postureId = missed.Text("postureId"),
            side = missed.Text("side"),
            from = missed.GetProperty("from"),
            sign = "stage",
            stage = "follows",
            faultId = (string?)null,
            words = (string?)null,
            weight = (string?)null,
        };
        await head.PostAsync($"/api/classes/{evening}/lessons/2026-11-24/observations", new { marks = new[] { mark } })
            .OkAsync();
        var after = Of(await head.GetAsync($"{lesson}/look-back"), "missed")
            .Where(item =>
                item.Text("postureId") == missed.Text("postureId") && item.Text("date") == missed.Text("date")
            )
            .SelectMany(item => Of(item, "away"))
            .Select(one => one.Text("studentId"));
        Assert.Equal(away.Skip(1).Select(one => one.Text("studentId")).Order(), after.Order());

        await head.PostAsync($"/api/observations/{mark.id}/withdrawal", null).OkAsync();
        Assert.Contains(
            Of(await head.GetAsync($"{lesson}/look-back"), "missed").SelectMany(item => Of(item, "away")),
            one => one.Text("studentId") == person
        );
    }

    [Fact]
    public async Task Who_was_there_twice_and_not_seen_is_named_with_the_minutes_it_takes_and_leaves_once_seen()
    {
        var head = await HeadAsync();
        var (_, lesson) = await LessonAsync(head);
        var before = await head.GetAsync($"{lesson}/look-back");
        var overlooked = Of(before, "overlooked");
        Assert.Equal((overlooked.Count + 1) / 2, before.GetProperty("watchMinutes").GetInt32());
        var dai = overlooked.Single(one => one.Text("name").StartsWith("Dai", StringComparison.Ordinal));
        var cell = (await head.GetAsync($"{lesson}/register"))
            .GetProperty("students")
            .EnumerateArray()
            .Single(student => student.Text("studentId") == dai.Text("studentId"))
            .GetProperty("cells")[0];
        await head.PostAsync(
                $"{lesson}/observations",
                SeenAndFine(dai.Text("studentId"), cell.Text("postureId"), cell.Text("side"))
            )
            .OkAsync();
        Assert.Equal(overlooked.Count - 1, Of(await head.GetAsync($"{lesson}/look-back"), "overlooked").Count);
    }

    [Fact]
    public async Task What_the_school_does_otherwise_is_relearned_by_who_learned_it_before_and_only_the_difference_is_offered()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var lesson = $"/api/classes/{evening}/lessons/2026-11-24";
        var imke = (await StudentAsync(head, "Imke")).Text("id");
        var known = (await StandingsAsync()).First(standing =>
            standing.Text("stage") is "follows" or "alone"
            && standing.GetProperty("from").ValueKind == JsonValueKind.Null
        );
        var (id, side) = (known.Text("postureId"), known.Text("side"));
        Assert.Equal(JsonValueKind.Null, known.GetProperty("relearn").ValueKind);

        await ChangeAsync(head, id, "the back heel stays down");

        Assert.Equal("the back heel stays down", (await OfAsync()).GetProperty("relearn").Text("difference"));
        var offer = (await OffersAsync()).First(offer =>
            offer.GetProperty("task").Text("what").EndsWith("the back heel stays down", StringComparison.Ordinal)
        );
        Assert.Equal("2026-11-23", offer.Text("changedSince"));
        Assert.InRange(offer.GetProperty("have").GetInt32(), 1, offer.GetProperty("observed").GetInt32());

        // Put into this lesson it is told once: the plan no longer brings it, and no other lesson is offered it.
        var task = offer.GetProperty("task");
        Assert.NotEqual(task.Text("what"), Assert.Single(await PlannedAsync()).Name);
        var version = (await head.GetAsync($"{lesson}/arrangement")).GetProperty("version");
        await head.PutAsync($"{lesson}/arrangement", new { edits = new[] { new { kind = "add", task } }, version })
            .OkAsync();
        Assert.Equal([("2026-11-24", task.Text("what"))], await PlannedAsync());
        Assert.DoesNotContain(
            await OffersAsync("2026-12-01"),
            other => other.GetProperty("task").Text("key") == task.Text("key")
        );

        await head.PostAsync($"{lesson}/observations", SeenAndFine(imke, id, side)).OkAsync();
        Assert.Equal(JsonValueKind.Null, (await OfAsync()).GetProperty("relearn").ValueKind);

        async Task<List<JsonElement>> StandingsAsync() => Of(await head.GetAsync($"/api/students/{imke}"), "standings");
        async Task<JsonElement> OfAsync() =>
            (await StandingsAsync()).Single(standing =>
                standing.Text("postureId") == id
                && standing.Text("side") == side
                && standing.GetProperty("from").ValueKind == JsonValueKind.Null
            );
        async Task<List<JsonElement>> OffersAsync(string date = "2026-11-24") =>
            [.. (await head.GetAsync($"/api/classes/{evening}/lessons/{date}/arrangement/re-teach")).EnumerateArray()];
        // When the plan tells this cohort the difference, and in what words.
        async Task<List<(string Date, string Name)>> PlannedAsync()
        {
            var path = $"/api/terms/{await TermAsync(head)}/classes/{evening}/plan";
            await StepAsync(head, path).OkAsync();
            return
            [
                .. from row in Of(await head.GetAsync(path), "rows")
                where row.Text("name") == offer.Text("cohort")
                from kept in Of(row, "kept")
                where task.Text("what").StartsWith(kept.Text("name"), StringComparison.Ordinal)
                where kept.Text("name") == task.Text("what") || kept.Text("changed") == "the back heel stays down"
                select (kept.Text("date"), kept.Text("name")),
            ];
        }
    }

    [Fact]
    public async Task Whoever_was_away_is_booked_before_the_coming_class_with_somebody_who_may_teach_it()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var missed = Of(await head.GetAsync($"/api/classes/{evening}/lessons/2026-11-17/look-back"), "missed")
            .First(item => item.GetProperty("canShow").GetArrayLength() > 0);
        var next = $"/api/classes/{evening}/lessons/2026-11-24/arrangement";
        var (away, teacher) = (missed.GetProperty("away")[0], missed.GetProperty("canShow")[0]);
        var edit = new
        {
            kind = "makesUp",
            id = Guid.NewGuid(),
            students = new[] { away.Text("studentId") },
            postureId = missed.Text("postureId"),
            side = missed.Text("side"),
            from = missed.GetProperty("from"),
            teacherId = teacher.Text("id"),
            minutes = 10,
        };
        var before = await head.GetAsync(next);
        await TryAsync(edit with { minutes = 90 }).ProblemAsync(400);
        await TryAsync(edit with { students = [] }).ProblemAsync(400);
        await TryAsync(edit with { students = [$"{Guid.NewGuid()}"] }).ProblemAsync(400);
        await TryAsync(edit with { postureId = $"{Guid.NewGuid()}" }).ProblemAsync(400);
        await TryAsync(edit with { teacherId = $"{Guid.NewGuid()}" }).ProblemAsync(400);
        Assert.Empty(Of(await head.GetAsync(next), "beforeClass"));

        await TryAsync(edit).OkAsync();
        var after = await head.GetAsync(next);
        var booked = Assert.Single(Of(after, "beforeClass"));
        Assert.Equal(
            (missed.Text("name"), teacher.Text("name"), 10),
            (booked.Text("what"), booked.Text("teacher"), booked.GetProperty("minutes").GetInt32())
        );
        Assert.Equal(
            [away.Text("name")],
            booked.GetProperty("students").EnumerateArray().Select(name => name.GetString())
        );
        // The lesson itself is as it was.
        Assert.Equal(before.GetProperty("blocks").GetRawText(), after.GetProperty("blocks").GetRawText());

        Task<HttpResponseMessage> TryAsync(object makesUp) =>
            head.PutAsync(next, new { edits = new[] { makesUp }, version = before.GetProperty("version") });
    }

    [Fact]
    public async Task What_was_taught_again_is_asked_after_and_says_whether_it_helped()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var lesson = $"/api/classes/{evening}/lessons/2026-11-24";
        // It helped two of the three, two lessons ago.
        Assert.Equal((3, 2, 1), await JudgedAsync("Embrace Tiger, right"));
        var task = (await head.GetAsync($"{lesson}/arrangement/re-teach"))
            .EnumerateArray()
            .Select(offer => offer.GetProperty("task"))
            .First(task => task.Text("what").Contains("Brush Knee", StringComparison.Ordinal));
        var version = (await head.GetAsync($"{lesson}/arrangement")).GetProperty("version");
        await head.PutAsync($"{lesson}/arrangement", new { edits = new[] { new { kind = "add", task } }, version })
            .OkAsync();
        Assert.Equal((4, 0, 0), await JudgedAsync("Brush Knee, left"));

        // Who had it is seen without it.
        var of = task.GetProperty("material")[0];
        await head.PostAsync(
                $"{lesson}/observations",
                SeenAndFine((await StudentAsync(head, "Goran")).Text("id"), of.Text("postureId"), of.Text("side"))
            )
            .OkAsync();
        Assert.Equal((4, 1, 0), await JudgedAsync("Brush Knee, left"));

        async Task<(int Had, int Better, int Same)> JudgedAsync(string posture)
        {
            var again = Of(await head.GetAsync($"{lesson}/look-back"), "again")
                .Single(again => again.Text("name") == posture);
            return (
                again.GetProperty("had").GetInt32(),
                again.GetProperty("better").GetInt32(),
                again.GetProperty("same").GetInt32()
            );
        }
    }

    [Fact]
    public async Task What_is_to_be_taught_again_has_its_own_way_and_the_plan_keeps_its_minutes()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var lesson = $"/api/classes/{evening}/lessons/2026-12-01";
        var path = $"/api/terms/{await TermAsync(head)}/classes/{evening}/plan";
        // Not as it was brought in: by the pattern that shows the fault, and otherwise.
        var offer = (await OffersAsync()).EnumerateArray().Single(offer => offer.Text("cohort") == "Fern, newer");
        Assert.StartsWith(
            "Slowly by counts, its usual faults, then flowing; ",
            offer.Text("way"),
            StringComparison.Ordinal
        );
        var task = offer.GetProperty("task");
        Assert.Contains(offer.Text("way"), task.Text("because"), StringComparison.Ordinal);
        var sheet = (await head.GetAsync(lesson))
            .GetProperty("cohorts")
            .EnumerateArray()
            .Single(cohort => cohort.Text("name") == "Fern, newer");
        Assert.Equal(["by counts", "faults", "flowing"], Of(sheet, "again").Select(pass => pass.Text("name")));

        var before = await head.GetAsync(path);
        Assert.False(before.GetProperty("outOfDate").GetBoolean());
        Assert.Contains("Fern, newer", await AskedForAsync(), StringComparison.Ordinal);
        var version = (await head.GetAsync($"{lesson}/arrangement")).GetProperty("version");
        await head.PutAsync($"{lesson}/arrangement", new { edits = new[] { new { kind = "add", task } }, version })
            .OkAsync();
        Assert.DoesNotContain("Fern, newer", await AskedForAsync(), StringComparison.Ordinal);
        Assert.True((await head.GetAsync(path)).GetProperty("outOfDate").GetBoolean());
        await StepAsync(head, path).OkAsync();
        var after = await head.GetAsync(path);
        Assert.Equal(TeachersIn(before) - task.GetProperty("minutes").GetInt32(), TeachersIn(after));
        Assert.Contains(
            after
                .GetProperty("rows")
                .EnumerateArray()
                .Where(row => row.Text("name") == "Fern, newer")
                .SelectMany(row => Of(row, "kept")),
            kept => kept.Text("name") == task.Text("what") && kept.Text("date") == "2026-12-01"
        );

        async Task<string> AskedForAsync() =>
            string.Concat(
                from errand in (await head.GetAsync("/api/today/left-to-do")).EnumerateArray()
                where errand.Text("kind") == "reTeach"
                select errand.Text("sentence")
            );
        async Task<JsonElement> OffersAsync() => await head.GetAsync($"{lesson}/arrangement/re-teach");
        static decimal TeachersIn(JsonElement plan) =>
            Of(plan, "lessons")
                .Single(day => day.Text("date") == "2026-12-01")
                .GetProperty("teacherMinutes")
                .GetDecimal();
    }

    [Fact]
    public async Task What_a_third_missed_is_introduced_again_in_a_block_of_its_own()
    {
        var head = await HeadAsync();
        var (evening, lesson) = await LessonAsync(head);
        var missed = Of(await head.GetAsync($"{lesson}/look-back"), "missed")
            .First(item => item.GetProperty("again").GetBoolean());
        var minutes = missed.GetProperty("againMinutes").GetInt32();
        Assert.InRange(minutes, 1, 15);
        var next = $"/api/classes/{evening}/lessons/2026-11-24";
        var task = new
        {
            key = "introduce again",
            kind = "new",
            cohortIds = new[] { missed.Text("cohortId") },
            minutes,
            what = missed.Text("name"),
            because = "Some were away when it was new.",
            material = new[] { new { postureId = missed.Text("postureId"), side = missed.Text("side") } },
        };
        var version = (await head.GetAsync($"{next}/arrangement")).GetProperty("version");
        await head.PutAsync($"{next}/arrangement", new { edits = new[] { new { kind = "add", task } }, version })
            .OkAsync();
        var block = Of(await head.GetAsync($"{next}/arrangement"), "blocks")
            .Single(block => block.GetProperty("task").GetString() == task.key);
        Assert.Equal(("new", minutes), (block.Text("kind"), LongIs(block)));
        // Its minutes are the plan's, too.
        Assert.True(
            (await head.GetAsync($"/api/terms/{await TermAsync(head)}/classes/{evening}/plan"))
                .GetProperty("outOfDate")
                .GetBoolean()
        );

        static int LongIs(JsonElement block) =>
            block.GetProperty("end").GetInt32() - block.GetProperty("start").GetInt32();
    }

    [Fact]
    public async Task What_follows_goes_into_the_first_lesson_still_to_come_and_the_last_has_none()
    {
        var head = await HeadAsync();
        var (evening, lesson) = await LessonAsync(head);
        Assert.Equal("2026-11-24", (await head.GetAsync($"{lesson}/look-back")).Text("next"));
        var earlier = $"/api/classes/{evening}/lessons/2026-11-03/look-back";
        Assert.Equal("2026-11-24", (await head.GetAsync(earlier)).Text("next"));

        // Tonight's has begun, and whoever is seen in it has been seen.
        var dai = Of(await head.GetAsync($"{lesson}/look-back"), "overlooked")
            .Single(one => one.Text("name").StartsWith("Dai", StringComparison.Ordinal))
            .Text("studentId");
        var tonight = $"/api/classes/{evening}/lessons/2026-11-24";
        object[] here =
        [
            new
            {
                id = Guid.NewGuid(),
                studentId = dai,
                present = true,
            },
        ];
        await head.PostAsync($"{tonight}/attendance", new { marks = here }).OkAsync();
        var cell = Of(await head.GetAsync($"{tonight}/register"), "students")
            .Single(student => student.Text("studentId") == dai)
            .GetProperty("cells")[0];
        await head.PostAsync($"{tonight}/observations", SeenAndFine(dai, cell.Text("postureId"), cell.Text("side")))
            .OkAsync();
        var since = await head.GetAsync($"{lesson}/look-back");
        Assert.Equal("2026-12-01", since.Text("next"));
        Assert.DoesNotContain(Of(since, "overlooked"), one => one.Text("studentId") == dai);

        var last = (await head.GetAsync("/api/lessons"))
            .EnumerateArray()
            .Where(its => its.Text("classId") == evening)
            .Max(its => its.Text("date"));
        Assert.Equal(
            JsonValueKind.Null,
            (await head.GetAsync($"/api/classes/{evening}/lessons/{last}/look-back")).GetProperty("next").ValueKind
        );
    }

    private static async Task<(string Evening, string Lesson)> LessonAsync(Caller caller)
    {
        var evening = (await ClassAsync(caller)).Text("id");
        return (evening, $"/api/classes/{evening}/lessons/2026-11-17");
    }

    private static List<JsonElement> Of(JsonElement from, string list) => [.. from.GetProperty(list).EnumerateArray()];
}
