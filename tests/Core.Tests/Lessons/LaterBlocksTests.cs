using FsCheck.Xunit;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Core.Tests.Lessons;

public sealed class LaterBlocksTests
{
    private static readonly Guid Copper = Guid.NewGuid();

    private static ArrangedBlock Block(int start, int end, BlockKind kind, Guid? cohort = null) =>
        new(start, end, cohort, kind, kind.ToString(), null, [], "");

    private static readonly IReadOnlyList<ArrangedBlock> Evening =
    [
        Block(0, 10, BlockKind.WarmUp),
        Block(10, 20, BlockKind.New, Copper),
        Block(20, 40, BlockKind.OwnPractice, Copper),
        Block(25, 27, BlockKind.Visit, Copper),
        Block(40, 75, BlockKind.OwnPractice, Copper),
        Block(75, 85, BlockKind.Together),
        Block(85, 90, BlockKind.Settle),
    ];

    private static IEnumerable<(BlockKind, int, int)> Later(int from, int until) =>
        LaterBlocks.Of(Evening, from, until).Select(part => (Evening[part.Block].Kind, part.Start, part.End));

    [Fact]
    public void What_is_still_to_come_comes_later_and_what_has_no_room_gives_way() =>
        Assert.Equal(
            [
                (BlockKind.WarmUp, 0, 10),
                (BlockKind.New, 10, 15),
                (BlockKind.New, 27, 32),
                (BlockKind.OwnPractice, 32, 52),
                (BlockKind.Visit, 37, 39),
                (BlockKind.OwnPractice, 52, 75),
                (BlockKind.Together, 75, 85),
                (BlockKind.Settle, 85, 90),
            ],
            Later(15, 27)
        );

    [Fact]
    public void A_lesson_that_stands_until_its_end_keeps_what_is_left_of_the_quiet() =>
        Assert.Equal((BlockKind.Settle, 87, 90), Later(70, 87).Last());

    [Property]
    public void Nobody_has_a_gap_but_the_minutes_that_are_lost(byte from, byte lost)
    {
        var (start, until) = (from % 90, Math.Min(90, (from % 90) + (lost % 30)));
        var covered = LaterBlocks
            .Of(Evening, start, until)
            .Where(part => Evening[part.Block].Kind != BlockKind.Visit)
            .SelectMany(part => Enumerable.Range(part.Start, part.End - part.Start))
            .Order();
        Assert.Equal(Enumerable.Range(0, 90).Where(minute => minute < start || minute >= until), covered);
    }
}
