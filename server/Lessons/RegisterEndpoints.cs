using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>The register of one lesson: who was there, what was taught, what was seen. Facts are added, never
/// changed.</summary>
internal static class RegisterEndpoints
{
    /// <param name="Recorded">Whether anything has been said about what was taught.</param>
    public sealed record Response(
        Guid ClassId,
        string Class,
        DateOnly Date,
        int Number,
        bool Held,
        bool Recorded,
        IReadOnlyList<CohortRegister> Cohorts,
        IReadOnlyList<StudentRow> Students
    );

    public sealed record CohortRegister(
        Guid CohortId,
        string Name,
        string Colour,
        Half Half,
        IReadOnlyList<Item> Items
    );

    /// <param name="Planned">Minutes the plan reckons with, for something new.</param>
    /// <param name="Took">Minutes it took, where somebody said so.</param>
    /// <param name="Taught">Whether it was taught; null while nobody has said so.</param>
    /// <param name="GoodEnough">What counts as good enough for the cohort's level; null for a group of no
    /// level.</param>
    /// <param name="AcceptedFaults">Faults the level still accepts.</param>
    public sealed record Item(
        Guid PostureId,
        Side Side,
        string Name,
        UnitKind Kind,
        PostureSide? From,
        TaughtHow How,
        bool? Taught,
        decimal? Planned,
        decimal? Took,
        IReadOnlyList<Fault> Faults,
        string? GoodEnough,
        IReadOnlyList<Guid> AcceptedFaults
    );

    /// <param name="Present">Null while attendance has not been taken.</param>
    public sealed record StudentRow(
        Guid StudentId,
        string Name,
        Guid CohortId,
        bool? Present,
        IReadOnlyList<Cell> Cells
    );

    /// <param name="Today">What was seen in this lesson, oldest first.</param>
    public sealed record Cell(
        Guid PostureId,
        Side Side,
        Stage Stage,
        bool Fading,
        Weight? Correction,
        IReadOnlyList<Seen> Today
    );

    public sealed record Seen(Guid Id, Sign Sign, Stage? Stage, string Words, Weight? Weight);

    public sealed record AttendanceRequest(IReadOnlyList<AttendanceMark> Marks);

    public sealed record AttendanceMark(Guid Id, Guid StudentId, bool Present);

    public sealed record TaughtRequest(IReadOnlyList<TaughtMark> Marks);

    /// <param name="From">With a link, the posture it leads on from.</param>
    public sealed record TaughtMark(
        Guid Id,
        Guid CohortId,
        Guid PostureId,
        Side Side,
        UnitKind Kind,
        PostureSide? From,
        TaughtHow How,
        bool Taught,
        decimal? Minutes
    );

    public sealed record ObservationsRequest(IReadOnlyList<Mark> Marks);

    public sealed record Mark(
        Guid Id,
        Guid StudentId,
        Guid PostureId,
        Side Side,
        Sign Sign,
        Stage? Stage,
        Guid? FaultId,
        string? Words,
        Weight? Weight
    );

    public static void Map(IEndpointRouteBuilder api)
    {
        var lesson = api.MapGroup("/classes/{classId:guid}/lessons/{date}")
            .RequireAuthorization(Policies.Anyone)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409);
        lesson.MapGet("/register", Read).WithName("register");
        lesson.MapPost("/attendance", TakeAttendance).WithName("takeAttendance");
        lesson.MapPost("/taught", SayWhatWasTaught).RequireAuthorization(Policies.Teacher).WithName("sayWhatWasTaught");
        lesson.MapPost("/observations", Observe).WithName("observe");
        api.MapPost("/observations/{id:guid}/withdrawal", Withdraw)
            .RequireAuthorization(Policies.Anyone)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .WithName("withdraw");
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        Guid classId,
        DateOnly date,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var (lesson, no) = await Lesson.FindAsync(classId, date, db, actor, clock, cancel);
        if (lesson is null)
        {
            return no!;
        }

