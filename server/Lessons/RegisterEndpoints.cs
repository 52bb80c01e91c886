using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>The register of one lesson: who was there, what was taught, what was seen. Facts are added, never
/// changed.</summary>
internal static class RegisterEndpoints
{
    public sealed record AttendanceRequest(IReadOnlyList<AttendanceMark> Marks);

    /// <param name="Seen">When somebody said so, where that was not just now; see <see cref="AskedLesson.SaidAt"/>.</param>
    public sealed record AttendanceMark(Guid Id, Guid StudentId, bool Present, DateTimeOffset? Seen = null);

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
        decimal? Minutes,
        DateTimeOffset? Seen = null
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
        Weight? Weight,
        DateTimeOffset? Seen = null
    );

    public static void Map(ByRank api)
    {
        var lesson = api.Group("/classes/{classId:guid}/lessons/{date}")
            .Each(lessons => lessons.OpensFirst().ProducesProblem(409));
        lesson.Anyone.MapGet("/register", RegisterView.Read).WithName("register");
        lesson.Anyone.MapPost("/attendance", TakeAttendance).WithName("takeAttendance");
        lesson.Teacher.MapPost("/taught", SayWhatWasTaught).WithName("sayWhatWasTaught");
        lesson.Anyone.MapPost("/observations", Observe).WithName("observe");
        api.Anyone.MapPost("/observations/{id:guid}/withdrawal", Withdraw)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .WithName("withdraw");
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> TakeAttendance(
        [AsParameters] AskedLesson asked,
        AttendanceRequest request,
        CancellationToken cancel
    )
    {
        var (classId, date, db) = (asked.ClassId, asked.Date, asked.Db);
        List<Problem> problems =
        [
            .. await CheckStudentsAsync(request.Marks.Select(mark => mark.StudentId), classId, date, db, cancel),
            .. CheckHeld(asked),
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
                asked.Actor.StaffId,
                asked.SaidAt(mark.Seen)
            ))
            .ToList();
        return await AppendOnly.AddAsync(db, facts, cancel);
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> SayWhatWasTaught(
        [AsParameters] AskedLesson asked,
        TaughtRequest request,
        CancellationToken cancel
    )
    {
        var (classId, date, db) = (asked.ClassId, asked.Date, asked.Db);
        var postures = await PosturesAsync(
            db,
            request.Marks.SelectMany(mark => new[] { mark.PostureId, mark.From?.PostureId ?? mark.PostureId }),
            cancel
        );
        var cohorts = await CohortsAsync(db, classId, cancel);
        List<Problem> problems =
        [
            .. CheckHeld(asked),
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
                asked.Actor.StaffId,
                asked.SaidAt(mark.Seen)
            ))
            .ToList();
        return await AppendOnly.AddAsync(db, facts, cancel);
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Observe(
        [AsParameters] AskedLesson asked,
        ObservationsRequest request,
        CancellationToken cancel
    )
    {
        var (classId, date, db) = (asked.ClassId, asked.Date, asked.Db);
        var postures = await PosturesAsync(db, request.Marks.Select(mark => mark.PostureId), cancel);
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
                asked.Actor.StaffId,
                asked.SaidAt(mark.Seen)
            ))
            .ToList();
        List<Problem> problems =
        [
            .. CheckHeld(asked),
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

        return await AppendOnly.AddAsync(db, observations, cancel);
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

    private static Task<List<Guid>> CohortsAsync(SchoolContext db, Guid classId, CancellationToken cancel) =>
        db.Cohorts.Where(cohort => cohort.ClassId == classId).Select(cohort => cohort.Id).ToListAsync(cancel);

    private static async Task<Dictionary<Guid, Posture>> PosturesAsync(
        SchoolContext db,
        IEnumerable<Guid> named,
        CancellationToken cancel
    )
    {
        var ids = named.Distinct().ToList();
        return await db
            .Postures.AsNoTracking()
            .Where(posture => ids.Contains(posture.Id))
            .ToDictionaryAsync(posture => posture.Id, cancel);
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
        var cohorts = await CohortsAsync(db, classId, cancel);
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

    private static IEnumerable<Problem> CheckHeld(AskedLesson asked) =>
        asked.Date > asked.Today ? [new("date", "This lesson has not been held yet.")] : [];
}
