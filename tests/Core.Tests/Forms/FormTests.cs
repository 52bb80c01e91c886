using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Tests.Forms;

public sealed class FormTests
{
    private static readonly Posture BrushKnee = Material.Posture("Brush Knee", Side.Left, counts: 5);
    private static readonly Posture Opening = Material.Posture("Opening", Side.Symmetric, counts: 3);
    private static readonly Dictionary<Guid, Posture> Postures = new()
    {
        [BrushKnee.Id] = BrushKnee,
        [Opening.Id] = Opening,
    };
    private static readonly Section One = new(Guid.NewGuid(), "Section one");
    private static readonly Section Two = new(Guid.NewGuid(), "Section two");

    [Theory]
    [InlineData("step left, heel first", "step right, heel first")]
    [InlineData("Right palm over left fist, turn clockwise", "Left palm over right fist, turn counter-clockwise")]
    [InlineData("what is left over stays bright", "what is right over stays bright")]
    public void Mirrored_words_exchange_left_and_right(string text, string mirrored)
    {
        Assert.Equal(mirrored, Mirror.Of(text));
        Assert.Equal(text, Mirror.Of(Mirror.Of(text)));
    }

    [Fact]
    public void The_other_side_of_a_posture_is_its_mirror_and_the_written_side_is_not()
    {
        Assert.Equal("step right", BrushKnee.On(Side.Right, "step left"));
        Assert.Equal("step left", BrushKnee.On(Side.Left, "step left"));
    }

    [Fact]
    public void A_symmetric_posture_has_no_left_and_a_sided_one_must_say_which() =>
        Assert.Equal(
            ["positions[0].side", "positions[1].side"],
            Fields(Place(Opening, Side.Left, One), Place(BrushKnee, Side.Symmetric, One))
        );

    [Fact]
    public void A_section_stands_together() =>
        Assert.Equal(
            ["positions[2].sectionId"],
            Fields(
                Place(Opening, Side.Symmetric, One),
                Place(BrushKnee, Side.Left, Two),
                Place(BrushKnee, Side.Right, One)
            )
        );

    [Theory]
    [InlineData("")]
    [InlineData("   ")]
    [InlineData("A name that goes on and on until no sheet of paper in the whole school could hold it on one line")]
    public void A_form_needs_a_name_that_fits(string name) =>
        Assert.Equal("name", Assert.Single(new FormText(name, [One], []).Check(Postures)).Field);

    [Fact]
    public void What_is_different_is_what_is_counted()
    {
        Position[] positions =
        [
            Place(Opening, Side.Symmetric, One),
            Place(BrushKnee, Side.Left, One) with
            {
                Repeats = 2,
            },
            Place(BrushKnee, Side.Right, One),
            Place(BrushKnee, Side.Left, One),
            Place(BrushKnee, Side.Right, One),
        ];
        var analysis = FormAnalysis.Of(positions, Postures, FloorWalk.Of(positions, Postures, Conventions.Default));
        Assert.Equal((5, 2, 3), (analysis.Positions, analysis.Postures, analysis.Links));
        Assert.Equal((3 + (5 * 5)) * 4, analysis.RunThroughSeconds);
    }

    [Fact]
    public void Whoever_saves_second_is_told_what_stands_differently()
    {
        var kept = new FormText(
            "Lantern Form",
            [One],
            [Place(Opening, Side.Symmetric, One), Place(BrushKnee, Side.Left, One)]
        );
        var offered = kept with
        {
            Name = "Lamp Form",
            Positions = [kept.Positions[0], kept.Positions[1] with { Facing = Facing.FromDegrees(90) }],
        };
        Assert.Collection(
            FormDifferences.Between(kept, offered, Postures, Conventions.Default),
            name => Assert.Contains("Lamp Form", name, StringComparison.Ordinal),
            facing => Assert.Contains("Brush Knee, left now ends at 12 o'clock", facing, StringComparison.Ordinal)
        );
        Assert.Empty(FormDifferences.Between(kept, kept, Postures, Conventions.Default));
    }

    [Fact]
    public void A_posture_shows_the_counts_of_the_mode_and_nothing_where_no_version_is_written()
    {
        var posture = Material.Posture("Push", Side.Right, counts: 4, seatedCounts: 3);
        Assert.Equal((4, 3), (posture.CountsFor(Mode.Standing)!.Count, posture.CountsFor(Mode.Seated)!.Count));
        Assert.Null(posture.CountsFor(Mode.Supported));
    }

    [Fact]
    public void One_count_of_a_version_may_be_the_one_that_small_pictures_show()
    {
        var posture = Material.Posture("Push", Side.Right, counts: 4, seatedCounts: 3);
        Assert.Null(posture.PicturedIn(Mode.Standing));
        var counts = posture.Counts.Select((count, at) => count with { Pictured = at == 1 }).ToList();
        var pictured = Posture.Create(posture.Id, posture.Text with { Counts = counts });
        Assert.Equal((2, null), (pictured.PicturedIn(Mode.Standing), pictured.PicturedIn(Mode.Seated)));
        Assert.Equal(pictured.Text.Counts[1], pictured.Text.Mirror().Mirror().Counts[1]);

        var twice = posture.Text with { Counts = [.. counts.Select(count => count with { Pictured = true })] };
        Assert.Equal(
            ["counts[1].pictured", "counts[2].pictured", "counts[3].pictured"],
            twice.Check().Select(problem => problem.Field)
        );
    }

    [Fact]
    public void A_limit_of_one_leg_forbids_standing_on_that_leg()
    {
        var rooster = Posture.Create(
            Guid.NewGuid(),
            new()
            {
                Name = "Golden Rooster",
                WrittenSide = Side.Left,
                NamedBy = SideNamedBy.StandingLeg,
                KeyPoint = "settle first",
                Counts = [new("rise")],
                Demands = [Demand.OneLegBalance],
            }
        );
        var left = new Limit(Demand.OneLegBalance, Side.Left);
        Assert.True(left.IsBrokenBy(rooster.Demands, rooster.NamedBy, Side.Left));
        Assert.False(left.IsBrokenBy(rooster.Demands, rooster.NamedBy, Side.Right));
        Assert.True(new Limit(Demand.OneLegBalance).IsBrokenBy(rooster.Demands, rooster.NamedBy, Side.Right));
        Assert.False(new Limit(Demand.Kick).IsBrokenBy(rooster.Demands, rooster.NamedBy, Side.Left));
    }

    private static Position Place(Posture posture, Side side, Section section) =>
        new(Guid.NewGuid(), section.Id, posture.Id, side, 0, Facing.FromDegrees(0));

    private static IEnumerable<string> Fields(params Position[] positions) =>
        new FormText("Lantern Form", [One, Two], positions).Check(Postures).Select(problem => problem.Field);
}
