using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.People;
using Zeitplan.Server.School;
using Zeitplan.Server.Terms;

namespace Zeitplan.Server.Demo;

/// <summary>
/// Heron Quay Tai Chi: a made-up school whose term is in its fifth week, with four lessons behind it and a term before
/// that. Everything enters through the same endpoints as a head's own data, with a clock that walks through the weeks.
/// </summary>
internal sealed class DemoSchool(SchoolContext db, UserManager<Account> accounts, DateOnly today, string password)
{
    private readonly WalkingTime time = new();
    private readonly Dictionary<string, Guid> sashes = [];
    private readonly Dictionary<string, Guid> halls = [];
    private readonly Dictionary<string, Guid> staff = [];
    private readonly Dictionary<string, Guid> cohorts = [];
    private readonly Dictionary<string, Guid> students = [];
    private readonly Dictionary<string, Guid> postures = [];
    private readonly List<Guid> positions = [];
    private Guid formId;
    private readonly Guid evening = Guid.CreateVersion7();
    private readonly Guid morning = Guid.CreateVersion7();

    private SchoolClock Clock => new(db, time);
    private Actor Head => new(staff["Noor Adeyemi"], StaffRole.Head);

    /// <summary>Term weeks run from Wednesday to Tuesday, so that whatever the day, four Tuesdays lie behind and the
    /// fifth week is the current one.</summary>
    private DateOnly FifthTuesday => today.AddDays((((int)DayOfWeek.Tuesday - (int)today.DayOfWeek) + 7) % 7);

    public async Task FillAsync()
    {
        var start = FifthTuesday.AddDays(-34);
        var earlier = start.AddDays(-16 * 7);
        time.GoTo(earlier.AddDays(-30));
        await SchoolAsync();
        await FormAsync();
        await LadderAsync();
        await ClassesAsync(start.AddDays(-500));
        await RosterAsync(start);

        var history = new DemoHistory(db, time, Clock, [evening, morning], cohorts, postures, staff);
        time.GoTo(earlier.AddDays(-4));
        var earlierTerm = await TermAsync(earlier, weeks: 13, closedWeek: 6);
        await AssignAsync(
            earlierTerm,
            earlier.AddDays(70),
            ("Fern, newer", 1, 8),
            ("Fern, senior", 1, 17),
            ("Copper", 1, 28),
            ("Garnet", 1, 34)
        );
        await PlanAsync(earlierTerm);
        await history.TeachAsync(earlier, weeks: 13, outOfSightFrom: 13, seed: 7);

        time.GoTo(start.AddDays(-4));
        var term = await TermAsync(start, weeks: 13, closedWeek: 8);
        await AssignAsync(
            term,
            start.AddDays(69),
            ("Ivory", 1, 11),
            ("Fern, newer", 9, 17),
            ("Fern, senior", 18, 31),
            ("Copper", 29, 43),
            ("Garnet", 44, 51),
            ("Rail group", 1, 8),
            ("Chair group", 1, 7),
            ("Chair group", 16, 23)
        );
        await PlanAsync(term);
        await AdaptAsync();
        await history.TeachAsync(start, weeks: 4, outOfSightFrom: 2, seed: 11);
        await history.TellStoriesAsync(start);
        time.GoTo(today, hour: 0);
        await PlanAsync(term);
    }

    private async Task SchoolAsync()
    {
        db.Schools.Add(Core.People.School.Create(Guid.CreateVersion7(), "Heron Quay Tai Chi", "UTC", isDemo: true));
        await db.SaveChangesAsync();
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
            staff[name] = Guid.CreateVersion7();
            Doors.Through(
                await HallEndpoints.AddStaff(new(staff[name], name, role, email, password), db, accounts, default)
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
            sashes[name] = Guid.CreateVersion7();
            Doors.Through(await LadderEndpoints.Add(new(sashes[name], new(name, colour, halves, new())), db, default));
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
            halls[hall.Name] = Guid.CreateVersion7();
            Doors.Through(await HallEndpoints.Add(new(halls[hall.Name], hall), db, default));
        }
    }

