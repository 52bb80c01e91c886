using FsCheck.Fluent;
using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Lessons;

/// <summary>Who looks at whom in which block (domain.md 4.5).</summary>
public sealed class LooksTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly Guid Noor = Guid.NewGuid();
    private static readonly Guid Jonas = Guid.NewGuid();
    private static readonly Guid Fern = Guid.NewGuid();
    private static readonly Guid Copper = Guid.NewGuid();
    private static readonly PostureSide Push = new(Guid.NewGuid(), Side.Right);
    private static readonly PostureSide Press = new(Guid.NewGuid(), Side.Right);

    [Fact]
    public void A_second_look_is_had_where_the_posture_is_done_and_makes_room_for_whoever_can_be_seen_nowhere_else()
    {
        var (ilse, per, imke, bernd) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        // The block about Push has three places; four could be looked at in it, one of them only there.
        Arrangement arrangement = Arranged(
            Block(10, 20, Fern, BlockKind.New, Noor) with
            {
                Material = [Push],
            },
            Block(5, 6, Fern, BlockKind.Visit, Jonas)
        );
        var book = Book(
            Saw(ilse, 7, Sign.Fault, Push),
            Saw(per, 7, Sign.Stage, Push),
            Saw(imke, 30, Sign.Fine, Push),
            Saw(bernd, 7, Sign.Fine, Push)
        );
        var looks = Looks.Of(
            Lesson(),
            arrangement,
            [Does(ilse, Push), Does(per, Push, Press), Does(imke, Push, Press), Does(bernd, Push)],
            book,
            Today
        );
        Assert.Empty(looks.Unseen);
        Assert.Equal([5, 10, 10, 10], looks.All.Select(look => look.Start));
        Assert.Contains(
            looks.All,
            look => look is { Start: 10, At: { Reason: WatchReason.SecondLook } } && look.At.StudentId == ilse
        );
        Assert.Equal(10, looks.All.Single(look => look.At.StudentId == bernd).Start);
        Assert.Equal(Jonas, looks.All.Single(look => look.Start == 5).TeacherId);
    }

    [Fact]
    public void What_all_do_together_is_watched_by_whoever_does_not_lead_it()
    {
        var (ilse, per) = (Guid.NewGuid(), Guid.NewGuid());
        var looks = Looks.Of(
            Lesson(),
            Arranged(Block(70, 80, null, BlockKind.Together, Noor)),
            [Does(ilse, Push), Does(per, Push) with { CohortId = Copper }],
            Book(),
            Today
        );
        Assert.Equal(2, looks.All.Count);
        Assert.All(looks.All, look => Assert.Equal(Jonas, look.TeacherId));
    }

    [Fact]
    public void Nobody_is_asked_for_what_they_leave_out()
    {
        var ilse = Guid.NewGuid();
        Looks Of(params PostureSide[] does) =>
            Looks.Of(
                Lesson(),
                Arranged(Block(10, 20, Fern, BlockKind.New, Noor) with { Material = [Push] }),
                [Does(ilse, does)],
                Book(),
                Today
            );
        Assert.Equal(Push, Assert.Single(Of(Push, Press).All).At.Of);
        Assert.Empty(Of(Press).All);
        Assert.Equal(1, Of(Press).MissingMinutes(LessonRules.Default));
        Assert.Empty(Of().Unseen);
    }

    [Fact]
    public void Nobody_is_looked_at_in_what_is_new_only_later()
    {
        var looks = Looks.Of(
            Lesson(),
            Arranged(
                Block(10, 12, Fern, BlockKind.Visit, Jonas),
                Block(20, 30, Fern, BlockKind.New, Noor) with
                {
                    Material = [Push],
                }
            ),
            [Does(Guid.NewGuid(), Push), Does(Guid.NewGuid(), Push, Press)],
            Book(),
            Today
        );
        Assert.Equal([(10, Press), (20, Push)], looks.All.Select(look => (look.Start, look.At.Of)));
    }

    [Fact]
    public void What_has_happened_is_not_looked_at_again() =>
        Assert.Empty(
            Looks
                .Of(
                    Lesson() with
                    {
                        Now = 30,
                    },
                    Arranged(Block(10, 20, Fern, BlockKind.Watch, Noor)),
                    [Does(Guid.NewGuid(), Push)],
                    Book(),
                    Today
                )
                .All
        );

    /// <summary>Lessons one after another in which exactly those are seen who have a look.</summary>
    [Property(MaxTest = 40)]
    public void Nobody_who_is_there_goes_unseen_twice_in_a_row_while_there_are_looks_for_half_of_them(
        FsCheck.PositiveInt many,
        FsCheck.NonNegativeInt more
    )
    {
        var people = Enumerable.Range(0, (many.Get % 24) + 1).Select(_ => Guid.CreateVersion7()).ToList();
        var visits = ((people.Count + 1) / 2) + (more.Get % 4);
        var arrangement = Arranged([
            .. Enumerable
                .Range(0, (visits + 1) / 2)
                .Select(at => Block(10 + at, 11 + at, Fern, BlockKind.Visit, Jonas)),
        ]);
        List<Observation> seen = [];
        List<Attendance> there = [];
        for (var day = Today; day < Today.AddDays(70); day = day.AddDays(7))
        {
            var overlooked = FairEyes.Overlooked(there, seen, day.AddDays(-1), lessons: 1);
            var looks = Looks.Of(
                Lesson(),
                arrangement,
                [.. people.Select(student => Does(student, Push) with { Overlooked = overlooked.Contains(student) })],
                Book(day, [.. seen]),
                day
            );
            Assert.True(there.Count == 0 || looks.Unseen.Count == 0);
            there.AddRange(
                people.Select(student => new Attendance(Guid.NewGuid(), Guid.Empty, day, student, true, Noor, default))
            );
            seen.AddRange(
                looks.All.Select(look => Saw(look.At.StudentId, Today.DayNumber - day.DayNumber, Sign.Fine, Push))
            );
            Assert.Empty(FairEyes.Overlooked(there, seen, day));
        }
    }

    [Property(MaxTest = 60)]
    public void As_many_are_seen_as_can_be_the_most_urgent_first_and_each_once(int seed)
    {
        // What a case needs many small choices for; the seed says all of them.
        var choose = new Random(seed);
        PostureSide[] all = [Push, Press, new(Guid.NewGuid(), Side.Left), new(Guid.NewGuid(), Side.Symmetric)];
        PostureSide[] Some(int least) => [.. all.Where(_ => choose.Next(2) == 0), .. all.Take(least)];
        Guid[] cohorts = [Fern, Copper];
        List<Watchable> people =
        [
            .. Enumerable
                .Range(0, choose.Next(1, 14))
                .Select(_ => new Watchable(
                    Guid.CreateVersion7(),
                    cohorts[choose.Next(2)],
                    [.. Some(1).Distinct()],
                    choose.Next(3) == 0
                )),
        ];
        var book = Book([
            .. people.SelectMany(student =>
                student
                    .Does.Where(_ => choose.Next(2) == 0)
                    .Select(of =>
                        Saw(student.StudentId, choose.Next(1, 40), choose.Next(2) == 0 ? Sign.Fault : Sign.Stage, of)
                    )
            ),
        ]);
        var arrangement = Arranged([
            .. Enumerable
                .Range(0, choose.Next(1, 6))
                .Select(at =>
                    Block(
                        at * 10,
                        (at * 10) + choose.Next(1, 3),
                        cohorts[choose.Next(2)],
                        choose.Next(2) == 0 ? BlockKind.New : BlockKind.Visit,
                        Noor
                    ) with
                    {
                        What = $"{at}",
                        Material = Some(0),
                    }
                ),
        ]);
        var looks = Looks.Of(Lesson(), arrangement, people, book, Today);

        Assert.Equal(looks.All.Count, looks.All.DistinctBy(look => look.At.StudentId).Count());
        int PlacesIn(ArrangedBlock block) => LessonRules.Default.SeenIn(block.Kind, block.Minutes);
        bool CanBeSeen(Watchable student, ArrangedBlock block) =>
            block.CohortId == student.CohortId
            && student.Does.Any(of =>
                (block.Kind == BlockKind.Visit || block.Material.Count == 0 || block.Material.Contains(of))
                && !arrangement.Blocks.Any(later =>
                    later.Kind == BlockKind.New
                    && later.CohortId == block.CohortId
                    && later.Start > block.Start
                    && later.Material.Contains(of)
                )
            );
        Assert.All(
            arrangement.Blocks,
            block => Assert.InRange(looks.All.Count(look => look.Start == block.Start), 0, PlacesIn(block))
        );
        Assert.All(
            looks.All,
            look =>
            {
                var student = people.Single(person => person.StudentId == look.At.StudentId);
                Assert.Contains(look.At.Of, student.Does);
                Assert.True(CanBeSeen(student, arrangement.Blocks.Single(block => block.Start == look.Start)));
            }
        );

        // Whoever has none could only have one that somebody more urgent has.
        var order = WatchList.Of(people, book, Today).Select(watched => watched.StudentId).ToList();
        foreach (var student in people.Where(person => looks.All.All(look => look.At.StudentId != person.StudentId)))
        {
            foreach (var block in arrangement.Blocks.Where(block => CanBeSeen(student, block)))
            {
                var there = looks.All.Where(look => look.Start == block.Start).ToList();
                Assert.Equal(PlacesIn(block), there.Count);
                Assert.All(
                    there,
                    look => Assert.True(order.IndexOf(look.At.StudentId) < order.IndexOf(student.StudentId))
                );
            }
        }
    }

    private static LessonProblem Lesson() =>
        new(
            90,
            [new(Fern, "Fern", 2, 8, false, "Press", 3, 8), new(Copper, "Copper", 3, 4, false, "Press", 1, 4)],
            [new(Noor, "Noor", true, null, 0, 90), new(Jonas, "Jonas", true, null, 0, 90)],
            [],
            [],
            LessonRules.Default
        );

    private static Arrangement Arranged(params IReadOnlyList<ArrangedBlock> blocks) => new(blocks, [], 0, 0);

    private static ArrangedBlock Block(int start, int end, Guid? cohort, BlockKind kind, Guid leader) =>
        new(start, end, cohort, kind, "", leader, [], "");

    private static Watchable Does(Guid student, params PostureSide[] does) =>
        new(student, Fern, does, Overlooked: false);

    private static ProgressBook Book(params Observation[] seen) => Book(Today, seen);

    private static ProgressBook Book(DateOnly today, Observation[] seen) =>
        new(
            seen.Select(fact => fact.StudentId).Distinct().ToDictionary(student => student, _ => Material.NoPlace),
            [],
            [],
            seen,
            today
        );

    private static Observation Saw(Guid student, int daysAgo, Sign sign, PostureSide of) =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            Today.AddDays(-daysAgo),
            student,
            of.PostureId,
            of.Side,
            sign,
            sign == Sign.Stage ? Stage.Follows : null,
            null,
            sign == Sign.Fault ? "knee drifts in" : "",
            sign == Sign.Fault ? Weight.KeyPoint : null,
            Guid.Empty,
            default
        );
}
