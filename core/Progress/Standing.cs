using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>One student on one posture and side, computed from the facts.</summary>
/// <param name="Fading">Long untouched: the stage stays, a refresh is due.</param>
/// <param name="Touched">The last lesson or observation that touched it.</param>
/// <param name="TakenOver">Whether the stage is what they came with: nobody here has seen it.</param>
public sealed record Standing(
    Stage Stage,
    bool Fading,
    DateOnly? Touched,
    IReadOnlyList<Correction> Corrections,
    bool TakenOver = false
)
{
    public const int FadingWeeks = 6;
    public const int FadingWeeksWhenSettled = 12;
    public const int ObservationsToSettle = 3;
    public const int WeeksToSettle = 3;

    public static readonly Standing NotMet = new(Stage.NotMet, false, null, []);

    private static readonly Dictionary<Stage, Standing> Entered = new[] { Stage.Shown, Stage.Alone }.ToDictionary(
        stage => stage,
        stage => NotMet with { Stage = stage, TakenOver = true }
    );

    /// <summary>Of somebody who came with it, while nothing has happened to it here.</summary>
    /// <param name="stage">Not met, shown or alone.</param>
    public static Standing On(Stage stage) => Entered.GetValueOrDefault(stage, NotMet);

    /// <summary>A key point is open.</summary>
    public bool IsDueASecondLook =>
        Corrections.Any(correction => correction is { IsOpen: true, Weight: Weight.KeyPoint });

    /// <summary>The heaviest correction that is not cleared.</summary>
    public Weight? OpenWeight =>
        Corrections.Where(correction => correction.IsOpen).Max(correction => (Weight?)correction.Weight);

    /// <param name="shown">Lessons in which it was taught and the student was there.</param>
    /// <param name="observations">Of this student on this posture and side, none withdrawn.</param>
    /// <param name="entered">What they came with: it holds until a stage has been observed.</param>
    /// <param name="tried">What was done about its corrections.</param>
    /// <param name="usual">The mode they take part in: what was shown in a more adapted one is no stage in it.</param>
    public static Standing Of(
        IReadOnlyCollection<DateOnly> shown,
        IEnumerable<Observation> observations,
        DateOnly today,
        Stage entered = Stage.NotMet,
        IReadOnlyCollection<WayTried>? tried = null,
        Mode? usual = null
    )
    {
        var seen = UpTo(today, observations);
        if (seen.Count == 0 && shown.Count == 0)
        {
            return On(entered);
        }

        var corrections = Correction.From(seen, today, tried ?? []);
        var stages = Stages(seen, usual);
        var takenOver = entered > Stage.Shown && stages.Count == 0;
        var stage = takenOver ? entered : StageOf(stages, () => corrections);
        var touched = shown.Concat(seen.Select(observation => observation.Date)).Max();
        var fadesAfter = 7 * (stage == Stage.Settled ? FadingWeeksWhenSettled : FadingWeeks);
        return new(stage, today.DayNumber - touched.DayNumber > fadesAfter, touched, corrections, takenOver);
    }

    /// <summary>The stage alone of somebody who has met it, on a day: most of the time no correction has to be judged for
    /// that.</summary>
    public static Stage StageOn(
        DateOnly day,
        IEnumerable<Observation> observations,
        Stage entered = Stage.NotMet,
        Mode? usual = null
    )
    {
        var seen = UpTo(day, observations);
        var stages = Stages(seen, usual);
        return entered > Stage.Shown && stages.Count == 0
            ? entered
            : StageOf(stages, () => Correction.From(seen, day, []));
    }

    private static List<Observation> UpTo(DateOnly day, IEnumerable<Observation> observations)
    {
        List<Observation> seen = [.. observations.Where(observation => observation.Date <= day)];
        seen.Sort(InTime);
        return seen;
    }

    private static List<Observation> Stages(List<Observation> seen, Mode? usual) =>
        seen.FindAll(observation =>
            observation.Sign == Sign.Stage && CountsIn(usual ?? Mode.Standing, observation.Mode)
        );

    private static int InTime(Observation observation, Observation other) =>
        observation.Date != other.Date
            ? observation.Date.CompareTo(other.Date)
            : (observation.At, observation.Id).CompareTo((other.At, other.Id));

    /// <summary>A stage shown in a more adapted mode does not count for a less adapted one (domain.md 4.5).</summary>
    private static bool CountsIn(Mode usual, Mode? seen) => seen is not { } mode || mode.Adapted <= usual.Adapted;

    /// <param name="stages">What was seen, oldest first.</param>
    /// <param name="corrections">Asked for where it hangs on them.</param>
    private static Stage StageOf(List<Observation> stages, Func<IReadOnlyList<Correction>> corrections)
    {
        if (stages.Count == 0)
        {
            return Stage.Shown;
        }

        // However somebody does it on a bad day: only a fault takes back what is settled.
        var days = stages.Where(seen => seen.Stage >= Stage.Alone).Select(seen => seen.Date).Distinct().ToList();
        var settled =
            days.Count >= ObservationsToSettle
            && days[^1].DayNumber - days[0].DayNumber >= 7 * WeeksToSettle
            && !corrections().Any(correction => correction is { IsOpen: true, Weight: Weight.KeyPoint });
        return settled ? Stage.Settled : stages[^1].Stage!.Value;
    }
}

