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
        StaffSignInEndpoints.Map(member);
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

        if (request.Text.Role != StaffRole.Head && await StaffSignInEndpoints.IsLastHeadAsync(member, db, cancel))
        {
            return StaffSignInEndpoints.LastHead(member);
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
            await StaffSignInEndpoints.EndAsync(account, db, accounts, cancel);
        }

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
            await StaffSignInEndpoints.EndAsync(account, db, accounts, cancel);
        }

        await all.KeepAsync(cancel);
        return TypedResults.NoContent();
    }

    private static string Said(StaffRole role) =>
        role == StaffRole.Head ? "head of school" : $"{role}".ToLowerInvariant();
}
