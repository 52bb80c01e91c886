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

    /// <param name="From">Of a link, the posture it leads on from.</param>
    /// <param name="Mode">The common name of the mode it was done in; null for as they usually take part.</param>
    /// <param name="PrincipleId">The principle it is about; the posture is then where it was seen.</param>
    /// <param name="InRunThrough">It was seen inside a run-through, and not by itself; what flows always was.</param>
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
        DateTimeOffset? Seen = null,
        PostureSide? From = null,
        string? Mode = null,
        Guid? PrincipleId = null,
        bool? InRunThrough = null
    );

    public sealed record WaysRequest(IReadOnlyList<WayMark> Marks);

    /// <param name="From">Of a link, the posture it leads on from.</param>
    /// <param name="FaultId">Of the correction; null where that is in own words.</param>
    /// <param name="Words">What the correction says.</param>
    /// <param name="Cause">The cause it was meant for, as it reads; null where nobody said.</param>
    /// <param name="Done">False takes it back.</param>
    /// <param name="PrincipleId">Of a correction against a principle.</param>
    public sealed record WayMark(
        Guid Id,
        Guid StudentId,
        Guid PostureId,
        Side Side,
        PostureSide? From,
        Guid? FaultId,
        string Words,
        Way Way,
        string? Cause,
        bool Done,
        DateTimeOffset? Seen = null,
        Guid? PrincipleId = null
    );

    public static void Map(ByRank api)
    {
        var lesson = api.Group("/classes/{classId:guid}/lessons/{date}")
            .Each(lessons => lessons.OpensFirst().ProducesProblem(409));
        lesson.Anyone.MapGet("/register", RegisterView.Read).WithName("register");
        lesson.Anyone.MapPost("/attendance", TakeAttendance).WithName("takeAttendance");
        lesson.Teacher.MapPost("/taught", SayWhatWasTaught).WithName("sayWhatWasTaught");
        lesson.Anyone.MapPost("/observations", Observe).WithName("observe");
        lesson.Anyone.MapPost("/ways", TryWays).WithName("tryWays");
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
            .. await RegisterChecks.StudentsAsync(asked, request.Marks.Select(mark => mark.StudentId), cancel),
            .. RegisterChecks.Held(asked),
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
        var cohorts = await RegisterChecks.CohortsAsync(db, classId, cancel);
        List<Problem> problems =
        [
            .. RegisterChecks.Held(asked),
            .. request
                .Marks.Index()
                .Where(item => !cohorts.Contains(item.Item.CohortId))
                .Select(item => new Problem($"marks[{item.Index}].cohortId", "This cohort is not in the class.")),
            .. await RegisterChecks.AboutAsync(
                [.. request.Marks.Select(mark => (new PostureSide(mark.PostureId, mark.Side), mark.From, (Guid?)null))],
                db,
                cancel
            ),
            .. request
                .Marks.Index()
                .Where(item => item.Item.Kind == UnitKind.Link != item.Item.From is not null)
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
            )
            {
                FromId = mark.From?.PostureId,
                FromSide = mark.From?.Side,
                Mode = mark.Mode is { } name ? Mode.FromName(name) : null,
                PrincipleId = mark.PrincipleId,
                InRunThrough = mark.InRunThrough == true || mark.Stage == Stage.Flowing,
            })
            .ToList();
        List<Problem> problems =
        [
            .. RegisterChecks.Held(asked),
            .. await RegisterChecks.StudentsAsync(asked, request.Marks.Select(mark => mark.StudentId), cancel),
            .. await RegisterChecks.PrinciplesAsync(db, [.. request.Marks.Select(mark => mark.PrincipleId)], cancel),
            .. observations.Index().SelectMany(observation => observation.Item.Check($"marks[{observation.Index}]")),
            .. await RegisterChecks.AboutAsync(
                [
                    .. request.Marks.Select(mark =>
                        (new PostureSide(mark.PostureId, mark.Side), mark.From, mark.FaultId)
                    ),
                ],
                db,
                cancel
            ),
            .. request
                .Marks.Index()
                .Where(mark => mark.Item.Mode is { } name && Mode.FromName(name) is null)
                .Select(mark => new Problem(
                    $"marks[{mark.Index}].mode",
                    $"A mode is {string.Join(", ", Mode.Named.Select(mode => mode.Name))}."
                )),
        ];
        return problems.Count > 0 ? Refusals.Invalid(problems) : await AppendOnly.AddAsync(db, observations, cancel);
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> TryWays(
        [AsParameters] AskedLesson asked,
        WaysRequest request,
        CancellationToken cancel
    )
    {
        var (classId, date, db) = (asked.ClassId, asked.Date, asked.Db);
        var ways = request
            .Marks.Select(mark => new WayTried(
                mark.Id,
                classId,
                date,
                mark.StudentId,
                mark.PostureId,
                mark.Side,
                mark.FaultId,
                mark.Words.Trim(),
                mark.Way,
                mark.Cause?.Trim() ?? "",
                mark.Done,
                asked.Actor.StaffId,
                asked.SaidAt(mark.Seen)
            )
            {
                FromId = mark.From?.PostureId,
                FromSide = mark.From?.Side,
                PrincipleId = mark.PrincipleId,
            })
            .ToList();
        List<Problem> problems =
        [
            .. RegisterChecks.Held(asked),
            .. await RegisterChecks.StudentsAsync(asked, request.Marks.Select(mark => mark.StudentId), cancel),
            .. await RegisterChecks.PrinciplesAsync(db, [.. request.Marks.Select(mark => mark.PrincipleId)], cancel),
            .. ways.Index().SelectMany(way => way.Item.Check($"marks[{way.Index}]")),
            .. await RegisterChecks.AboutAsync(
                [
                    .. request.Marks.Select(mark =>
                        (new PostureSide(mark.PostureId, mark.Side), mark.From, mark.FaultId)
                    ),
                ],
                db,
                cancel
            ),
        ];
        return problems.Count > 0 ? Refusals.Invalid(problems) : await AppendOnly.AddAsync(db, ways, cancel);
    }

    internal static async Task<Results<NoContent, ProblemHttpResult>> Withdraw(
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
}
