using FsCheck.Xunit;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

[Properties(Arbitrary = [typeof(Bodies)])]
public sealed class BodyNotationTests
{
    [Property]
    public void What_is_printed_reads_back_the_same(BodyAction[] body)
    {
        var read = BodyNotation.Parse(BodyNotation.Print(body));
        Assert.Empty(read.Problems);
        Assert.Equal(body, read.Actions);
    }

    [Property]
    public void Mirroring_twice_gives_the_same_text(BodyAction[] body)
    {
        var text = BodyNotation.Print(body);
        Assert.Equal(text, BodyNotation.Mirror(BodyNotation.Mirror(text)));
    }

    [Property]
    public void What_the_mirror_says_comes_to_the_mirrored_body(BodyAction[] body) =>
        Assert.Equal(BodyState.AtRest.After(body).Mirror(), BodyState.AtRest.After(BodyNotation.Mirror(body)));

    [Property]
    public void Everything_can_be_said_in_plain_words(BodyAction[] body) =>
        Assert.Equal(body.Length == 0, BodyWords.Say(body).Length == 0);

    [Property]
    public void No_text_makes_the_reader_fail_and_every_problem_lies_inside_it(string text)
    {
        foreach (var problem in BodyNotation.Parse(text ?? "").Problems)
        {
            var lines = text!.Split('\n');
            Assert.InRange(problem.Line, 1, lines.Length);
            Assert.InRange(problem.Column, 1, lines[problem.Line - 1].Length + 1);
        }
    }

    [Theory]
    [InlineData("l chest c l p f f u palm", "L chest centre long palm front fingers up palm")]
    [InlineData("R under elbow palm i fist via arc o", "R under elbow palm in fist via arc out")]
    [InlineData("b shoulder own long palm f fingers u-i", "both shoulder own long palm front fingers up-in")]
    [InlineData(
        "c r 20; upright; sink 4; gaze L; gaze left 45 down",
        "chest right 20; upright; sink 4; gaze L; gaze left 45 down"
    )]
    [InlineData(
        "L hold rail; R beside other ear via over knee via ear own",
        "L hold rail; R beside other ear via over knee via ear own"
    )]
    [InlineData("lean front 20 left 5\nchest square; level", "lean front 20 left 5; chest square; level")]
    public void Short_words_mean_the_long_ones(string typed, string full) =>
        Assert.Equal(full, BodyNotation.Print(BodyNotation.Read(typed)));

    [Theory]
    [InlineData("L", 1, 2, "where the hand is")]
    [InlineData("L chest hip", 1, 9, "a height already")]
    [InlineData("L chest under elbow", 1, 9, "not both")]
    [InlineData("L palm", 1, 8, "")]
    [InlineData("R palm in-out", 1, 11, "no corner")]
    [InlineData("chest right 120", 1, 13, "120 degrees")]
    [InlineData("gaze sideways", 1, 6, "a direction")]
    [InlineData("sink 90", 1, 6, "90 centimetres")]
    [InlineData("L hold ladder", 1, 8, "what is held")]
    public void A_slip_is_reported_where_it_is_with_what_was_expected(
        string text,
        int line,
        int column,
        string expected
    )
    {
        var problems = BodyNotation.Parse(text).Problems;
        if (expected.Length == 0)
        {
            Assert.Empty(problems);
            return;
        }

        var problem = Assert.Single(problems);
        Assert.Contains(expected, problem.Message, StringComparison.Ordinal);
        Assert.Equal((line, column), (problem.Line, problem.Column));
    }

    [Theory]
    [InlineData("", "L,R,both,chest,lean,upright,sink,rise,level,gaze")]
    [InlineData("L che", "chest")]
    [InlineData("L chest centre palm up; R ear palm ", "up,down,front,back,in,out")]
    [InlineData("R under ", "hand,wrist,forearm,elbow,ear,hip,knee,other")]
    public void What_could_come_next_is_offered(string text, string words) =>
        Assert.Superset(words.Split(',').ToHashSet(), BodyCompletion.At(text).ToHashSet());

    [Fact]
    public void A_body_reads_back_in_plain_words() =>
        Assert.Equal(
            "right hand at chest height, on the centre line, the arm long, open, palm forward, fingers up, by way of ear height; chest 20° left of the hips; eyes on the right hand",
            BodyWords.Say(
                BodyNotation.Read("R chest centre long palm front fingers up palm via ear; chest left 20; gaze R")
            )
        );

    [Fact]
    public void What_is_not_named_stays_as_it_was()
    {
        var body = BodyState.AtRest.After(BodyNotation.Read("R chest centre long palm front fingers up palm"));
        var turned = body.After(BodyNotation.Read("R palm down"));
        Assert.Equal(body.Right.Place, turned.Right.Place);
        Assert.Equal((new Aim(Way.Down), HandShape.Palm), (turned.Right.Palm, turned.Right.Shape));
        Assert.Equal(body.Left, turned.Left);

        // A palm cannot face along its own fingers: they follow it.
        Assert.Equal(new Aim(Way.Front), body.After(BodyNotation.Read("R palm up")).Right.Fingers);
    }
}
