using System.Text.Json;

namespace Zeitplan.Server.Tests.Web;

public sealed class NonsenseTests(DemoTemplate template) : HeronQuayTests(template)
{
    private static readonly string[] Pages =
    [
        "/api/today",
        "/api/today/left-to-do",
        "/api/people",
        "/api/students",
        "/api/lessons",
        "/api/forms",
        "/api/postures",
        "/api/terms",
        "/api/conventions",
        "/api/teaching",
        "/api/session",
    ];

    [Theory]
    [InlineData("head", 1)]
    [InlineData("head", 2)]
    [InlineData("instructor", 3)]
    [InlineData("assistant", 4)]
    public async Task Nothing_that_is_sent_breaks_the_school(string who, int seed)
    {
        var caller = await SignInAsync(who);
        var watching = await HeadAsync();
        var identifiers = await IdentifiersAsync(watching);
        List<string> broken = [];
        var asked = 0;
        foreach (var request in new Nonsense(seed, identifiers).Requests(rounds: 3))
        {
            var answer = await caller.RawAsync(request.Method, request.Path, request.Body, request.MediaType);
            if ((int)answer.StatusCode >= 500)
            {
                broken.Add(
                    $"{request.Method} {request.Path[..Math.Min(200, request.Path.Length)]} {request.Body?[..Math.Min(600, request.Body.Length)]}\n  {await answer.Content.ReadAsStringAsync()}"
                );
            }

            // Somebody else, at the same time, is not disturbed.
            if (++asked % 25 == 0)
            {
                await watching.GetAsync(Pages[asked / 25 % Pages.Length]);
            }
        }

        Assert.True(broken.Count == 0, $"{broken.Count} of {asked}:\n{string.Join("\n", broken.Take(12))}");
        await EverythingReadsAsync(watching);
    }

    /// <summary>Whatever was taken makes sense to every page that shows it.</summary>
    private static async Task EverythingReadsAsync(Caller head)
    {
        foreach (var page in Pages)
        {
            await head.GetAsync(page);
        }

        foreach (var student in (await head.GetAsync("/api/students")).EnumerateArray())
        {
            await head.GetAsync($"/api/students/{student.Text("id")}");
        }

        foreach (var form in (await head.GetAsync("/api/forms")).EnumerateArray())
        {
            await head.GetAsync($"/api/forms/{form.Text("id")}");
        }

        foreach (var posture in (await head.GetAsync("/api/postures")).EnumerateArray())
        {
            await head.GetAsync($"/api/postures/{posture.Text("id")}");
        }

        foreach (var schoolClass in (await head.GetAsync("/api/people")).GetProperty("classes").EnumerateArray())
        {
            await head.GetAsync($"/api/classes/{schoolClass.Text("id")}/progress");
        }

        foreach (var lesson in (await head.GetAsync("/api/lessons")).EnumerateArray())
        {
            await head.GetAsync($"/api/classes/{lesson.Text("classId")}/lessons/{lesson.Text("date")}/register");
        }
    }

    /// <summary>Everything in the school that can be named, by what it is.</summary>
    private static async Task<ILookup<string, string>> IdentifiersAsync(Caller head)
    {
        HashSet<(string Kind, string Id)> found = [];
        foreach (var page in Pages)
        {
            Collect(await head.GetAsync(page), page.Split('/')[^1], "");
        }

        // A head may end their own sign-in, and whoever watches is that head: nobody names them.
        var self = (await head.GetAsync("/api/session")).GetProperty("person").Text("id");
        found.RemoveWhere(named => named.Id == self);
        return found.Order().ToLookup(named => named.Kind, named => named.Id);

        void Collect(JsonElement element, string among, string name)
        {
            if (element.ValueKind == JsonValueKind.String && element.TryGetGuid(out _))
            {
                found.Add((name == "id" ? Nonsense.Singular(among) : name.TrimEnd('s'), element.GetString()!));
            }
            else if (element.ValueKind == JsonValueKind.Array)
            {
                foreach (var item in element.EnumerateArray())
                {
                    Collect(item, name.Length > 0 ? name : among, name);
                }
            }
            else if (element.ValueKind == JsonValueKind.Object)
            {
                foreach (var part in element.EnumerateObject())
                {
                    Collect(part.Value, among, part.Name);
                }
            }
        }
    }

