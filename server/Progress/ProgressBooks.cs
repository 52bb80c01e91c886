using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;

namespace Zeitplan.Server.Progress;

/// <summary>Loads the facts about the students of some cohorts.</summary>
internal static class ProgressBooks
{
    /// <param name="Cohorts">For each student the cohort among those asked for: the one they join for once, or else their
    /// own.</param>
    public sealed record Loaded(
        Facts Facts,
        DateOnly Today,
        IReadOnlyList<Student> Students,
        IReadOnlyDictionary<Guid, Guid> Cohorts
    )
    {
        public ProgressBook Book { get; } =
            new(
                Students.ToDictionary(student => student.Id, student => student.Places),
                Facts.Attendance,
                Facts.Taught,
                Facts.Observations,
                Today,
                Students.ToDictionary(
                    student => student.Id,
                    student =>
                        Facts.Syllabus.Entry.By(
                            student.Levels.Count > 0 ? student.Levels[0] : null,
                            [.. Facts.Corrected[student.Id]]
                        )
                ),
                Facts.Tried,
                Students.ToDictionary(student => student.Id, student => UsualOf(student, Cohorts, Facts.Modes))
            );

        /// <summary>The mode somebody takes part in where they are looked at; somebody who left, in their own. Whoever joins
        /// others for once does it as at home, where that is more adapted.</summary>
        private static Mode UsualOf(
            Student student,
            IReadOnlyDictionary<Guid, Guid> cohorts,
            IReadOnlyDictionary<Guid, Mode> modes
        )
        {
            var home = student.CohortIds.FirstOrDefault();
            var here = cohorts.TryGetValue(student.Id, out var cohort) ? cohort : home;
            var mode = modes.GetValueOrDefault(here, Mode.Standing);
            return student.ModeIn(
                student.CohortIds.Contains(here)
                    ? mode
                    : Mode.MoreAdapted(mode, modes.GetValueOrDefault(home, Mode.Standing))
            );
        }

        /// <summary>Everybody with their own cohorts, and whoever joins others for once with those alone.</summary>
        public IReadOnlyList<TakesPart> TakingPart(IReadOnlyCollection<Cohort> cohorts)
        {
            var joining = Students
                .Where(student => Cohorts.TryGetValue(student.Id, out var its) && !student.CohortIds.Contains(its))
                .ToList();
            return
            [
                .. TakesPart.In(cohorts, [.. Students.Except(joining)]),
                .. joining.Select(student => new TakesPart(
                    student,
                    Cohorts[student.Id],
                    UsualOf(student, Cohorts, Facts.Modes)
                )),
            ];
        }

        /// <summary>What was known on the eve of a day.</summary>
        public Loaded Before(DateOnly date) => new(Facts.Before(date), date, Students, Cohorts);

        /// <summary>What was known at the end of a day.</summary>
        public Loaded On(DateOnly date) => new(Facts.Before(date.AddDays(1)), date, Students, Cohorts);

        public IReadOnlyList<Guid> In(Guid cohortId) =>
            [.. Students.Where(student => student.CohortIds.Contains(cohortId)).Select(student => student.Id)];
    }

    /// <param name="Observations">None withdrawn.</param>
    /// <param name="Tried">What was done about corrections.</param>
    /// <param name="Modes">The mode of every cohort.</param>
    /// <param name="Corrected">What the head has said about that, by student.</param>
    public sealed record Facts(
        IReadOnlyList<Attendance> Attendance,
        IReadOnlyList<TaughtFact> Taught,
        IReadOnlyList<Observation> Observations,
        IReadOnlyList<WayTried> Tried,
        IReadOnlyDictionary<Guid, Mode> Modes,
        Syllabus Syllabus,
        ILookup<Guid, TakenOverFact> Corrected
    )
    {
        public Facts Before(DateOnly date) =>
            new(
                [.. Attendance.Where(fact => fact.Date < date)],
                [.. Taught.Where(fact => fact.Date < date)],
                [.. Observations.Where(fact => fact.Date < date)],
                [.. Tried.Where(fact => fact.Date < date)],
                Modes,
                Syllabus,
                Corrected
            );
    }

