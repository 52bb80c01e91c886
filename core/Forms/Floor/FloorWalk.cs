using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>One statement of the notation on the floor: the stand before and after it.</summary>
public sealed record Moment(StepAction Action, Stand Before, Stand After);

/// <summary>One count of one repeat of one position, or the way into it (<paramref name="Count"/> 0).</summary>
/// <param name="At">The place of the position in its form, from 0.</param>
public sealed record Beat(int At, int Repeat, int Count, Stand Before, IReadOnlyList<Moment> Moments)
{
    public Stand After => Moments.Count == 0 ? Before : Moments[^1].After;
}

/// <summary>
/// Two feet walked through positions count by count (domain.md 4.1). A posture whose steps are not written leaves the
/// feet where they are and turns the body to where the position says it ends, so that everything after it can still be
/// walked.
/// </summary>
public sealed class FloorWalk
{
    private FloorWalk(Stand start, IReadOnlyList<Beat> beats) => (Start, Beats) = (start, beats);

    public Stand Start { get; }
    public IReadOnlyList<Beat> Beats { get; }
    public Stand End => Beats.Count == 0 ? Start : Beats[^1].After;

    /// <summary>Every stand of the walk in order, the first one included.</summary>
    public IEnumerable<Stand> Stands =>
        Beats.SelectMany(beat => beat.Moments).Select(moment => moment.After).Prepend(Start);

    /// <summary>A whole form, from feet together facing its zero.</summary>
    public static FloorWalk Of(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        Conventions ways
    )
    {
        List<Beat> beats = [];
        var stand = Stand.AtStart;
        Dictionary<(Guid, Side), IReadOnlyList<IReadOnlyList<StepAction>>> read = [];
        foreach (var (at, position) in positions.Index())
        {
            var posture = postures[position.PostureId];
            if (!read.TryGetValue((posture.Id, position.Side), out var counts))
            {
                read[(posture.Id, position.Side)] = counts = posture.StepsOn(position.Side);
            }

            if (StepNotation.Parse(position.WayIn).Actions is { Count: > 0 } wayIn)
            {
                stand = Add(beats, new(at, 0, 0, stand, Walk(stand, wayIn, ways)));
            }

            for (var repeat = 0; repeat < position.Repeats; repeat++)
            {
                foreach (var (count, steps) in counts.Index())
                {
                    stand = Add(beats, new(at, repeat, count + 1, stand, Walk(stand, steps, ways)));
                }
            }

            if (counts.All(steps => steps.Count == 0))
            {
                stand = stand with { Hips = position.Facing.Degrees };
            }
        }

        return new(Stand.AtStart, beats);
    }

    /// <summary>The part of this walk that belongs to some of its positions, from place to place, both
    /// included.</summary>
    public FloorWalk Part(int from, int to)
    {
        var beats = Beats.Where(beat => beat.At >= from && beat.At <= to).ToList();
        return new(beats.Count == 0 ? Start : beats[0].Before, beats);
    }

    /// <summary>One posture by itself, from the stand its own entry describes, on one side.</summary>
    public static FloorWalk Of(
        IReadOnlyList<StepAction> entry,
        IReadOnlyList<IReadOnlyList<StepAction>> counts,
        Conventions ways
    )
    {
        var start = Walk(Stand.AtStart, entry, ways) is [.., var last] ? last.After : Stand.AtStart;
        List<Beat> beats = [];
        var stand = start;
        foreach (var (count, steps) in counts.Index())
        {
            stand = Add(beats, new(0, 0, count + 1, stand, Walk(stand, steps, ways)));
        }

        return new(start, beats);
    }

    private static Stand Add(List<Beat> beats, Beat beat)
    {
        beats.Add(beat);
        return beat.After;
    }

    /// <summary>Steps one after the other, from a stand.</summary>
    internal static List<Moment> Walk(Stand stand, IReadOnlyList<StepAction> steps, Conventions ways)
    {
        List<Moment> moments = new(steps.Count);
        foreach (var step in steps)
        {
            var after = stand.After(step, ways.PivotOn);
            moments.Add(new(step, stand, after));
            stand = after;
        }

        return moments;
    }
}
