using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>One meeting of a class on one date, found in its term.</summary>
internal sealed record Lesson(SchoolClass Class, Term Term, LessonDay Day, PlannedTerm? Planned)
{
    /// <summary>Index of this lesson in the plan; null when the plan does not know the date.</summary>
    public int? InPlan =>
        Planned
            ?.Problem.Lessons.Index()
            .Where(lesson => lesson.Item.Date == Day.Date)
            .Select(lesson => (int?)lesson.Index)
            .FirstOrDefault();

    /// <summary>The lesson, or why whoever asks cannot have it.</summary>
    public static async Task<(Lesson? Lesson, ProblemHttpResult? No)> FindAsync(
        Guid classId,
        DateOnly date,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Classes.AsNoTracking().SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } schoolClass)
        {
            return (null, Refusals.NotFound("This class"));
        }

        var today = await clock.TodayAsync(cancel);
        if (!actor.Teaches(schoolClass, today))
        {
            return (null, Refusals.NotYours());
        }

        if (
            await db.Terms.AsNoTracking().SingleOrDefaultAsync(t => t.Start <= date && t.End >= date, cancel)
            is not { } term
        )
        {
            return (null, Refusals.NotFound($"A lesson on {date:yyyy-MM-dd}, outside every term,"));
        }

        if (LessonCalendar.Of(term, schoolClass).SingleOrDefault(day => day.Date == date) is not { Closed: null } found)
        {
            return (null, Refusals.NotFound($"A lesson of {schoolClass.Name} on {date:yyyy-MM-dd}"));
        }

        // What was held is history: whatever is planned later, its page and its register stay.
        var planned =
            date <= today
                ? await PlanEndpoints.InForceOnAsync(db, term.Id, classId, date, cancel)
                : await PlanEndpoints.AnnouncedAsync(db, term.Id, classId, cancel);
        return (new(schoolClass, term, found, planned), null);
    }
}