        var today = await clock.TodayAsync(cancel);
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == classId)
            .OrderBy(cohort => cohort.Order)
            .ToListAsync(cancel);
        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var attendance = ProgressBook
            .Latest(
                await db
                    .Attendance.AsNoTracking()
                    .Where(fact => fact.ClassId == classId && fact.Date == date)
                    .ToListAsync(cancel)
            )
            .ToDictionary(fact => fact.StudentId, fact => fact.Present);
        var seen = (
            await db
                .StandingObservations.AsNoTracking()
                .Where(observation => observation.ClassId == classId && observation.Date == date)
                .ToListAsync(cancel)
        ).ToLookup(observation => (observation.StudentId, observation.Of));
        var guests = attendance.Keys.Concat(seen.Select(mark => mark.Key.StudentId)).ToHashSet();
        var facts = await ProgressBooks.LoadOnAsync(
            db,
            [.. cohorts.Select(cohort => cohort.Id)],
            date,
            guests,
            today,
            cancel
        );
        var record = ProgressBook
            .Records(
                await db
                    .TaughtFacts.AsNoTracking()
                    .Where(r => r.ClassId == classId && r.Date == date)
                    .ToListAsync(cancel)
            )
            .SingleOrDefault();

        var sashes = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, sash => sash.Asks, cancel);
        var registers = cohorts
            .Select(cohort => new CohortRegister(
                cohort.Id,
                cohort.Name,
                cohort.Colour,
                cohort.Half,
                Items(cohort.Id, lesson, record, postures, sashes.GetValueOrDefault(cohort.SashId ?? Guid.Empty))
            ))
            .ToList();
        var items = registers.ToDictionary(register => register.CohortId, register => register.Items);
        var order = cohorts.Index().ToDictionary(cohort => cohort.Item.Id, cohort => cohort.Index);
        return TypedResults.Ok(
            new Response(
                classId,
                lesson.Class.Name,
                date,
                lesson.Day.Number!.Value,
                date <= today,
                record is not null,
                registers,
                [
                    .. from student in facts.Students
                    let cohortId = facts.Cohorts[student.Id]
                    orderby order[cohortId], student.GivenName
                    select new StudentRow(
                        student.Id,
                        student.ShortName,
                        cohortId,
                        attendance.TryGetValue(student.Id, out var present) ? present : null,
                        [.. items[cohortId].Select(item => Show(student.Id, new(item.PostureId, item.Side)))]
                    ),
                ]
            )
        );

        Cell Show(Guid student, PostureSide of)
        {
            var standing = facts.Book.StandingOf(student, of);
            return new(
                of.PostureId,
                of.Side,
                standing.Stage,
                standing.Fading,
                standing.OpenWeight,
                [
                    .. seen[(student, of)]
                        .OrderBy(s => s.At)
                        .ThenBy(s => s.Id)
                        .Select(s => new Seen(s.Id, s.Sign, s.Stage, s.Words, s.Weight)),
                ]
            );
        }
    }

    /// <summary>What the plan holds for a cohort, with what was recorded besides: new first, then reviewed, then run
    /// through.</summary>
    private static List<Item> Items(
        Guid cohortId,
        Lesson lesson,
        LessonRecord? record,
        IReadOnlyDictionary<Guid, Posture> postures,
        SashAsks? asks
    )
    {
        var said = record?.Said.Where(fact => fact.CohortId == cohortId).ToDictionary(fact => fact.Item.Key) ?? [];
        var planned =
            lesson.Planned?.Solved.Asked(cohortId)?.Units.ToDictionary(unit => unit.Key, unit => unit.IntroduceSeconds)
            ?? [];
        var all = said
            .Values.Select(fact => fact.Item)
            .Concat(PlannedFor(cohortId, lesson))
            .DistinctBy(item => item.Key)
            .OrderBy(item => item.How);
        return
        [
            .. all.Select(item =>
            {
                var posture = postures[item.PostureId];
                var standard = asks?.For(item.PostureId, posture.Faults);
                var fact = said.GetValueOrDefault(item.Key);
                var name = item.From is { } from
                    ? TeachingUnit.LinkName(postures[from.PostureId].NameOn(from.Side), posture.NameOn(item.Side))
                    : posture.NameOn(item.Side);
                decimal? minutes =
                    item.How == TaughtHow.Introduced && planned.TryGetValue(item.Key, out var seconds)
                        ? School.Minutes.Of(seconds)
                        : null;
                return new Item(
                    item.PostureId,
                    item.Side,
                    name,
                    item.Kind,
                    item.From,
                    item.How,
                    fact?.Taught,
                    minutes,
                    fact?.Minutes,
                    [.. posture.Faults.Select(fault => posture.On(item.Side, fault))],
                    standard?.Say(),
                    standard?.AcceptedFaults ?? []
                );
            }),
        ];
    }

    /// <summary>What the plan puts into a lesson of a cohort.</summary>
    internal static IEnumerable<TaughtItem> PlannedFor(Guid cohortId, Lesson lesson)
    {
        var problem = lesson.Planned?.Problem.Cohorts.SingleOrDefault(c => c.Id == cohortId);
        var plan = lesson.Planned?.Plan.Cohorts.SingleOrDefault(c => c.CohortId == cohortId);
        return problem is null || plan is null || lesson.InPlan is not { } at
            ? []
            : (
                from placement in plan.Placements
                let unit = problem.Units[placement.Unit]
                let how = placement.Lesson == at ? TaughtHow.Introduced
                : placement.Reviews.Any(review => review.Lesson == at && !review.InRunThrough) ? TaughtHow.Reviewed
                : placement.Lesson < at && plan.Lessons[at].RunThroughSeconds > 0 ? TaughtHow.RunThrough
                : (TaughtHow?)null
                where how is not null
                select new TaughtItem(cohortId, unit.PostureId, unit.Side, how.Value)
                {
                    Kind = unit.Kind,
                    From = unit.From,
                }
            ).Concat(
                plan.Lessons[at].RunThroughSeconds == 0
                    ? []
                    : problem.Before.Select(of => new TaughtItem(cohortId, of.PostureId, of.Side, TaughtHow.RunThrough))
            );
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> TakeAttendance(
        Guid classId,
        DateOnly date,
        AttendanceRequest request,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var (lesson, no) = await Lesson.FindAsync(classId, date, db, actor, clock, cancel);
        if (lesson is null)
        {
            return no!;
        }

        List<Problem> problems =
        [
            .. await CheckStudentsAsync(request.Marks.Select(mark => mark.StudentId), classId, date, db, cancel),
            .. CheckHeld(date, await clock.TodayAsync(cancel)),
        ];
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var facts = request
            .Marks.Select(mark => new Attendance(
                mark.Id,
                classId,
                date,
                mark.StudentId,
                mark.Present,
                actor.StaffId,
                clock.Now
            ))
            .ToList();
        return await AppendOnly.AddAsync(
            db,
            db.Attendance,
            facts,
            fact => fact.Id,
            (kept, sent) => kept.SaysTheSame(sent),
            cancel
        )
            ? TypedResults.NoContent()
            : AppendOnly.Clash();
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> SayWhatWasTaught(
        Guid classId,
        DateOnly date,
        TaughtRequest request,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var (lesson, no) = await Lesson.FindAsync(classId, date, db, actor, clock, cancel);
        if (lesson is null)
        {
            return no!;
        }

        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var cohorts = await db
            .Cohorts.Where(cohort => cohort.ClassId == classId)
            .Select(cohort => cohort.Id)
            .ToListAsync(cancel);
        List<Problem> problems =
        [
            .. CheckHeld(date, await clock.TodayAsync(cancel)),
            .. request
                .Marks.Index()
                .Where(item => !cohorts.Contains(item.Item.CohortId))
                .Select(item => new Problem($"marks[{item.Index}].cohortId", "This cohort is not in the class.")),
            .. request
                .Marks.Index()
                .Where(item =>
                    !postures.TryGetValue(item.Item.PostureId, out var posture) || !posture.HasSide(item.Item.Side)
                )
                .Select(item => new Problem(
                    $"marks[{item.Index}].postureId",
                    "The school has no such posture on this side."
                )),
            .. request
                .Marks.Index()
                .Where(item =>
                    item.Item.Kind == UnitKind.Link
                        ? item.Item.From is not { } from
                            || !postures.TryGetValue(from.PostureId, out var posture)
                            || !posture.HasSide(from.Side)
                        : item.Item.From is not null
                )
                .Select(item => new Problem(
                    $"marks[{item.Index}].from",
                    "A link, and only a link, leads on from a posture of the school."
                )),
            .. request
                .Marks.Index()
                .Where(item => item.Item.Minutes is < 0.5m or > 120)
                .Select(item => new Problem(
                    $"marks[{item.Index}].minutes",
                    "Something takes between half a minute and two hours."
                )),
        ];
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        var facts = request
            .Marks.Select(mark => new TaughtFact(
                mark.Id,
                classId,
                date,
                mark.CohortId,
                mark.Kind,
                mark.PostureId,
                mark.Side,
                mark.From?.PostureId,
                mark.From?.Side,
                mark.How,
                mark.Taught,
                mark.Minutes,
                actor.StaffId,
                clock.Now
            ))
            .ToList();
        return await AppendOnly.AddAsync(
            db,
            db.TaughtFacts,
            facts,
            fact => fact.Id,
            (kept, sent) => kept.SaysTheSame(sent),
            cancel
        )
            ? TypedResults.NoContent()
            : AppendOnly.Clash();
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Observe(
        Guid classId,
        DateOnly date,
        ObservationsRequest request,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var (lesson, no) = await Lesson.FindAsync(classId, date, db, actor, clock, cancel);
        if (lesson is null)
        {
            return no!;
        }

        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var observations = request
            .Marks.Select(mark => new Observation(
                mark.Id,
                classId,
                date,
                mark.StudentId,
                mark.PostureId,
                mark.Side,
                mark.Sign,
                mark.Stage,
                mark.FaultId,
                mark.Words?.Trim() ?? "",
                mark.Weight,
                actor.StaffId,
                clock.Now
            ))
            .ToList();
        List<Problem> problems =
        [
            .. CheckHeld(date, await clock.TodayAsync(cancel)),
            .. await CheckStudentsAsync(request.Marks.Select(mark => mark.StudentId), classId, date, db, cancel),
            .. observations.Index().SelectMany(observation => observation.Item.Check($"marks[{observation.Index}]")),
            .. observations
                .Index()
                .Where(o => !postures.TryGetValue(o.Item.PostureId, out var posture) || !posture.HasSide(o.Item.Side))
                .Select(o => new Problem(
                    $"marks[{o.Index}].postureId",
                    "The school has no such posture on this side."
                )),
            .. observations
                .Index()
                .Where(o =>
                    o.Item.FaultId is { } fault
                    && postures.TryGetValue(o.Item.PostureId, out var posture)
                    && posture.Faults.All(known => known.Id != fault)
                )
                .Select(o => new Problem($"marks[{o.Index}].faultId", "This is no known fault of the posture.")),
        ];
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        return await AppendOnly.AddAsync(
            db,
            db.Observations,
            observations,
            observation => observation.Id,
            (kept, sent) => kept.SaysTheSame(sent),
            cancel
        )
            ? TypedResults.NoContent()
            : AppendOnly.Clash();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Withdraw(
        Guid id,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Observations.AsNoTracking().SingleOrDefaultAsync(o => o.Id == id, cancel) is not { } observation)
        {
            return Refusals.NotFound("This observation");
        }

        var schoolClass = await db.Classes.AsNoTracking().SingleAsync(c => c.Id == observation.ClassId, cancel);
        if (!actor.Teaches(schoolClass, await clock.TodayAsync(cancel)))
        {
            return Refusals.NotYours();
        }

        if (!actor.MayWithdraw(observation))
        {
            return Refusals.Forbidden("Only whoever saw this, or a teacher, can withdraw it.");
        }

        if (!await db.Withdrawals.AnyAsync(w => w.ObservationId == id, cancel))
        {
            db.Withdrawals.Add(new(Guid.CreateVersion7(clock.Now), id, actor.StaffId, clock.Now));
            await db.SaveChangesAsync(cancel);
        }

        return TypedResults.NoContent();
    }

    /// <summary>Whoever was in the class on the day, or is by now: a late mark may be about somebody who has
    /// moved.</summary>
    private static async Task<IEnumerable<Problem>> CheckStudentsAsync(
        IEnumerable<Guid> students,
        Guid classId,
        DateOnly date,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var cohorts = await db
            .Cohorts.Where(cohort => cohort.ClassId == classId)
            .Select(cohort => cohort.Id)
            .ToListAsync(cancel);
        var asked = students.ToList();
        var inClass = (
            await db
                .Students.AsNoTracking()
                .Where(student => asked.Contains(student.Id) && student.Erased == null)
                .Select(student => new
                {
                    student.Id,
                    student.CohortIds,
                    student.Places,
                })
                .ToListAsync(cancel)
        ).Where(student => student.CohortIds.Any(cohorts.Contains) || Place.On(student.Places, date).Any(cohorts.Contains)).Select(student => student.Id).ToHashSet();
        return asked
            .Index()
            .Where(student => !inClass.Contains(student.Item))
            .Select(student => new Problem($"marks[{student.Index}].studentId", "This student is not in the class."));
    }

    private static IEnumerable<Problem> CheckHeld(DateOnly date, DateOnly today) =>
        date > today ? [new("date", "This lesson has not been held yet.")] : [];
}
