using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>A rule that a posture, or a version of it, does not keep by itself.</summary>
/// <param name="Count">From 1; 0 is where it starts.</param>
/// <param name="AcceptedBecause">The school's reason when it keeps this as its way.</param>
public sealed record PostureFinding(
    Rule Rule,
    Severity Severity,
    int Count,
    string Message,
    IReadOnlyList<PostureMend> Mends,
    string? AcceptedBecause = null
)
{
    /// <summary>With the reason of whoever keeps it as their way.</summary>
    internal PostureFinding KeptBy(IReadOnlyList<OurWay> kept, Mode mode) =>
        this with
        {
            AcceptedBecause = kept.FirstOrDefault(way =>
                way.Rule == Rule && way.Mode.Adapted == mode.Adapted && way.Count == Count
            )?.Reason,
        };
}

/// <summary>An obvious way to settle it: counts that are written anew.</summary>
public sealed record PostureMend(string Label, IReadOnlyList<CountEdit> Edits);

/// <summary>What stays null stays as it is.</summary>
public sealed record CountEdit(int Count, string? Feet = null, string? Body = null);

/// <summary>A finding that a school keeps as its way, with its reason.</summary>
/// <param name="Mode">Which of the versions it is kept in.</param>
public sealed record OurWay(Rule Rule, Mode Mode, int Count, string Reason);

/// <summary>Everything in one posture, or one version of it, that no body can do, that hurts, or that disagrees with how the
/// school does it (domain.md 4.1): the steps, the arms, what arrives when, the breath.</summary>
public static class PostureCheck
{
    private const int MostInBreaths = 2;
    private const double ArmHasMoved = 0.04;

    /// <summary>Parts of the way to a count's end at which the arms are looked at, too.</summary>
    private static readonly double[] OnTheWay = [0.3, 0.6];
    private static readonly double[] HalfWay = [0.5];

    /// <summary>All findings of a posture in one mode, in their order, those of its loop's way back as the count after the last;
    /// what is kept as the school's way has its reason.</summary>
    /// <param name="side">The side it is done on: messages and mends speak of that one.</param>
    public static IReadOnlyList<PostureFinding> Run(Posture posture, Side side, Mode mode, Conventions ways)
    {
        if (PostureBody.Of(posture, side, mode, ways, Physique.Standard) is not { } walk)
        {
            return [];
        }

        var kept = posture.Text.OurWays;
        return mode == Mode.Standing
            ?
            [
                .. Run(walk, posture.Counts, CheckpointsOn(posture, side), mode, kept, ways),
                .. LoopCheck.Run(posture, side, walk, ways),
            ]
            : Run(walk, posture.CountsFor(mode)!, [], mode, kept, ways);
    }

    private static IReadOnlyList<Checkpoint> CheckpointsOn(Posture posture, Side side) =>
        side == posture.WrittenSide
            ? posture.Text.Checkpoints
            :
            [
                .. posture.Text.Checkpoints.Select(point =>
                    point with
                    {
                        Measure = MeasureNotation.Mirror(point.Measure),
                    }
                ),
            ];

    /// <param name="counts">Breath and condition of each count; feet and body are those of the walk.</param>
    public static IReadOnlyList<PostureFinding> Run(
        BodyWalk walk,
        IReadOnlyList<Count> counts,
        IReadOnlyList<Checkpoint> checkpoints,
        Mode mode,
        IReadOnlyList<OurWay> kept,
        Conventions ways
    )
    {
        IEnumerable<PostureFinding> findings =
        [
            .. Enumerable.Range(0, walk.Count + 1).SelectMany(count => InCount(walk, count, ways)),
            .. Still(walk, counts),
            .. AfterTheWeight(walk, ways),
            .. Breaths(counts),
            .. Measured(walk, checkpoints)
                .Where(measured => !measured.Fulfilled)
                .Select(measured => new PostureFinding(
                    Rule.CheckpointMissed,
                    Severity.Error,
                    walk.Count,
                    $"The end shape does not fulfil a checkpoint of its own. {char.ToUpperInvariant(measured.Say()[0])}{measured.Say()[1..]}.",
                    []
                )),
        ];
        return
        [
            .. findings
                .OrderBy(finding => finding.Count)
                .ThenByDescending(finding => finding.Severity)
                .Select(finding => finding.KeptBy(kept, mode)),
        ];
    }

    /// <summary>What feet and arms do in one count that they must not.</summary>
    internal static IEnumerable<PostureFinding> InCount(BodyWalk walk, int count, Conventions ways) =>
        (
            count == 0
                ? []
                : StepRules
                    .Check(walk.Beats[count - 1], ways)
                    .Select(finding => new PostureFinding(finding.Rule, finding.Severity, count, finding.Message, []))
        ).Concat(Arms(walk, count));

