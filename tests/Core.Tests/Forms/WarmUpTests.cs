using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Tests.Forms;

public sealed class WarmUpTests
{
    [Fact]
    public void Its_pieces_follow_one_another_without_a_gap_however_long_it_lasts()
    {
        for (var minutes = 1; minutes <= 30; minutes++)
        {
            var parts = WarmUp.Within(WarmUp.Shipped, 3, 3 + minutes);
            Assert.Equal(3, parts[0].Start);
            Assert.Equal(3 + minutes, parts[^1].End);
            Assert.All(parts.Zip(parts.Skip(1)), pair => Assert.Equal(pair.First.End, pair.Second.Start));
            Assert.All(parts, part => Assert.True(part.End > part.Start));
            Assert.Equal(
                parts.Select(part => part.What),
                WarmUp.Shipped.Select(piece => piece.What).Where(what => parts.Any(part => part.What == what))
            );
        }
    }

    [Fact]
    public void In_its_own_time_each_piece_has_its_own_minutes() =>
        Assert.Equal(
            WarmUp.Shipped.Select(piece => (piece.What, piece.Minutes)),
            WarmUp.Within(WarmUp.Shipped, 0, WarmUp.Minutes).Select(part => (part.What, part.End - part.Start))
        );

    [Theory]
    [InlineData("waist", 10, null)]
    [InlineData("waist", 9, "warmUp")]
    [InlineData("", 10, "warmUp[0].what")]
    public void It_takes_as_long_as_the_term_plan_counts_on(string what, int minutes, string? wrong) =>
        Assert.Equal(
            wrong is null ? [] : [wrong],
            (Teaching.Default with { WarmUp = [new(what, minutes)] }).Check().Select(problem => problem.Field)
        );

    [Fact]
    public void Without_a_piece_or_with_one_of_no_minutes_there_is_none()
    {
        Assert.Contains((Teaching.Default with { WarmUp = [] }).Check(), problem => problem.Field == "warmUp");
        Assert.Contains(
            (Teaching.Default with { WarmUp = [new("knees", 0), new("waist", 10)] }).Check(),
            problem => problem.Field == "warmUp[0].minutes"
        );
    }
}
