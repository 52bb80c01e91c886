using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Tests.Forms;

namespace Zeitplan.Core.Tests.Progress;

public sealed class HomePracticeTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly Guid Imke = Guid.NewGuid();
    private static readonly PostureSide Whip = Of("Single Whip", Side.Left);
    private static readonly PostureSide Push = Of("Push", Side.Left);
    private static readonly Form Lantern = Form.Create(Guid.NewGuid(), Starter.Long);
    private static readonly IReadOnlyDictionary<Guid, Principle> Principles = Starter.Library.Principles.ToDictionary(
        principle => principle.Id,
        principle => Principle.Create(principle.Id, principle.Text)
    );

    private static readonly HomePractice Practice = new(
        Starter.Postures,
        Starter.Postures.ToDictionary(posture => posture.Key, posture => posture.Value.Outline),
        [Lantern],
        new(Starter.Postures, Starter.Links),
        Principles,
        HouseholdOccasion.Shipped
    );

    [Fact]
    public void A_sheet_has_the_newest_the_most_important_correction_and_a_run_of_what_is_done_alone()
    {
        var sheet = Sheet([
            .. Alone(5, 40),
            Reached(Push, 12, Stage.Follows),
            Reached(Whip, 30, Stage.Follows),
            Fault(Whip, 20),
        ])!;
        Assert.Equal([HomeKind.Newest, HomeKind.Correction, HomeKind.Flow], sheet.Things.Select(thing => thing.Kind));
        Assert.Equal(Push, Assert.Single(sheet.Things[0].Postures).Of);
        Assert.Equal(Whip, Assert.Single(sheet.Things[1].Postures).Of);
        Assert.True(sheet.Things[2].Postures.Count >= 5);
        var fault = Starter.Called("Single Whip").Faults[0];
        Assert.Equal(fault.Causes[0].Mend, sheet.Things[1].Mend);
        Assert.Equal(sheet.Things[1].Mend, sheet.Focus);
    }

    [Fact]
    public void What_is_new_and_to_be_corrected_is_on_the_sheet_once()
    {
        var thing = Assert.Single(Sheet([Reached(Whip, 12, Stage.Follows), Fault(Whip, 12)])!.Things);
        Assert.Equal(HomeKind.Correction, thing.Kind);
    }

    [Fact]
    public void Whoever_has_met_nothing_has_no_sheet() => Assert.Null(Sheet([]));

    [Fact]
    public void A_habit_is_the_focus_whatever_the_fault_it_shows_in()
    {
        var faults = (
            from posture in Starter.Postures.Values
            from fault in posture.Faults
            where fault.PrincipleId is not null && posture.WrittenSide != Side.Symmetric && posture.Counts.Count > 0
            group (posture, fault) by fault.PrincipleId!.Value into same
            where same.DistinctBy(its => its.posture.Id).Count() >= Habit.FewestPostures
            select same
        ).First();
        var sheet = Sheet([
            .. faults
                .DistinctBy(its => its.posture.Id)
                .Take(Habit.FewestPostures)
                .Select(its => Fault(new(its.posture.Id, Side.Left), 9, its.fault)),
        ])!;
        Assert.Equal(Principles[faults.Key].Text.KeyPoint, sheet.Focus);
    }

    [Property(MaxTest = 40)]
    public void Nothing_on_a_sheet_asks_for_what_somebody_must_not_be_asked_for(int seed, byte how)
    {
        var random = new Random(seed);
        var demands = Enum.GetValues<Demand>();
        random.Shuffle(demands);
        List<Limit> limits = [.. demands.Take(random.Next(4)).Select(demand => new Limit(demand))];
        var mode = Mode.Named[how % Mode.Named.Count];
        var sheet = Sheet(SomeHistory(random), limits, mode);
        Assert.True(sheet is null || sheet.Things.Count is > 0 and <= 3);
        foreach (var done in sheet?.Things.SelectMany(thing => thing.Postures) ?? [])
        {
            Assert.True(done.Mode.Adapted >= mode.Adapted);
            var outline = Starter.Postures[done.PostureId].Outline;
            Assert.Empty(ModeChoice.Broken(outline.In(done.Mode)!, outline, done.Side, limits));
        }

        if (sheet is { Occasion.Length: > 0 })
        {
            var occasion = HouseholdOccasion.Shipped.Single(occasion => occasion.Id == sheet.Occasion);
            Assert.DoesNotContain(limits, limit => occasion.Asks.Contains(limit.Demand));
            Assert.Equal(
                mode.Support == Support.Seat,
                occasion.For.Contains(HouseholdOccasion.Posed.Sitting) && mode.Support == Support.Seat
            );
        }
    }

    /// <summary>However it was settled: whoever leaves something out is not given it, and nobody a way that breaks a limit,
    /// settled or not.</summary>
    [Property(MaxTest = 40)]
    public void What_is_settled_for_somebody_holds_at_home_too(int seed)
    {
        var random = new Random(seed);
        List<Limit> limits = random.Next(2) == 0 ? [] : [new(Demand.BackwardStep), new(Demand.OneLegBalance)];
        var settled = Starter
            .Postures.Keys.Where(_ => random.Next(2) == 0)
            .ToDictionary(
                id => id,
                id =>
                {
                    var mode = random.Next(4) == 0 ? null : Mode.Named[random.Next(Mode.Named.Count)].Name;
                    return new Adaptation(Guid.NewGuid(), Imke, id, mode, "toe down", Guid.Empty, default);
                }
            );
        var sheet = Sheet(SomeHistory(random), limits, settled: settled);
        foreach (var done in sheet?.Things.SelectMany(thing => thing.Postures) ?? [])
        {
            var outline = Starter.Postures[done.PostureId].Outline;
            Assert.Empty(ModeChoice.Broken(outline.In(done.Mode)!, outline, done.Side, limits));
            var its = settled.GetValueOrDefault(done.PostureId);
            Assert.False(its is { Mode: null });
            var holds = its is not null && Safety.Holds(its, outline, done.Side, limits);
            Assert.Equal(holds ? "toe down" : "", done.Words);
            Assert.True(!holds || done.Mode.Name == its!.Mode);
        }
    }

    [Property(MaxTest = 40)]
    public void A_sheet_that_was_handed_out_stays_as_it_is_while_nothing_happens(int seed)
    {
        var facts = SomeHistory(new Random(seed));
        var first = Sheet(facts);
        var again = Sheet(facts, last: first);
        Assert.Equal(first is null, again is null);
        Assert.True(first is null || first.SaysTheSame(again!));
        Assert.True(
            first is null
                || first.Minutes is > 0 and <= (2 * HomePractice.MostMinutesOfOne) + HomePractice.MostMinutesOfRun + 2
        );
    }

    [Fact]
    public void What_somebody_is_at_work_on_stays_until_it_is_cleared_or_something_heavier_comes_up()
    {
        var posture = Starter.Called("Push");
        var (light, other) = (
            posture.Faults.First(fault => fault.Weight == Weight.Shape),
            Starter.Called("Single Whip").Faults.First(fault => fault.Weight == Weight.Shape)
        );
        List<Observation> facts = [Fault(Push, 12, light)];
        var first = Sheet(facts)!;
        // Older, and so it would come first.
        facts.Add(Fault(Whip, 20, other));
        Assert.True(Sheet(facts, last: first)!.Things[^1].Postures[0].Of == Push);
        facts.Add(Fault(Whip, 2));
        Assert.Equal(Weight.KeyPoint, Starter.Called("Single Whip").Faults[0].Weight);
        Assert.Equal(Whip, Corrected(Sheet(facts, last: first)!));
        facts.AddRange(Fine(Whip, 1), Fine(Whip, 0));
        Assert.Equal(Push, Corrected(Sheet(facts, last: first)!));

        static PostureSide Corrected(HomeSheet sheet) =>
            sheet.Things.Single(thing => thing.Kind == HomeKind.Correction).Postures[^1].Of;
    }

    [Fact]
    public void A_run_through_turns_to_what_fades()
    {
        var early = Lantern.Positions.Take(4).Select(AsPosture);
        var late = Lantern.Positions.Skip(20).Take(4).Select(AsPosture);
        var sheet = Sheet([
            .. early.Select(of => Reached(of, 90, Stage.Alone)),
            .. late.Select(of => Reached(of, 7, Stage.Alone)),
        ])!;
        Assert.Equal(
            early,
            sheet.Things.Single(thing => thing.Kind == HomeKind.Flow).Postures.Select(done => done.Of).Distinct()
        );
    }

    [Fact]
    public void Whoever_sits_is_given_something_to_do_on_a_seat()
    {
        var sheet = Sheet([Reached(Of("Opening", Side.Symmetric), 7, Stage.Follows)], mode: Mode.Seated)!;
        Assert.All(sheet.Things[0].Postures, done => Assert.Equal(Mode.Seated, done.Mode));
        Assert.Contains(
            HouseholdOccasion.Posed.Sitting,
            HouseholdOccasion.Shipped.Single(occasion => occasion.Id == sheet.Occasion).For
        );
    }

    [Theory]
    [InlineData("standing", "one-leg postures")]
    [InlineData("supported", "rolling frame", "somebody who can help")]
    [InlineData("seated", "no wheels", "back supported", "footplates", "leaning forward", "somebody who can help")]
    public void A_sheet_for_home_carries_every_caution_of_its_mode(string mode, params string[] more)
    {
        var said = string.Join(' ', Cautions.Always.Concat(Cautions.AtHome(Mode.FromName(mode)!.Value)));
        string[] always =
        [
            "comfortable range",
            "chest discomfort",
            "force the breath",
            "in line with the toes",
            "clinician",
            "First aid",
            "dry floor",
            "firm to hold",
            "under control",
        ];
        Assert.All(always.Concat(more), words => Assert.Contains(words, said, StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("Heel Kick", Training.EmptyingAFoot)]
    [InlineData("Cloud Hands", Training.TurningTheWaist)]
    [InlineData("Stance Walking", Training.Stepping)]
    public void What_a_posture_trains_is_read_off_how_it_is_done(string name, Training trains)
    {
        var posture = Starter.Postures.Values.First(posture => posture.Name.StartsWith(name, StringComparison.Ordinal));
        var walk = PostureBody.Of(posture, posture.WrittenSide, Mode.Standing, Conventions.Default, Physique.Standard)!;
        Assert.Contains(trains, TrainedBy.Of(walk));
        Assert.Equal(Training.StandingStill, TrainedBy.Of(walk)[^1]);
    }

    [Fact]
    public void Every_occasion_has_its_own_name_and_for_whatever_is_trained_there_is_one_however_somebody_takes_part()
    {
        Assert.Equal(
            HouseholdOccasion.Shipped.Count,
            HouseholdOccasion.Shipped.Select(occasion => occasion.Id).Distinct().Count()
        );
        foreach (var mode in Mode.Named)
        {
            Assert.NotEmpty(HouseholdOccasion.Shipped.Suiting(mode, [], [Training.StandingStill]));
            Assert.NotEmpty(HouseholdOccasion.Shipped.Suiting(mode, [], [Training.ShiftingWeight]));
        }
    }

    [Fact]
    public void A_school_has_moments_of_its_own_each_with_a_name_what_is_done_and_whom_it_suits()
    {
        HouseholdOccasion ferry = new(
            "ferry",
            "On the ferry",
            "A hand on the rail; the weight goes with the deck.",
            Training.ShiftingWeight,
            [],
            [HouseholdOccasion.Posed.Holding]
        );
        IEnumerable<string> Wrong(params HouseholdOccasion[] occasions) =>
            (Teaching.Default with { Occasions = occasions }).Check().Select(problem => problem.Field);
        Assert.Empty(Wrong(ferry));
        Assert.Empty(Wrong());
        Assert.Equal(
            ["occasions[0].when", "occasions[0].how", "occasions[0].for"],
            Wrong(ferry with { When = " ", How = "", For = [] })
        );
        Assert.Equal(["occasions[1].id"], Wrong(ferry, ferry));
        Assert.Equal([ferry], new[] { ferry }.Suiting(Mode.Supported, [], [Training.ShiftingWeight]));
        Assert.Empty(new[] { ferry }.Suiting(Mode.Standing, [], [Training.ShiftingWeight]));
    }

    [Property]
    public void Of_what_was_said_about_a_day_the_latest_counts_in_whatever_order_it_arrives(byte[] minutes, int seed)
    {
        var logs = minutes.Select(
            (said, at) =>
                new PracticeLog(Guid.NewGuid(), Imke, Today, said, Guid.Empty, DateTimeOffset.UnixEpoch.AddSeconds(at))
        );
        var days = PracticeLog.Days(logs.OrderBy(log => HashCode.Combine(log.At, seed)));
        Assert.Equal(minutes.LastOrDefault(), days.GetValueOrDefault(Today));
    }

    private static PostureSide Of(string name, Side side) => new(Starter.Called(name).Id, side);

    private static PostureSide AsPosture(Position position) => new(position.PostureId, position.Side);

    private static IEnumerable<Observation> Alone(int positions, int days) =>
        Lantern.Positions.Take(positions).Select(AsPosture).Distinct().Select(of => Reached(of, days, Stage.Alone));

    private static List<Observation> SomeHistory(Random random) =>
        [
            .. Lantern
                .Positions.Take(random.Next(1, 40))
                .Select(AsPosture)
                .Distinct()
                .SelectMany(of =>
                {
                    var posture = Starter.Postures[of.PostureId];
                    return new[]
                    {
                        Reached(of, random.Next(120), (Stage)random.Next((int)Stage.Follows, (int)Stage.Settled)),
                    }.Concat(
                        random.Next(4) == 0 && posture.Faults.Count > 0
                            ? [Fault(of, random.Next(60), posture.Faults[random.Next(posture.Faults.Count)])]
                            : []
                    );
                }),
        ];

    private static HomeSheet? Sheet(
        IReadOnlyList<Observation> seen,
        IReadOnlyList<Limit>? limits = null,
        Mode? mode = null,
        HomeSheet? last = null,
        IReadOnlyDictionary<Guid, Adaptation>? settled = null
    )
    {
        var usual = mode ?? Mode.Standing;
        var book = new ProgressBook(
            new Dictionary<Guid, IReadOnlyList<Place>> { [Imke] = Material.NoPlace },
            [],
            [],
            seen,
            Today,
            usual: new Dictionary<Guid, Mode> { [Imke] = usual }
        );
        var learner = new Learner(Imke, usual, limits ?? [])
        {
            Settled = settled ?? new Dictionary<Guid, Adaptation>(),
        };
        return Practice.For(learner, book, last);
    }

    private static Observation Reached(PostureSide of, int daysAgo, Stage stage) =>
        Saw(of, daysAgo, Sign.Stage) with
        {
            Stage = stage,
        };

    private static Observation Fine(PostureSide of, int daysAgo) => Saw(of, daysAgo, Sign.Fine);

    private static Observation Fault(PostureSide of, int daysAgo, Fault? fault = null)
    {
        var known = fault ?? Starter.Postures[of.PostureId].Faults[0];
        return Saw(of, daysAgo, Sign.Fault) with { FaultId = known.Id, Words = known.Seen, Weight = known.Weight };
    }

    private static Observation Saw(PostureSide of, int daysAgo, Sign sign) =>
        Material.Saw(of, Today.AddDays(-daysAgo), sign) with
        {
            StudentId = Imke,
        };
}
