using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>The lesson an address names. Whoever teaches the class may have it.</summary>
internal sealed record AskedLesson(
    [FromRoute(Name = "classId")] Guid ClassId,
    [FromRoute(Name = "date")] DateOnly Date,
    SchoolContext Db,
    Actor Actor,
    SchoolClock Clock
) : IAsked
{
    private Lesson? lesson;
    private LessonPlan? plan;

    public Lesson Lesson => lesson ?? throw new InvalidOperationException("A lesson is opened before it is used.");

    public DateOnly Today { get; private set; }

    public async Task<ProblemHttpResult?> OpenAsync(CancellationToken cancel)
    {
        if (await Db.Classes.AsNoTracking().SingleOrDefaultAsync(its => its.Id == ClassId, cancel) is not { } its)
        {
            return Refusals.NotFound("This class");
        }

        Today = await Clock.TodayAsync(cancel);
        if (!Actor.Teaches(its, Today))
        {
            return Refusals.NotYours();
        }

        var term = await Db
            .Terms.AsNoTracking()
            .SingleOrDefaultAsync(term => term.Start <= Date && term.End >= Date, cancel);
        if (term is null)
        {
            return Refusals.NotFound($"A lesson on {Date:yyyy-MM-dd}, outside every term,");
        }

        if (LessonCalendar.Of(term, its).SingleOrDefault(day => day.Date == Date) is not { Closed: null } day)
        {
            return Refusals.NotFound($"A lesson of {its.Name} on {Date:yyyy-MM-dd}");
        }

        lesson = new(its, term, day);
        return null;
    }

    /// <summary>The moment a fact is kept with: when it was seen, by a device that had no network then. No moment that has
    /// not come yet, and none before the lesson's day; a clock that says so is not believed.</summary>
    public DateTimeOffset SaidAt(DateTimeOffset? seen) =>
        seen is { } at && at <= Clock.Now && at >= new DateTimeOffset(Date.AddDays(-1), default, TimeSpan.Zero)
            ? at.ToUniversalTime()
            : Clock.Now;

    /// <summary>Read once, however many ask for it.</summary>
    public async Task<LessonPlan> PlanAsync(CancellationToken cancel) =>
        plan ??= await LessonPlan.InForceAsync(Db, Lesson, Today, cancel);
}
