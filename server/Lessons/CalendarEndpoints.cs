using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>Lessons in calendars outside Zeitplan: as they were announced, those of the next days with who is led in what,
/// when.</summary>
internal static class CalendarEndpoints
{
    /// <summary>So many days ahead a lesson carries its outline; after that it may still change much.</summary>
    private const int Outlined = 14;

    public static void Map(ByRank api)
    {
        api.Stranger.MapGet("/calendars/{key}.ics", Feed)
            .ProducesProblem(404)
            .Produces<string>(200, "text/calendar")
            .WithName("calendarFeed");
        api.Anyone.MapGet("/classes/{classId:guid}/calendar.ics", OfClass)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .Produces<string>(200, "text/calendar")
            .WithName("classCalendar");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Feed(
        string key,
        SchoolContext db,
        SchoolClock clock,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (await db.CalendarLinks.AsNoTracking().SingleOrDefaultAsync(link => link.Key == key, cancel) is not { } link)
        {
            return Refusals.NotFound("This calendar");
        }

        var name = link.ClassId is { } classId
            ? await db
                .Classes.Where(schoolClass => schoolClass.Id == classId)
                .Select(schoolClass => schoolClass.Name)
                .SingleAsync(cancel)
            : await db
                .Staff.Where(member => member.Id == link.StaffId)
                .Select(member => member.Name)
                .SingleAsync(cancel);
        return await WriteAsync(name, link.ClassId, link.StaffId, db, clock, arrangements, cancel);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> OfClass(
        Guid classId,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (await db.Classes.AsNoTracking().SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } schoolClass)
        {
            return Refusals.NotFound("This class");
        }

        return actor.Teaches(schoolClass, await clock.TodayAsync(cancel))
            ? await WriteAsync(schoolClass.Name, classId, null, db, clock, arrangements, cancel)
            : Refusals.NotYours();
    }

    private static async Task<FileContentHttpResult> WriteAsync(
        string name,
        Guid? classId,
        Guid? staffId,
        SchoolContext db,
        SchoolClock clock,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        var classes = await db.Classes.AsNoTracking().ToDictionaryAsync(schoolClass => schoolClass.Id, cancel);
        var plans = await db
            .Plans.AsNoTracking()
            .Where(plan => plan.Number != null && (classId == null || plan.ClassId == classId))
            .OrderBy(plan => plan.Number)
            .Select(plan => new
            {
                plan.TermId,
                plan.ClassId,
                plan.Lessons,
                plan.AnnouncedAt,
            })
            .ToListAsync(cancel);
        var outlines = await OutlinesAsync(
            [
                .. classes.Values.Where(its =>
                    classId is null ? its.IsTaughtBy(staffId!.Value, default) : its.Id == classId
                ),
            ],
            db,
            await clock.TodayAsync(cancel),
            arrangements,
            cancel
        );
        var lessons = plans
            .GroupBy(plan => (plan.TermId, plan.ClassId))
            .SelectMany(same =>
                CalendarEntries
                    .Of(same.Key.ClassId, [.. same.Select(plan => plan.Lessons)])
                    .Select(entry => new CalendarFile.Lesson(
                        classes[same.Key.ClassId].Name,
                        entry,
                        same.Last().AnnouncedAt!.Value,
                        outlines.GetValueOrDefault((same.Key.ClassId, entry.Lesson.Date))
                    ))
            )
            .Where(lesson => staffId is null || lesson.Entry.Lesson.StaffIds.Contains(staffId.Value));
        return TypedResults.File(
            Encoding.UTF8.GetBytes(CalendarFile.Write(name, school, lessons)),
            "text/calendar; charset=utf-8",
            $"{name}.ics"
        );
    }

    private static async Task<Dictionary<(Guid ClassId, DateOnly Date), IReadOnlyList<string>>> OutlinesAsync(
        IReadOnlyList<SchoolClass> classes,
        SchoolContext db,
        DateOnly today,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        Dictionary<(Guid, DateOnly), IReadOnlyList<string>> outlines = [];
        if (await CurrentTerm.FindAsync(db, today, cancel) is not { } term)
        {
            return outlines;
        }

        foreach (var schoolClass in classes)
        {
            foreach (
                var day in LessonCalendar
                    .Of(term, schoolClass)
                    .Where(day => day.Closed is null && day.Date >= today && day.Date <= today.AddDays(Outlined))
            )
            {
                var lesson = new Lesson(schoolClass, term, day);
                var plan = await LessonPlan.InForceAsync(db, lesson, today, cancel);
                if (
                    await ArrangedLesson.OpenAsync(db, lesson, plan, today, arrangements, cancel)
                    is not { Now: var now, Arrangement: var arrangement }
                )
                {
                    continue;
                }

                outlines[(schoolClass.Id, day.Date)] =
                [
                    .. arrangement.Blocks.Where(IsLed).Select(block => Line(block, now, day)),
                ];
            }
        }

        return outlines;
    }

    private static bool IsLed(ArrangedBlock block) =>
        block.LedBy is not null && block.Kind is not (BlockKind.Visit or BlockKind.OwnPractice);

    /// <summary>"18:43 Copper: new Side Stepping, left (Noor Adeyemi)".</summary>
    private static string Line(ArrangedBlock block, LessonProblem lesson, LessonDay day) =>
        $"{day.Start.AddMinutes(block.Start):HH\\:mm} {(block.CohortId is { } id ? lesson.Cohort(id).Name : "Everybody")}: {ArrangementTable.KindWord(block.Kind)} {block.What} ({lesson.Teachers.FirstOrDefault(teacher => teacher.Id == block.LedBy)?.Name})";
}
