using System.Runtime.InteropServices.JavaScript;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Engine;

public static partial class FormsEngine
{
    /// <summary>A lesson that goes on later while nobody can arrange it anew.</summary>
    /// <param name="blocks">Three numbers a block: its first minute, the minute after its last, and 1 where it holds
    /// everybody.</param>
    /// <returns>Three numbers a part: the place of its block, its first minute, the minute after its last.</returns>
    [JSExport]
    public static int[] LaterBlocks(int[] blocks, int from, int until) =>
        [
            .. Core
                .Lessons.Arranging.LaterBlocks.Of(
                    [
                        .. blocks
                            .Chunk(3)
                            .Select(block => new ArrangedBlock(
                                block[0],
                                block[1],
                                block[2] == 1 ? null : Guid.Empty,
                                BlockKind.OwnPractice,
                                "",
                                null,
                                [],
                                ""
                            )),
                    ],
                    from,
                    until
                )
                .SelectMany(part => new[] { part.Block, part.Start, part.End }),
        ];
}
