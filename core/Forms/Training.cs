using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

/// <summary>What of the art practising something trains. An occasion of the day can train the same (domain.md 4.5).</summary>
public enum Training
{
    ShiftingWeight,
    Stepping,
    EmptyingAFoot,
    TurningTheWaist,
    CarryingTheArms,
    StandingStill,
}

/// <summary>Reads what a posture trains off how it is done.</summary>
public static class TrainedBy
{
    /// <summary>What it trains, what it does in most of its counts first; nothing moves by itself, so every body stands (or
    /// sits) still in the end.</summary>
    /// <param name="walk">One posture in one mode, from <see cref="PostureBody"/>.</param>
    public static IReadOnlyList<Training> Of(BodyWalk walk) =>
        [
            .. walk
                .Beats.SelectMany(
                    (beat, at) =>
                        In(beat, walk.StateAfter(at).Chest, walk.StateAfter(at + 1).Chest, walk.ActionsOf(at + 1))
                )
                .CountBy(training => training)
                .OrderByDescending(training => training.Value)
                .ThenBy(training => training.Key)
                .Select(training => training.Key),
            Training.StandingStill,
        ];

    private static IEnumerable<Training> In(Beat beat, int chestBefore, int chestAfter, IReadOnlyList<BodyAction> does)
    {
        var (before, after) = (beat.Before, beat.After);
        if (
            Math.Abs(after.Left.Load - before.Left.Load) >= Shift
            || Math.Abs(after.SeatLeft - before.SeatLeft) >= Shift / 2
        )
        {
            yield return Training.ShiftingWeight;
        }

        if (beat.Moments.Any(moment => moment.Action is StepAction.Move { LeavesFloor: false, To: not null }))
        {
            yield return Training.Stepping;
        }

        if (after.Left.InAir || after.Right.InAir)
        {
            yield return Training.EmptyingAFoot;
        }

        var turn = Facing.FromDegrees(before.Hips).TurnTo(Facing.FromDegrees(after.Hips)) + chestAfter - chestBefore;
        if (Math.Abs(turn) >= Turn)
        {
            yield return Training.TurningTheWaist;
        }

        if (does.OfType<BodyAction.Arm>().Any(arm => arm.Place.Height >= Height.Chest))
        {
            yield return Training.CarryingTheArms;
        }
    }

    /// <summary>Per cent of the weight.</summary>
    private const int Shift = 30;

    /// <summary>Degrees.</summary>
    private const int Turn = 20;
}
