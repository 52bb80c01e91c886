using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Progress;

/// <summary>Who holds the old way when the school changes how something is done (domain.md 4.1).</summary>
public sealed class RelearningTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly PostureSide BrushKnee = new(Guid.NewGuid(), Side.Left);
    private static readonly StandardChange Wider = new(Guid.NewGuid(), Today.AddDays(-21), "a foot wider");
    private static readonly StandardChange Slower = new(Guid.NewGuid(), Today.AddDays(-7), "the hand arrives last");

    [Fact]
    public void Whoever_learned_it_before_holds_the_old_way_until_somebody_sees_the_new_one()
    {
        Assert.Equal([Wider], Left([Wider], Saw(30, Sign.Stage)));
        // A fault is seen in whoever does it either way; a stage, or nothing to mend, in whoever does it as it is done now.
        Assert.Equal([Wider], Left([Wider], Saw(30, Sign.Stage), Saw(14, Sign.Fault)));
        Assert.Empty(Left([Wider], Saw(30, Sign.Stage), Saw(14, Sign.Stage)));
        Assert.Empty(Left([Wider], Saw(30, Sign.Stage), Saw(21, Sign.Fine)));
        Assert.Empty(Left([Wider], Saw(14, Sign.Stage)));
        Assert.Empty(Left([Wider]));
        Assert.Equal([Slower], Left([Slower, Wider], Saw(30, Sign.Stage), Saw(14, Sign.Stage)));
        Assert.Equal([Wider, Slower], Left([Slower, Wider], Saw(30, Sign.Stage)));
        Assert.Empty(Left([Wider with { From = Today.AddDays(1) }], Saw(30, Sign.Stage)));
    }

    [Property]
    public void More_changes_never_leave_less_to_relearn_and_being_seen_today_leaves_nothing(int[] changes, int[] seen)
    {
        List<StandardChange> all =
        [
            .. changes.Select(day => new StandardChange(
                Guid.NewGuid(),
                Today.AddDays(-Math.Abs(day % 90)),
                "otherwise"
            )),
        ];
        Observation[] watched = [.. seen.Select(day => Saw(1 + Math.Abs(day % 90), Sign.Stage))];
        var left = Left(all, watched);
        Assert.All(Left([.. all.Skip(1)], watched), change => Assert.Contains(change, left));
        Assert.Equal(left.OrderBy(change => change.From), left);
        Assert.Empty(Left(all, [.. watched, Saw(0, Sign.Stage)]));
    }

    [Fact]
    public void It_is_proposed_for_as_many_as_hold_the_old_way_and_have_not_been_shown_the_new_one()
    {
        var (imke, tomasz, per, late) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var book = Book(
            [imke, tomasz, per, late],
            Of(imke, Saw(30, Sign.Stage)),
            Of(tomasz, Saw(30, Sign.Stage)),
            Of(tomasz, Saw(3, Sign.Stage)),
            Of(per, Saw(30, Sign.Stage)),
            Of(per, Saw(14, Sign.Stage))
        );
        var proposal = Assert.Single(
            TeachTheDifference.Propose(
                Guid.Empty,
                [imke, tomasz, per, late],
                [BrushKnee, BrushKnee],
                _ => [Wider, Slower],
                book,
                Today
            )
        );
        Assert.Equal((2, 3, Wider.From), (proposal.Have, proposal.Met, proposal.Since));
        Assert.Equal("a foot wider; the hand arrives last", proposal.Difference);
        Assert.Empty(TeachTheDifference.Propose(Guid.Empty, [tomasz], [BrushKnee], _ => [Wider], book, Today));
    }

    [Fact]
    public void After_it_was_told_whoever_is_seen_to_do_it_so_is_better_and_of_the_others_nobody_has_looked()
    {
        var (imke, tomasz, late) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var told = Today.AddDays(-7);
        Observation[] before = [Of(imke, Saw(30, Sign.Stage)), Of(tomasz, Saw(30, Sign.Stage))];
        Guid[] all = [imke, tomasz, late];
        var eve = (Book(all, before), told);
        TaughtAgain? Judged(params Observation[] since) =>
            TaughtAgain.OfDifference(all, BrushKnee, [Wider], eve, (Book(all, [.. before, .. since]), Today));

        Assert.Equal(new TaughtAgain("a foot wider", 2, 0, 0), Judged());
        Assert.Equal(1, Judged(Of(imke, Saw(3, Sign.Stage)))!.Better);
        Assert.Null(TaughtAgain.OfDifference([late], BrushKnee, [Wider], eve, eve));
    }

    private static IReadOnlyList<StandardChange> Left(IReadOnlyList<StandardChange> changes, params Observation[] seen)
    {
        var student = Guid.NewGuid();
        return Relearning
                .Of(
                    student,
                    BrushKnee,
                    changes,
                    Book([student], [.. seen.Select(observation => Of(student, observation))]),
                    Today
                )
                ?.Changes
            ?? [];
    }

    private static ProgressBook Book(Guid[] students, params Observation[] seen) =>
        new(students.ToDictionary(who => who, _ => Material.NoPlace), [], [], seen, Today);

    private static Observation Of(Guid student, Observation seen) => seen with { StudentId = student };

    private static Observation Saw(int daysAgo, Sign sign)
    {
        var seen = Material.Saw(BrushKnee, Today.AddDays(-daysAgo), sign);
        return sign == Sign.Stage ? seen with { Stage = Stage.Alone } : seen with { Weight = Weight.Shape };
    }
}
