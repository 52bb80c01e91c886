using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>Each rule of the body with a case that breaks it and one that does not (domain.md 4.1, "The body").</summary>
[Properties(Arbitrary = [typeof(Bodies)])]
public sealed class BodyRuleTests
{
    [Theory]
    [InlineData("L shoulder across long; chest square", Rule.HandBeyondReach, Severity.Error)]
    [InlineData("R navel across near palm in fingers front fist", Rule.ThroughBody, Severity.Error)]
    [InlineData("R ear across side palm down fingers in", Rule.ThroughBody, Severity.Error)]
    [InlineData(
        "R chest across bent palm down fingers in; L chest across bent palm down fingers in",
        Rule.ThroughBody,
        Severity.Error
    )]
    [InlineData("R chest centre rear palm in fingers down", Rule.ElbowNobodyHas, Severity.Impossible)]
    [InlineData("R shoulder own near palm up fingers back", Rule.WristBent, Severity.Impossible)]
    [InlineData("R brow own bent palm front fingers in fist", Rule.ElbowAboveShoulder, Severity.Caution)]
    public void What_an_arm_should_not_do_is_found(string body, Rule rule, Severity severity) =>
        Assert.Contains(Check(body), finding => finding.Rule == rule && finding.Severity == severity);

    [Theory]
    [InlineData("L shoulder own long palm front fingers up", Rule.HandBeyondReach)]
    [InlineData("R navel across bent palm in fingers front fist", Rule.ThroughBody)]
    [InlineData("R brow own bent palm front fingers up", Rule.ThroughBody)]
    [InlineData("R chest centre bent palm back fingers in; L on wrist palm front fingers up-in", Rule.ThroughBody)]
    [InlineData("R hip outside near palm up fingers front fist", Rule.ElbowNobodyHas)]
    [InlineData("R shoulder own long palm front fingers up", Rule.WristBent)]
    [InlineData("R brow own bent palm front fingers in fist elbow up", Rule.ElbowAboveShoulder)]
    public void What_an_arm_may_do_is_left_alone(string body, Rule rule) =>
        Assert.DoesNotContain(Check(body), finding => finding.Rule == rule);

    [Fact]
    public void A_hand_that_goes_through_the_body_on_its_way_is_found_there_and_an_arc_is_offered()
    {
        var counts = new[]
        {
            At("", "R hip outside rear palm in fingers down"),
            At("", "R hip across near palm in fingers down"),
        };
        var finding = Assert.Single(Check(counts), found => found.Rule == Rule.ThroughBody);
        Assert.Equal(2, finding.Count);
        Assert.StartsWith("On its way", finding.Message, StringComparison.Ordinal);
        var mend = finding.Mends[0];
        Assert.DoesNotContain(
            Check([counts[0], counts[1] with { Body = mend.Edits[0].Body! }]),
            found => found.Rule == Rule.ThroughBody
        );
    }

    [Fact]
    public void Hands_that_go_on_after_the_weight_are_found_unless_they_settle_in_this_school_and_the_weight_can_wait()
    {
        var counts = new[]
        {
            At("R 90%", "both chest own near palm front fingers up"),
            At("L 70%", "both chest own bent"),
            At("", "both shoulder own long"),
        };
        var finding = Assert.Single(Check(counts), found => found.Rule == Rule.HandsAfterWeight);
        Assert.Equal(3, finding.Count);
        Assert.DoesNotContain(
            Check(counts, Conventions.Default with { HandsSettleAfter = true }),
            found => found.Rule == Rule.HandsAfterWeight
        );
        var mended = counts
            .Index()
            .Select(count =>
                finding.Mends[0].Edits.FirstOrDefault(edit => edit.Count == count.Index + 1) is { } edit
                    ? count.Item with
                    {
                        Feet = edit.Feet ?? count.Item.Feet,
                    }
                    : count.Item
            )
            .ToArray();
        Assert.Equal("L 70%", mended[2].Feet);
        Assert.DoesNotContain(Check(mended), found => found.Rule == Rule.HandsAfterWeight);

        // A body that sinks on has not arrived yet.
        Assert.DoesNotContain(
            Check([counts[0], counts[1], counts[2] with { Body = "both shoulder own long; sink 4" }]),
            found => found.Rule == Rule.HandsAfterWeight
        );
    }

