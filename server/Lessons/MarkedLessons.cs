using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Lessons;

/// <summary>The lessons of a term about which everything has been said that a register asks for.</summary>
internal static class MarkedLessons
{
    /// <summary>A lesson is marked once something has been said about what each cohort was taught for which something was
    /// planned; where nothing was planned, once anything has been said.</summary>
    public static async Task<HashSet<DateOnly>> LoadAsync(
        SchoolContext db,
        Term term,
        SchoolClass schoolClass,
        PlannedTerm? planned,
        CancellationToken cancel
    )
    {
        var said = (
            await db
                .TaughtFacts.Where(fact =>
                    fact.ClassId == schoolClass.Id && fact.Date >= term.Start && fact.Date <= term.End
                )
                .Select(fact => new { fact.Date, fact.CohortId })
                .Distinct()
                .ToListAsync(cancel)
        ).ToLookup(fact => fact.Date, fact => fact.CohortId);
        var cohorts = await db
            .Cohorts.Where(cohort => cohort.ClassId == schoolClass.Id)
            .Select(cohort => cohort.Id)
            .ToListAsync(cancel);
        return
        [
            .. from day in LessonCalendar.Of(term, schoolClass)
            where said.Contains(day.Date)
            let lesson = new Lesson(schoolClass, term, day, planned)
            let asked = cohorts.Where(cohort => RegisterEndpoints.PlannedFor(cohort, lesson).Any())
            where asked.All(said[day.Date].Contains)
            select day.Date,
        ];
    }
}
