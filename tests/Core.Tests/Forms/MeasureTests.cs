using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>What checkpoints measure on the end shape (domain.md 2, "checkpoint").</summary>
public sealed class MeasureTests
{
    public sealed class Measures
    {
        private static Gen<BodyPoint> Points =>
            from part in Gen.Elements(Enum.GetValues<BodyPart>())
            from side in Gen.Elements<Hand?>(null, Hand.Left, Hand.Right)
            select new BodyPoint(part, BodyPoint.ComesTwice(part) ? side : null);

        public static Arbitrary<Measure> Any() =>
            (
                from here in Points
                from comparison in Gen.Elements(Enum.GetValues<Comparison>())
                from there in Points
                from least in Gen.Choose(0, 60)
                from more in Gen.Choose(1, 90)
                select new Measure(here, comparison, there, least, least + more)
            ).ToArbitrary();
    }

    [Property(Arbitrary = [typeof(Measures)])]
    public void Parsing_what_was_printed_gives_the_measure_again_and_mirroring_twice_too(Measure measure)
    {
        Assert.Equal(measure, MeasureNotation.Parse(MeasureNotation.Print(measure)).Measure);
        Assert.Equal(measure, measure.Mirror().Mirror());
    }

    [Property(Arbitrary = [typeof(Measures)])]
    public void The_other_side_measures_the_same(Measure measure)
    {
        var posture = Starter.Called("Single Whip");
        Measured On(Side side, Measure wanted)
        {
            var walk = PostureBody.Of(posture, side, Mode.Standing, Conventions.Default, Physique.Standard)!;
            return wanted.On(walk.After(walk.Count), walk.Physique, walk.Start.Hips);
        }

        Assert.Equal(On(Side.Left, measure).Value, On(Side.Right, measure.Mirror()).Value, 3);
    }

    [Theory]
    [InlineData("right wrist level right shoulder 5", true)]
    [InlineData("wrists level shoulders 15", true)]
    [InlineData("left palm below navel", false)]
    [InlineData("left palm above navel 20 to 60", true)]
    [InlineData("left palm before breastbone 25 to 60", true)]
    [InlineData("left palm behind breastbone", false)]
    [InlineData("left palm beside right palm 30 to 45", true)]
    [InlineData("left palm from right palm 10", false)]
    [InlineData("left toes along right toes 5", true)]
    [InlineData("head over pelvis 5", true)]
    [InlineData("left sole above floor 2", true)]
    [InlineData("nose along front 10", true)]
    public void It_is_measured_on_the_body(string measure, bool fulfilled)
    {
        var walk = PostureBody.Of(
            "L step out 1.2 50%",
            "",
            [new Count("", Body: "both shoulder own long palm down fingers front")],
            null,
            Conventions.Default,
            Physique.Standard
        );
        var measured = Assert.Single(PostureCheck.Measured(walk, [new Checkpoint("", "", "", "", measure)]));
        Assert.Equal(fulfilled, measured.Fulfilled);
    }

    [Theory]
    [InlineData("left wrist", "here should stand how it is compared", 11)]
    [InlineData("left nose level floor", "nose", 6)]
    [InlineData("left wrist level right shoulder 500", "500", 33)]
    public void What_cannot_be_read_is_said_at_its_place(string text, string says, int column)
    {
        var problem = Assert.Single(MeasureNotation.Parse(text).Problems);
        Assert.Contains(says, problem.Message, StringComparison.OrdinalIgnoreCase);
        Assert.Equal(column, problem.Column);
    }

    [Fact]
    public void Completion_offers_the_parts_that_have_sides_after_a_side()
    {
        Assert.Contains("wrist", MeasureNotation.At("left "));
        Assert.DoesNotContain("nose", MeasureNotation.At("left "));
        Assert.Equal(["level"], MeasureNotation.At("left wrist le"));
    }

    [Fact]
    public void A_checkpoint_its_own_posture_does_not_fulfil_is_an_error()
    {
        var text = Starter.Called("Push").Text;
        var finding = Assert.Single(
            PostureCheck.Run(
                Posture.Create(
                    Guid.NewGuid(),
                    text with
                    {
                        Checkpoints = [new("palms", "knees", "as low", "the side", "palms below knees")],
                    }
                ),
                Side.Right,
                Mode.Standing,
                Conventions.Default
            )
        );
        Assert.Equal((Rule.CheckpointMissed, Severity.Error), (finding.Rule, finding.Severity));
    }

    [Fact]
    public void Every_shipped_posture_has_a_checkpoint_that_is_measured() =>
        Assert.Empty(
            Starter
                .Postures.Values.Where(posture => posture.Text is { Kind: PostureKind.Posture, Parts.Count: 0 })
                .Where(posture =>
                    !posture.Text.Checkpoints.Any(point => MeasureNotation.Parse(point.Measure).Measure is not null)
                    || posture.Text.Checkpoints.Any(point => MeasureNotation.Parse(point.Measure).Problems.Count > 0)
                )
                .Select(posture => posture.Name)
        );
}
