using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>A person's own sign-in: their password, and where they are signed in.</summary>
internal static class AccountEndpoints
{
    /// <param name="StudentId">The student this person is where they learn here, too.</param>
    public sealed record Response(string Email, bool OwnPassword, Guid? StudentId, IReadOnlyList<OpenSignIn> SignIns);

    /// <param name="Device">What the browser says it is; may be empty.</param>
    /// <param name="LastUsed">To within five minutes.</param>
    /// <param name="IsThis">Whether this very request came through it.</param>
    public sealed record OpenSignIn(Guid Id, string Device, DateTimeOffset Began, DateTimeOffset LastUsed, bool IsThis);

    public sealed record PasswordRequest(string Current, string Wanted);

    public static void Map(ByRank api)
    {
        var account = api.Group("/account").Self;
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
        var account = await accounts.OwnAsync(user);
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
        var studentId = await db
            .Staff.Where(member => member.Id == account.StaffId)
            .Select(member => member.StudentId)
            .SingleAsync(cancel);
        return TypedResults.Ok(new Response(account.Email!, account.OwnPassword, studentId, signIns));
    }

    /// <summary>The new password holds from now on, and every sign-in elsewhere ends: whoever knew the old one is
    /// out.</summary>
    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> ChangePassword(
        PasswordRequest request,
        HttpContext http,
        PasswordAsked asked,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var account = await asked.Accounts.OwnAsync(http.User);
        if (!asked.MayTry(http, account))
        {
            return Refusals.TooManyTries();
        }

        account.OwnPassword = true;
        var changed = await asked.Accounts.ChangePasswordAsync(account, request.Current, request.Wanted);
        if (!changed.Succeeded)
        {
            return Refusals.Invalid(Passwords.Problems(changed, "wanted"));
        }

        await EndOthersAsync(http.User, account.Id, db, cancel);
        await asked.StayAsync(account);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> EndOthers(
        ClaimsPrincipal user,
        UserManager<Account> accounts,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        await EndOthersAsync(user, (await accounts.OwnAsync(user)).Id, db, cancel);
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
        var account = await accounts.OwnAsync(user);
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

    private static Guid ThisOne(ClaimsPrincipal user) =>
        Guid.TryParse(user.FindFirstValue(SignInStore.IdClaim), out var id) ? id : Guid.Empty;
}

internal static class OwnAccount
{
    public static async Task<Account> OwnAsync(this UserManager<Account> accounts, ClaimsPrincipal user) =>
        await accounts.GetUserAsync(user) ?? throw new InvalidOperationException("The sign-in belongs to no account.");
}
