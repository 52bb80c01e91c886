using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Lessons;

/// <summary>A lesson as it is arranged now, opened once for whoever reads it.</summary>
/// <param name="ToArrange">What the term plan asks of it.</param>
/// <param name="Now">The same, with what has been done by hand.</param>
internal sealed record ArrangedLesson(
    ToArrange ToArrange,
    LessonProblem Now,
    KeptArrangement? Kept,
    Arrangement Arrangement
)
{
    /// <returns>Null while the term plan knows nothing of the lesson.</returns>
    public static async Task<ArrangedLesson?> OpenAsync(
        SchoolContext db,
        Lesson lesson,
        LessonPlan plan,
        DateOnly today,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        var kept = await db
            .Arrangements.AsNoTracking()
            .SingleOrDefaultAsync(its => its.ClassId == lesson.Class.Id && its.Date == lesson.Date, cancel);
        var edits = kept?.Edits ?? [];
        if (await ArrangingLoader.LoadAsync(db, lesson, plan, edits, today, cancel) is not { } planned)
        {
            return null;
        }

        var now = planned.Problem.With(edits);

        // What was held stands, whatever the school's measures are by now.
        var isHistory = kept is not null && lesson.Date < today;
        return new(planned, now, kept, isHistory ? kept!.Arrangement : arrangements.Of(now, kept).Arrangement);
    }

    public static async Task<ArrangedLesson?> OpenAsync(
        AskedLesson asked,
        Arrangements arrangements,
        CancellationToken cancel
    ) => await OpenAsync(asked.Db, asked.Lesson, await asked.PlanAsync(cancel), asked.Today, arrangements, cancel);
}
