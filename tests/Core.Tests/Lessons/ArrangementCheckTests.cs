using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Core.Tests.Lessons;

public sealed class ArrangementCheckTests
{
    private static readonly Guid Fern = Guid.NewGuid();
    private static readonly Guid Rail = Guid.NewGuid();
    private static readonly LessonProblem Facts = new(
        30,
        [new(Fern, "Fern", 2, 5, false, "what it knows", 0, 5), new(Rail, "Rail group", null, 4, true, "", 0, 4)],
        [
            new(Guid.NewGuid(), "Noor", true, null, 0, 30),
            new(Guid.NewGuid(), "Odile", false, 2, 0, 20),
            new(Guid.NewGuid(), "Wenke", true, null, 0, 30),
        ],
        [],
        [],
        LessonRules.Default
    );

    /// <summary>A lesson that keeps every rule.</summary>
    private static readonly IReadOnlyList<ArrangementRow> Kept =
    [
        new(0, 5, "all", "warm-up", "", "Noor", ""),
        new(5, 11, "Fern", "new", "Press, right", "Noor", ""),
        new(11, 17, "Fern", "own-practice", "", "", ""),
        new(17, 23, "Fern", "new", "Push, right", "Noor", ""),
        new(23, 28, "Fern", "own-practice", "", "", ""),
        new(5, 17, "Rail group", "review", "Opening", "Odile", ""),
        new(17, 28, "Rail group", "own-practice", "", "", ""),
        new(17, 20, "Rail group", "visit", "", "Odile", ""),
        new(28, 30, "all", "settle", "", "Noor", ""),
    ];

    private static IEnumerable<LessonRule> Broken(params ArrangementRow[] rows) =>
        ArrangementCheck.Broken(rows, Facts).Select(broken => broken.Rule).Distinct();

    [Fact]
    public void Somebody_stays_with_those_who_are_never_alone() =>
        Assert.Equal([LessonRule.NeverAlone], Broken([.. Kept]));

    [Fact]
    public void A_lesson_that_keeps_every_rule_is_told_nothing() => Assert.Empty(Broken(Whole()));

    /// <summary>The same, with somebody beside the Rail group to the end.</summary>
    private static ArrangementRow[] Whole() =>
        [.. Kept.Where(row => row.Cohort != "Rail group"), new(5, 28, "Rail group", "review", "Opening", "Wenke", "")];

    public static TheoryData<LessonRule, ArrangementRow[]> Breaks =>
        new()
        {
            { LessonRule.NoGap, [.. Whole().Where(row => row.Kind != "settle")] },
            { LessonRule.OneCohortAtATime, [.. Whole(), new(6, 8, "Rail group", "visit", "", "Noor", "")] },
            {
                LessonRule.MayNotLead,
                [.. Whole().Select(row => row.What == "Press, right" ? row with { LedBy = "Odile" } : row)]
            },
            {
                LessonRule.NotThere,
                [.. Whole().Select(row => row.What == "Push, right" ? row with { LedBy = "Odile" } : row)]
            },
            {
                LessonRule.TooLongAlone,
                [
                    .. Whole()
                        .Where(row => row.StartMinute != 17 && row.StartMinute != 23)
                        .Select(row => row.StartMinute == 11 ? row with { EndMinute = 28 } : row),
                ]
            },
            { LessonRule.VisitOutsidePractice, [.. Whole(), new(6, 8, "Fern", "visit", "", "Wenke", "")] },
            { LessonRule.VisitTooShort, [.. Whole(), new(12, 13, "Fern", "visit", "", "Wenke", "")] },
            {
                LessonRule.PractiseAfterNew,
                [
                    .. Whole()
                        .Select(row =>
                            row.StartMinute == 11 ? row with { EndMinute = 14 }
                            : row.StartMinute == 17 ? row with { StartMinute = 14 }
                            : row
                        ),
                ]
            },
            {
                LessonRule.NewTooLate,
                [.. Whole().Where(row => row.Kind != "settle"), new(28, 30, "all", "new", "Press, right", "Noor", "")]
            },
        };

