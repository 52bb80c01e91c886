using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;

namespace Zeitplan.Server.Lessons;

/// <summary>What is left to do: a sentence each, leading to where it is done. It goes through all that is known of
/// everybody, so it is asked for by itself, beside what is next.</summary>
internal static class LeftToDoEndpoint
{
    public enum ErrandKind
    {
        Unsafe,
        Unmarked,
        Unplanned,
        OutOfDate,
        DoesNotFit,
        ReTeach,
        Stuck,
        Unseen,
        Unwritten,
    }

    /// <param name="Sentence">What is the case and what to do about it.</param>
    public sealed record Errand(
        ErrandKind Kind,
        Guid ClassId,
        DateOnly? Date,
        Guid? StudentId,
        string Class,
        string Sentence
    )
    {
        /// <summary>Where something is to be written about a posture.</summary>
        public Guid? PostureId { get; init; }
    }

    public static void Map(ByRank api) => api.Anyone.MapGet("/today/left-to-do", Read).WithName("leftToDo");

    private static async Task<Ok<IReadOnlyList<Errand>>> Read(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        if (await RunningTerm.LoadAsync(db, actor, today, cancel) is not { } running)
        {
            return TypedResults.Ok<IReadOnlyList<Errand>>([]);
        }

        var taught = running.Taught;
        var facts = await ProgressBooks.OfAsync(
            db,
            taught.Students,
            [.. taught.Cohorts.Select(cohort => cohort.Id)],
            today,
            cancel
        );
        var material = actor.IsHead ? await TermMaterial.LoadAsync(db, taught, today, cancel, facts) : null;
        var unwritten = actor.IsHead ? await UnwrittenAsync(db, cancel) : [];
        // What is in a coming lesson to be taught again is done: nobody is asked for it any more.
        var coming = (await AgainInPlan.LoadAsync(db, running.Term, [.. running.Classes.Select(its => its.Id)], cancel))
            .Where(again => again.Date >= today)
            .Select(again => again.Key)
            .ToHashSet();
        List<Errand> errands = [];
        foreach (var schoolClass in running.Classes)
        {
            errands.AddRange(
                running
                    .Unmarked(schoolClass)
                    .Where(past => past.Date < today)
                    .Select(past => new Errand(
                        ErrandKind.Unmarked,
                        schoolClass.Id,
                        past.Date,
                        null,
                        schoolClass.Name,
                        $"{Said(past.Date)} is not marked yet."
                    ))
            );
            if (material is not null)
            {
                errands.AddRange(
                    PlanErrands(schoolClass, running.Plans.GetValueOrDefault(schoolClass.Id), material, today)
                );
            }

            errands.AddRange(
                PeopleErrands(
                    schoolClass,
                    taught.CohortsOf(schoolClass.Id),
                    facts,
                    taught.Postures,
                    unwritten,
                    coming,
                    today
                )
            );
        }

        errands.AddRange(
            from item in await SafetyEndpoints.OpenAsync(db, taught, running.Plans, today, cancel)
            group item by (item.StudentId, item.Student, item.ClassId, item.Class) into same
            select new Errand(
                ErrandKind.Unsafe,
                same.Key.ClassId,
                same.First().First,
                same.Key.StudentId,
                same.Key.Class,
                $"{(actor.SeesLimits ? "Settle" : "Ask")} how {same.Key.Student} does {string.Join(", ", same.Select(item => item.Posture))}, from {Said(same.First().First)}."
            )
        );
        return TypedResults.Ok<IReadOnlyList<Errand>>([.. errands.OrderBy(errand => errand.Kind)]);
    }

    private static IEnumerable<Errand> PlanErrands(
        SchoolClass schoolClass,
        PlannedTerm? planned,
        TermMaterial material,
        DateOnly today
    )
    {
        if (planned is null)
        {
            return
            [
                new(
                    ErrandKind.Unplanned,
                    schoolClass.Id,
                    null,
                    null,
                    schoolClass.Name,
                    $"{material.Classes.Term.Name} is not planned yet."
                ),
            ];
        }

        var now = TermProblemLoader.State(material, schoolClass, today);
        List<Errand> errands = PlanInForce.StillHolds(planned.Problem, planned.Plan, now.Problem)
            ? []
            :
            [
                new(
                    ErrandKind.OutOfDate,
                    schoolClass.Id,
                    null,
                    null,
                    schoolClass.Name,
                    "Something changed since the term was planned. Plan it again."
                ),
            ];
        foreach (
            var (cohort, plan) in planned
                .Problem.Cohorts.Zip(planned.Plan.Cohorts)
                .Where(pair => pair.Second.LeftOver.Count > 0)
        )
        {
            var minutes = plan.LeftSeconds.Minutes;
            errands.Add(
                new(
                    ErrandKind.DoesNotFit,
                    schoolClass.Id,
                    null,
                    null,
                    schoolClass.Name,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{cohort.Name} has {minutes} minutes more than its lessons hold: {Listed(plan.LeftOver.Select(left => cohort.Units[left.Unit].Name))}."
                    )
                )
            );
        }

