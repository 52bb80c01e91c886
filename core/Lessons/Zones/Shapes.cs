using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Lessons.Zones;

/// <summary>The rectangles a group can stand in, the first ones first.</summary>
internal static class Shapes
{
    /// <summary>Everybody moves at once, so neighbours never meet: they need their own reach between them, and the group
    /// its travel once (domain.md 4.1).</summary>
    private const double Apart = 2 * FloorNeed.ArmReach;
    private const double SeatWidth = 1.5;
    private const double SeatDepth = 1.4;

    /// <summary>From the wall to behind whoever holds on.</summary>
    private const double AtTheWall = 1.8;
    public const int MostWaves = 3;

    /// <summary>Rectangles at no place yet, few lines and no turn first.</summary>
    public static IEnumerable<Zone> Of(FloorAsk ask, int part, int waves)
    {
        var shorter = part > 0 ? ask.Parts[part].What : null;
        var people = Math.Max(1, (ask.People + waves - 1) / waves);
        foreach (var rows in Enumerable.Range(1, people).Where(rows => rows == 1 || Abreast(rows) < Abreast(rows - 1)))
        {
            var abreast = Abreast(rows);
            if (ask.Support == Support.Seat)
            {
                yield return new(
                    ask.GroupId,
                    0,
                    0,
                    abreast * SeatWidth,
                    rows * SeatDepth,
                    abreast,
                    rows,
                    waves,
                    0,
                    SeatWidth / 2,
                    SeatDepth / 2
                );
                continue;
            }

            var (more, deeper, reach) = ((abreast - 1) * Apart, (rows - 1) * Apart, ask.Parts[part].Reach);
            yield return new(
                ask.GroupId,
                0,
                0,
                reach.Width + more,
                reach.Depth + deeper,
                abreast,
                rows,
                waves,
                0,
                -reach.Left,
                reach.Front,
                shorter
            );
            if (Math.Abs(reach.Width - reach.Depth) > 0.5)
            {
                yield return new(
                    ask.GroupId,
                    0,
                    0,
                    reach.Depth + more,
                    reach.Width + deeper,
                    abreast,
                    rows,
                    waves,
                    90,
                    -reach.Back,
                    -reach.Left,
                    shorter
                );
            }
        }

        int Abreast(int rows) => (people + rows - 1) / rows;
    }

    /// <summary>A line along the rail's wall, in the middle of it; one group beside the other.</summary>
    public static IEnumerable<Zone> AtTheRail(HallFloor hall, IReadOnlyList<FloorAsk> asks)
    {
        var aside = hall.RailWall is Wall.Left or Wall.Right;
        var from = ((aside ? hall.Depth : hall.Width) - asks.Sum(Length)) / 2;
        foreach (var ask in asks)
        {
            var (left, front) = hall.RailWall switch
            {
                Wall.Left => (0, from),
                Wall.Right => (hall.Width - AtTheWall, from),
                Wall.Front => (from, 0),
                _ => (from, hall.Depth - AtTheWall),
            };
            yield return new(
                ask.GroupId,
                left,
                front,
                aside ? AtTheWall : Length(ask),
                aside ? Length(ask) : AtTheWall,
                aside ? 1 : Math.Max(1, ask.People),
                aside ? Math.Max(1, ask.People) : 1,
                1,
                0,
                aside ? AtTheWall / 2 : FirstAtTheRail,
                aside ? FirstAtTheRail : AtTheWall / 2
            );
            from += Length(ask);
        }
    }

    private const double BesideTheRail = 0.3;
    private const double FirstAtTheRail = BesideTheRail + (HallFit.RailEach / 2);

    private static double Length(FloorAsk ask) => (Math.Max(1, ask.People) * HallFit.RailEach) + (2 * BesideTheRail);
}
