using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Figures;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

/// <summary>Hands moved in the picture: the text follows.</summary>
[Properties(Arbitrary = [typeof(Bodies)])]
public sealed class BodyEditTests
{
    [Theory]
    [InlineData("front", "R chest own bent palm front fingers up")]
    [InlineData("left", "R brow outside bent palm front fingers up")]
    [InlineData("above", "R navel across bent palm up fingers in")]
    public void A_hand_put_where_it_is_stays_in_its_words(string view, string body)
    {
        var walk = Walk(body);
        var seen = FigureView.Named(view, 0)!.Value;
        var (x, y) = seen.On(walk.After(1).RightArm.Palm);
        Assert.Equal(body, BodyEdit.MoveHand(walk, 1, body, Hand.Right, seen, x, y));
    }

    [Theory]
    [InlineData("front", 0, -30, "R crown own bent")]
    [InlineData("front", 19, 0, "R shoulder centre bent")]
    [InlineData("right", 16, 0, "R shoulder own long")]
    public void A_hand_that_is_dragged_goes_to_the_nearest_place_in_words(
        string view,
        double dx,
        double dy,
        string wanted
    )
    {
        var walk = Walk("R shoulder own bent palm front fingers up");
        var seen = FigureView.Named(view, 0)!.Value;
        var (x, y) = seen.On(walk.After(1).RightArm.Palm);
        Assert.StartsWith(
            wanted,
            BodyEdit.MoveHand(walk, 1, "R shoulder own bent palm front fingers up", Hand.Right, seen, x + dx, y + dy),
            StringComparison.Ordinal
        );
    }

    [Property]
    public void Moving_a_hand_changes_nothing_that_is_said_of_anything_else(BodyAction[] does, byte x, byte y)
    {
        var text = BodyNotation.Print(does);
        var moved = BodyEdit.MoveHand(Walk(text), 1, text, Hand.Left, FigureView.Named("front", 0)!.Value, x - 100, -y);
        static IEnumerable<BodyAction> Others(string body) =>
            BodyNotation.Read(body).Where(action => action is not BodyAction.Arm { Hand: Hand.Left });
        Assert.Equal(Others(text), Others(moved));
    }

    [Fact]
    public void A_key_moves_a_hand_one_word_and_no_farther_than_the_words_go()
    {
        var walk = Walk("L chest own bent");
        Assert.Equal("L shoulder own bent", BodyEdit.Nudge(walk, 1, "L chest own bent", Hand.Left, 1, 0, 0));
        Assert.Equal("L chest outside bent", BodyEdit.Nudge(walk, 1, "L chest own bent", Hand.Left, 0, 1, 0));
        var long_ = Walk("L chest own long");
        Assert.Equal("L chest own long", BodyEdit.Nudge(long_, 1, "L chest own long", Hand.Left, 0, 0, 1));
    }

    [Fact]
    public void One_thing_said_of_a_hand_replaces_what_was_said_of_it()
    {
        Assert.Equal(
            "R chest own bent palm up fingers front fist; gaze R",
            BodyEdit.Detail("R chest own bent palm up fingers front; gaze R", Hand.Right, "fist")
        );
        Assert.Equal("L palm down", BodyEdit.Detail("L palm up fingers front", Hand.Left, "palm down"));
        Assert.Equal("gaze ahead; L hold rail", BodyEdit.Detail("gaze ahead", Hand.Left, "hold rail"));
        Assert.Throws<FormatException>(() => BodyEdit.Detail("", Hand.Left, "sideways"));
    }

    private static BodyWalk Walk(string body) =>
        PostureBody.Of(
            "L step out 1.2 50%",
            "",
            [new Count("", Body: body)],
            null,
            Conventions.Default,
            Physique.Standard
        );
}
