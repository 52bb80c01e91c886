using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Tests.Forms;

public sealed class LoopTests
{
    private static IEnumerable<PostureText> WithLoop =>
        Starter.Postures.Values.Select(posture => posture.Text).Where(text => text.Loop is not null);

    public static TheoryData<string> Shipped => [.. WithLoop.Select(text => text.Name)];

    [Theory]
    [MemberData(nameof(Shipped))]
    public void Once_round_a_shipped_loop_is_on_the_side_it_began_on_and_nothing_was_done_that_no_body_does(string name)
    {
        var text = Starter.Called(name).Text;
        var round = Round(text);
        var walk = Walk(text, round);
        Assert.Equal(StandsOnLeft(walk.Beats[0].Before), StandsOnLeft(walk.Beats[^1].After));
        var once = Checked(text, text.Counts);
        // What stands again on the other side, and what a count is said to keep, was found in the posture itself.
        Assert.DoesNotContain(
            Checked(text, round),
            finding => finding.Severity <= Severity.Error && once.All(known => known.Rule != finding.Rule)
        );
    }

    [Fact]
    public void A_return_moves_the_hands_wherever_it_moves_the_feet() =>
        Assert.All(
            WithLoop.Where(text => text.Loop!.Return.Length > 0),
            text => Assert.NotEmpty(BodyNotation.Parse(text.Loop!.Body).Actions)
        );

    [Theory]
    [InlineData("Brush Knee", true)]
    [InlineData("Golden Rooster", true)]
    [InlineData("Push", false)]
    [InlineData("Cloud Hands", false)]
    public void A_return_onto_the_other_foot_leads_to_the_other_side(string name, bool other)
    {
        var text = Starter.Called(name).Text;
        var round = Round(text);
        var back = text.Loop!.Return.Length > 0 ? 1 : 0;
        Assert.Equal((text.Counts.Count + back) * (other ? 2 : 1), round.Count);
        Assert.Equal(other ? text.Mirror().Counts[^1].Body : text.Counts[^1].Body, round[^(back + 1)].Body);
        Assert.Equal(other ? text.Loop.Mirror().Body : text.Loop.Body, back > 0 ? round[^1].Body : "");
    }

    [Theory]
    [MemberData(nameof(Shipped))]
    public void The_loop_of_the_other_side_is_the_loop_mirrored(string name)
    {
        var text = Starter.Called(name).Text;
        Assert.Equal(text.Loop!.Mirror(), text.Loop.Mirror().Mirror().Mirror());
        Assert.Equal(
            Round(text).Select(count => (StepNotation.Mirror(count.Feet), BodyNotation.Mirror(count.Body))),
            Round(text.Mirror()).Select(count => count.Mirror().Mirror()).Select(count => (count.Feet, count.Body))
        );
    }

    [Fact]
    public void What_the_hands_do_on_the_way_back_is_read_and_what_is_wrong_with_it_is_told_there() =>
        Assert.Equal(
            "loop.body",
            Assert
                .Single((Starter.Called("Push").Text with { Loop = new("again", "", "R elbwo own") }).Check())
                .Field.Split(':')[0]
        );

    [Fact]
    public void A_hand_that_does_not_come_back_to_where_it_begins_is_found_on_the_way_back_and_the_mend_brings_it_there()
    {
        var text = Starter.Called("Apparent Close").Text;
        var astray = text.Loop! with { Body = text.Loop!.Body + "; R brow outside long" };
        var finding = Assert.Single(OnTheWayBack(text, astray), found => found.Rule == Rule.HandsCarriedOver);
        Assert.Equal(text.Counts.Count + 1, finding.Count);
        Assert.Contains("right hand", finding.Message, StringComparison.Ordinal);
        var mend = Assert.Single(Assert.Single(finding.Mends).Edits);
        Assert.DoesNotContain(
            OnTheWayBack(text, astray with { Body = mend.Body! }),
            found => found.Rule == Rule.HandsCarriedOver
        );
    }

    [Fact]
    public void What_no_body_does_on_the_way_back_is_found_there_until_it_is_kept_as_the_schools_way()
    {
        var text = Starter.Called("Push").Text;
        var loop = new Loop("again", "R 100%; hips right 80", "chest left 60");
        var found = OnTheWayBack(text, loop);
        Assert.NotEmpty(found);
        Assert.All(found, finding => Assert.Equal(text.Counts.Count + 1, finding.Count));
        var kept = found.Select(finding => new OurWay(finding.Rule, Mode.Standing, finding.Count, "as we do it"));
        Assert.All(
            LoopCheck.Run(text.Entry, text.Start, text.Counts, loop, [.. kept], Conventions.Default),
            finding => Assert.Equal("as we do it", finding.AcceptedBecause)
        );
    }

    private static IReadOnlyList<PostureFinding> OnTheWayBack(PostureText text, Loop loop) =>
        LoopCheck.Run(text.Entry, text.Start, text.Counts, loop, [], Conventions.Default);

    private static IReadOnlyList<Count> Round(PostureText text) =>
        text.Loop!.Round(text.Entry, text.Counts, Conventions.Default);

    private static BodyWalk Walk(PostureText text, IReadOnlyList<Count> counts) =>
        PostureBody.Of(text.Entry, text.Start, counts, null, Conventions.Default, Physique.Standard);

    private static IReadOnlyList<PostureFinding> Checked(PostureText text, IReadOnlyList<Count> counts) =>
        PostureCheck.Run(Walk(text, counts), counts, [], Mode.Standing, [], Conventions.Default);

    private static bool StandsOnLeft(Stand stand) => stand.Left.Load > stand.Right.Load;
}
