using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Lessons;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Demo;

/// <summary>Holds the demo school's past lessons: attendance, what was taught, what was seen, and what happened in
/// them.</summary>
internal sealed class DemoHistory(DemoScene scene, DemoStories stories)
{
    private const double PresentShare = 0.86;
    private const double WatchedShare = 0.62;
    private const int SeenOfOne = 5;
    private const int BeforeClassMinutes = 10;

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

    /// <summary>Who practises at home, and every how many days.</summary>
    private static readonly Dictionary<string, int> PractisedEvery = new()
    {
        ["Imke"] = 1,
        ["Hanne"] = 2,
        ["Goran"] = 3,
        ["Wilma"] = 2,
        ["Adaeze"] = 1,
    };

    /// <summary>Who watches whom.</summary>
    private static readonly Dictionary<string, string> WatchedBy = new()
    {
        ["Ivory"] = "Jonas Lindqvist",
        ["Fern, newer"] = "Jonas Lindqvist",
        ["Fern, senior"] = "Noor Adeyemi",
        ["Copper"] = "Noor Adeyemi",
        ["Garnet"] = "Noor Adeyemi",
        ["Rail group"] = "Odile Marchetti",
        ["Chair group"] = "Tamsin Okoro",
    };

    /// <summary>What introductions took against what was reckoned, where that is not the same.</summary>
    private static readonly Dictionary<string, decimal> Took = new()
    {
        ["Ivory"] = 1.15m,
        ["Copper"] = 0.95m,
        ["Rail group"] = 1.2m,
    };

    private readonly DemoLearning learning = new(new(7));
    private readonly List<Student> students = [];

    /// <summary>Teaches every lesson of the first <paramref name="weeks"/> weeks as planned. The seed makes it the same
    /// school each time.</summary>
    /// <param name="outOfSightFrom">The week, from 0, after which nobody looks at some.</param>
    /// <param name="known">What is taught was learned before anybody wrote it down here.</param>
    public async Task TeachAsync(DateOnly start, int weeks, int outOfSightFrom, int seed, bool known)
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

            if (date == stories.Changed)
            {
                await ChangeAsync(date, "Roll Back", "the arms stay where they are until the waist has begun to turn");
            }

            if (date == stories.TaughtAgain)
            {
                await ArrangeAsync(date);
            }

            scene.Time.GoTo(date);
            foreach (var classId in new[] { scene.Evening, scene.Morning })
            {
                await HoldAsync(classId, date, overlook: week >= outOfSightFrom, known, random);
            }

