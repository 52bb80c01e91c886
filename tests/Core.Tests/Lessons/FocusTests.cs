using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Core.Tests.Lessons;

public sealed class FocusTests
{
    private static readonly Guid Knees = Guid.NewGuid();

    [Fact]
    public void Beside_the_focus_only_a_key_point_is_called()
    {
        LessonEdit.Focus focus = new(Knees, "Knee over foot");
        Assert.True(focus.Calls(Of(Weight.Finesse, Knees)));
        Assert.True(focus.Calls(Of(Weight.KeyPoint, null)));
        Assert.False(focus.Calls(Of(Weight.Shape, Guid.NewGuid())));
        Assert.False(focus.Calls(Of(Weight.Shape, null)));
    }

    [Fact]
    public void The_last_word_about_the_focus_counts_and_it_can_be_none()
    {
        LessonEdit.Focus knees = new(Knees, "Knee over foot");
        LessonEdit.Focus none = new(null, "");
        Assert.Null(((LessonEdit[])[]).FocusOf());
        Assert.Equal(knees, ((LessonEdit[])[none, knees, new LessonEdit.Length(80)]).FocusOf());
        Assert.Null(((LessonEdit[])[knees, none]).FocusOf());
        Assert.True(none.Calls(Of(Weight.Shape, null)));
        Assert.NotNull(new LessonEdit.Focus(Knees, new('k', 500)).Refused());
    }

    private static Fault Of(Weight weight, Guid? principle) =>
        new(Guid.NewGuid(), "the knee drifts", weight, []) { PrincipleId = principle };
}
