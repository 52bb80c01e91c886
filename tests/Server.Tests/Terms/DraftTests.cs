using System.Text.Json;

namespace Zeitplan.Server.Tests.Terms;

/// <summary>A plan is drafted step by step, undone, and announced.</summary>
public sealed class DraftTests(DemoTemplate template) : HeronQuayTests(template)
{
    private static async Task<string> PathAsync(Caller caller) =>
        $"/api/terms/{await TermAsync(caller)}/classes/{(await ClassAsync(caller)).Text("id")}/plan";

    private static JsonElement Chip(JsonElement plan, string cohort, string name) =>
        plan.GetProperty("rows")
            .EnumerateArray()
            .Single(row => row.Text("name") == cohort)
            .GetProperty("chips")
            .EnumerateArray()
            .Single(chip => chip.Text("name") == name);

    private static bool IsDraft(JsonElement plan) => plan.GetProperty("draft").ValueKind != JsonValueKind.Null;

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
        await using (var connection = new Npgsql.NpgsqlConnection(Connection))
        {
            await connection.OpenAsync();
            await using var command = new Npgsql.NpgsqlCommand("DELETE FROM plans", connection);
            await command.ExecuteNonQueryAsync();
        }

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
        await head.PostAsync($"{path}/announcement", new { draft = draft.GetProperty("draft").Text("id") }).OkAsync();
        Assert.Equal(page, await PageAsync());
        Assert.Equal(register, await RegisterAsync());

