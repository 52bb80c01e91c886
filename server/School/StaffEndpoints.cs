using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>Those who teach and their sign-ins: a head invites, changes, locks and closes them. What somebody taught
/// and saw keeps their name whatever becomes of their sign-in.</summary>
internal static class StaffEndpoints
{
    /// <summary>How far a sign-in has come.</summary>
    public enum SignInState
    {
        /// <summary>Invited; no password has been chosen yet.</summary>
        Invited,
        Open,

        /// <summary>Until a head unlocks it.</summary>
        Locked,

        /// <summary>For those who teach here no longer.</summary>
        Closed,
    }

    /// <param name="SecondFactor">Whether signing in asks for more than the password, or is by passkey.</param>
    /// <param name="LastUsed">Of the sign-ins that are open now; null where none is.</param>
    /// <param name="StudentId">The student this person is where they learn themselves.</param>
    public sealed record Member(
        Guid Id,
        string Name,
        StaffRole Role,
        string Email,
        SignInState State,
        bool SecondFactor,
        int SignIns,
        DateTimeOffset? LastUsed,
        Guid? StudentId,
        uint Version
    );

    /// <param name="Mail">Whether letters go out by mail; otherwise they lie in the postbox.</param>
    public sealed record Response(
        IReadOnlyList<Member> Members,
        bool SecondFactorForHeads,
        bool Mail,
        uint SchoolVersion
    );

    public sealed record InviteRequest(Guid Id, StaffText Text, string Email);

    public sealed record EditRequest(StaffText Text, string Email, uint Version);

    public sealed record RuleRequest(bool SecondFactorForHeads, uint Version);

    public static void Map(ByRank api)
    {
        var staff = api.Head.MapGroup("/staff");
        staff.MapGet("", Read).WithName("staff");
        staff.MapPost("", Invite).ProducesProblem(409).WithName("inviteStaff");
        staff.MapPut("/rule", Rule).ProducesProblem(409).WithName("ruleOfSecondFactor");
        var member = staff.MapGroup("/{id:guid}").OpensFirst().ProducesProblem(409);
        member.MapPut("", Edit).WithName("editStaff");
        member.MapPost("/letter", Write).WithName("writeToStaff");
        member.MapPut("/lock", Lock).WithName("lockStaff");
        member.MapDelete("/lock", Unlock).WithName("unlockStaff");
        member.MapPut("/closing", Close).WithName("closeStaff");
        member.MapDelete("/closing", Reopen).WithName("reopenStaff");
        member.MapDelete("/sign-ins", SignOut).WithName("signOutStaff");
        member.MapDelete("/second-factor", DropSecondFactor).WithName("dropSecondFactorOfStaff");
    }

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

    private static async Task<Ok<Response>> Read(SchoolContext db, Postman postman, CancellationToken cancel)
    {
        var now = TimeProvider.System.GetUtcNow();
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        var members = await (
            from member in db.Staff.AsNoTracking()
            join account in db.Users.AsNoTracking() on member.Id equals account.StaffId
            orderby member.Closed != null, member.Name
            select new { member, account }
        ).ToListAsync(cancel);
        var open = (
            await db
                .SignIns.Where(signIn => signIn.Until >= now)
                .GroupBy(signIn => signIn.AccountId)
                .Select(theirs => new
                {
                    theirs.Key,
                    Count = theirs.Count(),
                    LastUsed = theirs.Max(signIn => signIn.LastUsed),
                })
                .ToListAsync(cancel)
        ).ToDictionary(theirs => theirs.Key);
        var withPasskey = await db.Set<IdentityUserPasskey<Guid>>()
            .Select(passkey => passkey.UserId)
            .ToHashSetAsync(cancel);
        return TypedResults.Ok(
            new Response(
                [
                    .. members.Select(found => new Member(
                        found.member.Id,
                        found.member.Name,
                        found.member.Role,
                        found.account.Email!,
                        StateOf(found.member, found.account),
                        found.account.TwoFactorEnabled || withPasskey.Contains(found.account.Id),
                        open.GetValueOrDefault(found.account.Id)?.Count ?? 0,
                        open.GetValueOrDefault(found.account.Id)?.LastUsed,
                        found.member.StudentId,
                        found.member.Version
                    )),
                ],
                school.SecondFactorForHeads,
                postman.HasMail,
                school.Version
            )
        );
    }

    private static SignInState StateOf(StaffMember member, Account account) =>
        member.Closed is not null ? SignInState.Closed
        : account.Locked ? SignInState.Locked
        : account.PasswordHash is null ? SignInState.Invited
        : SignInState.Open;

    /// <summary>A letter goes out with the way to a password of their own; until then nobody signs in.</summary>
    private static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> Invite(
        InviteRequest request,
        SchoolContext db,
        UserManager<Account> accounts,
        LetterWriter letters,
        CancellationToken cancel
    )
    {
        await using var all = await AllOrNothing.BeginAsync(db, cancel);
        var (account, answer) = await AddAsync(request.Id, request.Text, request.Email, null, db, accounts, cancel);
        if (account is null)
        {
            return answer switch
            {
                ValidationProblem invalid => invalid,
                ProblemHttpResult problem => problem,
                _ => throw new InvalidOperationException("Somebody was neither added nor refused."),
            };
        }

        await letters.WriteAsync(account, request.Text.Name.Trim(), cancel);
        await db.SaveChangesAsync(cancel);
        await all.KeepAsync(cancel);
        return TypedResults.Created("/api/staff");
    }

