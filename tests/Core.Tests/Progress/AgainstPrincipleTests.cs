using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Progress;

/// <summary>A correction against a principle: one habit is not written down twenty times (domain.md 2).</summary>
public sealed class AgainstPrincipleTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly Guid Imke = Guid.NewGuid();
    private static readonly Guid Knees = Guid.NewGuid();
    private static readonly PostureSide Whip = new(Guid.NewGuid(), Side.Left);
    private static readonly PostureSide Push = new(Guid.NewGuid(), Side.Right);

    [Fact]
    public void In_whatever_postures_it_is_seen_it_is_one_correction_and_of_none_of_them()
    {
        var book = Book(Saw(20, Sign.Fault, Whip), Saw(13, Sign.Fault, Push), Saw(6, Sign.Fault, Whip, "both knees"));
        var (principle, correction) = Assert.Single(book.AgainstPrinciples(Imke));
        Assert.Equal((Knees, 3), (principle, correction.TimesSeen));
        Assert.Equal(Whip, book.SeenIn(Imke, Knees));
        Assert.Empty(book.CorrectionsOf(Imke));
        Assert.Empty(book.MetBy(Imke));
        Assert.Equal(Stage.NotMet, book.StandingOf(Imke, Whip).Stage);
        Assert.Equal(Today.AddDays(-6), book.LastSeen(Imke));
    }

    [Fact]
    public void It_is_cleared_when_it_is_kept_on_two_days_and_not_by_a_posture_that_is_fine()
    {
        var broken = Saw(20, Sign.Fault, Whip);
        var fine = Saw(13, Sign.Fine, Whip) with { PrincipleId = null };
        Assert.Equal(CorrectionState.Open, State(broken, fine, fine with { Id = Guid.NewGuid(), Date = Today }));
        Assert.Equal(CorrectionState.Easing, State(broken, Saw(13, Sign.Fine, Push)));
        Assert.Equal(CorrectionState.Cleared, State(broken, Saw(13, Sign.Fine, Push), Saw(6, Sign.Fine, Whip)));
        Assert.Equal(
            CorrectionState.Back,
            State(broken, Saw(13, Sign.Fine, Push), Saw(6, Sign.Fine, Whip), Saw(1, Sign.Fault, Push))
        );

        static CorrectionState State(params Observation[] seen) =>
            Assert.Single(Book(seen).AgainstPrinciples(Imke)).Correction.State;
    }

    [Property]
    public void In_whatever_order_it_arrives_it_is_the_same(bool[] kept, int seed)
    {
        var seen = kept.Index()
            .Select(at =>
                Saw(kept.Length - at.Index, at.Item ? Sign.Fine : Sign.Fault, at.Index % 2 == 0 ? Whip : Push)
            )
            .ToArray();
        var shuffled = seen.OrderBy(observation => HashCode.Combine(observation.Date, seed)).ToArray();
        Assert.Equal(Said(seen), Said(shuffled));

        static (CorrectionState, int, DateOnly)? Said(Observation[] seen) =>
            Book(seen)
                .AgainstPrinciples(Imke)
                .Select(its =>
                    ((CorrectionState, int, DateOnly)?)
                        (its.Correction.State, its.Correction.TimesSeen, its.Correction.Since)
                )
                .SingleOrDefault();
    }

    [Fact]
    public void A_key_point_of_one_is_due_a_second_look_in_anything_they_do()
    {
        var seen = Saw(7, Sign.Fault, Whip);
        Assert.Equal(WatchReason.SecondLook, Reason(seen));
        Assert.Equal(WatchReason.InTurn, Reason(seen with { Weight = Weight.Shape }));

        static WatchReason Reason(Observation seen) =>
            Assert.Single(WatchList.Of([new(Imke, Guid.Empty, [Push], Overlooked: false)], Book(seen), Today)).Reason;
    }

    [Theory]
    [InlineData(Sign.Stage, false)]
    [InlineData(Sign.Fault, true)]
    public void It_has_no_stage_and_no_faults_of_its_own(Sign sign, bool isKnown) =>
        Assert.Contains(
            (
                Saw(7, sign, Whip) with
                {
                    Stage = sign == Sign.Stage ? Stage.Alone : null,
                    FaultId = isKnown ? Knees : null,
                }
            ).Check("mark"),
            problem => problem.Field == "mark.principleId"
        );

    private static ProgressBook Book(params Observation[] seen) =>
        new(new Dictionary<Guid, IReadOnlyList<Place>> { [Imke] = [] }, [], [], seen, Today);

    private static Observation Saw(int days, Sign sign, PostureSide of, string words = "the knees fall in") =>
        new(
            Guid.NewGuid(),
            Guid.Empty,
            Today.AddDays(-days),
            Imke,
            of.PostureId,
            of.Side,
            sign,
            null,
            null,
            words,
            sign == Sign.Fault ? Weight.KeyPoint : null,
            Guid.Empty,
            new(Today.AddDays(-days), new(19, 0), TimeSpan.Zero)
        )
        {
            PrincipleId = Knees,
        };
}
