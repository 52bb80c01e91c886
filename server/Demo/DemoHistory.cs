using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Lessons;
using Zeitplan.Server.Progress;

namespace Zeitplan.Server.Demo;

/// <summary>Holds the demo school's past lessons: attendance, what was taught, what was seen, and a few stories every
/// head knows.</summary>
internal sealed class DemoHistory(DemoScene scene)
{
    private const double PresentShare = 0.86;
    private const double WatchedShare = 0.62;

    /// <summary>Where the school keeps what it has recorded itself.</summary>
    private static readonly (string Posture, string Recording)[] Recorded =
    [
        ("Ward Off", "hall cupboard, disc 2, from 04:10"),
        ("Roll Back", "hall cupboard, disc 2, from 07:30"),
        ("Press", "hall cupboard, disc 2, from 09:05"),
        ("Parry and Punch", "hall cupboard, disc 3, from 02:40"),
        ("Turn and Chop", "hall cupboard, disc 5, from 01:15"),
    ];

    /// <summary>Nobody watches these two for a while: the one a head notices too late.</summary>
    private static readonly HashSet<string> OutOfSight = ["Dai", "Filippa"];

    /// <summary>Who let the knee drift in Single Whip last spring, and what was done about it: the wall nearly always
    /// helped.</summary>
    private static readonly (string Name, Way Way, bool Helped)[] LastSpring =
    [
        ("Jorun", Way.AtTheWall, true),
        ("Kofi", Way.AtTheWall, true),
        ("Per", Way.AtTheWall, true),
        ("Anselm", Way.AtTheWall, true),
        ("Quentin", Way.AtTheWall, true),
        ("Lucia", Way.AtTheWall, false),
        ("Ines", Way.Image, false),
        ("Solveig", Way.Image, false),
    ];

    /// <summary>Who practises at home, and every how many days.</summary>
    private static readonly Dictionary<string, int> PractisedEvery = new()
    {
        ["Imke"] = 1,
        ["Hanne"] = 2,
        ["Goran"] = 3,
        ["Wilma"] = 2,
        ["Adaeze"] = 1,
    };

    private readonly List<Student> students = [];

    /// <summary>Teaches every lesson of the first <paramref name="weeks"/> weeks as planned. The seed makes it the same
    /// school each time.</summary>
    /// <param name="outOfSightFrom">The week, from 0, after which nobody looks at some.</param>
    public async Task TeachAsync(DateOnly start, int weeks, int outOfSightFrom, int seed)
    {
        if (students.Count == 0)
        {
            students.AddRange(
                await scene
                    .Db.Students.AsNoTracking()
                    .OrderBy(student => student.Joined)
                    .ThenBy(student => student.GivenName)
                    .ToListAsync()
            );
        }

        var random = new Random(seed);
        var term = await scene.Db.Terms.AsNoTracking().SingleAsync(t => t.Start == start);
        for (var week = 0; week < weeks; week++)
        {
            var date = start.AddDays((7 * week) + 6);
            if (term.Closures.Any(closure => closure.Covers(date)))
            {
                continue;
            }

            scene.Time.GoTo(date);
            foreach (var classId in new[] { scene.Evening, scene.Morning })
            {
                await HoldAsync(await LessonOn(classId, date), overlook: week >= outOfSightFrom, random);
            }

            scene.Db.ChangeTracker.Clear();
        }
    }

