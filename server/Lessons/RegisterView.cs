using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Server.Progress;

namespace Zeitplan.Server.Lessons;

/// <summary>The register of one lesson as it is read: who is there, what is to be taught, what was seen.</summary>
internal static class RegisterView
{
    /// <param name="Recorded">Whether anything has been said about what was taught.</param>
    public sealed record Response(
        Guid ClassId,
        string Class,
        DateOnly Date,
        int Number,
        bool Held,
        bool Recorded,
        IReadOnlyList<CohortRegister> Cohorts,
        IReadOnlyList<StudentRow> Students
    );

    public sealed record CohortRegister(
        Guid CohortId,
        string Name,
        string Colour,
        Half Half,
        IReadOnlyList<Item> Items
    );

    /// <param name="Planned">Minutes the plan reckons with, for something new.</param>
    /// <param name="Took">Minutes it took, where somebody said so.</param>
    /// <param name="Taught">Whether it was taught; null while nobody has said so.</param>
    /// <param name="GoodEnough">What counts as good enough for the cohort's level; null for a group of no
    /// level.</param>
    /// <param name="AcceptedFaults">Faults the level still accepts.</param>
    /// <param name="BesideFocus">Faults that have nothing to do with the lesson's focus: recorded, not called.</param>
    public sealed record Item(
        Guid PostureId,
        Side Side,
        string Name,
        UnitKind Kind,
        PostureSide? From,
        TaughtHow How,
        bool? Taught,
        decimal? Planned,
        decimal? Took,
        IReadOnlyList<Fault> Faults,
        string? GoodEnough,
        IReadOnlyList<Guid> AcceptedFaults,
        IReadOnlyList<Guid> BesideFocus
    );

    /// <param name="Present">Null while attendance has not been taken.</param>
    /// <param name="Mode">The common name of the mode they usually take part in.</param>
    /// <param name="Against">The principles they have a correction against, or something was seen of today.</param>
    public sealed record StudentRow(
        Guid StudentId,
        string Name,
        Guid CohortId,
        string Mode,
        bool? Present,
        IReadOnlyList<Cell> Cells,
        IReadOnlyList<AgainstPrinciple> Against
    );

    /// <summary>A correction against a principle, wherever it is seen.</summary>
    public sealed record AgainstPrinciple(
        Guid PrincipleId,
        string Principle,
        OpenCorrection Correction,
        IReadOnlyList<Seen> Today
    );

    /// <param name="From">Of a link, the posture it leads on from.</param>
    /// <param name="Relearn">What the school does otherwise than they learned it; null where they do it as it is done
    /// now.</param>
    /// <param name="Open">The corrections that are not cleared, the heaviest first.</param>
    /// <param name="Today">What was seen in this lesson, oldest first.</param>
    public sealed record Cell(
        Guid PostureId,
        Side Side,
        PostureSide? From,
        Stage Stage,
        bool Fading,
        bool TakenOver,
        Weight? Correction,
        string? Relearn,
        IReadOnlyList<OpenCorrection> Open,
        IReadOnlyList<Seen> Today
    );

    /// <param name="TriedToday">What was done about it in this lesson.</param>
    public sealed record OpenCorrection(
        Guid? FaultId,
        string Words,
        Weight Weight,
        bool Stuck,
        IReadOnlyList<Tried> TriedToday
    );

    /// <param name="Cause">The cause it was meant for; empty where nobody said.</param>
    public sealed record Tried(Way Way, string Cause);

    /// <param name="Mode">The common name of the mode it was done in; null for as they usually take part.</param>
    public sealed record Seen(
        Guid Id,
        Sign Sign,
        Stage? Stage,
        string Words,
        Weight? Weight,
        string? Mode,
        bool InRunThrough
    );

    public static async Task<Ok<Response>> Read([AsParameters] AskedLesson asked, CancellationToken cancel)
    {
        var (db, today, lesson, plan) = (asked.Db, asked.Today, asked.Lesson, await asked.PlanAsync(cancel));
        var (classId, date) = (asked.ClassId, asked.Date);
        var cohorts = await db
            .Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == classId)
            .OrderBy(cohort => cohort.Order)
            .ToListAsync(cancel);
        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var attendance = ProgressBook
            .Latest(
                await db
                    .Attendance.AsNoTracking()
                    .Where(fact => fact.ClassId == classId && fact.Date == date)
                    .ToListAsync(cancel)
            )
            .ToDictionary(fact => fact.StudentId, fact => fact.Present);
        var seen = (
            await db
                .StandingObservations.AsNoTracking()
                .Where(observation => observation.ClassId == classId && observation.Date == date)
                .ToListAsync(cancel)
        ).ToLookup(observation =>
            (
                observation.StudentId,
                observation.PrincipleId,
                Of: observation.PrincipleId is null ? observation.Key : default(UnitKey?)
            )
        );
        var principles = await db.Principles.AsNoTracking().ToDictionaryAsync(principle => principle.Id, cancel);
        var arranged = await db
            .Arrangements.AsNoTracking()
            .SingleOrDefaultAsync(kept => kept.ClassId == classId && kept.Date == date, cancel);
        var guests = attendance.Keys.Concat(seen.Select(mark => mark.Key.StudentId)).ToHashSet();
        var facts = await ProgressBooks.LoadOnAsync(
            db,
            [.. cohorts.Select(cohort => cohort.Id)],
            date,
            guests,
            JoiningTonight.Of(arranged?.Edits ?? []),
            today,
            cancel
        );
        var record = ProgressBook
            .Records(
                await db
                    .TaughtFacts.AsNoTracking()
                    .Where(r => r.ClassId == classId && r.Date == date)
                    .ToListAsync(cancel)
            )
            .SingleOrDefault();

