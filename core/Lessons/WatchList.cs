using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Lessons;

/// <summary>Why somebody is on the watch list.</summary>
public enum WatchReason
{
    LongUnseen,
    SecondLook,
    OneFromAlone,
}

/// <param name="Days">Days since last observed; null when never.</param>
public sealed record Watched(Guid StudentId, PostureSide Of, WatchReason Reason, int? Days);

/// <summary>Whom to look at in the coming lesson, and at what (domain.md 4.5): longest unseen first, then key points
/// due a second look, then those one observation from passing.</summary>
public static class WatchList
{
    /// <param name="lesson">What the lesson touches for each student; only that can be watched.</param>
    /// <param name="places">As many as the watch repetitions allow.</param>
    public static IReadOnlyList<Watched> Of(
        IReadOnlyDictionary<Guid, IReadOnlyList<PostureSide>> lesson,
        ProgressBook book,
        DateOnly today,
        int places
    ) =>
        [
            .. lesson
                .Where(student => student.Value.Count > 0)
                .Select(student => (Watched: Look(student.Key, student.Value, book, today), Student: student.Key))
                .Where(look => look.Watched is not null)
                .OrderBy(look => look.Watched!.Reason)
                .ThenByDescending(look => look.Watched!.Days ?? int.MaxValue)
                .ThenBy(look => look.Student)
                .Take(places)
                .Select(look => look.Watched!),
        ];

    private static Watched? Look(Guid student, IReadOnlyList<PostureSide> postures, ProgressBook book, DateOnly today)
    {
        var days = book.LastSeen(student) is { } date ? today.DayNumber - date.DayNumber : (int?)null;
        var keyPoint = postures
            .Where(of =>
                book.StandingOf(student, of)
                    .Corrections.Any(correction => correction is { IsOpen: true, Weight: Weight.KeyPoint })
            )
            .ToList();
        var follows = postures.Where(of => book.StandingOf(student, of).Stage == Stage.Follows).ToList();
        return ProgressBook.IsLongUnseen(days)
                ? new(student, keyPoint.Concat(follows).Concat(postures).First(), WatchReason.LongUnseen, days)
            : keyPoint.Count > 0 ? new(student, keyPoint[0], WatchReason.SecondLook, days)
            : follows.Count > 0 ? new(student, follows[0], WatchReason.OneFromAlone, days)
            : null;
    }
}
