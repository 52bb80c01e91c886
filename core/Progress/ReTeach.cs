using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>A fault that many in a cohort have open, proposed as a block of the next lesson (domain.md 4.5).</summary>
/// <param name="Observed">How many of the cohort were watched on this posture at all.</param>
public sealed record ReTeach(Guid CohortId, PostureSide Of, string Words, int Have, int Observed)
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
            select new ReTeach(cohortId, of, same.First().Words, same.Count(), observed),
        ];
}
