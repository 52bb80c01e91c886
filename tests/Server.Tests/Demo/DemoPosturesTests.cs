using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Demo;
using Zeitplan.Server.Forms;

namespace Zeitplan.Server.Tests.Demo;

/// <summary>What a knowledgeable teacher would check first in the postures the demo school ships.</summary>
public sealed class DemoPosturesTests
{
    private static readonly IReadOnlyList<PostureEndpoints.CreateRequest> Postures = DemoPostures.Read();

    [Fact]
    public void Every_posture_has_counts_three_faults_a_key_point_and_a_caution() => Assert.All(Postures, posture =>
    {
        Assert.True(posture.Counts.Count >= 3, posture.Name);
        Assert.True(posture.Faults.Count >= 3, posture.Name);
        Assert.NotEmpty(posture.KeyPoint);
        Assert.NotEmpty(posture.Cautions);
        Assert.All(posture.Faults, fault => Assert.True(fault.Cause.Length > 0 && fault.Mend.Length > 0, $"{posture.Name}: {fault.Seen}"));
    });

    [Fact]
    public void Every_word_of_a_posture_survives_the_mirror_twice() => Assert.All(
        Postures.SelectMany(posture => posture.Counts.SelectMany(count => new[] { count.Cue, count.Feet, count.Waist, count.Hands, count.Gaze }).Append(posture.KeyPoint)),
        text => Assert.Equal(text, Mirror.Of(Mirror.Of(text))));

    [Fact]
    public void What_can_throw_somebody_off_balance_says_where_to_hold_on() => Assert.All(
        Postures.Where(posture => posture.Demands.Any(demand => demand is Demand.OneLegBalance or Demand.Kick or Demand.BackwardStep)),
        posture => Assert.Contains(posture.Cautions, caution => caution.Contains("rail", StringComparison.Ordinal)));

    [Fact]
    public void Every_adapted_version_has_its_own_counts_cautions_and_says_what_it_replaces() => Assert.All(
        Postures.SelectMany(posture => posture.Versions.Select(version => (posture.Name, version))),
        pair =>
        {
            Assert.NotNull(Mode.FromName(pair.version.Mode));
            Assert.True(pair.version.Counts.Count >= 3 && pair.version.Cautions.Count > 0 && pair.version.Replaces.Length > 0, $"{pair.Name}, {pair.version.Mode}");
        });

    [Fact]
    public void A_foot_named_in_a_step_is_on_the_side_the_posture_is_written_for_or_the_posture_has_none() =>
        Assert.All(Postures, posture => Assert.Equal(posture.WrittenSide == Side.Symmetric, posture.NamedBy == SideNamedBy.Nothing));
}
