using Microsoft.AspNetCore.Http.HttpResults;
using Zeitplan.Core;

namespace Zeitplan.Server.School;

/// <summary>The ways of saying no: problem details (RFC 9457) with a stable type.</summary>
internal static class Answers
{
    private const string Types = "urn:zeitplan:problem:";

    /// <summary>Each problem at the field it concerns.</summary>
    public static ValidationProblem Invalid(IEnumerable<Problem> problems) =>
        TypedResults.ValidationProblem(
            problems
                .GroupBy(problem => problem.Field)
                .ToDictionary(same => same.Key, same => same.Select(problem => problem.Message).ToArray()),
            title: "Some of this cannot be kept as it is. Nothing was saved.",
            type: Types + "invalid"
        );

    public static ValidationProblem Invalid(string field, string message) => Invalid([new(field, message)]);

    /// <summary>Somebody saved in between. <paramref name="changes"/> says what stands differently now.</summary>
    public static ProblemHttpResult Stale(string what, IEnumerable<string> changes) =>
        TypedResults.Problem(
            title: $"{what} was changed in the meantime. Nothing of yours was saved.",
            detail: "Look at what changed, then make your change again.",
            statusCode: StatusCodes.Status409Conflict,
            type: Types + "stale",
            extensions: new Dictionary<string, object?> { ["changes"] = changes.ToArray() }
        );

    /// <summary>Something cannot be taken out while it is used. <paramref name="uses"/> says where.</summary>
    public static ProblemHttpResult InUse(string what, IEnumerable<string> uses) =>
        TypedResults.Problem(
            title: $"{what} is in use and stays. Nothing was taken out.",
            statusCode: StatusCodes.Status409Conflict,
            type: Types + "in-use",
            extensions: new Dictionary<string, object?> { ["changes"] = uses.ToArray() }
        );

    public static ProblemHttpResult Conflict(string title) =>
        TypedResults.Problem(title: title, statusCode: StatusCodes.Status409Conflict, type: Types + "conflict");

    public static ProblemHttpResult NotFound(string what) =>
        TypedResults.Problem(
            title: $"{what} is not here.",
            statusCode: StatusCodes.Status404NotFound,
            type: Types + "not-found"
        );

    public static ProblemHttpResult NotYours() => Forbidden("This class is not one of yours.");

    public static ProblemHttpResult Forbidden(string title) =>
        TypedResults.Problem(title: title, statusCode: StatusCodes.Status403Forbidden, type: Types + "forbidden");

    public static ProblemHttpResult SignInFailed(bool lockedOut) =>
        TypedResults.Problem(
            title: lockedOut
                ? "Too many attempts. Wait five minutes, then try again."
                : "Email and password do not belong together.",
            statusCode: StatusCodes.Status401Unauthorized,
            type: Types + (lockedOut ? "locked-out" : "sign-in")
        );

    public static string DatabaseAway => Types + "database-away";

    public static string Unreadable => Types + "unreadable";
}