    /// <summary>What each level studies and asks, now that there is a form to study.</summary>
    private async Task LadderAsync()
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
            var sash = await db.Sashes.AsNoTracking().SingleAsync(one => one.Name == name);
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
                        formId,
                        positions[study.From - 1],
                        positions[study.To - 1],
                        study.Half
                    )),
                ],
                Postures = name == "Ivory" ? [new(postures["Single Whip"], Stage.Follows, [], [Layer.Feet], null)] : [],
            };
            Doors.Through(
                await LadderEndpoints.Edit(
                    sash.Id,
                    new(new(sash.Name, sash.Colour, sash.HasHalves, asks), sash.Version),
                    db,
                    Clock,
                    default
                )
            );
            db.ChangeTracker.Clear();
        }
    }

    /// <summary>The starter catalogue is the school's, and the long form what everybody works on.</summary>
    private async Task FormAsync()
    {
        Doors.Through(await LibraryEndpoints.TakeOver(db, default));
        db.ChangeTracker.Clear();
        foreach (var posture in await db.Postures.AsNoTracking().ToListAsync())
        {
            postures[posture.Name] = posture.Id;
        }

        var form = await db.Forms.AsNoTracking().SingleAsync(form => form.Name == "Lantern Form");
        formId = form.Id;
        positions.AddRange(form.Positions.Select(position => position.Id));
    }

    private async Task ClassesAsync(DateOnly since)
    {
        time.GoTo(since);
        Doors.Through(
            await ClassEndpoints.Create(
                new(
                    evening,
                    new(
                        "Tuesday evening",
                        DayOfWeek.Tuesday,
                        new(18, 30),
                        90,
                        halls["Lower Hall"],
                        [staff["Noor Adeyemi"], staff["Jonas Lindqvist"], staff["Odile Marchetti"]],
                        []
                    )
                ),
                db,
                Clock,
                default
            )
        );
        Doors.Through(
            await ClassEndpoints.Create(
                new(
                    morning,
                    new(
                        "Tuesday morning, seated",
                        DayOfWeek.Tuesday,
                        new(10, 30),
                        60,
                        halls["Quay Day-room"],
                        [staff["Tamsin Okoro"], staff["Noor Adeyemi"]],
                        []
                    )
                ),
                db,
                Clock,
                default
            )
        );
        await CohortAsync(evening, "Ivory", "Ivory", Half.None, "standing", "#D9CCA6", beginners: true);
        await CohortAsync(evening, "Fern, newer", "Fern", Half.Newer, "standing", "#6E8C4A");
        await CohortAsync(evening, "Fern, senior", "Fern", Half.Senior, "standing", "#6E8C4A");
        await CohortAsync(evening, "Copper", "Copper", Half.None, "standing", "#AE6A38");
        await CohortAsync(evening, "Garnet", "Garnet", Half.None, "standing", "#7C2A3B");
        await CohortAsync(evening, "Rail group", null, Half.None, "supported", "#3E7C86");
        await CohortAsync(morning, "Chair group", null, Half.None, "seated", "#A3566B");
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
        cohorts[name] = Guid.CreateVersion7();
        Doors.Through(
            await CohortEndpoints.Add(
                classId,
                new(
                    cohorts[name],
                    new(
                        name,
                        cohorts.Count,
                        sash is null ? null : sashes[sash],
                        half,
                        Mode.FromName(mode)!.Value,
                        colour,
                        beginners,
                        false
                    )
                ),
                db,
                default
            )
        );
    }

    private async Task RosterAsync(DateOnly start)
    {
        time.GoTo(start);
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
                                sashes[sash],
                                half,
                                [cohorts[cohort]],
                                joined,
                                DemoRoster.DetailsOf(name, cohort)
                            ),
                            cohort is "Ivory" or "Chair group" ? joined : start.AddDays(-since / 3)
                        ),
                        db,
                        Clock,
                        default
                    )
                );
                students[name] = id;
                if (DemoRoster.LimitsOf(name) is ({ Count: > 0 } limits, var note))
                {
                    await LimitAsync(name, limits, note);
                }
            }
        }
    }

    private async Task LimitAsync(string name, IReadOnlyList<Limit> limits, string note)
    {
        db.ChangeTracker.Clear();
        var version = await db
            .Students.Where(student => student.Id == students[name])
            .Select(student => student.Version)
            .SingleAsync();
        Doors.Through(await LimitEndpoints.Edit(students[name], new(limits, note, version), db, Head, Clock, default));
        db.ChangeTracker.Clear();
    }

    /// <summary>How some people do what their cohort does otherwise, settled by those who teach them; one is left to be
    /// settled.</summary>
    private async Task AdaptAsync()
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
                    students[name],
                    new(Guid.CreateVersion7(), postures[posture], mode, words),
                    db,
                    Head,
                    Clock,
                    default
                )
            );
        }
    }

    private async Task<Guid> TermAsync(DateOnly start, int weeks, int closedWeek)
    {
        var id = Guid.CreateVersion7();
        var end = start.AddDays((7 * weeks) - 1);
        var closed = start.AddDays((7 * closedWeek) - 1);
        Doors.Through(
            await TermEndpoints.Create(
                new(id, NameOf(start.AddDays(45)), start, end, [new(closed, "Halls closed")], [end]),
                db,
                default
            )
        );
        return id;

        static string NameOf(DateOnly middle) =>
            $"{(middle.Month switch { >= 3 and <= 5 => "Spring", >= 6 and <= 8 => "Summer", >= 9 and <= 11 => "Autumn", _ => "Winter" })} term";
    }

    private async Task AssignAsync(Guid termId, DateOnly target, params (string Cohort, int From, int To)[] segments)
    {
        foreach (var (cohort, from, to) in segments)
        {
            var version = await db
                .Assignments.AsNoTracking()
                .Where(given => given.TermId == termId && given.CohortId == cohorts[cohort])
                .Select(given => (uint?)given.Version)
                .SingleOrDefaultAsync();
            var had =
                await db
                    .Assignments.AsNoTracking()
                    .Where(given => given.TermId == termId && given.CohortId == cohorts[cohort])
                    .Select(given => given.Segments)
                    .SingleOrDefaultAsync()
                ?? [];
            Doors.Through(
                await AssignmentEndpoints.Assign(
                    termId,
                    cohorts[cohort],
                    new(
                        [
                            .. had,
                            new(
                                Guid.CreateVersion7(),
                                formId,
                                positions[from - 1],
                                positions[to - 1],
                                target,
                                Purpose.New,
                                []
                            ),
                        ],
                        version
                    ),
                    db,
                    default
                )
            );
            db.ChangeTracker.Clear();
        }
    }

    private async Task PlanAsync(Guid termId)
    {
        foreach (var classId in new[] { evening, morning })
        {
            Doors.Through(
                await PlanEndpoints.Plan(
                    await Doors.OpenAsync(new AskedStep(termId, classId, null, db, Head, Clock)),
                    default
                )
            );
            db.ChangeTracker.Clear();
            var draft = await db
                .Plans.Where(plan => plan.TermId == termId && plan.ClassId == classId && plan.Number == null)
                .Select(plan => plan.Id)
                .SingleAsync();
            Doors.Through(
                await PlanEndpoints.Announce(
                    await Doors.OpenAsync(new AskedDesk(termId, classId, db, Head, Clock)),
                    new(draft),
                    default
                )
            );
            db.ChangeTracker.Clear();
        }

        db.ChangeTracker.Clear();
    }
}

/// <summary>A clock that is set from day to day while the demo's past is written: eight in the evening, the registers
/// just filled in.</summary>
internal sealed class WalkingTime() : SchoolTime(null)
{
    private DateTimeOffset now = DateTimeOffset.UnixEpoch;

    public void GoTo(DateOnly day, int hour = 20) => now = new(day, new(hour, 0), TimeSpan.Zero);

    // Facts made one after the other are told apart by their time.
    public override DateTimeOffset GetUtcNow() => now = now.AddMilliseconds(1);
}
