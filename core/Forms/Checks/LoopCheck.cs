using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>The way back of a posture practised as a loop (domain.md 2, "loop"): what its feet and hands do is looked at like
/// any count, and the hands come to where it begins again. What the counts do is found in the posture itself.</summary>
public static class LoopCheck
{
    /// <summary>A posture as it is practised on one side.</summary>
    /// <param name="walk">Its counts on that side.</param>
    /// <returns>Findings of the count after the last.</returns>
    internal static IReadOnlyList<PostureFinding> Run(Posture posture, Side side, BodyWalk walk, Conventions ways)
    {
        if (posture.Text.Loop is not { } written)
        {
            return [];
        }

        return Run(
            walk,
            walk.Then(posture.StepsOn(side, written.Return), posture.BodyOn(side, written.Body), ways),
            () => PostureBody.Of(posture, Mirror.Of(side), Mode.Standing, ways, walk.Physique)!,
            posture.Text.OurWays,
            ways
        );
    }

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
        var walk = PostureBody.Of(entry, start, counts, null, ways, Physique.Standard);
        return Run(
            walk,
            walk.Then(StepNotation.Parse(loop.Return).Actions, BodyNotation.Parse(loop.Body).Actions, ways),
            () =>
                PostureBody.Of(
                    StepNotation.Mirror(entry),
                    BodyNotation.Mirror(start),
                    [.. counts.Select(count => count.Mirror())],
                    null,
                    ways,
                    Physique.Standard
                ),
            kept,
            ways
        );
    }

    /// <param name="back">The way back, from where the walk ends.</param>
    private static IReadOnlyList<PostureFinding> Run(
        BodyWalk walk,
        BodyWalk back,
        Func<BodyWalk> onTheOtherSide,
        IReadOnlyList<OurWay> kept,
        Conventions ways
    )
    {
        var again = Loop.StandsOnLeft(walk.Start) == Loop.StandsOnLeft(back.StandAfter(1)) ? walk : onTheOtherSide();
        IEnumerable<PostureFinding> found =
        [
            .. PostureCheck.InCount(back, 1, ways),
            .. HandsCarried.Between(back.StateAfter(1), again) is { } gap
                ? [Astray(gap, back, again)]
                : (IEnumerable<PostureFinding>)[],
        ];
        return [.. found.Select(finding => After(walk, finding).KeptBy(kept, Mode.Standing))];
    }

    /// <summary>What is found in a beat by itself, as the count after the last of the walk before it.</summary>
    private static PostureFinding After(BodyWalk walk, PostureFinding finding) =>
        finding with
        {
            Count = finding.Count + walk.Count,
            Mends =
            [
                .. finding.Mends.Select(mend =>
                    mend with
                    {
                        Edits = [.. mend.Edits.Select(edit => edit with { Count = edit.Count + walk.Count })],
                    }
                ),
            ],
        };

    private static PostureFinding Astray(HandsCarried.Gap gap, BodyWalk back, BodyWalk again)
    {
        var astray = gap.Lead.OfType<BodyAction.Arm>().Select(arm => arm.Hand).ToHashSet();
        bool IsAstray(BodyAction action) => action is BodyAction.Arm arm && astray.Contains(arm.Hand);
        var lead = HandsCarried.Lead(back.StateAfter(0), again.StateAfter(0)).Where(IsAstray).ToList();
        var body = BodyNotation.Print([.. back.ActionsOf(1).Where(action => !IsAstray(action)), .. lead]);
        return new(
            Rule.HandsCarriedOver,
            Severity.Error,
            1,
            $"The way back leaves the {gap.Has}; it begins again with it {gap.Wants}, {gap.Apart} cm away.",
            [new($"Write it: {BodyWords.Say(lead)}", [new(1, Body: body)])]
        );
    }
}
