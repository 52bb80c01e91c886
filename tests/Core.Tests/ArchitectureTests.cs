using Zeitplan.Tests;

namespace Zeitplan.Core.Tests;

public sealed class ArchitectureTests
{
    /// <summary>Each room uses only those before it.</summary>
    private static readonly string[] Rooms =
    [
        "Forms",
        "People",
        "Progress",
        "Terms",
        "Terms.Planning",
        "Terms.Plans",
        "Lessons",
    ];

    [Fact]
    public void The_rules_of_the_job_depend_on_nothing_but_the_language() =>
        Assert.All(
            typeof(Problem).Assembly.GetReferencedAssemblies(),
            reference =>
                Assert.True(
                    reference.Name
                        is "System.Runtime"
                            or "System.Runtime.InteropServices"
                            or "System.Collections"
                            or "System.Linq"
                            or "System.Text.RegularExpressions"
                            or "System.Memory"
                            or "System.Text.Json"
                            or "System.Text.Encodings.Web",
                    $"core references {reference.Name}"
                )
        );

    [Fact]
    public void There_is_one_way_through_the_rooms()
    {
        var arrows = (
            from type in typeof(Problem).Assembly.GetTypes()
            let room = RoomOf(type)
            where room >= 0
            from other in UsedTypes.UsedBy(type)
            where RoomOf(other) > room
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
                    typeof(Problem).Assembly.GetTypes(),
                    type =>
                        RoomOf(type) == room.Index
                        && (room.Index == 0 || UsedTypes.UsedBy(type).Any(used => RoomOf(used) == 0))
                )
        );

    private static int RoomOf(Type type) =>
        Array.FindLastIndex(
            Rooms,
            room => $"{type.Namespace}.".StartsWith($"Zeitplan.Core.{room}.", StringComparison.Ordinal)
        );
}
