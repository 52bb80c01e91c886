using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Arranger;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
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
        // What is said in the hall waits for nobody who plans.
        lesson.Anyone.MapPost("/happenings", Happen).ProducesValidationProblem().WithName("sayWhatHappened");
    }

    private static async Task<Results<Ok<ArrangementView.Response>, ProblemHttpResult>> Read(
        [AsParameters] AskedLesson asked,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (await ArrangedLesson.OpenAsync(asked, arrangements, cancel) is not { } lesson)
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        return TypedResults.Ok(
            await ArrangementView.OfAsync(asked, lesson.ToArrange, lesson.Kept, lesson.Arrangement, cancel)
        );
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
        return TypedResults.Ok(WaysOut.Of(lesson.Now, lesson.Arrangement, others, cancel));
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

    internal static async Task<Results<Ok<ArrangementView.Response>, ValidationProblem, ProblemHttpResult>> Edit(
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

        var kept = await asked.Db.Arrangements.SingleOrDefaultAsync(
            its => its.ClassId == asked.ClassId && its.Date == asked.Date,
            cancel
        );
        var (edits, problems) = await JoiningTonight.KnowAsync(asked, request.Edits, kept?.Edits ?? [], cancel);
        problems = [.. problems, .. await MakingUp.CheckAsync(asked, edits, kept?.Edits ?? [], cancel)];
        if (problems.Count > 0)
        {
            return Refusals.Invalid(problems);
        }

        if (await LoadAsync(asked, edits, cancel) is not { } toArrange)
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        if (kept?.Version != request.Version)
        {
            return Refusals.Stale("The lesson", ["Somebody else has arranged it meanwhile."]);
        }

        var was = toArrange.Problem.With(kept?.Edits ?? []);
        var before = arrangements.Of(was, kept).Arrangement;
        if (kept is null)
        {
            asked.Db.Add(kept = KeptArrangement.Of(asked.ClassId, asked.Date));
        }

        var arranged = arrangements.After(was, before, toArrange.Problem.With(edits));
        kept.Keep(edits, arranged.Problem, arranged.Arrangement, asked.Actor.StaffId, asked.Clock.Now);
        await asked.Db.SaveChangesAsync(cancel);
        return TypedResults.Ok(await ArrangementView.OfAsync(asked, toArrange, kept, arranged.Arrangement, cancel));
    }

    private static async Task<Results<Ok<ArrangementView.Response>, ValidationProblem, ProblemHttpResult>> Happen(
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

        // Whoever else says something at the same time: the one who comes second looks again.
        const int MostTries = 5;
        for (var attempt = 1; ; attempt++)
        {
            var kept = await asked.Db.Arrangements.SingleOrDefaultAsync(
                its => its.ClassId == asked.ClassId && its.Date == asked.Date,
                cancel
            );
            var (happens, problems) = await JoiningTonight.KnowAsync(asked, request.Edits, kept?.Edits ?? [], cancel);
            if (problems.Count > 0)
            {
                return Refusals.Invalid(problems);
            }

            if (await LoadAsync(asked, [.. kept?.Edits ?? [], .. happens], cancel) is not { } toArrange)
            {
                return Refusals.NotFound("A plan of this lesson");
            }

            var was = toArrange.Problem.With(kept?.Edits ?? []);
            var before = arrangements.Of(was, kept).Arrangement;
            if (kept?.Happened.Contains(request.Id) == true)
            {
                return TypedResults.Ok(await ArrangementView.OfAsync(asked, toArrange, kept, before, cancel));
            }

            List<LessonEdit> edits =
            [
                .. kept?.Edits ?? [],
                .. happens.Select(edit =>
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

            var arranged = arrangements.After(was, before, toArrange.Problem.With(edits));
            kept.Keep(edits, arranged.Problem, arranged.Arrangement, asked.Actor.StaffId, asked.Clock.Now);
            kept.Hear(request.Id);
            try
            {
                await asked.Db.SaveChangesAsync(cancel);
                return TypedResults.Ok(
                    await ArrangementView.OfAsync(asked, toArrange, kept, arranged.Arrangement, cancel)
                );
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
                or LessonEdit.Joins
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

    private static async Task<ToArrange?> LoadAsync(
        AskedLesson asked,
        IReadOnlyList<LessonEdit> edits,
        CancellationToken cancel
    ) =>
        await ArrangingLoader.LoadAsync(
            asked.Db,
            asked.Lesson,
            await asked.PlanAsync(cancel),
            edits,
            asked.Today,
            cancel
        );
}
