using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>What a stance asks for, each with a case that breaks it and one that does not (domain.md 4.1, "Stances";
/// 5).</summary>
public sealed class EndShapeTests
{
    [Theory]
    [InlineData("L step fwd 3 out 1 55%; R pivot out 45", Rule.BowLoad)]
    [InlineData("L step out 2; L 70%", Rule.BowLoad)]
    [InlineData("L step fwd 1.4 out 0.4 heel 20%", Rule.EmptyLoad)]
    [InlineData("L step fwd 3 out 1 70%; R pivot out 20", Rule.RearToes)]
    [InlineData("L step fwd 3 out 1 70%; R pivot out 45; hips left 45", Rule.BodyFacing)]
    public void A_stance_that_is_not_one_is_found(string steps, Rule rule) =>
        Assert.Contains(
            Check(steps, Conventions.Default),
            finding => finding.Rule == rule && finding.Severity >= Severity.Caution
        );

    [Theory]
    [InlineData("L step fwd 3 out 1 65%; R pivot out 45", Rule.BowLoad)]
    [InlineData("L step out 2; L 50%", Rule.BowLoad)]
    [InlineData("L step fwd 1.4 out 0.4 heel 10%", Rule.EmptyLoad)]
    [InlineData("L step fwd 3 out 1 70%; R pivot out 50", Rule.RearToes)]
    [InlineData("R 100%; L set ball", Rule.ToeTouch)]
    [InlineData("L step fwd 3 out 1 70%; R pivot out 45; hips left 15", Rule.BodyFacing)]
    public void A_stance_as_it_should_be_is_left_alone(string steps, Rule rule) =>
        Assert.DoesNotContain(Check(steps, Conventions.Default), finding => finding.Rule == rule);

    [Fact]
    public void What_a_school_does_differently_is_what_it_is_held_to()
    {
        Assert.DoesNotContain(
            Check("L step fwd 1.4 out 0.4 heel 20%", Conventions.Default with { EmptyLoad = 30 }),
            finding => finding.Rule == Rule.EmptyLoad
        );
        Assert.Contains(
            Check("R 100%; L set ball", Conventions.Default with { ToeTouchAllowed = false }),
            finding => finding.Rule == Rule.ToeTouch
        );
        Assert.Equal(
            Severity.Note,
            Assert
                .Single(
                    Check("L step fwd 3 out 1 70%; R pivot out 45", Conventions.Default with { RearToes = 60 }),
                    finding => finding.Rule == Rule.RearToes
                )
                .Severity
        );
        Assert.Equal(
            Severity.Note,
            Assert
                .Single(
                    Check("L step fwd 3 out 1 70%; R pivot out 45", Conventions.Default with { BowLoad = 60 }),
                    finding => finding.Rule == Rule.BowLoad
                )
                .Severity
        );
    }

    [Fact]
    public void Steps_must_bear_out_the_end_that_is_written()
    {
        var bow = Material.Stepped("Bow", Side.Left, "R 100%", "L step fwd 3 out 1 heel", "L 70%; R pivot out 45");
        var said = Posture.Create(bow.Id, bow.Text with { End = new(Stance.Empty, Side.Left, 0) });
        var finding = Assert.Single(Check(said, Conventions.Default), found => found.Rule == Rule.EndShape);
        Assert.Equal(
            "The steps lead to bow, left foot leading, 70 % left; Bow is written to end in empty, left foot leading, 100 % right.",
            finding.Message
        );
        Assert.DoesNotContain(
            Check(Posture.Create(bow.Id, bow.Text with { End = new(Stance.Bow, Side.Left, 70) }), Conventions.Default),
            found => found.Rule == Rule.EndShape
        );
    }

    [Fact]
    public void A_posture_without_steps_is_noted_and_not_judged()
    {
        var quiet = Material.Posture("Quiet", Side.Left, counts: 2);
        var finding = Assert.Single(Check(quiet, Conventions.Default));
        Assert.Equal((Rule.StepsUnwritten, Severity.Note), (finding.Rule, finding.Severity));
    }

    private static IReadOnlyList<Finding> Check(string steps, Conventions ways) =>
        Check(Material.Stepped("Stance", Side.Left, "R 100%", steps), ways);

    private static IReadOnlyList<Finding> Check(Posture posture, Conventions ways) =>
        FormCheck.Run(
            new(
                "Form",
                [new(Guid.Empty, "One")],
                [new(Guid.NewGuid(), Guid.Empty, posture.Id, Side.Left, 0, default, WayIn: posture.Text.Entry)]
            ),
            new Dictionary<Guid, Posture> { [posture.Id] = posture },
            ways
        );
}
