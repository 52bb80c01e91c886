using System.Net;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;

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
    public async Task A_stranger_who_guesses_is_slowed_down_and_locks_nobody_out()
    {
        await using var application = Template
            .Open("", Connection, ("ZEITPLAN_SIGN_INS_A_MINUTE", "20"))
            .WithWebHostBuilder(builder =>
                builder.ConfigureServices(services => services.AddTransient<IStartupFilter, FromAnAddress>())
            );
        async Task<int> TryAsync(string address, string password)
        {
            var client = application.CreateClient();
            client.DefaultRequestHeaders.Add(FromAnAddress.Header, address);
            var caller = new Caller(client);
            await caller.RefreshTokenAsync();
            var answer = await caller.PostAsync(
                "/api/session/sign-in",
                new { email = "Assistant@heronquay.example", password }
            );
            return (int)answer.StatusCode;
        }

        var guesses = await Task.WhenAll(
            Enumerable.Range(0, 15).Select(guess => TryAsync("192.0.2.7", $"wrong guess {guess}"))
        );
        Assert.Equal((5, 10), (guesses.Count(status => status == 401), guesses.Count(status => status == 429)));
        Assert.Equal(200, await TryAsync("192.0.2.8", DemoTemplate.Password));
    }

    /// <summary>Lets a test come from wherever it says.</summary>
    private sealed class FromAnAddress : IStartupFilter
    {
        public const string Header = "X-Test-Address";

        public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) =>
            app =>
            {
                app.Use(
                    (http, go) =>
                    {
                        http.Connection.RemoteIpAddress = IPAddress.Parse(http.Request.Headers[Header].ToString());
                        return go(http);
                    }
                );
                next(app);
            };
    }

    [Fact]
    public async Task Signing_out_ends_the_sign_in_wherever_a_copy_of_its_cookie_lies()
    {
        var caller = new Caller(Anonymous());
        await caller.RefreshTokenAsync();
        var answer = await caller.PostAsync(
            "/api/session/sign-in",
            new { email = "head@heronquay.example", password = DemoTemplate.Password }
        );
        var cookie = answer
            .Headers.GetValues("Set-Cookie")
            .Single(set => set.StartsWith("zeitplan=", StringComparison.Ordinal));
        async Task<HttpStatusCode> WithTheCopyAsync()
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, "/api/today");
            request.Headers.Add("Cookie", cookie.Split(';')[0]);
            return (await Anonymous().SendAsync(request)).StatusCode;
        }

        Assert.Equal(HttpStatusCode.OK, await WithTheCopyAsync());
        await caller.RefreshTokenAsync();
        await caller.PostAsync("/api/session/sign-out").OkAsync();
        Assert.Equal(HttpStatusCode.Unauthorized, await WithTheCopyAsync());
    }

    [Theory]
    [InlineData("short")]
    [InlineData("aaaaaaaaaaaaaaaa")]
    public async Task A_password_that_is_easily_guessed_is_refused(string password)
    {
        var wanted = new { current = DemoTemplate.Password, wanted = password };
        Assert.Equal(["wanted"], await (await HeadAsync()).PutAsync("/api/account/password", wanted).FieldsAsync());
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
                .PostAsync("/api/session/sign-in", new { email = $"nobody{attempt}@heronquay.example", password = "x" })
                .ProblemAsync(401);
        }

        var refused = await caller.PostAsync(
            "/api/session/sign-in",
            new { email = "somebody@heronquay.example", password = "x" }
        );
        Assert.NotNull(refused.Headers.RetryAfter);
        var problem = await Task.FromResult(refused).ProblemAsync(429);
        Assert.Equal("urn:zeitplan:problem:too-many", problem.Text("type"));
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
    [InlineData("/API/today", 401)]
    public async Task Every_answer_carries_the_security_headers(string path, int status)
    {
        var response = await Anonymous().GetAsync(path);
        Assert.Equal(status, (int)response.StatusCode);
        var policy = Assert.Single(response.Headers.GetValues("Content-Security-Policy"));
        Assert.DoesNotContain("'unsafe", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("data:", policy, StringComparison.Ordinal);
        Assert.True(response.Headers.CacheControl?.NoStore);
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
