using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>What is different about one lesson: closed for this class, moved, longer, elsewhere, other staff; or a
/// lesson more.</summary>
internal static class LessonChangeEndpoints
{
    /// <param name="Away">Who is away from it, and who teaches instead.</param>
    /// <param name="Version">Of the class.</param>
    /// <param name="School">What the day is to the whole school; null where that stays as it is.</param>
    public sealed record Request(
        string? Closed,
        DateOnly? MovedTo,
        TimeOnly? Start,
        int? Minutes,
        Guid? HallId,
        IReadOnlyList<Away> Away,
        uint Version,
        SchoolDay? School = null,
        int? WatchMinutes = null
    );

    /// <param name="Minutes">Of the teachers; null for none in particular.</param>
    /// <param name="Version">Of the class.</param>
    public sealed record Watching(int? Minutes, uint Version);

    /// <param name="Closed">Why the school is closed; then nothing of the class itself is changed.</param>
    /// <param name="Version">Of the term.</param>
    public sealed record SchoolDay(bool Test, string? Closed, uint Version);

    public sealed record Away(Guid AwayId, Guid? InsteadId);

    public sealed record Response(uint Version);

    public static void Map(ByRank api)
    {
        var lessons = api
            .Head.MapGroup("/classes/{classId:guid}/calendar/{date}")
            .ProducesProblem(404)
            .ProducesProblem(409);
        lessons.MapPut("", Change).WithName("changeLesson");
        lessons.MapDelete("", Drop).WithName("dropLesson");
        lessons.MapPut("/watching", KeepForWatching).WithName("keepForWatching");
    }

    /// <param name="date">The date the calendar gives the lesson, also when it has been moved; a weekday the class does
    /// not meet on makes it a lesson more.</param>
    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Change(
        Guid classId,
        DateOnly date,
        Request request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (await db.Classes.SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } schoolClass)
        {
            return Refusals.NotFound("This class");
        }

        if (await db.Terms.SingleOrDefaultAsync(term => term.Start <= date && term.End >= date, cancel) is not { } term)
        {
            return Refusals.Invalid("date", $"{date:d MMMM yyyy} lies in no term.");
        }

        var change = new LessonChange(
            date,
            request.Closed,
            request.MovedTo,
            request.Start,
            request.Minutes,
            request.HallId,
            request.WatchMinutes
        );
        var (was, on) = (
            LessonCalendar.Of(term, schoolClass).FirstOrDefault(day => day.Usual == date)?.Date ?? date,
            change.MovedTo ?? date
        );
        var closes = request.School?.Closed is not null;
        List<Problem> problems = [];
        if (request.School is { } school)
        {
            var text = new TermText(
                term.Name,
                term.Start,
                term.End,
                [
                    .. term.Closures.SelectMany(closure => closure.Without(was)),
                    .. closes ? [new Closure(was, school.Closed!)] : Array.Empty<Closure>(),
                ],
                [
                    .. (school.Test && !closes ? term.TestDays.Append(on) : term.TestDays.Where(day => day != was))
                        .Distinct()
                        .Order(),
                ]
            );
            problems = await TermEndpoints.ProblemsAsync(term, text, db, cancel);
            term.Rewrite(text);
            db.Entry(term).Property<uint>("Version").OriginalValue = school.Version;
        }

        if (!closes && problems.Count == 0)
        {
            problems = await ProblemsAsync(change, request.Away, schoolClass, term, db, cancel);
            schoolClass.ChangeLesson(
                change,
                on,
                [.. request.Away.Select(away => new Substitute(on, away.AwayId, away.InsteadId))]
            );
        }