    [Theory]
    [MemberData(nameof(Breaks))]
    public void Each_rule_is_seen_to_be_broken(LessonRule rule, ArrangementRow[] rows) =>
        Assert.Contains(rule, Broken(rows));

    [Fact]
    public void Cohorts_that_are_led_together_have_one_teacher_at_once()
    {
        ArrangementRow[] together =
        [
            .. Whole().Where(row => row.Cohort != "Rail group" && row.StartMinute != 5),
            new(5, 11, "Fern", "new", "Press, right", "Noor", "Rail group"),
            new(5, 11, "Rail group", "new", "Press, right", "Noor", "Fern"),
            new(11, 28, "Rail group", "review", "Opening", "Wenke", ""),
        ];
        Assert.Empty(Broken(together));
    }

    [Fact]
    public void What_is_done_by_hand_changes_what_is_arranged()
    {
        var task = new LessonTask("review", BlockKind.Review, [Fern], 6, "Press, right", "");
        var problem = Facts with { Tasks = [task] };
        Assert.Equal(
            [("review", 2), ("review+", 4)],
            problem.With(new LessonEdit.Split("review", 2)).Tasks.Select(part => (part.Key, part.Minutes))
        );
        Assert.Equal(9, problem.With(new LessonEdit.Stretch("review", 9)).Tasks[0].Minutes);
        Assert.Empty(problem.With(new LessonEdit.TakeOut("review")).Tasks);
        Assert.Single(problem.With(new LessonEdit.Pin("review", 7, null)).Pins);
        Assert.Empty(problem.With([new LessonEdit.Pin("review", 7, null), new LessonEdit.Free("review")]).Pins);
        Assert.Empty(problem.With(new LessonEdit.Pin("gone", 7, null)).Pins);
        Assert.Equal(12, problem.With(new LessonEdit.AllowAlone(Fern, 12)).Cohort(Fern).Alone);
        Assert.Equal(2, problem.With(new LessonEdit.People(Fern, 2)).Cohort(Fern).People);
        var gone = problem.Teachers[0] with { Until = 0 };
        Assert.DoesNotContain(problem.With(new LessonEdit.Teacher(gone)).Teachers, teacher => teacher.Id == gone.Id);
        Assert.Equal(2, problem.With(new LessonEdit.Add(task with { Key = "more" })).Tasks.Count);
        Assert.Single(problem.With(new LessonEdit.Add(task)).Tasks);
    }

    [Fact]
    public void Whoever_joins_is_one_more_there_and_one_fewer_where_they_would_be_and_the_last_word_about_them_counts()
    {
        var (edda, wenke) = (Guid.NewGuid(), Guid.NewGuid());
        LessonEdit.Joins With(Guid who, Guid? cohort, bool neverAlone = false) =>
            new(who, "", cohort, who == edda ? Rail : null, neverAlone);
        (int, int, bool) After(params LessonEdit[] edits)
        {
            var then = Facts.With(edits);
            return (then.Cohort(Fern).People, then.Cohort(Rail).People, then.Cohort(Fern).NeverAlone);
        }

        var (fern, rail) = (Facts.Cohort(Fern).People, Facts.Cohort(Rail).People);
        Assert.Equal((fern + 1, rail - 1, true), After(With(edda, Fern, true)));
        Assert.Equal((fern + 2, rail - 1, false), After(With(edda, Fern), With(wenke, Fern)));
        Assert.Equal((fern + 1, rail - 1, false), After(With(edda, Fern, true), With(edda, Fern)));
        Assert.Equal((fern, rail, false), After(With(edda, Fern, true), With(edda, null)));
        Assert.Equal((3, rail - 1, false), After(With(edda, Fern), new LessonEdit.People(Fern, 3)));
    }
}
