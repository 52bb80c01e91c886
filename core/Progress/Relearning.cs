using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>
/// Somebody learned a posture before the school changed how it is done, and nobody has seen them do it the new way: only
/// the difference is taught (domain.md 4.1).
/// </summary>
/// <param name="Changes">What they have not been seen to do, the oldest first.</param>
/// <param name="ShownSince">They were there when it was taught after the last of these changes; a run-through tells
/// nobody.</param>
public sealed record Relearning(IReadOnlyList<StandardChange> Changes, bool ShownSince)
{
    public DateOnly Since => Changes[0].From;

    /// <summary>Only the difference, as it is taught.</summary>
    public string Difference => string.Join("; ", Changes.Select(change => change.Difference));

    /// <param name="changes">Of the posture, whenever they are in force.</param>
    /// <returns>Null for whoever learned it as it is done now, has been seen to do it so, or came with it and was seen by nobody
    /// here.</returns>
    public static Relearning? Of(
        Guid student,
        PostureSide of,
        IReadOnlyList<StandardChange> changes,
        ProgressBook book,
        DateOnly today
    )
    {
        if (changes.Count == 0 || book.FirstMet(student, of) is not { } met)
        {
            return null;
        }

        var done = book.LastDone(student, of) ?? met;
        List<StandardChange> left =
        [
            .. changes
                .Where(change => change.From <= today && change.From > met && change.From > done)
                .OrderBy(change => change.From),
        ];
        return left.Count == 0 ? null : new(left, book.LastTaught(student, of) >= left[^1].From);
    }
}

/// <summary>A change of how a posture is done that some of a cohort have not been taught: proposed as a block of the next
/// lesson.</summary>
/// <param name="Have">How many hold the old way and were not there when the new one was taught.</param>
/// <param name="Met">How many of the cohort have met the posture at all.</param>
public sealed record TeachTheDifference(
    Guid CohortId,
    PostureSide Of,
    DateOnly Since,
    string Difference,
    int Have,
    int Met
)
{
    /// <summary>A difference is told and tried once at least.</summary>
    private const int LeastMinutes = 2;

    /// <summary>Half a review of the whole posture, in whole minutes.</summary>
    public static Seconds Takes(Seconds review) => new(60 * Math.Max(LeastMinutes, (((review + 59) / 60) + 1) / 2));

    /// <param name="changesOf">How the school has changed a posture.</param>
    /// <returns>What most people need first.</returns>
    public static IReadOnlyList<TeachTheDifference> Propose(
        Guid cohortId,
        IReadOnlyCollection<Guid> students,
        IEnumerable<PostureSide> postures,
        Func<Guid, IReadOnlyList<StandardChange>> changesOf,
        ProgressBook book,
        DateOnly today
    ) =>
        [
            .. from of in postures.Distinct()
            let changes = changesOf(of.PostureId)
            where changes.Count > 0
            let met = students.Where(student => book.FirstMet(student, of) is not null).ToList()
            let old = met.Select(student => Relearning.Of(student, of, changes, book, today))
                .OfType<Relearning>()
                .Where(relearning => !relearning.ShownSince)
                .ToList()
            where old.Count > 0
            // Whoever lacks most is told all of it.
            let most = old.MaxBy(relearning => relearning.Changes.Count)
            orderby old.Count descending, most.Since, of.PostureId, of.Side
            select new TeachTheDifference(cohortId, of, most.Since, most.Difference, old.Count, met.Count),
        ];
}
