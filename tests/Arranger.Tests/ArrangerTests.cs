using FsCheck.Xunit;
using Google.OrTools.Sat;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;

namespace Zeitplan.Arranger.Tests;

public sealed class ArrangerTests
{
    /// <summary>A lesson as a school has them: one to six cohorts, as many teachers as they can do with.</summary>
    private static LessonProblem Lesson(byte seed) =>
        GeneratedLesson.Of(seed, 2 + (seed % 5), 2 + (seed % 5 / 2), seed % 3 == 0 ? 75 : 90);

    private static IReadOnlyList<ArrangementRow> Table(Arrangement arrangement, LessonProblem problem) =>
        ArrangementTable.Of(
            arrangement,
            problem.Cohorts.ToDictionary(cohort => cohort.Id, cohort => cohort.Name),
            problem.Teachers.ToDictionary(teacher => teacher.Id, teacher => teacher.Name)
        );

    private static IReadOnlyList<BrokenRule> Broken(Arrangement arrangement, LessonProblem problem) =>
        ArrangementCheck.Broken(Table(arrangement, problem), problem);

    [Property(MaxTest = 12)]
    public void Its_table_alone_shows_that_no_hard_rule_is_broken_but_those_it_says(byte seed)
    {
        var problem = Lesson(seed);
        var arrangement = LessonArranger.Arrange(problem);
        var said = arrangement.Shortfalls.Any(shortfall => shortfall.Task is null);
        Assert.DoesNotContain(
            Broken(arrangement, problem),
            broken => !said || broken.Rule is not (LessonRule.NeverAlone or LessonRule.TooLongAlone)
        );
    }

    [Property(MaxTest = 6)]
    public void What_is_asked_is_there_once_or_it_is_said_that_it_is_not(byte seed)
    {
        var problem = Lesson(seed);
        var arrangement = LessonArranger.Arrange(problem);
        foreach (var task in problem.Tasks)
        {
            var there = arrangement.Blocks.Where(block => block.Task == task.Key).ToList();
            Assert.Equal(
                arrangement.Shortfalls.Any(shortfall => shortfall.Task == task.Key) ? 0 : task.CohortIds.Count,
                there.Count
            );
            Assert.All(there, block => Assert.Equal((task.Kind, task.Minutes), (block.Kind, block.Minutes)));
        }
    }

    [Property(MaxTest = 4)]
    public void The_same_lesson_is_arranged_the_same(byte seed) =>
        Assert.Equal(
            Table(LessonArranger.Arrange(Lesson(seed)), Lesson(seed)),
            Table(LessonArranger.Arrange(Lesson(seed)), Lesson(seed))
        );

    [Property(MaxTest = 4)]
    public void Somebody_more_to_teach_never_leaves_more_undone(byte seed)
    {
        var problem = Lesson(seed);
        var more = problem.With(new LessonEdit.Teacher(new(Guid.NewGuid(), "Wenke", true, null, 0, problem.Minutes)));
        Assert.True(LessonArranger.Arrange(more).Shortfalls.Count <= LessonArranger.Arrange(problem).Shortfalls.Count);
    }

    [Property(MaxTest = 12)]
    public void Where_only_who_is_due_a_look_changes_it_stays_while_all_of_them_have_one(byte seed, byte due)
    {
        var problem = Lesson(seed);
        var stood = LessonArranger.Arrange(problem);
        var changed = problem with
        {
            Cohorts = [.. problem.Cohorts.Select((cohort, at) => cohort with { Due = (due >> at) % 4 })],
        };
        var looks = changed.Cohorts.ToDictionary(
            cohort => cohort.Id,
            cohort =>
                stood
                    .Blocks.Where(block => block.CohortId == cohort.Id && block.LedBy is not null)
                    .Sum(block => changed.Rules.SeenIn(block.Kind, block.Minutes))
        );
        if (stood.Shortfalls.Count > 0 || changed.Cohorts.Any(cohort => cohort.Due > looks[cohort.Id]))
        {
            Assert.Null(LessonArranger.Unmoved(changed, stood));
            return;
        }

        var still = LessonArranger.Unmoved(changed, stood)!;
        Assert.Equal(Table(stood, problem), Table(still, changed));
        Assert.True(still.Bound <= still.Points);
        // Nobody due goes without a look in either, and so it costs what it did.
        if (problem.Cohorts.All(cohort => cohort.Due <= looks[cohort.Id]))
        {
            Assert.Equal(stood.Points, still.Points);
        }
    }

