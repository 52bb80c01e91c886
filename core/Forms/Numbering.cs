using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>The numbers a position has: none, one, or a run of them when its repeats count.</summary>
public readonly record struct PositionNumber(int First, int Last)
{
    public override string ToString() => First == Last ? $"{First}" : $"{First}–{Last}";
}

/// <summary>Numbers of positions, computed and never typed (domain.md 4.1, "Counting").</summary>
public static class Numbering
{
    /// <summary>For every position its number or numbers from 1, or null where it goes under the number before it or
    /// has none.</summary>
    public static IReadOnlyList<PositionNumber?> Of(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        NumberingSwitches switches
    )
    {
        var last = 0;
        var numbers = new PositionNumber?[positions.Count];
        for (var at = 0; at < positions.Count; at++)
        {
            var position = positions[at];
            var isEnd = (at == 0 || at == positions.Count - 1) && positions.Count > 1;
            if (
                position.IsTransition
                || (isEnd && !switches.EndsCounted)
                || (switches.CompoundAsOne && !BeginsCompound(positions, at, postures))
            )
            {
                continue;
            }

            var run = RunBefore(positions, at);
            if (
                (run > 0 && switches.Repeats == RepeatCount.Once)
                || (run % 2 == 1 && switches.Repeats == RepeatCount.EachPair)
            )
            {
                continue;
            }

            var takes = Takes(position, postures[position.PostureId], switches.Repeats);
            numbers[at] = new(last + 1, last + takes);
            last += takes;
        }

        return numbers;
    }

    /// <summary>Whether a position carries its compound's number: it is no part of one, or the part with which one
    /// begins.</summary>
    private static bool BeginsCompound(
        IReadOnlyList<Position> positions,
        int at,
        IReadOnlyDictionary<Guid, Posture> postures
    ) =>
        positions[at].CompoundId is not { } compound
        || at == 0
        || positions[at - 1].CompoundId != compound
        || (
            postures.TryGetValue(compound, out var posture)
            && posture.Text.Parts is [var first, ..]
            && first.PostureId == positions[at].PostureId
        );

    /// <summary>How many positions right before this one are the same posture, on whichever side.</summary>
    private static int RunBefore(IReadOnlyList<Position> positions, int at)
    {
        var run = 0;
        while (at - run - 1 >= 0 && positions[at - run - 1].PostureId == positions[at].PostureId)
        {
            run++;
        }

        return run;
    }

    private static int Takes(Position position, Posture posture, RepeatCount repeats) =>
        repeats switch
        {
            RepeatCount.Each => position.Repeats,
            RepeatCount.EachStep => position.Repeats == 1 ? 1 : position.Repeats * Math.Max(1, StepsIn(posture)),
            RepeatCount.EachPair => (position.Repeats + 1) / 2,
            _ => 1,
        };

    private static int StepsIn(Posture posture) =>
        posture
            .StepsOn(posture.WrittenSide)
            .SelectMany(steps => steps)
            .Count(step => step is StepAction.Move { To: not null, Verb: FootVerb.Step or FootVerb.Follow });
}
