using System.Net;

namespace Zeitplan.Server.Tests.School;

public sealed class SignInTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_sign_in_cookie_is_strict_and_out_of_reach_of_scripts()
    {
        var caller = new Caller(Anonymous());
        await caller.RefreshTokenAsync();
        var response = await caller.PostAsync(
            "/api/session/sign-in",
            new { email = "head@heronquay.example", password = DemoTemplate.Password }
        );
        var cookie = Assert.Single(
            response.Headers.GetValues("Set-Cookie"),
            c => c.StartsWith("zeitplan=", StringComparison.Ordinal)
        );
        Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("httponly", cookie, StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task Five_wrong_passwords_lock_the_account_for_the_right_one_too()
    {
        var caller = new Caller(Anonymous());
        await caller.RefreshTokenAsync();
        for (var attempt = 0; attempt < 5; attempt++)
        {
            await caller
                .PostAsync(
                    "/api/session/sign-in",
                    new { email = "assistant@heronquay.example", password = "not the password" }
                )
                .ProblemAsync(401);
        }

        var problem = await caller
            .PostAsync(
                "/api/session/sign-in",
                new { email = "assistant@heronquay.example", password = DemoTemplate.Password }
            )
            .ProblemAsync(401);
        Assert.Equal("urn:zeitplan:problem:locked-out", problem.Text("type"));
        await HeadAsync();
    }

    [Fact]
    public async Task Somebody_who_does_not_exist_gets_the_same_answer_as_a_wrong_password()
    {
        var caller = new Caller(Anonymous());
        await caller.RefreshTokenAsync();
        var unknown = await caller
            .PostAsync(
                "/api/session/sign-in",
                new { email = "nobody@heronquay.example", password = "not the password" }
            )
            .ProblemAsync(401);
        var wrong = await caller
            .PostAsync("/api/session/sign-in", new { email = "head@heronquay.example", password = "not the password" })
            .ProblemAsync(401);
        Assert.Equal(wrong.Text("title"), unknown.Text("title"));
    }

    [Fact]
    public async Task Attempts_to_sign_in_are_limited()
    {
        await using var application = Template.Open("", Connection, ("ZEITPLAN_SIGN_INS_A_MINUTE", "3"));
        var caller = new Caller(application.CreateClient());
        await caller.RefreshTokenAsync();
        for (var attempt = 0; attempt < 3; attempt++)
        {
            await caller
                .PostAsync("/api/session/sign-in", new { email = "nobody@heronquay.example", password = "x" })
                .ProblemAsync(401);
        }

        await caller
            .PostAsync("/api/session/sign-in", new { email = "nobody@heronquay.example", password = "x" })
            .ProblemAsync(429);
    }

    [Fact]
    public async Task A_change_without_our_pages_token_is_refused()
    {
        var head = await HeadAsync();
        var response = await head.Client.PostAsync($"/api/terms/{Guid.NewGuid()}/classes/{Guid.NewGuid()}/plan", null);
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        Assert.Contains(
            "urn:zeitplan:problem:token",
            await response.Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("[]", "$")]
    [InlineData("{}", "email")]
    [InlineData("{\"email\": 5, \"password\": \"x\"}", "$.email")]
    public async Task What_cannot_be_read_is_said_with_its_place(string json, string place)
    {
        var caller = new Caller(Anonymous());
        await caller.RefreshTokenAsync();
        var problem = await caller
            .PostAsync("/api/session/sign-in", System.Text.Json.JsonSerializer.Deserialize<object>(json))
            .ProblemAsync(400);
        Assert.Equal("urn:zeitplan:problem:unreadable", problem.Text("type"));
        Assert.Contains(place, problem.Text("detail"), StringComparison.OrdinalIgnoreCase);
    }

    [Theory]
    [InlineData("/api/session", 200)]
    [InlineData("/api/today", 401)]
    [InlineData("/api/no/such/thing", 404)]
    public async Task Every_answer_carries_the_security_headers(string path, int status)
    {
        var response = await Anonymous().GetAsync(path);
        Assert.Equal(status, (int)response.StatusCode);
        var policy = Assert.Single(response.Headers.GetValues("Content-Security-Policy"));
        Assert.DoesNotContain("'unsafe", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("data:", policy, StringComparison.Ordinal);
        Assert.Equal("nosniff", Assert.Single(response.Headers.GetValues("X-Content-Type-Options")));
    }

    [Fact]
    public async Task Every_page_has_a_nonce_of_its_own_for_styles_and_none_for_scripts()
    {
        async Task<(string Html, string Policy)> PageAsync(string path)
        {
            var response = await Anonymous().GetAsync(path);
            return (
                await response.Content.ReadAsStringAsync(),
                Assert.Single(response.Headers.GetValues("Content-Security-Policy"))
            );
        }

        var (first, second) = (await PageAsync("/"), await PageAsync("/progress/anything"));
        foreach (var (html, policy) in new[] { first, second })
        {
            var nonce = System
                .Text.RegularExpressions.Regex.Match(html, "name=\"style-nonce\" content=\"([0-9A-F]{32})\"")
                .Groups[1]
                .Value;
            Assert.Contains($"style-src 'self' 'nonce-{nonce}';", policy, StringComparison.Ordinal);
            Assert.DoesNotContain("nonce", policy.Split("style-src")[0], StringComparison.Ordinal);
        }

        Assert.NotEqual(first.Policy, second.Policy);
    }
}
