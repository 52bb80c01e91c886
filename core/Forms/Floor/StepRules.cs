using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>A step rule that was not kept, with the beat and foot it concerns.</summary>
public sealed record StepFinding(Rule Rule, Severity Severity, Beat Beat, Foot Foot, string Message);

/// <summary>The step rules of domain.md 4.1, judged moment by moment while two feet walk.</summary>
public static class StepRules
{
    public static IEnumerable<StepFinding> Check(FloorWalk walk, Conventions ways) =>
        walk.Beats.SelectMany(beat => Check(beat, ways));

    public static IEnumerable<StepFinding> Check(Beat beat, Conventions ways)
    {
        foreach (var moment in beat.Moments)
        {
            foreach (var finding in Check(beat, moment, ways))
            {
                yield return finding;
            }
        }

        foreach (var foot in Feet)
        {
            if (
                beat.Moments.Count > 0
                && KneeTurn(beat.After, foot) is var turn
                && beat.After[foot].Load > LoadedKnee
                && (turn > InwardMost || turn < -OutwardMost)
            )
            {
                yield return new(
                    Rule.KneeTwist,
                    Severity.Caution,
                    beat,
                    foot,
                    $"The {Name(foot)} knee carries {beat.After[foot].Load} % while the pelvis points {Math.Abs(turn)}° {(turn > 0 ? "inward" : "outward")} of the foot; more than {(turn > 0 ? InwardMost : OutwardMost)}° twists it."
                );
            }
        }

        if (WidthFinding(beat) is { } narrow)
        {
            yield return narrow;
        }
    }

    private static IEnumerable<StepFinding> Check(Beat beat, Moment moment, Conventions ways)
    {
        switch (moment.Action)
        {
            case StepAction.Move move when move.To is not null || move.LeavesFloor:
                var most = move.Verb == FootVerb.Drag ? MayDrag : NearlyEmpty;
                if (!move.Springs && moment.Before[move.Foot].Load is var load && load > most)
                {
                    yield return new(
                        Rule.LoadedFootMoves,
                        load > HalfLoaded ? Severity.Impossible : Severity.Error,
                        beat,
                        move.Foot,
                        $"The {Name(move.Foot)} foot moves while it carries {load} %; it must be nearly empty, {most} % at most."
                    );
                }

                if (move.To is { } to && move.Verb != FootVerb.Kick && !move.Crosses && Beyond(move.Foot, to) > 0.1m)
                {
                    yield return new(
                        Rule.CrossesUnsaid,
                        Severity.Error,
                        beat,
                        move.Foot,
                        $"The {Name(move.Foot)} foot lands beyond the other one; write cross if it is meant to."
                    );
                }

                if (
                    !move.Crosses
                    && SmallestGap(moment, move.Foot) < 0
                    && moment.After[move.Foot].Clearance(moment.After[StepAction.Other(move.Foot)]) >= 0
                )
                {
                    yield return new(
                        Rule.FootPath,
                        Severity.Error,
                        beat,
                        move.Foot,
                        $"On its way the {Name(move.Foot)} foot would pass through the other; bring it beside the other first, or write cross."
                    );
                }

                break;
            case StepAction.Pivot pivot:
                var loaded = Math.Max(moment.Before[pivot.Foot].Load, moment.After[pivot.Foot].Load);
                if (!ways.WeightedPivots && loaded > HalfLoaded && Math.Abs(pivot.Turn) > SmallPivot)
                {
                    yield return new(
                        Rule.WeightedPivot,
                        Severity.Caution,
                        beat,
                        pivot.Foot,
                        $"The {Name(pivot.Foot)} foot turns {Math.Abs(pivot.Turn)}° while it carries {loaded} %; over {HalfLoaded} % and {SmallPivot}° loads the knee."
                    );
                }

                break;
        }

        var moved = moment.Action switch
        {
            StepAction.Move move => move.Foot,
            StepAction.Pivot pivot => pivot.Foot,
            _ => (Foot?)null,
        };
        if (
            moved is { } foot
            && !moment.After[foot].InAir
            && !moment.After[StepAction.Other(foot)].InAir
            && Math.Min(
                moment.After[foot].Clearance(moment.After[StepAction.Other(foot)]),
                moment.Action is StepAction.Pivot ? SmallestGap(moment, foot) : 1
            ) < -Touching
        )
        {
            yield return new(
                Rule.SolesOverlap,
                Severity.Impossible,
                beat,
                foot,
                $"The {Name(foot)} sole would stand on the other foot."
            );
        }
    }

