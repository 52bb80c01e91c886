using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Server.School;

/// <summary>The numbers everything is reckoned with, as core has them, in sentences; no page repeats them.</summary>
internal static class RulesEndpoint
{
    public sealed record Rule(string Name, string Value);

    /// <param name="SmoothSeconds">A count of a run-through.</param>
    /// <param name="ReachMetres">The room one person's arms need all round.</param>
    /// <param name="UnseenDays">Whoever was not watched for longer is named.</param>
    /// <param name="BeginnersAttended">So many first lessons somebody is beside beginners.</param>
    public sealed record Response(
        IReadOnlyList<Rule> Rules,
        int SmoothSeconds,
        double ReachMetres,
        int UnseenDays,
        int BeginnersAttended
    );

    public static void Map(ByRank api) => api.Anyone.MapGet("/rules", () => TypedResults.Ok(All)).WithName("rules");

    private static readonly Response All = new(
        [
            new(
                "Reviews after an introduction",
                $"{Listed(ReviewCalendar.WeeksAfter)} weeks; {ReviewCalendar.ToleranceDays} days either way are free"
            ),
            new(
                "Warm-up and settling",
                $"{LessonSlot.WarmUpMinutes} and {LessonSlot.SettleMinutes} minutes of every lesson"
            ),
            new(
                "Own practice after something new",
                $"at least {CohortProblem.OwnPracticeAfterNewSeconds / 60} minutes"
            ),
            new(
                "Pace of a count",
                $"smooth {Pace.Smooth} s, cues only {Pace.CuesOnly}, explained {Pace.Explained}, faults shown {Pace.FaultsShown}"
            ),
            new(
                "Settled",
                $"alone or flowing on {Standing.ObservationsToSettle} days over at least {Standing.WeeksToSettle} weeks, no key point open"
            ),
            new(
                "Fading",
                $"untouched for {Standing.FadingWeeks} weeks, {Standing.FadingWeeksWhenSettled} when settled"
            ),
            new("Stuck correction", $"open for {Correction.StuckWeeks} weeks, or seen {Correction.StuckTimes} times"),
            new(
                "What helped",
                $"seen better within {TriedWay.WeeksToHelp} weeks; from {Helpful.FewestCases} cases on it is said how often"
            ),
            new("Habit", $"the same principle broken in {Habit.FewestPostures} postures or more"),
            new("Fair eyes", $"everybody who is there is watched at least once in {FairEyes.Lessons} lessons"),
            new(
                "Teach again",
                $"the same fault in at least {ReTeach.FewestPeople} people and {ReTeach.SmallestPercent} % of those watched"
            ),
            new(
                "A fault that comes back",
                $"in at least {FaultPattern.FewestOfAWave} people, again after {FaultPattern.QuietWeeks} weeks without anybody new"
            ),
            new("A correction nobody looks at", $"open, and not watched for {FaultPattern.WeeksUnlooked} weeks"),
            new(
                "At home",
                $"at most three things: one posture {HomePractice.MostMinutesOfOne} minutes, a run-through {HomePractice.MostMinutesOfRun}"
            ),
        ],
        Pace.Smooth,
        FloorNeed.ArmReach,
        ProgressBook.UnseenDays,
        CohortProblem.BeginnersAttended
    );

    private static string Listed(IReadOnlyList<int> numbers) =>
        $"{string.Join(", ", numbers.SkipLast(1))} and {numbers[^1]}";
}