            scene.Db.ChangeTracker.Clear();
        }
    }

    private async Task HoldAsync(Guid classId, DateOnly date, bool overlook, bool known, Random random)
    {
        var lesson = await LessonOn(classId, date, scene.Head);
        var present = await WhoIsThereAsync(lesson, random);
        var taught = await WhatIsTaughtAsync(lesson, known);
        var told = stories.All.Where(told => told.On == date).ToLookup(told => told.Who);
        foreach (var student in present)
        {
            var met = taught.Where(item => student.CohortIds.Contains(item.CohortId)).ToList();
            foreach (var item in met)
            {
                learning.Meet(student.Id, item.Key.AsWatched(), known);
            }

            var watched = random.NextDouble() < WatchedShare;
            if (watched && !(overlook && OutOfSight.Contains(student.GivenName)))
            {
                // What is told of an evening is all that is seen of that posture.
                var apart = told[student.GivenName].Select(its => scene.Postures[its.At.Posture]).ToHashSet();
                var seen = met.Where(item => item.How != TaughtHow.Introduced && !apart.Contains(item.PostureId))
                    .OrderBy(_ => random.Next())
                    .Take(SeenOfOne);
                await SeeAsync(student, date, [.. seen.Select(item => Watch(student, item))]);
            }

            foreach (var its in told[student.GivenName])
            {
                await TellAsync(its, student);
            }
        }
    }

    private async Task<IReadOnlyList<Student>> WhoIsThereAsync(AskedLesson lesson, Random random)
    {
        var date = lesson.Date;
        var cohorts = await scene
            .Db.Cohorts.Where(cohort => cohort.ClassId == lesson.ClassId)
            .Select(cohort => cohort.Id)
            .ToListAsync();
        var here = (
            from student in students
            where student.CohortIds.Any(cohorts.Contains) && student.Joined <= date
            let comes = random.NextDouble() < PresentShare && !stories.IsAway(student.GivenName, date)
            select (Student: student, IsThere: comes || stories.IsThere(student.GivenName, date))
        ).ToList();
        Doors.Through(
            await RegisterEndpoints.TakeAttendance(
                lesson,
                new([.. here.Select(its => new RegisterEndpoints.AttendanceMark(Id(), its.Student.Id, its.IsThere))]),
                default
            )
        );
        return [.. here.Where(its => its.IsThere).Select(its => its.Student)];
    }

    private async Task<IReadOnlyList<TaughtItem>> WhatIsTaughtAsync(AskedLesson lesson, bool known)
    {
        var plan = await lesson.PlanAsync(default);
        var cohorts = await scene
            .Db.Cohorts.Where(cohort => cohort.ClassId == lesson.ClassId)
            .ToDictionaryAsync(cohort => cohort.Id, cohort => cohort.Name);
        var planned = cohorts.Keys.SelectMany(plan.For).ToList();
        Doors.Through(
            await RegisterEndpoints.SayWhatWasTaught(
                lesson,
                new([
                    .. from item in planned
                    let reached = WasReached(item, lesson.Date)
                    select new RegisterEndpoints.TaughtMark(
                        Id(),
                        item.CohortId,
                        item.PostureId,
                        item.Side,
                        item.Kind,
                        item.From,
                        item.How,
                        reached,
                        known || !reached ? null : MinutesOf(plan, item, cohorts[item.CohortId])
                    ),
                ]),
                default
            )
        );
        return [.. planned.Where(item => WasReached(item, lesson.Date))];
    }

    /// <summary>Something runs out of time now and then.</summary>
    private bool WasReached(TaughtItem item, DateOnly date) =>
        !(
            date == stories.CutShort
            && item.How == TaughtHow.Reviewed
            && item.PostureId == scene.Postures["Fan through the Back"]
        );

    private static decimal? MinutesOf(LessonPlan plan, TaughtItem item, string cohort) =>
        item.How == TaughtHow.Introduced
        && plan.AskedOf(item.CohortId)?.Units.FirstOrDefault(unit => unit.Key == item.Key) is { } unit
            ? decimal.Round(unit.IntroduceSeconds.Count / 30m * Took.GetValueOrDefault(cohort, 1)) / 2
            : null;

    private RegisterEndpoints.Mark Watch(Student student, TaughtItem item)
    {
        var inRunThrough = item.How == TaughtHow.RunThrough;
        var stage = learning.Shows(student.Id, item.Key.AsWatched(), inRunThrough);
        return new(Id(), student.Id, item.PostureId, item.Side, Sign.Stage, stage, null, null, null)
        {
            From = item.From,
            InRunThrough = inRunThrough,
        };
    }

    /// <summary>One evening a cohort is taught again what many of it share, somebody makes up for what they missed, and the
    /// whole lesson looks at one thing.</summary>
    private async Task ArrangeAsync(DateOnly date)
    {
        scene.Time.GoTo(date, hour: 12);
        using var arrangements = new Arrangements();
        var asked = await LessonOn(scene.Evening, date, scene.Head);
        var weight = await PrincipleAsync("Empty and full");
        var offers =
            (await ReTeachEndpoint.Read(asked, arrangements, default)).Result
            as Ok<IReadOnlyList<ReTeachEndpoint.Offer>>;
        var shared = offers!.Value!.Single(offer => offer.Cohort == "Fern, senior" && offer.ChangedSince is null);
        Doors.Through(
            await ArrangementEndpoints.Edit(
                asked,
                new(
                    [
                        new LessonEdit.Focus(weight.Id, weight.Text.Name),
                        new LessonEdit.Add(shared.Task),
                        new LessonEdit.MakesUp(
                            Id(),
                            [students.Single(student => student.GivenName == "Vera").Id],
                            scene.Postures["Needle at Sea Bottom"],
                            Side.Left,
                            null,
                            scene.Staff["Noor Adeyemi"],
                            BeforeClassMinutes
                        ),
                    ],
                    null
                ),
                arrangements,
                default
            )
        );
        scene.Db.ChangeTracker.Clear();
    }

    /// <summary>Where the recordings are, and a fault nobody had listed.</summary>
    public async Task WriteWhatIsKnownAsync()
    {
        foreach (var (name, recording) in Recorded)
        {
            await WriteAsync(name, text => text with { Recording = recording });
        }

        await WriteAsync(
            "Fist under Elbow",
            text =>
                text with
                {
                    Faults =
                    [
                        .. text.Faults,
                        new(
                            Id(),
                            "the fist is under the elbow before the toes touch",
                            Weight.Shape,
                            [new("the hands are hurried", "touch the toes down, then close the fist")]
                        ),
                    ],
                }
        );
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

    private async Task TellAsync(Told told, Student student)
    {
        var of = new PostureSide(scene.Postures[told.At.Posture], told.At.Side);
        PostureSide? from = told.At.From is { } before ? new(scene.Postures[before], told.At.FromSide) : null;
        var principle = told.Principle is { } name ? await PrincipleAsync(name) : null;
        var fault = told.Fault is { } number
            ? (await KnownFaultsAsync()).Of(
                new(from is null ? UnitKind.Posture : UnitKind.Link, of.PostureId, of.Side, from?.PostureId, from?.Side)
            )[number]
            : null;
        var words = fault?.Seen ?? principle?.Text.Name ?? told.Words;
        if (told.Way is { } way)
        {
            var lesson = await LessonOn(ClassOf(student), told.On, Watcher(student));
            Doors.Through(
                await RegisterEndpoints.TryWays(
                    lesson,
                    new([
                        new(Id(), student.Id, of.PostureId, of.Side, from, fault?.Id, words!, way, null, true)
                        {
                            PrincipleId = principle?.Id,
                        },
                    ]),
                    default
                )
            );
            return;
        }

        var mark = new RegisterEndpoints.Mark(
            Id(),
            student.Id,
            of.PostureId,
            of.Side,
            told.Sign,
            told.Stage,
            fault?.Id,
            told.Sign is Sign.Stage or Sign.Fine ? null : words,
            told.Sign == Sign.Fault ? fault?.Weight ?? Weight.Shape : null
        )
        {
            From = from,
            Mode = told.Mode?.Name,
            PrincipleId = principle?.Id,
            InRunThrough = told.InRunThrough,
        };
        await SeeAsync(student, told.On, [mark]);
        if (told.TakenBack)
        {
            Doors.Through(await RegisterEndpoints.Withdraw(mark.Id, scene.Db, Watcher(student), scene.Clock, default));
        }
    }

    private async Task SeeAsync(Student student, DateOnly date, IReadOnlyList<RegisterEndpoints.Mark> marks)
    {
        var lesson = await LessonOn(ClassOf(student), date, Watcher(student));
        Doors.Through(await RegisterEndpoints.Observe(lesson, new(marks), default));
    }

    private Guid ClassOf(Student student) =>
        student.CohortIds[0] == scene.Cohorts["Chair group"] ? scene.Morning : scene.Evening;

    private Actor Watcher(Student student)
    {
        var name = WatchedBy[scene.Cohorts.Single(cohort => cohort.Value == student.CohortIds[0]).Key];
        return scene.As(name);
    }

    private async Task<KnownFaults> KnownFaultsAsync() =>
        new(
            await scene.Db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id),
            await scene.Db.Links.AsNoTracking().ToListAsync()
        );

    private async Task<Principle> PrincipleAsync(string name) =>
        (await scene.Db.Principles.AsNoTracking().ToListAsync()).Single(principle => principle.Text.Name == name);

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

    private Task<AskedLesson> LessonOn(Guid classId, DateOnly date, Actor actor) =>
        Doors.OpenAsync(new AskedLesson(classId, date, scene.Db, actor, scene.Clock));

    private static Guid Id() => Guid.CreateVersion7();
}
