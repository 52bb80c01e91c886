using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Arranger;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>A lesson on minutes and teachers: arranged anew around whatever is done to it by hand, and as a table.</summary>
internal static class ArrangementEndpoints
{
    private const int MostEdits = 200;

    /// <summary>What makes the lesson larger than the school's plan has it, of one kind.</summary>
    private const int MostAdded = 20;

    /// <param name="Minutes">How long the lesson lasts.</param>
    /// <param name="Begins">The minute at which the cohorts' own work begins.</param>
    /// <param name="Ends">The minute at which it is over.</param>
    /// <param name="Gap">How much better another arrangement could be at most, as a part of this one; 0 where it is proven
    /// best.</param>
    /// <param name="Version">Of what has been done by hand; null while nothing has.</param>
    public sealed record Response(
        int Minutes,
        int Begins,
        int Ends,
        IReadOnlyList<Lane> Cohorts,
        IReadOnlyList<Teacher> Teachers,
        IReadOnlyList<BlockOf> Blocks,
        IReadOnlyList<Shortfall> Shortfalls,
        double Gap,
        IReadOnlyList<LessonEdit> Edits,
        uint? Version
    );

    public sealed record Lane(Guid Id, string Name, int People, bool NeverAlone, string Practises);

    public sealed record Teacher(Guid Id, string Name, bool IsAssistant, IReadOnlyList<Guid> MayLead);

    /// <param name="CohortId">Null for what holds everybody.</param>
    /// <param name="Task">By which it is moved; null for own practice, visits and what the whole class does.</param>
    /// <param name="Fixed">A hand has fixed its minute or its teacher.</param>
    public sealed record BlockOf(
        int Start,
        int End,
        Guid? CohortId,
        BlockKind Kind,
        string What,
        Guid? LedBy,
        IReadOnlyList<Guid> With,
        string Because,
        string? Task,
        bool Fixed,
        IReadOnlyList<PostureSide> Material
    );

    public sealed record EditRequest(IReadOnlyList<LessonEdit> Edits, uint? Version);

    /// <summary>Something that happens while the lesson is held.</summary>
    /// <param name="Id">Sent twice, it happens once.</param>
    /// <param name="Edits">What is done about it, in this order.</param>
    /// <param name="Version">Of the arrangement the device showed when it happened.</param>
    public sealed record HappeningRequest(Guid Id, IReadOnlyList<LessonEdit> Edits, uint? Version);