    private async Task HoldAsync(AskedLesson lesson, bool overlook, Random random)
    {
        var (classId, date) = (lesson.ClassId, lesson.Date);
        var modes = await scene
            .Db.Cohorts.Where(cohort => cohort.ClassId == classId)
            .ToDictionaryAsync(cohort => cohort.Id, cohort => cohort.Mode);
        List<Guid> mine = [.. modes.Keys];
        var here = students.Where(student => student.CohortIds.Any(mine.Contains) && student.Joined <= date).ToList();
        var present = here.Where(_ => random.NextDouble() < PresentShare).ToHashSet();
        Doors.Through(
            await RegisterEndpoints.TakeAttendance(
                lesson,
                new([
                    .. here.Select(student => new RegisterEndpoints.AttendanceMark(
                        Id(),
                        student.Id,
                        present.Contains(student)
                    )),
                ]),
                default
            )
        );

        var plan = await lesson.PlanAsync(default);
        var taught = mine.SelectMany(plan.For).ToList();
        Doors.Through(
            await RegisterEndpoints.SayWhatWasTaught(
                lesson,
                new([
                    .. taught.Select(item => new RegisterEndpoints.TaughtMark(
                        Id(),
                        item.CohortId,
                        item.PostureId,
                        item.Side,
                        item.Kind,
                        item.From,
                        item.How,
                        Taught: true,
                        Minutes: null
                    )),
                ]),
                default
            )
        );

        var marks = present
            .Where(student =>
                random.NextDouble() < WatchedShare && !(overlook && OutOfSight.Contains(student.GivenName))
            )
            .SelectMany(student =>
                taught
                    .Where(item =>
                        student.CohortIds.Contains(item.CohortId)
                        && item.How != TaughtHow.Introduced
                        && item.Kind != UnitKind.Link
                    )
                    .OrderBy(_ => random.Next())
                    .Take(5)
                    .SelectMany(item => Watch(student, item, student.ModeIn(modes[item.CohortId]), random))
            )
            .ToList();
        Doors.Through(await RegisterEndpoints.Observe(lesson, new(marks), default));
    }

    /// <summary>What is reviewed is followed; what is run through or has long been known is done alone, and often
    /// flows.</summary>
    private static IEnumerable<RegisterEndpoints.Mark> Watch(Student student, TaughtItem item, Mode mode, Random random)
    {
        var known = item.How == TaughtHow.RunThrough || item.Kind == UnitKind.Layer;
        var stage = (known, random.NextDouble()) switch
        {
            (true, < 0.45) => Stage.Flowing,
            (true, _) => Stage.Alone,
            (_, < 0.55) => Stage.Follows,
            _ => Stage.Alone,
        };
        yield return new(Id(), student.Id, item.PostureId, item.Side, Sign.Stage, stage, null, null, null)
        {
            Mode = mode.Name,
            InRunThrough = item.How == TaughtHow.RunThrough,
        };
    }

