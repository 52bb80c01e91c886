using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>What the students of a class practise at home: a sheet for each, printed when it says something new.</summary>
internal static class HomePracticeEndpoints
{
    /// <param name="Postures">Every posture of the sheets, once for each side and mode.</param>
    public sealed record ClassAtHome(
        Guid ClassId,
        string Class,
        IReadOnlyList<Practiser> People,
        IReadOnlyList<Written> Postures
    );

    /// <param name="Mode">As they usually take part.</param>
    /// <param name="Sheet">Null while there is nothing they could practise.</param>
    /// <param name="Given">When they were handed a sheet last; null for never.</param>
    /// <param name="IsNew">Whether it says something else than the last one did.</param>
    /// <param name="Practised">The days of the last four weeks on which they say they practised.</param>
    public sealed record Practiser(
        Guid StudentId,
        string Name,
        Guid CohortId,
        string Cohort,
        string SashColour,
        Half Half,
        string Mode,
        Sheet? Sheet,
        DateOnly? Given,
        bool IsNew,
        IReadOnlyList<Practice> Practised
    );

    /// <param name="Says">What it says in one word: only what was looked at is handed out.</param>
    public sealed record Sheet(
        string Says,
        int Minutes,
        string Focus,
        IReadOnlyList<Thing> Things,
        Occasion? Occasion,
        IReadOnlyList<string> Cautions
    );

    /// <param name="Name">Of one posture or link; of a run-through its first and last.</param>
    public sealed record Thing(
        HomeKind Kind,
        string Name,
        IReadOnlyList<Done> Postures,
        int Times,
        int Minutes,
        string Seen,
        string Mend
    );

    /// <param name="Mode">The common name of the mode in which it asks nothing they must not be asked for.</param>
    /// <param name="Words">What they do otherwise, where that was settled.</param>
    public sealed record Done(Guid PostureId, Side Side, string Mode, string Words);

    public sealed record Occasion(string When, string How);

    /// <param name="Cues">Of each of its counts, as it reads on this side.</param>
    public sealed record Written(
        Guid PostureId,
        Side Side,
        string Mode,
        string Name,
        string KeyPoint,
        IReadOnlyList<string> Cues,
        IReadOnlyList<string> Cautions
    );

    public sealed record Practice(DateOnly Date, int Minutes);

    public sealed record GivenRequest(IReadOnlyList<Handed> Sheets);

    /// <param name="Says">Of the sheet that was printed.</param>
    public sealed record Handed(Guid Id, Guid StudentId, string Says);

    /// <summary>How far back the page shows what was practised.</summary>
    private const int DaysShown = 28;

    public static void Map(ByRank api)
    {
        var classes = api.Group("/classes/{classId:guid}/home").Each(classes => classes.OpensFirst());
        classes.Teacher.MapGet("", Read).WithName("homePractice");
        classes.Teacher.MapPost("/given", HandOut).ProducesProblem(409).WithName("handOutHomeSheets");
    }