    /// <param name="before">Only facts about lessons before this date; null for all of them.</param>
    /// <param name="joining">Who is with one of these cohorts for once that is not theirs, and with which.</param>
    public static async Task<Loaded> LoadAsync(
        SchoolContext db,
        IReadOnlyCollection<Guid> cohorts,
        DateOnly today,
        CancellationToken cancel,
        DateOnly? before = null,
        IReadOnlyDictionary<Guid, Guid>? joining = null
    )
    {
        var students = await db.StudentsIn(cohorts).AsNoTracking().ToListAsync(cancel);
        joining = Joining(joining, cohorts);
        if (joining.Count == 0)
        {
            return await OfAsync(db, students, cohorts, today, cancel, before);
        }

        students.AddRange(await StrangersAsync(db, joining.Keys.Except(students.Select(its => its.Id)), cancel));
        return new(
            await FactsAsync(db, students, before ?? DateOnly.MaxValue, cancel),
            today,
            students,
            students.ToDictionary(
                student => student.Id,
                student =>
                    joining.TryGetValue(student.Id, out var its) ? its : student.CohortIds.First(cohorts.Contains)
            )
        );
    }

    /// <summary>A group that is gone by now is nobody's.</summary>
    private static Dictionary<Guid, Guid> Joining(
        IReadOnlyDictionary<Guid, Guid>? asked,
        IReadOnlyCollection<Guid> cohorts
    ) => (asked ?? new Dictionary<Guid, Guid>()).Where(its => cohorts.Contains(its.Value)).ToDictionary();

    private static async Task<List<Student>> StrangersAsync(
        SchoolContext db,
        IEnumerable<Guid> students,
        CancellationToken cancel
    )
    {
        var ids = students.ToList();
        return await db
            .Students.AsNoTracking()
            .Where(student => ids.Contains(student.Id) && student.Erased == null)
            .ToListAsync(cancel);
    }

    /// <param name="students">Who learns in one of the cohorts now.</param>
    public static async Task<Loaded> OfAsync(
        SchoolContext db,
        IReadOnlyList<Student> students,
        IReadOnlyCollection<Guid> cohorts,
        DateOnly today,
        CancellationToken cancel,
        DateOnly? before = null
    ) =>
        new(
            await FactsAsync(db, students, before ?? DateOnly.MaxValue, cancel),
            today,
            students,
            students.ToDictionary(student => student.Id, student => student.CohortIds.First(cohorts.Contains))
        );

    /// <summary>Whoever was in these cohorts on a day: who has moved since, or left, is among them, and who came later
    /// is not.</summary>
    /// <param name="guests">Whoever else had part in the lesson, such as for a trial; their first cohort is
    /// theirs.</param>
    /// <param name="joining">Who was with one of these cohorts for once, and with which.</param>
    public static async Task<Loaded> LoadOnAsync(
        SchoolContext db,
        IReadOnlyCollection<Guid> cohorts,
        DateOnly date,
        IReadOnlySet<Guid> guests,
        IReadOnlyDictionary<Guid, Guid> joining,
        DateOnly today,
        CancellationToken cancel
    )
    {
        if (date >= today)
        {
            return await LoadAsync(db, cohorts, today, cancel, joining: joining);
        }

        joining = Joining(joining, cohorts);
        var ever = await db.StudentsEverIn(cohorts).AsNoTracking().ToListAsync(cancel);
        ever.AddRange(await StrangersAsync(db, joining.Keys.Except(ever.Select(its => its.Id)), cancel));
        var there = ever.Select(student =>
                (
                    Student: student,
                    Cohort: joining.TryGetValue(student.Id, out var its) ? its
                    : student.Places.Any(place => place.Covers(date)) || guests.Contains(student.Id)
                        ? Place.On(student.Places, date).FirstOrDefault(cohorts.Contains)
                    : Guid.Empty
                )
            )
            .Where(at => at.Cohort != Guid.Empty)
            .ToList();
        var students = there.Select(at => at.Student).ToList();
        return new(
            await FactsAsync(db, students, DateOnly.MaxValue, cancel),
            today,
            students,
            there.ToDictionary(at => at.Student.Id, at => at.Cohort)
        );
    }

    /// <summary>One student, wherever they learn or have learned.</summary>
    public static async Task<Loaded> LoadOneAsync(
        SchoolContext db,
        Student student,
        DateOnly today,
        CancellationToken cancel
    ) =>
        new(await FactsAsync(db, [student], DateOnly.MaxValue, cancel), today, [student], new Dictionary<Guid, Guid>());

