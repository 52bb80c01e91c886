using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Progress;

/// <summary>Which moments of the day are right for whom.</summary>
public static class HouseholdOccasions
{
    /// <summary>Those that suit somebody, what trains the most of what they practise first.</summary>
    /// <param name="trains">What they practise, the most important first.</param>
    public static IEnumerable<HouseholdOccasion> Suiting(
        this IEnumerable<HouseholdOccasion> occasions,
        Mode mode,
        IReadOnlyList<Limit> limits,
        IReadOnlyList<Training> trains
    )
    {
        var posed =
            mode.Support == Support.Seat ? HouseholdOccasion.Posed.Sitting
            : mode.Support == Support.None ? HouseholdOccasion.Posed.Free
            : HouseholdOccasion.Posed.Holding;
        return occasions
            .Where(occasion =>
                occasion.For.Contains(posed)
                && trains.Contains(occasion.Trains)
                && !limits.Any(limit => limit.IsBrokenBy(occasion.Asks, SideNamedBy.Nothing, Side.Symmetric))
            )
            .OrderBy(occasion => Place(trains, occasion.Trains));
    }

    private static int Place(IReadOnlyList<Training> trains, Training trained) =>
        trains.TakeWhile(training => training != trained).Count();
}