        var faults = new KnownFaults(postures, await db.Links.AsNoTracking().ToListAsync(cancel));
        var sashes = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, sash => sash.Asks, cancel);
        var focus = arranged?.Edits.FocusOf();
        var registers = cohorts
            .Select(cohort => new CohortRegister(
                cohort.Id,
                cohort.Name,
                cohort.Colour,
                cohort.Half,
                Items(
                    cohort.Id,
                    plan,
                    record,
                    postures,
                    faults,
                    sashes.GetValueOrDefault(cohort.SashId ?? Guid.Empty),
                    focus
                )
            ))
            .ToList();
        var items = registers.ToDictionary(register => register.CohortId, register => register.Items);
        var order = cohorts.Index().ToDictionary(cohort => cohort.Item.Id, cohort => cohort.Index);
        return TypedResults.Ok(
            new Response(
                classId,
                lesson.Class.Name,
                date,
                lesson.Day.Number!.Value,
                date <= today,
                record is not null,
                registers,
                [
                    .. from student in facts.Students
                    let cohortId = facts.Cohorts[student.Id]
                    orderby order[cohortId], student.GivenName
                    select new StudentRow(
                        student.Id,
                        student.ShortName,
                        cohortId,
                        facts.Book.UsualOf(student.Id).Name,
                        attendance.TryGetValue(student.Id, out var present) ? present : null,
                        [.. items[cohortId].Select(item => Show(student.Id, item))],
                        [.. Against(student.Id)]
                    ),
                ]
            )
        );

        Cell Show(Guid student, Item item)
        {
            var of = new UnitKey(
                item.Kind,
                item.PostureId,
                item.Side,
                item.From?.PostureId,
                item.From?.Side
            ).AsWatched();
            var standing = facts.Book.StandingOf(student, of);
            return new(
                item.PostureId,
                item.Side,
                item.From,
                standing.Stage,
                standing.Fading,
                standing.TakenOver,
                standing.OpenWeight,
                item.Kind == UnitKind.Link
                    ? null
                    : Relearning
                        .Of(
                            student,
                            new(item.PostureId, item.Side),
                            postures[item.PostureId].Text.Changes,
                            facts.Book,
                            date
                        )
                        ?.Difference,
                [
                    .. standing
                        .Corrections.Where(correction => correction.IsOpen)
                        .OrderByDescending(correction => correction.Weight)
                        .Select(Open),
                ],
                Today(seen[(student, null, of)])
            );
        }

        IEnumerable<AgainstPrinciple> Against(Guid student) =>
            from its in facts.Book.AgainstPrinciples(student)
            let today = Today(seen[(student, its.PrincipleId, null)])
            // What was seen today can be taken back today.
            where its.Correction.IsOpen || today.Count > 0
            orderby its.Correction.Weight descending, its.Correction.Since
            select new AgainstPrinciple(
                its.PrincipleId,
                principles[its.PrincipleId].Text.Name,
                Open(its.Correction),
                today
            );

        OpenCorrection Open(Correction correction) =>
            new(
                correction.FaultId,
                correction.Words,
                correction.Weight,
                correction.Stuck,
                [.. correction.Tried.Where(way => way.Date == date).Select(way => new Tried(way.Way, way.Cause))]
            );
    }

    private static IReadOnlyList<Seen> Today(IEnumerable<Observation> seen) =>
        [
            .. seen.OrderBy(s => s.At)
                .ThenBy(s => s.Id)
                .Select(s => new Seen(s.Id, s.Sign, s.Stage, s.Words, s.Weight, s.Mode?.Name, s.InRunThrough)),
        ];

    /// <summary>What the plan holds for a cohort, with what was recorded besides: new first, then reviewed, then run
    /// through.</summary>
    private static List<Item> Items(
        Guid cohortId,
        LessonPlan plan,
        LessonRecord? record,
        IReadOnlyDictionary<Guid, Posture> postures,
        KnownFaults faults,
        SashAsks? asks,
        LessonEdit.Focus? focus
    )
    {
        var said = record?.Said.Where(fact => fact.CohortId == cohortId).ToDictionary(fact => fact.Item.Key) ?? [];
        var planned = plan.AskedOf(cohortId)?.Units.ToDictionary(unit => unit.Key, unit => unit.IntroduceSeconds) ?? [];
        // In the plan's order, whatever has been said: nothing moves under a finger that ticks. What no plan foresaw follows.
        var all = plan.For(cohortId)
            .Select(item => said.TryGetValue(item.Key, out var fact) ? fact.Item : item)
            .Concat(said.Values.Select(fact => fact.Item))
            .DistinctBy(item => item.Key)
            .OrderBy(item => item.How);
        return
        [
            .. all.Select(item =>
            {
                var posture = postures[item.PostureId];
                var standard = asks?.For(item.PostureId, posture.Faults);
                var fact = said.GetValueOrDefault(item.Key);
                var name = item.Key.NameWith(of => postures[of.PostureId].NameOn(of.Side));
                decimal? minutes =
                    item.How == TaughtHow.Introduced && planned.TryGetValue(item.Key, out var seconds)
                        ? seconds.Minutes
                        : null;
                var known = faults.Of(item.Key.AsWatched());
                return new Item(
                    item.PostureId,
                    item.Side,
                    name,
                    item.Kind,
                    item.From,
                    item.How,
                    fact?.Taught,
                    minutes,
                    fact?.Minutes,
                    known,
                    standard?.Say(),
                    standard?.AcceptedFaults ?? [],
                    [.. known.Where(fault => focus?.Calls(fault) == false).Select(fault => fault.Id)]
                );
            }),
        ];
    }
}
