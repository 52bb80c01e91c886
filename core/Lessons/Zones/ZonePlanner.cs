using System.Globalization;
using System.Runtime.InteropServices;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Lessons.Zones;

/// <summary>
/// Gives every group its rectangle of the hall (domain.md 4.4, "The floor"): none meets another, who holds on is at the
/// rail's wall, who sits is at the back, where the way out is shortest. Each has one place for the whole lesson if that can
/// be, and in it does as much of its material as there is room for. Where it cannot be, they move; what has no room even
/// so goes in waves, or it is said that it has none.
/// </summary>
public static class ZonePlanner
{
    private const double FromTheWall = 0.2;
    private const double Between = 0.3;
    private const int Tries = 40;

    /// <summary>A place for the whole lesson is looked for once, and longer.</summary>
    private const int TriesForAll = 400;
    private const double Chance = 0.3;

    public static IReadOnlyList<FloorStretch> Of(HallFloor hall, IReadOnlyList<FloorTime> times)
    {
        List<FloorStretch> stretches = [];
        var homes = Homes(hall, times);
        var before = homes;
        foreach (var time in times)
        {
            var (zones, says) = Place(hall, time.Asks, before);
            if (stretches is [.., var last] && zones.SequenceEqual(last.Zones) && says.SequenceEqual(last.Says))
            {
                stretches[^1] = last with { End = time.End };
            }
            else
            {
                stretches.Add(new(time.Start, time.End, zones, Moved(stretches, zones), says));
            }

            before = homes.Count > 0 ? homes : zones;
        }

        return stretches;
    }

    private static List<Guid> Moved(List<FloorStretch> stretches, IReadOnlyList<Zone> zones) =>
        [
            .. zones
                .Where(zone =>
                    stretches.SelectMany(stretch => stretch.Zones).LastOrDefault(was => was.GroupId == zone.GroupId)
                        is { } was
                    && !was.Overlaps(zone)
                )
                .Select(zone => zone.GroupId),
        ];

    /// <summary>A place for each group for the whole lesson, as large as all of them leave it; none where there is no room
    /// for the least that each has to do.</summary>
    private static IReadOnlyList<Zone> Homes(HallFloor hall, IReadOnlyList<FloorTime> times)
    {
        var most = times
            .SelectMany(time => time.Asks)
            .Where(ask => ask.GroupId != Guid.Empty)
            .GroupBy(ask => ask.GroupId)
            .Select(same =>
                same.First() with
                {
                    Parts =
                    [
                        .. Enumerable
                            .Range(0, same.Max(ask => ask.Parts.Count))
                            .Select(part => new FloorPart(
                                "",
                                same.Select(ask => ask.Parts[Math.Min(part, ask.Parts.Count - 1)].Reach)
                                    .Aggregate(Area.Around)
                            )),
                    ],
                }
            )
            .ToList();
        var does = most.ToDictionary(ask => ask.GroupId, ask => (Part: ask.Parts.Count - 1, Waves: 1));
        IReadOnlyList<Zone>? homes;
        while ((homes = Pack(hall, most, ask => does[ask.GroupId], [], TriesForAll)) is null)
        {
            if (!Less(most, does))
            {
                return [];
            }
        }

        // Nobody takes turns who need not; then whoever lacks the most does more.
        foreach (var ask in most.Where(ask => does[ask.GroupId].Waves > 1))
        {
            Widen(ask, now => now.Waves > 1 ? (now.Part, now.Waves - 1) : null);
        }

        foreach (var ask in most.OrderByDescending(ask => Least(ask, 0, 1)))
        {
            Widen(ask, now => now.Part > 0 ? (now.Part - 1, now.Waves) : null);
        }

        return homes;

        void Widen(FloorAsk ask, Func<(int Part, int Waves), (int Part, int Waves)?> more)
        {
            while (more(does[ask.GroupId]) is { } wanted)
            {
                var now = does[ask.GroupId];
                does[ask.GroupId] = wanted;
                if (Pack(hall, most, ask => does[ask.GroupId], []) is not { } larger)
                {
                    does[ask.GroupId] = now;
                    return;
                }

                homes = larger;
            }
        }
    }

