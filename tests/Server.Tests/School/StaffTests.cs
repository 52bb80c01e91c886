using System.Net;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Tests.School;

/// <summary>Those who teach and how they get in: invited, changed, locked out, closed.</summary>
public sealed class StaffTests(DemoTemplate template) : HeronQuayTests(template)
{
    private const string Chosen = "a heron on one leg";

    private static async Task<JsonElement> MemberAsync(Caller head, string name) =>
        (await head.GetAsync("/api/staff"))
            .GetProperty("members")
            .EnumerateArray()
            .Single(member => member.Text("name") == name);

    private static object Text(string name, string role = "assistant", string? studentId = null) =>
        new
        {
            name,
            role,
            studentId,
        };

    private static async Task<Guid> InviteAsync(Caller head, string name, string email, string role = "assistant")
    {
        var id = Guid.CreateVersion7();
        await head.PostAsync(
                "/api/staff",
                new
                {
                    id,
                    text = Text(name, role),
                    email,
                }
            )
            .OkAsync();
        return id;
    }

    /// <summary>The way in out of the newest letter to somebody.</summary>
    private static async Task<(string Account, string Code)> WayInAsync(Caller head, string name)
    {
        var letter = (await head.GetAsync("/api/letters"))
            .EnumerateArray()
            .First(letter => letter.Text("name") == name)
            .Text("text");
        var way = letter[(letter.IndexOf("/welcome#", StringComparison.Ordinal) + 9)..]
            .Split('\n')[0]
            .Trim()
            .Split('.');
        return (Guid.Parse(way[0]).ToString(), way[1]);
    }

    private async Task<Caller> StrangerAsync()
    {
        var caller = new Caller(Anonymous());
        await caller.RefreshTokenAsync();
        return caller;
    }

    private static Task<HttpResponseMessage> WelcomeAsync(
        Caller caller,
        (string Account, string Code) way,
        string password = Chosen
    ) =>
        caller.PostAsync(
            "/api/session/welcome",
            new
            {
                account = way.Account,
                code = way.Code,
                password,
            }
        );

    private static Task<HttpResponseMessage> EnterAsync(Caller caller, string email, string password = Chosen) =>
        caller.PostAsync("/api/session/sign-in", new { email, password });

    [Fact]
    public async Task Whoever_is_invited_chooses_a_password_through_their_letter_and_the_letter_opens_once()
    {
        var head = await HeadAsync();
        await InviteAsync(head, "Runa Falk", "runa@heronquay.example", "instructor");
        Assert.Equal("invited", (await MemberAsync(head, "Runa Falk")).Text("state"));
        var way = await WayInAsync(head, "Runa Falk");
        var runa = await StrangerAsync();
        var letter = new { account = way.Account, code = way.Code };
        var read = await (await runa.PostAsync("/api/session/letter", letter)).Content.ReadAsStringAsync();
        Assert.Contains("Runa Falk", read, StringComparison.Ordinal);
        Assert.Equal(["password"], await WelcomeAsync(runa, way, "short").FieldsAsync());
        await WelcomeAsync(runa, way).OkAsync();
        var person = (await runa.GetAsync("/api/session")).GetProperty("person");
        Assert.Equal(("Runa Falk", "instructor"), (person.Text("name"), person.Text("role")));
        Assert.Equal("open", (await MemberAsync(head, "Runa Falk")).Text("state"));
        await WelcomeAsync(await StrangerAsync(), way).ProblemAsync(409);
        await (await StrangerAsync()).PostAsync("/api/session/letter", letter).ProblemAsync(409);
        await EnterAsync(await StrangerAsync(), "runa@heronquay.example").OkAsync();
    }

