using Microsoft.AspNetCore.Http.HttpResults;
using Zeitplan.Core;

namespace Zeitplan.Server.Web;

/// <summary>The ways of saying no: problem details (RFC 9457) with a stable type.</summary>
internal static class Refusals
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

    /// <summary>Before there are two of a name, somebody says that there are. <paramref name="namesakes"/> says who is
    /// called so.</summary>
    public static ProblemHttpResult SameName(string name, IEnumerable<string> namesakes) =>
        TypedResults.Problem(
            title: $"Somebody called {name} is on the roster already. Nothing was added.",
            statusCode: StatusCodes.Status409Conflict,
            type: Types + "same-name",
            extensions: new Dictionary<string, object?> { ["changes"] = namesakes.ToArray() }
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

    /// <summary>The same for a wrong password and for an address nobody has.</summary>
    public static ProblemHttpResult SignInFailed() => NotIn("Email and password do not belong together.");

    /// <summary>The first step was too long ago, or was taken elsewhere.</summary>
    public static ProblemHttpResult SignInAgain() => NotIn("Begin again with your email and password.");

    public static ProblemHttpResult WrongCode() => NotIn("This code does not let you in. Take the newest one.");

    public static ProblemHttpResult TooManyCodes() =>
        NotIn("Too many codes were wrong. Wait five minutes, then try again.");

    public static ProblemHttpResult PasskeyRefused() =>
        NotIn("This passkey does not open a sign-in here. Use your email and password.");

    private static ProblemHttpResult NotIn(string title) =>
        TypedResults.Problem(title: title, statusCode: StatusCodes.Status401Unauthorized, type: Types + "sign-in");

    public static ProblemHttpResult TooManyTries() =>
        TypedResults.Problem(
            title: "Too many tries. Wait a minute, then try again.",
            statusCode: StatusCodes.Status429TooManyRequests,
            type: Types + "too-many"
        );

    public static ProblemHttpResult Busy() =>
        TypedResults.Problem(
            title: "Much is being planned and read just now. Nothing was saved. Try again in a few seconds.",
            statusCode: StatusCodes.Status429TooManyRequests,
            type: Types + "busy"
        );

    public static ProblemHttpResult OtherPage() =>
        TypedResults.Problem(
            title: "This page has been open across a sign-in. Reload it, then try again.",
            statusCode: StatusCodes.Status400BadRequest,
            type: Types + "token"
        );

    /// <summary>Our own mistake. <paramref name="number"/> finds it in the log.</summary>
    public static ProblemHttpResult Unexpected(string number) =>
        TypedResults.Problem(
            title: "Something went wrong that should not have. Nothing was saved.",
            detail: $"Whoever looks after Zeitplan finds it by the number {number}.",
            statusCode: StatusCodes.Status500InternalServerError,
            type: Types + "unexpected"
        );

    /// <summary>Words for what the framework refuses by itself, and the number of the request with everything that is
    /// refused.</summary>
    public static void Complete(ProblemDetailsContext context)
    {
        var problem = context.ProblemDetails;
        problem.Extensions["traceId"] = Web.Unexpected.Number(context.HttpContext);
        if (problem.Type?.StartsWith(Types, StringComparison.Ordinal) == true)
        {
            return;
        }

        (problem.Type, problem.Title) = problem.Status switch
        {
            StatusCodes.Status401Unauthorized => (Types + "signed-out", "Sign in first."),
            StatusCodes.Status403Forbidden => (Types + "forbidden", "Your sign-in does not allow this."),
            StatusCodes.Status404NotFound => (Types + "not-found", "This address is not here."),
            StatusCodes.Status405MethodNotAllowed => (Types + "method", "This cannot be done here."),
            StatusCodes.Status413PayloadTooLarge => (
                Types + "too-large",
                "This is more than can be sent at once. Nothing was saved."
            ),
            StatusCodes.Status415UnsupportedMediaType => (
                Types + "unreadable",
                "Send JSON in UTF-8. Nothing was saved."
            ),
            _ => (problem.Type, problem.Title),
        };
    }

    public static string DatabaseAway => Types + "database-away";

    public static string Unreadable => Types + "unreadable";
}
