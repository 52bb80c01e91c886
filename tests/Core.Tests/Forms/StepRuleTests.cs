using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>Each step rule with a case that breaks it and one that does not (domain.md 4.1).</summary>
public sealed class StepRuleTests
{
    [Theory]
    [InlineData("L 60%; L step fwd 3 out 1", Rule.LoadedFootMoves, Severity.Impossible)]
    [InlineData("L 30%; L step fwd 3 out 1", Rule.LoadedFootMoves, Severity.Error)]
    [InlineData("L 60%; L pivot out 45", Rule.WeightedPivot, Severity.Caution)]
    [InlineData("R 100%; L step fwd 3 out 0.2 70%", Rule.NarrowStance, Severity.Caution)]
    [InlineData("R 100%; L step back 2 out 0.3", Rule.NarrowStance, Severity.Caution)]
    [InlineData("L 100%; hips right 40", Rule.KneeTwist, Severity.Caution)]
    [InlineData("L 100%; hips left 50", Rule.KneeTwist, Severity.Caution)]
    [InlineData("R 100%; L step right 0.05", Rule.SolesOverlap, Severity.Impossible)]
    [InlineData("R 100%; L step fwd 1 right 0.6", Rule.CrossesUnsaid, Severity.Error)]
    [InlineData("R 100%; L step left 1; L 100%; R step left 1.2", Rule.FootPath, Severity.Error)]
    public void What_a_body_should_not_do_is_found(string steps, Rule rule, Severity severity) =>
        Assert.Contains(Check(steps), finding => finding.Rule == rule && finding.Severity == severity);

    [Theory]
    [InlineData("L 10%; L step fwd 3 out 1", Rule.LoadedFootMoves)]
    [InlineData("L 50%; L pivot out 45", Rule.WeightedPivot)]
    [InlineData("L 60%; L pivot out 30", Rule.WeightedPivot)]
    [InlineData("R 100%; L step fwd 3 out 0.6 70%", Rule.NarrowStance)]
    [InlineData("L 100%; hips right 30", Rule.KneeTwist)]
    [InlineData("L 100%; hips left 45", Rule.KneeTwist)]
    [InlineData("L 30%; hips right 40", Rule.KneeTwist)]
    [InlineData("R 100%; L step left 0.4", Rule.SolesOverlap)]
    [InlineData("R 100%; L step fwd 1 right 0.6 cross", Rule.CrossesUnsaid)]
    [InlineData("R 100%; L step fwd 3 out 1", Rule.FootPath)]
    public void What_a_body_may_do_is_left_alone(string steps, Rule rule) =>
        Assert.DoesNotContain(Check(steps), finding => finding.Rule == rule);

    [Fact]
    public void A_finding_names_the_count_and_the_foot()
    {
        var walk = FloorWalk.Of(
            [],
            [StepNotation.Read("R 100%"), StepNotation.Read("R step fwd 3 out 1")],
            Conventions.Default
        );
        var finding = Assert.Single(
            StepRules.Check(walk, Conventions.Default),
            found => found.Rule == Rule.LoadedFootMoves
        );
        Assert.Equal((2, Foot.Right), (finding.Beat.Count, finding.Foot));
    }

    [Fact]
    public void A_school_that_turns_weighted_feet_is_not_cautioned_for_it() =>
        Assert.DoesNotContain(
            StepRules.Check(Walk("L 60%; L pivot out 45"), Conventions.Default with { WeightedPivots = true }),
            finding => finding.Rule == Rule.WeightedPivot
        );

    private static IEnumerable<StepFinding> Check(string steps) => StepRules.Check(Walk(steps), Conventions.Default);

    private static FloorWalk Walk(string steps) => FloorWalk.Of([], [StepNotation.Read(steps)], Conventions.Default);
}