        return errands;
    }

    private static List<Errand> PeopleErrands(
        SchoolClass schoolClass,
        IReadOnlyList<Cohort> cohorts,
        ProgressBooks.Loaded facts,
        IReadOnlyDictionary<Guid, PostureOutline> postures,
        IReadOnlyDictionary<(Guid PostureId, Guid FaultId), string> unwritten,
        HashSet<string> coming,
        DateOnly today
    )
    {
        var students = facts
            .Students.Where(student => cohorts.Any(cohort => student.CohortIds.Contains(cohort.Id)))
            .ToList();
        var met = students.SelectMany(student => facts.Book.MetBy(student.Id)).Distinct().ToList();
        List<Errand> errands = [];
        foreach (var cohort in cohorts)
        {
            errands.AddRange(
                ReTeach
                    .Propose(cohort.Id, facts.In(cohort.Id), met, facts.Book)
                    .Where(proposal => !coming.Contains(ReTeachEndpoint.KeyOf(proposal)))
                    .Select(proposal => new Errand(
                        ErrandKind.ReTeach,
                        schoolClass.Id,
                        null,
                        null,
                        schoolClass.Name,
                        $"{proposal.Have} of {proposal.Observed} in {cohort.Name} have the same fault in {NameOf(proposal.Of)}: {proposal.Words}. Teach it again."
                    ))
            );
        }

        var corrections = (
            from student in students
            from of in facts.Book.MetBy(student.Id)
            from correction in facts.Book.StandingOf(student.Id, of).Corrections
            select (Student: student, Of: of, Correction: correction)
        ).ToList();
        errands.AddRange(
            from its in corrections
            where its.Correction is { Stuck: true, Weight: >= Weight.Shape }
            select new Errand(
                ErrandKind.Stuck,
                schoolClass.Id,
                null,
                its.Student.Id,
                schoolClass.Name,
                $"{its.Student.ShortName} is stuck in {NameOf(its.Of)}: {its.Correction.Words}. Seen {Times(its.Correction.TimesSeen)} since {Said(its.Correction.Since)}. Try another way."
            )
        );
        errands.AddRange(
            from its in corrections
            where its.Correction is { IsOpen: true, FaultId: not null }
            group its.Student by (its.Of.PostureId, its.Correction.FaultId!.Value) into same
            where unwritten.ContainsKey(same.Key)
            let have = same.Distinct().Count()
            select new Errand(
                ErrandKind.Unwritten,
                schoolClass.Id,
                null,
                null,
                schoolClass.Name,
                $"{postures[same.Key.PostureId].Name}: {unwritten[same.Key]}. Write what causes it and how it is mended; {have} {(have == 1 ? "has" : "have")} it open."
            )
            {
                PostureId = same.Key.PostureId,
            }
        );
        errands.AddRange(
            from student in students
            let seen = facts.Book.LastSeen(student.Id)
            where seen is not null && ProgressBook.IsLongUnseen(today.DayNumber - seen.Value.DayNumber)
            orderby seen
            select new Errand(
                ErrandKind.Unseen,
                schoolClass.Id,
                null,
                student.Id,
                schoolClass.Name,
                $"Nobody has watched {student.ShortName} for {today.DayNumber - seen!.Value.DayNumber} days."
            )
        );
        return errands;

        string NameOf(PostureSide of) => postures[of.PostureId].NameOn(of.Side);
    }

    /// <summary>Known faults that say neither what causes them nor how they are mended, such as those kept from a mark: what is
    /// seen of each.</summary>
    private static async Task<Dictionary<(Guid PostureId, Guid FaultId), string>> UnwrittenAsync(
        SchoolContext db,
        CancellationToken cancel
    ) =>
        (
            from posture in await db.Postures.AsNoTracking().Where(posture => !posture.Retired).ToListAsync(cancel)
            from fault in posture.Text.Faults
            where fault.Causes.Count == 0
            select (posture.Id, fault)
        ).ToDictionary(its => (its.Id, its.fault.Id), its => its.fault.Seen);

    private static string Said(DateOnly date) => date.ToString("d MMMM", CultureInfo.InvariantCulture);

    private static string Times(int count) =>
        count switch
        {
            1 => "once",
            2 => "twice",
            _ => $"{count} times",
        };

    private static string Listed(IEnumerable<string> names) =>
        names.ToList() is { Count: > 1 } list ? $"{string.Join("; ", list.SkipLast(1))} and {list[^1]}" : names.First();
}