    [Property(MaxTest = 6)]
    public void What_a_hand_has_fixed_stays_and_the_rest_goes_around_it(byte seed)
    {
        var problem = Lesson(seed);
        var stood = LessonArranger.Arrange(problem);
        var block = stood.Blocks.First(block => block.Kind == BlockKind.New);
        var pinned = problem.With(new LessonEdit.Pin(block.Task!, block.Start + 2, block.LedBy));
        var arrangement = LessonArranger.Arrange(pinned, stood);
        Assert.DoesNotContain(
            Broken(arrangement, pinned),
            broken => broken.Rule is not (LessonRule.NeverAlone or LessonRule.TooLongAlone)
        );
        if (arrangement.Blocks.FirstOrDefault(other => other.Task == block.Task) is { } now)
        {
            Assert.Equal((block.Start + 2, block.LedBy), (now.Start, now.LedBy));
        }
        else
        {
            Assert.Contains(arrangement.Shortfalls, shortfall => shortfall.Task == block.Task);
        }
    }

    [Property(MaxTest = 8)]
    public void What_is_changed_leaves_no_more_undone_than_beginning_anew_and_keeps_the_rules(byte seed, byte what)
    {
        var problem = Lesson(seed);
        var stood = LessonArranger.Arrange(problem);
        var task = problem.Tasks[what % problem.Tasks.Count];
        var cohort = problem.Cohorts[what % problem.Cohorts.Count];
        LessonEdit[] edits =
        [
            new LessonEdit.Stretch(task.Key, task.Minutes + 3),
            new LessonEdit.Add(task with { Key = "once more" }),
            new LessonEdit.People(cohort.Id, cohort.People + 4),
            new LessonEdit.Joins(Guid.NewGuid(), "Tamsin", cohort.Id, null, NeverAlone: true),
            new LessonEdit.Teacher(problem.Teachers[0] with { Until = problem.Minutes / 2 }),
            new LessonEdit.Since(40, 46, "The bell rang.", stood.Blocks),
        ];
        var changed = problem.With(edits[what % edits.Length]);
        var arrangement = LessonArranger.Arrange(changed, stood);
        // What has no room weighs more than everything else together could differ.
        Assert.True(
            arrangement.Shortfalls.Count == 0
                || arrangement.Points < LessonArranger.Arrange(changed).Points + (Measures.TooLong / 2)
        );
        Assert.DoesNotContain(
            Broken(arrangement, changed),
            broken =>
                arrangement.Shortfalls.Concat(stood.Shortfalls).All(shortfall => shortfall.Task is not null)
                || broken.Rule is not (LessonRule.NeverAlone or LessonRule.TooLongAlone)
        );
    }

    [Fact]
    public void Where_one_block_is_moved_the_others_stay()
    {
        var (stay, others) = (0, 0);
        for (var seed = 0; seed < 6; seed++)
        {
            var problem = GeneratedLesson.Of(seed, 5, 3, 90);
            var stood = LessonArranger.Arrange(problem);
            var block = stood.Blocks.Last(block => block.Kind == BlockKind.New);
            var moved = LessonArranger.Arrange(
                problem.With(new LessonEdit.Pin(block.Task!, block.Start + 1, block.LedBy)),
                stood
            );
            var asked = stood.Blocks.Where(other => other.Task is not null && other.Task != block.Task).ToList();
            others += asked.Count;
            stay += asked.Count(other =>
                moved.Blocks.Any(now => (now.Task, now.Start, now.LedBy) == (other.Task, other.Start, other.LedBy))
            );
        }

        // Arranged anew, about one in six would be where it was.
        Assert.True(stay > 0.7 * others, $"{stay} of {others} stay.");
    }

    [Property(MaxTest = 6)]
    public void What_is_asked_once_more_stands_as_it_stood(byte seed)
    {
        var problem = Lesson(seed);
        var stood = LessonArranger.Arrange(problem);
        var again = LessonArranger.Arrange(problem, stood);
        Assert.Equal(stood.Shortfalls, again.Shortfalls);
        Assert.True(again.Points <= stood.Points + 500);
    }

    [Property(MaxTest = 20)]
    public void No_arrangement_undercuts_what_none_can(byte seed, byte cohorts, byte teachers)
    {
        var problem = GeneratedLesson.Of(seed, 1 + (cohorts % 8), 1 + (teachers % 4), 60 + (seed % 40));
        var facts = new LessonFacts(problem);
        var paper = FirstArrangement.Best(facts, 1);
        foreach (var steps in new[] { paper, Annealing.Of(facts, paper, 1) })
        {
            Assert.InRange(LowestPoints.Of(facts), 0, Measures.Of(facts, steps));
            Assert.InRange(LowestPoints.OfNeeds(facts), 0, Measures.OfNeeds(facts, steps));
        }
    }

