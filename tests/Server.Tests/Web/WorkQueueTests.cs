using System.Net;
using Zeitplan.Server.Tests.Terms;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Tests.Web;

public sealed class WorkQueueTests(DemoTemplate template) : PlanTests(template)
{
    [Fact]
    public async Task What_is_said_in_the_hall_does_not_wait_for_planning_and_whoever_would_wait_too_long_for_a_plan_is_told()
    {
        var head = await HeadAsync();
        var path = await PathAsync(head);
        var lesson = $"/api/classes/{(await ClassAsync(head)).Text("id")}/lessons/{DemoTemplate.Today}";
        var goran = (await StudentAsync(head, "Goran")).Text("id");
        using var patience = new CancellationTokenSource();
        var planning = Enumerable
            .Range(0, WorkQueue.Places + Environment.ProcessorCount + 20)
            .Select(_ => head.Client.GetAsync($"{path}/remedies", patience.Token))
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
        await head.PostAsync(
                $"{lesson}/happenings",
                new
                {
                    version = (uint?)null,
                    id = Guid.CreateVersion7(),
                    edits = new[]
                    {
                        new
                        {
                            kind = "pause",
                            from = 20,
                            who = "Noor",
                        },
                    },
                }
            )
            .OkAsync();
        Assert.Contains(planning, plan => !plan.IsCompleted);
        var refused = await FirstRefusedAsync(planning);
        Assert.NotNull(refused.Headers.RetryAfter);
        Assert.Equal("urn:zeitplan:problem:busy", (await Task.FromResult(refused).ProblemAsync(429)).Text("type"));
        Assert.True(planning.Count(plan => !plan.IsCompleted) >= WorkQueue.Places / 2);

        // Who leaves gives their place back.
        await patience.CancelAsync();
        await Task.WhenAll(planning).ContinueWith(_ => { }, TaskScheduler.Default);
        await head.GetAsync($"{path}/remedies");
    }

    private static async Task<HttpResponseMessage> FirstRefusedAsync(IEnumerable<Task<HttpResponseMessage>> plans)
    {
        await foreach (var plan in Task.WhenEach(plans))
            if ((await plan).StatusCode == HttpStatusCode.TooManyRequests)
                return await plan;
        throw new InvalidOperationException("Nobody was told to come again later.");
    }
}
