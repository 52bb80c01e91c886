using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Terms;

namespace Zeitplan.Server.Demo;

/// <summary>
/// Heron Quay Tai Chi: a made-up school whose term is in its fifth week, with four lessons behind it and two terms before
/// that. Everything enters through the same endpoints as a head's own data, with a clock that walks through the weeks.
/// </summary>
internal sealed class DemoSchool(SchoolContext db, UserManager<Account> accounts, DateOnly today, string password)
{
    private readonly DemoScene scene = new(db);

    /// <summary>Term weeks run from Wednesday to Tuesday, so that whatever the day, four Tuesdays lie behind and the
    /// fifth week is the current one.</summary>
    private DateOnly FifthTuesday => today.AddDays((((int)DayOfWeek.Tuesday - (int)today.DayOfWeek) + 7) % 7);

    public async Task FillAsync()
    {
        var start = FifthTuesday.AddDays(-34);
        DateOnly[] earlier = [start.AddDays(-2 * 16 * 7), start.AddDays(-16 * 7)];
        scene.Time.GoTo(earlier[0].AddDays(-30));
        var people = new DemoPeople(scene, accounts, password);
        await people.SchoolAsync();
        await FormAsync();
        await people.LadderAsync();
        await people.ClassesAsync(start.AddDays(-500));
        await people.RosterAsync(start);

        var history = new DemoHistory(scene, new(start));
        await history.WriteWhatIsKnownAsync();
        foreach (var (at, first) in earlier.Index())
        {
            scene.Time.GoTo(first.AddDays(-4));
            var before = await TermAsync(first, weeks: 13, closedWeek: 6);
            // What lies below a level was learned before anybody wrote it down here: it was taken up again, not taught.
            await AssignAsync(
                before,
                first.AddDays(70),
                Purpose.Refine,
                ("Fern, newer", 1, 8),
                ("Fern, senior", 1, 17),
                ("Copper", 1, 28),
                ("Garnet", 1, 34)
            );
            await PlanAsync(before);
            await history.TeachAsync(first, weeks: 13, outOfSightFrom: 13, seed: 6 + at, known: true);
        }

        scene.Time.GoTo(start.AddDays(-4));
        var term = await TermAsync(start, weeks: 13, closedWeek: 8);
        await AssignAsync(
            term,
            start.AddDays(69),
            Purpose.New,
            ("Ivory", 1, 11),
            ("Fern, newer", 9, 17),
            ("Fern, senior", 18, 31),
            ("Copper", 29, 43),
            ("Garnet", 44, 51),
            ("Rail group", 1, 8),
            ("Chair group", 1, 7),
            ("Chair group", 16, 23)
        );
        await KeepAsync(term, start.AddDays(90), "Garnet", "Lamp Form");
        await PlanAsync(term);
        await people.AdaptAsync();
        await history.TeachAsync(start, weeks: 4, outOfSightFrom: 2, seed: 11, known: false);
        await history.PractiseAtHomeAsync(start.AddDays((7 * 3) - 1), start.AddDays((7 * 4) - 1));
        scene.Time.GoTo(today, hour: 0);
        await PlanAsync(term);
    }

    /// <summary>The starter catalogue is the school's, and the long form what everybody works on.</summary>
    private async Task FormAsync()
    {
        Doors.Through(await LibraryEndpoints.TakeOver(scene.Db, default));
        scene.Db.ChangeTracker.Clear();
        foreach (var posture in await scene.Db.Postures.AsNoTracking().ToListAsync())
        {
            scene.Postures[posture.Name] = posture.Id;
        }

        var form = await scene.Db.Forms.AsNoTracking().SingleAsync(form => form.Name == "Lantern Form");
        scene.FormId = form.Id;
        scene.Positions.AddRange(form.Positions.Select(position => position.Id));

        var school = await scene.Db.Schools.SingleAsync();
        school.Adopt(
            Teaching.Default with
            {
                WarmUp =
                [
                    new("ankles and knees", 2),
                    new("Waist Turning", 2, scene.Postures["Waist Turning"]),
                    new("shoulders, elbows and wrists", 2),
                    new("neck, turning only", 1),
                    new("Weight Shifting", 3, scene.Postures["Weight Shifting"]),
                ],
            }
        );
        await scene.Db.SaveChangesAsync();
        scene.Db.ChangeTracker.Clear();
    }

    private async Task<Guid> TermAsync(DateOnly start, int weeks, int closedWeek)
    {
        var id = Guid.CreateVersion7();
        var end = start.AddDays((7 * weeks) - 1);
        var closed = start.AddDays((7 * closedWeek) - 1);
        Doors.Through(
            await TermEndpoints.Create(
                new(id, NameOf(start.AddDays(45)), start, end, [new(closed, "Halls closed")], [end]),
                scene.Db,
                default
            )
        );
        return id;

        static string NameOf(DateOnly middle) =>
            $"{(middle.Month switch { >= 3 and <= 5 => "Spring", >= 6 and <= 8 => "Summer", >= 9 and <= 11 => "Autumn", _ => "Winter" })} term";
    }

    private async Task AssignAsync(
        Guid termId,
        DateOnly target,
        Purpose purpose,
        params (string Cohort, int From, int To)[] segments
    )
    {
        foreach (var (cohort, from, to) in segments)
        {
            await GiveAsync(
                termId,
                cohort,
                scene.FormId,
                scene.Positions[from - 1],
                scene.Positions[to - 1],
                target,
                purpose
            );
        }
    }

    /// <summary>A form is not to be lost, but for its closing.</summary>
    private async Task KeepAsync(Guid termId, DateOnly until, string cohort, string name)
    {
        var form = await scene.Db.Forms.AsNoTracking().SingleAsync(form => form.Name == name);
        await GiveAsync(termId, cohort, form.Id, form.Positions[0].Id, form.Positions[^2].Id, until, Purpose.Maintain);
    }

    private async Task GiveAsync(
        Guid termId,
        string cohort,
        Guid form,
        Guid from,
        Guid to,
        DateOnly target,
        Purpose purpose
    )
    {
        var had = await scene
            .Db.Assignments.AsNoTracking()
            .SingleOrDefaultAsync(given => given.TermId == termId && given.CohortId == scene.Cohorts[cohort]);
        Doors.Through(
            await AssignmentEndpoints.Assign(
                termId,
                scene.Cohorts[cohort],
                new(
                    [.. had?.Segments ?? [], new(Guid.CreateVersion7(), form, from, to, target, purpose, [])],
                    had?.Version
                ),
                scene.Db,
                default
            )
        );
        scene.Db.ChangeTracker.Clear();
    }

    private async Task PlanAsync(Guid termId)
    {
        foreach (var classId in new[] { scene.Evening, scene.Morning })
        {
            Doors.Through(
                await PlanEndpoints.Plan(
                    await Doors.OpenAsync(new AskedStep(termId, classId, null, scene.Db, scene.Head, scene.Clock)),
                    default
                )
            );
            scene.Db.ChangeTracker.Clear();
            var draft = await scene
                .Db.Drafts.Where(plan => plan.TermId == termId && plan.ClassId == classId)
                .Select(plan => plan.Id)
                .SingleAsync();
            Doors.Through(
                await PlanEndpoints.Announce(
                    await Doors.OpenAsync(new AskedStep(termId, classId, draft, scene.Db, scene.Head, scene.Clock)),
                    default
                )
            );
            scene.Db.ChangeTracker.Clear();
        }

        scene.Db.ChangeTracker.Clear();
    }
}
