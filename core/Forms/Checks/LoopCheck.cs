using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>The way back of a posture practised as a loop (domain.md 2, "loop"): what its feet and hands do is looked at like
/// any count, and the hands come to where it begins again. What the counts do is found in the posture itself.</summary>
public static class LoopCheck
{
    /// <param name="counts">Of the posture, without the way back.</param>
    /// <returns>Findings of the count after the last.</returns>
    public static IReadOnlyList<PostureFinding> Run(
        string entry,
        string start,
        IReadOnlyList<Count> counts,
        Loop loop,
        IReadOnlyList<OurWay> kept,
        Conventions ways
    )
    {
        IReadOnlyList<Count> once = [.. counts, new(loop.Cue, loop.Return, Body: loop.Body)];
        var walk = Walk(entry, start, once, ways);
        var next = Loop.LeadsToOtherSide(entry, once, ways)
            ? Walk(
                StepNotation.Mirror(entry),
                BodyNotation.Mirror(start),
                [.. counts.Select(count => count.Mirror())],
                ways
            )
            : Walk(entry, start, counts, ways);
        IEnumerable<PostureFinding> found =
        [
            .. loop.IsEmpty ? [] : PostureCheck.Run(walk, once, [], Mode.Standing, [], ways),
            .. HandsCarried.Between(walk.StateAfter(walk.Count), next) is { } gap
                ? [Astray(gap, walk, next, loop)]
                : (IEnumerable<PostureFinding>)[],
        ];
        return
        [
            .. found
                .Where(finding => finding.Count == walk.Count)
                .Select(finding => finding.KeptBy(kept, Mode.Standing)),
        ];
    }

    private static PostureFinding Astray(HandsCarried.Gap gap, BodyWalk walk, BodyWalk next, Loop loop)
    {
        var astray = gap.Lead.OfType<BodyAction.Arm>().Select(arm => arm.Hand).ToHashSet();
        bool IsAstray(BodyAction action) => action is BodyAction.Arm arm && astray.Contains(arm.Hand);
        var lead = HandsCarried.Lead(walk.StateAfter(walk.Count - 1), next.StateAfter(0)).Where(IsAstray).ToList();
        return new(
            Rule.HandsCarriedOver,
            Severity.Error,
            walk.Count,
            $"The way back leaves the {gap.Has}; it begins again with it {gap.Wants}, {gap.Apart} cm away.",
            [
                new(
                    $"Write it: {BodyWords.Say(lead)}",
                    [
                        new(
                            walk.Count,
                            Body: BodyNotation.Print([
                                .. BodyNotation.Parse(loop.Body).Actions.Where(action => !IsAstray(action)),
                                .. lead,
                            ])
                        ),
                    ]
                ),
            ]
        );
    }

    private static BodyWalk Walk(string entry, string start, IReadOnlyList<Count> counts, Conventions ways) =>
        PostureBody.Of(entry, start, counts, null, ways, Physique.Standard);
}
