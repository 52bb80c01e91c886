using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Server.Data;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>The lessons of a class, and the sheet of one.</summary>
internal static class LessonEndpoints
{
    public sealed record Item(
        Guid ClassId,
        string Class,
        DateOnly Date,
        int Number,
        LessonKind Kind,
        TimeOnly Start,
        int Minutes,
        string Hall,
        bool Past,
        bool Marked,
        IReadOnlyList<string> New
    );

    /// <param name="StepsToTurn">How many bow steps lead from one end of the hall to the other.</param>
    public sealed record Sheet(
        Guid ClassId,
        string Class,
        DateOnly Date,
        int Number,
        LessonKind Kind,
        TimeOnly Start,
        TimeOnly End,
        string Hall,
        int StepsToTurn,
        IReadOnlyList<string> Staff,
        bool Planned,
        IReadOnlyList<CohortSheet> Cohorts,
        IReadOnlyList<Care> Care,
        IReadOnlyList<string> Cautions
    );

    /// <param name="People">Who is in it, by name.</param>
    /// <param name="Attended">Somebody is beside it all lesson.</param>
    /// <param name="Passes">How something new is brought in to it.</param>
    /// <param name="Again">How what many share is taught again.</param>
    /// <param name="Material">What it meets in this lesson.</param>
    public sealed record CohortSheet(
        Guid CohortId,
        string Name,
        string Colour,
        Half Half,
        string Mode,
        IReadOnlyList<string> People,
        bool Attended,
        IReadOnlyList<Pass> Passes,
        IReadOnlyList<Pass> Again,
        IReadOnlyList<Material> Material,
        IReadOnlyList<string> Cautions
    );

    /// <param name="Facing">Where the posture ends in the form, degrees clockwise from its zero.</param>
    public sealed record Material(
        Guid PostureId,
        Side Side,
        string Name,
        string KeyPoint,
        IReadOnlyList<string> Cues,
        IReadOnlyList<string> Faults,
        IReadOnlyList<string> Cautions,
        int? Facing
    );

    /// <summary>Somebody who does a posture of this lesson otherwise than their cohort: the mode and the caution, never
    /// the limit behind it.</summary>
    /// <param name="How">Of the posture, as a block that is about it says it.</param>
    /// <param name="Open">Nobody has settled yet how they do it, so they leave it out.</param>
    public sealed record Care(
        string Student,
        Guid CohortId,
        Guid PostureId,
        Side Side,
        string How,
        string Says,
        bool Open
    );

    public static void Map(ByRank api)
    {
        api.Anyone.MapGet("/lessons", List).WithName("lessons");
        api.Anyone.MapGroup("/classes/{classId:guid}/lessons/{date}").OpensFirst().MapGet("", Read).WithName("lesson");
    }

    private static async Task<Ok<IReadOnlyList<Item>>> List(
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

        var halls = await db.Halls.ToDictionaryAsync(hall => hall.Id, hall => hall.Name, cancel);
        var classes = await actor.ClassesAsync(db, today, cancel);
        var ids = classes.Select(its => its.Id).ToList();
        var plans = await PlanEndpoints.AnnouncedAsync(db, term.Id, ids, cancel);
        var cohorts = await db.Cohorts.AsNoTracking().Where(cohort => ids.Contains(cohort.ClassId)).ToListAsync(cancel);
        var marked = await MarkedLessons.LoadAsync(db, term, classes, cohorts, plans, cancel);
        List<Item> items = [];
        foreach (var schoolClass in classes)
        {
            var planned = plans.GetValueOrDefault(schoolClass.Id);
            items.AddRange(
                LessonCalendar
                    .Of(term, schoolClass)
                    .Where(day => day.Closed is null)
                    .Select(day => new Item(
                        schoolClass.Id,
                        schoolClass.Name,
                        day.Date,
                        day.Number!.Value,
                        day.Kind,
                        day.Start,
                        day.Minutes,
                        halls[day.HallId],
                        day.Date < today,
                        marked[schoolClass.Id].Contains(day.Date),
                        planned?.Solved.NewOn(day.Date) ?? []
                    ))
            );
        }

        return TypedResults.Ok<IReadOnlyList<Item>>([.. items.OrderBy(item => item.Date).ThenBy(item => item.Start)]);
    }

