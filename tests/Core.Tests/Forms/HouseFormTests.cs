using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>What a knowledgeable teacher would check first in the catalogue and the forms that ship.</summary>
public sealed class HouseFormTests
{
    private static readonly Conventions Ways = Conventions.Default;

    public static TheoryData<string> Names => [.. Starter.Postures.Values.Select(posture => posture.Name)];

    [Fact]
    public void The_catalogue_is_as_large_as_it_says()
    {
        Assert.True(Starter.Postures.Values.Count(posture => posture.Text.Kind == PostureKind.Posture) >= 45);
        Assert.True(Starter.Postures.Values.Count(posture => posture.Text.Kind == PostureKind.Drill) >= 10);
        Assert.Distinct(Starter.Postures.Values.Select(posture => posture.Text.KeyPoint));
        Assert.Distinct(
            Starter
                .Postures.Values.Where(posture => posture.Text.BuiltFrom is null)
                .Select(posture => string.Join(" / ", posture.Counts.Select(count => count.Feet)))
                .Where(feet => feet.Any(char.IsLetter))
        );
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void A_posture_is_written_whole(string name)
    {
        var posture = Starter.Called(name);
        Assert.Empty(posture.Text.Check());
        Assert.True(posture.Faults.Count >= 3, "three faults");
        Assert.Contains(posture.Faults, fault => fault.Weight == Weight.KeyPoint);
        Assert.All(
            posture.Faults,
            fault =>
            {
                Assert.True(fault.Causes.Count >= 2, fault.Seen);
                Assert.All(fault.Causes, cause => Assert.True(cause.Why.Length > 0 && cause.Mend.Length > 0));
            }
        );
        Assert.NotEmpty(posture.Cautions);
        Assert.All(posture.Counts, count => Assert.NotEmpty(count.Cue));
        Assert.All(
            posture.Versions,
            version =>
                Assert.True(
                    version.Counts.Count >= 3
                        && version.Cautions.Count > 0
                        && version.Replaces.Length > 0
                        && version.Progression.Count > 0,
                    version.Mode.Name
                )
        );
        if (posture.Demands.Any(demand => demand is Demand.OneLegBalance or Demand.Kick or Demand.BackwardStep))
        {
            Assert.Contains(posture.Cautions, caution => caution.Contains("rail", StringComparison.Ordinal));
        }
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void A_posture_keeps_the_step_rules_by_itself_and_ends_as_written_on_every_side(string name)
    {
        var posture = Starter.Called(name);
        foreach (var side in posture.WrittenSide == Side.Symmetric ? new[] { Side.Symmetric } : [Side.Left, Side.Right])
        {
            var walk = FloorWalk.Of(posture.StepsOn(side, posture.Text.Entry), posture.StepsOn(side), Ways);
            Assert.Empty(StepRules.Check(walk, Ways).Select(finding => finding.Message));
            if (posture.Text.End is { } end)
            {
                Assert.Equal(side == posture.WrittenSide ? end : end.Mirror(), Footing.Of(walk.End));
            }
        }
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void A_posture_mirrored_twice_reads_as_it_was(string name)
    {
        var text = Starter.Called(name).Text;
        var twice = text.Mirror().Mirror();
        Assert.Equal(
            text.Counts.Select(count => (count.Cue, count.Hands, count.Waist, count.Gaze)),
            twice.Counts.Select(count => (count.Cue, count.Hands, count.Waist, count.Gaze))
        );
        Assert.Equal(
            text.Counts.SelectMany(count => StepNotation.Read(count.Feet)),
            twice.Counts.SelectMany(count => StepNotation.Read(count.Feet))
        );
        Assert.Equal(text.KeyPoint, twice.KeyPoint);
        Assert.Equal(text.End, twice.End);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_house_form_passes_its_own_checks_and_so_does_its_mirror(bool isLong)
    {
        var form = isLong ? Starter.Long : Starter.Short;
        Assert.Empty(form.Check(Starter.Postures));
        Assert.Empty(FormCheck.Run(form, Starter.Postures, Ways).Select(finding => finding.Message));
        Assert.Empty(FormCheck.Run(Starter.Mirrored(form), Starter.Postures, Ways).Select(finding => finding.Message));
    }

    [Fact]
    public void The_long_form_has_what_makes_a_form_long()
    {
        var study = FormStudy.Of(Starter.Long, Starter.Postures, Starter.Links, Ways);
        Assert.True(study.Positions.Count >= 48 && Starter.Long.Sections.Count == 3);
        Assert.Contains(study.Positions, position => position.Diagonal != 0);
        Assert.Contains(Starter.Long.Positions, position => position.Repeats > 1);
        Assert.Contains(Starter.Long.Positions, position => position.CompoundId is not null);
        Assert.True(study.Analysis.BothSides >= 4);
        Assert.Contains(study.Positions, position => position.Link is not null);
    }

    [Fact]
    public void The_short_form_says_how_it_comes_from_the_long_one()
    {
        Assert.Equal(16, Starter.Short.Positions.Count);
        var derivation = FormDerivation.Of(Starter.Long.Positions, Starter.Short.Positions);
        Assert.Equal(Starter.Long.Positions.Count - 16, derivation.LeftOut.Count);
        Assert.Equal(
            ["Step Back, left", "Step Back, right"],
            derivation
                .Reordered.Select(id => Starter.Short.Positions.Single(position => position.Id == id))
                .Select(position => Starter.Postures[position.PostureId].NameOn(position.Side))
        );
        Assert.Empty(derivation.SidesAdded);
        Assert.Equal(4, derivation.NewLinks.Count);
    }

    [Fact]
    public void A_segment_is_practised_from_its_entry_to_its_close()
    {
        var walk = FloorWalk.Of(Starter.Long.Positions, Starter.Postures, Ways);
        foreach (
            var segment in Starter
                .Long.Segments.Concat(Starter.Short.Segments)
                .Where(segment => Starter.Long.Segments.Contains(segment))
        )
        {
            var alone = SegmentWalk.Of(segment, Starter.Long, walk, Ways);
            Assert.Equal(
                walk.Beats.Last(beat => Starter.Long.Positions[beat.At].Id == segment.ToId).After.Hips,
                alone.Beats[^1].After.Hips
            );
            Assert.InRange((alone.Closed.Left.Heel - alone.Closed.Right.Heel).Length, 0.3, 1.3);
        }
    }
}
