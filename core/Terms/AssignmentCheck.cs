using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Checks;

namespace Zeitplan.Core.Terms;

public enum AssignmentFindingKind
{
    /// <summary>Something needed first is not held by most of the cohort.</summary>
    Prerequisite,

    /// <summary>Part of it is settled already.</summary>
    Settled,

    /// <summary>The minutes do not reach.</summary>
    Minutes,

    /// <summary>The same people have the same material in another class.</summary>
    Overlap,

    /// <summary>A posture has no version in the cohort's mode.</summary>
    NoVersion,

    /// <summary>Along one rail the support would have to change hands.</summary>
    RailChanges,
}

/// <param name="PositionId">The position it concerns; null for the whole.</param>
/// <param name="PostureId">The posture it concerns; null for the whole.</param>
public sealed record AssignmentFinding(
    AssignmentFindingKind Kind,
    Guid SegmentId,
    Guid? PositionId,
    Guid? PostureId,
    string Message
);

/// <summary>What is said the moment a segment is chosen (domain.md 4.2, 4.3, 4.6).</summary>
public static class AssignmentCheck
{
    /// <param name="students">The cohort's members.</param>
    /// <param name="standing">What one of them holds.</param>
    /// <param name="elsewhere">Members' other cohorts with what those have been given: who, where, which
    /// postures.</param>
    public static IReadOnlyList<AssignmentFinding> Of(
        IReadOnlyList<AssignedSegment> segments,
        IReadOnlyDictionary<Guid, Form> forms,
        IReadOnlyDictionary<Guid, PostureOutline> postures,
        Mode mode,
        IReadOnlyCollection<Guid> students,
        Func<Guid, PostureSide, Stage> standing,
        IReadOnlyList<(string Class, int People, IReadOnlySet<PostureSide> Postures)> elsewhere
    )
    {
        List<AssignmentFinding> findings = [];
        HashSet<Guid> given = [];
        foreach (var segment in segments)
        {
            var form = forms[segment.FormId];
            var positions = segment.PositionsOf(form);
            if (segment.Purpose == Purpose.New)
            {
                findings.AddRange(EarlierSection(segment, form));
                findings.AddRange(Needs(segment, positions));
                findings.AddRange(Settled(segment, positions));
            }

            findings.AddRange(
                positions
                    .DistinctBy(position => position.PostureId)
                    .Where(position => postures[position.PostureId].In(mode) is null)
                    .Select(position => new AssignmentFinding(
                        AssignmentFindingKind.NoVersion,
                        segment.Id,
                        position.Id,
                        position.PostureId,
                        $"{NameOf(position)}: no {mode.Name} version has been written. It is left out of the plan until then."
                    ))
            );
            if (mode.Support is Support.Touch or Support.Hold)
            {
                findings.AddRange(AlongTheRail(segment, positions));
            }

            findings.AddRange(
                from other in elsewhere
                let same = positions
                    .Where(position => other.Postures.Contains(new(position.PostureId, position.Side)))
                    .DistinctBy(position => (position.PostureId, position.Side))
                    .Count()
                where same > 0
                select new AssignmentFinding(
                    AssignmentFindingKind.Overlap,
                    segment.Id,
                    null,
                    null,
                    $"{People(other.People)} of the cohort {(other.People == 1 ? "has" : "have")} {same} of these postures in {other.Class} too this term."
                )
            );
            given.UnionWith(positions.Select(position => position.PostureId));
        }

        return findings;

        IEnumerable<AssignmentFinding> AlongTheRail(AssignedSegment segment, IReadOnlyList<Position> positions)
        {
            var changes = RailRun.Of(positions, postures);
            if (changes.Count > 0)
            {
                yield return new(
                    AssignmentFindingKind.RailChanges,
                    segment.Id,
                    changes[0].Position.Id,
                    null,
                    $"Along one rail the support changes hands {(changes.Count == 1 ? "once" : $"{changes.Count} times")}: before {Few(changes.Select(change => NameOf(change.Position)))}. Turn round there, change the rail, or leave it out."
                );
            }
        }

        // Before a section is begun, most should hold the one before it.
        IEnumerable<AssignmentFinding> EarlierSection(AssignedSegment segment, Form form)
        {
            var section = form.Positions[form.IndexOf(segment.FromId)].SectionId;
            var order = form.Sections.Index().ToDictionary(place => place.Item.Id, place => place.Index);
            if (order[section] == 0)
            {
                yield break;
            }

            var earlier = form.Sections[order[section] - 1];
            var missing = form
                .Positions.Where(position =>
                    position.SectionId == earlier.Id
                    && !Held(new(position.PostureId, position.Side))
                    && !given.Contains(position.PostureId)
                )
                .DistinctBy(position => (position.PostureId, position.Side))
                .ToList();
            if (missing.Count > 0)
            {
                yield return new(
                    AssignmentFindingKind.Prerequisite,
                    segment.Id,
                    segment.FromId,
                    null,
                    $"{missing.Count} postures of {earlier.Name} are not yet held by most: {Few(missing.Select(NameOf))}."
                );
            }
        }

        IEnumerable<AssignmentFinding> Needs(AssignedSegment segment, IReadOnlyList<Position> positions)
        {
            HashSet<Guid> before = [.. given];
            HashSet<Guid> said = [];
            foreach (var position in positions)
            {
                foreach (
                    var need in postures[position.PostureId]
                        .NeedsIn(mode, postures)
                        .Where(need => !before.Contains(need) && !HeldOnAnySide(need) && said.Add(need))
                )
                {
                    yield return new(
                        AssignmentFindingKind.Prerequisite,
                        segment.Id,
                        position.Id,
                        need,
                        $"{NameOf(position)} needs {postures[need].Name}, which most do not hold yet."
                    );
                }

                before.Add(position.PostureId);
            }
        }

        IEnumerable<AssignmentFinding> Settled(AssignedSegment segment, IReadOnlyList<Position> positions)
        {
            var settled = positions
                .Where(position => Most(new(position.PostureId, position.Side), Stage.Settled))
                .DistinctBy(position => (position.PostureId, position.Side))
                .Select(NameOf)
                .ToList();
            if (settled.Count > 0)
            {
                yield return new(
                    AssignmentFindingKind.Settled,
                    segment.Id,
                    null,
                    null,
                    $"{(settled.Count == 1 ? "1 posture is" : $"{settled.Count} postures are")} settled with most already: {Few(settled)}. They cost no minutes; give them to refine or maintain instead."
                );
            }
        }

        bool Held(PostureSide of) => Most(of, Stage.Alone);

        bool HeldOnAnySide(Guid posture) =>
            new[] { Side.Symmetric, Side.Left, Side.Right }.Any(side => Held(new(posture, side)));

        bool Most(PostureSide of, Stage stage) =>
            students.Count > 0 && students.Count(student => standing(student, of) >= stage) * 2 > students.Count;

        string NameOf(Position position) => postures[position.PostureId].NameOn(position.Side);
    }

