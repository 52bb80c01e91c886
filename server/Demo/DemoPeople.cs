using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.People;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;

namespace Zeitplan.Server.Demo;

/// <summary>The demo school's halls and staff, its ladder, classes and students, and what some of them must not be asked
/// for.</summary>
internal sealed class DemoPeople(DemoScene scene, UserManager<Account> accounts, string password)
{
    public async Task SchoolAsync()
    {
        var school = Core.School.Create(Guid.CreateVersion7(), "Heron Quay Tai Chi", "UTC", isDemo: true);
        school.Rewrite(
            new(school.Name, "Heron Quay", school.TimeZone, school.WeekStart, school.Dates, school.Decimals)
        );
        scene.Db.Schools.Add(school);
        await scene.Db.SaveChangesAsync();
        foreach (
            var (name, role, email) in new[]
            {
                ("Noor Adeyemi", StaffRole.Head, "head@heronquay.example"),
                ("Jonas Lindqvist", StaffRole.Instructor, "instructor@heronquay.example"),
                ("Odile Marchetti", StaffRole.Assistant, "assistant@heronquay.example"),
                ("Tamsin Okoro", StaffRole.Instructor, "tamsin@heronquay.example"),
            }
        )
        {
            (scene.Staff[name], scene.Roles[name]) = (Guid.CreateVersion7(), role);
            Doors.Through(
                await StaffEndpoints.AddWithPasswordAsync(
                    scene.Staff[name],
                    new(name, role),
                    email,
                    password,
                    scene.Db,
                    accounts
                )
            );
        }

        foreach (
            var (name, colour, halves) in new[]
            {
                ("Ivory", "#D9CCA6", false),
                ("Fern", "#6E8C4A", true),
                ("Copper", "#AE6A38", false),
                ("Garnet", "#7C2A3B", false),
                ("Slate", "#46515C", false),
            }
        )
        {
            scene.Sashes[name] = Guid.CreateVersion7();
            Doors.Through(
                await LadderEndpoints.Add(new(scene.Sashes[name], new(name, colour, halves, new())), scene.Db, default)
            );
        }

        OpenHours Hours(DayOfWeek day, int from, int to) => new(day, new(from, 0), new(to, 0));
        foreach (
            var hall in new HallText[]
            {
                new(
                    "Lower Hall",
                    14.0m,
                    10.5m,
                    20,
                    9.0m,
                    [.. Enum.GetValues<DayOfWeek>().Select(day => Hours(day, 8, 22))],
                    60
                ),
                new(
                    "Chapel Room",
                    8.2m,
                    6.4m,
                    12,
                    0m,
                    [
                        Hours(DayOfWeek.Monday, 17, 21),
                        Hours(DayOfWeek.Tuesday, 17, 21),
                        Hours(DayOfWeek.Thursday, 17, 21),
                    ],
                    24
                ),
                new(
                    "Quay Day-room",
                    7.5m,
                    6.0m,
                    16,
                    4.5m,
                    [Hours(DayOfWeek.Tuesday, 9, 13), Hours(DayOfWeek.Thursday, 9, 13)],
                    20
                ),
            }
        )
        {
            scene.Halls[hall.Name] = Guid.CreateVersion7();
            Doors.Through(await HallEndpoints.Add(new(scene.Halls[hall.Name], hall), scene.Db, default));
        }
    }

    /// <summary>What each level studies and asks, now that there is a form to study.</summary>
    public async Task LadderAsync()
    {
        foreach (
            var (name, weeks, lessons, accepts, stage, studies) in new (
                string,
                int,
                int,
                Accepts,
                Stage,
                (int From, int To, Half Half)[]
            )[]
            {
                ("Ivory", 12, 10, Accepts.Shape, Stage.Alone, [(1, 11, Half.None)]),
                ("Fern", 26, 20, Accepts.Shape, Stage.Alone, [(9, 17, Half.Newer), (18, 31, Half.Senior)]),
                ("Copper", 40, 32, Accepts.Finesse, Stage.Flowing, [(29, 43, Half.None)]),
                ("Garnet", 52, 40, Accepts.Finesse, Stage.Flowing, [(44, 64, Half.None)]),
                ("Slate", 104, 80, Accepts.Nothing, Stage.Settled, [(1, 75, Half.None)]),
            }
        )
        {
            var sash = await scene.Db.Sashes.AsNoTracking().SingleAsync(sash => sash.Name == name);
            var asks = new SashAsks
            {
                Weeks = weeks,
                Lessons = lessons,
                Accepts = accepts,
                Stage = stage,
                BothSides = name == "Slate",
                Layers =
                    name is "Ivory" ? [Layer.Feet, Layer.Hands]
                    : name is "Slate" ? [Layer.Feet, Layer.Waist, Layer.Hands, Layer.Gaze, Layer.Breath]
                    : [Layer.Feet, Layer.Waist, Layer.Hands],
                Studies =
                [
                    .. studies.Select(study => new Study(
                        scene.FormId,
                        scene.Positions[study.From - 1],
                        scene.Positions[study.To - 1],
                        study.Half
                    )),
                ],
                Postures =
                    name == "Ivory" ? [new(scene.Postures["Single Whip"], Stage.Follows, [], [Layer.Feet], null)] : [],
            };
            Doors.Through(
                await LadderEndpoints.Edit(
                    sash.Id,
                    new(new(sash.Name, sash.Colour, sash.HasHalves, asks), sash.Version),
                    scene.Db,
                    scene.Clock,
                    default
                )
            );
            scene.Db.ChangeTracker.Clear();
        }
    }

