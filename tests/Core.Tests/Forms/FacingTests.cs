using FsCheck.Xunit;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Tests.Forms;

public sealed class FacingTests
{
    [Property]
    public void A_facing_is_always_on_the_circle(int degrees) =>
        Assert.InRange(Facing.FromDegrees(degrees).Degrees, 0, 359);

    [Property]
    public void Mirroring_twice_gives_the_same_facing(int degrees) =>
        Assert.Equal(Facing.FromDegrees(degrees), Facing.FromDegrees(degrees).Mirror().Mirror());

    [Property]
    public void Turns_add_up(int start, int first, int second) =>
        Assert.Equal(Facing.FromDegrees(start).Turn(first % 1000).Turn(second % 1000), Facing.FromDegrees(start).Turn((first % 1000) + (second % 1000)));

    [Property]
    public void The_shortest_turn_leads_there_and_is_at_most_half_a_circle(int from, int to)
    {
        var (a, b) = (Facing.FromDegrees(from), Facing.FromDegrees(to));
        Assert.Equal(b, a.Turn(a.TurnTo(b)));
        Assert.InRange(a.TurnTo(b), -179, 180);
    }

    [Theory]
    [InlineData(0, "12 o'clock")]
    [InlineData(45, "1:30")]
    [InlineData(90, "3 o'clock")]
    [InlineData(225, "7:30")]
    [InlineData(330, "11 o'clock")]
    public void A_clock_calls_the_direction(int degrees, string called) =>
        Assert.Equal(called, Facing.FromDegrees(degrees).Clock());

    [Fact]
    public void A_position_that_does_not_end_where_its_turn_leads_is_found_once()
    {
        Position[] form = [At(0, 0), At(90, 90), At(-45, 90), At(0, 90)];
        var finding = Assert.Single(FacingCheck.Run(form));
        Assert.Equal((form[2].Id, 45, 90, 0), (finding.PositionId, finding.Reached.Degrees, finding.Written.Degrees, finding.TurnThatFits));
    }

    [Property]
    public void A_form_written_by_its_turns_has_no_finding_and_neither_has_its_mirror(int[] turns)
    {
        var facing = Facing.FromDegrees(0);
        var form = turns.Select(turn => new Position(Guid.NewGuid(), Guid.Empty, Guid.Empty, Side.Left, turn % 360, facing = facing.Turn(turn % 360))).ToList();
        Assert.Empty(FacingCheck.Run(form));
        Assert.Empty(FacingCheck.Run([.. form.Select(position => position with { Turn = -position.Turn, Facing = position.Facing.Mirror() })]));
    }

    [Property]
    public void Every_mend_that_is_offered_mends(int[] turns, int[] facings)
    {
        var form = turns.Zip(facings, At).ToList();
        foreach (var finding in FacingCheck.Run(form))
        {
            var at = form.FindIndex(position => position.Id == finding.PositionId);
            form[at] = form[at] with { Turn = finding.TurnThatFits };
        }

        Assert.Empty(FacingCheck.Run(form));
    }

    private static Position At(int turn, int facing) => new(Guid.NewGuid(), Guid.Empty, Guid.Empty, Side.Symmetric, turn % 360, Facing.FromDegrees(facing));
}