    [Fact]
    public void A_count_in_which_nothing_moves_is_found_and_one_that_is_done_only_sometimes_is_not()
    {
        Count[] counts = [At("", "both chest own bent"), At("", "both chest own bent"), At("", "gaze ahead down")];
        Assert.Equal([2], Check(counts).Where(found => found.Rule == Rule.NothingMoves).Select(found => found.Count));
        counts[1] = counts[1] with { OnlyIf = "if unsteady" };
        Assert.DoesNotContain(Check(counts), found => found.Rule == Rule.NothingMoves);
    }

    [Theory]
    [InlineData("in in in", 3)]
    [InlineData("in in out in", 0)]
    [InlineData("out in in in in", 4)]
    public void Three_breaths_in_running_are_found_once(string breaths, int at)
    {
        var counts = breaths
            .Split(' ')
            .Select((breath, place) => At("", $"chest right {place + 1}") with { Breath = breath })
            .ToArray();
        Assert.Equal(
            at == 0 ? [] : [at],
            Check(counts).Where(found => found.Rule == Rule.InBreaths).Select(found => found.Count)
        );
    }

    [Property]
    public void Every_mend_that_is_offered_settles_what_it_is_offered_for(BodyAction[] does)
    {
        var count = At("", BodyNotation.Print(does));
        foreach (var finding in Check([count]).Where(found => found.Count == 1 && found.Rule != Rule.NothingMoves))
        {
            foreach (var mend in finding.Mends)
            {
                var after = Check([count with { Body = mend.Edits.Single().Body! }]);
                Assert.DoesNotContain(after, left => (left.Rule, left.Message) == (finding.Rule, finding.Message));
            }
        }
    }

    [Property]
    public void What_is_found_on_one_side_is_found_on_the_other(BodyAction[] does) =>
        IsFoundOnBothSides(BodyNotation.Print(does));

    [Fact]
    public void Arms_that_meet_hide_nothing_of_either() =>
        IsFoundOnBothSides("R behind wrist fingers back; lean front 22 left 26; L on other ear palm down");

    private static void IsFoundOnBothSides(string body)
    {
        static IEnumerable<(Rule, int)> Found(string entry, string body) =>
            Check([At("", body)], entry: entry).Select(found => (found.Rule, found.Count)).Order();
        Assert.Equal(Found(Bow, body), Found(StepNotation.Mirror(Bow), BodyNotation.Mirror(body)));
    }

    public static TheoryData<string, string> Shipped =>
        [
            .. Starter
                .Postures.Values.Where(posture => posture.Counts.Count > 0)
                .SelectMany(posture =>
                    Mode.Named.Where(mode => posture.CountsFor(mode) is not null)
                        .Select(mode => (posture.Name, mode.Name))
                ),
        ];

    [Theory]
    [MemberData(nameof(Shipped))]
    public void A_shipped_posture_keeps_every_rule_in_every_mode_or_has_its_reason(string name, string mode)
    {
        var posture = Starter.Called(name);
        foreach (var side in Enum.GetValues<Side>().Where(posture.HasSide))
        {
            Assert.Empty(
                PostureCheck
                    .Run(posture, side, Mode.FromName(mode)!.Value, Conventions.Default)
                    .Where(found => found.AcceptedBecause is null)
                    .Select(found => $"{found.Count}: {found.Message}")
            );
        }
    }

