using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>What is known of the students, as tables for any spreadsheet (docs/formats/progress-tables.md): of the classes
/// somebody teaches, and for the head of all.</summary>
internal static class ProgressTables
{
    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/corrections.csv", Corrections).WithName("correctionsTable");
        api.Anyone.MapGet("/observations.csv", Observations).WithName("observationsTable");
        api.Group("/classes/{classId:guid}")
            .Each(classes => classes.OpensFirst())
            .Anyone.MapGet("/progress.csv", Progress)
            .WithName("progressTable");
    }

    private static async Task<FileContentHttpResult> Corrections(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        var classes = await ClassesOfAsync(db, actor, today, cancel);
        var facts = await ProgressBooks.LoadAsync(db, [.. classes.Keys], today, cancel);
        var nameOf = await NamesAsync(db, cancel);
        var principles = await PrinciplesAsync(db, cancel);
        return CsvTable.Of(
            "corrections.csv",
            [
                "student",
                "posture",
                "side",
                "what",
                "weight",
                "state",
                "since",
                "last_seen",
                "times_seen",
                "stuck",
                "tried",
            ],
            from student in facts.Students
            orderby student.GivenName, student.FamilyName
            from its in facts
                .Book.CorrectionsOf(student.Id)
                .Select(its => (Name: nameOf(its.Of), Side: Word(its.Of.Side), What: "", its.Correction))
                // What is against a principle is about no posture.
                .Concat(
                    facts
                        .Book.AgainstPrinciples(student.Id)
                        .Select(its => (Name: "", Side: "", What: $"{principles[its.PrincipleId]}: ", its.Correction))
                )
            let correction = its.Correction
            orderby student.GivenName, student.FamilyName, correction.Since
            select new[]
            {
                student.FullName,
                its.Name,
                its.Side,
                its.What + correction.Words,
                Word(correction.Weight),
                Word(correction.State),
                Day(correction.Since),
                Day(correction.LastSeen),
                $"{correction.TimesSeen}",
                YesNo(correction.Stuck),
                string.Join("; ", correction.Tried.Select(Said)),
            }
        );

        static string Said(TriedWay way) =>
            $"{Word(way.Way)} {Day(way.Date)}{(way.Helped is { } helped ? helped ? " helped" : " did not help" : "")}";
    }

    private static async Task<FileContentHttpResult> Progress([AsParameters] AskedClass asked, CancellationToken cancel)
    {
        var db = asked.Db;
        var cohorts = await asked.CohortsAsync(cancel);
        var facts = await ProgressBooks.LoadAsync(db, [.. cohorts.Select(cohort => cohort.Id)], asked.Today, cancel);
        var columns = await ProgressEndpoints.ColumnsAsync(db, facts, cancel);
        var nameOf = await NamesAsync(db, cancel);
        return CsvTable.Of(
            "progress.csv",
            ["student", "posture", "side", "mode", "stage", "taken_over", "fading", "last_touched"],
            from student in facts.Students
            orderby student.GivenName, student.FamilyName
            from of in columns
                .Select(of => new UnitKey(UnitKind.Posture, of.PostureId, of.Side))
                .Concat(facts.Book.LinksMetBy(student.Id))
            let standing = facts.Book.StandingOf(student.Id, of)
            where standing.Stage != Stage.NotMet
            from its in facts
                .Book.StagesInOtherModes(student.Id, of)
                .Select(other => (other.Mode, other.Stage))
                .Prepend((Mode: facts.Book.UsualOf(student.Id), standing.Stage))
            select new[]
            {
                student.FullName,
                nameOf(of),
                Word(of.Side),
                its.Mode.Name,
                Word(its.Stage),
                YesNo(standing.TakenOver),
                YesNo(standing.Fading),
                standing.Touched is { } day ? Day(day) : "",
            }
        );
    }

    /// <summary>Every fact that was observed; a withdrawn one is marked.</summary>
    private static async Task<FileContentHttpResult> Observations(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var classes = await ClassesOfAsync(db, actor, await clock.TodayAsync(cancel), cancel);
        var mine = classes.Values.DistinctBy(its => its.Id).ToDictionary(its => its.Id, its => its.Name);
        List<Guid> ids = [.. mine.Keys];
        var seen = await db
            .Observations.AsNoTracking()
            .Where(fact => ids.Contains(fact.ClassId))
            .OrderBy(fact => fact.Date)
            .ThenBy(fact => fact.At)
            .ToListAsync(cancel);
        var withdrawn = await db.Withdrawals.Select(withdrawal => withdrawal.ObservationId).ToHashSetAsync(cancel);
        var names = (await db.Students.AsNoTracking().ToListAsync(cancel)).ToDictionary(
            student => student.Id,
            student => student.FullName
        );
        var staff = await db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        var nameOf = await NamesAsync(db, cancel);
        var principles = await PrinciplesAsync(db, cancel);
        return CsvTable.Of(
            "observations.csv",
            [
                "date",
                "class",
                "student",
                "posture",
                "side",
                "mode",
                "in_run_through",
                "sign",
                "stage",
                "what",
                "weight",
                "by",
                "at",
                "withdrawn",
            ],
            seen.Select(fact =>
                new[]
                {
                    Day(fact.Date),
                    mine[fact.ClassId],
                    names[fact.StudentId],
                    nameOf(fact.Key),
                    Word(fact.Side),
                    fact.Mode?.Name ?? "",
                    YesNo(fact.InRunThrough),
                    Word(fact.Sign),
                    fact.Stage is { } stage ? Word(stage) : "",
                    fact.PrincipleId is { } principle ? $"{principles[principle]}: {fact.Words}" : fact.Words,
                    fact.Weight is { } weight ? Word(weight) : "",
                    staff.GetValueOrDefault(fact.By, "somebody who left"),
                    $"{fact.At.UtcDateTime:yyyy-MM-ddTHH:mm:ssZ}",
                    YesNo(withdrawn.Contains(fact.Id)),
                }
            )
        );
    }

    /// <summary>The cohorts of the classes somebody teaches, each with its class.</summary>
    internal static async Task<Dictionary<Guid, SchoolClass>> ClassesOfAsync(
        SchoolContext db,
        Actor actor,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var mine = (await db.Classes.AsNoTracking().ToListAsync(cancel))
            .Where(its => actor.Teaches(its, today))
            .ToDictionary(its => its.Id);
        return (await db.Cohorts.AsNoTracking().ToListAsync(cancel))
            .Where(cohort => mine.ContainsKey(cohort.ClassId))
            .ToDictionary(cohort => cohort.Id, cohort => mine[cohort.ClassId]);
    }

    private static async Task<Func<UnitKey, string>> NamesAsync(SchoolContext db, CancellationToken cancel)
    {
        var names = await db
            .Postures.Select(posture => new { posture.Id, posture.Name })
            .ToDictionaryAsync(posture => posture.Id, posture => posture.Name, cancel);
        // The side has a column of its own.
        return of => of.NameWith(its => names[its.PostureId]);
    }

    /// <summary>The names of the school's principles.</summary>
    internal static async Task<Dictionary<Guid, string>> PrinciplesAsync(SchoolContext db, CancellationToken cancel) =>
        (await db.Principles.AsNoTracking().ToListAsync(cancel)).ToDictionary(
            principle => principle.Id,
            principle => principle.Text.Name
        );

    private static string Day(DateOnly day) => $"{day:yyyy-MM-dd}";

    private static string YesNo(bool yes) => yes ? "yes" : "no";

    private static string Word(Enum word) => JsonNamingPolicy.KebabCaseLower.ConvertName(word.ToString());
}
