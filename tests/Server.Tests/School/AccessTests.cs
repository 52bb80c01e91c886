using System.Net;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Zeitplan.Server.Tests.School;

public sealed class AccessTests(DemoTemplate template) : HeronQuayTests(template)
{
    /// <summary>Who may call what; an endpoint that is not listed here fails the test until somebody has
    /// decided.</summary>
    private static readonly Dictionary<string, string> Least = new[]
    {
        (
            "nobody",
            "session signIn signInWithCode askForPasskey signInWithPasskey openLetter welcome forgotten calendarFeed"
        ),
        (
            "assistant",
            "signOut today leftToDo forms form numbers compare fitHall floorPicture positionsTable postures posture figure figures links principles exportLibrary conventions people students student terms plan lessons lesson arrangement waysOut arrangementTable whoCouldJoin floor sayWhatHappened register takeAttendance observe tryWays withdraw progress progressTable corrections lookBack correctionsTable observationsTable assignments coverage safety teaching rules effort classCalendar myCalendarLink planTable school account changePassword endSignIn endOtherSignIns everythingAbout secondFactor beginAuthenticator confirmAuthenticator turnOffAuthenticator renewRecoveryCodes passkeyOptions addPasskey removePasskey"
        ),
        (
            "instructor",
            "sayWhatWasTaught nextSash nextSashTable patterns homePractice handOutHomeSheets logPractice editArrangement reTeachOffers limits editLimits decideAdaptation studentDetails classCalendarLink shortStay yearView"
        ),
        (
            "head",
            "createPosture keepFault editPosture removePosture createForm editForm removeForm writeLink removeLink writePrinciple removePrinciple previewImport importLibrary takeOverStarter editConventions addSash editSash effectsOfSash removeSash orderSashes effectsOfOrder addHall editHall removeHall archive readArchive beginOwnSchool removeDemo staff inviteStaff editStaff ruleOfSecondFactor writeToStaff lockStaff unlockStaff closeStaff reopenStaff signOutStaff dropSecondFactorOfStaff postbox journal journalTable createClass checkClass editClass removeClass addCohort editCohort removeCohort addStudent editStudent moveStudents leaveStudent eraseStudent accessLog exportRoster previewRoster importRoster rosterImports takeBackImport assign checkAssignment proposeAssignments assignMany createTerm editTerm planTerm moveCosts pinChip keepAnnounced undoPlan redoPlan discardDraft announcePlan planVersions remedies previewRemedy takeRemedy changeLesson dropLesson keepForWatching editTeaching editSchool movingIn putMovingInAside checkTakenOver takenOver sayTakenOver beginLadder"
        ),
    }
        .SelectMany(rank => rank.Item2.Split(' ').Select(name => (Name: name, Rank: rank.Item1)))
        .ToDictionary(least => least.Name, least => least.Rank);

    private static readonly string[] Ranks = ["nobody", "assistant", "instructor", "head"];