    internal static async Task<Ok<ClassAtHome>> Read([AsParameters] AskedClass asked, CancellationToken cancel)
    {
        var (db, cohorts) = (asked.Db, await asked.CohortsAsync(cancel));
        var sheets = await HomeSheets.LoadAsync(asked, cohorts, cancel);
        var (facts, postures) = (sheets.Facts, sheets.Material.Postures);
        var sashes = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel);
        var order = cohorts.Index().ToDictionary(cohort => cohort.Item.Id);
        var ids = facts.Students.Select(student => student.Id).ToList();
        var from = asked.Today.AddDays(-DaysShown);
        var practised = (
            await db
                .PracticeLogs.AsNoTracking()
                .Where(log => ids.Contains(log.StudentId) && log.Date > from)
                .ToListAsync(cancel)
        ).ToLookup(log => log.StudentId);
        return TypedResults.Ok(
            new ClassAtHome(
                asked.ClassId,
                asked.Class.Name,
                [
                    .. from student in facts.Students
                    let cohort = order[facts.Cohorts[student.Id]]
                    let sheet = sheets.Of[student.Id]
                    let last = sheets.Last.GetValueOrDefault(student.Id)
                    let mode = student.ModeIn(cohort.Item.Mode)
                    orderby cohort.Index, student.GivenName
                    select new Practiser(
                        student.Id,
                        student.ShortName,
                        cohort.Item.Id,
                        cohort.Item.Name,
                        sashes[student.SashId].Colour,
                        student.Half,
                        mode.Name,
                        sheet is null ? null : Show(sheet, mode, postures, sheets.Occasions),
                        last?.Date,
                        sheet is not null && last?.Sheet.SaysTheSame(sheet) != true,
                        [
                            .. PracticeLog
                                .Days(practised[student.Id])
                                .OrderBy(day => day.Key)
                                .Select(day => new Practice(day.Key, day.Value)),
                        ]
                    ),
                ],
                [
                    .. sheets
                        .Of.Values.OfType<HomeSheet>()
                        .SelectMany(sheet => sheet.Things)
                        .SelectMany(thing => thing.Postures)
                        .Distinct()
                        .Select(done => AsWritten(done, postures[done.PostureId])),
                ]
            )
        );
    }

    internal static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> HandOut(
        [AsParameters] AskedClass asked,
        GivenRequest request,
        CancellationToken cancel
    )
    {
        var sheets = await HomeSheets.LoadAsync(asked, await asked.CohortsAsync(cancel), cancel);
        if (
            AskedClass.Strangers(request.Sheets.Select(handed => handed.StudentId), "sheets", [.. sheets.Of.Keys]) is
            { Count: > 0 } strangers
        )
        {
            return Refusals.Invalid(strangers);
        }

        if (
            request.Sheets.Any(handed =>
                sheets.Of[handed.StudentId] is not { } sheet || HomeSheets.Says(sheet) != handed.Says
            )
        )
        {
            return Refusals.Conflict(
                "Something was marked meanwhile, and a sheet says something else now. Look at it, and print it again."
            );
        }

        return await AppendOnly.AddAsync<HomeSheetGiven>(
            asked.Db,
            [
                .. request.Sheets.Select(handed => new HomeSheetGiven(
                    handed.Id,
                    handed.StudentId,
                    asked.Today,
                    sheets.Of[handed.StudentId]!,
                    asked.Actor.StaffId,
                    asked.Clock.Now
                )),
            ],
            cancel
        );
    }

    private static Sheet Show(
        HomeSheet sheet,
        Mode mode,
        IReadOnlyDictionary<Guid, Posture> postures,
        IReadOnlyList<HouseholdOccasion> occasions
    ) =>
        new(
            HomeSheets.Says(sheet),
            sheet.Minutes,
            sheet.Focus,
            [
                .. sheet.Things.Select(thing => new Thing(
                    thing.Kind,
                    NameOf(thing, postures),
                    [.. thing.Postures.Select(done => new Done(done.PostureId, done.Side, done.Mode.Name, done.Words))],
                    thing.Times,
                    thing.Minutes,
                    thing.Seen,
                    thing.Mend
                )),
            ],
            occasions.FirstOrDefault(occasion => occasion.Id == sheet.Occasion) is { } found
                ? new(found.When, found.How)
                : null,
            [
                .. Cautions.Always,
                .. sheet
                    .Things.SelectMany(thing => thing.Postures)
                    .Select(done => done.Mode)
                    .Append(mode)
                    .Distinct()
                    .OrderBy(one => one.Adapted)
                    .SelectMany(Cautions.AtHome)
                    .Distinct(),
            ]
        );

    private static string NameOf(HomeThing thing, IReadOnlyDictionary<Guid, Posture> postures)
    {
        var names = thing.Postures.Select(done => postures[done.PostureId].NameOn(done.Side)).ToList();
        return thing.Kind == HomeKind.Flow ? $"{names[0]} to {names[^1]}" : string.Join(" → ", names);
    }

    private static Written AsWritten(HomePosture done, Posture posture) =>
        new(
            done.PostureId,
            done.Side,
            done.Mode.Name,
            posture.NameOn(done.Side),
            posture.On(done.Side, posture.KeyPoint),
            [.. posture.CountsFor(done.Mode)!.Select(count => posture.On(done.Side, count.Cue))],
            [.. posture.CautionsFor(done.Mode).Select(caution => posture.On(done.Side, caution))]
        );
}
