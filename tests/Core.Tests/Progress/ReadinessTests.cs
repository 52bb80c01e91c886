using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Tests.Forms;

namespace Zeitplan.Core.Tests.Progress;

/// <summary>Imke in Fern of Heron Quay, whose newer half studies 9 to 12 of the Lantern Form, its senior half 13 to 17; 26
/// weeks and 20 lessons of it, everything alone.</summary>
public sealed class ReadinessTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly DateOnly Entered = Today.AddDays(-7 * 30);
    private static readonly Guid Imke = Guid.NewGuid();
    private static readonly Guid Kofi = Guid.NewGuid();
    private static readonly Form Lantern = Form.Create(Guid.NewGuid(), Starter.Long);
    private static readonly Dictionary<Guid, Form> Forms = new() { [Lantern.Id] = Lantern };
    private static readonly Dictionary<Guid, PostureOutline> Outlines = Starter.Postures.ToDictionary(
        posture => posture.Key,
        posture => posture.Value.Outline
    );
    private static readonly SashLevel Fern = Sash("Fern", 2, new() { Stage = Stage.Alone, Accepts = Accepts.Finesse });
    private static readonly SashLevel Copper = Sash("Copper", 3, new());
    private static readonly StepUp Whole = StepUp.Of([Copper, Fern], Fern.Id, Half.Senior, Forms)!;
    private static readonly IReadOnlyList<UnitKey> Postures =
    [
        .. Whole.Units.Select(unit => unit.Of).Where(of => of.Kind == UnitKind.Posture),
    ];
    private static readonly IReadOnlyList<UnitKey> Links = [.. Whole.Units.Select(unit => unit.Of).Except(Postures)];

    [Fact]
    public void A_step_asks_for_the_postures_and_the_links_between_them_and_half_the_time_of_a_half()
    {
        var first = StepUp.Of([Copper, Fern], Fern.Id, Half.Newer, Forms)!;
        Assert.Equal((Fern, Half.Senior, 13, 10), (first.To, first.ToHalf, first.Weeks, first.Lessons));
        Assert.Equal((Copper, 13, 10), (Whole.To, Whole.Weeks, Whole.Lessons));
        Assert.All(first.Units, unit => Assert.Contains(unit, Whole.Units));
        Assert.True(first.Units.Count < Whole.Units.Count);
        Assert.All(Links, link => Assert.Contains(new(UnitKind.Posture, link.PostureId, link.Side), Postures));
        Assert.Null(StepUp.Of([Copper, Fern], Copper.Id, Half.None, Forms));
        Assert.Equal(
            (26, 20),
            StepUp.Of([Copper, Fern], Fern.Id, Half.None, Forms) is { } undivided
                ? (undivided.Weeks, undivided.Lessons)
                : default
        );
    }

    [Fact]
    public void Whoever_has_the_time_the_lessons_and_every_posture_and_link_clean_is_ready()
    {
        var ready = Judge(Everything(), lessons: 10);
        Assert.True(ready.IsReady, string.Join('\n', ready.Missing));
        Assert.Null(ready.Likely);
        Assert.Empty(ready.NotAsked);
    }

    [Fact]
    public void Nobody_is_ready_for_what_the_ladder_does_not_say()
    {
        var unsaid = new Readiness(Whole with { Units = [] }, [], [], new(1, 1));
        Assert.Equal((false, true, null), (unsaid.IsReady, unsaid.IsUnsaid, unsaid.Likely));
    }

    [Fact]
    public void What_is_missing_is_said_thing_by_thing()
    {
        Observation[] seen = [.. Everything().Skip(2), Saw(Postures[^1], 3, Sign.Fault, Weight.KeyPoint)];
        var missing = Judge(seen, lessons: 9, since: Today.AddDays(-7 * 5)).Missing;
        Assert.Equal(
            [new Lacking.Weeks(5, 13, Today.AddDays(-7 * 5)), new Lacking.Lessons(5, 10, missing[1].Likely)],
            missing.Take(2)
        );
        var open = Assert.IsType<Lacking.Clean>(missing[2]);
        Assert.Equal((Postures[^1], Weight.KeyPoint), (open.Of, open.Correction.Weight));
        Assert.Equal(
            [.. Whole.Units.Take(2).Select(unit => unit.Of)],
            missing.Skip(3).Cast<Lacking.AtStage>().Select(its => its.Of).ToHashSet()
        );
        Assert.All(missing.Take(3), its => Assert.True(its.Likely > Today));
    }

    [Fact]
    public void What_somebody_came_with_counts_for_nothing_until_it_was_seen()
    {
        var held = Postures.ToDictionary(of => new PostureSide(of.PostureId, of.Side), _ => Stage.Alone);
        var missing = Judge([], lessons: 30, takenOver: held).Missing.Cast<Lacking.AtStage>().ToList();
        Assert.Equal(Whole.Units.Count, missing.Count);
        Assert.Equal(Postures.Count, missing.Count(its => its is { TakenOver: true, Has: Stage.Alone }));
        Assert.True(Judge(Everything(), lessons: 30, takenOver: held).IsReady);
    }

    [Fact]
    public void A_run_through_goes_through_the_links_and_what_is_seen_by_itself_does_not()
    {
        var alone = Judge([.. Postures.Select(of => Saw(of, 20))], lessons: 30);
        Assert.Equal([.. Links], alone.Missing.Cast<Lacking.AtStage>().Select(its => its.Of));
        Assert.True(Judge([.. Postures.Select(of => Saw(of, 20) with { InRunThrough = true })], lessons: 30).IsReady);
        Assert.False(
            Judge(
                [
                    .. Postures.Select(of => Saw(of, 20) with { InRunThrough = true }),
                    Saw(Links[0], 10) with
                    {
                        Stage = Stage.Follows,
                    },
                ],
                lessons: 30
            ).IsReady
        );
    }

    [Theory]
    [InlineData(Weight.KeyPoint, false, true)]
    [InlineData(Weight.KeyPoint, true, true)]
    [InlineData(Weight.Shape, false, true)]
    [InlineData(Weight.Shape, true, false)]
    [InlineData(Weight.Finesse, false, false)]
    public void A_key_point_holds_back_and_a_lighter_fault_where_the_level_does_not_accept_it(
        Weight weight,
        bool keyPointDecides,
        bool holds
    )
    {
        Observation[] seen = [.. Everything(), Saw(Postures[0], 3, Sign.Fault, weight)];
        Assert.Equal(!holds, Judge(seen, 30, keyPointDecides: keyPointDecides).IsReady);
        Assert.True(
            Judge(
                [.. seen, Saw(Postures[0], 2, Sign.Fine), Saw(Postures[0], 1, Sign.Fine)],
                30,
                keyPointDecides: keyPointDecides
            ).IsReady
        );
    }

    [Fact]
    public void Beyond_what_the_step_asks_only_key_points_hold_back()
    {
        UnitKey elsewhere = new(UnitKind.Posture, Lantern.Positions[40].PostureId, Lantern.Positions[40].Side);
        Assert.DoesNotContain(elsewhere, Postures);
        Assert.True(Judge([.. Everything(), Saw(elsewhere, 3, Sign.Fault, Weight.Shape)], 30).IsReady);
        Assert.False(Judge([.. Everything(), Saw(elsewhere, 3, Sign.Fault, Weight.KeyPoint)], 30).IsReady);
        Assert.False(
            Judge(
                [.. Everything(), Saw(elsewhere, 3, Sign.Fault, Weight.KeyPoint) with { PrincipleId = Guid.NewGuid() }],
                30
            ).IsReady
        );
    }

    [Fact]
    public void Nobody_is_asked_for_what_there_is_no_version_of_that_they_can_do()
    {
        var everything = Judge(Everything(), 30, limits: [new(Demand.ArmsAtShoulderHeight, Side.Symmetric)]);
        Assert.All(everything.NotAsked, of => Assert.Contains(new(UnitKind.Posture, of.PostureId, of.Side), Postures));
        Assert.NotEmpty(everything.NotAsked);
        var nothing = Judge([], 30, limits: [new(Demand.ArmsAtShoulderHeight, Side.Symmetric)]);
        Assert.DoesNotContain(
            nothing.Missing.Cast<Lacking.AtStage>(),
            its =>
                nothing.NotAsked.Contains(new(its.Of.PostureId, its.Of.Side))
                || (its.Of.From() is { } from && nothing.NotAsked.Contains(from))
        );
    }

    [Fact]
    public void What_the_plan_brings_is_reached_as_long_after_it_as_others_take()
    {
        var (unmet, met) = (Postures[^1], Postures[0]);
        Lacking.AtStage On(UnitKey of, int newIn, int ownCases) =>
            Judge(
                [Follows(met, 14), .. Cases(Kofi, daysToAlone: 28), .. Cases(Imke, daysToAlone: 21).Take(2 * ownCases)],
                11,
                planned: new Dictionary<PostureSide, DateOnly>
                {
                    [new(unmet.PostureId, unmet.Side)] = Today.AddDays(newIn),
                }
            )
                .Missing.OfType<Lacking.AtStage>()
                .Single(its => its.Of == of);
        Assert.Equal((Today.AddDays(14), Today.AddDays(14 + 28)), (On(unmet, 14, 0).New, On(unmet, 14, 0).Likely));
        Assert.Equal(Today.AddDays(21 + 28), On(unmet, 21, TimeToStage.FewestCases - 1).Likely);
        // Whoever has enough cases of their own takes as long as they take.
        Assert.Equal(Today.AddDays(21 + 21), On(unmet, 21, TimeToStage.FewestCases).Likely);
        Assert.Equal((null, Today.AddDays(28 - 14)), (On(met, 14, 0).New, On(met, 14, 0).Likely));
        // Two lessons until they are looked at, however soon they could do it.
        Assert.Equal(Today.AddDays(14), On(met, 14, TimeToStage.FewestCases).Likely);
    }

    [Fact]
    public void What_somebody_came_with_says_nothing_about_how_long_they_take()
    {
        var (unmet, own) = (new PostureSide(Postures[^1].PostureId, Postures[^1].Side), Cases(Imke, 7).ToList());
        DateOnly? Likely(IEnumerable<Observation> cameWith) =>
            Judge(
                [.. own, .. Cases(Kofi, daysToAlone: 28)],
                lessons: 11,
                takenOver: cameWith
                    .Select(fact => new PostureSide(fact.PostureId, fact.Side))
                    .Distinct()
                    .ToDictionary(of => of, _ => Stage.Alone),
                planned: new Dictionary<PostureSide, DateOnly> { [unmet] = Today.AddDays(21) }
            )
                .Missing.OfType<Lacking.AtStage>()
                .Single(its => its.Of == Postures[^1])
                .Likely;
        Assert.Equal(Today.AddDays(21 + 7), Likely([]));
        Assert.Equal(Today.AddDays(21 + 28), Likely(own));
    }

    [Fact]
    public void Beyond_the_plan_what_is_new_comes_as_it_has_come_lately()
    {
        // Ten lessons in ten weeks brought two postures: one in five lessons.
        Observation[] seen = [.. Postures.Take(2).Select(of => Saw(of, 30)), .. Cases(Kofi, daysToAlone: 7)];
        var missing = Judge(seen, 10).Missing.Cast<Lacking.AtStage>().Where(its => its.New is not null).ToList();
        Assert.Equal(
            [.. Postures.Skip(2).Select((_, at) => Today.AddDays(7 * 5 * (at + 1)))],
            missing.OrderBy(its => its.New).Select(its => its.New!.Value)
        );
    }

    [Fact]
    public void Where_there_is_nothing_to_reckon_from_no_date_is_claimed()
    {
        var away = Judge(Everything().Skip(1), lessons: 0);
        Assert.Null(away.Likely);
        Assert.All(away.Missing.Where(its => its is not Lacking.Weeks), its => Assert.Null(its.Likely));
        var fewCases = Judge([Follows(Postures[0], 5)], lessons: 20).Missing.Cast<Lacking.AtStage>();
        Assert.Null(fewCases.Single(its => its.Of == Postures[0]).Likely);
        var nothingNew = Judge([.. Cases(Kofi, daysToAlone: 7)], lessons: 20);
        Assert.All(nothingNew.Missing, its => Assert.Null(its.Likely));
    }

    [Property]
    public void One_thing_more_seen_is_one_thing_less_missing(int seed)
    {
        var choose = new Random(seed);
        List<Observation> seen = [.. Everything().Where(_ => choose.Next(3) > 0)];
        var (lessons, since) = (choose.Next(4, 30), Today.AddDays(-choose.Next(7 * 30)));
        var unseen = Whole.Units.Where(unit => !seen.Exists(fact => fact.Key == unit.Of)).ToList();
        if (unseen.Count > 0)
        {
            var more = Saw(unseen[choose.Next(unseen.Count)].Of, 0);
            Assert.Equal(
                Judge(seen, lessons, since).Missing.Count - 1,
                Judge([.. seen, more], lessons, since).Missing.Count
            );
        }
    }

    [Property]
    public void The_order_in_which_facts_arrive_changes_nothing(int seed)
    {
        var choose = new Random(seed);
        Observation[] seen =
        [
            .. Everything().Where(_ => choose.Next(3) > 0),
            .. Postures
                .Where(_ => choose.Next(4) == 0)
                .Select(of => Saw(of, choose.Next(60), Sign.Fault, Weight.Shape)),
        ];
        var once = Judge(seen, 12);
        choose.Shuffle(seen);
        var again = Judge(seen, 12);
        Assert.Equal((once.IsReady, once.Likely, once.Pace), (again.IsReady, again.Likely, again.Pace));
        Assert.Equal(
            once.Missing.Select(its => (its as Lacking.AtStage)?.Of),
            again.Missing.Select(its => (its as Lacking.AtStage)?.Of)
        );
    }

    [Property]
    public void The_date_is_that_of_the_last_thing_missing_and_always_ahead(int seed)
    {
        var choose = new Random(seed);
        var ready = Judge(
            [.. Everything().Where(_ => choose.Next(2) > 0)],
            choose.Next(30),
            Today.AddDays(-choose.Next(7 * 40))
        );
        Assert.All(ready.Missing, its => Assert.True(its.Likely is null || its.Likely > Today));
        Assert.Equal(
            ready.IsReady || ready.Missing.Any(its => its.Likely is null) ? null : ready.Missing.Max(its => its.Likely),
            ready.Likely
        );
    }

    private static SashLevel Sash(string name, int order, SashAsks asks) =>
        SashLevel.Create(
            Guid.NewGuid(),
            order,
            new(
                name,
                "#6E8C4A",
                name == "Fern",
                asks with
                {
                    Weeks = 26,
                    Lessons = 20,
                    Studies = [Run(9, 12, Half.Newer), Run(13, 17, Half.Senior)],
                }
            )
        );

    private static Study Run(int from, int to, Half half) =>
        new(Lantern.Id, Lantern.Positions[from - 1].Id, Lantern.Positions[to - 1].Id, half);

    /// <summary>Everything the step asks for, each alone on a day of the last weeks.</summary>
    private static IReadOnlyList<Observation> Everything() =>
        [.. Whole.Units.Select((unit, at) => Saw(unit.Of, 10 + (at * 3)))];

    private static Readiness Judge(
        IEnumerable<Observation> seen,
        int lessons,
        DateOnly? since = null,
        IReadOnlyDictionary<PostureSide, Stage>? takenOver = null,
        bool keyPointDecides = false,
        IReadOnlyList<Limit>? limits = null,
        IReadOnlyDictionary<PostureSide, DateOnly>? planned = null
    )
    {
        var book = new ProgressBook(
            new Dictionary<Guid, IReadOnlyList<Place>> { [Imke] = Material.NoPlace, [Kofi] = Material.NoPlace },
            [],
            [],
            seen,
            Today,
            takenOver is null
                ? null
                : new Dictionary<Guid, IReadOnlyDictionary<PostureSide, Stage>> { [Imke] = takenOver }
        );
        return new ReadinessJudge(
            [Copper, Fern],
            Forms,
            Outlines,
            keyPointDecides,
            book,
            TimeToStage.Of([Imke, Kofi], book),
            Today
        ).Of(
            new(Imke, Mode.Standing, limits ?? []),
            new(Fern.Id, Half.Senior, since ?? Entered),
            [.. Enumerable.Range(1, lessons).Select(at => Today.AddDays(-7 * at))],
            planned ?? new Dictionary<PostureSide, DateOnly>()
        )!;
    }

    /// <summary>Five other postures, for each of which somebody took so long.</summary>
    private static IEnumerable<Observation> Cases(Guid student, int daysToAlone) =>
        Enumerable
            .Range(0, TimeToStage.FewestCases)
            .Select(_ => new UnitKey(UnitKind.Posture, Guid.NewGuid(), Side.Left))
            .SelectMany(of => new[] { Follows(of, 90), Saw(of, 90 - daysToAlone) })
            .Select(fact => fact with { StudentId = student });

    private static Observation Follows(UnitKey of, int daysAgo) => Saw(of, daysAgo) with { Stage = Stage.Follows };

    private static Observation Saw(UnitKey of, int daysAgo, Sign sign = Sign.Stage, Weight? weight = null) =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            Today.AddDays(-daysAgo),
            Imke,
            of.PostureId,
            of.Side,
            sign,
            sign == Sign.Stage ? Stage.Alone : null,
            null,
            sign == Sign.Fault ? "knee drifts in" : "",
            weight,
            Guid.Empty,
            default
        )
        {
            FromId = of.FromPostureId,
            FromSide = of.FromSide,
        };
}
