using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

[Properties(Arbitrary = [typeof(Steps)])]
public sealed class WayInTests
{
    private static readonly Stand OverRight = new[] { new StepAction.Weigh(Foot.Right, 100) }.Aggregate(
        Stand.AtStart,
        (stand, step) => stand.After(step, PivotOn.Heel)
    );

    [Property]
    public void A_way_in_leads_to_the_foot_and_the_direction_that_are_wanted(Stand reached, int degrees)
    {
        var hips = Facing.FromDegrees(degrees);
        if (WayIn.Lead(reached, OverRight, hips) is not { } steps)
        {
            return;
        }

        var there = steps.Aggregate(reached, (stand, step) => stand.After(step, PivotOn.Heel));
        Assert.Equal((hips.Degrees, hips.Degrees, 100), (there.Hips, there.Right.Toes, there.Right.Load));
    }

    [Property]
    public void It_never_turns_a_loaded_foot_nor_further_than_a_body_can(Stand reached, int degrees)
    {
        var stand = reached;
        foreach (var step in WayIn.Lead(reached, OverRight, Facing.FromDegrees(degrees)) ?? [])
        {
            if (step is StepAction.Pivot pivot)
            {
                Assert.InRange(stand[pivot.Foot].Load, 0, 50);
                Assert.InRange(Math.Abs(pivot.Turn), 1, 135);
            }

            stand = stand.After(step, PivotOn.Heel);
        }
    }

    [Fact]
    public void Where_nothing_has_to_turn_only_the_weight_goes_over() =>
        Assert.Equal("R 100%", StepNotation.Print(WayIn.Lead(Stand.AtStart, OverRight, Facing.FromDegrees(0))!));

    [Fact]
    public void A_foot_in_the_air_cannot_be_turned_into_place() =>
        Assert.Null(
            WayIn.Lead(
                Stand.AtStart with
                {
                    Right = Stand.AtStart.Right with { Contact = Contact.Air, Load = 0 },
                },
                OverRight,
                Facing.FromDegrees(90)
            )
        );

    [Fact]
    public void A_segment_whose_entry_leads_elsewhere_or_whose_close_leaves_the_feet_apart_is_found()
    {
        var segment = Starter.Long.Segments.Single(one => one.Name == "Three times Brush Knee");
        var lost = Starter.Long with { Segments = [segment with { Entry = "L 100%", Close = "L 100%" }] };
        var rules = FormCheck.Run(lost, Starter.Postures, Conventions.Default).Select(finding => finding.Rule).ToList();
        Assert.Contains(Rule.SegmentEntry, rules);
        Assert.Contains(Rule.SegmentClose, rules);
    }

    [Property]
    public void The_fewest_positions_that_moved_are_called_reordered(int from, int to)
    {
        var parent = Starter.Long.Positions;
        var derived = parent
            .Select(position => position with { Id = Guid.CreateVersion7(), ParentId = position.Id })
            .ToList();
        var (a, b) = ((int)((uint)from % (uint)derived.Count), (int)((uint)to % (uint)derived.Count));
        var moved = derived[a];
        derived.RemoveAt(a);
        derived.Insert(b, moved);
        var reordered = FormDerivation.Of(parent, derived).Reordered;
        Assert.Equal(a == b ? 0 : 1, reordered.Count);
        Assert.True(Math.Abs(a - b) <= 1 || reordered.Single() == moved.Id);
    }
}
