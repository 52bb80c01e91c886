using Microsoft.AspNetCore.Http.HttpResults;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Demo;

/// <summary>The demo school enters through the doors everybody uses; a door that says no stops it.</summary>
internal static class Doors
{
    /// <exception cref="InvalidOperationException">The answer was a refusal; the message is its reason.</exception>
    public static void Through(IResult answer)
    {
        switch (answer is INestedHttpResult nested ? nested.Result : answer)
        {
            case ValidationProblem invalid:
                throw new InvalidOperationException(
                    string.Join(
                        " ",
                        invalid.ProblemDetails.Errors.Select(error => $"{error.Key}: {string.Join(" ", error.Value)}")
                    )
                );
            case ProblemHttpResult problem:
                throw new InvalidOperationException(problem.ProblemDetails.Title);
        }
    }

    /// <summary>What a door leads to, found.</summary>
    /// <exception cref="InvalidOperationException">It was refused; the message is its reason.</exception>
    public static async Task<T> OpenAsync<T>(T asked)
        where T : IAsked
    {
        if (await asked.OpenAsync(default) is { } no)
        {
            Through(no);
        }

        return asked;
    }
}
