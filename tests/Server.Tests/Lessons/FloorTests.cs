using System.Text.Json;

namespace Zeitplan.Server.Tests.Lessons;

/// <summary>Who works where in the hall.</summary>
public sealed class FloorTests(DemoTemplate template) : ArrangingTests(template)
{
    [Fact]
    public async Task Whoever_sits_among_those_who_stand_needs_a_chair_and_is_said_with_their_cohort()
    {
        var head = await HeadAsync();
        var path = (await ComingAsync(head)).Replace("/arrangement", "/floor", StringComparison.Ordinal);
        Assert.Equal(0, (await head.GetAsync(path)).GetProperty("supported").GetArrayLength());
        await RunAsync("update students set usual_mode = 'Seat/Still' where given_name = 'Lucia'");
        await RunAsync("update halls set chairs = 0");
        var floor = await head.GetAsync(path);
        var its = Assert.Single(floor.GetProperty("supported").EnumerateArray());
        Assert.Equal((1, 0), (its.GetProperty("sitting").GetInt32(), its.GetProperty("holding").GetInt32()));
        Assert.All(
            floor.GetProperty("stretches").EnumerateArray(),
            stretch =>
                Assert.Contains(
                    "1 more chair is needed: the hall has 0.",
                    stretch.GetProperty("says").EnumerateArray().Select(line => line.GetString())
                )
        );
    }

    [Fact]
    public async Task Everybody_has_a_place_on_the_floor_in_every_minute_or_it_is_said()
    {
        var head = await HeadAsync();
        var path = await ComingAsync(head);
        var cohorts = (await head.GetAsync(path)).GetProperty("cohorts").EnumerateArray().ToList();
        var floor = await head.GetAsync(path.Replace("/arrangement", "/floor", StringComparison.Ordinal));
        var minute = 0;
        foreach (var stretch in floor.GetProperty("stretches").EnumerateArray())
        {
            Assert.Equal(minute, stretch.GetProperty("start").GetInt32());
            minute = stretch.GetProperty("end").GetInt32();
            var places = stretch.GetProperty("zones").EnumerateArray().Select(zone => zone.Text("groupId")).ToList();
            var says = string.Join(' ', stretch.GetProperty("says").EnumerateArray().Select(line => line.GetString()));
            Assert.All(
                cohorts,
                cohort =>
                    Assert.True(
                        places.Contains(cohort.Text("id"))
                            || places.Contains($"{Guid.Empty}")
                            || says.Contains($"{cohort.Text("name")} has no room", StringComparison.Ordinal)
                    )
            );
        }

        Assert.Equal(90, minute);
        Assert.DoesNotContain(
            floor.GetProperty("stretches").EnumerateArray().SelectMany(its => its.GetProperty("says").EnumerateArray()),
            says => says.GetString()!.Contains("has no room:", StringComparison.Ordinal)
        );
    }
}
