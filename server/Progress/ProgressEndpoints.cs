using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>Who can do what: the table of a class, and one student's facts.</summary>
internal static class ProgressEndpoints
{
    /// <param name="Held">The lessons somebody has marked, oldest first: after each of them it was another table.</param>
    public sealed record Table(
        Guid ClassId,
        string Class,
        IReadOnlyList<DateOnly> Held,
        IReadOnlyList<Column> Columns,
        IReadOnlyList<Row> Rows,
        int LongUnseen,
        IReadOnlyList<ReTeachResponse> ReTeach
    );

    public sealed record Column(Guid PostureId, Side Side, string Name);

    /// <param name="Cells">One for each column.</param>
    /// <param name="OpenCorrections">Also those no column shows: of a link or a drill, and against a principle.</param>
    /// <param name="SeenDays">Days since somebody watched this student; null when nobody ever did.</param>
    public sealed record Row(
        Guid StudentId,
        string Name,
        Guid CohortId,
        string Cohort,
        string Sash,
        string SashColour,
        Half Half,
        IReadOnlyList<Cell> Cells,
        int OpenCorrections,
        int? SeenDays,
        bool LongUnseen,
        Eyes Eyes
    );

    /// <summary>In how many of the lessons of the last six weeks in which somebody was there they were watched.</summary>
    /// <param name="IsFair">In half of them at least.</param>
    public sealed record Eyes(int Seen, int Here, bool IsFair);

    /// <param name="TakenOver">Held to be so by what they came with: nobody here has seen it.</param>
    public sealed record Cell(Stage Stage, bool Fading, Weight? Correction, bool Stuck, bool TakenOver);

    public sealed record ReTeachResponse(string Cohort, string Posture, string Words, int Have, int Observed);

    /// <param name="ClassId">Their own class; null for somebody who left.</param>
    public sealed record StudentResponse(
        Guid Id,
        string Name,
        string Sash,
        Half Half,
        Guid? ClassId,
        string Class,
        string Cohort,
        string Mode,
        DateOnly Joined,
        DateOnly? Left,
        IReadOnlyList<StandingResponse> Standings,
        IReadOnlyList<CorrectionViews.HabitResponse> Habits,
        IReadOnlyList<CorrectionViews.AgainstResponse> Against,
        IReadOnlyList<Fact> Facts
    );

    /// <param name="From">Of a link, the posture it leads on from.</param>
    /// <param name="OtherModes">What was seen in other modes than the usual one.</param>
    /// <param name="Relearn">What the school does otherwise than they learned it; null where they do it as it is done
    /// now.</param>
    public sealed record StandingResponse(
        Guid PostureId,
        Side Side,
        PostureSide? From,
        string Name,
        string KeyPoint,
        Stage Stage,
        bool Fading,
        bool TakenOver,
        IReadOnlyList<ModeStage> OtherModes,
        ToRelearn? Relearn,
        Walk Walk,
        IReadOnlyList<CorrectionViews.CorrectionResponse> Corrections
    );

    /// <param name="ShownSince">They were there when it was taught, and nobody has seen them do it since.</param>
    public sealed record ToRelearn(DateOnly Since, string Difference, bool ShownSince)
    {
        public static ToRelearn? Of(Relearning? relearning) =>
            relearning is null ? null : new(relearning.Since, relearning.Difference, relearning.ShownSince);
    }

    public sealed record ModeStage(string Mode, Stage Stage);

    /// <summary>One dated fact; a withdrawn one is still shown, as withdrawn.</summary>
    public sealed record Fact(
        Guid Id,
        DateOnly Date,
        string Kind,
        string? Posture,
        Guid? PostureId,
        Side? Side,
        PostureSide? From,
        string? Mode,
        Sign? Sign,
        Stage? Stage,
        Weight? Weight,
        string Words,
        bool? Present,
        string By,
        bool InRunThrough,
        bool Withdrawn,
        bool MayWithdraw
    );

    public static void Map(ByRank api)
    {
        api.Group("/classes/{classId:guid}")
            .Each(classes => classes.OpensFirst())
            .Anyone.MapGet("/progress", ReadTable)
            .WithName("progress");
        api.Anyone.MapGet("/students/{id:guid}", ReadStudent)
            .ProducesProblem(403)
            .ProducesProblem(404)
            .WithName("student");
    }

