using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>What a lesson leaves to be decided: who missed what was new, and who has not been seen.</summary>
internal static class LookBackEndpoint
{
    /// <param name="Next">The class's next lesson in the term; null where this was the last.</param>
    /// <param name="Missed">What was introduced while somebody was away and is not made up for, of this lesson first.</param>
    /// <param name="Overlooked">Who was there in their last two lessons and seen in neither.</param>
    /// <param name="WatchMinutes">How many minutes of watching it takes to see them.</param>
    /// <param name="KeptMinutes">How many the plan keeps for watching in the next lesson already.</param>
    /// <param name="Again">What was taught again in the weeks before, and whether it helped.</param>
    /// <param name="ClassVersion">From which minutes are kept.</param>
    public sealed record Response(
        Guid ClassId,
        string Class,
        DateOnly Date,
        int Number,
        Guid TermId,
        DateOnly? Next,
        IReadOnlyList<MissedItem> Missed,
        IReadOnlyList<Unseen> Overlooked,
        int WatchMinutes,
        int KeptMinutes,
        IReadOnlyList<AgainItem> Again,
        uint ClassVersion
    );

    /// <param name="Had">So many had it open on the eve of that lesson.</param>
    /// <param name="Better">Of those, seen better or clean since.</param>
    /// <param name="Same">Seen again since, and no better; of the others nobody has looked.</param>
    public sealed record AgainItem(
        string Cohort,
        string Name,
        string Words,
        DateOnly Date,
        int Had,
        int Better,
        int Same
    );

    /// <summary>So long something that was taught again is asked after.</summary>
    private const int DaysAskedAfter = 42;

    /// <param name="Again">A third of the cohort has still not been shown it: better introduced again.</param>
    /// <param name="AgainMinutes">How long introducing it again takes; null where the plan does not know it.</param>
    /// <param name="CanShow">Who may teach it to them, such as before class.</param>
    /// <param name="Recording">Where the school's own recording of it is; null where there is none.</param>
    public sealed record MissedItem(
        Guid CohortId,
        string Cohort,
        Guid PostureId,
        Side Side,
        PostureSide? From,
        string Name,
        DateOnly Date,
        IReadOnlyList<AwayPerson> Away,
        int Absent,
        int Of,
        bool Again,
        int? AgainMinutes,
        IReadOnlyList<Shows> CanShow,
        string? Recording
    );

    /// <summary>Whoever may teach something.</summary>
    public sealed record Shows(Guid Id, string Name);

    /// <param name="ShownSince">They were there when it was taught again, and nobody has watched them do it.</param>
    public sealed record AwayPerson(Guid StudentId, string Name, bool ShownSince);

    /// <param name="Days">Since somebody last watched them; null for never.</param>
    public sealed record Unseen(Guid StudentId, string Name, string Cohort, int? Days);

    public static void Map(ByRank api) =>
        api.Group("/classes/{classId:guid}/lessons/{date}")
            .Each(lessons => lessons.OpensFirst())
            .Anyone.MapGet("/look-back", Read)
            .WithName("lookBack");

    private static async Task<Ok<Response>> Read([AsParameters] AskedLesson asked, CancellationToken cancel)
    {
        var (db, lesson, date) = (asked.Db, asked.Lesson, asked.Date);
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == asked.ClassId)
            .ToDictionaryAsync(cohort => cohort.Id, cohort => cohort.Name, cancel);
        var facts = await ProgressBooks.LoadAsync(db, cohorts.Keys, asked.Today, cancel);
        var attendance = ProgressBook
            .Latest(facts.Facts.Attendance.Where(fact => fact.ClassId == asked.ClassId))
            .ToList();
        var outlines = facts.Facts.Syllabus.Outlines;
        // Who may lead what is known where the lesson can be arranged.
        var plan = await asked.PlanAsync(cancel);
        var problem = (await ArrangingLoader.LoadAsync(db, lesson, plan, [], asked.Today, cancel))?.Problem;
        var students = facts.Students.ToDictionary(student => student.Id);
        var missed = MissedIntroduction.In(
            ProgressBook.Records(
                facts.Facts.Taught.Where(fact =>
                    fact.ClassId == asked.ClassId && fact.Date >= lesson.Term.Start && fact.Date <= date
                )
            ),
            students.ToDictionary(student => student.Key, student => student.Value.Places),
            attendance,
            facts.Book
        );
        var missedPostures = missed.Select(its => its.Of.PostureId).ToHashSet();
        var recordings = (
            await db
                .Postures.AsNoTracking()
                .Where(posture => missedPostures.Contains(posture.Id))
                .Select(posture => new { posture.Id, posture.Text })
                .ToListAsync(cancel)
        )
            .Where(posture => posture.Text.Recording.Length > 0)
            .ToDictionary(posture => posture.Id, posture => posture.Text.Recording);
        var next = await NextAsync();
        // Whoever has been seen since needs no looking after any more.
        var overlooked = FairEyes
            .Overlooked(attendance, facts.Facts.Observations, date)
            .Where(student => students.ContainsKey(student) && !(facts.Book.LastSeen(student) > date))
            .ToList();
        return TypedResults.Ok(
            new Response(
                asked.ClassId,
                lesson.Class.Name,
                date,
                lesson.Day.Number!.Value,
                lesson.Term.Id,
                next?.Date,
                [.. missed.Where(its => cohorts.ContainsKey(its.CohortId)).Select(ShowMissed)],
                [
                    .. overlooked
                        .Select(ShowUnseen)
                        .OrderByDescending(unseen => unseen.Days ?? int.MaxValue)
                        .ThenBy(unseen => unseen.Name),
                ],
                FairEyes.MinutesToSee(overlooked.Count, (problem?.Rules ?? LessonRules.Default).SeenAMinute),
                next?.WatchMinutes ?? 0,
                [.. (await TaughtAgainAsync()).OrderByDescending(again => again.Date)],
                lesson.Class.Version
            )
        );

