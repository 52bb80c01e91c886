using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>What of a form is new to somebody who knows another form, or to what most of a cohort does alone.</summary>
internal static class FormComparisonEndpoint
{
    public static void Map(ByRank api) =>
        api.Anyone.MapGet("/forms/{id:guid}/compare", Compare).ProducesProblem(404).WithName("compare");

    /// <param name="withForm">Another form that is known.</param>
    /// <param name="withCohort">A cohort: what most of it does alone is known.</param>
    private static async Task<Results<Ok<FormComparison>, ProblemHttpResult>> Compare(
        Guid id,
        Guid? withForm,
        Guid? withCohort,
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        if (await db.Forms.AsNoTracking().SingleOrDefaultAsync(form => form.Id == id, cancel) is not { } form)
        {
            return Refusals.NotFound("This form");
        }

        var postures = (await Material.LoadAsync(db, cancel)).Postures;
        if (withForm is { } other)
        {
            return await db.Forms.AsNoTracking().SingleOrDefaultAsync(f => f.Id == other, cancel) is { } known
                ? TypedResults.Ok(
                    FormComparison.Of(
                        form.Positions,
                        Knowledge.OfForm(known.Positions),
                        postures,
                        Mode.Standing,
                        await Material.TeachingAsync(db, cancel)
                    )
                )
                : Refusals.NotFound("The form to compare with");
        }

        if (await db.Cohorts.AsNoTracking().SingleOrDefaultAsync(c => c.Id == withCohort, cancel) is not { } cohort)
        {
            return Refusals.NotFound("The cohort to compare with");
        }

        if (
            !actor.Teaches(
                await db.Classes.AsNoTracking().SingleAsync(schoolClass => schoolClass.Id == cohort.ClassId, cancel),
                await clock.TodayAsync(cancel)
            )
        )
        {
            return Refusals.NotYours();
        }

        var everything = (await db.Forms.AsNoTracking().ToListAsync(cancel)).SelectMany(f => f.Positions).ToList();
        var books = await ProgressBooks.LoadAsync(db, [cohort.Id], DateOnly.MaxValue, cancel);
        var held = KnownPostures.By(
            books.In(cohort.Id),
            everything.Select(position => new PostureSide(position.PostureId, position.Side)),
            books.Book
        );
        return TypedResults.Ok(
            FormComparison.Of(
                form.Positions,
                Knowledge.OfSides(held, everything),
                postures,
                cohort.Mode,
                await Material.TeachingAsync(db, cancel)
            )
        );
    }
}
