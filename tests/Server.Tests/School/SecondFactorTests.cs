using System.Net;
using System.Security.Cryptography;
using System.Text.Json;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Tests.School;

/// <summary>Codes beside the password, and a school that asks them of its heads.</summary>
public sealed class SecondFactorTests(DemoTemplate template) : InvitedTests(template)
{
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

    [Theory]
    [InlineData("123 456", "123456")]
    [InlineData("2345B-6C7DF", "")]
    [InlineData("", "")]
    public void A_recovery_code_is_no_code_of_an_app_however_many_digits_it_has(string typed, string digits) =>
        Assert.Equal(digits, SecondFactor.Digits(typed));

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
