using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Checks;

/// <summary>Small changes of a count that settle what is wrong with an arm: each is tried on the body before it is
/// offered.</summary>
internal static class ArmMends
{
    public static IReadOnlyList<PostureMend> For(BodyWalk walk, int count, ArmFault fault)
    {
        if (count == 0)
        {
            return [];
        }

        var actions = walk.ActionsOf(count);
        var said =
            actions.OfType<BodyAction.Arm>().LastOrDefault(arm => arm.Hand == fault.Hand)
            ?? new BodyAction.Arm(fault.Hand);
        return
        [
            .. Candidates(said, walk.StateAfter(count)[fault.Hand], fault)
                .Select(wanted => (wanted.Label, Actions: Replaced(actions, said, wanted.Arm)))
                .Where(wanted => Settles(walk.With(count, wanted.Actions), count, fault))
                .Take(2)
                .Select(wanted => new PostureMend(
                    wanted.Label,
                    [new(count, Body: BodyNotation.Print(wanted.Actions))]
                )),
        ];
    }

    /// <summary>The last shift of weight of one count is moved to a later one.</summary>
    public static PostureMend WeightLater(BodyWalk walk, int from, int to)
    {
        IReadOnlyList<StepAction> Steps(int count) =>
            [.. walk.Beats[count - 1].Moments.Select(moment => moment.Action)];
        var early = Steps(from);
        var shift = early.OfType<StepAction.Weigh>().LastOrDefault();
        return new(
            $"Let the weight arrive in count {to}",
            shift is null
                ? []
                :
                [
                    new(from, Feet: StepNotation.Print([.. early.Where(step => !ReferenceEquals(step, shift))])),
                    new(to, Feet: StepNotation.Print([.. Steps(to), shift])),
                ]
        );
    }

    private static IEnumerable<(string Label, BodyAction.Arm Arm)> Candidates(
        BodyAction.Arm said,
        HandState hand,
        ArmFault fault
    )
    {
        var name = ArmRules.Name(fault.Hand);
        switch (fault.Rule)
        {
            case Rule.HandBeyondReach when hand.Place.Against is null:
                foreach (var reach in new[] { Reach.Bent, Reach.Near }.Where(reach => reach < hand.Place.Reach))
                {
                    yield return (
                        $"Reach less far: {BodyWord.Name(reach)}",
                        said with
                        {
                            Place = hand.Place with { Reach = reach },
                        }
                    );
                }

                foreach (var line in new[] { Line.Outside, Line.Own }.Where(line => line < hand.Place.Line))
                {
                    yield return (
                        $"Less far to the side: {BodyWord.Name(line)}",
                        said with
                        {
                            Place = hand.Place with { Line = line },
                        }
                    );
                }

                break;
            case Rule.ElbowAboveShoulder:
                yield return ($"The {name} elbow is meant to be up", said with { Elbow = Elbow.Up });
                break;
            case Rule.WristBent or Rule.ElbowNobodyHas:
                foreach (var elbow in new[] { Elbow.Out, Elbow.Down }.Where(elbow => elbow != hand.Elbow))
                {
                    yield return (
                        elbow == Elbow.Out ? $"Round the {name} elbow outwards" : $"Let the {name} elbow hang",
                        said with
                        {
                            Elbow = elbow,
                        }
                    );
                }

                break;
            case Rule.ThroughBody when said.First is null && !said.Place.IsEmpty:
                foreach (var (way, label) in new[] { (Way.Front, "in front"), (Way.Out, "outside"), (Way.Up, "above") })
                {
                    yield return ($"By an arc {label}", said with { First = new Passing(default, way) });
                }

                break;
        }
    }

    private static IReadOnlyList<BodyAction> Replaced(
        IReadOnlyList<BodyAction> actions,
        BodyAction.Arm said,
        BodyAction.Arm wanted
    ) =>
        actions.Any(action => ReferenceEquals(action, said))
            ? [.. actions.Select(action => ReferenceEquals(action, said) ? wanted : action)]
            : [.. actions, wanted];

    private static bool Settles(BodyWalk walk, int count, ArmFault fault) =>
        Enumerable
            .Range(1, 4)
            .All(quarter =>
                ArmRules
                    .Check(walk.Within(count, quarter / 4.0), walk.StateAfter(count), walk.Physique)
                    .All(left => left.Hand != fault.Hand || (left.Rule != fault.Rule && left.Severity < Severity.Error))
            );
}