    private static async Task<Facts> FactsAsync(
        SchoolContext db,
        IReadOnlyList<Student> students,
        DateOnly limit,
        CancellationToken cancel
    )
    {
        var ids = students.Select(student => student.Id).ToList();
        var attendance = await db
            .Attendance.AsNoTracking()
            .Where(fact => ids.Contains(fact.StudentId) && fact.Date < limit)
            .ToListAsync(cancel);
        var classes = attendance.Select(fact => fact.ClassId).Distinct().ToList();
        var said = await db
            .TaughtFacts.AsNoTracking()
            .Where(fact => classes.Contains(fact.ClassId) && fact.Date < limit)
            .ToListAsync(cancel);
        var observations = await db
            .StandingObservations.AsNoTracking()
            .Where(observation => ids.Contains(observation.StudentId) && observation.Date < limit)
            .ToListAsync(cancel);
        var tried = await db
            .WaysTried.AsNoTracking()
            .Where(way => ids.Contains(way.StudentId) && way.Date < limit)
            .ToListAsync(cancel);
        var corrected = await db
            .TakenOverFacts.AsNoTracking()
            .Where(fact => ids.Contains(fact.StudentId))
            .ToListAsync(cancel);
        return new(
            attendance,
            said,
            observations,
            tried,
            await ModesAsync(db, cancel),
            await SyllabusAsync(db, cancel),
            corrected.ToLookup(fact => fact.StudentId)
        );
    }

    private static Task<Dictionary<Guid, Mode>> ModesAsync(SchoolContext db, CancellationToken cancel) =>
        db.Cohorts.AsNoTracking().ToDictionaryAsync(cohort => cohort.Id, cohort => cohort.Mode, cancel);

    /// <summary>What can be asked of everybody, as those who teach them have settled it.</summary>
    public static async Task<IReadOnlyDictionary<Guid, Learner>> LearnersAsync(
        SchoolContext db,
        Loaded loaded,
        CancellationToken cancel
    )
    {
        var ids = loaded.Students.Select(student => student.Id).ToList();
        var settled = Adaptation
            .Latest(
                await db
                    .Adaptations.AsNoTracking()
                    .Where(decision => ids.Contains(decision.StudentId))
                    .ToListAsync(cancel)
            )
            .ToLookup(decision => decision.StudentId);
        return loaded.Students.ToDictionary(
            student => student.Id,
            student => new Learner(student.Id, loaded.Book.UsualOf(student.Id), student.Limits)
            {
                Settled = settled[student.Id].ToDictionary(decision => decision.PostureId),
            }
        );
    }

    /// <summary>What has helped with these faults in the whole school (domain.md 4.5), whoever has them; only what may be
    /// claimed.</summary>
    public static async Task<ILookup<Guid, Helpful>> HelpfulAsync(
        SchoolContext db,
        IReadOnlyCollection<Guid> faults,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var tried = (
            await db
                .WaysTried.AsNoTracking()
                .Where(way => way.FaultId != null && faults.Contains(way.FaultId.Value))
                .ToListAsync(cancel)
        ).ToLookup(way => (way.StudentId, way.Key));
        var (students, postures) = (
            tried.Select(ways => ways.Key.StudentId).Distinct().ToList(),
            tried.Select(ways => ways.Key.Key.PostureId).Distinct().ToList()
        );
        var seen = await db
            .StandingObservations.AsNoTracking()
            .Where(fact =>
                students.Contains(fact.StudentId) && postures.Contains(fact.PostureId) && fact.PrincipleId == null
            )
            .ToListAsync(cancel);
        return seen.GroupBy(fact => (fact.StudentId, fact.Key))
            .SelectMany(facts => Standing.Of([], facts, today, tried: [.. tried[facts.Key]]).Corrections)
            .Where(correction => correction.FaultId is not null)
            .GroupBy(correction => correction.FaultId!.Value)
            .SelectMany(same => Helpful.Among(same).Select(way => (Fault: same.Key, Way: way)))
            .ToLookup(way => way.Fault, way => way.Way);
    }

    /// <summary>The ladder with the forms it studies, and what tables need of every posture.</summary>
    public sealed record Syllabus(
        IReadOnlyList<SashLevel> Ladder,
        IReadOnlyDictionary<Guid, Form> Forms,
        IReadOnlyDictionary<Guid, PostureOutline> Outlines
    )
    {
        /// <summary>What it asks of whoever enters above its bottom.</summary>
        public TakenOver Entry { get; } = new(Ladder, Forms, Outlines);
    }

    private static async Task<Syllabus> SyllabusAsync(SchoolContext db, CancellationToken cancel)
    {
        var ladder = await db.Sashes.AsNoTracking().ToListAsync(cancel);
        var studied = ladder.SelectMany(sash => sash.Asks.Studies).Select(study => study.FormId).Distinct().ToList();
        return new(
            ladder,
            await db
                .Forms.AsNoTracking()
                .Where(form => studied.Contains(form.Id))
                .ToDictionaryAsync(form => form.Id, cancel),
            await Material.OutlinesAsync(db, cancel)
        );
    }
}
