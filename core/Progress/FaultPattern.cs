using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>One person's correction, of all that have the same fault.</summary>
/// <param name="CohortId">Where they learned when it was first seen; null where that is not known.</param>
/// <param name="LastLooked">When somebody last watched them in this posture on this side, or link.</param>
public sealed record FaultCase(Guid StudentId, UnitKey Of, Guid? CohortId, Correction Correction, DateOnly LastLooked);

/// <summary>How many have a fault in a month.</summary>
/// <param name="Open">People with it open on some day of the month.</param>
/// <param name="New">Of those, in whom it was first seen, or seen again after it was cleared.</param>
public readonly record struct FaultMonth(int Open, int New);

/// <summary>
/// One fault over the years, whoever had it: how long and how often it has been taught against, when it comes, where it
/// sits (domain.md 1, "the same fault is taught against for years; nobody counts").
/// </summary>
/// <param name="PostureId">Both sides are one posture.</param>
/// <param name="FromId">Of a link, the posture it leads on from.</param>
/// <param name="Words">As it was last said.</param>
/// <param name="Cases">By when they were first seen; never by whose they are.</param>
public sealed record FaultPattern(
    Guid PostureId,
    Guid? FromId,
    Guid? FaultId,
    string Words,
    Weight Weight,
    IReadOnlyList<FaultCase> Cases
)
{
    /// <summary>So many weeks without a new case lie between two waves.</summary>
    public const int QuietWeeks = 8;

    /// <summary>So many people make a wave.</summary>
    public const int FewestOfAWave = 2;

    /// <summary>So many people before anything is said of where it sits, or of what mended it.</summary>
    public const int FewestPeople = 3;
    public const int PercentOfOneCohort = 80;

    /// <summary>An open correction nobody has looked at for so long.</summary>
    public const int WeeksUnlooked = 6;

    /// <summary>How far back cases count that a change could have mended.</summary>
    public const int WeeksBeforeAChange = 26;

    private IEnumerable<Episode> Episodes => Cases.SelectMany(one => one.Correction.Episodes);

    public int People => Cases.Select(one => one.StudentId).Distinct().Count();

    public int OpenNow => Cases.Where(one => one.Correction.IsOpen).Select(one => one.StudentId).Distinct().Count();

    /// <summary>How often it was seen, and so called.</summary>
    public int Called => Episodes.Sum(episode => episode.Seen);

    /// <summary>How often something was done about it.</summary>
    public int Tried => Cases.Sum(one => one.Correction.Tried.Count);

    /// <summary>Weeks in which somebody had it open.</summary>
    public int WeeksOpen(DateOnly today)
    {
        var (weeks, counted) = (0, int.MinValue);
        foreach (var episode in Episodes.OrderBy(episode => episode.Opened))
        {
            var (first, last) = (episode.Opened.DayNumber / 7, (episode.Cleared ?? today).DayNumber / 7);
            weeks += Math.Max(0, last - Math.Max(first - 1, counted));
            counted = Math.Max(counted, last);
        }

        return weeks;
    }

    /// <param name="months">The first day of each.</param>
    public IReadOnlyList<FaultMonth> In(IReadOnlyList<DateOnly> months)
    {
        List<DateOnly> lastDays = [.. months.Select(first => first.AddMonths(1).AddDays(-1))];
        var counted = new FaultMonth[months.Count];
        foreach (var person in Cases.GroupBy(one => one.StudentId))
        {
            var (isOpen, isNew) = (new bool[counted.Length], new bool[counted.Length]);
            foreach (var episode in person.SelectMany(one => one.Correction.Episodes))
            {
                for (var at = 0; at < counted.Length; at++)
                {
                    isOpen[at] |= episode.IsWithin(months[at], lastDays[at]);
                    isNew[at] |= episode.Opened >= months[at] && episode.Opened <= lastDays[at];
                }
            }

            for (var at = 0; at < counted.Length; at++)
            {
                var (open, opened) = counted[at];
                counted[at] = new(open + (isOpen[at] ? 1 : 0), opened + (isNew[at] ? 1 : 0));
            }
        }

        return counted;
    }

    /// <summary>When it came, each time in several people after a quiet time; one wave or none is no coming back.</summary>
    public IReadOnlyList<DateOnly> Waves()
    {
        List<DateOnly> waves = [];
        List<(DateOnly Opened, Guid Student)> wave = [];
        foreach (
            var opened in Cases
                .SelectMany(one => one.Correction.Episodes.Select(episode => (episode.Opened, one.StudentId)))
                .OrderBy(one => one.Opened)
        )
        {
            if (wave.Count > 0 && opened.Opened.DayNumber - wave[^1].Opened.DayNumber > 7 * QuietWeeks)
            {
                Close();
            }

            wave.Add(opened);
        }

        Close();
        return waves.Count > 1 ? waves : [];

        void Close()
        {
            if (wave.Select(one => one.Student).Distinct().Count() >= FewestOfAWave)
            {
                waves.Add(wave[0].Opened);
            }

            wave.Clear();
        }
    }

    /// <summary>Whether two waves of different years came at the same time of the year, give or take a month.</summary>
    public static bool SameSeason(IReadOnlyList<DateOnly> waves) =>
        waves.Any(one =>
            waves.Any(other => other.DayNumber - one.DayNumber > 183 && Apart(one.Month, other.Month) <= 1)
        );

    private static int Apart(int month, int other)
    {
        var apart = Math.Abs(month - other);
        return Math.Min(apart, 12 - apart);
    }

    /// <summary>The change of how the school does the posture after which nobody new had it, though several had before.</summary>
    /// <param name="changes">When the school changed how it does it.</param>
    public DateOnly? MendedBy(IEnumerable<DateOnly> changes, DateOnly today)
    {
        var opened = Cases
            .SelectMany(one => one.Correction.Episodes.Select(episode => (episode.Opened, one.StudentId)))
            .ToList();
        return changes
            .Order()
            .Where(change =>
                today.DayNumber - change.DayNumber >= 7 * QuietWeeks
                && opened.TrueForAll(one => one.Opened < change)
                && opened
                    .Where(one => change.DayNumber - one.Opened.DayNumber <= 7 * WeeksBeforeAChange)
                    .Select(one => one.StudentId)
                    .Distinct()
                    .Count() >= FewestPeople
            )
            .Select(change => (DateOnly?)change)
            .FirstOrDefault();
    }

    /// <summary>The cohort it sits in, where another one works on the posture too and has been spared.</summary>
    /// <param name="watched">The cohorts in which somebody was watched in the posture.</param>
    public Guid? OnlyIn(IReadOnlySet<Guid> watched)
    {
        if (People < FewestPeople || watched.Count < 2)
        {
            return null;
        }

        var most = Cases
            .Where(one => one.CohortId is not null)
            .GroupBy(one => one.CohortId!.Value)
            .Select(of => (Cohort: of.Key, People: of.Select(one => one.StudentId).Distinct().Count()))
            .OrderByDescending(of => of.People)
            .FirstOrDefault();
        return most.People * 100 >= People * PercentOfOneCohort ? most.Cohort : null;
    }

    /// <summary>In whom it is open and has not been looked at for weeks; empty where that is nobody.</summary>
    public IReadOnlyList<FaultCase> Unlooked(DateOnly today) =>
        [
            .. Cases.Where(one =>
                one.Correction.IsOpen && today.DayNumber - one.LastLooked.DayNumber > 7 * WeeksUnlooked
            ),
        ];

    /// <param name="cases">All corrections of everybody, cleared ones too.</param>
    /// <returns>What has been taught against for longest first.</returns>
    public static IReadOnlyList<FaultPattern> Of(IEnumerable<FaultCase> cases, DateOnly today) =>
        [
            .. cases
                .GroupBy(one => (one.Of.PostureId, one.Of.FromPostureId, one.Correction.Key))
                .Select(same =>
                    (
                        same.Key,
                        Cases: same.OrderBy(one => one.Correction.Episodes[0].Opened)
                            .ThenBy(one => one.StudentId)
                            .ToList()
                    )
                )
                .Select(same =>
                {
                    var latest = same.Cases.MaxBy(one => (one.Correction.LastSeen, one.StudentId))!.Correction;
                    return new FaultPattern(
                        same.Key.PostureId,
                        same.Key.FromPostureId,
                        latest.FaultId,
                        latest.Words,
                        latest.Weight,
                        same.Cases
                    );
                })
                .OrderByDescending(pattern => pattern.WeeksOpen(today))
                .ThenByDescending(pattern => pattern.Called)
                .ThenBy(pattern => pattern.PostureId)
                .ThenBy(pattern => pattern.Words, StringComparer.Ordinal),
        ];
}
