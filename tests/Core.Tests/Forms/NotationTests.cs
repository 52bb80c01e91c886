using FsCheck.Xunit;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Tests.Forms;

[Properties(Arbitrary = [typeof(Steps)])]
public sealed class NotationTests
{
    [Property]
    public void What_is_printed_reads_back_the_same(StepAction[] steps)
    {
        var read = StepNotation.Parse(StepNotation.Print(steps));
        Assert.Empty(read.Problems);
        Assert.Equal(steps, read.Actions);
    }

    [Property]
    public void Mirroring_twice_gives_the_same_steps(StepAction[] steps) =>
        Assert.Equal(steps, steps.Select(step => step.Mirror().Mirror()));

    [Property]
    public void No_text_makes_the_reader_fail_and_every_problem_lies_inside_it(string text)
    {
        foreach (var problem in StepNotation.Parse(text ?? "").Problems)
        {
            var lines = text!.Split('\n');
            Assert.InRange(problem.Line, 1, lines.Length);
            Assert.InRange(problem.Column, 1, lines[problem.Line - 1].Length + 1);
        }
    }

    [Theory]
    [InlineData("l s f 3 o 1 h", "L step fwd 3 left 1 heel")]
    [InlineData("r p o 45; r 70%", "R pivot right 45; R 70%")]
    [InlineData("L step out 1\nhips l 20; chest r 10", "L step left 1; hips left 20; chest right 10")]
    [InlineData("R kick toward right 15 fwd 1.8 right 0.3", "R kick toward right 15 fwd 1.8 right 0.3")]
    [InlineData("seat L 60%; hips low", "seat L 60%; hips low")]
    [InlineData("L step fwd 1,5 out 0,5", "L step fwd 1.5 left 0.5")]
    [InlineData(
        "R lift fwd 0.6 u 2; R stamp; L g back 1; L j fwd 2; L hop fwd 0,5",
        "R lift fwd 0.6 up 2; R stamp; L drag back 1; L jump fwd 2; L hop fwd 0.5"
    )]
    public void Short_words_mean_the_long_ones(string typed, string full) =>
        Assert.Equal(full, StepNotation.Print(StepNotation.Read(typed)));

    [Theory]
    [InlineData("L stop fwd 3", 1, 3, "what the foot does")]
    [InlineData("L step fwd", 1, 11, "a number of foot-lengths")]
    [InlineData("L 70%; R 140%", 1, 10, "140 %")]
    [InlineData("L step fwd 9", 1, 12, "9 foot-lengths")]
    [InlineData("L 70%\nR pivot 45", 2, 9, "a direction")]
    [InlineData("L 70", 1, 5, "% sign")]
    [InlineData("L step fwd 3 fwd 2", 1, 18, "fwd already")]
    [InlineData("R lift ball", 1, 8, "heel or toe")]
    [InlineData("R step fwd 1 up 2", 1, 17, "Only a foot that is lifted")]
    [InlineData("L 70% now", 1, 7, "a semicolon or the end")]
    public void A_slip_is_reported_where_it_is_with_what_was_expected(
        string text,
        int line,
        int column,
        string expected
    )
    {
        var problem = Assert.Single(StepNotation.Parse(text).Problems);
        Assert.Contains(expected, problem.Message, StringComparison.Ordinal);
        Assert.Equal((line, column), (problem.Line, problem.Column));
    }

    [Fact]
    public void Only_the_first_mistakes_of_a_text_are_looked_for()
    {
        var read = StepNotation.Parse("L 100%;" + string.Concat(Enumerable.Repeat("q;", 1_000_000)) + "R 100%");
        Assert.Equal(20, read.Problems.Count);
        Assert.Single(read.Actions);
    }

    [Fact]
    public void One_slip_does_not_hide_the_other_statements()
    {
        var read = StepNotation.Parse("L 100%; R stap fwd 3; R 70%");
        Assert.Equal(2, read.Actions.Count);
        Assert.Single(read.Problems);
    }

    [Theory]
    [InlineData("", "L,R,hips,chest,seat")]
    [InlineData("L st", "step,stamp")]
    [InlineData("R 100%; L pivot h", "heel")]
    [InlineData("hips ", "left,right,low,level")]
    public void What_could_come_next_is_offered(string text, string words) =>
        Assert.Equal(words.Split(','), StepCompletion.At(text));

    [Fact]
    public void Steps_read_back_in_plain_words() =>
        Assert.Equal(
            "left foot steps 3 forward and 1 left, heel first; weight 70 % left; right foot turns 45° right",
            StepWords.Say(StepNotation.Read("L step fwd 3 out 1 heel; L 70%; R pivot out 45"))
        );
}
