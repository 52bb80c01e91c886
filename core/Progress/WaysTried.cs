using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>What a teacher can do about a correction besides saying it again (domain.md 4.5).</summary>
public enum Way
{
    AnotherView,
    FeetOnly,
    AtTheWall,
    Image,
    SlowerDrill,
    EasierMode,
    WithAPartner,
}

/// <summary>Ways as they are said.</summary>
public static class Ways
{
    public static string Said(this Way way) =>
        way switch
        {
            Way.AnotherView => "from another view",
            Way.FeetOnly => "feet only",
            Way.AtTheWall => "at the wall",
            Way.Image => "with an image",
            Way.SlowerDrill => "as a slower drill",
            Way.EasierMode => "in an easier mode",
            _ => "with a partner",
        };
}

/// <summary>
/// What a teacher did about a correction. A later fact about the same student, correction, way, cause and day takes the
/// place of an earlier one; none is deleted.
/// </summary>
/// <param name="FaultId">Of the correction; with <paramref name="Words"/> it names it.</param>
/// <param name="Cause">The cause it was meant for, as it read on the day; empty where nobody said.</param>
/// <param name="Done">False takes it back.</param>
public sealed record WayTried(
    Guid Id,
    Guid ClassId,
    DateOnly Date,
    Guid StudentId,
    Guid PostureId,
    Side Side,
    Guid? FaultId,
    string Words,
    Way Way,
    string Cause,
    bool Done,
    Guid By,
    DateTimeOffset At
) : IFact<WayTried>
{
    /// <summary>With a link, the posture it leads on from.</summary>
    public Guid? FromId { get; init; }
    public Side? FromSide { get; init; }

    /// <summary>The principle the correction is against, where it is against one; the posture is then where it was
    /// tried.</summary>
    public Guid? PrincipleId { get; init; }

    public UnitKey Key => Observation.KeyOf(PostureId, Side, FromId, FromSide);

    public string CorrectionKey => Correction.KeyOf(FaultId, Words, PrincipleId);

    /// <inheritdoc/>
    public bool SaysTheSame(WayTried other) => this with { By = other.By, At = other.At } == other;

    public IEnumerable<Problem> Check(string path) =>
        [
            .. Problem.WithText(Words, $"{path}.words", Problem.LongestText, "correction it was for"),
            .. Cause.Length == 0 ? [] : Problem.WithText(Cause, $"{path}.cause", Problem.LongestText, "cause"),
        ];
}

/// <summary>A way that was tried, and whether it helped.</summary>
/// <param name="Helped">Null while nobody has looked since, or it is too early to say.</param>
public sealed record TriedWay(Way Way, string Cause, DateOnly Date, bool? Helped)
{
    /// <summary>A way helped when the correction eased or cleared within three weeks (domain.md 4.5).</summary>
    public const int WeeksToHelp = 3;

    /// <param name="key">Of the correction.</param>
    /// <param name="tried">About this student and posture; other corrections are among them.</param>
    /// <param name="seen">All observations of the student on the posture, oldest first.</param>
    public static IReadOnlyList<TriedWay> Of(
        string key,
        IReadOnlyCollection<WayTried> tried,
        IReadOnlyList<Observation> seen,
        DateOnly today
    ) =>
        [
            .. tried
                .Where(way => way.CorrectionKey == key && way.Date <= today)
                .GroupBy(way => (way.Way, way.Cause, way.Date))
                .Select(same => same.MaxBy(way => (way.At, way.Id))!)
                .Where(way => way.Done)
                .OrderBy(way => (way.Date, way.At, way.Id))
                .Select(way => new TriedWay(way.Way, way.Cause, way.Date, DidHelp(way, key, seen, today))),
        ];

    private static bool? DidHelp(WayTried way, string key, IReadOnlyList<Observation> seen, DateOnly today)
    {
        var until = way.Date.AddDays(7 * WeeksToHelp);
        var since = seen.Where(observation =>
                observation.Date <= until && (observation.Date, observation.At).CompareTo((way.Date, way.At)) > 0
            )
            .ToList();
        if (since.Exists(observation => observation.Sign == Sign.Fine || IsBetter(observation)))
        {
            return true;
        }

        return since.Count > 0 && today > until ? false : null;

        bool IsBetter(Observation observation) => observation.Sign == Sign.Better && observation.CorrectionKey == key;
    }
}

/// <summary>How often a way helped with a fault in this school.</summary>
public sealed record Helpful(Way Way, int Helped, int Tried)
{
    /// <summary>Below five cases nothing is claimed (domain.md 4.5).</summary>
    public const int FewestCases = 5;

    /// <param name="corrections">Of the same fault, of as many students as there are.</param>
    /// <returns>The most helpful first; only what may be claimed.</returns>
    public static IReadOnlyList<Helpful> Among(IEnumerable<Correction> corrections) =>
        [
            .. corrections
                .SelectMany(correction =>
                    correction.Tried.Where(way => way.Helped is not null).DistinctBy(way => (way.Way, way.Date))
                )
                .GroupBy(way => way.Way)
                .Select(ways => new Helpful(ways.Key, ways.Count(way => way.Helped == true), ways.Count()))
                .Where(way => way.Tried >= FewestCases)
                .OrderByDescending(way => (double)way.Helped / way.Tried)
                .ThenByDescending(way => way.Tried),
        ];
}

/// <summary>What could be tried next with a correction: a cause nobody has gone into yet, or another way.</summary>
/// <param name="Cause">With its mend; null for a way.</param>
/// <param name="Others">What is known of the way from others with the same fault; null where that is too little.</param>
public sealed record NextStep(Cause? Cause, Way? Way, Helpful? Others)
{
    /// <summary>Causes not yet addressed first, then ways not yet tried: first what has helped others.</summary>
    public static IReadOnlyList<NextStep> With(
        Correction correction,
        IEnumerable<Cause> causes,
        IReadOnlyList<Helpful> helpful
    )
    {
        var gone = correction.Tried.Select(way => way.Cause).ToHashSet();
        var tried = correction.Tried.Select(way => way.Way).ToHashSet();
        var known = helpful.ToDictionary(way => way.Way);
        var place = helpful.Where(way => way.Helped > 0).Select((way, at) => (way.Way, at)).ToDictionary();
        return
        [
            .. causes.Where(cause => !gone.Contains(cause.Why)).Select(cause => new NextStep(cause, null, null)),
            .. Enum.GetValues<Way>()
                .Where(way => !tried.Contains(way))
                .OrderBy(way => place.GetValueOrDefault(way, place.Count))
                .Select(way => new NextStep(null, way, known.GetValueOrDefault(way))),
        ];
    }
}