    public static void Map(ByRank api)
    {
        var lesson = api.Group("/classes/{classId:guid}/lessons/{date}").Each(lessons => lessons.OpensFirst());
        lesson.Anyone.MapGet("/arrangement", Read).TakesATurn().WithName("arrangement");
        lesson.Anyone.MapGet("/arrangement/ways-out", WhatWouldHelp).TakesATurn().WithName("waysOut");
        lesson.Anyone.MapGet("/arrangement.csv", Table).TakesATurn().WithName("arrangementTable");
        lesson
            .Teacher.MapPut("/arrangement", Edit)
            .TakesATurn()
            .ProducesValidationProblem()
            .ProducesProblem(409)
            .WithName("editArrangement");
        lesson
            .Anyone.MapPost("/happenings", Happen)
            .TakesATurn()
            .ProducesValidationProblem()
            .WithName("sayWhatHappened");
    }

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        [AsParameters] AskedLesson asked,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (await ArrangedLesson.OpenAsync(asked, arrangements, cancel) is not { } lesson)
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        return TypedResults.Ok(Show(lesson.Planned, lesson.Kept, lesson.Arrangement));
    }

    private static async Task<Results<Ok<Collision>, ProblemHttpResult>> WhatWouldHelp(
        [AsParameters] AskedLesson asked,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (await ArrangedLesson.OpenAsync(asked, arrangements, cancel) is not { } lesson)
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        var others = await ArrangingLoader.OthersAsync(asked.Db, asked.Lesson, cancel);
        return TypedResults.Ok(WaysOut.Of(lesson.Now, lesson.Arrangement, others));
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Table(
        [AsParameters] AskedLesson asked,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (await ArrangedLesson.OpenAsync(asked, arrangements, cancel) is not { } lesson)
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        return CsvTable.Of(
            $"{asked.Date:yyyy-MM-dd}.csv",
            ["start_minute", "end_minute", "cohort", "kind", "what", "led_by", "with"],
            ArrangementTable
                .Of(
                    lesson.Arrangement,
                    lesson.Now.Cohorts.ToDictionary(cohort => cohort.Id, cohort => cohort.Name),
                    lesson.Now.Teachers.ToDictionary(teacher => teacher.Id, teacher => teacher.Name)
                )
                .Select(row =>
                    new[]
                    {
                        $"{row.StartMinute}",
                        $"{row.EndMinute}",
                        row.Cohort,
                        row.Kind,
                        row.What,
                        row.LedBy,
                        row.With,
                    }
                ),
            marked: false
        );
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Edit(
        [AsParameters] AskedLesson asked,
        EditRequest request,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (Refused(request.Edits) is { } refusal)
        {
            return refusal;
        }

        if (await LoadAsync(asked, cancel) is not { } problem)
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        var kept = await asked.Db.Arrangements.SingleOrDefaultAsync(
            its => its.ClassId == asked.ClassId && its.Date == asked.Date,
            cancel
        );
        if (kept?.Version != request.Version)
        {
            return Refusals.Stale("The lesson", ["Somebody else has arranged it meanwhile."]);
        }

        if (kept is null)
        {
            asked.Db.Add(kept = KeptArrangement.Of(asked.ClassId, asked.Date));
        }

        var arranged = arrangements.Of(problem.With(request.Edits), null);
        kept.Keep(request.Edits, arranged.Problem, arranged.Arrangement, asked.Actor.StaffId, asked.Clock.Now);
        await asked.Db.SaveChangesAsync(cancel);
        return TypedResults.Ok(Show(problem, kept, arranged.Arrangement));
    }

    private static async Task<Results<Ok<Response>, ValidationProblem, ProblemHttpResult>> Happen(
        [AsParameters] AskedLesson asked,
        HappeningRequest request,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (Refused(request.Edits) is { } wrong)
        {
            return wrong;
        }

        if (request.Edits.Index().FirstOrDefault(edit => !Happens(edit.Item)) is { Item: not null } planned)
        {
            return Refusals.Invalid(
                $"edits[{planned.Index}]",
                "This is arranged on the lesson's page, not in the hall."
            );
        }

        if (await LoadAsync(asked, cancel) is not { } problem)
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        // Whoever else says something at the same time: the one who comes second looks again.
        const int MostTries = 5;
        for (var attempt = 1; ; attempt++)
        {
            var kept = await asked.Db.Arrangements.SingleOrDefaultAsync(
                its => its.ClassId == asked.ClassId && its.Date == asked.Date,
                cancel
            );
            var before = arrangements.Of(problem.With(kept?.Edits ?? []), kept).Arrangement;
            if (kept?.Happened.Contains(request.Id) == true)
            {
                return TypedResults.Ok(Show(problem, kept, before));
            }

            List<LessonEdit> edits =
            [
                .. kept?.Edits ?? [],
                .. request.Edits.Select(edit =>
                    edit is LessonEdit.Since since && request.Version != kept?.Version
                        ? since with
                        {
                            Stood = Happenings.Stood(since, before, asked.Actor.StaffId),
                        }
                        : edit
                ),
            ];
            if (Refused(edits) is { } refusal)
            {
                return refusal;
            }

            if (kept is null)
            {
                asked.Db.Add(kept = KeptArrangement.Of(asked.ClassId, asked.Date));
            }

            var arranged = arrangements.Of(problem.With(edits), null);
            kept.Keep(edits, arranged.Problem, arranged.Arrangement, asked.Actor.StaffId, asked.Clock.Now);
            kept.Hear(request.Id);
            try
            {
                await asked.Db.SaveChangesAsync(cancel);
                return TypedResults.Ok(Show(problem, kept, arranged.Arrangement));
            }
            catch (DbUpdateException) when (attempt < MostTries)
            {
                asked.Db.ChangeTracker.Clear();
            }
        }
    }

    /// <summary>What anybody who is there may say, assistants too.</summary>
    private static bool Happens(LessonEdit edit) =>
        edit
            is LessonEdit.Since
                or LessonEdit.Pause
                or LessonEdit.Stretch
                or LessonEdit.Pin
                or LessonEdit.People
                or LessonEdit.Teacher;

    private static ValidationProblem? Refused(IReadOnlyList<LessonEdit> edits)
    {
        if (edits.Count > MostEdits)
        {
            return Refusals.Invalid("edits", $"A lesson keeps {MostEdits} changes by hand at most.");
        }

        var added = edits.Count(edit => edit is LessonEdit.Add or LessonEdit.Split);
        var joining = edits.OfType<LessonEdit.Teacher>().DistinctBy(edit => edit.Who.Id).Count();
        if (added > MostAdded || joining > MostAdded)
        {
            return Refusals.Invalid(
                "edits",
                $"At most {MostAdded} blocks, and as many who teach, are added to a lesson."
            );
        }

        List<Problem> refused =
        [
            .. edits
                .Index()
                .Select(edit => (edit.Index, Because: edit.Item is null ? "It says nothing." : edit.Item.Refused()))
                .Where(edit => edit.Because is not null)
                .Select(edit => new Problem($"edits[{edit.Index}]", edit.Because!)),
        ];
        return refused.Count > 0 ? Refusals.Invalid(refused) : null;
    }

    private static async Task<LessonProblem?> LoadAsync(AskedLesson asked, CancellationToken cancel) =>
        await ArrangingLoader.LoadAsync(asked.Db, asked.Lesson, await asked.PlanAsync(cancel), asked.Today, cancel);

    private static Response Show(LessonProblem problem, KeptArrangement? kept, Arrangement arrangement)
    {
        var now = problem.With(kept?.Edits ?? []);
        return new(
            now.Minutes,
            now.Begins,
            now.Ends,
            [
                .. now.Cohorts.Select(cohort => new Lane(
                    cohort.Id,
                    cohort.Name,
                    cohort.People,
                    cohort.NeverAlone,
                    cohort.Practises
                )),
            ],
            [
                .. now.Teachers.Select(teacher => new Teacher(
                    teacher.Id,
                    teacher.Name,
                    !teacher.LeadsEverything,
                    [.. now.Cohorts.Where(teacher.MayLead).Select(cohort => cohort.Id)]
                )),
            ],
            [
                .. arrangement.Blocks.Select(block => new BlockOf(
                    block.Start,
                    block.End,
                    block.CohortId,
                    block.Kind,
                    block.What,
                    block.LedBy,
                    block.With,
                    block.Because,
                    block.Task,
                    now.Pins.Any(pin => pin.Key == block.Task),
                    block.Material
                )),
            ],
            arrangement.Shortfalls,
            arrangement.Gap,
            kept?.Edits ?? [],
            kept?.Version
        );
    }
}