    [Fact]
    public void It_is_proven_of_some_lessons_that_nobody_can_be_led_better_and_of_none_on_paper()
    {
        List<LessonProblem> lessons = [.. Enumerable.Range(0, 12).Select(seed => GeneratedLesson.Of(seed, 6, 3, 90))];
        Assert.Contains(lessons, problem => LessonArranger.Arrange(problem).MeetsNeedsBest);
        Assert.DoesNotContain(lessons, problem => LessonArranger.OnPaper(problem).MeetsNeedsBest);
    }

    [Property(MaxTest = 4)]
    public void What_the_solver_finds_has_everything_and_keeps_the_rules(byte seed)
    {
        // Few enough that there is always a way.
        var facts = new LessonFacts(GeneratedLesson.Of(seed, 3, 3, 90));
        var found = LessonArranger.Find(facts);
        Assert.NotNull(found);
        Assert.True(LessonArranger.HasEverything(facts, found));
        Assert.All(
            Enumerable.Range(0, 3),
            cohort => Assert.True(CohortRules.Allow(facts, cohort, Measures.Own(found, cohort)))
        );
    }

    /// <summary>In its middle: everything that was arranged until then has happened as it was arranged.</summary>
    private static LessonProblem Since(LessonProblem problem, Arrangement arrangement, int from, int until) =>
        problem.With(new LessonEdit.Since(from, until, "The bell rang.", arrangement.Blocks));

    [Property(MaxTest = 12)]
    public void In_its_middle_what_has_happened_stands_and_the_rest_keeps_the_rules(byte seed, byte when, byte lost)
    {
        var problem = Lesson(seed);
        var before = LessonArranger.Arrange(problem);
        var from = 3 + (when % (problem.Minutes - 3));
        var now = Since(problem, before, from, Math.Min(problem.Minutes, from + (lost % 3 * 6)));
        var arrangement = LessonArranger.Arrange(now);
        Assert.Equal(Until(Table(before, problem), from), Until(Table(arrangement, now), from));
        // What was too long before it stands as well.
        var said = arrangement.Shortfalls.Concat(before.Shortfalls).Any(shortfall => shortfall.Task is null);
        Assert.DoesNotContain(
            Broken(arrangement, now),
            broken => !said || broken.Rule is not (LessonRule.NeverAlone or LessonRule.TooLongAlone)
        );

        static List<ArrangementRow> Until(IReadOnlyList<ArrangementRow> rows, int minute) =>
            [
                .. rows.Where(row => row.StartMinute < minute)
                    .Select(row => row with { EndMinute = Math.Min(row.EndMinute, minute) })
                    .OrderBy(row => row.StartMinute)
                    .ThenBy(row => row.Cohort, StringComparer.Ordinal)
                    .ThenBy(row => row.Kind, StringComparer.Ordinal),
            ];
    }

    [Property(MaxTest = 4)]
    public void Saying_what_happened_once_more_changes_nothing(byte seed)
    {
        var problem = Lesson(seed);
        var before = LessonArranger.Arrange(problem);
        var now = Since(problem, before, 30, 36);
        Assert.Equivalent(now, Since(now, before, 30, 30));
    }

    [Property(MaxTest = 4)]
    public void Minutes_that_are_lost_are_never_more_than_what_gives_way(byte seed)
    {
        var problem = Lesson(seed);
        var before = LessonArranger.Arrange(problem);
        var lost = LessonArranger.Arrange(Since(problem, before, 40, 52));
        Assert.Equal(problem.Minutes, lost.Blocks.Max(block => block.End));
        var quiet = lost.Blocks.Single(block => block.Kind == BlockKind.Settle);
        Assert.Equal(5, quiet.Minutes);
        Assert.Contains(lost.Blocks, block => block is { Kind: BlockKind.Rest, CohortId: null, Minutes: 12 });
    }

    [Property(MaxTest = 3)]
    public void What_is_said_to_help_helps_and_without_any_one_of_those_who_collide_the_others_have_room(byte seed)
    {
        // One teacher too few.
        var problem = Lesson(seed);
        problem = problem with { Teachers = [.. problem.Teachers.Take(1)] };
        var other = new TeacherHere(Guid.NewGuid(), "Wenke", true, null, 0, problem.Minutes);
        var arrangement = LessonArranger.Arrange(problem);
        var collision = WaysOut.Of(problem, arrangement, [other], CancellationToken.None);
        var missing = arrangement.Shortfalls.Count;
        Assert.Equal(missing == 0, collision.Collide.Count == 0);
        Assert.All(
            collision.Ways,
            way =>
            {
                Assert.True(way.Left <= missing);
                Assert.Equal(way.Left, LessonArranger.Roughly(problem.With(way.Edits)).Shortfalls.Count);
            }
        );
        Assert.True(missing == 0 || collision.Ways.Any(way => way.Says.StartsWith("Wenke", StringComparison.Ordinal)));
    }