    private static (IReadOnlyList<Zone> Zones, IReadOnlyList<string> Says) Place(
        HallFloor hall,
        IReadOnlyList<FloorAsk> asks,
        IReadOnlyList<Zone> before
    )
    {
        List<string> says =
        [
            .. HallFit.Shortages(asks.Sum(ask => ask.Sitting), hall.Chairs, asks.Sum(ask => ask.Holding), hall.Rail),
        ];
        var does = asks.ToDictionary(ask => ask.GroupId, _ => (Part: 0, Waves: 1));
        var left = asks.ToList();
        while (left.Count > 0)
        {
            if (
                Kept(left, before, does) is { } zones
                || (zones = Around(hall, left, before, does)) is not null
                || (zones = Pack(hall, left, ask => does[ask.GroupId], [])) is not null
            )
            {
                says.AddRange(
                    zones.Where(zone => zone.Waves > 1).Join(left, zone => zone.GroupId, ask => ask.GroupId, InTurns)
                );
                var order = asks.Index().ToDictionary(ask => ask.Item.GroupId, ask => ask.Index);
                return ([.. zones.OrderBy(zone => order[zone.GroupId])], says);
            }

            if (!Less(left, does))
            {
                var gone = left.MaxBy(ask => Least(ask, does[ask.GroupId].Part, 1))!;
                left.Remove(gone);
                says.Add(NoRoom(gone, left));
            }
        }

        return ([], says);
    }

    private static string InTurns(Zone zone, FloorAsk ask) =>
        $"{ask.Name} has no room for all {ask.People} at once: in {zone.Waves} waves of {(ask.People + zone.Waves - 1) / zone.Waves}.";

    /// <summary>The largest of them does a shorter part, or goes in more waves; false where nothing is left to give.</summary>
    private static bool Less(List<FloorAsk> asks, Dictionary<Guid, (int Part, int Waves)> does)
    {
        if (Largest(ask => does[ask.GroupId].Part < ask.Parts.Count - 1) is { } shorter)
        {
            does[shorter.GroupId] = (does[shorter.GroupId].Part + 1, 1);
            return true;
        }

        if (
            Largest(ask =>
                ask.Support == Support.None
                && ask.People > does[ask.GroupId].Waves
                && does[ask.GroupId].Waves < Shapes.MostWaves
            ) is
            { } slower
        )
        {
            does[slower.GroupId] = (does[slower.GroupId].Part, does[slower.GroupId].Waves + 1);
            return true;
        }

        return false;

        FloorAsk? Largest(Func<FloorAsk, bool> could) =>
            asks.Where(could).MaxBy(ask => Least(ask, does[ask.GroupId].Part, does[ask.GroupId].Waves));
    }

    /// <summary>The least floor a group needs, square metres.</summary>
    private static double Least(FloorAsk ask, int part, int waves) =>
        Shapes.Of(ask, part, waves).Min(zone => zone.Width * zone.Depth);