    /// <param name="on">As it was at the end of an earlier day, of the people and postures of now.</param>
    private static async Task<Ok<Table>> ReadTable(
        [AsParameters] AskedClass asked,
        [FromQuery] DateOnly? on,
        CancellationToken cancel
    )
    {
        var (db, cohorts) = (asked.Db, await asked.CohortsAsync(cancel));
        var today = on < asked.Today ? on.Value : asked.Today;
        var known = await ProgressBooks.LoadAsync(db, [.. cohorts.Select(cohort => cohort.Id)], asked.Today, cancel);
        var sashes = known.Facts.Syllabus.Ladder.ToDictionary(sash => sash.Id);
        var postures = known.Facts.Syllabus.Outlines;
        var columns = await ColumnsAsync(db, known, cancel);
        var facts = today == asked.Today ? known : known.On(today);
        var order = cohorts.Index().ToDictionary(cohort => cohort.Item.Id);
        var shares = FairEyes.Shares(ProgressBook.Latest(facts.Facts.Attendance), facts.Facts.Observations, today);
        List<Row> rows =
        [
            .. from student in facts.Students
            let cohort = order[facts.Cohorts[student.Id]]
            let days = facts.Book.LastSeen(student.Id) is { } seen ? today.DayNumber - seen.DayNumber : (int?)null
            orderby cohort.Index, student.GivenName
            select new Row(
                student.Id,
                student.ShortName,
                cohort.Item.Id,
                cohort.Item.Name,
                sashes[student.SashId].Name,
                sashes[student.SashId].Colour,
                student.Half,
                [.. columns.Select(of => Show(StandingOf(student, of)))],
                facts.Book.OpenCorrections(student.Id),
                days,
                ProgressBook.IsLongUnseen(days),
                EyesOn(student.Id)
            ),
        ];
        return TypedResults.Ok(
            new Table(
                asked.ClassId,
                asked.Class.Name,
                await db
                    .Attendance.Where(fact => fact.ClassId == asked.ClassId)
                    .Select(fact => fact.Date)
                    .Distinct()
                    .Order()
                    .ToListAsync(cancel),
                [.. columns.Select(of => new Column(of.PostureId, of.Side, postures[of.PostureId].NameOn(of.Side)))],
                rows,
                rows.Count(row => row.LongUnseen),
                [
                    .. from cohort in cohorts
                    from proposal in ReTeach.Propose(cohort.Id, facts.In(cohort.Id), columns, facts.Book)
                    select new ReTeachResponse(
                        cohort.Name,
                        postures[proposal.Of.PostureId].NameOn(proposal.Of.Side),
                        proposal.Words,
                        proposal.Have,
                        proposal.Observed
                    ),
                ]
            )
        );

        Eyes EyesOn(Guid student)
        {
            var share = shares.GetValueOrDefault(student, new(0, 0));
            return new(share.Seen, share.Here, share.IsFair);
        }

        Standing StandingOf(Student student, PostureSide of) =>
            student.Joined > today ? Standing.NotMet : facts.Book.StandingOf(student.Id, of);

        static Cell Show(Standing standing) =>
            new(
                standing.Stage,
                standing.Fading,
                standing.OpenWeight,
                standing.Corrections.Any(correction => correction.Stuck),
                standing.TakenOver
            );
    }

    /// <summary>Every posture and side of the school's forms in form order, and whatever else anybody in the class has
    /// met or come with.</summary>
    internal static async Task<List<PostureSide>> ColumnsAsync(
        SchoolContext db,
        ProgressBooks.Loaded facts,
        CancellationToken cancel
    )
    {
        // The longest form gives the order; what is derived from it adds little.
        var forms = (await db.Forms.AsNoTracking().OrderBy(form => form.Name).ToListAsync(cancel)).OrderByDescending(
            form => form.Positions.Count
        );
        return
        [
            .. forms
                .SelectMany(form => form.Positions)
                .Select(position => new PostureSide(position.PostureId, position.Side))
                .Concat(facts.Students.SelectMany(student => facts.Book.MetBy(student.Id)))
                .Concat(facts.Students.SelectMany(student => facts.Book.TakenOverBy(student.Id)))
                .Distinct(),
        ];
    }

    private static async Task<Results<Ok<StudentResponse>, ProblemHttpResult>> ReadStudent(
        Guid id,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Students.AsNoTracking().SingleOrDefaultAsync(s => s.Id == id, cancel) is not { } student)
        {
            return Refusals.NotFound("This student");
        }

        var today = await clock.TodayAsync(cancel);
        var cohorts = await db.Cohorts.AsNoTracking().Where(c => student.CohortIds.Contains(c.Id)).ToListAsync(cancel);
        var classIds = cohorts.Select(c => c.ClassId).ToList();
        var classes = await db.Classes.AsNoTracking().Where(c => classIds.Contains(c.Id)).ToListAsync(cancel);
        if (!actor.IsHead && !classes.Any(schoolClass => actor.Teaches(schoolClass, today)))
        {
            return Refusals.NotYours();
        }

