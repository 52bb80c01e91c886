using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Progress;

/// <summary>Somebody who was away when something was introduced, and has not been seen to do it since (domain.md
/// 4.5).</summary>
/// <param name="ShownSince">They were there when it was taught again.</param>
public sealed record Missing(Guid StudentId, bool ShownSince);

/// <summary>Something that was introduced to a cohort while some of it were away: to be made up for. It ends by an
/// observation, not by a tick.</summary>
/// <param name="Away">Those for whom it is still open; what was observed since needs no making up.</param>
/// <param name="Absent">How many were away on the day.</param>
/// <param name="Cohort">How many the cohort had on the day, of those about whom something was said.</param>
public sealed record MissedIntroduction(
    Guid CohortId,
    UnitKey Of,
    DateOnly Date,
    IReadOnlyList<Missing> Away,
    int Absent,
    int Cohort
)
{
    /// <summary>If a third of the cohort was missing, it is better introduced again.</summary>
    private const int Third = 3;

    public bool Again => Away.Count(missing => !missing.ShownSince) * Third >= Cohort;

    /// <param name="lessons">Of one class.</param>
    /// <param name="attendance">The latest fact about each student in each lesson.</param>
    /// <returns>The latest lesson first; only where somebody still needs it.</returns>
    public static IReadOnlyList<MissedIntroduction> In(
        IEnumerable<LessonRecord> lessons,
        IReadOnlyDictionary<Guid, IReadOnlyList<Place>> placesOf,
        IReadOnlyCollection<Attendance> attendance,
        ProgressBook book
    )
    {
        var there = attendance.ToLookup(fact => (fact.ClassId, fact.Date));
        return
        [
            .. from lesson in lessons
            orderby lesson.Date descending
            let said = there[(lesson.ClassId, lesson.Date)].Where(fact => placesOf.ContainsKey(fact.StudentId)).ToList()
            from item in lesson.Taught
            where item.How == TaughtHow.Introduced
            let cohort = said.Where(fact => Place.On(placesOf[fact.StudentId], lesson.Date).Contains(item.CohortId))
                .ToList()
            let absent = cohort.Where(fact => !fact.Present).ToList()
            let away = absent
                .Select(fact => StillMissing(fact.StudentId, item.Key.AsWatched(), book))
                .OfType<Missing>()
                .ToList()
            where away.Count > 0
            select new MissedIntroduction(
                item.CohortId,
                item.Key.AsWatched(),
                lesson.Date,
                away,
                absent.Count,
                cohort.Count
            ),
        ];
    }

    private static Missing? StillMissing(Guid student, UnitKey of, ProgressBook book)
    {
        var standing = book.StandingOf(student, of);
        return standing is { Stage: >= Stage.Follows, TakenOver: false }
            ? null
            : new(student, standing is { Stage: Stage.Shown, TakenOver: false });
    }
}
