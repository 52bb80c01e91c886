using System.Net;
using Zeitplan.Server.Tests.Terms;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Tests.Web;

public sealed class WorkQueueTests(DemoTemplate template) : PlanTests(template)
{
    [Fact]
    public async Task A_mark_does_not_wait_for_planning_and_whoever_would_wait_too_long_for_a_plan_is_told()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/{DemoTemplate.Today}";
        var goran = (await StudentAsync(head, "Goran")).Text("id");
        var planning = Enumerable
            .Range(0, WorkQueue.Places + Environment.ProcessorCount + 20)
            .Select(_ => head.Client.GetAsync($"{path}/remedies"))
            .ToList();
        await head.PostAsync(
                $"{lesson}/attendance",
                new
                {
                    marks = new[]
                    {
                        new
                        {
                            id = Guid.CreateVersion7(),
                            studentId = goran,
                            present = true,
                        },
                    },
                }
            )
            .OkAsync();
        Assert.Contains(planning, plan => !plan.IsCompleted);

        var answers = await Task.WhenAll(planning);
        Assert.All(
            answers,
            answer => Assert.Contains(answer.StatusCode, new[] { HttpStatusCode.OK, HttpStatusCode.TooManyRequests })
        );
        Assert.True(answers.Count(answer => answer.IsSuccessStatusCode) >= WorkQueue.Places);
        var refused = answers.First(answer => answer.StatusCode == HttpStatusCode.TooManyRequests);
        Assert.NotNull(refused.Headers.RetryAfter);
        Assert.Equal("urn:zeitplan:problem:busy", (await Task.FromResult(refused).ProblemAsync(429)).Text("type"));
        await head.GetAsync($"{path}/remedies");
    }
}