/// <summary>Where a correction stands (domain.md 4.5).</summary>
public enum CorrectionState
{
    Open,
    Easing,
    Cleared,
    Back,
}

/// <summary>One time a correction was open.</summary>
/// <param name="Cleared">Null while it is open.</param>
/// <param name="Seen">How often the fault was seen then.</param>
public sealed record Episode(DateOnly Opened, DateOnly? Cleared, int Seen)
{
    /// <summary>Open on some day of a stretch.</summary>
    public bool IsWithin(DateOnly from, DateOnly until) => Opened <= until && (Cleared is null || Cleared >= from);
}

/// <summary>A fault of one student on one posture and side, from the day it was first seen.</summary>
/// <param name="Since">When it was opened, or came back.</param>
/// <param name="TimesSeen">Since then.</param>
/// <param name="Stuck">Open for 6 weeks or seen 4 times: propose another way.</param>
public sealed record Correction(
    string Key,
    Guid? FaultId,
    string Words,
    Weight Weight,
    CorrectionState State,
    DateOnly Since,
    DateOnly LastSeen,
    int TimesSeen,
    bool Stuck
)
{
    public const int StuckWeeks = 6;
    public const int StuckTimes = 4;
    public const int CleanDaysToClear = 2;

    public bool IsOpen => State != CorrectionState.Cleared;

    /// <summary>How often, of <see cref="TimesSeen"/>, it was seen inside a run-through.</summary>
    public int InRunThroughs { get; init; }

    /// <summary>What the teachers did about it, oldest first.</summary>
    public IReadOnlyList<TriedWay> Tried { get; init; } = [];

    /// <summary>Each time it was open, oldest first.</summary>
    public IReadOnlyList<Episode> Episodes { get; init; } = [];

    /// <summary>What makes two faults one correction: the same principle, the same known fault, or the same own
    /// words.</summary>
    public static string KeyOf(Guid? faultId, string words, Guid? principleId = null) =>
        (principleId ?? faultId)?.ToString() ?? words.Trim().ToUpperInvariant();

    /// <param name="seen">All observations of one student on one posture and side, oldest first.</param>
    /// <param name="tried">What was done about any of them.</param>
    public static IReadOnlyList<Correction> From(
        IReadOnlyList<Observation> seen,
        DateOnly today,
        IReadOnlyCollection<WayTried> tried
    )
    {
        List<(Observation Observation, string Key)> keyed =
        [
            .. seen.Where(observation => observation.Sign != Sign.Stage)
                .Select(observation => (observation, observation.CorrectionKey)),
        ];
        return
        [
            .. keyed
                .Where(its => its.Observation.Sign == Sign.Fault)
                .Select(its => its.Key)
                .Distinct()
                .Select(key =>
                    Follow(key, keyed, today) with
                    {
                        Tried = tried.Count == 0 ? [] : TriedWay.Of(key, tried, seen, today),
                    }
                ),
        ];
    }

    /// <param name="seen">But for stages, which neither open a correction nor clear it; each with its key.</param>
    private static Correction Follow(string key, List<(Observation Observation, string Key)> seen, DateOnly today)
    {
        var (first, weight, state) = (default(Observation), Weight.Shape, CorrectionState.Cleared);
        var (since, lastSeen, times, inRunThroughs) = (default(DateOnly), default(DateOnly), 0, 0);
        List<Episode> episodes = [];
        List<DateOnly> cleanDays = [];
        foreach (var (observation, its) in seen)
        {
            var isOpen = state != CorrectionState.Cleared;
            if (observation.Sign == Sign.Fault && its == key)
            {
                if (!isOpen)
                {
                    (since, times, inRunThroughs) = (observation.Date, 0, 0);
                    state = first is null ? CorrectionState.Open : CorrectionState.Back;
                    episodes.Add(new(since, null, 0));
                }

                first ??= observation;
                state = state == CorrectionState.Back ? CorrectionState.Back : CorrectionState.Open;
                (lastSeen, times, weight) = (observation.Date, times + 1, observation.Weight ?? weight);
                inRunThroughs += observation.InRunThrough ? 1 : 0;
                episodes[^1] = episodes[^1] with { Seen = times };
                cleanDays.Clear();
            }
            else if (isOpen && (observation.Sign == Sign.Fine || (observation.Sign == Sign.Better && its == key)))
            {
                if (observation.Sign == Sign.Fine && !cleanDays.Contains(observation.Date))
                {
                    cleanDays.Add(observation.Date);
                }

                state = CorrectionState.Easing;
                if (cleanDays.Count >= CleanDaysToClear)
                {
                    state = CorrectionState.Cleared;
                    episodes[^1] = episodes[^1] with { Cleared = observation.Date };
                }
            }
        }

        return new(
            key,
            first!.FaultId,
            first.Words,
            weight,
            state,
            since,
            lastSeen,
            times,
            Stuck: state != CorrectionState.Cleared
                && (times >= StuckTimes || today.DayNumber - since.DayNumber >= 7 * StuckWeeks)
        )
        {
            InRunThroughs = inRunThroughs,
            Episodes = episodes,
        };
    }
}