    public async Task ClassesAsync(DateOnly since)
    {
        scene.Time.GoTo(since);
        Doors.Through(
            await ClassEndpoints.Create(
                new(
                    scene.Evening,
                    new(
                        "Tuesday evening",
                        DayOfWeek.Tuesday,
                        new(18, 30),
                        90,
                        scene.Halls["Lower Hall"],
                        [scene.Staff["Noor Adeyemi"], scene.Staff["Jonas Lindqvist"], scene.Staff["Odile Marchetti"]],
                        []
                    )
                ),
                scene.Db,
                scene.Clock,
                default
            )
        );
        Doors.Through(
            await ClassEndpoints.Create(
                new(
                    scene.Morning,
                    new(
                        "Tuesday morning, seated",
                        DayOfWeek.Tuesday,
                        new(10, 30),
                        60,
                        scene.Halls["Quay Day-room"],
                        [scene.Staff["Tamsin Okoro"], scene.Staff["Noor Adeyemi"]],
                        []
                    )
                ),
                scene.Db,
                scene.Clock,
                default
            )
        );
        await CohortAsync(scene.Evening, "Ivory", "Ivory", Half.None, "standing", "#D9CCA6", beginners: true);
        await CohortAsync(scene.Evening, "Fern, newer", "Fern", Half.Newer, "standing", "#6E8C4A");
        await CohortAsync(scene.Evening, "Fern, senior", "Fern", Half.Senior, "standing", "#6E8C4A");
        await CohortAsync(scene.Evening, "Copper", "Copper", Half.None, "standing", "#AE6A38");
        await CohortAsync(scene.Evening, "Garnet", "Garnet", Half.None, "standing", "#7C2A3B");
        await CohortAsync(scene.Evening, "Rail group", null, Half.None, "supported", "#3E7C86");
        await CohortAsync(scene.Morning, "Chair group", null, Half.None, "seated", "#A3566B");
    }

    private async Task CohortAsync(
        Guid classId,
        string name,
        string? sash,
        Half half,
        string mode,
        string colour,
        bool beginners = false
    )
    {
        scene.Cohorts[name] = Guid.CreateVersion7();
        Doors.Through(
            await CohortEndpoints.Add(
                classId,
                new(
                    scene.Cohorts[name],
                    new(
                        name,
                        scene.Cohorts.Count,
                        sash is null ? null : scene.Sashes[sash],
                        half,
                        Mode.FromName(mode)!.Value,
                        colour,
                        beginners,
                        false
                    )
                ),
                scene.Db,
                scene.Clock,
                default
            )
        );
    }

    public async Task RosterAsync(DateOnly start)
    {
        scene.Time.GoTo(start);
        foreach (var (cohort, sash, half, since, names) in DemoRoster.All)
        {
            foreach (var (at, name) in names.Split(", ").Index())
            {
                var parts = name.Split(' ', 2);
                var joined = start.AddDays(-since - (7 * at));
                var id = Guid.CreateVersion7();
                Doors.Through(
                    await StudentEndpoints.Create(
                        new(
                            id,
                            new(
                                parts[0],
                                parts[1],
                                scene.Sashes[sash],
                                DemoRoster.StillNewer.Contains(name) ? Half.Newer : half,
                                [scene.Cohorts[cohort]],
                                joined,
                                DemoRoster.DetailsOf(name, cohort)
                            ),
                            cohort is "Ivory" or "Chair group" ? joined : start.AddDays(-since / 3)
                        ),
                        scene.Db,
                        scene.Clock,
                        default
                    )
                );
                scene.Students[name] = id;
                if (DemoRoster.LimitsOf(name) is ({ Count: > 0 } limits, var note))
                {
                    await LimitAsync(name, limits, note);
                }
            }
        }
    }

    private async Task LimitAsync(string name, IReadOnlyList<Limit> limits, string note)
    {
        scene.Db.ChangeTracker.Clear();
        var version = await scene
            .Db.Students.Where(student => student.Id == scene.Students[name])
            .Select(student => student.Version)
            .SingleAsync();
        Doors.Through(
            await LimitEndpoints.Edit(
                scene.Students[name],
                new(limits, note, version),
                scene.Db,
                scene.Head,
                scene.Clock,
                default
            )
        );
        scene.Db.ChangeTracker.Clear();
    }

    /// <summary>How some people do what their cohort does otherwise, settled by those who teach them; one is left to be
    /// settled.</summary>
    public async Task AdaptAsync()
    {
        foreach (
            var (name, posture, mode, words) in new[]
            {
                ("Beatrix Osei", "Part Foot", "supported", "with toe down"),
                ("Beatrix Osei", "Heel Kick", "supported", "with toe down"),
                ("Yusuf Demirel", "Step Back", "seated", "drawing the foot back on the spot"),
            }
        )
        {
            Doors.Through(
                await SafetyEndpoints.Decide(
                    scene.Students[name],
                    new(Guid.CreateVersion7(), scene.Postures[posture], mode, words),
                    scene.Db,
                    scene.Head,
                    scene.Clock,
                    default
                )
            );
        }
    }
}
