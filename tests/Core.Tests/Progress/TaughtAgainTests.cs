using FsCheck.Xunit;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Tests.Progress;

public sealed class TaughtAgainTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly DateOnly Again = Today.AddDays(-14);
    private static readonly PostureSide BrushKnee = new(Guid.NewGuid(), Side.Left);
    private static readonly Guid OneLine = Guid.NewGuid();

    [Fact]
    public void It_helped_whoever_was_seen_better_since_and_not_whoever_was_seen_the_same()
    {
        var judged = Judge(
            [Saw(30, Sign.Fault), Saw(7, Sign.Fine)],
            [Saw(30, Sign.Fault), Saw(7, Sign.Fine), Saw(3, Sign.Fine)],
            [Saw(30, Sign.Fault), Saw(7, Sign.Fault)],
            [Saw(30, Sign.Fault)],
            // Cleared before, and new only since: neither had it then.
            [Saw(60, Sign.Fault), Saw(50, Sign.Fine), Saw(40, Sign.Fine)],
            [Saw(3, Sign.Fault)]
        );
        Assert.Equal(new TaughtAgain("on one line", 4, 2, 1), judged);
    }

    [Fact]
    public void Where_nobody_had_anything_open_there_is_nothing_to_judge() => Assert.Null(Judge([Saw(3, Sign.Fault)]));

    [Property]
    public void Nobody_is_counted_twice(bool[] fine, bool[] faultAgain)
    {
        if (fine.Length == 0)
        {
            return;
        }

        var judged = Judge([
            .. fine.Select(
                (helped, at) =>
                    new[] { Saw(30, Sign.Fault) }
                        .Concat(helped ? [Saw(7, Sign.Fine)] : [])
                        .Concat(faultAgain.ElementAtOrDefault(at) ? [Saw(5, Sign.Fault)] : [])
                        .ToArray()
            ),
        ])!;
        Assert.Equal(fine.Length, judged.Had);
        Assert.InRange(judged.Better + judged.Same, 0, judged.Had);
    }

    private static TaughtAgain? Judge(params Observation[][] people)
    {
        var students = people.Select(_ => Guid.NewGuid()).ToList();
        var facts = people
            .Zip(students, (seen, who) => seen.Select(fact => fact with { StudentId = who }))
            .SelectMany(seen => seen)
            .ToList();
        return TaughtAgain.Of(
            students,
            BrushKnee,
            Again,
            Book(facts.Where(fact => fact.Date < Again), Again),
            Book(facts, Today)
        );

        ProgressBook Book(IEnumerable<Observation> seen, DateOnly today) =>
            new(students.ToDictionary(who => who, _ => Material.NoPlace), [], [], seen, today);
    }

    private static Observation Saw(int daysAgo, Sign sign)
    {
        var seen = Material.Saw(BrushKnee, Today.AddDays(-daysAgo), sign);
        return sign == Sign.Fault
            ? seen with
            {
                FaultId = OneLine,
                Words = "on one line",
                Weight = Weight.Shape,
            }
            : seen;
    }
}
