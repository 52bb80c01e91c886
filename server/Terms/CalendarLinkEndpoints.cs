using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>Where calendars of the announced plan are subscribed to, and its table.</summary>
internal static class CalendarLinkEndpoints
{
    /// <param name="Path">Where a calendar program subscribes; it is secret.</param>
    public sealed record Response(string Path);

    public static void Map(ByRank api)
    {
        api.Teacher.MapPost("/classes/{classId:guid}/calendar-link", LinkOfClass)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .WithName("classCalendarLink");
        api.Anyone.MapPost("/calendar-link", LinkOfMine).WithName("myCalendarLink");
        api.Anyone.MapGet("/terms/{termId:guid}/classes/{classId:guid}/plan.csv", Table)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .Produces<string>(200, "text/csv")
            .WithName("planTable");
    }

    /// <summary>The address of a class's calendar; <paramref name="renew"/> ends the one there was.</summary>
    private static async Task<Results<Ok<Response>, ProblemHttpResult>> LinkOfClass(
        Guid classId,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel,
        bool renew = false
    )
    {
        if (await db.Classes.AsNoTracking().SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } schoolClass)
        {
            return Refusals.NotFound("This class");
        }

        return actor.Teaches(schoolClass, await clock.TodayAsync(cancel))
            ? TypedResults.Ok(
                await LinkAsync(
                    await db.CalendarLinks.SingleOrDefaultAsync(link => link.ClassId == classId, cancel),
                    () => CalendarLink.ForClass(classId, clock.Now),
                    renew,
                    db,
                    cancel
                )
            )
            : Refusals.NotYours();
    }

    private static async Task<Ok<Response>> LinkOfMine(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel,
        bool renew = false
    ) =>
        TypedResults.Ok(
            await LinkAsync(
                await db.CalendarLinks.SingleOrDefaultAsync(link => link.StaffId == actor.StaffId, cancel),
                () => CalendarLink.ForTeacher(actor.StaffId, clock.Now),
                renew,
                db,
                cancel
            )
        );

    private static async Task<Response> LinkAsync(
        CalendarLink? link,
        Func<CalendarLink> make,
        bool renew,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (link is null)
        {
            db.CalendarLinks.Add(link = make());
        }
        else if (renew)
        {
            link.Renew();
        }

        await db.SaveChangesAsync(cancel);
        return new($"/api/calendars/{link.Key}.ics");
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Table(
        Guid termId,
        Guid classId,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (
            await db.Classes.AsNoTracking().SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } schoolClass
            || await PlanEndpoints.AnnouncedAsync(db, termId, classId, cancel) is not { } plan
        )
        {
            return Refusals.NotFound("An announced plan of this class");
        }

        if (!actor.Teaches(schoolClass, await clock.TodayAsync(cancel)))
        {
            return Refusals.NotYours();
        }

        using var file = new MemoryStream();
        using (
            var csv = CsvWriter.Create(
                file,
                new() { WriteByteOrderMark = true, Injection = CsvInjection.Escape },
                leaveOpen: true
            )
        )
        {
            csv.WriteRecord(
                "date",
                "lesson",
                "class",
                "cohort",
                "work",
                "kind",
                "posture",
                "minutes",
                "fixed",
                "because"
            );
            foreach (var row in PlanTable.Of(plan.Solved))
            {
                csv.WriteField(row.Date.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture));
                csv.WriteField(row.Lesson);
                csv.WriteField(schoolClass.Name);
                csv.WriteField(row.Cohort);
                csv.WriteField(
                    row.Work switch
                    {
                        PlanWork.LeadIn => "lead-in",
                        PlanWork.RunThrough => "run-through",
                        PlanWork.New => "new",
                        PlanWork.Review => "review",
                        PlanWork.Keep => "keep",
                        _ => "watch",
                    }
                );
                csv.WriteField(row.Unit?.Kind.ToString().ToLowerInvariant() ?? "");
                csv.WriteField(row.Name);
                csv.WriteField(row.Seconds.Minutes);
                csv.WriteField(row.Pinned ? "yes" : "");
                csv.WriteField(row.Because);
                csv.EndRecord();
            }
        }

        return TypedResults.File(
            file.ToArray(),
            "text/csv; charset=utf-8",
            $"{schoolClass.Name}, plan {plan.Number}.csv"
        );
    }
}
