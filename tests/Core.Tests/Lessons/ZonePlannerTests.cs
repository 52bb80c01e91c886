using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Lessons.Zones;

namespace Zeitplan.Core.Tests.Lessons;

public sealed class ZonePlannerTests
{
    private static readonly HallFloor LowerHall = new(14, 10.5, 6.6, Wall.Left, 12);

    private static FloorAsk Ask(int number, int people, double width, double depth, Support support = Support.None) =>
        new(
            new(number, 0, 0, [0, 0, 0, 0, 0, 0, 0, 0]),
            $"Cohort {number}",
            people,
            support,
            [new FloorPart("all of it", new(-width / 2, -depth / 2, width / 2, depth / 2))]
        );

    private static FloorStretch One(HallFloor hall, params FloorAsk[] asks) =>
        Assert.Single(ZonePlanner.Of(hall, [new(0, 10, asks)]));

    [Property(MaxTest = 200)]
    public void Zones_are_in_the_hall_meet_nobody_and_hold_everybody_or_it_is_said(byte[] sizes)
    {
        var asks = sizes
            .Take(8)
            .Select(
                (size, at) =>
                    Ask(
                        at + 1,
                        1 + (size % 9),
                        1.5 + (size % 5),
                        1.5 + (size % 3),
                        at == 1 ? Support.Hold
                            : at == 2 ? Support.Seat
                            : Support.None
                    )
            )
            .ToArray();
        var stretch = One(LowerHall, asks);
        Assert.All(
            stretch.Zones,
            zone =>
                Assert.True(
                    zone.Left >= 0
                        && zone.Front >= 0
                        && zone.Right <= LowerHall.Width + 1e-6
                        && zone.Back <= LowerHall.Depth + 1e-6
                )
        );
        Assert.DoesNotContain(
            stretch.Zones.SelectMany(one => stretch.Zones.Where(other => other != one && one.Overlaps(other))),
            _ => true
        );
        foreach (var ask in asks)
        {
            var zone = stretch.Zones.FirstOrDefault(zone => zone.GroupId == ask.GroupId);
            Assert.True(
                zone is not null
                    ? zone.Abreast * zone.Rows * zone.Waves >= ask.People
                    : stretch.Says.Any(says => says.StartsWith($"{ask.Name} has no room", StringComparison.Ordinal))
            );
        }
    }

    [Fact]
    public void Who_holds_on_is_at_the_wall_of_the_rail_and_who_sits_at_the_back()
    {
        var zones = One(
            LowerHall,
            Ask(1, 6, 1.5, 1.5, Support.Hold),
            Ask(2, 6, 4, 3),
            Ask(3, 4, 1, 1, Support.Seat)
        ).Zones;
        Assert.Equal((0, 6), (zones[0].Left, zones[0].Rows));
        Assert.Equal(10.3, zones[2].Back, 6);
        Assert.True(zones[1].Front < 1);
    }

    [Fact]
    public void Nobody_moves_while_their_place_holds_what_they_do()
    {
        var stretches = ZonePlanner.Of(
            LowerHall,
            [
                new(0, 10, [Ask(1, 6, 2, 2), Ask(2, 5, 5, 3)]),
                new(10, 20, [Ask(1, 6, 4, 3), Ask(2, 5, 2, 2)]),
                new(20, 30, [Ask(1, 6, 2, 2), Ask(2, 5, 5, 3)]),
            ]
        );
        Assert.All(stretches, stretch => Assert.Empty(stretch.Moved));
        Assert.Equal(stretches[0].Zones, stretches[2].Zones);
    }

    [Fact]
    public void A_hall_of_twelve_square_metres_for_twenty_says_what_would_do()
    {
        var stretch = One(new(4, 3, 0, Wall.Back, 2), Ask(1, 14, 4, 3), Ask(2, 6, 1, 1, Support.Seat));
        Assert.Contains(stretch.Says, says => says.Contains("has no room", StringComparison.Ordinal));
        Assert.Contains("4 more chairs are needed: the hall has 2.", stretch.Says);
        Assert.Contains(
            "The hall has no rail: use a wall or braced chairs.",
            One(new(9, 9, 0, Wall.Back, 0), Ask(1, 3, 1, 1, Support.Hold)).Says
        );
    }

    [Fact]
    public void Whoever_sits_or_holds_on_among_those_who_stand_needs_a_chair_and_the_rail_as_well()
    {
        FloorAsk[] asks = [Ask(1, 6, 1, 1) with { Sitting = 1, Holding = 2 }, Ask(2, 4, 1, 1, Support.Seat)];
        Assert.Empty(One(new(12, 9, 2, Wall.Back, 5), asks).Says);
        Assert.Equal(
            ["1 more chair is needed: the hall has 4.", "The hall has no rail: use a wall or braced chairs."],
            One(new(12, 9, 0, Wall.Back, 4), asks).Says
        );
    }

    [Fact]
    public void Who_has_no_room_for_all_of_it_does_a_part_and_stays_where_they_are()
    {
        FloorPart Part(string what, double width) => new(what, new(-1, -1.5, width - 1, 1.5));
        FloorAsk Section(int number) =>
            Ask(number, 5, 1, 1) with
            {
                Parts = [Part("the section", 8), Part("its second half", 4), Part("Push", 2)],
            };
        var stretch = One(LowerHall, Section(1), Section(2), Section(3));
        Assert.Empty(stretch.Says);
        Assert.Equal(3, stretch.Zones.Count);
        Assert.Contains(stretch.Zones, zone => zone.Shorter is not null);
        Assert.Contains(stretch.Zones, zone => zone.Shorter is null or "its second half");
    }

    [Fact]
    public void What_has_no_room_at_once_goes_in_waves()
    {
        var stretch = One(new(7, 7, 0, Wall.Back, 0), Ask(1, 16, 3, 3));
        Assert.Equal(2, Assert.Single(stretch.Zones).Waves);
        Assert.Contains(stretch.Says, says => says.EndsWith("in 2 waves of 8.", StringComparison.Ordinal));
    }
}