    /// <summary>For those who are there from the beginning: with a password, and without a letter.</summary>
    /// <param name="ownPassword">Whether they have chosen it themselves.</param>
    /// <returns>Why not, where it is a refusal.</returns>
    internal static async Task<IResult> AddWithPasswordAsync(
        Guid id,
        StaffText text,
        string email,
        string password,
        SchoolContext db,
        UserManager<Account> accounts,
        bool ownPassword = false
    )
    {
        var (account, answer) = await AddAsync(id, text, email, password, db, accounts, default);
        if (account is not null && ownPassword)
        {
            account.OwnPassword = true;
            await db.SaveChangesAsync();
        }

        return answer;
    }

    private static async Task<(Account? Account, IResult Answer)> AddAsync(
        Guid id,
        StaffText text,
        string email,
        string? password,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        if (await ProblemsAsync(id, text, db, cancel) is { Count: > 0 } problems)
        {
            return (null, Refusals.Invalid(problems));
        }

        if (await db.Staff.AnyAsync(member => member.Id == id, cancel))
        {
            return (null, Refusals.Conflict("This member of staff is here already."));
        }

        // Creating the account saves the member of staff with it: both or neither.
        db.Staff.Add(StaffMember.Create(id, text));
        var account = new Account
        {
            Id = Guid.CreateVersion7(),
            StaffId = id,
            UserName = email.Trim(),
            Email = email.Trim(),
        };
        var made = await (password is null ? accounts.CreateAsync(account) : accounts.CreateAsync(account, password));
        return made.Succeeded
            ? (account, TypedResults.Created("/api/staff"))
            : (null, Refusals.Invalid(Passwords.Problems(made)));
    }

    private static async Task<List<Problem>> ProblemsAsync(
        Guid id,
        StaffText text,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var taken = await db
            .Staff.Where(member => member.Id != id && member.StudentId != null)
            .Select(member => member.StudentId!.Value)
            .ToListAsync(cancel);
        List<Problem> problems = [.. text.Check(taken)];
        if (
            text.StudentId is { } student
            && !await db.Students.AnyAsync(found => found.Id == student && found.Erased == null, cancel)
        )
        {
            problems.Add(new("studentId", "This student is not here."));
        }

        return problems;
    }

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Edit(
        EditRequest request,
        [AsParameters] AskedMember asked,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        var (member, account) = (asked.Staff, asked.Account);
        await using var all = await AllOrNothing.InTurnAsync(db, Turn.Heads, cancel);
        if (await ProblemsAsync(member.Id, request.Text, db, cancel) is { Count: > 0 } problems)
        {
            return Refusals.Invalid(problems);
        }

        if (request.Text.Role != StaffRole.Head && await IsLastHeadAsync(member, db, cancel))
        {
            return LastHead(member);
        }

        var (kept, email) = ($"{member.Name} is {Said(member.Role)}, {account.Email}.", request.Email.Trim());
        var roleChanged = member.Role != request.Text.Role;
        member.Rewrite(request.Text);
        // Even where only the address changes, whoever saved in between is noticed.
        db.Entry(member).Property(staff => staff.Name).IsModified = true;
        if (!await db.SaveFromAsync(member, request.Version, cancel))
        {
            return Refusals.Stale(member.Name, [kept]);
        }

        if (account.Email != email)
        {
            account.UserName = account.Email = email;
            var changed = await accounts.UpdateAsync(account);
            if (!changed.Succeeded)
            {
                return Refusals.Invalid(Passwords.Problems(changed));
            }
        }

        if (roleChanged)
        {
            // What somebody may do is written into their sign-in: the next one has it right.
            await EndSignInsAsync(account, db, accounts, cancel);
        }

        await all.KeepAsync(cancel);
        return TypedResults.NoContent();
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
        await EndSignInsAsync(asked.Account, db, accounts, cancel);
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
        await EndSignInsAsync(asked.Account, db, accounts, cancel);
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
        await EndSignInsAsync(asked.Account, db, accounts, cancel);
        await all.KeepAsync(cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Heads who have none sign in again and set one up before anything else.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Rule(
        RuleRequest request,
        Actor head,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        await using var all = await AllOrNothing.BeginAsync(db, cancel);
        var heads = await (
            from member in db.Staff
            join account in db.Users on member.Id equals account.StaffId
            where member.Role == StaffRole.Head
            select account
        ).ToListAsync(cancel);
        List<Account> without = [];
        foreach (var account in heads)
        {
            if (!await SecondFactor.HasOneAsync(account, accounts))
            {
                without.Add(account);
            }
        }

        if (request.SecondFactorForHeads && without.Any(account => account.StaffId == head.StaffId))
        {
            return Refusals.Conflict("Set up a second factor of your own first; then ask it of every head.");
        }

        var school = await db.Schools.SingleAsync(cancel);
        school.AskHeadsForSecondFactor(request.SecondFactorForHeads);
        if (!await db.SaveFromAsync(school, request.Version, cancel))
        {
            return Refusals.Stale("The school", ["Somebody else changed its settings while you did."]);
        }

        foreach (var account in request.SecondFactorForHeads ? without : [])
        {
            await EndSignInsAsync(account, db, accounts, cancel);
        }

        await all.KeepAsync(cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Everything that is changed is saved with it.</summary>
    private static async Task EndSignInsAsync(
        Account account,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        await accounts.UpdateSecurityStampAsync(account);
        await db.SignIns.Where(signIn => signIn.AccountId == account.Id).ExecuteDeleteAsync(cancel);
    }

    private static async Task<bool> IsLastHeadAsync(StaffMember member, SchoolContext db, CancellationToken cancel) =>
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

    private static ProblemHttpResult LastHead(StaffMember member) =>
        Refusals.Conflict($"{member.Name} is the only head who can sign in. Make somebody else head first.");

    private static string Said(StaffRole role) =>
        role == StaffRole.Head ? "head of school" : $"{role}".ToLowerInvariant();
}
