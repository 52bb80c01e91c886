using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Terms;

/// <summary>
/// How fast a cohort learns against what is reckoned, learned from what its introductions took (domain.md 4.2): it
/// starts at 1, each introduction counts less the longer it is past (exponential smoothing), and it stays between a half
/// and two.
/// </summary>
public static class CohortPace
{
    public const decimal Least = 0.5m;
    public const decimal Most = 2m;

    /// <summary>How much the latest introduction weighs against all before it.</summary>
    public const decimal Smoothing = 0.3m;

    /// <summary>The talk takes the same for every cohort.</summary>
    private const decimal TalkSeconds = Effort.TalkMinutes * 60;

    /// <param name="records">In any order, and whatever was said first of a lesson: introductions of one day count in
    /// teaching order. Those nobody gave minutes to teach nothing about the pace.</param>
    /// <param name="units">What the cohort is given, in teaching order, reckoned for a cohort of pace 1.</param>
    /// <returns>To a tenth: a plan is not overturned by less.</returns>
    public static decimal Of(Guid cohort, IEnumerable<LessonRecord> records, IReadOnlyList<TeachingUnit> units)
    {
        var reckoned = units.Index().ToDictionary(unit => unit.Item.Key);
        var pace = (
            from record in records
            from item in record.Taught
            where item.CohortId == cohort && item.How == TaughtHow.Introduced && item.Minutes is not null
            where reckoned.ContainsKey(item.Key)
            let unit = reckoned[item.Key]
            where unit.Item.IntroduceSeconds.Count > TalkSeconds
            orderby record.Date, unit.Index
            select Math.Clamp(
                ((item.Minutes!.Value * 60) - TalkSeconds) / (unit.Item.IntroduceSeconds.Count - TalkSeconds),
                Least,
                Most
            )
        ).Aggregate(1m, (pace, latest) => (pace * (1 - Smoothing)) + (Smoothing * latest));
        return decimal.Round(pace, 1);
    }
}