    [Fact]
    public void What_would_help_is_tried_no_longer_than_somebody_waits_for_it()
    {
        var problem = Lesson(1) with { Minutes = 30 };
        var arrangement = LessonArranger.Arrange(problem);
        Assert.NotEmpty(arrangement.Shortfalls);
        Assert.Throws<OperationCanceledException>(() =>
            WaysOut.Of(problem, arrangement, [], new CancellationToken(canceled: true))
        );
    }

    [Property(MaxTest = 6)]
    public void What_everybody_does_lasts_as_long_as_is_said_and_as_there_is_time_for(byte seed, byte minutes)
    {
        var problem = Lesson(seed);
        var asked = problem.With(new LessonEdit.Everybody(BlockKind.Together, minutes));
        var arrangement = LessonArranger.Arrange(asked);
        var together = arrangement.Blocks.Where(block => block.Kind == BlockKind.Together).ToList();
        Assert.Equal(minutes == 0 ? 0 : 1, together.Count);
        Assert.All(together, block => Assert.InRange(block.Minutes, 1, minutes));
        Assert.True(minutes >= problem.Minutes || together.Sum(block => block.Minutes) == Math.Min(minutes, Room()));
        Assert.Equal(5, arrangement.Blocks.Single(block => block.Kind == BlockKind.Settle).Minutes);
        Assert.Equal(problem.Minutes, arrangement.Blocks.Max(block => block.End));

        int Room() => problem.Minutes - 15;
    }

    [Property]
    public void Whoever_comes_by_for_longer_sees_no_fewer_and_no_more_in_a_visit_than_can_be_kept_in_mind(byte minutes)
    {
        var rules = LessonRules.Default;
        Assert.True(rules.SeenIn(BlockKind.Visit, minutes + 1) >= rules.SeenIn(BlockKind.Visit, minutes));
        Assert.True(minutes > rules.LongestVisit || rules.SeenIn(BlockKind.Visit, minutes) <= rules.SeenInABlock);
    }

    [Fact]
    public void Nobody_to_teach_leaves_everything_undone_and_says_so()
    {
        var problem = Lesson(3) with { Teachers = [] };
        var arrangement = LessonArranger.Arrange(problem);
        Assert.All(
            problem.Tasks,
            task => Assert.Contains(arrangement.Shortfalls, shortfall => shortfall.Task == task.Key)
        );
        Assert.All(
            problem.Cohorts,
            cohort =>
                Assert.Contains(
                    arrangement.Shortfalls,
                    shortfall => shortfall.Task is null && shortfall.CohortId == cohort.Id
                )
        );
    }

    [Fact]
    public void An_assistant_alone_leads_an_adapted_group_and_nothing_above_their_own_level()
    {
        var problem = Lesson(3);
        var assistant = new TeacherHere(Guid.NewGuid(), "Odile", false, 3, 0, problem.Minutes);
        var arrangement = LessonArranger.Arrange(problem with { Teachers = [assistant] });
        var led = arrangement
            .Blocks.Where(block => block.LedBy == assistant.Id && block.CohortId is not null)
            .Select(block => problem.Cohort(block.CohortId!.Value))
            .ToList();
        Assert.Contains(led, cohort => cohort.IsAdapted);
        Assert.All(led, cohort => Assert.True(cohort.IsAdapted || cohort.Level <= 2));
    }

    [Theory]
    [InlineData(0, 2, 90)]
    [InlineData(1, 1, 90)]
    [InlineData(4, 2, 25)]
    [InlineData(8, 2, 90)]
    public void Whatever_cannot_be_is_answered_in_words(int cohorts, int teachers, int minutes)
    {
        var problem = GeneratedLesson.Of(1, cohorts, teachers, minutes);
        var arrangement = LessonArranger.Arrange(problem);
        Assert.Equal(minutes, arrangement.Blocks.Max(block => block.End));
        Assert.All(arrangement.Shortfalls, shortfall => Assert.EndsWith(".", shortfall.Says, StringComparison.Ordinal));
        Assert.DoesNotContain(
            Broken(arrangement, problem),
            broken => broken.Rule is LessonRule.NoGap or LessonRule.OneCohortAtATime or LessonRule.MayNotLead
        );
    }

    [Fact]
    public void A_cohort_that_may_be_alone_for_longer_needs_fewer_looks()
    {
        var problem = Lesson(3);
        var cohort = problem.Cohorts.First(cohort => cohort.PractisesAlone);
        var longer = LessonArranger.Arrange(problem.With(new LessonEdit.AllowAlone(cohort.Id, 40)));
        Assert.DoesNotContain(
            Broken(longer, problem.With(new LessonEdit.AllowAlone(cohort.Id, 40))),
            broken => broken.Rule == LessonRule.TooLongAlone
        );
    }
}