    [Theory]
    [InlineData("application/json; charset=no-such-thing", 415)]
    [InlineData("application/json; charset=utf-8", 400)]
    [InlineData("text/plain", 415)]
    public async Task What_is_not_JSON_in_UTF_8_is_refused_with_words(string mediaType, int status)
    {
        var head = await HeadAsync();
        var problem = await head.RawAsync(HttpMethod.Post, "/api/halls", "{}", mediaType).ProblemAsync(status);
        Assert.Equal("urn:zeitplan:problem:unreadable", problem.Text("type"));
        Assert.NotEmpty(problem.Text("traceId"));
    }

    [Fact]
    public async Task What_is_too_large_is_refused_with_words()
    {
        var head = await HeadAsync();
        var file = new { file = new string(' ', 5 * 1024 * 1024), choices = new { } };
        var answer = await head.RawAsync(
            HttpMethod.Post,
            "/api/halls",
            JsonSerializer.Serialize(file),
            "application/json"
        );
        Assert.InRange((int)answer.StatusCode, 400, 413);
    }

    [Fact]
    public async Task Somebodys_bad_requests_spoil_nobody_elses_good_ones()
    {
        var head = await HeadAsync();
        var hall = (await head.GetAsync("/api/people")).GetProperty("halls")[0].Text("name");
        object Hall(string name) =>
            new
            {
                id = Guid.CreateVersion7(),
                text = new
                {
                    name,
                    width = 9,
                    depth = 8,
                    chairs = 4,
                    rail = 0,
                    hours = Array.Empty<object>(),
                    allowed = (int?)null,
                },
            };
        for (var round = 0; round < 12; round++)
        {
            await head.PostAsync("/api/halls", Hall("a\0b")).ProblemAsync(400);
            await head.PostAsync("/api/halls", Hall(hall)).ProblemAsync(400);
            await head.PostAsync("/api/halls", Hall($"Boat Shed {round}")).OkAsync();
        }
    }

    [Fact]
    public async Task Of_twenty_at_once_one_is_kept()
    {
        var heads = await Task.WhenAll(Enumerable.Range(0, 20).Select(_ => HeadAsync()));
        var people = await heads[0].GetAsync("/api/people");
        var answers = await Task.WhenAll(
            heads.Select(head =>
                head.PostAsync(
                    "/api/terms",
                    new
                    {
                        id = Guid.CreateVersion7(),
                        name = "Far term",
                        start = "2031-01-06",
                        end = "2031-03-30",
                        closures = Array.Empty<object>(),
                        testDays = Array.Empty<object>(),
                    }
                )
            )
        );
        Assert.Single(answers, answer => answer.IsSuccessStatusCode);
        Assert.All(
            answers.Where(answer => !answer.IsSuccessStatusCode),
            answer => Assert.True((int)answer.StatusCode is 400 or 409)
        );

        var id = Guid.CreateVersion7();
        var halls = await Task.WhenAll(
            heads.Select(head =>
                head.PostAsync(
                    "/api/halls",
                    new
                    {
                        id,
                        text = new
                        {
                            name = "Boat House",
                            width = 9,
                            depth = 8,
                            chairs = 4,
                            rail = 0,
                            hours = Array.Empty<object>(),
                            allowed = (int?)null,
                        },
                    }
                )
            )
        );
        Assert.Single(halls, answer => answer.IsSuccessStatusCode);
        Assert.DoesNotContain(halls, answer => (int)answer.StatusCode >= 500);
        Assert.Equal(
            people.GetProperty("halls").GetArrayLength() + 1,
            (await heads[0].GetAsync("/api/people")).GetProperty("halls").GetArrayLength()
        );
    }
}