    /// <summary>What the checkpoints measure on the end shape, of those that can be measured.</summary>
    public static IEnumerable<Measured> Measured(BodyWalk walk, IReadOnlyList<Checkpoint> checkpoints) =>
        checkpoints
            .Select(point => MeasureNotation.Parse(point.Measure).Measure)
            .OfType<Measure>()
            .Select(measure => measure.On(walk.After(walk.Count), walk.Physique, walk.Start.Hips));

    /// <summary>The arms when a count ends, and on the way there what is worse than at both its ends.</summary>
    private static IEnumerable<PostureFinding> Arms(BodyWalk walk, int count)
    {
        var ends = ArmRules.Check(walk.After(count), walk.StateAfter(count), walk.Physique);
        return ends.Concat(OnTheWayTo(walk, count, ends))
            .Select(fault => new PostureFinding(
                fault.Rule,
                fault.Severity,
                count,
                fault.Message,
                ArmMends.For(walk, count, fault)
            ));
    }

    /// <summary>What goes wrong on the way only; where the hands stay where they are there is no way to look at.</summary>
    private static IEnumerable<ArmFault> OnTheWayTo(BodyWalk walk, int count, IReadOnlyList<ArmFault> ends)
    {
        if (count == 0 || !HandsMove(walk, count))
        {
            return [];
        }

        List<ArmFault> way = [];

        // A straight way is deepest in the middle; one that passes somewhere may be so on either side of it.
        foreach (var part in walk.PassesSomewhere(count) ? OnTheWay : HalfWay)
        {
            foreach (var fault in ArmRules.Check(walk.Within(count, part), walk.StateAfter(count), walk.Physique))
            {
                if (fault.Rule is Rule.ThroughBody or Rule.ElbowNobodyHas)
                {
                    way.Add(fault);
                }
            }
        }

        if (way.Count == 0)
        {
            return [];
        }

        var before = ArmRules.Check(walk.After(count - 1), walk.StateAfter(count - 1), walk.Physique);
        return way.ExceptBy(ends.Concat(before).Select(end => end.Kind), fault => fault.Kind)
            .Select(fault => way.Where(other => other.Kind == fault.Kind).MaxBy(other => other.By))
            .Select(fault =>
                fault with
                {
                    Message = $"On its way: {char.ToLowerInvariant(fault.Message[0])}{fault.Message[1..]}",
                }
            );
    }

    private static IEnumerable<PostureFinding> Still(BodyWalk walk, IReadOnlyList<Count> counts) =>
        Enumerable
            .Range(1, walk.Count)
            .Where(count =>
                walk.Beats[count - 1].Moments.Count == 0
                && walk.StateAfter(count) == walk.StateAfter(count - 1)
                && counts[count - 1].OnlyIf.Length == 0
            )
            .Select(count => new PostureFinding(
                Rule.NothingMoves,
                Severity.Caution,
                count,
                "Nothing moves in this count: neither feet nor hands, trunk or gaze.",
                []
            ));

    /// <summary>Hands that go on after the weight has come to rest for good.</summary>
    private static IEnumerable<PostureFinding> AfterTheWeight(BodyWalk walk, Conventions ways)
    {
        var last = Enumerable
            .Range(1, walk.Count)
            .LastOrDefault(count =>
                walk.Beats[count - 1].Moments.Count > 0
                || walk.StateAfter(count).Rise != walk.StateAfter(count - 1).Rise
            );
        if (
            ways.HandsSettleAfter
            || last == 0
            || last == walk.Count
            || !walk.Beats.Any(beat => Math.Abs(beat.After.Left.Load - beat.Before.Left.Load) > 20)
            || Enumerable.Range(last + 1, walk.Count - last).All(count => !HandsMove(walk, count))
        )
        {
            yield break;
        }

        var arrives = Enumerable.Range(last + 1, walk.Count - last).Last(count => HandsMove(walk, count));
        yield return new(
            Rule.HandsAfterWeight,
            Severity.Caution,
            arrives,
            $"The weight has arrived in count {last}, and the hands go on to count {arrives}; here they arrive with the weight.",
            [ArmMends.WeightLater(walk, last, arrives)]
        );
    }

    private static bool HandsMove(BodyWalk walk, int count)
    {
        var (before, after) = (walk.After(count - 1), walk.After(count));
        return (after.LeftArm.Palm - before.LeftArm.Palm).Length > ArmHasMoved
            || (after.RightArm.Palm - before.RightArm.Palm).Length > ArmHasMoved;
    }

    private static IEnumerable<PostureFinding> Breaths(IReadOnlyList<Count> counts)
    {
        var running = 0;
        foreach (var (at, count) in counts.Index())
        {
            running = count.Breath.StartsWith("in", StringComparison.OrdinalIgnoreCase) ? running + 1 : 0;
            if (running == MostInBreaths + 1)
            {
                yield return new(
                    Rule.InBreaths,
                    Severity.Caution,
                    at + 1,
                    "The breath goes in for a third count running; nobody is asked to hold it or to force it.",
                    []
                );
            }
        }
    }
}
