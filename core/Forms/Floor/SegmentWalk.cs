using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>A segment practised alone: in by its entry stance, through its positions, out by its own short close
/// (domain.md 2, "segment").</summary>
/// <param name="Start">Feet together, turned so that the positions face as they do in the form.</param>
public sealed record SegmentWalk(Stand Start, Stand Entered, IReadOnlyList<Beat> Beats, Stand Closed)
{
    /// <param name="form">The whole form walked; its beats say where each position faces.</param>
    public static SegmentWalk Of(Segment segment, FormText text, FloorWalk form, Conventions ways)
    {
        var (from, to) = (IndexOf(text, segment.FromId), IndexOf(text, segment.ToId));
        var own = form
            .Beats.Where(beat => beat.At >= from && beat.At <= to && !(beat.At == from && beat.Count == 0))
            .ToList();
        var entry = StepNotation.Parse(segment.Entry).Actions;
        var faces = own.Count == 0 ? 0 : own[0].Before.Hips;
        var start = Stand.AtStart.Turned(Facing.FromDegrees(faces - Walk(Stand.AtStart, entry, ways).Hips).Degrees);
        var entered = Walk(start, entry, ways);
        List<Beat> beats = [];
        var stand = entered;
        foreach (var beat in own)
        {
            List<Moment> moments = [];
            var before = stand;
            foreach (var moment in beat.Moments)
            {
                var after = stand.After(moment.Action, ways.PivotOn);
                moments.Add(new(moment.Action, stand, after));
                stand = after;
            }

            beats.Add(beat with { Before = before, Moments = moments });
        }

        return new(start, entered, beats, Walk(stand, StepNotation.Parse(segment.Close).Actions, ways));
    }

    private static int IndexOf(FormText text, Guid id) =>
        text.Positions.Index().First(place => place.Item.Id == id).Index;

    private static Stand Walk(Stand stand, IEnumerable<StepAction> steps, Conventions ways) =>
        steps.Aggregate(stand, (at, step) => at.After(step, ways.PivotOn));
}
