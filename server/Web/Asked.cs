using Microsoft.AspNetCore.Http.HttpResults;

namespace Zeitplan.Server.Web;

/// <summary>What a group of endpoints is about, named by their address: found, and open to whoever asks, before any of
/// them runs.</summary>
internal interface IAsked
{
    /// <returns>Why whoever asks cannot have it; null when it has been found.</returns>
    Task<ProblemHttpResult?> OpenAsync(CancellationToken cancel);
}

internal static class Asked
{
    /// <summary>Every endpoint of the group has what it is about opened first; a refusal is the answer.</summary>
    public static RouteGroupBuilder OpensFirst(this RouteGroupBuilder group) =>
        group
            .AddEndpointFilter(
                async (context, next) =>
                {
                    foreach (var asked in context.Arguments.OfType<IAsked>())
                    {
                        if (await asked.OpenAsync(context.HttpContext.RequestAborted) is { } no)
                        {
                            return no;
                        }
                    }

                    return await next(context);
                }
            )
            .ProducesProblem(403)
            .ProducesProblem(404);
}