    [Fact]
    public void A_supported_version_holds_on_with_one_hand_all_the_way_and_says_on_which_side()
    {
        foreach (var posture in Starter.Postures.Values)
        {
            foreach (var version in posture.Versions.Where(version => version.Mode == Mode.Supported))
            {
                Assert.True(version.Rail is Side.Left or Side.Right, posture.Name);
                var held = version.Rail == Side.Left ? Hand.Left : Hand.Right;
                var walk = PostureBody.Of(
                    posture,
                    posture.WrittenSide,
                    Mode.Supported,
                    Conventions.Default,
                    Physique.Standard
                )!;
                Assert.All(
                    Enumerable.Range(0, walk.Count + 1),
                    count => Assert.Equal(Holding.Rail, walk.StateAfter(count)[held].Holds)
                );
            }
        }
    }

    [Fact]
    public void What_a_school_keeps_is_kept_in_that_count_and_mode_only()
    {
        var text = Starter.Called("Push").Text;
        var still = text with
        {
            Counts = [.. text.Counts, At("", "")],
            OurWays = [new(Rule.NothingMoves, Mode.Standing, text.Counts.Count + 1, "We wait here.")],
        };
        PostureFinding Found(PostureText written) =>
            PostureCheck
                .Run(Posture.Create(Guid.NewGuid(), written), Side.Right, Mode.Standing, Conventions.Default)
                .Single(found => found.Rule == Rule.NothingMoves);
        Assert.Equal("We wait here.", Found(still).AcceptedBecause);
        Assert.Null(Found(still with { OurWays = [still.OurWays[0] with { Mode = Mode.Seated }] }).AcceptedBecause);
    }

    [Fact]
    public void Hands_that_do_not_begin_where_the_last_posture_ended_are_found_and_the_way_in_mends_it()
    {
        var form = Starter.Long;
        var at = form.Positions.ToList().FindIndex(position => position.WayInBody.Length > 0);
        Assert.True(at > 0);
        FormText With(string hands) =>
            form with
            {
                Positions =
                [
                    .. form.Positions.Select(
                        (position, place) => place == at ? position with { WayInBody = hands } : position
                    ),
                ],
            };
        IEnumerable<Finding> Found(FormText written) =>
            FormCheck
                .Run(written, Starter.Postures, Conventions.Default)
                .Where(found => found.Rule == Rule.HandsCarriedOver);
        var finding = Assert.Single(Found(With("")));
        Assert.Equal(form.Positions[at].Id, finding.PositionId);
        Assert.Empty(Found(With(finding.Mends.Single().WayInBody!)));
    }

    [Fact]
    public void Along_one_rail_it_is_said_where_the_support_would_have_to_change_hands()
    {
        var outlines = Starter.Postures.ToDictionary(entry => entry.Key, entry => entry.Value.Outline);
        Position Of(string name, Side side) =>
            new(Guid.NewGuid(), Guid.Empty, Starter.Called(name).Id, side, 0, Facing.FromDegrees(0));
        Position[] walk =
        [
            Of("Opening", Side.Symmetric),
            Of("Brush Knee", Side.Left),
            Of("Brush Knee", Side.Right),
            Of("Opening", Side.Symmetric),
            Of("Brush Knee", Side.Right),
            Of("Brush Knee", Side.Left),
        ];
        Assert.Equal(
            [(walk[2], Side.Right), (walk[5], Side.Left)],
            RailRun.Of(walk, outlines).Select(change => (change.Position, change.To))
        );
        Assert.Empty(RailRun.Of(walk[..2], outlines));
    }

    private static Count At(string feet, string body) => new("", feet, Body: body);

    private static IReadOnlyList<PostureFinding> Check(string body) => Check([At("", body)]);

    private const string Bow = "L step fwd 3 out 1 70%; R pivot heel out 45";

    private static IReadOnlyList<PostureFinding> Check(
        IReadOnlyList<Count> counts,
        Conventions? ways = null,
        string entry = Bow
    ) =>
        PostureCheck.Run(
            PostureBody.Of(entry, "", counts, null, ways ?? Conventions.Default, Physique.Standard),
            counts,
            [],
            Mode.Standing,
            [],
            ways ?? Conventions.Default
        );
}
