using System.Net;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Tests.School;

/// <summary>Those who teach and how they get in: invited, changed, locked out, closed.</summary>
public sealed class StaffTests(DemoTemplate template) : InvitedTests(template)
{
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
}
