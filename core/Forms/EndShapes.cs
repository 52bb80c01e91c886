using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>What a posture's steps lead to against what is written: where the body points, the stance it ends in, and
/// the loads and toes that stance asks for (domain.md 4.1, "Stances").</summary>
internal static class EndShapes
{
    public static IEnumerable<Finding> Check(
        IReadOnlyList<Position> positions,
        IReadOnlyDictionary<Guid, Posture> postures,
        FloorWalk walk,
        Conventions ways
    )
    {
        var ends = walk.Beats.GroupBy(beat => beat.At).ToDictionary(beats => beats.Key, beats => beats.Last());
        foreach (var (at, position) in positions.Index())
        {
            var posture = postures[position.PostureId];
            if (!ends.TryGetValue(at, out var end) || posture.StepsOn(position.Side).All(steps => steps.Count == 0))
            {
                if (posture.Text.Entry.Length == 0)
                {
                    yield return new(
                        Rule.StepsUnwritten,
                        Severity.Note,
                        position.Id,
                        null,
                        null,
                        $"The feet of {posture.Name} are not written, so the floor is not checked here.",
                        []
                    );
                }

                continue;
            }

            foreach (var finding in CheckEnd(position, posture, end, ways))
            {
                yield return finding;
            }
        }
    }

    private static IEnumerable<Finding> CheckEnd(Position position, Posture posture, Beat end, Conventions ways)
    {
        var stand = end.After;
        var reached = Facing.FromDegrees(stand.Hips);
        if (Math.Abs(reached.TurnTo(position.Facing)) > BodyTolerance)
        {
            yield return Say(
                Rule.BodyFacing,
                Severity.Error,
                null,
                $"The steps end with the hips {Math.Abs(reached.TurnTo(position.Facing))}° from {ways.Say(position.Facing)}, which is written.",
                new Mend(
                    $"Turn the hips on the way in",
                    WayIn: StepNotation.Print([
                        .. StepNotation.Parse(position.WayIn).Actions,
                        new StepAction.Hips(reached.TurnTo(position.Facing)),
                    ])
                )
            );
        }

        var footing = Footing.Of(stand);
        var wanted =
            position.Side != Side.Symmetric && position.Side != posture.WrittenSide
                ? posture.Text.End?.Mirror()
                : posture.Text.End;
        if (
            wanted is not null
            && (
                footing.Stance != wanted.Stance
                || footing.Leading != wanted.Leading
                || Math.Abs(footing.LeftLoad - wanted.LeftLoad) > LoadTolerance
            )
        )
        {
            yield return Say(
                Rule.EndShape,
                Severity.Error,
                null,
                $"The steps lead to {footing.Say()}; {posture.Name} is written to end in {wanted.Say()}."
            );
        }

        foreach (var finding in CheckStance(footing, stand, ways, Say))
        {
            yield return finding;
        }

        Finding Say(Rule rule, Severity severity, Foot? foot, string message, params Mend[] mends) =>
            new(rule, severity, position.Id, end.Count, foot, message, mends);
    }

    private delegate Finding Saying(Rule rule, Severity severity, Foot? foot, string message, params Mend[] mends);

    private static IEnumerable<Finding> CheckStance(Footing footing, Stand stand, Conventions ways, Saying say)
    {
        if (footing.Leading == Side.Symmetric)
        {
            if (footing.Stance == Stance.Horse && Math.Abs(footing.LeftLoad - 50) > LoadTolerance)
            {
                yield return say(
                    Rule.BowLoad,
                    Severity.Caution,
                    null,
                    $"A horse stance carries its weight evenly; here the left foot has {footing.LeftLoad} %."
                );
            }

            yield break;
        }

        var leads = footing.Leading == Side.Left ? Foot.Left : Foot.Right;
        var load = stand[leads].Load;
        if (footing.Stance == Stance.Bow && load is >= 30 and <= 40)
        {
            // A rear-weighted bow: the rear foot carries what the front foot does otherwise, and the hips have turned to it.
            yield break;
        }

        switch (footing.Stance)
        {
            case Stance.Bow when load is < 60 or > 70:
                yield return say(
                    Rule.BowLoad,
                    Severity.Caution,
                    leads,
                    $"The leading foot of this bow carries {load} %; a bow carries 60 to 70 %."
                );
                break;
            case Stance.Bow when Math.Abs(load - ways.BowLoad) > 5:
                yield return say(
                    Rule.BowLoad,
                    Severity.Note,
                    leads,
                    $"The leading foot of this bow carries {load} %; the school's bow carries {ways.BowLoad} %."
                );
                break;
            case Stance.Empty when load > ways.EmptyLoad:
                yield return say(
                    Rule.EmptyLoad,
                    Severity.Caution,
                    leads,
                    $"The light foot of this empty stance carries {load} %; the school's empty stance carries {ways.EmptyLoad} % at most."
                );
                break;
            case Stance.TStep when !ways.ToeTouchAllowed:
                yield return say(
                    Rule.ToeTouch,
                    Severity.Caution,
                    leads,
                    "The toes touch beside the standing foot; this school avoids that."
                );
                break;
        }

        var rear = StepAction.Other(leads);
        var toes =
            Facing.FromDegrees(stand.Hips).TurnTo(Facing.FromDegrees(stand[rear].Toes)) * (rear == Foot.Left ? -1 : 1);
        if (footing.Stance == Stance.Bow && (toes is < 40 or > 65 || Math.Abs(toes - ways.RearToes) > 10))
        {
            yield return say(
                Rule.RearToes,
                toes is < 40 or > 65 ? Severity.Caution : Severity.Note,
                rear,
                $"The rear toes of this bow point {toes}° out; 45 to 60° is usual, and this school's are {ways.RearToes}°."
            );
        }
    }

    private const int BodyTolerance = 22;
    private const int LoadTolerance = 10;
}
