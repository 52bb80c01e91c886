using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>A person's own sign-in: their password, and where they are signed in.</summary>
internal static class AccountEndpoints
{
    public sealed record Response(string Email, bool OwnPassword, IReadOnlyList<OpenSignIn> SignIns);

    /// <param name="Device">What the browser says it is; may be empty.</param>
    /// <param name="LastUsed">To within five minutes.</param>
    /// <param name="IsThis">Whether this very request came through it.</param>
    public sealed record OpenSignIn(Guid Id, string Device, DateTimeOffset Began, DateTimeOffset LastUsed, bool IsThis);

    public sealed record PasswordRequest(string Current, string Wanted);

    public static void Map(ByRank api)
    {
        var account = api.Group("/account").Anyone;
        account.MapGet("", Read).WithName("account");
        account.MapPut("/password", ChangePassword).ProducesProblem(429).WithName("changePassword");
        account.MapDelete("/sign-ins", EndOthers).WithName("endOtherSignIns");
        account.MapDelete("/sign-ins/{id:guid}", End).WithName("endSignIn");
    }

    private static async Task<Ok<Response>> Read(
        ClaimsPrincipal user,
        UserManager<Account> accounts,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var account = await OwnAsync(user, accounts);
        var (here, now) = (ThisOne(user), TimeProvider.System.GetUtcNow());
        var signIns = await db
            .SignIns.Where(signIn => signIn.AccountId == account.Id && signIn.Until >= now)
            .OrderByDescending(signIn => signIn.LastUsed)
            .Select(signIn => new OpenSignIn(
                signIn.Id,
                signIn.Device,
                signIn.Began,
                signIn.LastUsed,
                signIn.Id == here
            ))
            .ToListAsync(cancel);
        return TypedResults.Ok(new Response(account.Email!, account.OwnPassword, signIns));
    }

    /// <summary>The new password holds from now on, and every sign-in elsewhere ends: whoever knew the old one is
    /// out.</summary>
    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> ChangePassword(
        PasswordRequest request,
        HttpContext http,
        SignInTries tries,
        SignInManager<Account> signIn,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var account = await OwnAsync(http.User, signIn.UserManager);
        if (!tries.MayTry(http.Connection.RemoteIpAddress?.ToString() ?? "", account.Email!))
        {
            http.Response.Headers.RetryAfter = "60";
            return Refusals.TooManyTries();
        }

        account.OwnPassword = true;
        var changed = await signIn.UserManager.ChangePasswordAsync(account, request.Current, request.Wanted);
        if (!changed.Succeeded)
        {
            return Refusals.Invalid(
                changed.Errors.Select(error =>
                    error.Code == nameof(IdentityErrorDescriber.PasswordMismatch)
                        ? new Problem("current", "This is not the password you have now.")
                        : new Problem("wanted", error.Description)
                )
            );
        }

        await EndOthersAsync(http.User, account.Id, db, cancel);
        await signIn.RefreshSignInAsync(account);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> EndOthers(
        ClaimsPrincipal user,
        UserManager<Account> accounts,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        await EndOthersAsync(user, (await OwnAsync(user, accounts)).Id, db, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> End(
        Guid id,
        ClaimsPrincipal user,
        UserManager<Account> accounts,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var account = await OwnAsync(user, accounts);
        // One that has ended meanwhile is ended, too.
        await db.SignIns.Where(signIn => signIn.Id == id && signIn.AccountId == account.Id).ExecuteDeleteAsync(cancel);
        return TypedResults.NoContent();
    }

    private static Task EndOthersAsync(ClaimsPrincipal user, Guid accountId, SchoolContext db, CancellationToken cancel)
    {
        var here = ThisOne(user);
        return db
            .SignIns.Where(signIn => signIn.AccountId == accountId && signIn.Id != here)
            .ExecuteDeleteAsync(cancel);
    }

    private static async Task<Account> OwnAsync(ClaimsPrincipal user, UserManager<Account> accounts) =>
        await accounts.GetUserAsync(user) ?? throw new InvalidOperationException("The sign-in belongs to no account.");

    private static Guid ThisOne(ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(SignInStore.IdClaim), out var id) ? id : Guid.Empty;
}