        // The first one into which something can still be put.
        async Task<LessonDay?> NextAsync()
        {
            foreach (
                var day in LessonCalendar
                    .Of(lesson.Term, lesson.Class)
                    .Where(day => day.Closed is null && day.Date > date && day.Date >= asked.Today)
            )
            {
                if (!await db.WasHeldAsync(asked.ClassId, day.Date, cancel))
                {
                    return day;
                }
            }

            return null;
        }

        async Task<IEnumerable<AgainItem>> TaughtAgainAsync()
        {
            var from = date.AddDays(-DaysAskedAfter);
            var kept = await db
                .Arrangements.AsNoTracking()
                .Where(kept => kept.ClassId == asked.ClassId && kept.Date > from && kept.Date <= date)
                .ToListAsync(cancel);
            return from evening in kept
                from block in evening
                    .Arrangement.Blocks.Where(block => block is { Kind: BlockKind.ReTeach, Material.Count: > 0 })
                    .DistinctBy(block => (block.CohortId, block.Material[0]))
                where block.CohortId is { } id && cohorts.ContainsKey(id)
                let of = block.Material[0]
                let eve = facts.Before(evening.Date)
                let judged = PlannedLesson.IsADifference(block.Task)
                    ? TaughtAgain.OfDifference(
                        facts.In(block.CohortId!.Value),
                        of,
                        outlines[of.PostureId].Changes,
                        (eve.Book, evening.Date),
                        (facts.Book, facts.Today)
                    )
                    : TaughtAgain.Of(facts.In(block.CohortId!.Value), of, evening.Date, eve.Book, facts.Book)
                where judged is not null
                select new AgainItem(
                    cohorts[block.CohortId!.Value],
                    outlines[of.PostureId].NameOn(of.Side),
                    judged.Words,
                    evening.Date,
                    judged.Had,
                    judged.Better,
                    judged.Same
                );
        }

        MissedItem ShowMissed(MissedIntroduction its) =>
            new(
                its.CohortId,
                cohorts[its.CohortId],
                its.Of.PostureId,
                its.Of.Side,
                its.Of.From(),
                its.Of.NameWith(of => outlines[of.PostureId].NameOn(of.Side)),
                its.Date,
                [
                    .. its
                        .Away.Select(away => new AwayPerson(
                            away.StudentId,
                            students[away.StudentId].ShortName,
                            away.ShownSince
                        ))
                        .OrderBy(away => away.Name, StringComparer.OrdinalIgnoreCase),
                ],
                its.Absent,
                its.Cohort,
                its.Again,
                plan.AskedOf(its.CohortId)?.Units.FirstOrDefault(unit => unit.Key == its.Of) is { } unit
                    ? (unit.IntroduceSeconds + 59) / 60
                    : null,
                [.. WhoMayLead(its.CohortId)],
                recordings.GetValueOrDefault(its.Of.PostureId)
            );

        IEnumerable<Shows> WhoMayLead(Guid cohortId) =>
            problem?.Cohorts.FirstOrDefault(cohort => cohort.Id == cohortId) is { } cohort
                ? problem
                    .Teachers.Where(teacher => teacher.MayLead(cohort))
                    .Select(teacher => new Shows(teacher.Id, teacher.Name))
                : [];

        Unseen ShowUnseen(Guid student) =>
            new(
                student,
                students[student].ShortName,
                cohorts[facts.Cohorts[student]],
                facts.Book.LastSeen(student) is { } seen ? asked.Today.DayNumber - seen.DayNumber : null
            );
    }
}
