namespace Zeitplan.Server.Tests.School;

/// <summary>What heads do is written down, and stays.</summary>
public sealed class JournalTests(DemoTemplate template) : InvitedTests(template)
{
    [Fact]
    public async Task Every_act_of_a_head_is_in_the_journal_and_stays_there()
    {
        var head = await HeadAsync();
        var id = await InviteAsync(head, "Leif Sander", "leif@heronquay.example");
        await head.PutAsync($"/api/staff/{id}/lock").OkAsync();
        var student = await StudentAsync(head, "Yusuf");
        var sashes = (await head.GetAsync("/api/people")).GetProperty("sashes").EnumerateArray().ToList();
        var (from, to) = (sashes.First(sash => sash.Text("id") == student.Text("sashId")), sashes[^1]);
        await head.PostAsync(
                "/api/students/moves",
                new
                {
                    moves = new[]
                    {
                        new
                        {
                            id = student.Text("id"),
                            sashId = to.Text("id"),
                            half = "none",
                            cohortIds = (string[]?)null,
                            version = student.GetProperty("version").GetUInt32(),
                        },
                    },
                }
            )
            .OkAsync();
        var ladder = sashes[0];
        await head.PutAsync(
                $"/api/sashes/{ladder.Text("id")}",
                new
                {
                    text = new
                    {
                        name = "Pale Ivory",
                        colour = ladder.Text("colour"),
                        hasHalves = ladder.GetProperty("hasHalves").GetBoolean(),
                        asks = ladder.GetProperty("asks"),
                    },
                    version = ladder.GetProperty("version").GetUInt32(),
                }
            )
            .OkAsync();
        async Task<List<string>> FoundAsync(string words) =>
            [
                .. (await head.GetAsync($"/api/journal?find={Uri.EscapeDataString(words)}"))
                    .GetProperty("entries")
                    .EnumerateArray()
                    .Select(entry =>
                        $"{entry.Text("by")}: {entry.Text("act")} {(entry.GetProperty("about").GetString() ?? "")}: {entry.Text("text")}"
                    ),
            ];

        Assert.Equal(
            [
                "Noor Adeyemi: account Leif Sander: locked from no to yes",
                "Noor Adeyemi: account Leif Sander: added as assistant",
            ],
            await FoundAsync("leif")
        );
        Assert.Contains(
            await FoundAsync("promotion"),
            entry =>
                entry.StartsWith(
                    $"Noor Adeyemi: promotion Yusuf Demirel: from {from.Text("name")}",
                    StringComparison.Ordinal
                ) && entry.EndsWith($" to {to.Text("name")}", StringComparison.Ordinal)
        );
        Assert.Contains(
            await FoundAsync("Pale Ivory"),
            entry => entry.Contains("name from Ivory to Pale Ivory", StringComparison.Ordinal)
        );
        Assert.Empty(await FoundAsync("100% of _"));
        var table = await head.Client.GetStringAsync("/api/journal/table?find=leif");
        Assert.Equal(3, table.Trim().Split('\n').Length);
        await Assert.ThrowsAsync<Npgsql.PostgresException>(() => RunAsync("DELETE FROM journal"));
        await Assert.ThrowsAsync<Npgsql.PostgresException>(() => RunAsync("UPDATE journal SET text = ''"));
        await (await InstructorAsync()).Client.GetAsync("/api/journal").ProblemAsync(403);

        // Whoever is erased is erased here, too.
        await head.PostAsync(
                $"/api/students/{student.Text("id")}/erasure",
                new { version = (await StudentAsync(head, "Yusuf")).GetProperty("version").GetUInt32() }
            )
            .OkAsync();
        Assert.Contains(await FoundAsync("erasure"), entry => entry == "Noor Adeyemi: erasure : erased");
        Assert.Empty(await FoundAsync("Yusuf"));
    }

    [Fact]
    public async Task The_journal_is_read_a_page_at_a_time_to_its_beginning_and_forgets_what_is_too_old()
    {
        var head = await HeadAsync();
        await RunAsync(
            """
            INSERT INTO journal (id, at, by, act, about, text)
            SELECT ('0199c000-0000-7000-8000-' || lpad(number::text, 12, '0'))::uuid, now() - (200 - number) * interval '1 hour', (SELECT id FROM staff WHERE role = 'Head'), 'Settings', NULL, 'change ' || number
            FROM generate_series(1, 130) AS number;
            INSERT INTO journal (id, at, by, act, about, text)
            SELECT '0199b000-0000-7000-8000-000000000001', now() - interval '4 years', id, 'Settings', NULL, 'change of long ago' FROM staff WHERE role = 'Head';
            """
        );
        List<string> read = [];
        for (string? after = ""; after is not null; )
        {
            var page = await head.GetAsync($"/api/journal?find=change{(after.Length > 0 ? $"&after={after}" : "")}");
            read.AddRange(page.GetProperty("entries").EnumerateArray().Select(entry => entry.Text("text")));
            after = page.GetProperty("next").GetString();
        }

        Assert.Equal(Enumerable.Range(1, 130).Reverse().Select(number => $"change {number}"), read);
    }
}
