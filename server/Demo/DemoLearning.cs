using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Server.Demo;

/// <summary>
/// How far everybody is with what they are taught, so that what is seen of them goes the way people learn: after the
/// others first, then alone, then in the flow; some sooner than others, and not every evening is a good one.
/// </summary>
internal sealed class DemoLearning(Random random)
{
    private const int FewestLessons = 2;
    private const int MostLessons = 4;
    private const double BadEvening = 0.07;
    private readonly Dictionary<(Guid Student, UnitKey Of), int> met = [];
    private readonly Dictionary<Guid, int> lessonsToAlone = [];

    /// <summary>Somebody was there when it was taught.</summary>
    /// <param name="knew">They had learned it before anybody wrote anything down.</param>
    public void Meet(Guid student, UnitKey of, bool knew)
    {
        if (!lessonsToAlone.TryGetValue(student, out var lessons))
        {
            lessonsToAlone[student] = lessons = random.Next(FewestLessons, MostLessons + 1);
        }

        met[(student, of)] = met.GetValueOrDefault((student, of), knew ? lessons : 0) + 1;
    }

    /// <summary>What somebody shows who has met it.</summary>
    public Stage Shows(Guid student, UnitKey of, bool inRunThrough)
    {
        var (times, lessons) = (met[(student, of)], lessonsToAlone[student]);
        var best =
            times > 2 * lessons && inRunThrough ? Stage.Flowing
            : times > lessons ? Stage.Alone
            : Stage.Follows;
        return best > Stage.Follows && random.NextDouble() < BadEvening ? best - 1 : best;
    }
}