    /// <summary>
    /// The stories: a fault half a cohort shares, a correction that is stuck since last term, and some ordinary ones.
    /// </summary>
    public async Task TellStoriesAsync(DateOnly start)
    {
        DateOnly Lesson(int number) => start.AddDays((7 * number) - 1);
        DateOnly Before(int weeks) => start.AddDays((-7 * weeks) - 1);

        foreach (var name in new[] { "Emeka", "Goran", "Hanne", "Wilma" })
        {
            await FaultAsync(Lesson(name == "Emeka" ? 3 : 4), name, "Brush Knee", Side.Left, 0);
        }

        foreach (var day in new[] { Before(7), Before(5), Lesson(1), Lesson(3) })
        {
            await FaultAsync(day, "Imke", "Single Whip", Side.Left, 0);
        }

        foreach (var (name, way, helped) in LastSpring)
        {
            await FaultAsync(Before(30), name, "Single Whip", Side.Left, 0);
            await TryAsync(Before(30), name, "Single Whip", Side.Left, 0, way);
            if (helped)
            {
                await FineAsync(Before(28), name, "Single Whip", Side.Left);
            }
            else
            {
                await FaultAsync(Before(28), name, "Single Whip", Side.Left, 0);
                await FineAsync(Before(23), name, "Single Whip", Side.Left);
            }

            await FineAsync(Before(21), name, "Single Whip", Side.Left);
        }

        // What was gone since spring came back in one of them for a while.
        await FaultAsync(Before(5), "Jorun", "Single Whip", Side.Left, 0);
        await FineAsync(Lesson(1), "Jorun", "Single Whip", Side.Left);
        await FineAsync(Lesson(2), "Jorun", "Single Whip", Side.Left);

        // What several had, and nobody since it is done otherwise.
        foreach (var name in new[] { "Solveig", "Quentin", "Kofi" })
        {
            await FaultAsync(Before(23), name, "Roll Back", Side.Right, 0);
            await FineAsync(Before(21), name, "Roll Back", Side.Right);
            await FineAsync(Before(7), name, "Roll Back", Side.Right);
        }

        await ChangeAsync(Before(6), "Roll Back", "the arms stay where they are until the waist has begun to turn");
        foreach (var (name, recording) in Recorded)
        {
            await WriteAsync(name, text => text with { Recording = recording });
        }

        // What two still had when the class went on to other things, and nobody has looked at since.
        await FaultAsync(Before(6), "Vera", "Stepping Back Walk", Side.Left, 0);
        await FaultAsync(Before(4), "Jorun", "Stepping Back Walk", Side.Left, 0);

        // The same habit in three places.
        await FaultAsync(Lesson(3), "Oskar", "Opening", Side.Symmetric, 0);
        await FaultAsync(Lesson(4), "Oskar", "Crane Cools Wings", Side.Left, 1);
        await FaultAsync(Lesson(4), "Oskar", "Single Whip", Side.Left, 3);

        await TryAsync(Before(5), "Imke", "Single Whip", Side.Left, 0, Way.FeetOnly);
        await TryAsync(Lesson(1), "Imke", "Single Whip", Side.Left, 0, Way.Image);

        // By itself it is right, and is lost in the flow.
        await FaultAsync(Lesson(2), "Kofi", "Step Back", Side.Left, 1, inRunThrough: true);
        await FaultAsync(Lesson(4), "Kofi", "Step Back", Side.Left, 1, inRunThrough: true);
        await FaultAsync(Lesson(4), "Kofi", "Roll Back", Side.Right, 2);
        await FaultAsync(Lesson(3), "Per", "Press", Side.Right, 0);
        await FineAsync(Lesson(4), "Per", "Press", Side.Right);
        await FaultAsync(Lesson(2), "Lucia", "Cross Hands", Side.Right, 0);
        await FineAsync(Lesson(3), "Lucia", "Cross Hands", Side.Right);
        await FineAsync(Lesson(4), "Lucia", "Cross Hands", Side.Right);
        await FaultAsync(Lesson(3), "Adaeze", "Opening", Side.Symmetric, 0);
        await FaultAsync(Lesson(4), "Ruben", "Raise Hands", Side.Right, 0);
        await FaultAsync(Lesson(4), "Anselm", "Slant Flying", Side.Right, 1);
        await FaultAsync(Lesson(3), "Marta", "Ward Off", Side.Left, 0);
        await FaultAsync(Lesson(4), "Conrad", "Opening", Side.Symmetric, 2);
        await FaultAsync(Lesson(4), "Beatrix", "Push", Side.Right, 2);
    }

    /// <summary>From a day on the school does a posture otherwise.</summary>
    private Task ChangeAsync(DateOnly from, string name, string difference)
    {
        scene.Time.GoTo(from);
        return WriteAsync(name, text => text with { Changes = [.. text.Changes, new(Id(), from, difference)] });
    }

    private async Task WriteAsync(string name, Func<PostureText, PostureText> write)
    {
        var posture = await scene.Db.Postures.AsNoTracking().SingleAsync(p => p.Id == scene.Postures[name]);
        var text = write(posture.Text);
        Doors.Through(await PostureEndpoints.Edit(posture.Id, new(text, posture.Version), scene.Db, default));
        scene.Db.ChangeTracker.Clear();
    }

    private async Task FaultAsync(
        DateOnly date,
        string givenName,
        string name,
        Side side,
        int fault,
        bool inRunThrough = false
    )
    {
        var posture = await scene.Db.Postures.AsNoTracking().SingleAsync(p => p.Id == scene.Postures[name]);
        var known = posture.Faults[fault];
        await SeeAsync(
            date,
            givenName,
            posture.Id,
            side,
            Sign.Fault,
            known.Id,
            posture.On(side, known.Seen),
            known.Weight,
            inRunThrough
        );
    }

