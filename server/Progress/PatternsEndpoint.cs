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
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        var cohorts = await ProgressTables.ClassesOfAsync(db, actor, today, cancel);
        var names = await db.Cohorts.AsNoTracking().ToDictionaryAsync(cohort => cohort.Id, cancel);
        var ever = await db.StudentsEverIn([.. cohorts.Keys]).AsNoTracking().ToListAsync(cancel);
        // All that was ever seen is gone through twice: at the same time, on a connection each.
        await using var beside = school.Database.Open();
        var looking = LookedAsync(beside, ever, today, cancel);
        var loading = ProgressBooks.LoadCorrectionsAsync(db, ever, today, cancel);
        await Task.WhenAll(looking, loading);
        var (looked, facts) = (await looking, await loading);
        var students = ever.ToDictionary(student => student.Id);
        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var patterns = FaultPattern.Of(CasesOf(facts, looked), today);
        var months = MonthsOf(patterns, today);
        var watched = looked
            .SelectMany(seen =>
                seen.Days.Select(day => (seen.Of.PostureId, Cohort: CohortOn(students[seen.StudentId], day)))
            )
            .Where(seen => seen.Cohort is not null)
            .Distinct()
            .ToLookup(seen => seen.PostureId, seen => seen.Cohort!.Value);
        return TypedResults.Ok(new Board(months, [.. patterns.Select(Show)]));

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

    /// <summary>That somebody was watched in something.</summary>
    /// <param name="Days">The last first, and as many as it takes to know in which cohorts.</param>
    private sealed record Looked(Guid StudentId, UnitKey Of, IReadOnlyList<DateOnly> Days);

    /// <summary>Without the observations themselves: most are stages, and make up no correction.</summary>
    private static async Task<List<Looked>> LookedAsync(
        SchoolContext db,
        List<Student> students,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var ids = students.Select(student => student.Id).ToList();
        var moved = students.Where(student => student.Places.Count > 1).Select(student => student.Id).ToHashSet();
        // All of them are gone through: what has been withdrawn is looked up once, and not for each.
        var seen = db.Observations.Where(seen =>
            seen.PrincipleId == null
            && seen.Date <= today
            && ids.Contains(seen.StudentId)
            && !db.Withdrawals.Select(withdrawal => withdrawal.ObservationId).Contains(seen.Id)
        );
        var all = await seen.GroupBy(seen => new
            {
                seen.StudentId,
                seen.PostureId,
                seen.Side,
                seen.FromId,
                seen.FromSide,
            })
            .Select(of => new
            {
                of.Key,
                First = of.Min(seen => seen.Date),
                Last = of.Max(seen => seen.Date),
            })
            .ToListAsync(cancel);
        // Whoever was always in one place was watched there.
        var between = (
            await seen.Where(seen => moved.Contains(seen.StudentId))
                .Select(seen => new
                {
                    seen.StudentId,
                    seen.PostureId,
                    seen.Side,
                    seen.FromId,
                    seen.FromSide,
                    seen.Date,
                })
                .Distinct()
                .ToListAsync(cancel)
        ).ToLookup(seen => (seen.StudentId, Observation.KeyOf(seen.PostureId, seen.Side, seen.FromId, seen.FromSide)));
        return
        [
            .. all.Select(its =>
            {
                var of = Observation.KeyOf(its.Key.PostureId, its.Key.Side, its.Key.FromId, its.Key.FromSide);
                return new Looked(
                    its.Key.StudentId,
                    of,
                    [its.Last, its.First, .. between[(its.Key.StudentId, of)].Select(seen => seen.Date)]
                );
            }),
        ];
    }

    private static IEnumerable<FaultCase> CasesOf(ProgressBooks.Loaded facts, IReadOnlyList<Looked> looked)
    {
        var last = looked.ToDictionary(seen => (seen.StudentId, seen.Of), seen => seen.Days[0]);

        return from student in facts.Students
            from its in facts.Book.CorrectionsOf(student.Id)
            select new FaultCase(
                student.Id,
                its.Of,
                CohortOn(student, its.Correction.Episodes[0].Opened),
                its.Correction,
                LastLooked(student.Id, its.Of, its.Correction)
            );

        // A fault may have been seen while all this was read, by one connection and not yet by the other.
        DateOnly LastLooked(Guid student, UnitKey of, Correction correction) =>
            last.TryGetValue((student, of), out var day) && day > correction.LastSeen ? day : correction.LastSeen;
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