    private static string NoRoom(FloorAsk gone, List<FloorAsk> left)
    {
        var other = left.FirstOrDefault(ask => ask.Support == Support.None)?.Name;
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{gone.Name} has no room: one of them needs {gone.Parts[^1].Reach.Width:0.0} × {gone.Parts[^1].Reach.Depth:0.0} m. {(other is null ? "Take a larger hall, or do it on the spot." : $"Let it go after {other}, or do it on the spot.")}"
        );
    }

    /// <summary>Everybody stays in the place they have, and does there what has room.</summary>
    private static IReadOnlyList<Zone>? Kept(
        List<FloorAsk> asks,
        IReadOnlyList<Zone> before,
        Dictionary<Guid, (int Part, int Waves)> does
    )
    {
        var zones = asks.Select(ask => Staying(ask, before, does[ask.GroupId])).OfType<Zone>().ToList();
        return zones.Count == asks.Count && !Meet(zones) ? zones : null;
    }

    /// <summary>Who has to move goes around those who stay.</summary>
    private static IReadOnlyList<Zone>? Around(
        HallFloor hall,
        List<FloorAsk> asks,
        IReadOnlyList<Zone> before,
        Dictionary<Guid, (int Part, int Waves)> does
    )
    {
        List<Zone> stay = [];
        foreach (var ask in asks)
        {
            if (Staying(ask, before, does[ask.GroupId]) is { } zone && !stay.Exists(zone.Overlaps))
            {
                stay.Add(zone);
            }
        }

        return stay.Count == 0
            ? null
            : Pack(
                hall,
                [.. asks.Where(ask => stay.TrueForAll(zone => zone.GroupId != ask.GroupId))],
                ask => does[ask.GroupId],
                stay
            );
    }

    private static Zone? Staying(FloorAsk ask, IReadOnlyList<Zone> before, (int Part, int Waves) does)
    {
        if (before.FirstOrDefault(zone => zone.GroupId == ask.GroupId) is not { } place)
        {
            return null;
        }

        return ask.Support is Support.Hold or Support.Touch ? place
            : Enumerable
                .Range(does.Waves, Math.Max(1, place.Waves - does.Waves + 1))
                .SelectMany(waves =>
                    Enumerable
                        .Range(does.Part, ask.Parts.Count - does.Part)
                        .SelectMany(part => Shapes.Of(ask, part, waves))
                )
                .FirstOrDefault(shape => shape.Width <= place.Width + 1e-9 && shape.Depth <= place.Depth + 1e-9)
                is { } shape
                ? shape with
                {
                    Left = place.Left,
                    Front = place.Front,
                    Width = place.Width,
                    Depth = place.Depth,
                }
            : null;
    }

    private static bool Meet(List<Zone> zones) =>
        zones.Index().Any(one => zones.Skip(one.Index + 1).Any(one.Item.Overlaps));

    /// <summary>Puts groups beside each other from the front on, in many orders; null where none holds all.</summary>
    private static IReadOnlyList<Zone>? Pack(
        HallFloor hall,
        List<FloorAsk> asks,
        Func<FloorAsk, (int Part, int Waves)> does,
        List<Zone> stay,
        int tries = Tries
    )
    {
        List<Zone> there = [.. stay];
        foreach (
            var zone in Shapes.AtTheRail(hall, [.. asks.Where(ask => ask.Support is Support.Hold or Support.Touch)])
        )
        {
            if (there.Exists(zone.Overlaps) || zone.Right > hall.Width + 1e-9 || zone.Back > hall.Depth + 1e-9)
            {
                return null;
            }

            there.Add(zone);
        }

        var free = asks.Where(ask => ask.Support is Support.None or Support.Seat)
            .Select(ask => (Ask: ask, Shapes: Shapes.Of(ask, does(ask).Part, does(ask).Waves).ToList()))
            .OrderByDescending(its => its.Ask.Support)
            .ThenByDescending(its => its.Shapes.Min(Floor))
            .ToList();
        if (there.Sum(Floor) + free.Sum(its => its.Shapes.Min(Floor)) > hall.Width * hall.Depth)
        {
            return null;
        }

        var random = new Random(1);
        for (var attempt = 0; attempt < tries; attempt++)
        {
            List<Zone> zones = [.. there];
            if (free.TrueForAll(its => Put(hall, its.Ask, its.Shapes, zones, attempt == 0 ? null : random)))
            {
                return zones;
            }

            random.Shuffle(CollectionsMarshal.AsSpan(free));
        }

        return null;

        static double Floor(Zone zone) => zone.Width * zone.Depth;
    }

    /// <param name="chance">Now and then something else than the nearest place leaves more for the others.</param>
    private static bool Put(HallFloor hall, FloorAsk ask, List<Zone> shapes, List<Zone> zones, Random? chance)
    {
        Zone? best = null;
        var least = double.MaxValue;
        foreach (var shape in shapes)
        {
            foreach (
                var left in zones
                    .Select(zone => zone.Right + Between)
                    .Prepend(FromTheWall)
                    .Where(left => left + shape.Width <= hall.Width - FromTheWall)
            )
            {
                // Whoever sits is at the back, from where the way out is shortest; all others from the front on.
                foreach (
                    var front in ask.Support == Support.Seat
                        ? [hall.Depth - FromTheWall - shape.Depth]
                        : zones.Select(zone => zone.Back + Between).Prepend(FromTheWall)
                )
                {
                    var zone = shape with { Left = left, Front = front };
                    var cost =
                        ((zone.Back * 10) + left + (shape.Turned > 0 ? 4 : 0) + (shape.Rows > 3 ? 5 : 0))
                        * (1 + (Chance * (chance?.NextDouble() ?? 0)));
                    if (
                        front >= 0
                        && zone.Back <= hall.Depth - FromTheWall + 1e-9
                        && cost < least
                        && !zones.Exists(zone.Overlaps)
                    )
                    {
                        (best, least) = (zone, cost);
                    }
                }
            }
        }

        if (best is not null)
        {
            zones.Add(best);
        }

        return best is not null;
    }
}
