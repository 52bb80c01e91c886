using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>
/// Each posture must start where the one before it ended (domain.md 4.1, "Continuity"): weight, leading foot, stance,
/// and the supporting foot under the hips. Compared is the stand the feet really reached, the way in included, with the
/// stand the posture's own entry describes.
/// </summary>
internal static class Continuity
{
    public static IEnumerable<Finding> Check(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        FloorWalk walk,
        Conventions ways
    )
    {
        var firsts = walk.Beats.Where(beat => beat is { Count: 1, Repeat: 0 }).ToDictionary(beat => beat.At);
        Dictionary<(Guid, Side), Stand> entries = [];
        foreach (var (at, position) in positions.Index())
        {
            var posture = postures[position.PostureId];
            if (posture.Text.Entry.Length == 0 || !firsts.TryGetValue(at, out var first))
            {
                continue;
            }

            if (!entries.TryGetValue((posture.Id, position.Side), out var wanted))
            {
                entries[(posture.Id, position.Side)] = wanted = EntryOf(posture, position.Side, ways);
            }

            var before = at == 0 ? "The form" : postures[positions[at - 1].PostureId].NameOn(positions[at - 1].Side);
            var found = Compare(position, posture, before, first.Before, wanted).ToList();
            if (found.Count == 0)
            {
                continue;
            }

            var lead = Lead(position, posture, walk.Beats.First(beat => beat.At == at).Before, wanted, ways);
            foreach (var finding in found)
            {
                yield return finding.Rule is Rule.WeightCarriedOver or Rule.FeetCarriedOver && lead is not null
                    ? finding with
                    {
                        Mends = [lead, .. finding.Mends],
                    }
                    : finding;
            }
        }
    }

    /// <summary>Writes the way in anew so that the posture starts as it should and ends facing as the position says;
    /// null where that takes more than a turn of one foot.</summary>
    private static Mend? Lead(Position position, Posture posture, Stand reached, Stand wanted, Conventions ways)
    {
        var turns = posture
            .StepsOn(position.Side)
            .SelectMany(steps => steps)
            .OfType<StepAction.Hips>()
            .Sum(hips => hips.Turn);
        var steps = WayIn.Lead(reached, wanted, position.Facing.Turn(-turns + wanted.Hips));
        if (steps is null)
        {
            return null;
        }

        var led = steps.Aggregate(reached, (stand, step) => stand.After(step, ways.PivotOn));
        return Compare(position, posture, "", led, wanted).Any()
            ? null
            : new($"Write the way in: {StepWords.Say(steps)}", WayIn: StepNotation.Print(steps));
    }

    /// <summary>The stand a posture's own entry describes.</summary>
    public static Stand EntryOf(Posture posture, Side side, Conventions ways) =>
        posture
            .StepsOn(side, posture.Text.Entry)
            .Aggregate(Stand.AtStart, (stand, step) => stand.After(step, ways.PivotOn));