        // Their own class comes first; somebody who left has none.
        var cohort = cohorts
            .OrderBy(c => Array.IndexOf(student.CohortIds, c.Id))
            .FirstOrDefault(c => actor.Teaches(classes.Single(schoolClass => schoolClass.Id == c.ClassId), today));
        var schoolClass = classes.SingleOrDefault(c => c.Id == cohort?.ClassId);
        var sash = await db.Sashes.AsNoTracking().SingleAsync(s => s.Id == student.SashId, cancel);
        var facts = await ProgressBooks.LoadOneAsync(db, student, today, cancel);
        var columns = await ColumnsAsync(db, facts, cancel);
        var views = await CorrectionViews.LoadAsync(facts, db, cancel);
        return TypedResults.Ok(
            new StudentResponse(
                student.Id,
                $"{student.GivenName} {student.FamilyName}".Trim(),
                sash.Name,
                student.Half,
                schoolClass?.Id,
                schoolClass?.Name ?? "",
                cohort?.Name ?? "",
                student.ModeIn(cohort?.Mode ?? Mode.Standing).Name,
                student.Joined,
                student.Left,
                [
                    .. columns
                        .Select(of => new UnitKey(UnitKind.Posture, of.PostureId, of.Side))
                        .Concat(facts.Book.LinksMetBy(id))
                        .Select(of => Show(id, of, facts.Book, views, today))
                        .Where(standing => standing.Stage != Stage.NotMet),
                ],
                views.HabitsOf(id, facts.Book),
                views.AgainstOf(id, facts.Book),
                await HistoryAsync(id, views, db, actor, cancel)
            )
        );
    }

    private static StandingResponse Show(
        Guid student,
        UnitKey of,
        ProgressBook book,
        CorrectionViews views,
        DateOnly today
    )
    {
        var (standing, posture) = (book.StandingOf(student, of), views.Postures[of.PostureId]);
        return new(
            of.PostureId,
            of.Side,
            of.From(),
            views.NameOf(of),
            posture.On(of.Side, posture.KeyPoint),
            standing.Stage,
            standing.Fading,
            standing.TakenOver,
            [.. book.StagesInOtherModes(student, of).Select(other => new ModeStage(other.Mode.Name, other.Stage))],
            of.Kind == UnitKind.Link
                ? null
                : ToRelearn.Of(Relearning.Of(student, new(of.PostureId, of.Side), posture.Text.Changes, book, today)),
            book.WalkOf(student, of),
            [
                .. standing
                    .Corrections.OrderByDescending(correction => correction.IsOpen)
                    .ThenByDescending(correction => correction.Weight)
                    .Select(correction => views.Show(of, correction)),
            ]
        );
    }

    private static async Task<IReadOnlyList<Fact>> HistoryAsync(
        Guid id,
        CorrectionViews views,
        SchoolContext db,
        Actor actor,
        CancellationToken cancel
    )
    {
        var staff = await db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        var observations = await db.Observations.AsNoTracking().Where(o => o.StudentId == id).ToListAsync(cancel);
        var withdrawn = await db
            .Withdrawals.Where(w => db.Observations.Any(o => o.Id == w.ObservationId && o.StudentId == id))
            .Select(w => w.ObservationId)
            .ToHashSetAsync(cancel);
        var attendance = ProgressBook.Latest(
            await db.Attendance.AsNoTracking().Where(fact => fact.StudentId == id).ToListAsync(cancel)
        );
        return
        [
            .. observations
                .Select(o =>
                    (
                        o.At,
                        Fact: new Fact(
                            o.Id,
                            o.Date,
                            "observation",
                            views.NameOf(o),
                            // What is against a principle is about no posture, though it was seen in one.
                            o.PrincipleId
                                is null
                                ? o.PostureId
                                : null,
                            o.Side,
                            o.Key.From(),
                            o.Mode?.Name,
                            o.Sign,
                            o.Stage,
                            o.Weight,
                            o.Words,
                            null,
                            NameOf(o.By),
                            o.InRunThrough,
                            withdrawn.Contains(o.Id),
                            actor.MayWithdraw(o) && !withdrawn.Contains(o.Id)
                        )
                    )
                )
                .Concat(
                    attendance.Select(fact =>
                        (
                            fact.At,
                            Fact: new Fact(
                                fact.Id,
                                fact.Date,
                                "attendance",
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                null,
                                "",
                                fact.Present,
                                NameOf(fact.By),
                                false,
                                false,
                                false
                            )
                        )
                    )
                )
                .OrderByDescending(entry => entry.Fact.Date)
                .ThenByDescending(entry => entry.At)
                .Select(entry => entry.Fact),
        ];

        string NameOf(Guid by) => staff.GetValueOrDefault(by, "somebody who left");
    }
}
