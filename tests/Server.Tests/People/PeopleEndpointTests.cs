using System.Text.Json;

namespace Zeitplan.Server.Tests.People;

public sealed class PeopleEndpointTests(DemoTemplate template) : HeronQuayTests(template)
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
                new
                {
                    marks = new[]
                    {
                        new
                        {
                            id = Guid.CreateVersion7(),
                            studentId = imke.Text("id"),
                            postureId = whip,
                            side = "left",
                            sign = "fault",
                            stage = (string?)null,
                            faultId = (string?)null,
                            words = "Imke Rademaker's own knee",
                            weight = "shape",
                        },
                    },
                }
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

    [Fact]
    public async Task A_sash_in_use_stays_until_another_takes_it_over_and_the_order_says_what_it_does()
    {
        var head = await HeadAsync();
        async Task<JsonElement> Sash(string name) =>
            (await head.GetAsync("/api/people"))
                .GetProperty("sashes")
                .EnumerateArray()
                .Single(sash => sash.Text("name") == name);
        var (fern, copper) = (await Sash("Fern"), await Sash("Copper"));
        var order = (await head.GetAsync("/api/people"))
            .GetProperty("sashes")
            .EnumerateArray()
            .Select(sash => sash.Text("id"))
            .ToList();
        var swapped = new[] { order[0], order[2], order[1], order[3], order[4] };
        Assert.Contains(
            "at Fern would work towards Garnet next, not Copper",
            await (
                await head.PostAsync("/api/sashes/order/effects", new { order = swapped })
            ).Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
        Assert.Equal(
            ["order"],
            await head.PostAsync("/api/sashes/order/effects", new { order = order.Take(3) }).FieldsAsync()
        );
        await head.PutAsync("/api/sashes/order", new { order = swapped }).OkAsync();
        Assert.Equal(3, (await Sash("Fern")).GetProperty("order").GetInt32());

        var refused = await head.SendAsync(HttpMethod.Delete, $"/api/sashes/{fern.Text("id")}", null).ProblemAsync(409);
        Assert.Equal("urn:zeitplan:problem:in-use", refused.Text("type"));
        Assert.Contains("The cohort Fern, newer is made from it.", refused.GetRawText(), StringComparison.Ordinal);
        await head.SendAsync(HttpMethod.Delete, $"/api/sashes/{fern.Text("id")}?into={copper.Text("id")}", null)
            .OkAsync();
        Assert.Equal(copper.Text("id"), (await StudentAsync(head, "Emeka")).Text("sashId"));
        Assert.Equal(
            [1, 2, 3, 4],
            (await head.GetAsync("/api/people"))
                .GetProperty("sashes")
                .EnumerateArray()
                .Select(sash => sash.GetProperty("order").GetInt32())
        );
    }

    [Fact]
    public async Task A_level_without_halves_leaves_nobody_in_one()
    {
        var head = await HeadAsync();
        var fern = (await head.GetAsync("/api/people"))
            .GetProperty("sashes")
            .EnumerateArray()
            .Single(sash => sash.Text("name") == "Fern");
        object Text(string name) =>
            new
            {
                name,
                colour = "#6E8C4A",
                hasHalves = false,
                asks = JsonSerializer.Deserialize<JsonElement>(
                    fern.GetProperty("asks")
                        .GetRawText()
                        .Replace("\"half\":\"newer\"", "\"half\":\"none\"", StringComparison.Ordinal)
                        .Replace("\"half\":\"senior\"", "\"half\":\"none\"", StringComparison.Ordinal)
                ),
            };
        Assert.Contains(
            "would lose their half",
            await (
                await head.PostAsync($"/api/sashes/{fern.Text("id")}/effects", Text("Fern"))
            ).Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
        await head.PutAsync(
                $"/api/sashes/{fern.Text("id")}",
                new { text = Text("Fern"), version = fern.GetProperty("version").GetInt64() }
            )
            .OkAsync();
        Assert.Equal("none", (await StudentAsync(head, "Emeka")).Text("half"));
        await head.PutAsync(
                $"/api/sashes/{fern.Text("id")}",
                new { text = Text("Ferns"), version = fern.GetProperty("version").GetInt64() }
            )
            .ProblemAsync(409);
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
    public async Task A_posture_that_stands_in_a_form_stays()
    {
        var head = await HeadAsync();
        var whip = (await head.GetAsync("/api/postures"))
            .EnumerateArray()
            .Single(posture => posture.Text("name") == "Single Whip")
            .Text("id");
        Assert.Contains(
            "It stands in Lantern Form.",
            (await head.SendAsync(HttpMethod.Delete, $"/api/postures/{whip}", null).ProblemAsync(409)).GetRawText(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_limit_added_in_the_middle_of_a_term_raises_every_coming_lesson_it_touches()
    {
        var head = await HeadAsync();
        var path = $"/api/students/{(await StudentAsync(head, "Goran")).Text("id")}/limits";
        var kept = await head.GetAsync(path);
        object Limits(string since) =>
            new
            {
                limits = new[]
                {
                    new
                    {
                        demand = "wideStep",
                        side = "symmetric",
                        since,
                        note = "",
                    },
                },
                note = "",
                version = kept.GetProperty("version").GetInt64(),
            };
        Assert.Equal(["limits[0].since"], await head.PutAsync(path, Limits("2031-01-01")).FieldsAsync());
        var raised = JsonSerializer
            .Deserialize<JsonElement>(
                await (await head.PutAsync(path, Limits("2026-11-20"))).Content.ReadAsStringAsync()
            )
            .GetProperty("raised")
            .GetInt32();
        async Task<List<JsonElement>> Open() =>
            [
                .. (await head.GetAsync("/api/safety"))
                    .EnumerateArray()
                    .Where(item => item.Text("student") == "Goran V." && item.GetProperty("open").GetBoolean()),
            ];
        var open = await Open();
        Assert.Equal(raised, open.Count);
        Assert.NotEmpty(open);
        Assert.Contains(
            (await head.GetAsync("/api/today")).GetProperty("errands").EnumerateArray(),
            errand =>
                errand.Text("kind") == "unsafe"
                && errand.Text("sentence").Contains("Goran V.", StringComparison.Ordinal)
        );

        var student = open[0].Text("studentId");
        Assert.Equal(
            ["mode"],
            await head.PostAsync(
                    $"/api/students/{student}/adaptations",
                    new
                    {
                        id = Guid.CreateVersion7(),
                        postureId = open[0].Text("postureId"),
                        mode = "standing",
                        words = "",
                    }
                )
                .FieldsAsync()
        );
        foreach (var item in open.DistinctBy(one => one.Text("postureId")))
        {
            var mode =
                item.GetProperty("modes").GetArrayLength() > 0 ? item.GetProperty("modes")[0].Text("mode") : null;
            await head.PostAsync(
                    $"/api/students/{student}/adaptations",
                    new
                    {
                        id = Guid.CreateVersion7(),
                        postureId = item.Text("postureId"),
                        mode,
                        words = "",
                    }
                )
                .OkAsync();
        }

        Assert.Empty(await Open());
    }

    [Fact]
    public async Task Segments_are_checked_on_the_spot_given_in_order_and_replace_what_they_were_made_from()
    {
        var head = await HeadAsync();
        var (term, form) = (await TermAsync(head), await FormAsync(head));
        var copper = (await ClassAsync(head))
            .GetProperty("cohorts")
            .EnumerateArray()
            .Single(c => c.Text("name") == "Copper");
        var path = $"/api/terms/{term}/cohorts/{copper.Text("id")}/assignment";
        var version = copper.GetProperty("assignment").GetProperty("version").GetInt64();
        string Position(int at) => form.GetProperty("text").GetProperty("positions")[at].Text("id");
        object Segment(int from, int to, string target, string purpose = "new", params string[] leftOut) =>
            new
            {
                id = Guid.CreateVersion7(),
                formId = form.Text("id"),
                fromId = Position(from),
                toId = Position(to),
                target,
                purpose,
                leftOut,
            };
        Assert.Equal(
            ["segments[0].toId"],
            await head.PutAsync(path, new { segments = new[] { Segment(9, 4, "2026-12-20") }, version }).FieldsAsync()
        );
        Assert.Equal(
            ["segments[0].target"],
            await head.PutAsync(path, new { segments = new[] { Segment(4, 9, "2031-12-20") }, version }).FieldsAsync()
        );

        var check = JsonSerializer.Deserialize<JsonElement>(
            await (
                await head.PostAsync($"{path}/check", new { segments = new[] { Segment(43, 63, "2026-12-01") } })
            ).Content.ReadAsStringAsync()
        );
        var kinds = check.GetProperty("findings").EnumerateArray().Select(finding => finding.Text("kind")).ToHashSet();
        Assert.Superset(new HashSet<string> { "prerequisite", "minutes" }, kinds);
        Assert.True(
            check.GetProperty("minutes").GetDecimal() > 0 && check.GetProperty("minutesThere").GetDecimal() > 0
        );
        var own = JsonSerializer.Deserialize<JsonElement>(
            await (
                await head.PostAsync(
                    $"{path}/check",
                    new { segments = new[] { Segment(28, 42, "2026-12-29", "new", Position(30)) } }
                )
            ).Content.ReadAsStringAsync()
        );
        Assert.Contains(
            "Shoulder Stroke, right is left out; Brush Knee, left follows Raise Hands, right",
            own.GetProperty("segments")[0].GetProperty("changes")[0].GetString(),
            StringComparison.Ordinal
        );

        await head.PutAsync(
                path,
                new
                {
                    segments = new[] { Segment(28, 42, "2026-12-20"), Segment(0, 10, "2026-12-20", "maintain") },
                    version = (long?)null,
                }
            )
            .ProblemAsync(409);
        await head.PutAsync(
                path,
                new
                {
                    segments = new[] { Segment(28, 42, "2026-12-20"), Segment(0, 10, "2026-12-20", "maintain") },
                    version,
                }
            )
            .OkAsync();
        Assert.Equal(
            "urn:zeitplan:problem:stale",
            (await head.PutAsync(path, new { segments = Array.Empty<object>(), version }).ProblemAsync(409)).Text(
                "type"
            )
        );
        var segments = (await ClassAsync(head))
            .GetProperty("cohorts")
            .EnumerateArray()
            .Single(c => c.Text("name") == "Copper")
            .GetProperty("assignment")
            .GetProperty("segments");
        Assert.Equal(
            ["new", "maintain"],
            segments.EnumerateArray().Select(segment => segment.GetProperty("segment").Text("purpose"))
        );
    }

    [Fact]
    public async Task A_template_gives_every_cohort_its_segments_at_once()
    {
        var head = await HeadAsync();
        var term = await TermAsync(head);
        async Task<List<JsonElement>> Propose(string template) =>
            [
                .. JsonSerializer
                    .Deserialize<JsonElement>(
                        await (
                            await head.PostAsync(
                                $"/api/terms/{term}/assignments/proposals",
                                new { template, target = "2026-12-29" }
                            )
                        ).Content.ReadAsStringAsync()
                    )
                    .EnumerateArray(),
            ];
        Assert.Equal(
            ["target"],
            await head.PostAsync(
                    $"/api/terms/{term}/assignments/proposals",
                    new { template = "ladder", target = "2031-01-01" }
                )
                .FieldsAsync()
        );
        var ladder = await Propose("ladder");
        Assert.Equal(5, ladder.Count(proposal => proposal.GetProperty("segments").GetArrayLength() == 1));
        Assert.Contains(ladder, proposal => proposal.Text("because") == "It belongs to no level of the ladder.");
        Assert.Equal(
            4,
            (await Propose("lastTerm")).Count(proposal => proposal.GetProperty("segments").GetArrayLength() == 1)
        );
        await head.PutAsync(
                $"/api/terms/{term}/assignments",
                new
                {
                    cohorts = ladder
                        .Where(proposal => proposal.GetProperty("segments").GetArrayLength() > 0)
                        .Select(proposal => new
                        {
                            cohortId = proposal.Text("cohortId"),
                            segments = proposal.GetProperty("segments"),
                            version = proposal.GetProperty("version"),
                        }),
                }
            )
            .OkAsync();
    }

    [Fact]
    public async Task A_segment_without_a_seated_version_is_said_and_left_out_of_the_plan()
    {
        var head = await HeadAsync();
        var term = await TermAsync(head);
        var morning = await ClassAsync(head, "Tuesday morning, seated");
        var chair = morning.GetProperty("cohorts")[0];
        Assert.Equal(
            "10 of 12 postures can be taught seated tonight, 2 need a version.",
            (await head.GetAsync($"/api/cohorts/{chair.Text("id")}/coverage")).Text("summary")
        );
        await head.PostAsync($"/api/terms/{term}/classes/{morning.Text("id")}/plan").OkAsync();
        var row = (await head.GetAsync($"/api/terms/{term}/classes/{morning.Text("id")}/plan")).GetProperty("rows")[0];
        Assert.Equal(
            ["Cannot be taught: no seated version has been written."],
            row.GetProperty("leftOver")
                .EnumerateArray()
                .Where(left => left.Text("name") == "Embrace Tiger, right")
                .Select(left => left.Text("because"))
        );
        Assert.DoesNotContain(
            row.GetProperty("chips").EnumerateArray(),
            chip => chip.Text("name") == "Embrace Tiger, right"
        );
    }

    [Fact]
    public async Task Halls_and_staff_say_what_is_wrong_with_them()
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
        Assert.Equal(
            ["password"],
            await head.PostAsync(
                    "/api/staff",
                    new
                    {
                        id = Guid.NewGuid(),
                        name = "Ida Stern",
                        role = "instructor",
                        email = "ida@heronquay.example",
                        password = "short",
                    }
                )
                .FieldsAsync()
        );
        Assert.DoesNotContain(
            (await head.GetAsync("/api/people")).GetProperty("staff").EnumerateArray(),
            member => member.Text("name") == "Ida Stern"
        );
    }
}
