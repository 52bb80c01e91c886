using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Terms;

/// <summary>What is different about one lesson: closed for this class, moved, longer, elsewhere, other staff; or a lesson more.</summary>
internal static class LessonChangeEndpoints
{
    /// <param name="Away">Who is away from it, and who teaches instead.</param>
    /// <param name="Version">Of the class.</param>
    public sealed record Request(string? Closed, DateOnly? MovedTo, TimeOnly? Start, int? Minutes, Guid? HallId, IReadOnlyList<Away> Away, uint Version);

    public sealed record Away(Guid AwayId, Guid? InsteadId);

    public sealed record Response(uint Version);

    public static void Map(IEndpointRouteBuilder api)
    {
        var lessons = api.MapGroup("/classes/{classId:guid}/calendar/{date}").RequireAuthorization(Policies.Head).ProducesProblem(404).ProducesProblem(409);
        lessons.MapPut("", Change).WithName("changeLesson");
        lessons.MapDelete("", Drop).WithName("dropLesson");
    }

    /// <param name="date">The date the calendar gives the lesson, also when it has been moved; a weekday the class does not meet on makes it a lesson more.</param>
    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Change(Guid classId, DateOnly date, Request request, SchoolContext db, CancellationToken cancel)
    {
        if (await db.Classes.SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } meeting)
        {
            return Answers.NotFound("This class");
        }

        var change = new LessonChange(date, request.Closed, request.MovedTo, request.Start, request.Minutes, request.HallId);
        if (await ProblemsAsync(change, request.Away, meeting, db, cancel) is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        var on = change.MovedTo ?? date;
        meeting.ChangeLesson(change, on, [.. request.Away.Select(away => new Substitute(on, away.AwayId, away.InsteadId))]);
        return await SavedAsync(meeting, request.Version, db, cancel);
    }

    /// <summary>Takes out a lesson that was added.</summary>
    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Drop(Guid classId, DateOnly date, uint version, SchoolContext db, CancellationToken cancel)
    {
        if (await db.Classes.SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } meeting || meeting.Changes.All(change => change.Date != date) || date.DayOfWeek == meeting.Weekday)
        {
            return Answers.NotFound("This additional lesson");
        }

        if (await WasHeldAsync(classId, date, db, cancel))
        {
            return Answers.Invalid("date", $"The lesson of {date:d MMMM} has been held.");
        }

        meeting.DropLesson(date);
        return await SavedAsync(meeting, version, db, cancel);
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> SavedAsync(SchoolClass meeting, uint version, SchoolContext db, CancellationToken cancel) =>
        await db.SaveFromAsync(meeting, version, cancel) ? TypedResults.Ok(new Response(meeting.Version)) : Answers.Stale("The class", [$"{meeting.Name} was saved by somebody else."]);

    private static async Task<List<Problem>> ProblemsAsync(LessonChange change, IReadOnlyList<Away> away, SchoolClass meeting, SchoolContext db, CancellationToken cancel)
    {
        var date = change.MovedTo ?? change.Date;
        if (await db.Terms.AsNoTracking().SingleOrDefaultAsync(term => term.Start <= change.Date && term.End >= change.Date, cancel) is not { } term)
        {
            return [new("date", $"{change.Date:d MMMM yyyy} lies in no term.")];
        }

        var days = LessonCalendar.Of(term, meeting);
        var before = days.FirstOrDefault(day => day.Usual == change.Date);
        if (before is not null && await WasHeldAsync(meeting.Id, before.Date, db, cancel))
        {
            return [new("date", $"The lesson of {before.Date:d MMMM} has been held.")];
        }

        var (halls, staff) = (await db.Halls.AsNoTracking().ToDictionaryAsync(hall => hall.Id, cancel), await db.Staff.AsNoTracking().ToDictionaryAsync(member => member.Id, member => member.Name, cancel));
        var others = await db.Classes.AsNoTracking().Where(other => other.Id != meeting.Id && (other.Closed == null || other.Closed >= date)).ToListAsync(cancel);
        return
        [
            .. term.Contains(date) ? Array.Empty<Problem>() : [new Problem("movedTo", $"{date:d MMMM} lies outside {term.Name}.")],
            .. change.Check(meeting, [.. days.Where(day => day.Usual != change.Date).Select(day => day.Date)], halls, others),
            .. away.Index().Where(one => !meeting.StaffIds.Contains(one.Item.AwayId)).Select(one => new Problem($"away[{one.Index}].awayId", "Only somebody who teaches the class can be away from it.")),
            .. away.Index().Where(one => one.Item.InsteadId is { } instead && (!staff.ContainsKey(instead) || meeting.StaffIds.Contains(instead)))
                .Select(one => new Problem($"away[{one.Index}].insteadId", staff.TryGetValue(one.Item.InsteadId!.Value, out var name) ? $"{name} teaches the class anyway." : "The school has no such member of staff.")),
        ];
    }

    private static async Task<bool> WasHeldAsync(Guid classId, DateOnly date, SchoolContext db, CancellationToken cancel) =>
        await db.LessonRecords.AnyAsync(record => record.ClassId == classId && record.Date == date, cancel) || await db.Attendance.AnyAsync(fact => fact.ClassId == classId && fact.Date == date, cancel);
}
