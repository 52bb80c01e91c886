using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Lessons;

/// <summary>Why somebody is looked at; what comes first is more urgent.</summary>
public enum WatchReason
{
    LongUnseen,

    /// <summary>There in the last lesson, and seen by nobody.</summary>
    Overlooked,
    SecondLook,
    OneFromAlone,

    /// <summary>A look is left over.</summary>
    InTurn,
}

/// <param name="Days">Days since last observed; null when never.</param>
public sealed record Watched(Guid StudentId, PostureSide Of, WatchReason Reason, int? Days)
{
    public bool IsDue => Reason != WatchReason.InTurn;
}

/// <summary>Somebody a lesson can look at.</summary>
/// <param name="Does">What they do in it; never what they leave out.</param>
/// <param name="Overlooked">They were there in their last lesson, and nobody saw them.</param>
public sealed record Watchable(Guid StudentId, Guid CohortId, IReadOnlyList<PostureSide> Does, bool Overlooked);

/// <summary>Whom to look at in the coming lesson, and at what (domain.md 4.5): longest unseen first, whoever was
/// overlooked last time among them, then key points due a second look, then those one observation from passing.</summary>
public static class WatchList
{
    /// <summary>Everybody who does anything in the lesson, the most urgent first.</summary>
    public static IReadOnlyList<Watched> Of(IEnumerable<Watchable> people, ProgressBook book, DateOnly today) =>
        [
            .. people
                .Where(student => student.Does.Count > 0)
                .Select(student => Look(student, student.Does, book, today))
                .OrderBy(look => look.Reason)
                .ThenByDescending(look => look.Days ?? int.MaxValue)
                .ThenBy(look => look.StudentId),
        ];

    /// <param name="postures">What they can be watched in; at least one.</param>
    internal static Watched Look(
        Watchable student,
        IReadOnlyList<PostureSide> postures,
        ProgressBook book,
        DateOnly today
    )
    {
        var days = book.LastSeen(student.StudentId) is { } date ? today.DayNumber - date.DayNumber : (int?)null;
        var secondLook = First(standing => standing.IsDueASecondLook);
        var breaksAPrinciple = book.AgainstPrinciples(student.StudentId)
            .Any(its => its.Correction is { IsOpen: true, Weight: Weight.KeyPoint });
        var oneFromAlone = First(standing => standing.Stage == Stage.Follows);
        return new(
            student.StudentId,
            secondLook ?? oneFromAlone ?? postures[0],
            ProgressBook.IsLongUnseen(days) ? WatchReason.LongUnseen
                : student.Overlooked ? WatchReason.Overlooked
                : secondLook is not null || breaksAPrinciple ? WatchReason.SecondLook
                : oneFromAlone is not null ? WatchReason.OneFromAlone
                : WatchReason.InTurn,
            days
        );

        PostureSide? First(Func<Standing, bool> asks) =>
            postures
                .Where(of => asks(book.StandingOf(student.StudentId, of)))
                .Select(of => (PostureSide?)of)
                .FirstOrDefault();
    }
}
