using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>The way up the ladder in one class, at its pace and with one lesson more a week.</summary>
internal static class YearEndpoint
{
    /// <param name="LessonsAWeek">Over the year, closures and holidays counted in.</param>
    /// <param name="Goal">The last level.</param>
    public sealed record Response(
        string Class,
        decimal LessonsAWeek,
        string Goal,
        IReadOnlyList<TermSpan> Terms,
        IReadOnlyList<Stretch> Now,
        IReadOnlyList<Stretch> WithOneMore
    );

    public sealed record TermSpan(string Name, DateOnly Start, DateOnly End);

    /// <param name="Different">New postures, and <paramref name="Minutes"/> to bring all of it in.</param>
    public sealed record Stretch(
        Guid SashId,
        string Name,
        Half Half,
        string Colour,
        DateOnly From,
        DateOnly To,
        int Lessons,
        StretchBound Bound,
        int Different,
        decimal Minutes
    );

    public static void Map(ByRank api) =>
        api
            .Teacher.MapGet("/classes/{classId:guid}/year", Read)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .TakesATurn()
            .WithName("yearView");

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        Guid classId,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Classes.AsNoTracking().SingleOrDefaultAsync(c => c.Id == classId, cancel) is not { } schoolClass)
        {
            return Refusals.NotFound("This class");
        }

        var today = await clock.TodayAsync(cancel);
        if (!actor.Teaches(schoolClass, today))
        {
            return Refusals.NotYours();
        }

        var terms = await db
            .Terms.AsNoTracking()
            .Where(term => term.End >= today.AddYears(-1))
            .OrderBy(term => term.Start)
            .ToListAsync(cancel);
        var days = terms
            .SelectMany(term => LessonCalendar.Of(term, schoolClass))
            .Where(day => day.Closed is null)
            .ToList();
        var ladder = await db.Sashes.AsNoTracking().OrderBy(sash => sash.Order).ToListAsync(cancel);
        if (days.Count == 0 || ladder.Count == 0)
        {
            return Refusals.NotFound("A term in which this class meets");
        }

        var weeks = (terms[^1].End.DayNumber - terms[0].Start.DayNumber + 1) / 7.0;
        var asked = new YearQuestion(
            await StepsAsync(schoolClass, ladder, today, db, cancel),
            today,
            days.Count / weeks,
            Math.Max(0.1, days.Count(day => day.Kind == LessonKind.Ordinary) / (double)days.Count),
            await AttendanceAsync(schoolClass, today, db, cancel)
        );
        return TypedResults.Ok(
            new Response(
                schoolClass.Name,
                decimal.Round((decimal)asked.LessonsAWeek, 2),
                ladder[^1].Name,
                [.. terms.Select(term => new TermSpan(term.Name, term.Start, term.End))],
                Show(YearView.Of(asked)),
                Show(YearView.Of(asked with { LessonsAWeek = asked.LessonsAWeek * 2 }))
            )
        );
    }

    private static List<Stretch> Show(IReadOnlyList<LadderStretch> way) =>
        [
            .. way.Select(stretch => new Stretch(
                stretch.Step.SashId,
                stretch.Step.Name,
                stretch.Step.Half,
                stretch.Step.Colour,
                stretch.From,
                stretch.To,
                stretch.Lessons,
                stretch.Bound,
                stretch.Step.Units.Count(unit => unit.Kind == UnitKind.Posture),
                stretch.Step.Units.Total(unit => unit.IntroduceSeconds).Minutes
            )),
        ];

    private static async Task<double> AttendanceAsync(
        SchoolClass schoolClass,
        DateOnly today,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var since = today.AddYears(-1);
        var facts = ProgressBook
            .Latest(
                await db
                    .Attendance.AsNoTracking()
                    .Where(fact => fact.ClassId == schoolClass.Id && fact.Date >= since)
                    .ToListAsync(cancel)
            )
            .ToList();
        return facts.Count == 0
            ? LearningHabits.UsualAttendance
            : facts.Count(fact => fact.Present) / (double)facts.Count;
    }

    /// <summary>Every level, or each half of it, with what it adds to those before it.</summary>
    private static async Task<IReadOnlyList<LadderStep>> StepsAsync(
        SchoolClass schoolClass,
        List<SashLevel> ladder,
        DateOnly today,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var forms = await db.Forms.AsNoTracking().ToDictionaryAsync(form => form.Id, cancel);
        var postures = await Material.OutlinesAsync(db, cancel);
        var ways = await Material.WaysAsync(db, cancel);
        var way = new TeachingWay(Mode.Standing, (await Material.TeachingAsync(db, cancel)).For(Mode.Standing))
        {
            BothSides = ways.BothSides,
        };
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == schoolClass.Id)
            .ToListAsync(cancel);
        var term = await db
            .Terms.AsNoTracking()
            .Where(term => term.Start <= today && term.End >= today)
            .Select(term => (Guid?)term.Id)
            .FirstOrDefaultAsync(cancel);
        var plan = term is null
            ? null
            : (await PlanEndpoints.AnnouncedAsync(db, term.Value, schoolClass.Id, cancel))?.Solved;
        var rooms =
            plan?.Problem.Cohorts.ToDictionary(cohort => cohort.Id, cohort => Forecasts.SecondsForNew(plan, cohort.Id))
            ?? [];
        var usual =
            rooms.Count == 0
                ? LessonSlot.Teachable(schoolClass.Minutes) / 2
                : rooms.Values.Order().ElementAt(rooms.Count / 2);

        HashSet<PostureSide> known = [];
        HashSet<(PostureSide, PostureSide)> links = [];
        List<LadderStep> steps = [];
        foreach (var sash in ladder)
        {
            Half[] halves = sash.HasHalves ? [Half.Newer, Half.Senior] : [Half.None];
            foreach (var half in halves)
            {
                var runs = sash
                    .Asks.Studies.Where(study =>
                        forms.ContainsKey(study.FormId)
                        && (study.Half == half || (study.Half == Half.None && half != Half.Senior))
                    )
                    .Select(study =>
                        new AssignedSegment(
                            Guid.Empty,
                            study.FormId,
                            study.FromId,
                            study.ToId,
                            default,
                            Purpose.New,
                            []
                        ).PositionsOf(forms[study.FormId])
                    )
                    .ToList();
                var cohort = cohorts.FirstOrDefault(its =>
                    its.SashId == sash.Id && (its.Half == half || its.Half == Half.None)
                );
                steps.Add(
                    new(
                        sash.Id,
                        sash.Name,
                        half,
                        sash.Colour,
                        SegmentMaterial
                            .Of([.. runs.Select(run => new GivenRun(run))], postures, known, way, links)
                            .Units,
                        cohort?.Beginners == true ? 1 : ways.NewPostures,
                        cohort is not null && rooms.TryGetValue(cohort.Id, out var room) ? room : usual,
                        sash.Asks.Weeks / halves.Length,
                        sash.Asks.Lessons / halves.Length
                    )
                );
                known.UnionWith(runs.SelectMany(run => run).Select(Of));
                links.UnionWith(
                    runs.SelectMany(run => run.Zip(run.Skip(1), (position, next) => (Of(position), Of(next))))
                );
            }
        }

        return steps;
    }

    private static PostureSide Of(Position position) => new(position.PostureId, position.Side);
}