    [Fact]
    public async Task A_letter_opened_in_two_windows_at_once_lets_one_password_in()
    {
        var head = await HeadAsync();
        await InviteAsync(head, "Tove Lund", "tove@heronquay.example");
        var way = await WayInAsync(head, "Tove Lund");
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(async window => await WelcomeAsync(await StrangerAsync(), way, $"{Chosen} {window}"))
        );
        Assert.Single(answers, answer => answer.IsSuccessStatusCode);
        Assert.All(
            answers.Where(answer => !answer.IsSuccessStatusCode),
            answer => Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode)
        );
    }

    [Fact]
    public async Task A_letter_that_is_too_old_altered_or_replaced_opens_nothing()
    {
        var head = await HeadAsync();
        var id = await InviteAsync(head, "Alma Brandt", "alma@heronquay.example");
        var first = await WayInAsync(head, "Alma Brandt");
        await head.PostAsync($"/api/staff/{id}/letter").OkAsync();
        var second = await WayInAsync(head, "Alma Brandt");
        await WelcomeAsync(await StrangerAsync(), first).ProblemAsync(409);
        await WelcomeAsync(await StrangerAsync(), (second.Account, second.Code[..^4] + "AAAA")).ProblemAsync(409);
        await WelcomeAsync(await StrangerAsync(), (second.Account, "%%%")).ProblemAsync(409);
        var noor = (await MemberAsync(head, "Noor Adeyemi")).Text("id");
        await WelcomeAsync(await StrangerAsync(), (noor, second.Code)).ProblemAsync(409);
        await using (
            var later = Template
                .Open("", Connection)
                .WithWebHostBuilder(builder =>
                    builder.ConfigureServices(services =>
                        services.Configure<InvitationCodes.Lifetime>(codes =>
                            codes.TokenLifespan = TimeSpan.FromSeconds(-1)
                        )
                    )
                )
        )
        {
            var caller = new Caller(later.CreateClient());
            await caller.RefreshTokenAsync();
            await WelcomeAsync(caller, second).ProblemAsync(409);
        }

        await head.PutAsync($"/api/staff/{id}/closing").OkAsync();
        await WelcomeAsync(await StrangerAsync(), second).ProblemAsync(409);
        await head.DeleteAsync($"/api/staff/{id}/closing").OkAsync();
        await WelcomeAsync(await StrangerAsync(), second).ProblemAsync(409);
    }

    [Fact]
    public async Task Closing_locking_and_a_new_role_end_every_sign_in_at_once()
    {
        var head = await HeadAsync();
        var id = await InviteAsync(head, "Piet Halm", "piet@heronquay.example");
        await WelcomeAsync(await StrangerAsync(), await WayInAsync(head, "Piet Halm")).OkAsync();
        foreach (var (shut, open) in new[] { ("lock", true), ("closing", true) })
        {
            var (here, there) = (await StrangerAsync(), await StrangerAsync());
            await EnterAsync(here, "piet@heronquay.example").OkAsync();
            await EnterAsync(there, "piet@heronquay.example").OkAsync();
            await head.PutAsync($"/api/staff/{id}/{shut}").OkAsync();
            foreach (var caller in new[] { here, there })
            {
                await caller.Client.GetAsync("/api/today").ProblemAsync(401);
            }

            await EnterAsync(await StrangerAsync(), "piet@heronquay.example").ProblemAsync(401);
            await head.PostAsync($"/api/staff/{id}/letter").ProblemAsync(409);
            await head.DeleteAsync($"/api/staff/{id}/{shut}").OkAsync();
            Assert.Equal(open, (await EnterAsync(await StrangerAsync(), "piet@heronquay.example")).IsSuccessStatusCode);
        }

        var piet = await StrangerAsync();
        await EnterAsync(piet, "piet@heronquay.example").OkAsync();
        var kept = await MemberAsync(head, "Piet Halm");
        var changed = new
        {
            text = Text("Piet Halm", "instructor"),
            email = "halm@heronquay.example",
            version = kept.GetProperty("version").GetUInt32(),
        };
        await head.PutAsync($"/api/staff/{id}", changed).OkAsync();
        await head.PutAsync($"/api/staff/{id}", changed).ProblemAsync(409);
        await piet.Client.GetAsync("/api/today").ProblemAsync(401);
        await EnterAsync(piet, "piet@heronquay.example").ProblemAsync(401);
        await EnterAsync(piet, "halm@heronquay.example").OkAsync();
        Assert.Equal("instructor", (await piet.GetAsync("/api/session")).GetProperty("person").Text("role"));
    }

    [Fact]
    public async Task The_last_head_who_can_sign_in_stays()
    {
        var head = await HeadAsync();
        var noor = await MemberAsync(head, "Noor Adeyemi");
        var id = noor.Text("id");
        var invited = await InviteAsync(head, "Vera Noll", "vera@heronquay.example", "head");
        // An invitation is no sign-in yet.
        await head.PutAsync($"/api/staff/{id}/closing").ProblemAsync(409);
        await head.PutAsync($"/api/staff/{id}/lock").ProblemAsync(409);
        await head.PutAsync(
                $"/api/staff/{id}",
                new
                {
                    text = Text("Noor Adeyemi", "instructor"),
                    email = noor.Text("email"),
                    version = noor.GetProperty("version").GetUInt32(),
                }
            )
            .ProblemAsync(409);
        var vera = await StrangerAsync();
        await WelcomeAsync(vera, await WayInAsync(head, "Vera Noll")).OkAsync();
        await vera.RefreshTokenAsync();
        // Two heads close each other at the same moment: one of them is quicker.
        var both = await Task.WhenAll(
            head.PutAsync($"/api/staff/{invited}/closing"),
            vera.PutAsync($"/api/staff/{id}/closing")
        );
        Assert.Single(both, answer => answer.IsSuccessStatusCode);
        Assert.Single(
            new[] { head, vera },
            caller => caller.Client.GetAsync("/api/today").Result.StatusCode == HttpStatusCode.OK
        );
        await RunAsync("UPDATE staff SET closed = NULL");
    }

    [Fact]
    public async Task Who_teaches_may_learn_here_too_and_no_two_are_one_student()
    {
        var head = await HeadAsync();
        var agnes = (await StudentAsync(head, "Agnes")).Text("id");
        var odile = await MemberAsync(head, "Odile Marchetti");
        await head.PutAsync(
                $"/api/staff/{odile.Text("id")}",
                new
                {
                    text = Text("Odile Marchetti", "assistant", agnes),
                    email = odile.Text("email"),
                    version = odile.GetProperty("version").GetUInt32(),
                }
            )
            .OkAsync();
        Assert.Equal(agnes, (await MemberAsync(head, "Odile Marchetti")).Text("studentId"));
        var another = new
        {
            id = Guid.CreateVersion7(),
            text = Text("Mika Rahn", "assistant", agnes),
            email = "mika@heronquay.example",
        };
        Assert.Equal(["studentId"], await head.PostAsync("/api/staff", another).FieldsAsync());
        var taken = new
        {
            id = Guid.CreateVersion7(),
            text = Text("Mika Rahn"),
            email = "ODILE@heronquay.example".Replace("ODILE", "assistant", StringComparison.Ordinal),
        };
        Assert.Equal(["email"], await head.PostAsync("/api/staff", taken).FieldsAsync());
        Assert.DoesNotContain(
            (await head.GetAsync("/api/staff")).GetProperty("members").EnumerateArray(),
            member => member.Text("name") == "Mika Rahn"
        );
    }

    [Fact]
    public async Task Codes_are_asked_for_once_they_are_set_up_and_a_recovery_code_opens_once()
    {
        var head = await HeadAsync();
        await InviteAsync(head, "Ebba Stern", "ebba@heronquay.example");
        var ebba = await StrangerAsync();
        await WelcomeAsync(ebba, await WayInAsync(head, "Ebba Stern")).OkAsync();
        await ebba.RefreshTokenAsync();
        Assert.Equal(
            ["password"],
            await ebba.PostAsync("/api/account/second-factor/authenticator", new { password = "not mine" })
                .FieldsAsync()
        );
        var (key, codes) = await SetUpCodesAsync(ebba);
        Assert.Equal(10, codes.Length);

        async Task<HttpResponseMessage> EnterWithAsync(string code)
        {
            var caller = await StrangerAsync();
            var first = await (await EnterAsync(caller, "ebba@heronquay.example")).Content.ReadAsStringAsync();
            Assert.Contains("\"secondFactor\":true", first, StringComparison.Ordinal);
            await caller.Client.GetAsync("/api/today").ProblemAsync(401);
            var answer = await caller.PostAsync("/api/session/second-factor", new { code });
            if (answer.IsSuccessStatusCode)
            {
                await caller.GetAsync("/api/today");
            }

            return answer;
        }

        Assert.Equal(HttpStatusCode.Unauthorized, (await EnterWithAsync("000000")).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await EnterWithAsync(Totp(key))).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await EnterWithAsync(codes[0])).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await EnterWithAsync(codes[0])).StatusCode);
        await (await StrangerAsync())
            .PostAsync("/api/session/second-factor", new { code = codes[1] })
            .ProblemAsync(401);

        var id = (await MemberAsync(head, "Ebba Stern")).Text("id");
        await head.DeleteAsync($"/api/staff/{id}/second-factor").OkAsync();
        var plain = await StrangerAsync();
        await EnterAsync(plain, "ebba@heronquay.example").OkAsync();
        await plain.GetAsync("/api/today");
    }

    [Fact]
    public async Task A_school_can_ask_a_second_factor_of_every_head()
    {
        var head = await HeadAsync();
        uint Version(JsonElement staff) => staff.GetProperty("schoolVersion").GetUInt32();
        var rule = new { secondFactorForHeads = true, version = Version(await head.GetAsync("/api/staff")) };
        await head.PutAsync("/api/staff/rule", rule).ProblemAsync(409);
        await InviteAsync(head, "Ida Kern", "ida@heronquay.example", "head");
        var ida = await StrangerAsync();
        await WelcomeAsync(ida, await WayInAsync(head, "Ida Kern")).OkAsync();
        await ida.RefreshTokenAsync();
        await SetUpCodesAsync(ida);
        await ida.PutAsync("/api/staff/rule", rule).OkAsync();
        // Who has none is out, and on coming in again may set one up and nothing else.
        await head.Client.GetAsync("/api/today").ProblemAsync(401);
        var noor = await HeadAsync();
        Assert.True((await noor.GetAsync("/api/session")).GetProperty("mustSecure").GetBoolean());
        await noor.Client.GetAsync("/api/today").ProblemAsync(403);
        await noor.Client.GetAsync("/api/staff").ProblemAsync(403);
        await noor.PostAsync("/api/account/second-factor/authenticator/off", new { password = DemoTemplate.Password })
            .ProblemAsync(409);
        await SetUpCodesAsync(noor, DemoTemplate.Password);
        await noor.GetAsync("/api/today");
        await noor.PutAsync(
                "/api/staff/rule",
                new { secondFactorForHeads = false, version = Version(await noor.GetAsync("/api/staff")) }
            )
            .OkAsync();
        await noor.PostAsync("/api/account/second-factor/authenticator/off", new { password = DemoTemplate.Password })
            .OkAsync();
    }

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

    private static async Task<(string Key, string[] Codes)> SetUpCodesAsync(Caller caller, string password = Chosen)
    {
        var begun = await caller.PostAsync("/api/account/second-factor/authenticator", new { password });
        var key = JsonDocument.Parse(await begun.Content.ReadAsStringAsync()).RootElement.Text("key");
        await caller.RefreshTokenAsync();
        Assert.Equal(
            ["code"],
            await caller.PutAsync("/api/account/second-factor/authenticator", new { code = "000000" }).FieldsAsync()
        );
        var on = await caller.PutAsync("/api/account/second-factor/authenticator", new { code = Totp(key) });
        Assert.True(on.IsSuccessStatusCode, await on.Content.ReadAsStringAsync());
        await caller.RefreshTokenAsync();
        return (
            key,
            [
                .. JsonDocument
                    .Parse(await on.Content.ReadAsStringAsync())
                    .RootElement.GetProperty("recoveryCodes")
                    .EnumerateArray()
                    .Select(code => code.GetString()!),
            ]
        );
    }

    /// <summary>What a telephone shows now (RFC 6238).</summary>
    private static string Totp(string key)
    {
        const string Alphabet = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";
        var bits = string.Concat(
            key.Where(char.IsAsciiLetterOrDigit)
                .Select(letter => $"{Alphabet.IndexOf(char.ToUpperInvariant(letter)):b5}")
        );
        var secret = bits.Chunk(8).Where(eight => eight.Length == 8).Select(eight => Convert.ToByte(new(eight), 2));
        var step = BitConverter.GetBytes(IPAddress.HostToNetworkOrder(DateTimeOffset.UtcNow.ToUnixTimeSeconds() / 30));
#pragma warning disable CA5350 // The standard asks for it, and telephones know no other.
        var hash = HMACSHA1.HashData(secret.ToArray(), step);
#pragma warning restore CA5350
        var at = hash[^1] & 15;
        var number = (IPAddress.NetworkToHostOrder(BitConverter.ToInt32(hash, at)) & int.MaxValue) % 1_000_000;
        return $"{number:000000}";
    }
}
