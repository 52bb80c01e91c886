using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>A fault that many in a cohort have open, proposed as a block of the next lesson (domain.md 4.5).</summary>
/// <param name="FaultId">Null where it is in own words.</param>
/// <param name="Observed">How many of the cohort were watched on this posture at all.</param>
public sealed record ReTeach(Guid CohortId, PostureSide Of, Guid? FaultId, string Words, int Have, int Observed)
{
    public const int FewestPeople = 3;
    public const int SmallestPercent = 40;

    /// <summary>At least 3 people, and at least 40 % of those observed, have the same fault open.</summary>
    public static IReadOnlyList<ReTeach> Propose(
        Guid cohortId,
        IReadOnlyCollection<Guid> students,
        IEnumerable<PostureSide> postures,
        ProgressBook book
    ) =>
        [
            .. from of in postures.Distinct()
            let standings = students.Select(student => book.StandingOf(student, of)).ToList()
            let observed = standings.Count(standing =>
                standing is { Stage: >= Stage.Follows, TakenOver: false } || standing.Corrections.Count > 0
            )
            from same in standings
                .SelectMany(standing => standing.Corrections.Where(correction => correction.IsOpen))
                .GroupBy(correction => correction.Key)
            where same.Count() >= FewestPeople && same.Count() * 100 >= observed * SmallestPercent
            orderby same.Count() descending
            select new ReTeach(cohortId, of, same.First().FaultId, same.First().Words, same.Count(), observed),
        ];
}

/// <summary>How a fault that many share is taught again: not once more as it was brought in.</summary>
/// <param name="Pattern">Its passes are the block's.</param>
/// <param name="Words">What is done otherwise; empty where nothing is known.</param>
public sealed record AgainWay(TeachingPattern Pattern, string Words)
{
    /// <summary>What has helped with it most in this school, or else another way the posture is known to be taught, or else
    /// what mends its first cause.</summary>
    /// <param name="helpful">The most helpful first; only what may be claimed.</param>
    public static AgainWay Of(TeachingPattern pattern, Fault? fault, IReadOnlyList<Helpful> helpful) =>
        new(
            pattern,
            (helpful.FirstOrDefault(way => way.Helped > 0), fault) switch
            {
                ({ } best, _) => $"{best.Way.Said()}, which eased {best.Helped} of {best.Tried} within three weeks",
                (_, { OtherWays.Count: > 0 }) => string.Join("; ", fault.OtherWays),
                (_, { Causes: [var first, ..] }) => first.Mend,
                _ => "",
            }
        );

    /// <summary>As a sheet says it.</summary>
    public string Says => Words.Length > 0 ? $"{Pattern.Name}; {Words}" : Pattern.Name;
}

/// <summary>What became of a fault after it was taught again: did it help (domain.md 4.5)?</summary>
/// <param name="Had">So many had it open before.</param>
/// <param name="Better">Of those, seen better or clean since.</param>
/// <param name="Same">Seen again since, and no better; of the others nobody has looked.</param>
public sealed record TaughtAgain(string Words, int Had, int Better, int Same)
{
    /// <summary>Of those who held the old way, better is who was seen to do it the new one; nobody is the same before they
    /// have been looked at.</summary>
    /// <param name="changes">Of the posture.</param>
    /// <returns>Null where nobody held the old way.</returns>
    public static TaughtAgain? OfDifference(
        IEnumerable<Guid> students,
        PostureSide of,
        IReadOnlyList<StandardChange> changes,
        (ProgressBook Book, DateOnly Date) before,
        (ProgressBook Book, DateOnly Date) now
    )
    {
        var old = students
            .Select(student => (student, Old: Relearning.Of(student, of, changes, before.Book, before.Date)))
            .Where(its => its.Old is not null)
            .ToList();
        return old.Count == 0
            ? null
            : new(
                old.MaxBy(its => its.Old!.Changes.Count).Old!.Difference,
                old.Count,
                old.Count(its => Relearning.Of(its.student, of, changes, now.Book, now.Date) is null),
                0
            );
    }

    /// <param name="before">What was known on the eve of the lesson.</param>
    /// <param name="now">What is known today.</param>
    /// <returns>Null where nobody had anything open.</returns>
    public static TaughtAgain? Of(
        IEnumerable<Guid> students,
        PostureSide of,
        DateOnly date,
        ProgressBook before,
        ProgressBook now
    )
    {
        var shared = students
            .SelectMany(student =>
                before
                    .StandingOf(student, of)
                    .Corrections.Where(correction => correction.IsOpen)
                    .Select(correction => (Student: student, Correction: correction))
            )
            .GroupBy(its => its.Correction.Key)
            .OrderByDescending(same => same.Count())
            .ThenBy(same => same.Key, StringComparer.Ordinal)
            .FirstOrDefault();
        if (shared is null)
        {
            return null;
        }

        var since = shared
            .Select(its =>
                now.StandingOf(its.Student, of).Corrections.FirstOrDefault(correction => correction.Key == shared.Key)
            )
            .OfType<Correction>()
            .ToList();
        var better = since.Count(correction =>
            correction.State == CorrectionState.Easing
            || correction.Episodes.Any(episode => episode.Opened < date && episode.Cleared >= date)
        );
        return new(
            shared.First().Correction.Words,
            shared.Count(),
            better,
            since.Count(correction =>
                correction.State != CorrectionState.Easing
                && correction.Episodes[^1].Opened < date
                && correction is { IsOpen: true }
                && correction.LastSeen > date
            )
        );
    }
}
