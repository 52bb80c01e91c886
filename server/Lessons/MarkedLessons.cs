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
    /// <param name="plans">Of each class that has one.</param>
    /// <returns>The dates, by class.</returns>
    public static async Task<ILookup<Guid, DateOnly>> LoadAsync(
        SchoolContext db,
        Term term,
        IReadOnlyCollection<SchoolClass> classes,
        IReadOnlyCollection<Cohort> cohorts,
        IReadOnlyDictionary<Guid, PlannedTerm> plans,
        CancellationToken cancel
    )
    {
        var ids = classes.Select(its => its.Id).ToList();
        var said = (
            await db
                .TaughtFacts.Where(fact =>
                    ids.Contains(fact.ClassId) && fact.Date >= term.Start && fact.Date <= term.End
                )
                .Select(fact => new
                {
                    fact.ClassId,
                    fact.Date,
                    fact.CohortId,
                })
                .Distinct()
                .ToListAsync(cancel)
        ).ToLookup(fact => (fact.ClassId, fact.Date), fact => fact.CohortId);
        var marked =
            from its in classes
            from day in LessonCalendar.Of(term, its)
            let about = said[(its.Id, day.Date)].ToHashSet()
            where about.Count > 0
            let plan = new LessonPlan(plans.GetValueOrDefault(its.Id), day.Date)
            let asked = cohorts.Where(cohort => cohort.ClassId == its.Id && plan.For(cohort.Id).Any())
            where asked.All(cohort => about.Contains(cohort.Id))
            select (its.Id, day.Date);
        return marked.ToLookup(lesson => lesson.Id, lesson => lesson.Date);
    }
}
