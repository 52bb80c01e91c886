using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Terms;

/// <summary>
/// A group's own run of a form: what it does not do is left out, and the links round it are repaired, so that every
/// posture still starts where the one before it ended.
/// </summary>
/// <param name="Changes">What differs from the form, in sentences.</param>
public sealed record GroupSegment(IReadOnlyList<Position> Positions, IReadOnlyList<string> Changes)
{
    /// <param name="segment">The positions from the first to the last of the segment, those left out included.</param>
    public static GroupSegment Of(
        IReadOnlyList<Position> segment,
        IReadOnlyCollection<Guid> leftOut,
        IReadOnlyDictionary<Guid, Posture> postures,
        Mode mode,
        Conventions ways
    )
    {
        List<Position> kept = [];
        List<string> changes = [];
        List<Position> gap = [];
        foreach (var position in segment)
        {
            if (leftOut.Contains(position.Id))
            {
                gap.Add(position);
                continue;
            }

            kept.Add(gap.Count > 0 ? Join(kept, gap, position) : position);
            gap.Clear();
        }

        changes.AddRange(gap.Count == 0 ? [] : [$"{Names(gap)} is left out at the end."]);
        return new(kept, changes);

        Position Join(List<Position> before, List<Position> missing, Position next)
        {
            var name = NameOf(next);
            if (before.Count == 0)
            {
                changes.Add($"{Names(missing)} is left out; the segment begins with {name}.");
                return next with { WayIn = "" };
            }

            var turn = before[^1].Facing.TurnTo(next.Facing);
            var follows = $"{Names(missing)} is left out; {name} follows {NameOf(before[^1])}";
            if (mode.Feet != FeetUse.FullSteps || postures[next.PostureId].Text.Entry.Length == 0)
            {
                changes.Add(
                    $"{follows}{(turn == 0 ? "" : $", turning {Math.Abs(turn)}° {(turn > 0 ? "right" : "left")}")}."
                );
                return next with { WayIn = "", Turn = turn };
            }

            var reached = FloorWalk.Of(before, postures, ways).End;
            var wanted = Continuity.EntryOf(postures[next.PostureId], next.Side, ways);
            var hips = postures[next.PostureId]
                .StepsOn(next.Side)
                .SelectMany(steps => steps)
                .OfType<StepAction.Hips>()
                .Sum(step => step.Turn);
            var lead = WayIn.Lead(reached, wanted, next.Facing.Turn(-hips + wanted.Hips));
            var joined = next with { WayIn = lead is null ? "" : StepNotation.Print(lead), Turn = turn };
            var agrees =
                lead is not null
                && !Continuity
                    .Compare(
                        joined,
                        postures[next.PostureId],
                        "",
                        lead.Aggregate(reached, (stand, step) => stand.After(step, ways.PivotOn)),
                        wanted
                    )
                    .Any();
            changes.Add(
                agrees
                    ? $"{follows}. The link is repaired: {(lead!.Count == 0 ? "nothing to add" : StepWords.Say(lead))}."
                    : $"{follows}. No single turn of a foot joins them: show this link yourself."
            );
            return joined;
        }

        string Names(List<Position> positions) => string.Join(", ", positions.Select(NameOf));

        string NameOf(Position position) => postures[position.PostureId].NameOn(position.Side);
    }
}
