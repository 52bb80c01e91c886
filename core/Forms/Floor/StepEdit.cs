using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>
/// Edits of a count made on the picture instead of in the notation: a foot is dragged, turned or loaded, the hips are
/// turned. Each gives the steps of the count rewritten so that walking them from <c>before</c> leads to what was asked,
/// within a tenth of a foot-length, a degree and a per cent.
/// </summary>
public static class StepEdit
{
    /// <summary>The foot ends with its heel here. Its last going somewhere is changed; when it did not go anywhere, it
    /// steps at the end.</summary>
    public static IReadOnlyList<StepAction> MoveFoot(
        IReadOnlyList<StepAction> steps,
        Stand before,
        PivotOn usual,
        Foot foot,
        Point heel
    )
    {
        var at = LastIndex(steps, step => step is StepAction.Move { To: not null } move && move.Foot == foot);
        var reached = Walk(steps, before, usual);
        if (at < 0)
        {
            var frame = reached.Hips;
            var (ahead, right) = (heel - reached[StepAction.Other(foot)].Heel).SeenFacing(frame);
            var toes = Facing.FromDegrees(frame).TurnTo(Facing.FromDegrees(reached[foot].Toes));
            return
            [
                .. Empty(steps, reached, foot),
                new StepAction.Move(
                    foot,
                    FootVerb.Step,
                    Place(ahead, right),
                    toes == 0 ? null : toes,
                    Crosses: Crosses(foot, right)
                ),
            ];
        }

        var old = (StepAction.Move)steps[at];
        var there = Walk(steps.Take(at), before, usual);
        var toward = old.To!.Value.Toward;
        var (fwd, side) = (heel - there[StepAction.Other(foot)].Heel).SeenFacing(there.Hips + toward);
        var place = Place(fwd, side) with { Toward = toward };
        return With(steps, at, old with { To = place, Crosses = Crosses(foot, side) });
    }

    /// <summary>The foot ends pointing here: the toes of its last step are set, or it turns where it stands.</summary>
    public static IReadOnlyList<StepAction> TurnFoot(
        IReadOnlyList<StepAction> steps,
        Stand before,
        PivotOn usual,
        Foot foot,
        Facing toes
    )
    {
        var at = LastIndex(
            steps,
            step =>
                (step is StepAction.Move move && move.Foot == foot && (move.To is not null || move.Toes is not null))
                || (step is StepAction.Pivot pivot && pivot.Foot == foot)
        );
        var reached = Walk(steps, before, usual);
        var by = Facing.FromDegrees(reached[foot].Toes).TurnTo(toes);
        if (by == 0)
        {
            return steps;
        }

        switch (at < 0 ? null : steps[at])
        {
            case StepAction.Move move:
                var there = Walk(steps.Take(at), before, usual);
                var frame = there.Hips + (move.To?.Toward ?? 0);
                var turned = Facing.FromDegrees(frame).TurnTo(Facing.FromDegrees(frame + (move.Toes ?? 0) + by));
                return With(steps, at, move with { Toes = turned == 0 && move.To is not null ? null : turned });
            case StepAction.Pivot pivot when Math.Abs(pivot.Turn + by) <= 180:
                return pivot.Turn + by == 0
                    ? [.. steps.Where((_, index) => index != at)]
                    : With(steps, at, pivot with { Turn = pivot.Turn + by });
            default:
                return [.. steps, new StepAction.Pivot(foot, null, by)];
        }
    }

    /// <summary>The foot ends carrying this much, the other the rest.</summary>
    public static IReadOnlyList<StepAction> WeighFoot(
        IReadOnlyList<StepAction> steps,
        Stand before,
        PivotOn usual,
        Foot foot,
        int load
    )
    {
        if (Walk(steps, before, usual)[foot].Load == load)
        {
            return steps;
        }

        var heavy = load >= 50 ? foot : StepAction.Other(foot);
        var weigh = new StepAction.Weigh(heavy, load >= 50 ? load : 100 - load);
        return steps is [.., StepAction.Weigh] ? [.. steps.SkipLast(1), weigh] : [.. steps, weigh];
    }

    /// <summary>The hips end pointing here.</summary>
    public static IReadOnlyList<StepAction> TurnHips(
        IReadOnlyList<StepAction> steps,
        Stand before,
        PivotOn usual,
        Facing hips
    )
    {
        var by = Facing.FromDegrees(Walk(steps, before, usual).Hips).TurnTo(hips);

        // Only a turn at the end may be changed: what a step means depends on where the hips point when it is made.
        var at = LastIndex(steps, step => step is StepAction.Hips);
        if (
            at >= 0
            && steps
                .Skip(at + 1)
                .All(step => step is not StepAction.Move { To: not null } and not StepAction.Move { Toes: not null })
            && steps[at] is StepAction.Hips last
            && Math.Abs(last.Turn + by) <= 360
        )
        {
            return last.Turn + by == 0
                ? [.. steps.Where((_, index) => index != at)]
                : With(steps, at, new StepAction.Hips(last.Turn + by));
        }

        return by == 0 ? steps : [.. steps, new StepAction.Hips(by)];
    }

    /// <summary>A foot that is to be moved has to be nearly empty first.</summary>
    private static IEnumerable<StepAction> Empty(IReadOnlyList<StepAction> steps, Stand reached, Foot foot) =>
        reached[foot].Load <= 10 ? steps : steps.Append(new StepAction.Weigh(StepAction.Other(foot), 100));

    private static Stand Walk(IEnumerable<StepAction> steps, Stand before, PivotOn usual) =>
        steps.Aggregate(before, (stand, step) => stand.After(step, usual));

    private static Place Place(double ahead, double right) => new(Tenths(ahead), Tenths(right));

    private static decimal Tenths(double length) => Math.Clamp(decimal.Round((decimal)length, 1), -6, 6);

    private static bool Crosses(Foot foot, double right) => foot == Foot.Left ? right > 0.1 : right < -0.1;

    private static int LastIndex(IReadOnlyList<StepAction> steps, Func<StepAction, bool> wanted)
    {
        var at = steps.Count - 1;
        while (at >= 0 && !wanted(steps[at]))
        {
            at--;
        }

        return at;
    }

    private static StepAction[] With(IReadOnlyList<StepAction> steps, int at, StepAction step) =>
        [.. steps.Take(at), step, .. steps.Skip(at + 1)];
}