        return problems.Count > 0
            ? Refusals.Invalid(problems)
            : await SavedAsync(schoolClass, request.Version, db, cancel);
    }

    /// <summary>Keeps minutes of one lesson for watching, and leaves everything else about it as it is.</summary>
    /// <param name="date">The date the lesson is held on.</param>
    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> KeepForWatching(
        Guid classId,
        DateOnly date,
        Watching request,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (
            await db.Classes.SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } schoolClass
            || await db.Terms.SingleOrDefaultAsync(term => term.Start <= date && term.End >= date, cancel)
                is not { } term
            || LessonCalendar.Of(term, schoolClass).FirstOrDefault(day => day.Date == date && day.Closed is null)
                is not { } lesson
        )
        {
            return Refusals.NotFound("This lesson");
        }

        var change = schoolClass.KeepForWatching(lesson.Usual, request.Minutes);
        var problems = await ProblemsAsync(change, [], schoolClass, term, db, cancel);
        return problems.Count > 0
            ? Refusals.Invalid(problems)
            : await SavedAsync(schoolClass, request.Version, db, cancel);
    }

    /// <summary>Takes out a lesson that was added.</summary>
    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Drop(
        Guid classId,
        DateOnly date,
        uint version,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        if (
            await db.Classes.SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } schoolClass
            || schoolClass.Changes.All(change => change.Date != date)
            || date.DayOfWeek == schoolClass.Weekday
        )
        {
            return Refusals.NotFound("This additional lesson");
        }

        if (await db.WasHeldAsync(classId, date, cancel))
        {
            return Refusals.Invalid("date", $"The lesson of {date:d MMMM} has been held.");
        }

        schoolClass.DropLesson(date);
        return await SavedAsync(schoolClass, version, db, cancel);
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> SavedAsync(
        SchoolClass schoolClass,
        uint version,
        SchoolContext db,
        CancellationToken cancel
    ) =>
        await db.SaveFromAsync(schoolClass, version, cancel)
            ? TypedResults.Ok(new Response(schoolClass.Version))
            : Refusals.Stale("The calendar", [$"{schoolClass.Name}, or the term, was saved by somebody else."]);

    private static async Task<List<Problem>> ProblemsAsync(
        LessonChange change,
        IReadOnlyList<Away> away,
        SchoolClass schoolClass,
        Term term,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var date = change.MovedTo ?? change.Date;
        var days = LessonCalendar.Of(term, schoolClass);
        var before = days.FirstOrDefault(day => day.Usual == change.Date);
        if (before is not null && await db.WasHeldAsync(schoolClass.Id, before.Date, cancel))
        {
            return [new("date", $"The lesson of {before.Date:d MMMM} has been held.")];
        }

        var (halls, staff) = (
            await db.Halls.AsNoTracking().ToDictionaryAsync(hall => hall.Id, cancel),
            await db.Staff.AsNoTracking().ToDictionaryAsync(member => member.Id, member => member.Name, cancel)
        );
        var others = await db
            .Classes.AsNoTracking()
            .Where(other => other.Id != schoolClass.Id && (other.Closed == null || other.Closed >= date))
            .ToListAsync(cancel);
        return
        [
            .. term.Contains(date)
                ? Array.Empty<Problem>()
                : [new Problem("movedTo", $"{date:d MMMM} lies outside {term.Name}.")],
            .. change.Check(
                schoolClass,
                [.. days.Where(day => day.Usual != change.Date).Select(day => day.Date)],
                halls,
                others
            ),
            .. away.Index()
                .Where(absence => !schoolClass.StaffIds.Contains(absence.Item.AwayId))
                .Select(absence => new Problem(
                    $"away[{absence.Index}].awayId",
                    "Only somebody who teaches the class can be away from it."
                )),
            .. away.Index()
                .Where(absence =>
                    absence.Item.InsteadId is { } instead
                    && (!staff.ContainsKey(instead) || schoolClass.StaffIds.Contains(instead))
                )
                .Select(absence => new Problem(
                    $"away[{absence.Index}].insteadId",
                    staff.TryGetValue(absence.Item.InsteadId!.Value, out var name)
                        ? $"{name} teaches the class anyway."
                        : "The school has no such member of staff."
                )),
        ];
    }
}
