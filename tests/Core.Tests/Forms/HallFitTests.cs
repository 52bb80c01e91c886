using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Tests.Forms;

public sealed class HallFitTests
{
    private static readonly FloorWalk Short = FloorWalk.Of(
        Starter.Short.Positions,
        Starter.Postures,
        Conventions.Default
    );

    [Property]
    public void Nobody_meets_a_wall_while_all_travel_together(byte width, byte depth, byte people)
    {
        var ask = new HallAsk(4 + (width % 16), 4 + (depth % 16), 1 + (people % 40));
        var plan = HallFit.Of(Short, 0.26, ask).Best;
        if (!plan.Fits)
        {
            return;
        }

        Assert.True(plan.Abreast * plan.Rows >= ask.Standing);
        var need = FloorNeed.Of(Short, 0.26, plan.Turned).Reach;
        var lastRight = plan.StartFromLeft + ((plan.Abreast - 1) * 2 * FloorNeed.ArmReach);
        var lastBack = plan.StartFromFront + ((plan.Rows - 1) * 2 * FloorNeed.ArmReach);
        Assert.True(plan.StartFromLeft + need.Left >= -1e-9 && lastRight + need.Right <= ask.Width + 1e-9);
        Assert.True(plan.StartFromFront - need.Front >= -1e-9 && lastBack - need.Back <= ask.Depth + 1e-9);
    }

    [Property]
    public void A_larger_hall_never_fits_fewer(byte width, byte depth, byte people)
    {
        var ask = new HallAsk(4 + (width % 12), 4 + (depth % 12), 1 + (people % 30));
        if (HallFit.Of(Short, 0.26, ask).Best.Fits)
        {
            Assert.True(HallFit.Of(Short, 0.26, ask with { Width = ask.Width + 1, Depth = ask.Depth + 1 }).Best.Fits);
        }
    }

    [Fact]
    public void What_does_not_fit_says_by_how_much_and_what_would()
    {
        var answer = HallFit.Of(Short, 0.26, new(6, 5, 20));
        Assert.False(answer.Best.Fits);
        Assert.Contains("20 do not fit at once", answer.Says[0], StringComparison.Ordinal);
        Assert.Contains("missing", answer.Says[0], StringComparison.Ordinal);
        Assert.Contains(answer.WouldFit, line => line.Contains("at once fit", StringComparison.Ordinal));
    }

    [Fact]
    public void Chairs_and_rail_that_run_short_are_said_and_the_seated_take_their_depth()
    {
        var answer = HallFit.Of(Short, 0.26, new(14, 10, 8, Seated: 6, RailUsers: 5, Chairs: 4, Rail: 3));
        Assert.Contains(
            answer.Says,
            line => line.Contains("6 seated along the back wall take 1.4 m", StringComparison.Ordinal)
        );
        Assert.Contains(answer.Shortages, line => line.StartsWith("2 more chairs", StringComparison.Ordinal));
        Assert.Contains(answer.Shortages, line => line.Contains("holds 3 people; 5 need it", StringComparison.Ordinal));
        Assert.Empty(HallFit.Of(Short, 0.26, new(14, 10, 8, Seated: 4, Chairs: 4)).Shortages);
    }

    [Theory]
    [InlineData(10, 3, 10)]
    [InlineData(2, 3, 0)]
    public void A_walking_drill_turns_before_the_wall(double metres, double step, int steps) =>
        Assert.Equal(steps, HallFit.StepsBeforeTurning(metres, step, 0.26));

    [Theory]
    [InlineData(
        Wall.Left,
        "along the left wall: facing the front it is on their left, facing the back wall on their right"
    )]
    [InlineData(
        Wall.Back,
        "along the back wall: facing the left wall it is on their left, facing the right wall on their right"
    )]
    public void Those_who_hold_on_stand_along_the_wall_of_the_rail(Wall wall, string says) =>
        Assert.Contains(
            HallFit
                .Of(
                    FloorWalk.Of(Starter.Short.Positions, Starter.Postures, Conventions.Default),
                    0.26,
                    new(12, 10, 4, RailUsers: 3, Rail: 4, RailWall: wall)
                )
                .Says,
            said => said.Contains(says, StringComparison.Ordinal)
        );
}
