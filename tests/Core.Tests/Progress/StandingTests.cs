using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Progress;

public sealed class StandingTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly PostureSide Whip = new(Guid.NewGuid(), Side.Left);
    private static readonly Guid Imke = Guid.NewGuid();

    [Fact]
    public void Being_there_when_it_was_taught_shows_it_and_nothing_more()
    {
        Assert.Equal(Stage.NotMet, Stand().Stage);
        Assert.Equal(Stage.Shown, Standing.Of([Day(7)], [], Today).Stage);
    }

    [Fact]
    public void Settled_takes_three_days_over_three_weeks_without_an_open_key_point()
    {
        Assert.Equal(Stage.Alone, Stand(Saw(28, Stage.Alone), Saw(14, Stage.Alone)).Stage);
        Assert.Equal(Stage.Alone, Stand(Saw(20, Stage.Alone), Saw(10, Stage.Alone), Saw(0, Stage.Alone)).Stage);
        Assert.Equal(Stage.Settled, Stand(Saw(21, Stage.Alone), Saw(10, Stage.Flowing), Saw(0, Stage.Alone)).Stage);
        Assert.Equal(
            Stage.Alone,
            Stand(Saw(21, Stage.Alone), Saw(10, Stage.Flowing), Saw(0, Stage.Alone), Fault(0, Weight.KeyPoint)).Stage
        );
        Assert.Equal(
            Stage.Settled,
            Stand(Saw(21, Stage.Alone), Saw(10, Stage.Flowing), Saw(0, Stage.Alone), Fault(0, Weight.Shape)).Stage
        );
        Assert.Equal(Stage.Follows, Stand(Saw(30, Stage.Alone), Saw(21, Stage.Alone), Saw(0, Stage.Follows)).Stage);
    }

    [Property]
    public void Only_a_fault_takes_back_what_is_settled(int[] faults, int[] more)
    {
        List<Observation> facts =
        [
            .. faults.Select(day => Fault(Math.Abs(day % 90), day % 2 == 0 ? Weight.KeyPoint : Weight.Shape)),
            Saw(80, Stage.Alone),
            Saw(40, Stage.Alone),
            Saw(20, Stage.Alone),
            Fine(10),
            Fine(5),
        ];
        if (Stand([.. facts]).Stage == Stage.Settled)
        {
            facts.AddRange(
                more.Select(day =>
                    day % 3 == 0 ? Fine(Math.Abs(day % 90)) : Saw(Math.Abs(day % 90), (Stage)(2 + (Math.Abs(day) % 3)))
                )
            );
            Assert.Equal(Stage.Settled, Stand([.. facts]).Stage);
        }
    }

    [Property]
    public void A_fact_that_is_withdrawn_and_added_again_changes_nothing(int[] days, int which)
    {
        var facts = Facts([1, .. days]);
        var again = facts.Select(
            (fact, at) => at == Math.Abs(which % facts.Count) ? fact with { Id = Guid.NewGuid() } : fact
        );
        Assert.Equivalent(Stand([.. facts]), Stand([.. again]));
    }

    [Theory]
    [InlineData(42, false)]
    [InlineData(43, true)]
    public void Six_weeks_untouched_is_fading(int days, bool fading) =>
        Assert.Equal(fading, Stand(Saw(days, Stage.Alone)).Fading);

    [Fact]
    public void What_is_settled_fades_after_twelve_weeks()
    {
        Assert.False(Stand(Saw(105, Stage.Alone), Saw(90, Stage.Alone), Saw(84, Stage.Alone)).Fading);
        Assert.True(Stand(Saw(115, Stage.Alone), Saw(90, Stage.Alone), Saw(85, Stage.Alone)).Fading);
    }

    [Fact]
    public void A_correction_eases_clears_and_comes_back()
    {
        Assert.Equal(CorrectionState.Open, State(Fault(30)));
        Assert.Equal(CorrectionState.Easing, State(Fault(30), Fine(20)));
        Assert.Equal(CorrectionState.Easing, State(Fault(30), Fine(20), Fine(20)));
        Assert.Equal(CorrectionState.Cleared, State(Fault(30), Fine(20), Fine(10)));
        Assert.Equal(CorrectionState.Open, State(Fault(30), Fine(20), Fault(10)));
        Assert.Equal(CorrectionState.Back, State(Fault(30), Fine(20), Fine(10), Fault(3)));
        Assert.Equal(CorrectionState.Back, State(Fault(30), Fine(20), Fine(10), Fault(3), Fault(1)));
    }

    [Fact]
    public void A_correction_is_stuck_after_six_weeks_or_four_sightings()
    {
        Assert.False(Assert.Single(Stand(Fault(41)).Corrections).Stuck);
        Assert.True(Assert.Single(Stand(Fault(42)).Corrections).Stuck);
        Assert.True(Assert.Single(Stand(Fault(20), Fault(15), Fault(10), Fault(5)).Corrections).Stuck);
        Assert.False(Assert.Single(Stand(Fault(60), Fine(20), Fine(10)).Corrections).Stuck);
    }

    [Fact]
    public void How_often_it_was_seen_inside_a_run_through_counts_since_the_correction_was_opened()
    {
        var within = Fault(30) with { InRunThrough = true };
        Assert.Equal((1, 1), Counted(within));
        Assert.Equal((2, 1), Counted(within, Fault(20)));
        Assert.Equal((1, 1), Counted(within, Fault(28), Fine(20), Fine(10), within with { Date = Day(3) }));
        Assert.Equal((1, 0), Counted(within, Fine(20), Fine(10), Fault(3)));

        static (int, int) Counted(params Observation[] seen)
        {
            var correction = Assert.Single(Stand(seen).Corrections);
            return (correction.TimesSeen, correction.InRunThroughs);
        }
    }

    [Property]
    public void Judgements_do_not_depend_on_the_order_in_which_facts_arrive(int[] days, int seed)
    {
        var facts = Facts(days);
        var shuffled = facts.OrderBy(fact => HashCode.Combine(fact.Date, seed)).ToArray();
        Assert.Equivalent(Stand([.. facts]), Stand(shuffled));
    }

    [Fact]
    public void The_latest_fact_about_a_lesson_counts_and_withdrawn_ones_are_not_given()
    {
        var (room, cohort) = (Guid.NewGuid(), Guid.NewGuid());
        Attendance There(bool present, int minute) =>
            new(Guid.NewGuid(), room, Day(7), Imke, present, Guid.Empty, DateTimeOffset.UnixEpoch.AddMinutes(minute));
        var record = Taught(room, Day(7), cohort, Whip);
        ProgressBook Book(params Attendance[] attendance) =>
            new(
                new Dictionary<Guid, IReadOnlyList<Place>> { [Imke] = [new(cohort, Day(60))] },
                attendance,
                [record],
                [],
                Today
            );
        Assert.Equal(Stage.Shown, Book(There(true, 1)).StandingOf(Imke, Whip).Stage);
        Assert.Equal(Stage.NotMet, Book(There(false, 5), There(true, 1)).StandingOf(Imke, Whip).Stage);
        Assert.Equal([Whip], Book(There(true, 1)).MetBy(Imke));
    }

    [Property]
    public void What_is_said_about_one_item_changes_no_other_and_the_latest_counts(bool[] whip, bool[] press)
    {
        // Two teachers, each ticking one item of the same lesson again and again, in whatever order it arrives.
        var (room, cohort, other) = (Guid.NewGuid(), Guid.NewGuid(), new PostureSide(Guid.NewGuid(), Side.Right));
        IEnumerable<TaughtFact> Ticks(PostureSide of, bool[] ticks) =>
            ticks
                .Index()
                .Select(tick =>
                    Taught(room, Day(7), cohort, of) with
                    {
                        Taught = tick.Item,
                        At = DateTimeOffset.UnixEpoch.AddSeconds(tick.Index),
                    }
                );
        var records = ProgressBook
            .Records(Ticks(Whip, whip).Concat(Ticks(other, press)).OrderBy(fact => fact.Id))
            .ToList();

        Assert.Equal(whip.Length + press.Length > 0, records.Count == 1);
        var taught = records
            .SelectMany(record => record.Taught)
            .Select(item => new PostureSide(item.PostureId, item.Side))
            .ToHashSet();
        Assert.Equal(whip.LastOrDefault(), taught.Contains(Whip));
        Assert.Equal(press.LastOrDefault(), taught.Contains(other));
    }

    private static TaughtFact Taught(Guid room, DateOnly date, Guid cohort, PostureSide of) =>
        Material.Taught(of, date) with
        {
            ClassId = room,
            CohortId = cohort,
            How = TaughtHow.Introduced,
            At = default,
        };

    [Fact]
    public void Who_was_there_for_the_link_into_a_posture_has_not_been_shown_the_posture()
    {
        var (room, cohort) = (Guid.NewGuid(), Guid.NewGuid());
        var record = Taught(room, Day(7), cohort, Whip) with
        {
            Kind = UnitKind.Link,
            FromId = Guid.NewGuid(),
            FromSide = Side.Right,
        };
        var there = new Attendance(Guid.NewGuid(), room, Day(7), Imke, true, Guid.Empty, DateTimeOffset.UnixEpoch);
        var book = new ProgressBook(
            new Dictionary<Guid, IReadOnlyList<Place>> { [Imke] = [new(cohort, Day(60))] },
            [there],
            [record],
            [],
            Today
        );
        Assert.Equal(Stage.NotMet, book.StandingOf(Imke, Whip).Stage);
        Assert.Empty(book.MetBy(Imke));
    }

    [Property]
    public void Moving_a_student_loses_no_fact(int moved, bool[] present)
    {
        // A lesson a week in one class; on some day the student moves to the class's other cohort, which is taught
        // something else.
        var (room, from, to) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var other = new PostureSide(Guid.NewGuid(), Side.Symmetric);
        var days = Enumerable.Range(0, present.Length).Select(week => Day(7 * (present.Length - week))).ToList();
        var move = Day(Math.Abs(moved % 100));
        var records = days.SelectMany(day => new[] { Taught(room, day, from, Whip), Taught(room, day, to, other) })
            .ToList();
        var attendance = days.Zip(
                present,
                (day, here) => new Attendance(Guid.NewGuid(), room, day, Imke, here, Guid.Empty, default)
            )
            .ToList();
        var student = Student.Create(Imke, new("Imke", "Rademaker", Guid.NewGuid(), Half.None, [from], Day(1000)));
        Stage Of(PostureSide of) =>
            new ProgressBook(
                new Dictionary<Guid, IReadOnlyList<Place>> { [Imke] = student.Places },
                attendance,
                records,
                [],
                Today
            )
                .StandingOf(Imke, of)
                .Stage;

        var before = days.Zip(present).Any(lesson => lesson.Second && lesson.First <= move);
        var after = days.Zip(present).Any(lesson => lesson.Second && lesson.First >= move);
        student.MoveTo([to], move);
        Assert.Equal(before, Of(Whip) == Stage.Shown);
        Assert.Equal(after, Of(other) == Stage.Shown);
    }

    [Fact]
    public void A_fault_three_share_is_proposed_again_for_all()
    {
        Guid[] students = [.. Enumerable.Range(0, 7).Select(_ => Guid.NewGuid())];
        Observation By(Guid student, Observation seen) => seen with { StudentId = student, Id = Guid.NewGuid() };
        ProgressBook Book(int faulty) =>
            new(
                students.ToDictionary(student => student, _ => Material.NoPlace),
                [],
                [],
                students.Select((student, at) => By(student, at < faulty ? Fault(3) : Saw(3, Stage.Alone))),
                Today
            );
        var proposal = Assert.Single(ReTeach.Propose(Guid.Empty, students, [Whip], Book(3)));
        Assert.Equal((3, 7), (proposal.Have, proposal.Observed));
        Assert.Empty(ReTeach.Propose(Guid.Empty, students, [Whip], Book(2)));
        Assert.Contains(Whip, KnownPostures.By(students, [Whip], Book(3)));
        Assert.Empty(KnownPostures.By(students, [Whip], Book(4)));
    }

    private static DateOnly Day(int ago) => Today.AddDays(-ago);

    private static Standing Stand(params Observation[] observations) => Standing.Of([], observations, Today);

    /// <summary>On a day of its own each.</summary>
    private static List<Observation> Facts(int[] days) =>
        [
            .. days.Select(
                    (day, at) =>
                        (at % 3) switch
                        {
                            0 => Fault(Math.Abs(day % 90)),
                            1 => Fine(Math.Abs(day % 90)),
                            _ => Saw(Math.Abs(day % 90), Stage.Alone),
                        }
                )
                .DistinctBy(fact => fact.Date),
        ];

    private static CorrectionState State(params Observation[] observations) =>
        Assert.Single(Stand(observations).Corrections).State;

    private static Observation Saw(int ago, Stage stage) => Seen(ago, Sign.Stage) with { Stage = stage };

    private static Observation Fine(int ago) => Seen(ago, Sign.Fine);

    private static Observation Fault(int ago, Weight weight = Weight.Shape) =>
        Seen(ago, Sign.Fault) with
        {
            Words = "front knee drifts inside the toes",
            Weight = weight,
        };

    private static Observation Seen(int ago, Sign sign) =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            Day(ago),
            Imke,
            Whip.PostureId,
            Whip.Side,
            sign,
            null,
            null,
            "",
            null,
            Guid.Empty,
            DateTimeOffset.UnixEpoch
        );
}