    private static async Task<Ok<Sheet>> Read([AsParameters] AskedLesson asked, CancellationToken cancel)
    {
        var (db, today, lesson, plan) = (asked.Db, asked.Today, asked.Lesson, await asked.PlanAsync(cancel));
        var (classId, date) = (asked.ClassId, asked.Date);
        var hall = await db.Halls.AsNoTracking().SingleAsync(h => h.Id == lesson.Day.HallId, cancel);
        var teachers = lesson.Class.StaffOn(date);
        var staff = await db.Staff.AsNoTracking().Where(member => teachers.Contains(member.Id)).ToListAsync(cancel);
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == classId)
            .OrderBy(cohort => cohort.Order)
            .ToListAsync(cancel);
        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var facings = await FacingsAsync(db, cancel);
        var joining = await JoiningTonight.LoadAsync(asked, cancel);
        var facts = await ProgressBooks.LoadAsync(
            db,
            [.. cohorts.Select(cohort => cohort.Id)],
            today,
            cancel,
            joining: JoiningTonight.Of(joining)
        );
        var there = facts.TakingPart(cohorts);
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        var edits = await db
            .Arrangements.Where(kept => kept.ClassId == classId && kept.Date == date)
            .Select(kept => kept.Edits)
            .SingleOrDefaultAsync(cancel);
        List<LessonTask> tasks = [.. plan.Asks([], school.Teaching)?.Tasks ?? [], .. (edits ?? []).TaughtAgain()];
        var sheets = cohorts
            .Select(cohort =>
                ShowCohort(
                    plan,
                    tasks,
                    cohort,
                    [
                        .. there.Where(one => one.CohortId == cohort.Id).Select(one => one.Student.ShortName),
                        .. joining
                            .Where(joins => joins.CohortId == cohort.Id && joins.IsVisitor)
                            .Select(joins => joins.Name),
                    ],
                    school.Teaching,
                    postures,
                    facings
                )
            )
            .ToList();
        var touched = cohorts.ToDictionary(cohort => cohort.Id, cohort => plan.Touches(cohort.Id));
        return TypedResults.Ok(
            new Sheet(
                classId,
                lesson.Class.Name,
                date,
                lesson.Day.Number!.Value,
                lesson.Day.Kind,
                lesson.Day.Start,
                lesson.Day.End,
                hall.Name,
                HallFit.StepsBeforeTurning(
                    (double)hall.Depth,
                    HallFit.BowStepFeet,
                    (double)school.Conventions.FootMetres
                ),
                [
                    .. staff
                        .OrderByDescending(member => member.Role)
                        .ThenBy(member => member.Name)
                        .Select(member => member.Name),
                ],
                plan.At is not null,
                sheets,
                await CareForAsync(there, touched, date, db, cancel),
                Cautions.Always
            )
        );
    }

    private static CohortSheet ShowCohort(
        LessonPlan plan,
        IReadOnlyList<LessonTask> tasks,
        Cohort cohort,
        IReadOnlyList<string> people,
        Teaching teaching,
        IReadOnlyDictionary<Guid, Posture> postures,
        IReadOnlyDictionary<PostureSide, int> facings
    )
    {
        var led = tasks.Where(task => task.CohortIds.Contains(cohort.Id)).SelectMany(task => task.Material);
        return new(
            cohort.Id,
            cohort.Name,
            cohort.Colour,
            cohort.Half,
            cohort.Mode.Name,
            [.. people.Order(StringComparer.OrdinalIgnoreCase)],
            cohort.MustBeAttended || plan.At < plan.AskedOf(cohort.Id)?.AttendedLessons,
            teaching.For(cohort.Mode).Passes,
            teaching.AgainFor(cohort.Mode).Passes,
            [.. led.Concat(plan.Touches(cohort.Id)).Distinct().Select(Show)],
            Cautions.For(cohort.Mode)
        );

        Material Show(PostureSide of)
        {
            var posture = postures[of.PostureId];
            return new(
                of.PostureId,
                of.Side,
                posture.NameOn(of.Side),
                posture.On(of.Side, posture.KeyPoint),
                [.. (posture.CountsFor(cohort.Mode) ?? []).Select(count => posture.On(of.Side, count.Cue))],
                [.. posture.Faults.Select(fault => posture.On(of.Side, fault.Seen))],
                [.. posture.CautionsFor(cohort.Mode).Select(caution => posture.On(of.Side, caution))],
                facings.TryGetValue(of, out var facing) ? facing : null
            );
        }
    }

    private static async Task<Dictionary<PostureSide, int>> FacingsAsync(SchoolContext db, CancellationToken cancel)
    {
        var forms = await db.Forms.AsNoTracking().ToListAsync(cancel);
        return forms
            .SelectMany(form => form.Positions)
            .GroupBy(position => new PostureSide(position.PostureId, position.Side))
            .ToDictionary(same => same.Key, same => same.First().Facing.Degrees);
    }

    private static async Task<IReadOnlyList<Care>> CareForAsync(
        IReadOnlyList<TakesPart> there,
        IReadOnlyDictionary<Guid, IReadOnlyList<PostureSide>> touched,
        DateOnly date,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var outlines = await Forms.Material.OutlinesAsync(db, cancel);
        var names = there.Select(one => one.Student).Distinct().ToDictionary(its => its.Id, its => its.ShortName);
        return
        [
            .. (await CareTonight.OfAsync(db, there, touched, outlines, date, cancel)).Select(care => new Care(
                names[care.StudentId],
                care.CohortId,
                care.Of.PostureId,
                care.Of.Side,
                Adaptation.How(care.Decided),
                Adaptation.Say(names[care.StudentId], outlines[care.Of.PostureId].NameOn(care.Of.Side), care.Decided),
                care.IsOpen
            )),
        ];
    }
}
