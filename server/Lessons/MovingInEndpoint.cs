using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>
/// The way from an empty school to a planned first term: what is done and what is open, in the order in which each step
/// has what it needs. Read off what is there, so that a step can be left, taken up again and undone anywhere.
/// </summary>
internal static class MovingInEndpoint
{
    /// <summary>The steps, in their order.</summary>
    public enum Step
    {
        School,
        Password,
        Halls,
        Ladder,
        Material,
        People,
        Classes,
        TakenOver,
        Term,
        Assign,
        Plan,
    }

    /// <param name="Says">What is there, or what is missing.</param>
    public sealed record StepView(Step Step, bool Done, string Says);

    /// <param name="PutAside">The head has had enough of being shown it.</param>
    public sealed record Response(IReadOnlyList<StepView> Steps, bool PutAside);

    public sealed record PutAsideRequest(bool PutAside);

    public static void Map(ByRank api)
    {
        api.Head.MapGet("/moving-in", Read).WithName("movingIn");
        api.Head.MapPut("/moving-in", PutAside).WithName("putMovingInAside");
        api.Head.MapPut("/moving-in/taken-over", CheckTakenOver).WithName("checkTakenOver");
    }

    private static async Task<NoContent> PutAside(PutAsideRequest request, SchoolContext db, CancellationToken cancel)
    {
        var school = await db.Schools.SingleAsync(cancel);
        school.MoveIn(request.PutAside);
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    /// <summary>The head has looked through what people came with, and it is right.</summary>
    private static async Task<NoContent> CheckTakenOver(SchoolContext db, CancellationToken cancel)
    {
        var school = await db.Schools.SingleAsync(cancel);
        school.CheckTakenOver();
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<Response>> Read(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        var today = await clock.TodayAsync(cancel);
        var classes = await actor.ClassesAsync(db, today, cancel);
        var cohorts = await db.Cohorts.AsNoTracking().ToListAsync(cancel);
        var term = await CurrentTerm.FindAsync(db, today, cancel);
        return TypedResults.Ok(
            new Response(
                [
                    OfSchool(school),
                    await OfPasswordAsync(db, actor, cancel),
                    Counted(
                        Step.Halls,
                        await db.Halls.CountAsync(cancel),
                        "hall",
                        "Width and depth are enough to begin with."
                    ),
                    Counted(
                        Step.Ladder,
                        await db.Sashes.CountAsync(cancel),
                        "level",
                        "Which sashes you have, from the first up."
                    ),
                    Counted(
                        Step.Material,
                        await db.Forms.CountAsync(cancel),
                        "form",
                        "Take over the starter catalogue, read in a file, or write a form yourself."
                    ),
                    Counted(
                        Step.People,
                        await db.Students.CountAsync(student => student.Erased == null, cancel),
                        "student",
                        "From a spreadsheet, or one by one from a paper list."
                    ),
                    OfClasses(classes, cohorts),
                    await OfTakenOverAsync(db, school, cancel),
                    term is null
                        ? new(Step.Term, false, "When it runs, when nobody meets, when there are tests.")
                        : new(Step.Term, true, term.Name),
                    await OfAssignmentsAsync(db, term, classes, cohorts, cancel),
                    await OfPlansAsync(db, term, classes, cancel),
                ],
                school.MovedIn
            )
        );
    }

    private static StepView OfSchool(Core.School school) =>
        (school.Name, school.TimeZone) switch
        {
            ({ Length: > 0 } name, { } zone) => new(
                Step.School,
                true,
                string.Join(", ", new[] { name, school.Place, zone }.Where(part => part.Length > 0))
            ),
            _ => new(
                Step.School,
                false,
                "What it is called and where it is: dates and calendars follow its time zone."
            ),
        };

    private static async Task<StepView> OfPasswordAsync(SchoolContext db, Actor actor, CancellationToken cancel) =>
        await db.Users.AnyAsync(account => account.StaffId == actor.StaffId && account.OwnPassword, cancel)
            ? new(Step.Password, true, "Your own")
            : new(Step.Password, false, "Choose your own, in place of the one you were given.");

    private static StepView OfClasses(IReadOnlyList<SchoolClass> classes, List<Cohort> cohorts)
    {
        var bare = classes.Where(its => !cohorts.Exists(cohort => cohort.ClassId == its.Id)).ToList();
        return (classes.Count, bare.Count) switch
        {
            (0, _) => new(Step.Classes, false, "When and where you meet, who teaches, and the cohorts in each class."),
            (_, > 0) => new(
                Step.Classes,
                false,
                $"{Listed(bare.Select(its => its.Name))} {Has(bare.Count)} no cohort yet."
            ),
            (var count, _) => new(
                Step.Classes,
                true,
                $"{Count(count, "class", "classes")}, {Count(cohorts.Count, "cohort")}"
            ),
        };
    }

    private static async Task<StepView> OfTakenOverAsync(SchoolContext db, Core.School school, CancellationToken cancel)
    {
        var ladder = await db.Sashes.OrderBy(sash => sash.Order).Select(sash => sash.Id).ToListAsync(cancel);
        var above = ladder.Skip(1).ToList();
        var bring = await db.Students.CountAsync(
            student => student.Left == null && (above.Contains(student.SashId) || student.Half == Half.Senior),
            cancel
        );
        return (school.TakenOverChecked, bring) switch
        {
            (true, _) => new(Step.TakenOver, true, "Looked through"),
            (_, 0) => new(
                Step.TakenOver,
                await db.Students.AnyAsync(cancel),
                "Whoever has a sash is held to know what lies below it."
            ),
            _ => new(
                Step.TakenOver,
                false,
                $"By their sashes {(bring == 1 ? "1 person is" : $"{bring} people are")} held to know what lies below. Say where that is not so."
            ),
        };
    }

    private static async Task<StepView> OfAssignmentsAsync(
        SchoolContext db,
        Term? term,
        IReadOnlyList<SchoolClass> classes,
        List<Cohort> cohorts,
        CancellationToken cancel
    )
    {
        var ids = classes.Select(its => its.Id).ToHashSet();
        var learning = cohorts.Where(cohort => ids.Contains(cohort.ClassId)).OrderBy(cohort => cohort.Order).ToList();
        if (term is null || learning.Count == 0)
        {
            return new(Step.Assign, false, "Which part of which form is for whom.");
        }

        var given = await db
            .Assignments.AsNoTracking()
            .Where(assignment => assignment.TermId == term.Id)
            .Select(assignment => assignment.CohortId)
            .ToListAsync(cancel);
        var without = learning.Where(cohort => !given.Contains(cohort.Id)).ToList();
        return without.Count == 0
            ? new(Step.Assign, true, "Every cohort has its material")
            : new(
                Step.Assign,
                false,
                $"{Listed(without.Select(cohort => cohort.Name))} {Has(without.Count)} nothing to learn yet."
            );
    }

    private static async Task<StepView> OfPlansAsync(
        SchoolContext db,
        Term? term,
        IReadOnlyList<SchoolClass> classes,
        CancellationToken cancel
    )
    {
        if (term is null || classes.Count == 0)
        {
            return new(Step.Plan, false, "Spread over the weeks, within your teachers’ minutes.");
        }

        var announced = await PlanEndpoints.AnnouncedAsync(db, term.Id, [.. classes.Select(its => its.Id)], cancel);
        var without = classes.Where(its => !announced.ContainsKey(its.Id)).ToList();
        return without.Count == 0
            ? new(Step.Plan, true, "Planned and announced")
            : new(
                Step.Plan,
                false,
                $"{Listed(without.Select(its => its.Name))} {Has(without.Count)} no announced plan yet."
            );
    }

    private static StepView Counted(Step step, int count, string of, string missing) =>
        count == 0 ? new(step, false, missing) : new(step, true, Count(count, of));

    private static string Has(int count) => count == 1 ? "has" : "have";

    private static string Count(int count, string one, string? many = null) =>
        $"{count} {(count == 1 ? one : many ?? one + "s")}";

    private static string Listed(IEnumerable<string> names) =>
        names.ToList() is { Count: > 1 } list ? $"{string.Join(", ", list.SkipLast(1))} and {list[^1]}" : names.First();
}
