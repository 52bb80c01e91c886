namespace Zeitplan.Core.Terms;

/// <summary>
/// How fast a cohort learns against what is reckoned, learned from what its introductions took (domain.md 4.2): it
/// starts at 1, each lesson counts less the longer it is past (exponential smoothing), and it stays between a half and
/// two.
/// </summary>
public static class CohortPace
{
    public const decimal Least = 0.5m;
    public const decimal Most = 2m;

    /// <summary>How much the latest introduction weighs against all before it.</summary>
    public const decimal Smoothing = 0.3m;

    /// <param name="taught">Oldest first: the seconds an introduction was reckoned at for a cohort of pace 1, the talk
    /// before it included, and the seconds it took.</param>
    /// <param name="talkSeconds">The talk, which takes the same for every cohort.</param>
    /// <returns>To a tenth: a plan is not overturned by less.</returns>
    public static decimal Of(IEnumerable<(int Reckoned, int Took)> taught, int talkSeconds)
    {
        var pace = taught
            .Where(lesson => lesson.Reckoned > talkSeconds)
            .Aggregate(
                1m,
                (pace, lesson) =>
                    (pace * (1 - Smoothing))
                    + (
                        Smoothing
                        * Math.Clamp(
                            Math.Max(0, lesson.Took - talkSeconds) / (decimal)(lesson.Reckoned - talkSeconds),
                            Least,
                            Most
                        )
                    )
            );
        return decimal.Round(Math.Clamp(pace, Least, Most), 1);
    }
}
