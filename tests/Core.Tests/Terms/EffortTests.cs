using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;

namespace Zeitplan.Core.Tests.Terms;

public sealed class EffortTests
{
    [Fact]
    public void Minutes_to_introduce_are_talk_and_passes_by_difficulty_mode_and_pace()
    {
        var effort = new Effort(
            TeachingPattern.ShowTogetherWatch,
            Counts: 6,
            Difficulty: 2,
            Mode.Standing,
            CohortPace: 1.1m
        );
        Assert.Equal(519, effort.IntroduceSeconds); // 90 s talk + 300 s × 1.3 × 1.1
        Assert.Equal(
            "8.7 min: talk 1.5; show 2 × 6 counts × 12 s, together 3 × 6 counts × 6 s, watch 2 × 6 counts × 4 s, together 5.0; difficulty 1.3; the cohort's pace 1.1",
            effort.Explain()
        );
    }

    [Fact]
    public void A_review_takes_half_the_pattern_and_a_run_through_one_smooth_repetition()
    {
        var effort = new Effort(TeachingPattern.ShowTogetherWatch, 6, 1, Mode.Standing);
        Assert.Equal((150, 24), (effort.ReviewSeconds, effort.RunThroughSeconds));
    }

    [Fact]
    public void A_supported_group_takes_longer_than_a_standing_one() =>
        Assert.True(
            new Effort(TeachingPattern.WeightFirst, 6, 1, Mode.Supported).IntroduceSeconds
                > new Effort(TeachingPattern.WeightFirst, 6, 1, Mode.Standing).IntroduceSeconds
        );

    [Fact]
    public void A_segment_is_what_the_cohort_has_not_met_with_its_links()
    {
        var (opening, brush) = (
            Material.Posture("Opening", Side.Symmetric, 3),
            Material.Posture("Brush Knee", Side.Left, 5)
        );
        Position[] segment =
        [
            At(opening, Side.Symmetric),
            At(brush, Side.Left),
            At(brush, Side.Right),
            At(brush, Side.Left),
        ];
        var material = SegmentMaterial.Of(
            [new(segment)],
            new[] { opening, brush }.ToDictionary(posture => posture.Id, posture => posture.Outline),
            new HashSet<PostureSide>(),
            TeachingWay.Of(Mode.Standing)
        );
        Assert.Equal(
            ["Opening", "Brush Knee, left", "Brush Knee, right", "Brush Knee, right → Brush Knee, left"],
            material.Units.Select(unit => unit.Name)
        );

        // 90 s talk + 50 s × 5 counts; two counts of link into it; and the link back to the left, which joins two known
        // postures, by itself.
        Assert.Equal(
            [90 + 150, 90 + 250 + 100, 90 + 250 + 100, 100],
            material.Units.Select(unit => unit.IntroduceSeconds.Count)
        );
        Assert.Equal(
            [UnitKind.Posture, UnitKind.Posture, UnitKind.Posture, UnitKind.Link],
            material.Units.Select(unit => unit.Kind)
        );
    }

    [Fact]
    public void What_most_of_a_cohort_knows_is_not_new_and_what_has_no_version_is_said()
    {
        var (push, whip) = (
            Material.Posture("Push", Side.Right, 4, seatedCounts: 3),
            Material.Posture("Single Whip", Side.Left, 6)
        );
        Position[] segment = [At(push, Side.Right), At(whip, Side.Left)];
        var postures = new[] { push, whip }.ToDictionary(posture => posture.Id, posture => posture.Outline);
        Assert.Equal(
            ["Single Whip, left"],
            SegmentMaterial
                .Of(
                    [new(segment)],
                    postures,
                    new HashSet<PostureSide> { new(push.Id, Side.Right) },
                    TeachingWay.Of(Mode.Standing)
                )
                .Units.Select(unit => unit.Name)
        );
        var seated = SegmentMaterial.Of(
            [new(segment)],
            postures,
            new HashSet<PostureSide>(),
            TeachingWay.Of(Mode.Seated)
        );
        Assert.Equal(["Push, right"], seated.Units.Select(unit => unit.Name));
        Assert.Equal("no seated version has been written", Assert.Single(seated.Left).Because);
    }

    [Fact]
    public void What_a_posture_needs_is_taught_before_it_and_what_is_refined_lies_between_what_is_new()
    {
        var (walk, brush, push) = (
            Material.Posture("Bow walking", Side.Left, 4),
            Material.Posture("Brush Knee", Side.Left, 5),
            Material.Posture("Push", Side.Right, 4)
        );
        var postures = new[] { walk, brush, push }.ToDictionary(posture => posture.Id, posture => posture.Outline);
        postures[walk.Id] = postures[walk.Id] with { IsDrill = true };
        postures[brush.Id] = postures[brush.Id] with { Needs = [walk.Id] };
        var way = TeachingWay.Of(Mode.Standing) with { Layers = _ => "gaze, breath" };
        var material = SegmentMaterial.Of(
            [new([At(brush, Side.Left)]), new([At(push, Side.Right)], Purpose.Refine)],
            postures,
            new HashSet<PostureSide> { new(push.Id, Side.Right) },
            way
        );
        Assert.Equal(
            ["Bow walking, left", "Brush Knee, left", "Push, right"],
            material.Units.Select(unit => unit.Name)
        );
        Assert.Equal([UnitKind.Drill, UnitKind.Posture, UnitKind.Layer], material.Units.Select(unit => unit.Kind));
        Assert.Equal("Brush Knee, left", material.Units[0].NeededBy);
        Assert.Contains("for gaze, breath", material.Units[2].Effort, StringComparison.Ordinal);
        Assert.Single(
            SegmentMaterial
                .Of([new([At(brush, Side.Left)])], postures, new HashSet<PostureSide> { new(walk.Id, Side.Right) }, way)
                .Units
        );
    }

    private static Position At(Posture posture, Side side) =>
        new(Guid.NewGuid(), Guid.Empty, posture.Id, side, 0, Facing.FromDegrees(0));

    [Fact]
    public void A_school_that_teaches_both_sides_needs_the_passes_1_6_times_and_says_so()
    {
        var one = new Effort(TeachingPattern.ShowTogetherWatch, 5, 1, Mode.Standing);
        var both = one with { BothSides = true };
        Assert.Equal(
            Math.Round((one.IntroduceSeconds - 90) * 1.6m, MidpointRounding.AwayFromZero) + 90,
            both.IntroduceSeconds
        );
        Assert.Contains("both sides 1.6", both.Explain(), StringComparison.Ordinal);
    }
}
