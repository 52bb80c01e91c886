using Microsoft.AspNetCore.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Zeitplan.Server.Web;

/// <summary>
/// What the database would not keep: somebody was quicker, or a rule it keeps itself is broken. Endpoints look before
/// they save and say more; this is for what happens between the look and the save.
/// </summary>
internal sealed class RefusedByDatabase : IExceptionHandler
{
    private static readonly Dictionary<string, string> Broken = new()
    {
        ["ix_halls_name"] = "There is a hall of this name already.",
        ["ix_forms_name"] = "There is a form of this name already.",
        ["ix_postures_name"] = "There is a posture of this name already.",
        ["ix_sashes_order"] = "Somebody else changed the ladder at the same moment.",
        ["ix_sashes_name"] = "There is a sash of this name already.",
        ["terms_do_not_overlap"] = "There is a term in these weeks already.",
        ["ix_plans_term_id_class_id_based_on"] = "Another step was taken at the same moment. Look at it, then go on.",
        ["pk_imports"] = "This file has been imported already.",
    };

    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        if (Answer(exception) is not { } answer)
        {
            return false;
        }

        await answer.ExecuteAsync(httpContext);
        return true;
    }

    private static IResult? Answer(Exception exception) =>
        exception switch
        {
            DbUpdateConcurrencyException => Refusals.Stale("This", []),
            DbUpdateException { InnerException: PostgresException refused } => Answer(refused),
            PostgresException refused => Answer(refused),
            InvalidOperationException { InnerException: PostgresException refused } => Answer(refused),
            _ => null,
        };

    private static IResult? Answer(PostgresException refused) =>
        refused.SqlState switch
        {
            PostgresErrorCodes.UniqueViolation => Refusals.Conflict(
                Said(refused, "This is here already, or something else has its name.")
            ),
            PostgresErrorCodes.ExclusionViolation => Refusals.Conflict(
                Said(refused, "This overlaps something that is here already.")
            ),
            PostgresErrorCodes.ForeignKeyViolation => Refusals.Conflict(
                "Something this belongs to is not here any more, or something else still needs it. Nothing was saved."
            ),
            PostgresErrorCodes.CheckViolation => Refusals.Conflict(
                Said(refused, "Something in it lies outside what can be. Nothing was saved.")
            ),
            PostgresErrorCodes.SerializationFailure or PostgresErrorCodes.DeadlockDetected => Refusals.Conflict(
                "Somebody else saved at the same moment. Nothing of yours was saved; try again."
            ),
            ['2', '2', ..] => Refusals.Invalid("", "Something in it cannot be kept."),
            _ => null,
        };

    private static string Said(PostgresException refused, string otherwise) =>
        Broken.GetValueOrDefault(refused.ConstraintName ?? "", otherwise);
}
