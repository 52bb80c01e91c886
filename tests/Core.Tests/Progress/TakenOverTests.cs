using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Tests.Forms;

namespace Zeitplan.Core.Tests.Progress;

/// <summary>Heron Quay's ladder over the Lantern Form: Ivory studies 1 to 11, the halves of Fern 9 to 17 and 18 to 31,
/// Copper 29 to 43.</summary>
public sealed class TakenOverTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly Form Lantern = Form.Create(Guid.NewGuid(), Starter.Long);
    private static readonly Dictionary<Guid, PostureOutline> Outlines = Starter.Postures.ToDictionary(
        posture => posture.Key,
        posture => posture.Value.Outline
    );
    private static readonly SashLevel Ivory = Sash("Ivory", 1, false, (1, 11, Half.None));
    private static readonly SashLevel Fern = Sash("Fern", 2, true, (9, 17, Half.Newer), (18, 31, Half.Senior));
    private static readonly SashLevel Copper = Sash("Copper", 3, false, (29, 43, Half.None));
    private static readonly TakenOver Entry = new(
        [Copper, Ivory, Fern],
        new Dictionary<Guid, Form> { [Lantern.Id] = Lantern },
        Outlines
    );

    private static SashLevel Sash(
        string name,
        int order,
        bool halves,
        params (int From, int To, Half Half)[] studies
    ) =>
        SashLevel.Create(
            Guid.NewGuid(),
            order,
            new(
                name,
                "#6E8C4A",
                halves,
                new()
                {
                    Studies =
                    [
                        .. studies.Select(study => new Study(
                            Lantern.Id,
                            Lantern.Positions[study.From - 1].Id,
                            Lantern.Positions[study.To - 1].Id,
                            study.Half
                        )),
                    ],
                }
            )
        );

    private static IReadOnlyDictionary<PostureSide, Stage> By(SashLevel sash, Half half = Half.None) =>
        Entry.By(new(sash.Id, half, Today), []);

    private static IEnumerable<PostureSide> Places(int from, int to) =>
        Lantern
            .Positions.Skip(from - 1)
            .Take(to - from + 1)
            .Select(position => new PostureSide(position.PostureId, position.Side));

    [Fact]
    public void What_lies_below_a_sash_is_alone_and_its_own_level_is_shown()
    {
        var held = By(Copper);
        Assert.All(Places(1, 31), of => Assert.Equal(Stage.Alone, held[of]));
        Assert.All(Places(32, 43).Except(Places(1, 31)), of => Assert.Equal(Stage.Shown, held[of]));
        Assert.DoesNotContain(Places(44, 75).Except(Places(1, 43)), held.ContainsKey);
    }

    [Fact]
    public void The_senior_half_holds_what_the_newer_half_studies()
    {
        Assert.All(Places(9, 17), of => Assert.Equal(Stage.Alone, By(Fern, Half.Senior)[of]));
        Assert.All(Places(12, 17).Except(Places(1, 11)), of => Assert.Equal(Stage.Shown, By(Fern, Half.Newer)[of]));
        Assert.DoesNotContain(Places(18, 31).Except(Places(1, 17)), By(Fern, Half.Newer).ContainsKey);
    }

    [Fact]
    public void Whoever_begins_at_the_bottom_brings_nothing() => Assert.Empty(By(Ivory));

    [Fact]
    public void Whoever_does_a_posture_alone_does_what_it_needs()
    {
        var held = By(Copper);
        var needs = held.Where(of => of.Value == Stage.Alone)
            .SelectMany(of =>
                Outlines[of.Key.PostureId]
                    .NeedsIn(Mode.Standing, Outlines)
                    .Select(need => new PostureSide(need, Outlines[need].SideFor(of.Key.Side)))
            )
            .ToHashSet();
        Assert.Contains(needs, need => Outlines[need.PostureId].IsDrill);
        Assert.All(needs, need => Assert.Equal(Stage.Alone, held[need]));
    }

    [Property]
    public void The_higher_the_sash_the_more_is_held(int sash)
    {
        SashLevel[] ladder = [Ivory, Fern, Copper];
        var (lower, higher) = (By(ladder[Math.Abs(sash % 2)]), By(ladder[Math.Abs(sash % 2) + 1]));
        Assert.All(lower, of => Assert.True(higher[of.Key] >= of.Value));
    }

    [Property]
    public void The_last_word_about_a_posture_counts_whatever_the_sash_says(int[] words)
    {
        Stage[] stages = [Stage.NotMet, Stage.Shown, Stage.Alone];
        var place = Places(20, 20).Single();
        var said = words
            .Select(
                (word, at) =>
                    new TakenOverFact(
                        Guid.NewGuid(),
                        Guid.Empty,
                        place.PostureId,
                        place.Side,
                        stages[Math.Abs(word % 3)],
                        Guid.Empty,
                        DateTimeOffset.UnixEpoch.AddMinutes(at)
                    )
            )
            .ToList();
        var held = Entry.By(new(Copper.Id, Half.None, Today), [.. said.AsEnumerable().Reverse()]);
        Assert.Equal(said.Count == 0 ? Stage.Alone : said[^1].Stage, held.GetValueOrDefault(place));
        Assert.Equal(Stage.Alone, held[Places(2, 2).Single()]);
    }

    [Fact]
    public void It_holds_until_somebody_has_seen_a_stage_and_never_settles()
    {
        var of = new PostureSide(Guid.NewGuid(), Side.Left);
        Observation Saw(int daysAgo, Sign sign, Stage? stage = null) =>
            new(
                Guid.NewGuid(),
                Guid.Empty,
                Today.AddDays(-daysAgo),
                Guid.Empty,
                of.PostureId,
                of.Side,
                sign,
                stage,
                null,
                "the knee drifts inside",
                sign == Sign.Fault ? Weight.Shape : null,
                Guid.Empty,
                default
            );

        Assert.Equal((Stage.Alone, true), Of([]));
        Assert.Equal((Stage.Alone, true), Of([Saw(9, Sign.Fault)]));
        Assert.Equal((Stage.Follows, false), Of([Saw(9, Sign.Fault), Saw(2, Sign.Stage, Stage.Follows)]));
        Assert.Equal((Stage.Alone, false), Of([Saw(40, Sign.Stage, Stage.Alone), Saw(2, Sign.Stage, Stage.Alone)]));

        (Stage, bool) Of(Observation[] seen)
        {
            var standing = Standing.Of([Today.AddDays(-50)], seen, Today, Stage.Alone);
            return (standing.Stage, standing.TakenOver);
        }
    }

    [Fact]
    public void What_most_came_with_need_not_be_taught_as_new_and_says_nothing_about_how_many_were_watched()
    {
        var of = new PostureSide(Guid.NewGuid(), Side.Left);
        Guid[] students = [Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid()];
        var book = new ProgressBook(
            students.ToDictionary(student => student, _ => Material.NoPlace),
            [],
            [],
            [],
            Today,
            students
                .Take(2)
                .ToDictionary(
                    student => student,
                    IReadOnlyDictionary<PostureSide, Stage> (_) =>
                        new Dictionary<PostureSide, Stage> { [of] = Stage.Alone }
                )
        );
        Assert.Contains(of, KnownPostures.By(students, [of], book));
        Assert.All(students, student => Assert.Empty(book.MetBy(student)));
        Assert.All(students, student => Assert.Null(book.LastSeen(student)));
        Assert.Equal(Standing.NotMet, book.StandingOf(students[2], of));
    }
}
