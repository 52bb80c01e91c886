using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Forms;

/// <summary>Everything inside a form that disagrees with itself or with the school's conventions (domain.md 4.1).
/// Findings come in the order of the form.</summary>
public static class FormCheck
{
    /// <param name="walk">The form walked; made here when it is not at hand.</param>
    public static IReadOnlyList<Finding> Run(
        FormText form,
        IReadOnlyDictionary<Guid, Posture> postures,
        Conventions ways,
        FloorWalk? walk = null
    )
    {
        if (form.Positions.Count == 0)
        {
            return [];
        }

        walk ??= FloorWalk.Of(form.Positions, postures, ways);
        var places = form.Positions.Index().ToDictionary(place => place.Item.Id, place => place.Index);
        IEnumerable<Finding> findings =
        [
            .. FacingSums(form.Positions, ways),
            .. StepRules.Check(walk, ways).Select(finding => InForm(finding, form.Positions)),
            .. Continuity.Check(form.Positions, postures, walk, ways),
            .. HandsCarried.Check(form.Positions, postures, ways),
            .. EndShapes.Check(form.Positions, postures, walk, ways),
            .. HomeComing(form.Positions, walk, ways),
            .. Segments(form, postures, walk, ways),
        ];
        return
        [
            .. findings
                .DistinctBy(finding => (finding.Rule, finding.PositionId, finding.Count, finding.Foot))
                .OrderBy(finding => places[finding.PositionId])
                .ThenBy(finding => finding.Count ?? int.MaxValue)
                .ThenByDescending(finding => finding.Severity)
                .ThenBy(finding => finding.Rule)
                .Select(finding =>
                    finding with
                    {
                        AcceptedBecause = form
                            .Accepted.FirstOrDefault(accepted =>
                                (accepted.Rule, accepted.PositionId, accepted.Count)
                                == (finding.Rule, finding.PositionId, finding.Count)
                            )
                            ?.Reason,
                    }
                ),
        ];
    }

    /// <summary>
    /// Facing adds up: each position is judged from the facing written before it, so one slip is reported once and not
    /// at every position after it.
    /// </summary>
    private static IEnumerable<Finding> FacingSums(IReadOnlyList<Position> positions, Conventions ways)
    {
        var before = Facing.FromDegrees(0);
        foreach (var position in positions)
        {
            if (before.Turn(position.Turn) is var reached && reached != position.Facing)
            {
                var fits = before.TurnTo(position.Facing);
                yield return new(
                    Rule.FacingSum,
                    Severity.Error,
                    position.Id,
                    null,
                    null,
                    $"A turn of {position.Turn}° from {ways.Say(before)} leads to {ways.Say(reached)}; {ways.Say(position.Facing)} is written.",
                    [new($"Turn {fits}° instead", Turn: fits), new($"Write {ways.Say(reached)}", Facing: reached)]
                );
            }

            before = position.Facing;
        }
    }

    private static Finding InForm(StepFinding finding, IReadOnlyList<Position> positions)
    {
        var position = positions[finding.Beat.At];
        IReadOnlyList<Mend> mends =
            finding.Rule == Rule.LoadedFootMoves && finding.Beat.Count <= 1
                ? [Continuity.ShiftBefore(position, Notation.StepAction.Other(finding.Foot), 100)]
                : [];
        return new(
            finding.Rule,
            finding.Severity,
            position.Id,
            finding.Beat.Count,
            finding.Foot,
            finding.Message,
            mends
        );
    }

    private static IEnumerable<Finding> HomeComing(IReadOnlyList<Position> positions, FloorWalk walk, Conventions ways)
    {
        var away = (walk.End.Middle - walk.Start.Middle).Length * (double)ways.FootMetres;
        if (away > FurthestFromHome)
        {
            yield return new(
                Rule.HomeComing,
                Severity.Caution,
                positions[^1].Id,
                null,
                null,
                $"The form closes {away:0.0} m from where it began; within {FurthestFromHome:0.0} m it comes home.",
                []
            );
        }
    }

    /// <summary>A segment can be practised alone only when its entry leads to where its first position starts, and its
    /// close brings the feet together.</summary>
    private static IEnumerable<Finding> Segments(
        FormText form,
        IReadOnlyDictionary<Guid, Posture> postures,
        FloorWalk walk,
        Conventions ways
    )
    {
        foreach (var segment in form.Segments)
        {
            var first = form.Positions.First(position => position.Id == segment.FromId);
            var alone = SegmentWalk.Of(segment, form, walk, ways);
            var posture = postures[first.PostureId];
            if (
                posture.Text.Entry.Length > 0
                && Continuity
                    .Compare(
                        first,
                        posture,
                        $"The entry of “{segment.Name}”",
                        alone.Entered,
                        Continuity.EntryOf(posture, first.Side, ways)
                    )
                    .FirstOrDefault()
                    is { } entry
            )
            {
                yield return entry with
                {
                    Rule = Rule.SegmentEntry,
                    Count = null,
                    Mends = [],
                };
            }

            if (
                segment.Close.Length > 0
                && (
                    (alone.Closed.Left.Heel - alone.Closed.Right.Heel).Length > FeetTogether
                    || Math.Abs(alone.Closed.Left.Load - 50) > 10
                )
            )
            {
                yield return new(
                    Rule.SegmentClose,
                    Severity.Caution,
                    segment.ToId,
                    null,
                    null,
                    $"The close of “{segment.Name}” does not bring the feet together with the weight even.",
                    []
                );
            }
        }
    }

    /// <summary>Feet whose heels are within this many foot-lengths are together.</summary>
    private const double FeetTogether = 1.3;

    /// <summary>A form that closes within this many metres of its beginning has come home.</summary>
    public const double FurthestFromHome = 1;
}
