using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms.Floor;

/// <summary>The obvious way from where two feet stand into where a posture starts: sit off the foot that has to turn,
/// turn it and the hips, and come onto the foot that carries.</summary>
public static class WayIn
{
    /// <param name="reached">Where the feet stand.</param>
    /// <param name="wanted">The stand the posture starts from, in its own directions (hips at 0).</param>
    /// <param name="hips">Where the hips have to point then, so that the posture ends facing as its position
    /// says.</param>
    /// <returns>Null when no turn of one foot and the hips leads there.</returns>
    public static IReadOnlyList<StepAction>? Lead(Stand reached, Stand wanted, Facing hips)
    {
        var support = wanted.Left.Load >= wanted.Right.Load ? Foot.Left : Foot.Right;
        var other = StepAction.Other(support);
        var toes = Facing.FromDegrees(hips.Degrees + wanted[support].Toes - wanted.Hips);
        var turn = Facing.FromDegrees(reached[support].Toes).TurnTo(toes);
        var hipsTurn = Facing.FromDegrees(reached.Hips).TurnTo(hips);
        if (Math.Abs(turn) > MostOfAPivot || reached[support].InAir)
        {
            return null;
        }

        List<StepAction> steps = [];
        if (turn != 0)
        {
            if (reached[support].Load > 50)
            {
                steps.Add(new StepAction.Weigh(other, 80));
            }

            steps.Add(new StepAction.Pivot(support, PivotOn.Heel, turn));
        }

        if (hipsTurn != 0)
        {
            steps.Add(new StepAction.Hips(hipsTurn));
        }

        if (
            steps.Aggregate(reached, (stand, step) => stand.After(step, PivotOn.Heel))[support].Load
            != wanted[support].Load
        )
        {
            steps.Add(new StepAction.Weigh(support, wanted[support].Load));
        }

        return steps;
    }

    /// <summary>More than this at once no knee should be asked for.</summary>
    private const int MostOfAPivot = 135;
}