    private async Task TryAsync(DateOnly date, string givenName, string name, Side side, int fault, Way way)
    {
        var posture = await scene.Db.Postures.AsNoTracking().SingleAsync(p => p.Id == scene.Postures[name]);
        var known = posture.Faults[fault];
        var (student, lesson) = await WithAsync(date, givenName);
        Doors.Through(
            await RegisterEndpoints.TryWays(
                lesson,
                new([
                    new(
                        Id(),
                        student.Id,
                        posture.Id,
                        side,
                        null,
                        known.Id,
                        posture.On(side, known.Seen),
                        way,
                        null,
                        true
                    ),
                ]),
                default
            )
        );
        scene.Db.ChangeTracker.Clear();
    }

    private Task FineAsync(DateOnly date, string givenName, string name, Side side) =>
        SeeAsync(date, givenName, scene.Postures[name], side, Sign.Fine, null, null, null);

    private async Task SeeAsync(
        DateOnly date,
        string givenName,
        Guid postureId,
        Side side,
        Sign sign,
        Guid? faultId,
        string? words,
        Weight? weight,
        bool inRunThrough = false
    )
    {
        var (student, lesson) = await WithAsync(date, givenName);
        Doors.Through(
            await RegisterEndpoints.Observe(
                lesson,
                new([
                    new(Id(), student.Id, postureId, side, sign, null, faultId, words, weight)
                    {
                        InRunThrough = inRunThrough,
                    },
                ]),
                default
            )
        );
        scene.Db.ChangeTracker.Clear();
    }

    /// <summary>Somebody, and their lesson on a day.</summary>
    private async Task<(Student Student, AskedLesson Lesson)> WithAsync(DateOnly date, string givenName)
    {
        scene.Time.GoTo(date);
        var student = students.Single(s => s.GivenName == givenName);
        var classId = student.CohortIds[0] == scene.Cohorts["Chair group"] ? scene.Morning : scene.Evening;
        return (student, await LessonOn(classId, date));
    }

    /// <summary>Everybody is handed a sheet for home after one lesson, and some bring back what they did by the next.</summary>
    public async Task PractiseAtHomeAsync(DateOnly handedOut, DateOnly broughtBack)
    {
        foreach (var classId in new[] { scene.Evening, scene.Morning })
        {
            scene.Time.GoTo(handedOut);
            var asked = await Doors.OpenAsync(new AskedClass(classId, scene.Db, scene.Head, scene.Clock));
            var home = (await HomePracticeEndpoints.Read(asked, default)).Value!;
            var sheets = home.People.Where(one => one.Sheet is not null).ToList();
            Doors.Through(
                await HomePracticeEndpoints.HandOut(
                    asked,
                    new([
                        .. sheets.Select(one => new HomePracticeEndpoints.Handed(Id(), one.StudentId, one.Sheet!.Says)),
                    ]),
                    default
                )
            );

            scene.Time.GoTo(broughtBack);
            asked = await Doors.OpenAsync(new AskedClass(classId, scene.Db, scene.Head, scene.Clock));
            var names = students.ToDictionary(student => student.Id, student => student.GivenName);
            Doors.Through(
                await PracticeLogEndpoint.Log(
                    asked,
                    new([
                        .. from one in sheets
                        where PractisedEvery.ContainsKey(names[one.StudentId])
                        from days in Enumerable.Range(1, broughtBack.DayNumber - handedOut.DayNumber)
                        where days % PractisedEvery[names[one.StudentId]] == 0
                        select new PracticeLogEndpoint.Mark(
                            Id(),
                            one.StudentId,
                            handedOut.AddDays(days),
                            one.Sheet!.Minutes
                        ),
                    ]),
                    default
                )
            );
            scene.Db.ChangeTracker.Clear();
        }
    }

    private Task<AskedLesson> LessonOn(Guid classId, DateOnly date) =>
        Doors.OpenAsync(new AskedLesson(classId, date, scene.Db, scene.Head, scene.Clock));

    private static Guid Id() => Guid.CreateVersion7();
}
