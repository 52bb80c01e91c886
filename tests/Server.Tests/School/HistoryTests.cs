using System.Text;
using Npgsql;

namespace Zeitplan.Server.Tests.School;

/// <summary>What was stays as it was, whatever becomes of those who had part in it.</summary>
public sealed class HistoryTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task Whoever_stood_in_weeks_ago_is_no_longer_let_in_to_any_lesson_of_the_class()
    {
        var tamsin = await SignInAsync("tamsin");
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var staff = (await head.GetAsync("/api/people")).GetProperty("staff").EnumerateArray().ToList();
        string Of(string name) => staff.Single(member => member.Text("name") == name).Text("id");
        async Task StandInAsync(string date) =>
            await RunAsync(
                $$"""
                UPDATE classes SET substitutes = '[{"date": "{{date}}", "awayId": "{{Of(
                    "Jonas Lindqvist"
                )}}", "insteadId": "{{Of("Tamsin Okoro")}}"}]' WHERE id = '{{evening}}'
                """
            );

        await StandInAsync("2026-11-10");
        foreach (var date in new[] { "2026-11-03", "2026-11-10", "2026-11-17" })
        {
            await tamsin.Client.GetAsync($"/api/classes/{evening}/lessons/{date}/register").ProblemAsync(403);
        }

        await StandInAsync("2026-11-17");
        await tamsin.GetAsync($"/api/classes/{evening}/lessons/2026-11-17/register");
    }

    [Fact]
    public async Task A_register_is_about_whoever_was_there_on_the_day()
    {
        var head = await HeadAsync();
        var (evening, morning) = (await ClassAsync(head), await ClassAsync(head, "Tuesday morning, seated"));
        var imke = await StudentAsync(head, "Imke");
        await head.PostAsync(
                "/api/students/moves",
                new
                {
                    moves = new[]
                    {
                        new
                        {
                            id = imke.Text("id"),
                            sashId = (string?)null,
                            half = (string?)null,
                            cohortIds = new[] { morning.GetProperty("cohorts")[0].Text("id") },
                            version = imke.GetProperty("version").GetUInt32(),
                        },
                    },
                }
            )
            .OkAsync();
        var lesson = $"/api/classes/{evening.Text("id")}/lessons/2026-11-17";
        var row = Assert.Single(
            (await head.GetAsync($"{lesson}/register")).GetProperty("students").EnumerateArray(),
            student => student.Text("studentId") == imke.Text("id")
        );
        Assert.Equal("Copper", await CohortAsync(row.Text("cohortId")));
        await head.PostAsync($"{lesson}/attendance", Present(imke.Text("id"))).OkAsync();
        Assert.DoesNotContain(
            (await head.GetAsync($"/api/classes/{evening.Text("id")}/lessons/2026-12-01")).GetRawText(),
            imke.Text("id"),
            StringComparison.Ordinal
        );

        async Task<string> CohortAsync(string id) =>
            (await ClassAsync(head))
                .GetProperty("cohorts")
                .EnumerateArray()
                .Single(c => c.Text("id") == id)
                .Text("name");
    }

    [Fact]
    public async Task A_posture_taken_out_is_still_named_wherever_it_was_met_and_can_be_taken_up_again()
    {
        var head = await HeadAsync();
        var press = (await head.GetAsync("/api/postures"))
            .EnumerateArray()
            .Single(posture => posture.Text("name") == "Closing Breath")
            .Text("id");
        var text = (await head.GetAsync($"/api/postures/{press}")).GetProperty("text");
        var imke = (await StudentAsync(head, "Imke")).Text("id");
        var lesson = await LastLessonAsync(head);
        await SeeItAsync();
        await head.SendAsync(HttpMethod.Delete, $"/api/postures/{press}", null).OkAsync();
        Assert.Contains(
            "Closing Breath",
            (await head.GetAsync($"/api/students/{imke}")).GetRawText(),
            StringComparison.Ordinal
        );
        Assert.True((await head.GetAsync($"/api/postures/{press}")).GetProperty("retired").GetBoolean());
        foreach (var page in new[] { "/api/postures", "/api/library" })
        {
            Assert.DoesNotContain(press, (await head.GetAsync(page)).GetRawText(), StringComparison.Ordinal);
        }

        foreach (var page in new[] { "/api/today/left-to-do", "/api/safety", $"{lesson}/register", "/api/people" })
        {
            await head.GetAsync(page);
        }

        // What was seen before comes in late from a device without a network.
        await SeeItAsync();
        await head.PostAsync("/api/postures", new { id = press, text }).OkAsync();
        Assert.False((await head.GetAsync($"/api/postures/{press}")).GetProperty("retired").GetBoolean());

        Task SeeItAsync() =>
            head.PostAsync(
                    $"{lesson}/observations",
                    new
                    {
                        marks = new[]
                        {
                            new
                            {
                                id = Guid.CreateVersion7(),
                                studentId = imke,
                                postureId = press,
                                side = text.Text("writtenSide"),
                                sign = "stage",
                                stage = "alone",
                                faultId = (string?)null,
                                words = "",
                                weight = (string?)null,
                            },
                        },
                    }
                )
                .OkAsync();
    }

    [Fact]
    public async Task A_fact_cannot_be_rewritten_even_past_the_program_and_erasing_takes_all_words()
    {
        var head = await HeadAsync();
        foreach (
            var sql in new[]
            {
                "UPDATE observations SET words = 'otherwise'",
                "DELETE FROM attendance",
                "UPDATE taught_facts SET taught = false",
                "UPDATE ways_tried SET done = false",
                "UPDATE home_sheets SET date = '2026-11-24'",
                "DELETE FROM practice_logs",
            }
        )
        {
            var refused = await Assert.ThrowsAsync<PostgresException>(() => RunAsync(sql));
            Assert.Equal("ZP001", refused.SqlState);
        }

        var imke = await StudentAsync(head, "Imke");
        Assert.NotEqual(0L, await CountAsync(imke.Text("id")));
        await head.PostAsync(
                $"/api/students/{imke.Text("id")}/erasure",
                new { version = imke.GetProperty("version").GetUInt32() }
            )
            .OkAsync();
        Assert.Equal(0L, await CountAsync(imke.Text("id")));

        async Task<long> CountAsync(string student)
        {
            await using var connection = new NpgsqlConnection(Connection);
            await connection.OpenAsync();
            await using var command = new NpgsqlCommand(
                $"SELECT count(*) FROM observations WHERE student_id = '{student}' AND words <> ''",
                connection
            );
            return (long)(await command.ExecuteScalarAsync())!;
        }
    }

    [Fact]
    public async Task The_same_identifier_for_another_lesson_or_another_weight_is_a_clash()
    {
        var head = await HeadAsync();
        var evening = (await ClassAsync(head)).Text("id");
        var imke = (await StudentAsync(head, "Imke")).Text("id");
        var here = Present(imke);
        await head.PostAsync($"/api/classes/{evening}/lessons/2026-11-17/attendance", here).OkAsync();
        await head.PostAsync($"/api/classes/{evening}/lessons/2026-11-17/attendance", here).OkAsync();
        await head.PostAsync($"/api/classes/{evening}/lessons/2026-11-10/attendance", here).ProblemAsync(409);
    }

    [Fact]
    public async Task Two_files_at_the_same_moment_add_nobody_twice()
    {
        var head = await HeadAsync();
        var sheet = new StringBuilder("Surname;First name;Level\n");
        for (var at = 0; at < 60; at++)
        {
            sheet.Append("Calder").Append(at).Append(";Ines;Fern newer\n");
        }

        var file = Convert.ToBase64String(Encoding.UTF8.GetBytes(sheet.ToString()));
        object[] columns = [new { field = "familyName" }, new { field = "givenName" }, new { field = "sash" }];
        var before = (await head.GetAsync("/api/students")).GetArrayLength();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 2)
                .Select(_ =>
                    head.PostAsync(
                        "/api/roster/imports",
                        new
                        {
                            id = Guid.CreateVersion7(),
                            fileName = "roster.csv",
                            file,
                            answers = new { columns },
                        }
                    )
                )
        );
        Assert.All(answers, answer => Assert.True(answer.IsSuccessStatusCode));
        Assert.Equal(before + 60, (await head.GetAsync("/api/students")).GetArrayLength());
    }

    [Fact]
    public async Task Two_servers_that_start_on_one_empty_database_make_one_school()
    {
        var database = $"zeitplan_{Guid.NewGuid():N}";
        await using var one = Template.Open(database);
        await using var other = Template.Open(database);
        await Task.WhenAll(Task.Run(() => one.CreateClient()), Task.Run(() => other.CreateClient()));
        await using (var connection = new NpgsqlConnection(Template.ConnectionTo(database)))
        {
            await connection.OpenAsync();
            await using var command = new NpgsqlCommand("SELECT count(*) FROM schools", connection);
            Assert.Equal(1L, await command.ExecuteScalarAsync());
        }

        NpgsqlConnection.ClearAllPools();
        Template.Run($"DROP DATABASE {database} WITH (FORCE)");
    }

    private static object Present(string student) =>
        new
        {
            marks = new[]
            {
                new
                {
                    id = new Guid("0199c000-0000-7000-8000-00000000abcd"),
                    studentId = student,
                    present = true,
                },
            },
        };
}
