using Zeitplan.Server.School;
using Zeitplan.Tests;

namespace Zeitplan.Server.Tests;

public sealed class ArchitectureTests
{
    private static readonly string[] Rooms = ["Forms", "People", "Progress", "Terms", "Lessons"];

    /// <summary>A room of the server uses the rooms before it, and of the rules those of its own room and of the ones
    /// before.</summary>
    [Fact]
    public void There_is_one_way_through_the_rooms()
    {
        var arrows = (
            from type in typeof(SchoolClock).Assembly.GetTypes()
            let room = RoomOf(type, "Server")
            where room >= 0
            from other in UsedTypes.UsedBy(type)
            where RoomOf(other, "Server") > room || RoomOf(other, "Core") > room
            select $"{type.FullName} uses {other.FullName}"
        ).ToHashSet();
        Assert.True(arrows.Count == 0, string.Join(Environment.NewLine, arrows.Order()));
    }

    [Fact]
    public void Every_room_is_looked_at() =>
        Assert.All(
            Rooms.Index(),
            room =>
                Assert.Contains(
                    typeof(SchoolClock).Assembly.GetTypes(),
                    type =>
                        RoomOf(type, "Server") == room.Index
                        && UsedTypes.UsedBy(type).Any(used => RoomOf(used, "Core") == room.Index)
                )
        );

    private static int RoomOf(Type type, string layer) =>
        Array.FindIndex(
            Rooms,
            room => $"{type.Namespace}.".StartsWith($"Zeitplan.{layer}.{room}.", StringComparison.Ordinal)
        );
}
