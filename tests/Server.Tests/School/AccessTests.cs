using System.Net;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Zeitplan.Server.Tests.School;

public sealed class AccessTests(DemoTemplate template) : HeronQuayTests(template)
{
    /// <summary>Who may call what; an endpoint that is not listed here fails the test until somebody has decided.</summary>
    private static readonly Dictionary<string, string> Least = new[]
    {
        ("nobody", "session signIn"),
        ("assistant", "signOut today forms form numbers compare fitHall floorPicture positionsTable postures posture links principles exportLibrary conventions people students student terms plan lessons lesson register takeAttendance observe withdraw progress"),
        ("instructor", "sayWhatWasTaught"),
        ("head", "createPosture editPosture removePosture createForm editForm removeForm writeLink removeLink writePrinciple removePrinciple previewImport importLibrary takeOverStarter editConventions addSash addHall addStaff createClass editClass addCohort addStudent editStudent assignSegment createTerm planTerm"),
    }.SelectMany(rank => rank.Item2.Split(' ').Select(name => (Name: name, Rank: rank.Item1))).ToDictionary(least => least.Name, least => least.Rank);

    private static readonly string[] Ranks = ["nobody", "assistant", "instructor", "head"];

    [Theory]
    [InlineData("nobody")]
    [InlineData("assistant")]
    [InlineData("instructor")]
    [InlineData("head")]
    public async Task Every_endpoint_lets_in_who_may_and_nobody_else(string rank)
    {
        var caller = rank == "nobody" ? new Caller(Anonymous()) : await SignInAsync(rank);
        var endpoints = Services.GetServices<EndpointDataSource>().SelectMany(source => source.Endpoints).OfType<RouteEndpoint>()
            .Where(endpoint => endpoint.RoutePattern.RawText!.StartsWith("/api/", StringComparison.Ordinal) && !endpoint.RoutePattern.RawText.Contains("**", StringComparison.Ordinal)).ToList();
        Assert.Equal(Least.Count, endpoints.Count);
        foreach (var endpoint in endpoints.OrderBy(endpoint => NameOf(endpoint) == "signOut"))
        {
            var name = NameOf(endpoint);
            var least = Assert.Contains(name, Least);
            var path = endpoint.RoutePattern.RawText!.Replace("{date}", "2026-11-17", StringComparison.Ordinal);
            path = System.Text.RegularExpressions.Regex.Replace(path, @"\{\w+:guid\}", _ => Guid.NewGuid().ToString());
            var method = new HttpMethod(endpoint.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods[0]);
            var status = (await caller.SendAsync(method, path, method == HttpMethod.Get ? null : new { })).StatusCode;
            if (Array.IndexOf(Ranks, rank) >= Array.IndexOf(Ranks, least))
            {
                Assert.False(status is HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden && name != "signIn", $"{rank} may {name}, got {(int)status}");
                Assert.False((int)status >= 500, $"{name} answered {(int)status}");
            }
            else
            {
                Assert.True(status == (rank == "nobody" ? HttpStatusCode.Unauthorized : HttpStatusCode.Forbidden), $"{rank} must not {name}, got {(int)status}");
            }
        }
    }

    [Fact]
    public async Task Another_instructors_class_is_closed()
    {
        var morning = await ClassAsync(await HeadAsync(), "Tuesday morning, seated");
        var agnes = await StudentAsync(await HeadAsync(), "Agnes");
        var (jonas, odile) = (await InstructorAsync(), await AssistantAsync());
        var lesson = $"/api/classes/{morning.Text("id")}/lessons/2026-11-17";
        foreach (var caller in new[] { jonas, odile })
        {
            foreach (var path in new[] { lesson, $"{lesson}/register", $"/api/classes/{morning.Text("id")}/progress", $"/api/students/{agnes.Text("id")}", $"/api/terms/{await TermAsync(jonas)}/classes/{morning.Text("id")}/plan" })
            {
                Assert.Equal("urn:zeitplan:problem:forbidden", (await caller.Client.GetAsync(path).ProblemAsync(403)).Text("type"));
            }

            await caller.PostAsync($"{lesson}/attendance", new { marks = Array.Empty<object>() }).ProblemAsync(403);
            await caller.PostAsync($"{lesson}/observations", new { marks = Array.Empty<object>() }).ProblemAsync(403);
            Assert.DoesNotContain((await caller.GetAsync("/api/students")).EnumerateArray(), student => student.Text("class") == "Tuesday morning, seated");
            Assert.Equal(["Tuesday evening"], (await caller.GetAsync("/api/people")).GetProperty("classes").EnumerateArray().Select(c => c.Text("name")));
        }
    }

    [Fact]
    public async Task Limits_and_notes_are_for_those_who_teach_and_not_for_assistants()
    {
        var bernd = (await StudentAsync(await HeadAsync(), "Bernd")).Text("id");
        foreach (var (caller, sees) in new[] { (await HeadAsync(), true), (await InstructorAsync(), true), (await AssistantAsync(), false) })
        {
            var student = await caller.GetAsync($"/api/students/{bernd}");
            Assert.Equal(sees, student.GetProperty("limits").GetArrayLength() > 0);
            Assert.Equal(sees, student.Text("note").Length > 0);
            var lesson = await caller.GetAsync($"/api/classes/{(await ClassAsync(caller)).Text("id")}/lessons/2026-11-24");
            Assert.Equal(sees, lesson.GetProperty("care").GetArrayLength() > 0);
        }
    }

    private static string NameOf(RouteEndpoint endpoint)
    {
        var name = endpoint.Metadata.GetMetadata<IEndpointNameMetadata>()?.EndpointName ?? endpoint.DisplayName!;
        Assert.True(endpoint.Metadata.GetMetadata<IAuthorizeData>() is not null || endpoint.Metadata.GetMetadata<IAllowAnonymous>() is not null, $"{name} says nothing about who may call it");
        return name;
    }
}
