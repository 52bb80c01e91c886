using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;

namespace Zeitplan.Server.Lessons;

/// <summary>The term that is running or next, with the classes whoever asks may see.</summary>
/// <param name="Plans">What is announced, by class.</param>
/// <param name="Marked">The dates of what <see cref="MarkedLessons"/> calls marked, by class.</param>
internal sealed record RunningTerm(
    Term Term,
    IReadOnlyList<SchoolClass> Classes,
    IReadOnlyDictionary<Guid, PlannedTerm> Plans,
    TermClasses Taught,
    ILookup<Guid, DateOnly> Marked
)
{
    /// <returns>Null where no term is running or coming.</returns>
    public static async Task<RunningTerm?> LoadAsync(
        SchoolContext db,
        Actor actor,
        DateOnly today,
        CancellationToken cancel
    )
    {
        if (await CurrentTerm.FindAsync(db, today, cancel) is not { } term)
        {
            return null;
        }

        var classes = await actor.ClassesAsync(db, today, cancel);
        var plans = await PlanEndpoints.AnnouncedAsync(db, term.Id, [.. classes.Select(its => its.Id)], cancel);
        var taught = await TermClasses.LoadAsync(db, term, classes, cancel);
        return new(
            term,
            classes,
            plans,
            taught,
            await MarkedLessons.LoadAsync(db, term, classes, taught.Cohorts, plans, cancel)
        );
    }

    /// <summary>The lessons of a class nobody has marked, in order.</summary>
    public IEnumerable<LessonDay> Unmarked(SchoolClass schoolClass)
    {
        var marked = Marked[schoolClass.Id].ToHashSet();
        return LessonCalendar.Of(Term, schoolClass).Where(day => day.Closed is null && !marked.Contains(day.Date));
    }
}