    [Theory]
    [InlineData("nobody")]
    [InlineData("assistant")]
    [InlineData("instructor")]
    [InlineData("head")]
    public async Task Every_endpoint_lets_in_who_may_and_nobody_else(string rank)
    {
        var caller = rank == "nobody" ? new Caller(Anonymous()) : await SignInAsync(rank);
        var endpoints = Services
            .GetServices<EndpointDataSource>()
            .SelectMany(source => source.Endpoints)
            .OfType<RouteEndpoint>()
            .Where(endpoint =>
                endpoint.RoutePattern.RawText!.StartsWith("/api/", StringComparison.Ordinal)
                && !endpoint.RoutePattern.RawText.Contains("**", StringComparison.Ordinal)
            )
            .ToList();
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
                Assert.False(
                    status is HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden && name != "signIn",
                    $"{rank} may {name}, got {(int)status}"
                );
                Assert.False((int)status >= 500, $"{name} answered {(int)status}");
            }
            else
            {
                Assert.True(
                    status == (rank == "nobody" ? HttpStatusCode.Unauthorized : HttpStatusCode.Forbidden),
                    $"{rank} must not {name}, got {(int)status}"
                );
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
            foreach (
                var path in new[]
                {
                    lesson,
                    $"{lesson}/register",
                    $"/api/classes/{morning.Text("id")}/progress",
                    $"/api/students/{agnes.Text("id")}",
                    $"/api/terms/{await TermAsync(jonas)}/classes/{morning.Text("id")}/plan",
                }
            )
            {
                Assert.Equal(
                    "urn:zeitplan:problem:forbidden",
                    (await caller.Client.GetAsync(path).ProblemAsync(403)).Text("type")
                );
            }

            await caller.PostAsync($"{lesson}/attendance", new { marks = Array.Empty<object>() }).ProblemAsync(403);
            await caller.PostAsync($"{lesson}/observations", new { marks = Array.Empty<object>() }).ProblemAsync(403);
            Assert.DoesNotContain(
                (await caller.GetAsync("/api/students")).EnumerateArray(),
                student => student.Text("id") == agnes.Text("id")
            );
            Assert.DoesNotContain(
                (await caller.GetAsync("/api/assignments")).EnumerateArray(),
                given => given.Text("cohortId") == morning.GetProperty("cohorts")[0].Text("id")
            );
            await caller
                .Client.GetAsync($"/api/cohorts/{morning.GetProperty("cohorts")[0].Text("id")}/coverage")
                .ProblemAsync(403);
            await caller.Client.GetAsync($"/api/students/{agnes.Text("id")}/limits").ProblemAsync(403);
            Assert.Equal(
                ["Tuesday evening"],
                (await caller.GetAsync("/api/people"))
                    .GetProperty("classes")
                    .EnumerateArray()
                    .Select(c => c.Text("name"))
            );
        }
    }

    [Fact]
    public async Task Limits_are_for_those_who_teach_and_every_reading_is_written_down()
    {
        var head = await HeadAsync();
        var yusuf = await StudentAsync(head, "Yusuf");
        var before = (await head.GetAsync("/api/access-log")).GetArrayLength();
        foreach (
            var (caller, sees) in new[]
            {
                (head, true),
                (await InstructorAsync(), true),
                (await AssistantAsync(), false),
            }
        )
        {
            var answer = await caller.Client.GetAsync($"/api/students/{yusuf.Text("id")}/limits");
            Assert.Equal(sees, answer.IsSuccessStatusCode);
            var schoolClass = await ClassAsync(caller);
            var senior = schoolClass
                .GetProperty("cohorts")
                .EnumerateArray()
                .Single(cohort => cohort.Text("name") == "Fern, senior");
            var cells = (await caller.GetAsync($"/api/cohorts/{senior.Text("id")}/coverage"))
                .GetProperty("choices")
                .EnumerateArray()
                .ToList();

            // An assistant sees the mode and never what rules the others out.
            Assert.Contains(cells, cell => cell.Text("mode") == "no-step");
            Assert.Equal(sees, cells.Any(cell => cell.GetProperty("because").GetArrayLength() > 0));
            Assert.Equal(
                sees,
                (await caller.GetAsync("/api/safety"))
                    .EnumerateArray()
                    .Any(item => item.GetProperty("breaks").GetArrayLength() > 0)
            );
            Assert.Equal(
                sees,
                (await caller.GetAsync("/api/students"))
                    .EnumerateArray()
                    .Any(student => student.GetProperty("hasLimits").GetBoolean())
            );

            // The sheet says the mode and the caution to everybody, and the limit to nobody.
            var sheet = await caller.GetAsync($"/api/classes/{schoolClass.Text("id")}/lessons/2026-11-24");
            Assert.Contains(
                sheet.GetProperty("care").EnumerateArray(),
                care => care.Text("says") == "Yusuf D.: Step Back, left seated, drawing the foot back on the spot"
            );
            Assert.DoesNotContain(
                "backwardStep",
                sheet.GetProperty("care").GetRawText(),
                StringComparison.OrdinalIgnoreCase
            );
        }

        var log = (await head.GetAsync("/api/access-log")).EnumerateArray().ToList();
        Assert.True(log.Count > before);
        Assert.Contains(
            log,
            entry =>
                entry.Text("by") == "Jonas Lindqvist"
                && entry.Text("student") == "Yusuf Demirel"
                && entry.Text("kind") == "read"
                && entry.Text("where") == "limits of the student"
        );
        Assert.Contains(
            log,
            entry => entry.Text("by") == "Jonas Lindqvist" && entry.Text("where") == "coverage of Fern, senior"
        );
        Assert.All(
            log.Where(entry => entry.Text("by") == "Odile Marchetti"),
            entry => Assert.Equal("modes in the coverage of Fern, senior", entry.Text("where"))
        );
        Assert.Contains(log, entry => entry.Text("by") == "Odile Marchetti");
    }

    [Fact]
    public async Task An_assistant_sees_what_is_assigned_and_cannot_try_out_segments_or_other_classes()
    {
        var (head, odile) = (await HeadAsync(), await AssistantAsync());
        var cohort = (await ClassAsync(odile)).GetProperty("cohorts")[2].Text("id");
        var form = await FormAsync(head);
        var positions = form.GetProperty("text").GetProperty("positions");
        var segment = $"formId={form.Text("id")}&fromId={positions[0].Text("id")}&toId={positions[0].Text("id")}";
        await odile.GetAsync($"/api/cohorts/{cohort}/coverage");
        await odile.Client.GetAsync($"/api/cohorts/{cohort}/coverage?{segment}").ProblemAsync(403);
        await head.GetAsync($"/api/cohorts/{cohort}/coverage?{segment}");

        var press = (await head.GetAsync("/api/postures"))[0].Text("id");
        var mine = (await odile.GetAsync("/api/people"))
            .GetProperty("classes")
            .EnumerateArray()
            .Select(c => c.Text("name"));
        Assert.Equal(
            mine.Order(),
            (await odile.GetAsync($"/api/postures/{press}/effort"))
                .EnumerateArray()
                .Select(row => row.Text("class"))
                .Distinct()
                .Order()
        );
    }

    [Fact]
    public async Task Whoever_stands_in_sees_the_class_from_then_on()
    {
        var (head, tamsin) = (await HeadAsync(), await SignInAsync("tamsin"));
        var evening = await ClassAsync(head);
        Assert.DoesNotContain(
            (await tamsin.GetAsync("/api/people")).GetProperty("classes").EnumerateArray(),
            c => c.Text("name") == "Tuesday evening"
        );
        var staff = (await head.GetAsync("/api/people"))
            .GetProperty("staff")
            .EnumerateArray()
            .ToDictionary(member => member.Text("name"), member => member.Text("id"));
        await head.PutAsync(
                $"/api/classes/{evening.Text("id")}",
                new
                {
                    text = new
                    {
                        name = "Tuesday evening",
                        weekday = "tuesday",
                        start = "18:30:00",
                        minutes = 90,
                        hallId = evening.Text("hallId"),
                        staffIds = evening.GetProperty("staffIds"),
                        substitutes = new[]
                        {
                            new
                            {
                                date = "2026-12-01",
                                awayId = staff["Jonas Lindqvist"],
                                insteadId = staff["Tamsin Okoro"],
                            },
                        },
                    },
                    version = evening.GetProperty("version").GetInt64(),
                }
            )
            .OkAsync();
        Assert.Contains(
            (await tamsin.GetAsync("/api/people")).GetProperty("classes").EnumerateArray(),
            c => c.Text("name") == "Tuesday evening"
        );
        string[] Teachers(System.Text.Json.JsonElement sheet) =>
            [.. sheet.GetProperty("staff").EnumerateArray().Select(name => name.GetString()!)];
        Assert.Contains(
            "Tamsin Okoro",
            Teachers(await head.GetAsync($"/api/classes/{evening.Text("id")}/lessons/2026-12-01"))
        );
        Assert.DoesNotContain(
            "Jonas Lindqvist",
            Teachers(await head.GetAsync($"/api/classes/{evening.Text("id")}/lessons/2026-12-01"))
        );
        Assert.DoesNotContain(
            "Tamsin Okoro",
            Teachers(await head.GetAsync($"/api/classes/{evening.Text("id")}/lessons/2026-12-08"))
        );
    }

    private static string NameOf(RouteEndpoint endpoint)
    {
        var name = endpoint.Metadata.GetMetadata<IEndpointNameMetadata>()?.EndpointName ?? endpoint.DisplayName!;
        Assert.True(
            endpoint.Metadata.GetMetadata<IAuthorizeData>() is not null
                || endpoint.Metadata.GetMetadata<IAllowAnonymous>() is not null,
            $"{name} says nothing about who may call it"
        );
        return name;
    }
}