        async Task<string> PageAsync() =>
            string.Join(
                "\n",
                (await head.GetAsync(lesson))
                    .GetProperty("cohorts")
                    .EnumerateArray()
                    .Select(cohort => cohort.GetProperty("blocks").GetRawText())
            );
        async Task<string> RegisterAsync() =>
            (await head.GetAsync($"{lesson}/register")).GetProperty("cohorts").GetRawText();
    }

    [Fact]
    public async Task What_is_unsafe_is_said_before_anything_is_announced()
    {
        var head = await HeadAsync();
        var announced = await OpenAsync();
        await using (var connection = new Npgsql.NpgsqlConnection(Connection))
        {
            await connection.OpenAsync();
            await using var command = new Npgsql.NpgsqlCommand("DELETE FROM plans", connection);
            await command.ExecuteNonQueryAsync();
        }

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
        var chip = Chip(await head.GetAsync(path), "Fern, newer", "Cross Hands, right");
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
        var moved = Chip(draft, "Fern, newer", "Cross Hands, right");
        Assert.Equal(
            ("2026-12-22", "2026-12-29", true, "You put it here."),
            (moved.Text("date"), moved.Text("was"), moved.GetProperty("pinned").GetBoolean(), moved.Text("because"))
        );
        Assert.Equal("Cross Hands, right fixed on 22 December", draft.GetProperty("draft").Text("cause"));
        Assert.Equal(
            "Fern, newer",
            Assert
                .Single(
                    draft.GetProperty("changes").EnumerateArray(),
                    change => change.GetProperty("moves").GetArrayLength() > 0
                )
                .Text("name")
        );
        Assert.Equal("2026-12-29", Chip(await jonas.GetAsync(path), "Fern, newer", "Cross Hands, right").Text("date"));
        Assert.Equal(
            "2026-12-29",
            Chip(await head.GetAsync($"{path}?announced=true"), "Fern, newer", "Cross Hands, right").Text("date")
        );
        var evening = (await ClassAsync(head)).Text("id");
        Assert.Contains(
            "Cross Hands",
            (await head.GetAsync($"/api/classes/{evening}/lessons/2026-12-29")).GetRawText(),
            StringComparison.Ordinal
        );

        await head.PostAsync($"{path}/announcement", new { draft = draft.GetProperty("draft").Text("id") }).OkAsync();
        Assert.False(IsDraft(await head.GetAsync(path)));
        Assert.Equal("2026-12-22", Chip(await jonas.GetAsync(path), "Fern, newer", "Cross Hands, right").Text("date"));
        var versions = (await head.GetAsync($"{path}/versions")).EnumerateArray().ToList();
        Assert.Equal([3, 2, 1], versions.Select(version => version.GetProperty("number").GetInt32()));
        Assert.Equal(1, versions[0].GetProperty("moves").GetInt32());
        Assert.Equal(
            "2026-12-29",
            Chip(await head.GetAsync($"{path}?version=2"), "Fern, newer", "Cross Hands, right").Text("date")
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
                ("Fern, newer", "Cross Hands, right", "2026-12-22"),
                ("Copper", "Cloud Hands, left", "2026-12-29"),
            }
        )
        {
            await StepAsync(head, path, $"/chips/{Chip(before, cohort, name).Text("id")}/pin", new { date }).OkAsync();
        }

        await StepAsync(head, path, $"/undo").OkAsync();
        var undone = await head.GetAsync(path);
        Assert.Equal(1, undone.GetProperty("draft").GetProperty("steps").GetInt32());
        Assert.Equal(
            Chip(before, "Copper", "Cloud Hands, left").Text("date"),
            Chip(undone, "Copper", "Cloud Hands, left").Text("date")
        );
        await StepAsync(
                head,
                path,
                $"/chips/{Chip(before, "Fern, newer", "Cross Hands, right").Text("id")}/pin",
                new { date = (string?)null }
            )
            .OkAsync();
        Assert.False(
            Chip(await head.GetAsync(path), "Fern, newer", "Cross Hands, right").GetProperty("pinned").GetBoolean()
        );
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
        await head.PostAsync($"{path}/announcement", new { draft = seen }).ProblemAsync(409);
        var evening = await ClassAsync(head);
        await head.PutAsync(
                $"/api/classes/{evening.Text("id")}/calendar/2026-12-08",
                Lesson(evening, closed: "Noor is away")
            )
            .OkAsync();
        await head.PostAsync(
                $"{path}/announcement",
                new { draft = (await head.GetAsync(path)).GetProperty("draft").Text("id") }
            )
            .ProblemAsync(409);
    }

    [Fact]
    public async Task A_closure_in_mid_term_is_planned_around_and_one_cohort_can_be_kept_out_of_it()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var evening = await ClassAsync(head);
        await head.PutAsync(
                $"/api/classes/{evening.Text("id")}/calendar/2026-12-08",
                Lesson(evening, closed: "Noor is away")
            )
            .OkAsync();
        Assert.True((await head.GetAsync(path)).GetProperty("outOfDate").GetBoolean());
        await StepAsync(head, path).OkAsync();
        var draft = await head.GetAsync(path);
        Assert.Equal(
            "Noor is away",
            draft
                .GetProperty("lessons")
                .EnumerateArray()
                .Single(lesson => lesson.Text("date") == "2026-12-08")
                .Text("closed")
        );
        var moves = draft
            .GetProperty("changes")
            .EnumerateArray()
            .SelectMany(change => change.GetProperty("moves").EnumerateArray())
            .ToList();
        Assert.All(
            moves.Where(move => move.Text("from") == "2026-12-08"),
            move =>
                Assert.StartsWith("8 December is closed: Noor is away.", move.Text("because"), StringComparison.Ordinal)
        );
        var garnet = draft.GetProperty("changes").EnumerateArray().Single(change => change.Text("name") == "Garnet");
        await StepAsync(head, path, $"/cohorts/{garnet.Text("cohortId")}/kept").OkAsync();
        var kept = await head.GetAsync(path);
        var refused = kept.GetProperty("rows")
            .EnumerateArray()
            .Single(row => row.Text("name") == "Garnet")
            .GetProperty("refused")
            .EnumerateArray()
            .Select(pin => pin.Text("name"))
            .ToList();
        var still = kept.GetProperty("changes")
            .EnumerateArray()
            .Where(change => change.Text("name") == "Garnet")
            .SelectMany(change => change.GetProperty("moves").EnumerateArray())
            .ToList();
        Assert.All(
            still,
            move => Assert.True(move.Text("from") == "2026-12-08" || refused.Contains(move.Text("name")))
        );
    }

    [Fact]
    public async Task A_single_lesson_is_moved_added_and_refused_at_the_field()
    {
        var head = await HeadAsync();
        var evening = await ClassAsync(head);
        var calendar = $"/api/classes/{evening.Text("id")}/calendar";
        async Task<string[]> Fields(string date, object request) =>
            await head.PutAsync($"{calendar}/{date}", request).FieldsAsync();
        Assert.Equal(["date"], await Fields("2026-11-17", Lesson(evening, closed: "Too late")));
        Assert.Equal(["movedTo"], await Fields("2026-12-08", Lesson(evening, movedTo: "2026-12-22")));
        Assert.Equal(["minutes"], await Fields("2026-12-08", Lesson(evening, minutes: 5)));
        await head.PutAsync($"{calendar}/2026-12-08", Lesson(evening, movedTo: "2026-12-10", minutes: 120)).OkAsync();
        await head.PutAsync($"{calendar}/2026-12-17", Lesson(evening)).ProblemAsync(409);
        evening = await ClassAsync(head);
        await head.PutAsync($"{calendar}/2026-12-17", Lesson(evening)).OkAsync();
        var lessons = (await head.GetAsync(await PathAsync(head))).GetProperty("lessons").EnumerateArray().ToList();
        var moved = lessons.Single(lesson => lesson.Text("usual") == "2026-12-08");
        Assert.Equal(("2026-12-10", 120), (moved.Text("date"), moved.GetProperty("minutes").GetInt32()));
        Assert.Equal(13, lessons.Count(lesson => lesson.GetProperty("number").ValueKind == JsonValueKind.Number));
        evening = await ClassAsync(head);
        await head.SendAsync(
                HttpMethod.Delete,
                $"{calendar}/2026-12-17?version={evening.GetProperty("version").GetUInt32()}",
                null
            )
            .OkAsync();
        await head.SendAsync(HttpMethod.Delete, $"{calendar}/2026-12-17?version=1", null).ProblemAsync(404);
    }

    [Fact]
    public async Task A_hall_with_a_single_lesson_in_it_stays()
    {
        var head = await HeadAsync();
        var hall = Guid.CreateVersion7();
        await head.PostAsync(
                "/api/halls",
                new
                {
                    id = hall,
                    text = new
                    {
                        name = "Attic",
                        width = 8,
                        depth = 6,
                        chairs = 0,
                        rail = 0,
                        hours = Array.Empty<object>(),
                        allowed = 20,
                    },
                }
            )
            .OkAsync();
        var evening = await ClassAsync(head);
        await head.PutAsync($"/api/classes/{evening.Text("id")}/calendar/2026-12-08", Lesson(evening, hallId: hall))
            .OkAsync();
        Assert.Contains(
            "single lessons",
            (await head.SendAsync(HttpMethod.Delete, $"/api/halls/{hall}", null).ProblemAsync(409))
                .GetProperty("changes")[0]
                .GetString(),
            StringComparison.Ordinal
        );
    }

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
    public async Task A_changed_term_keeps_what_was_held_and_says_what_is_wrong()
    {
        var head = await HeadAsync();
        var term = (await head.GetAsync("/api/terms"))
            .EnumerateArray()
            .Single(one => one.GetProperty("isCurrent").GetBoolean());
        object With(string start, params (string Date, string Reason)[] closures) =>
            new
            {
                name = "Winter term",
                start,
                end = "2027-01-19",
                testDays = new[] { "2027-01-19" },
                version = term.GetProperty("version").GetUInt32(),
                closures = closures.Select(closure => new { date = closure.Date, reason = closure.Reason }),
            };
        var path = $"/api/terms/{term.Text("id")}";
        Assert.Equal(
            ["closures[0].date"],
            await head.PutAsync(path, With("2026-10-21", ("2026-11-17", "Too late"))).FieldsAsync()
        );
        Assert.Equal(
            ["closures[0].reason"],
            await head.PutAsync(path, With("2026-10-21", ("2026-12-15", " "))).FieldsAsync()
        );
        Assert.Equal(["start"], await head.PutAsync(path, With("2026-11-20")).FieldsAsync());
        await head.PutAsync(path, With("2026-10-21", ("2026-12-22", "Halls closed"))).OkAsync();
        await head.PutAsync(path, With("2026-10-21")).ProblemAsync(409);
    }

    [Fact]
    public async Task What_a_day_is_to_the_school_and_to_the_class_is_saved_together_or_not_at_all()
    {
        var head = await HeadAsync();
        var evening = await ClassAsync(head);
        var path = $"/api/classes/{evening.Text("id")}/calendar/2026-12-08";
        async Task<JsonElement> Term() =>
            (await head.GetAsync("/api/terms"))
                .EnumerateArray()
                .Single(one => one.GetProperty("isCurrent").GetBoolean());
        async Task<object> School(bool test, string? closed = null) =>
            new
            {
                test,
                closed,
                version = (await Term()).GetProperty("version").GetUInt32(),
            };
        Assert.Equal(
            ["minutes"],
            await head.PutAsync(path, Lesson(evening, minutes: 5, school: await School(true))).FieldsAsync()
        );
        Assert.DoesNotContain(
            "2026-12-08",
            (await Term()).GetProperty("testDays").GetRawText(),
            StringComparison.Ordinal
        );
        await head.PutAsync(
                path,
                Lesson(
                    evening,
                    minutes: 60,
                    school: new
                    {
                        test = true,
                        closed = (string?)null,
                        version = 1u,
                    }
                )
            )
            .ProblemAsync(409);
        Assert.Equal(90, (await ClassAsync(head)).GetProperty("minutes").GetInt32());
        await head.PutAsync(path, Lesson(evening, minutes: 60, school: await School(true))).OkAsync();
        Assert.Contains("2026-12-08", (await Term()).GetProperty("testDays").GetRawText(), StringComparison.Ordinal);
        var column = (await head.GetAsync(await PathAsync(head)))
            .GetProperty("lessons")
            .EnumerateArray()
            .Single(lesson => lesson.Text("date") == "2026-12-08");
        Assert.Equal((60, "test"), (column.GetProperty("minutes").GetInt32(), column.Text("kind")));
        await head.PutAsync(path, Lesson(await ClassAsync(head), school: await School(false, "Harbour day"))).OkAsync();
        Assert.Contains("Harbour day", (await Term()).GetProperty("closures").GetRawText(), StringComparison.Ordinal);
        Assert.DoesNotContain(
            "2026-12-08",
            (await Term()).GetProperty("testDays").GetRawText(),
            StringComparison.Ordinal
        );
        var fields = await head.PutAsync(
                $"/api/classes/{evening.Text("id")}/calendar/2026-12-22",
                Lesson(await ClassAsync(head), school: await School(false, " "))
            )
            .FieldsAsync();
        Assert.Matches(@"^closures\[\d+\]\.reason$", Assert.Single(fields));
    }

    [Fact]
    public async Task A_chip_fixed_on_a_day_that_closes_is_named_and_comes_back_when_it_opens()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var chip = Chip(await head.GetAsync(path), "Fern, newer", "Cross Hands, right").Text("id");
        await StepAsync(head, path, $"/chips/{chip}/pin", new { date = "2026-12-22" }).OkAsync();
        foreach (var closed in new[] { "Noor is away", null })
        {
            var evening = await ClassAsync(head);
            await head.PutAsync($"/api/classes/{evening.Text("id")}/calendar/2026-12-22", Lesson(evening, closed))
                .OkAsync();
            await StepAsync(head, path).OkAsync();
            var draft = await head.GetAsync(path);
            var refused = draft
                .GetProperty("rows")
                .EnumerateArray()
                .SelectMany(row => row.GetProperty("refused").EnumerateArray())
                .Select(one => (one.Text("name"), one.Text("because")))
                .ToList();
            Assert.Equal(
                closed is null ? [] : [("Cross Hands, right", "22 December is closed: Noor is away.")],
                refused
            );
            Assert.Equal(
                closed is null,
                Chip(draft, "Fern, newer", "Cross Hands, right").GetProperty("pinned").GetBoolean()
            );
        }
    }

    [Fact]
    public async Task Any_two_announced_plans_stand_beside_each_other()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var chip = Chip(await head.GetAsync(path), "Fern, newer", "Cross Hands, right").Text("id");
        foreach (var date in new[] { "2026-12-22", "2027-01-05" })
        {
            await StepAsync(head, path, $"/chips/{chip}/pin", new { date }).OkAsync();
            await head.PostAsync(
                    $"{path}/announcement",
                    new { draft = (await head.GetAsync(path)).GetProperty("draft").Text("id") }
                )
                .OkAsync();
        }

        async Task<string> MovesOf(string query)
        {
            var plan = await head.GetAsync($"{path}?{query}");
            var move = plan.GetProperty("changes")
                .EnumerateArray()
                .SelectMany(change => change.GetProperty("moves").EnumerateArray())
                .Single(move => move.Text("name") == "Cross Hands, right");
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

    private static object Lesson(
        JsonElement schoolClass,
        string? closed = null,
        string? movedTo = null,
        int? minutes = null,
        Guid? hallId = null,
        object? school = null
    ) =>
        new
        {
            closed,
            movedTo,
            start = (string?)null,
            minutes,
            hallId,
            away = Array.Empty<object>(),
            version = schoolClass.GetProperty("version").GetUInt32(),
            school,
        };
}
