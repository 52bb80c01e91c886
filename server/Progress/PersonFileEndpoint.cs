using System.Globalization;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>Everything the school keeps about one person, in a file they can read themselves: for the head to hand out,
/// and for whoever teaches here and learns, too.</summary>
internal static class PersonFileEndpoint
{
    public static void Map(ByRank api) =>
        api
            .Anyone.MapGet("/students/{id:guid}/everything", Write)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .Produces<string>(200, "text/plain")
            .WithName("everythingAbout");

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Write(
        Guid id,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (
            await db
                .Students.AsNoTracking()
                .SingleOrDefaultAsync(student => student.Id == id && student.Erased == null, cancel)
            is not { } student
        )
        {
            return Refusals.NotFound("This student");
        }

        if (!actor.IsHead && !await db.Staff.AnyAsync(me => me.Id == actor.StaffId && me.StudentId == id, cancel))
        {
            return Refusals.Forbidden("What is kept about somebody is for themselves and for the head.");
        }

        // It holds their limits: reading it is written down like every reading of them.
        db.AccessLog.Add(
            new(Guid.CreateVersion7(), clock.Now, actor.StaffId, id, AccessKind.Read, "everything about one person")
        );
        await db.SaveChangesAsync(cancel);
        var text = await TextAsync(student, db, await clock.TodayAsync(cancel), cancel);
        return TypedResults.File(
            Encoding.UTF8.GetBytes(text.ReplaceLineEndings("\r\n")),
            "text/plain; charset=utf-8",
            $"{student.FullName}.txt"
        );
    }