    /// <summary>How far a place lies beyond the other foot: to its right for the left foot, to its left for the right
    /// one.</summary>
    private static decimal Beyond(Foot foot, Place to) => foot == Foot.Left ? to.Side : -to.Side;

    /// <summary>The smallest gap between the soles while one of them goes straight from where it was to where it
    /// arrives.</summary>
    private static double SmallestGap(Moment moment, Foot foot)
    {
        var (from, to, other) = (moment.Before[foot], moment.After[foot], moment.After[StepAction.Other(foot)]);
        var turn = Facing.FromDegrees(from.Toes).TurnTo(Facing.FromDegrees(to.Toes));
        var smallest = double.MaxValue;
        for (var step = 1; step <= Samples; step++)
        {
            var part = (double)step / Samples;
            smallest = Math.Min(
                smallest,
                new Sole(
                    from.Heel.Between(to.Heel, part),
                    (int)Math.Round(from.Toes + (turn * part), MidpointRounding.ToEven),
                    to.Contact,
                    0
                ).Clearance(other)
            );
        }

        return smallest;
    }

    /// <summary>How far the pelvis points inward of a foot (positive) or outward of it (negative), degrees.</summary>
    private static int KneeTurn(Stand stand, Foot foot)
    {
        var turn = Facing.FromDegrees(stand[foot].Toes).TurnTo(Facing.FromDegrees(stand.Hips));
        return foot == Foot.Left ? turn : -turn;
    }

    private static StepFinding? WidthFinding(Beat beat)
    {
        if (
            beat.Moments.LastOrDefault(moment =>
                moment.Action
                    is StepAction.Move { To: not null, Verb: FootVerb.Step or FootVerb.Withdraw }
                        or StepAction.Weigh
            )
                is not { } last
            || beat.After.Left.InAir
            || beat.After.Right.InAir
        )
        {
            return null;
        }

        var backward = beat.Moments.Any(moment =>
            moment.Action is StepAction.Move { Verb: FootVerb.Step, To.Forward: < -1 }
        );
        var footing = Footing.Of(beat.After);
        var width = -beat.After.LeftSeenFromRight(beat.After.Hips).Right;
        return (footing.Stance == Stance.Bow || backward) && width < NarrowestWidth
            ? new(
                Rule.NarrowStance,
                Severity.Caution,
                beat,
                last.Action is StepAction.Move move ? move.Foot
                    : footing.Leading == Side.Left ? Foot.Left
                    : Foot.Right,
                $"The heels are {Math.Max(0, Math.Round(width, 1)):0.#} foot-lengths apart across the body; under {NarrowestWidth} it is hard to keep one's balance {(backward ? "stepping back" : "in a bow")}."
            )
            : null;
    }

    private static string Name(Foot foot) => foot == Foot.Left ? "left" : "right";

    private static readonly Foot[] Feet = [Foot.Left, Foot.Right];
    private const int NearlyEmpty = 10;
    private const int MayDrag = 30;
    private const int HalfLoaded = 50;
    private const int SmallPivot = 30;
    private const int LoadedKnee = 30;
    private const int InwardMost = 30;
    private const int OutwardMost = 45;
    private const double NarrowestWidth = 0.5;
    private const double Touching = 0.02;
    private const int Samples = 12;
}