    /// <param name="before">What led to the stand that was reached, as the beginning of a sentence.</param>
    public static IEnumerable<Finding> Compare(
        Position position,
        Posture posture,
        string before,
        Stand reached,
        Stand wanted
    )
    {
        var name = posture.NameOn(position.Side);
        var (has, wants) = (Footing.Of(reached), Footing.Of(wanted));
        if (Math.Abs(has.LeftLoad - wants.LeftLoad) > LoadTolerance)
        {
            var foot = wants.LeftLoad >= 50 ? Foot.Left : Foot.Right;
            yield return Say(
                Rule.WeightCarriedOver,
                $"{before} leaves {has.LeftLoad} % on the left foot; {name} starts with {wants.LeftLoad} %.",
                ShiftBefore(position, foot, foot == Foot.Left ? wants.LeftLoad : 100 - wants.LeftLoad)
            );
        }

        var mirror =
            position.Side == Side.Symmetric
                ? (Mend[])[]
                :
                [
                    new Mend(
                        $"Do it on the {(position.Side == Side.Left ? "right" : "left")}",
                        Side: Mirror.Of(position.Side)
                    ),
                ];
        var isFree = FreeFootMovesFirst(posture.StepsOn(position.Side), wanted);
        if (!isFree && has.Leading != wants.Leading && wants.Leading != Side.Symmetric)
        {
            yield return Say(
                Rule.LeadingFoot,
                $"{before} ends with {Leading(has.Leading)}; {name} starts with {Leading(wants.Leading)}.",
                mirror
            );
        }

        if (!isFree && has.Stance != wants.Stance)
        {
            yield return Say(
                Rule.StanceCarriedOver,
                $"{before} ends in {Article(has.Stance)}; {name} starts from {Article(wants.Stance)}."
            );
        }

        // Where both feet carry alike, both have to stand right.
        Foot[] supports =
            wants.LeftLoad == 50 ? [Foot.Left, Foot.Right] : [wants.LeftLoad > 50 ? Foot.Left : Foot.Right];
        foreach (var support in supports)
        {
            var (stands, should) = (ToesFromHips(reached, support), ToesFromHips(wanted, support));
            if (Math.Abs(Facing.FromDegrees(stands).TurnTo(Facing.FromDegrees(should))) > ToeTolerance)
            {
                yield return Say(
                    Rule.FeetCarriedOver,
                    $"The {(support == Foot.Left ? "left" : "right")} foot stands {Turned(stands)}; {name} starts with it {Turned(should)}."
                );
                break;
            }
        }

        Finding Say(Rule rule, string message, params Mend[] mends) =>
            new(rule, Severity.Error, position.Id, 1, null, message, mends);
    }

    /// <summary>Adds a shift of weight to the way into a position.</summary>
    public static Mend ShiftBefore(Position position, Foot foot, int load) =>
        new(
            $"Insert a shift to the {(foot == Foot.Left ? "left" : "right")} foot",
            WayIn: StepNotation.Print([.. StepNotation.Parse(position.WayIn).Actions, new StepAction.Weigh(foot, load)])
        );

    /// <summary>Whether the foot that carries little is placed anew before it takes weight, so that it does not matter
    /// where it was.</summary>
    private static bool FreeFootMovesFirst(IReadOnlyList<IReadOnlyList<StepAction>> counts, Stand wanted)
    {
        var free = wanted.Left.Load <= wanted.Right.Load ? Foot.Left : Foot.Right;
        return wanted[free].Load <= 10
            && counts
                .SelectMany(steps => steps)
                .FirstOrDefault(step =>
                    step
                        is StepAction.Move { To: not null }
                            or StepAction.Move { Verb: FootVerb.Lift or FootVerb.Kick }
                            or StepAction.Weigh
                )
                is StepAction.Move move
            && move.Foot == free;
    }

    private static int ToesFromHips(Stand stand, Foot foot) =>
        Facing.FromDegrees(stand.Hips).TurnTo(Facing.FromDegrees(stand[foot].Toes));

    private static string Turned(int toes) =>
        toes == 0 ? "straight under the hips" : $"{Math.Abs(toes)}° {(toes < 0 ? "left" : "right")} of the hips";

    private static string Leading(Side side) =>
        side == Side.Symmetric ? "neither foot leading" : $"the {(side == Side.Left ? "left" : "right")} foot leading";

    private static string Article(Stance stance) =>
        stance is Stance.Empty or Stance.OneLeg ? $"{(stance == Stance.Empty ? "an empty stance" : "one leg")}"
        : stance == Stance.TStep ? "a T-step"
        : stance is Stance.Bow or Stance.Horse or Stance.Drop or Stance.Crossed ? $"a {Footing.Name(stance)} stance"
        : Footing.Name(stance);

    private const int LoadTolerance = 10;
    private const int ToeTolerance = 25;
}