    private static async Task<string> TextAsync(
        Student student,
        SchoolContext db,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var id = student.Id;
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        var staff = await db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        var sashes = await db.Sashes.ToDictionaryAsync(sash => sash.Id, sash => sash.Name, cancel);
        var classes = await db.Classes.AsNoTracking().ToDictionaryAsync(its => its.Id, its => its.Name, cancel);
        var cohorts = await db.Cohorts.AsNoTracking().ToDictionaryAsync(cohort => cohort.Id, cancel);
        var outlines = await Material.OutlinesAsync(db, cancel);
        var principles = await ProgressTables.PrinciplesAsync(db, cancel);
        var text = new StringBuilder();

        Title($"Everything {Named(school.Name)} keeps about {student.FullName}, on {Day(today)}");
        Line("Joined", Day(student.Joined));
        Line("Left", student.Left is { } left ? Day(left) : "");
        Line("Takes part", student.Details.Mode.Name);
        Line("Comes for", PlainWords.Of(student.Details.Aim));
        Line("Wants of the syllabus", student.Details.Scope);
        Line("In an emergency", $"{student.Details.ContactName} {student.Details.ContactPhone}");
        Line("Has agreed to", string.Join(", ", student.Details.Consents.Select(consent => PlainWords.Of(consent))));

        Title("Levels");
        foreach (var level in student.Levels)
        {
            Item(
                level.Since,
                $"{sashes.GetValueOrDefault(level.SashId, "a sash of before")}{(level.Half == Half.None ? "" : $", {PlainWords.Of(level.Half)}")}"
            );
        }

        Title("Cohorts");
        foreach (var place in student.Places)
        {
            var cohort = cohorts.GetValueOrDefault(place.CohortId);
            Item(
                place.From,
                $"{cohort?.Name ?? "a cohort of before"}, {(cohort is null ? "" : classes.GetValueOrDefault(cohort.ClassId, ""))}{(place.Until is { } until ? $", until {Day(until)}" : "")}"
            );
        }

        Title("Limits");
        foreach (var limit in student.Limits)
        {
            var (side, since) = (
                limit.Side == Side.Symmetric ? "" : $", {PlainWords.Of(limit.Side)}",
                limit.Since is { } day ? $", since {Day(day)}" : ""
            );
            text.AppendLine($"  {PlainWords.Of(limit.Demand)}{side}{since} {limit.Note}".TrimEnd());
        }

        Line("Note", student.Note);

        Title("Decided about postures");
        foreach (
            var decided in await db
                .Adaptations.Where(one => one.StudentId == id)
                .OrderBy(one => one.At)
                .ToListAsync(cancel)
        )
        {
            Item(
                DateOnly.FromDateTime(decided.At.UtcDateTime),
                $"{outlines[decided.PostureId].Name}: {decided.Mode ?? Adaptation.LeavesItOut} {decided.Words} ({By(decided.By)})"
            );
        }

        Title("Held to know on coming here, as the head said");
        foreach (
            var fact in await db
                .TakenOverFacts.Where(one => one.StudentId == id)
                .OrderBy(one => one.At)
                .ToListAsync(cancel)
        )
        {
            Item(
                DateOnly.FromDateTime(fact.At.UtcDateTime),
                $"{outlines[fact.PostureId].NameOn(fact.Side)}: {PlainWords.Of(fact.Stage)} ({By(fact.By)})"
            );
        }

        Title("Lessons");
        foreach (
            var day in (await db.Attendance.Where(one => one.StudentId == id).ToListAsync(cancel))
                .GroupBy(one => (one.Date, one.ClassId))
                .Select(same => same.MaxBy(one => one.At)!)
                .OrderBy(one => one.Date)
        )
        {
            Item(
                day.Date,
                $"{classes.GetValueOrDefault(day.ClassId, "")}: {(day.Present ? "here" : "away")} ({By(day.By)})"
            );
        }

        Title("Seen");
        foreach (
            var seen in await db
                .StandingObservations.Where(one => one.StudentId == id)
                .OrderBy(one => one.Date)
                .ThenBy(one => one.At)
                .ToListAsync(cancel)
        )
        {
            Item(
                seen.Date,
                $"{Principle(seen.PrincipleId)}{About(seen.Key)}{In(seen.Mode)}{RunThrough(seen)}: {SaidBy(seen)} ({By(seen.By)})"
            );
        }

        Title("Tried for a correction");
        foreach (
            var way in (await db.WaysTried.Where(one => one.StudentId == id).ToListAsync(cancel))
                .GroupBy(way => (way.CorrectionKey, way.Key, way.Way, way.Cause, way.Date))
                .Select(same => same.MaxBy(way => (way.At, way.Id))!)
                .Where(way => way.Done)
                .OrderBy(way => way.Date)
        )
        {
            Item(
                way.Date,
                $"{Principle(way.PrincipleId)}{About(way.Key)}, {way.Words}: {PlainWords.Of(way.Way)} ({By(way.By)})"
            );
        }

        Title("Practised at home, as they said");
        foreach (
            var day in PracticeLog
                .Days(await db.PracticeLogs.Where(one => one.StudentId == id).ToListAsync(cancel))
                .OrderBy(day => day.Key)
        )
        {
            Item(day.Key, $"{day.Value} min");
        }

        Title("Home sheets handed out");
        foreach (
            var given in await db
                .HomeSheets.Where(one => one.StudentId == id)
                .OrderBy(one => one.At)
                .ToListAsync(cancel)
        )
        {
            Item(
                given.Date,
                $"{string.Join("; ", given.Sheet.Things.Select(thing => string.Join(" → ", thing.Postures.Select(done => outlines[done.PostureId].NameOn(done.Side)).Distinct())))}. To look at: {given.Sheet.Focus} ({By(given.By)})"
            );
        }

        Title("Who read or changed the limits");
        foreach (
            var entry in await db.AccessLog.Where(one => one.StudentId == id).OrderBy(one => one.At).ToListAsync(cancel)
        )
        {
            Item(
                DateOnly.FromDateTime(entry.At.UtcDateTime),
                $"{By(entry.By)}: {PlainWords.Of(entry.Kind)}, {entry.Where}"
            );
        }

        return text.ToString();

        void Title(string title) => text.Append(text.Length == 0 ? "" : "\n").AppendLine(title);
        void Item(DateOnly day, string words) =>
            text.AppendLine(CultureInfo.InvariantCulture, $"  {Day(day)}: {words}");
        string About(UnitKey of) => of.NameWith(its => outlines[its.PostureId].NameOn(its.Side));
        string Principle(Guid? id) => id is { } its ? $"{principles[its]}, in " : "";
        string RunThrough(Observation seen) =>
            seen is { InRunThrough: true, Stage: not Stage.Flowing } ? ", inside a run-through" : "";
        string In(Mode? mode) => mode is { } its ? $", {its.Name}" : "";
        string By(Guid member) => staff.GetValueOrDefault(member, "somebody who left");
        void Line(string what, string words)
        {
            if (words.Trim().Length > 0)
            {
                text.AppendLine(CultureInfo.InvariantCulture, $"  {what}: {words.Trim()}");
            }
        }
    }

    private static string SaidBy(Observation seen) =>
        seen.Sign switch
        {
            Sign.Stage => PlainWords.Of(seen.Stage!.Value),
            Sign.Fault => $"{seen.Words} ({PlainWords.Of(seen.Weight!.Value)})",
            Sign.Better => $"better: {seen.Words}",
            Sign.Noted => $"noted: {seen.Words}",
            _ => "seen and fine",
        };

    private static string Day(DateOnly day) => day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);

    private static string Named(string school) => school.Length > 0 ? school : "the school";
}