    /// <summary>Whether the minutes reach, from the plan the segments would lead to.</summary>
    /// <param name="units">What is new of one segment.</param>
    public static IReadOnlyList<AssignmentFinding> Minutes(
        AssignedSegment segment,
        decimal needed,
        decimal there,
        DateOnly? finish,
        IReadOnlyList<string> leftOver
    ) =>
        leftOver.Count > 0
            ?
            [
                new(
                    AssignmentFindingKind.Minutes,
                    segment.Id,
                    null,
                    null,
                    $"{needed:0} min are needed; the lessons up to {segment.Target:d MMMM} hold {there:0}. {leftOver.Count} would be left over: {Few(leftOver)}."
                ),
            ]
        : finish > segment.Target
            ?
            [
                new(
                    AssignmentFindingKind.Minutes,
                    segment.Id,
                    null,
                    null,
                    $"{needed:0} min are needed; it would be finished on {finish:d MMMM}, after the target of {segment.Target:d MMMM}."
                ),
            ]
        : [];

    private static string Few(IEnumerable<string> names)
    {
        var all = names.ToList();
        return all.Count <= 3 ? string.Join(", ", all) : $"{string.Join(", ", all.Take(3))} and {all.Count - 3} more";
    }

    private static string People(int count) => count == 1 ? "1" : $"{count}";
}
