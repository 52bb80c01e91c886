using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>The member of staff an address is about, with their account.</summary>
internal sealed record AskedMember([FromRoute(Name = "id")] Guid Id, SchoolContext Db) : IAsked
{
    public StaffMember Staff { get; private set; } = null!;
    public Account Account { get; private set; } = null!;

    public async Task<ProblemHttpResult?> OpenAsync(CancellationToken cancel)
    {
        var found = await (
            from member in Db.Staff
            join account in Db.Users on member.Id equals account.StaffId
            where member.Id == Id
            select new { member, account }
        ).SingleOrDefaultAsync(cancel);
        if (found is null)
        {
            return Refusals.NotFound("This member of staff");
        }

        (Staff, Account) = (found.member, found.account);
        return null;
    }
}

/// <summary>What becomes of somebody's sign-in: letters, locking, closing, lost telephones. Whatever ends it ends it at
/// once, on every device, and never for the last head who could open one again.</summary>
internal static class StaffSignInEndpoints
{
    /// <param name="member">Of one member of staff.</param>
    public static void Map(RouteGroupBuilder member)
    {
        member.MapPost("/letter", Write).WithName("writeToStaff");
        member.MapPut("/lock", Lock).WithName("lockStaff");
        member.MapDelete("/lock", Unlock).WithName("unlockStaff");
        member.MapPut("/closing", Close).WithName("closeStaff");
        member.MapDelete("/closing", Reopen).WithName("reopenStaff");
        member.MapDelete("/sign-ins", SignOut).WithName("signOutStaff");
        member.MapDelete("/second-factor", DropSecondFactor).WithName("dropSecondFactorOfStaff");
    }

    /// <summary>The way to a first password, or to a new one; the letters before it no longer lead in.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Write(
        [AsParameters] AskedMember asked,
        Actor head,
        SchoolContext db,
        UserManager<Account> accounts,
        LetterWriter letters,
        CancellationToken cancel
    )
    {
        if (asked.Staff.Closed is not null || asked.Account.Locked)
        {
            return Refusals.Conflict($"{asked.Staff.Name} cannot sign in at present. Open the sign-in first.");
        }

        await using var all = await AllOrNothing.BeginAsync(db, cancel);
        await accounts.UpdateSecurityStampAsync(asked.Account);
        var kind = await letters.WriteAsync(asked.Account, asked.Staff.Name, cancel);
        JournalKeeper.Write(
            db,
            head,
            HeadsAct.Account,
            asked.Staff.Id,
            kind == LetterKind.Invitation ? "invited again" : "was sent a letter for a new password"
        );
        await db.SaveChangesAsync(cancel);
        await all.KeepAsync(cancel);
        return TypedResults.NoContent();
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Lock(
        [AsParameters] AskedMember asked,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    ) => ShutAsync(asked, () => asked.Account.Locked = true, db, accounts, cancel);

    private static async Task<Results<NoContent, ProblemHttpResult>> Close(
        [AsParameters] AskedMember asked,
        SchoolContext db,
        UserManager<Account> accounts,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        return await ShutAsync(asked, () => asked.Staff.Close(today), db, accounts, cancel);
    }

    /// <summary>Ends every sign-in at once, unless nobody would be left who can open one again.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> ShutAsync(
        AskedMember asked,
        Action shut,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        await using var all = await AllOrNothing.InTurnAsync(db, Turn.Heads, cancel);
        if (await IsLastHeadAsync(asked.Staff, db, cancel))
        {
            return LastHead(asked.Staff);
        }

        shut();
        await EndAsync(asked.Account, db, accounts, cancel);
        await db.Letters.Where(letter => letter.AccountId == asked.Account.Id).ExecuteDeleteAsync(cancel);
        await all.KeepAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Unlock(
        [AsParameters] AskedMember asked,
        UserManager<Account> accounts,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        asked.Account.Locked = false;
        await accounts.ResetAccessFailedCountAsync(asked.Account);
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> Reopen(
        [AsParameters] AskedMember asked,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        asked.Staff.Reopen();
        await db.SaveChangesAsync(cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SignOut(
        [AsParameters] AskedMember asked,
        Actor head,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        JournalKeeper.Write(db, head, HeadsAct.Account, asked.Staff.Id, "signed out everywhere");
        await EndAsync(asked.Account, db, accounts, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>For somebody whose telephone is lost: the password alone lets them in again.</summary>
    private static async Task<NoContent> DropSecondFactor(
        [AsParameters] AskedMember asked,
        Actor head,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        await using var all = await AllOrNothing.BeginAsync(db, cancel);
        JournalKeeper.Write(db, head, HeadsAct.Account, asked.Staff.Id, "second factor and passkeys taken off");
        await db.Set<IdentityUserPasskey<Guid>>()
            .Where(passkey => passkey.UserId == asked.Account.Id)
            .ExecuteDeleteAsync(cancel);
        await accounts.SetTwoFactorEnabledAsync(asked.Account, false);
        await accounts.ResetAuthenticatorKeyAsync(asked.Account);
        await EndAsync(asked.Account, db, accounts, cancel);
        await all.KeepAsync(cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Everything that is changed is saved with it.</summary>
    internal static async Task EndAsync(
        Account account,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        await accounts.UpdateSecurityStampAsync(account);
        await db.SignIns.Where(signIn => signIn.AccountId == account.Id).ExecuteDeleteAsync(cancel);
    }

    internal static async Task<bool> IsLastHeadAsync(StaffMember member, SchoolContext db, CancellationToken cancel) =>
        member.Role == StaffRole.Head
        && !await (
            from other in db.Staff
            join account in db.Users on other.Id equals account.StaffId
            where
                other.Id != member.Id
                && other.Role == StaffRole.Head
                && other.Closed == null
                && !account.Locked
                && account.PasswordHash != null
            select other
        ).AnyAsync(cancel);

    internal static ProblemHttpResult LastHead(StaffMember member) =>
        Refusals.Conflict($"{member.Name} is the only head who can sign in. Make somebody else head first.");
}
