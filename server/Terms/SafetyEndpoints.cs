using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.People;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>What is unsafe for whom in the coming lessons, until somebody has settled each.</summary>
internal static class SafetyEndpoints
{
    /// <param name="Breaks">What the cohort's way of doing it would ask for; empty for assistants.</param>
    /// <param name="Modes">The written versions that fit, the least adapted first.</param>
    /// <param name="ToWrite">The mode a version could be written in, where none fits.</param>
    /// <param name="Says">As it stands on plans and sheets.</param>
    /// <param name="Decided">How it was settled; null while it is open.</param>
    public sealed record Item(
        Guid StudentId,
        string Student,
        Guid ClassId,
        string Class,
        string Cohort,
        Guid PostureId,
        Side Side,
        string Posture,
        DateOnly First,
        IReadOnlyList<Demand> Breaks,
        IReadOnlyList<Way> Modes,
        string? ToWrite,
        bool Open,
        string Says,
        Settled? Decided
    );

    /// <param name="Mode">Null where the posture is left out.</param>
    public sealed record Settled(string? Mode, string Words);

    /// <param name="Words">What the version does instead.</param>
    public sealed record Way(string Mode, string Words);

    /// <param name="Mode">Null to leave the posture out.</param>
    public sealed record Decision(Guid Id, Guid PostureId, string? Mode, string Words);

    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/safety", Read).WithName("safety");
        api.Teacher.MapPost("/students/{id:guid}/adaptations", Decide)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("decideAdaptation");
    }

    /// <param name="studentId">Null for everybody whom whoever asks teaches.</param>
    private static async Task<Ok<IReadOnlyList<Item>>> Read(
        Guid? studentId,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        if (await CurrentTerm.FindAsync(db, today, cancel) is not { } term)
        {
            return TypedResults.Ok<IReadOnlyList<Item>>([]);
        }

        var classes = await TermClasses.LoadAsync(db, term, await actor.ClassesAsync(db, today, cancel), cancel);
        var announced = await PlanEndpoints.AnnouncedAsync(
            db,
            term.Id,
            [.. classes.Classes.Select(its => its.Id)],
            cancel
        );
        var found = (await FindAsync(db, classes, announced, today, cancel))
            .Where(item => studentId is null || item.StudentId == studentId)
            .ToList();
        if (actor.SeesLimits && found.Count > 0)
        {
            await LimitEndpoints.NoteReadingAsync(
                db,
                actor,
                clock,
                found.Select(item => item.StudentId).Distinct(),
                "what is unsafe in coming lessons",
                cancel
            );
        }

        return TypedResults.Ok<IReadOnlyList<Item>>([
            .. actor.SeesLimits ? found : found.Select(item => item with { Breaks = [] }),
        ]);
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Decide(
        Guid id,
        Decision request,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var mine = await StudentEndpoints.MineAsync(db, actor, clock, cancel);
        if (
            await mine.AsNoTracking().SingleOrDefaultAsync(s => s.Id == id && s.Erased == null, cancel)
            is not { } student
        )
        {
            return await db.Students.AnyAsync(s => s.Id == id, cancel)
                ? Refusals.Forbidden("This student is not one of yours.")
                : Refusals.NotFound("This student");
        }

        var outline = (await Material.OutlinesAsync(db, cancel)).GetValueOrDefault(request.PostureId);
        var decision = new Adaptation(
            request.Id,
            id,
            request.PostureId,
            request.Mode,
            request.Words.Trim(),
            actor.StaffId,
            clock.Now
        );
        List<Problem> problems =
        [
            .. outline is null ? [new Problem("postureId", "The school has no such posture.")] : Array.Empty<Problem>(),
            .. request.Words.Length > Problem.LongestText
                ? [new Problem("words", $"Keep this to {Problem.LongestText} characters.")]
                : Array.Empty<Problem>(),
            .. outline is not null && !Sides(outline).Any(side => Safety.Holds(decision, outline, side, student.Limits))
                ?
                [
                    new Problem(
                        "mode",
                        $"{outline.Name} {request.Mode} asks {student.ShortName} for something they must not be asked for, or has not been written."
                    ),
                ]
                : Array.Empty<Problem>(),
        ];
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        return await AppendOnly.AddAsync(db, [decision], cancel);

        static IEnumerable<Side> Sides(PostureOutline posture) =>
            posture.WrittenSide == Side.Symmetric ? [Side.Symmetric] : [Side.Left, Side.Right];
    }

    /// <summary>What nobody has settled yet.</summary>
    /// <param name="announced">By class.</param>
    public static async Task<IEnumerable<Item>> OpenAsync(
        SchoolContext db,
        TermClasses classes,
        IReadOnlyDictionary<Guid, PlannedTerm> announced,
        DateOnly today,
        CancellationToken cancel
    ) => (await FindAsync(db, classes, announced, today, cancel)).Where(item => item.Open);

    private static async Task<IReadOnlyList<Item>> FindAsync(
        SchoolContext db,
        TermClasses of,
        IReadOnlyDictionary<Guid, PlannedTerm> announced,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var adaptations = await db.Adaptations.AsNoTracking().ToListAsync(cancel);
        var drafted = await DraftedAsync(db, of, cancel);
        List<Item> items = [];
        foreach (var schoolClass in of.Classes)
        {
            var groups = of.CohortsOf(schoolClass.Id);
            var here = of.StudentsOf(groups);
            // Nothing waits for a plan to be announced before it is looked at.
            var plans = new[] { announced, drafted }.Select(some => some.GetValueOrDefault(schoolClass.Id));
            var coming = ComingLessons.Of(
                [.. plans.OfType<PlannedTerm>().Select(plan => plan.Solved)],
                of.Assigned(groups),
                today,
                LessonCalendar
                    .Of(of.Term, schoolClass)
                    .FirstOrDefault(day => day.Closed is null && day.Date >= today)
                    ?.Date
            );
            items.AddRange(
                Safety
                    .Of(TakesPart.In(groups, here), coming, of.Postures, adaptations)
                    .Select(found => Show(found, schoolClass, groups, here, of.Postures))
            );
        }

        return [.. items.OrderByDescending(item => item.Open).ThenBy(item => item.First)];
    }

    /// <returns>The newest draft of each class that has one.</returns>
    private static async Task<IReadOnlyDictionary<Guid, PlannedTerm>> DraftedAsync(
        SchoolContext db,
        TermClasses of,
        CancellationToken cancel
    )
    {
        var classes = of.Classes.Select(its => its.Id).ToList();
        var drafts = db.Drafts.AsNoTracking().Where(plan => plan.TermId == of.Term.Id);
        return await drafts
            .Where(plan =>
                classes.Contains(plan.ClassId)
                && !drafts.Any(later => later.ClassId == plan.ClassId && later.Id > plan.Id)
            )
            .ToDictionaryAsync(plan => plan.ClassId, cancel);
    }

    private static Item Show(
        UnsafeForOne found,
        SchoolClass schoolClass,
        IReadOnlyList<Cohort> cohorts,
        IReadOnlyList<Student> students,
        IReadOnlyDictionary<Guid, PostureOutline> outlines
    )
    {
        var (student, outline) = (
            students.Single(student => student.Id == found.StudentId),
            outlines[found.Of.PostureId]
        );
        var posture = outline.NameOn(found.Of.Side);
        return new(
            student.Id,
            student.ShortName,
            schoolClass.Id,
            schoolClass.Name,
            cohorts.Single(cohort => cohort.Id == found.CohortId).Name,
            found.Of.PostureId,
            found.Of.Side,
            posture,
            found.First,
            found.Breaks,
            [
                .. outline
                    .Versions.Where(version =>
                        (version.IsKnown || student.Limits.Count == 0)
                        && ModeChoice.Broken(version, outline, found.Of.Side, student.Limits).Count == 0
                    )
                    .OrderBy(version => version.Mode.Adapted)
                    .Select(version => new Way(version.Mode.Name, version.Replaces)),
            ],
            found.Best is ModeChoice.ToWrite write ? write.Mode.Name : null,
            found.IsOpen,
            Adaptation.Say(student.ShortName, posture, found.Decided),
            found.Decided is { } decided ? new(decided.Mode, decided.Words) : null
        );
    }
}
