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
        Assert.Equal(
            Facing.FromDegrees(start).Turn(first % 1000).Turn(second % 1000),
            Facing.FromDegrees(start).Turn((first % 1000) + (second % 1000))
        );

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
        var finding = Assert.Single(Sums(form));
        Assert.Equal(form[2].Id, finding.PositionId);
        Assert.Equal("A turn of -45° from 3 o'clock leads to 1:30; 3 o'clock is written.", finding.Message);
        Assert.Equal([(0, null), (null, 45)], finding.Mends.Select(mend => (mend.Turn, mend.Facing?.Degrees)));
    }

    [Property]
    public void A_form_written_by_its_turns_has_no_finding_and_neither_has_its_mirror(int[] turns)
    {
        var facing = Facing.FromDegrees(0);
        var form = turns.Select(turn => At(turn, (facing = facing.Turn(turn % 360)).Degrees)).ToList();
        Assert.Empty(Sums(form));
        Assert.Empty(
            Sums([
                .. form.Select(position => position with { Turn = -position.Turn, Facing = position.Facing.Mirror() }),
            ])
        );
    }

    [Property]
    public void Every_mend_that_is_offered_mends(int[] turns, int[] facings)
    {
        var form = turns.Zip(facings, At).ToList();
        foreach (var finding in Sums(form))
        {
            var at = form.FindIndex(position => position.Id == finding.PositionId);
            form[at] = form[at] with { Turn = finding.Mends[0].Turn!.Value };
        }

        Assert.Empty(Sums(form));
    }

    [Theory]
    [InlineData(FacingNotation.Clock, 0, "3 o'clock")]
    [InlineData(FacingNotation.Compass, 0, "east")]
    [InlineData(FacingNotation.Compass, 180, "west")]
    [InlineData(FacingNotation.Hall, 0, "right wall")]
    [InlineData(FacingNotation.Degrees, 0, "90°")]
    public void One_angle_is_printed_in_four_ways(FacingNotation notation, int zero, string said) =>
        Assert.Equal(
            said,
            (Conventions.Default with { Facing = notation, ZeroIsCompass = zero }).Say(Facing.FromDegrees(90))
        );

    private static readonly Posture Quiet = Material.Posture("Quiet", Side.Symmetric, counts: 1);

    private static List<Finding> Sums(IReadOnlyList<Position> positions) =>
        [
            .. FormCheck
                .Run(
                    new("Form", [new(Guid.Empty, "One")], positions),
                    new Dictionary<Guid, Posture> { [Quiet.Id] = Quiet },
                    Conventions.Default
                )
                .Where(finding => finding.Rule == Rule.FacingSum),
        ];

    private static Position At(int turn, int facing) =>
        new(Guid.NewGuid(), Guid.Empty, Quiet.Id, Side.Symmetric, turn % 360, Facing.FromDegrees(facing));
}
