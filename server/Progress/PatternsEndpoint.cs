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

/// <summary>Faults over the years, whoever had them: how long they have been taught against, when they come, where they sit.
/// Of the classes somebody teaches, and for the head of all.</summary>
internal static class PatternsEndpoint
{
    /// <summary>More is no picture.</summary>
    private const int MostMonths = 60;

    /// <param name="Months">The first day of each month, the earliest first.</param>
    /// <param name="Patterns">What has been taught against for longest first.</param>
    public sealed record Board(IReadOnlyList<DateOnly> Months, IReadOnlyList<Pattern> Patterns);

    /// <param name="Name">Of the posture or link, on neither side.</param>
    /// <param name="In">One for each month.</param>
    /// <param name="Weeks">In which somebody had it open.</param>
    /// <param name="Called">How often it was seen.</param>
    /// <param name="Tried">How often something was done about it.</param>
    /// <param name="Waves">When it came, each time in several people after a quiet time; empty unless it came back.</param>
    /// <param name="SameSeason">Whether it comes at the same time of the year.</param>
    /// <param name="MendedBy">The change of how the school does it after which nobody new had it.</param>
    /// <param name="OnlyIn">The cohort it sits in, where another one has been spared.</param>
    /// <param name="Unlooked">How many have it open and have not been looked at for weeks.</param>
    public sealed record Pattern(
        Guid PostureId,
        Guid? FromId,
        Guid? FaultId,
        string Name,
        string Words,
        Weight Weight,
        IReadOnlyList<FaultMonth> In,
        int Weeks,
        int Called,
        int Tried,
        int People,
        int OpenNow,
        IReadOnlyList<DateOnly> Waves,
        bool SameSeason,
        DateOnly? MendedBy,
        string? OnlyIn,
        int Unlooked,
        IReadOnlyList<Case> Cases
    );

    /// <param name="ClassId">Where their page is now; null for somebody who left.</param>
    /// <param name="Cohort">Where they learned when it was first seen.</param>
    public sealed record Case(
        Guid StudentId,
        string Name,
        Guid? ClassId,
        string Cohort,
        Side Side,
        IReadOnlyList<Episode> Episodes,
        CorrectionState State,
        DateOnly LastLooked,
        IReadOnlyList<CorrectionViews.TriedResponse> Tried
    );

    public static void Map(ByRank api) => api.Teacher.MapGet("/patterns", Read).WithName("patterns");

    private static async Task<Ok<Board>> Read(
        SchoolContext db,
        CurrentSchool school,
        SeenBefore seen,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        var cohorts = await ProgressTables.ClassesOfAsync(db, actor, today, cancel);
        return TypedResults.Ok(await OfAsync(db, school.Database, seen, cohorts, today, cancel));
    }

    /// <param name="cohorts">Whose faults are on the board, each with its class.</param>
    internal static async Task<Board> OfAsync(
        SchoolContext db,
        SchoolDatabase school,
        SeenBefore seen,
        IReadOnlyDictionary<Guid, SchoolClass> cohorts,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var names = await db.Cohorts.AsNoTracking().ToDictionaryAsync(cohort => cohort.Id, cancel);
        var ever = await db.StudentsEverIn([.. cohorts.Keys]).AsNoTracking().ToListAsync(cancel);
        var before = await seen.OfAsync(db, school, ever, today, cancel);
        var students = ever.ToDictionary(student => student.Id);
        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var patterns = FaultPattern.Of(ever.SelectMany(student => CasesOf(student, before[student.Id])), today);
        var months = MonthsOf(patterns, today);
        var watched = before
            .Values.SelectMany(its => its.Looked)
            .SelectMany(its =>
                its.Days.Select(day => (its.Of.PostureId, Cohort: CohortOn(students[its.StudentId], day)))
            )
            .Where(its => its.Cohort is not null)
            .Distinct()
            .ToLookup(its => its.PostureId, its => its.Cohort!.Value);
        return new(months, [.. patterns.Select(Show)]);

        Pattern Show(FaultPattern pattern)
        {
            var waves = pattern.Waves();
            return new(
                pattern.PostureId,
                pattern.FromId,
                pattern.FaultId,
                $"{(pattern.FromId is { } from ? $"{postures[from].Name} → " : "")}{postures[pattern.PostureId].Name}",
                pattern.Words,
                pattern.Weight,
                pattern.In(months),
                pattern.WeeksOpen(today),
                pattern.Called,
                pattern.Tried,
                pattern.People,
                pattern.OpenNow,
                waves,
                FaultPattern.SameSeason(waves),
                pattern.MendedBy(postures[pattern.PostureId].Text.Changes.Select(change => change.From), today),
                pattern.OnlyIn(watched[pattern.PostureId].ToHashSet()) is { } cohort
                    ? names.GetValueOrDefault(cohort)?.Name
                    : null,
                pattern.Unlooked(today).Count,
                [.. pattern.Cases.Select(Tell)]
            );
        }

        Case Tell(FaultCase of)
        {
            var student = students[of.StudentId];
            return new(
                of.StudentId,
                student.ShortName,
                student.CohortIds.Where(cohorts.ContainsKey).Select(id => (Guid?)cohorts[id].Id).FirstOrDefault(),
                of.CohortId is { } cohort && names.TryGetValue(cohort, out var found) ? found.Name : "",
                of.Of.Side,
                of.Correction.Episodes,
                of.Correction.State,
                of.LastLooked,
                CorrectionViews.Tried(of.Correction)
            );
        }
    }

    private static IEnumerable<FaultCase> CasesOf(Student student, SeenBefore.Seen seen)
    {
        var last = seen.Looked.ToDictionary(looked => looked.Of, looked => looked.Days[0]);
        return seen.Corrections.Select(its => new FaultCase(
            student.Id,
            its.Of,
            CohortOn(student, its.Correction.Episodes[0].Opened),
            its.Correction,
            LastLooked(its.Of, its.Correction)
        ));

        // A fault may have been seen while all this was read, by one connection and not yet by the other.
        DateOnly LastLooked(UnitKey of, Correction correction) =>
            last.TryGetValue(of, out var day) && day > correction.LastSeen ? day : correction.LastSeen;
    }

    private static Guid? CohortOn(Student student, DateOnly date) =>
        Place.On(student.Places, date).Select(cohort => (Guid?)cohort).FirstOrDefault();

    /// <summary>From the month in which the first of them was seen.</summary>
    private static IReadOnlyList<DateOnly> MonthsOf(IReadOnlyList<FaultPattern> patterns, DateOnly today)
    {
        var now = new DateOnly(today.Year, today.Month, 1);
        var first = patterns
            .SelectMany(pattern => pattern.Cases)
            .Select(one => one.Correction.Episodes[0].Opened)
            .DefaultIfEmpty(today)
            .Min();
        var months = ((now.Year - first.Year) * 12) + now.Month - first.Month + 1;
        return [.. Enumerable.Range(0, Math.Min(months, MostMonths)).Reverse().Select(back => now.AddMonths(-back))];
    }
}
