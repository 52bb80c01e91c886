using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>Whether somebody who has lost their password can write to themselves: where there is mail, and where it is
/// set up how people reach the school, so that nobody else can say it.</summary>
internal sealed class LostPasswords(Postman postman, IConfiguration configuration)
{
    public bool CanBeWrittenTo => postman.HasMail && configuration["ZEITPLAN_ADDRESS"] is { Length: > 0 };
}

/// <summary>The letters of the school: the postbox for its heads, and what their readers do with them.</summary>
internal static class LetterEndpoints
{
    /// <param name="Text">What it says; empty once it was sent by mail, and when its way in has closed.</param>
    public sealed record InPostbox(
        Guid Id,
        LetterKind Kind,
        string Name,
        string To,
        string Subject,
        string Text,
        DateTimeOffset Written,
        DateTimeOffset Until,
        DateTimeOffset? Sent,
        string? Failure
    );

    /// <param name="Code">What the address in the letter carries.</param>
    public sealed record WayIn(Guid Account, string Code);

    public sealed record Reader(string SchoolName, string Name, string Email, LetterKind Kind);

    public sealed record WelcomeRequest(Guid Account, string Code, string Password);

    public sealed record ForgottenRequest(string Email);

    public static void Map(ByRank api)
    {
        api.Head.MapGet("/letters", Postbox).WithName("postbox");
        var session = api.Group("/session").Stranger;
        session.MapPost("/letter", Open).ProducesProblem(409).ProducesProblem(429).WithName("openLetter");
        session
            .MapPost("/welcome", Welcome)
            .ProducesProblem(401)
            .ProducesProblem(409)
            .ProducesProblem(429)
            .WithName("welcome");
        session.MapPost("/forgotten", Forgotten).ProducesProblem(409).ProducesProblem(429).WithName("forgotten");
    }

    private static async Task<Ok<List<InPostbox>>> Postbox(SchoolContext db, CancellationToken cancel)
    {
        var now = TimeProvider.System.GetUtcNow();
        return TypedResults.Ok(
            await (
                from letter in db.Letters
                join account in db.Users on letter.AccountId equals account.Id
                join member in db.Staff on account.StaffId equals member.Id
                orderby letter.Written descending
                select new InPostbox(
                    letter.Id,
                    letter.Kind,
                    member.Name,
                    letter.To,
                    letter.Subject,
                    letter.Until < now || account.PasswordHash != null && letter.Kind == LetterKind.Invitation
                        ? ""
                        : letter.Text,
                    letter.Written,
                    letter.Until,
                    letter.Sent,
                    letter.Failure
                )
            ).ToListAsync(cancel)
        );
    }

    /// <summary>Whose letter it is; nothing is used up by looking.</summary>
    private static async Task<Results<Ok<Reader>, ProblemHttpResult>> Open(
        WayIn request,
        HttpContext http,
        SignInTries tries,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        if (!tries.MayTry(http, $"{request.Account}"))
        {
            return Refusals.TooManyTries();
        }

        if (await ReaderAsync(request, db, accounts, cancel) is not (var (account, member), var kind))
        {
            return NoWayIn();
        }

        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        return TypedResults.Ok(new Reader(school.Name, member, account.Email!, kind));
    }

    /// <summary>The password holds, every sign-in of before ends, and whoever chose it goes on to sign in.</summary>
    private static async Task<Results<Ok<Session.SignInResponse>, ValidationProblem, ProblemHttpResult>> Welcome(
        WelcomeRequest request,
        HttpContext http,
        SignInTries tries,
        SchoolContext db,
        SignInManager<Account> signIn,
        CancellationToken cancel
    )
    {
        if (!tries.MayTry(http, $"{request.Account}"))
        {
            return Refusals.TooManyTries();
        }

        var accounts = signIn.UserManager;
        if (
            await ReaderAsync(new(request.Account, request.Code), db, accounts, cancel)
            is not
            (var (account, _), var kind)
        )
        {
            return NoWayIn();
        }

        account.OwnPassword = true;
        var set =
            kind == LetterKind.Invitation
                ? await accounts.AddPasswordAsync(account, request.Password)
                : await accounts.ResetPasswordAsync(account, Decode(request.Code)!, request.Password);
        if (set.Errors.Any(error => error.Code == nameof(IdentityErrorDescriber.ConcurrencyFailure)))
        {
            // Opened twice at the same moment: the other one was quicker.
            return NoWayIn();
        }

        if (!set.Succeeded)
        {
            return Refusals.Invalid(Passwords.Problems(set));
        }

        await db.SignIns.Where(open => open.AccountId == account.Id).ExecuteDeleteAsync(cancel);
        await db.Letters.Where(letter => letter.AccountId == account.Id).ExecuteDeleteAsync(cancel);
        return (await Session.SignInAsync(account, request.Password, signIn)).Result switch
        {
            Ok<Session.SignInResponse> ok => ok,
            ProblemHttpResult problem => problem,
            _ => throw new InvalidOperationException("A sign-in neither went well nor was refused."),
        };
    }

    /// <summary>The same answer whoever asks: nobody learns which addresses there are.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Forgotten(
        ForgottenRequest request,
        HttpContext http,
        SignInTries tries,
        LostPasswords lost,
        SchoolContext db,
        UserManager<Account> accounts,
        IUserConfirmation<Account> maySignIn,
        LetterWriter letters,
        CancellationToken cancel
    )
    {
        if (!lost.CanBeWrittenTo)
        {
            return Refusals.Conflict("This school has no mail. Ask your head of school for a letter.");
        }

        if (!tries.MayTry(http, request.Email))
        {
            return Refusals.TooManyTries();
        }

        if (
            await accounts.FindByNameAsync(request.Email.Trim()) is { } account
            && await maySignIn.IsConfirmedAsync(accounts, account)
        )
        {
            var name = await db
                .Staff.Where(member => member.Id == account.StaffId)
                .Select(member => member.Name)
                .SingleAsync(cancel);
            await letters.WriteAsync(account, name, cancel);
            await db.SaveChangesAsync(cancel);
        }

        return TypedResults.NoContent();
    }

    private static async Task<((Account, string) Who, LetterKind Kind)?> ReaderAsync(
        WayIn way,
        SchoolContext db,
        UserManager<Account> accounts,
        CancellationToken cancel
    )
    {
        if (
            Decode(way.Code) is not { } code
            || await db.Users.SingleOrDefaultAsync(account => account.Id == way.Account, cancel) is not { } account
            || account.Locked
            || await db.Staff.SingleOrDefaultAsync(
                member => member.Id == account.StaffId && member.Closed == null,
                cancel
            )
                is not { } member
        )
        {
            return null;
        }

        var kind = account.PasswordHash is null ? LetterKind.Invitation : LetterKind.Reset;
        var fits =
            kind == LetterKind.Invitation
                ? await InvitationCodes.FitsAsync(account, code, accounts)
                : await accounts.VerifyUserTokenAsync(
                    account,
                    accounts.Options.Tokens.PasswordResetTokenProvider,
                    UserManager<Account>.ResetPasswordTokenPurpose,
                    code
                );
        return fits ? ((account, member.Name), kind) : null;
    }

    private static string? Decode(string code)
    {
        try
        {
            return Encoding.UTF8.GetString(WebEncoders.Base64UrlDecode(code));
        }
        catch (FormatException)
        {
            return null;
        }
    }

    private static ProblemHttpResult NoWayIn() =>
        Refusals.Conflict(
            "This letter no longer opens anything: it was used, it is too old, or a newer one was written. Ask your head of school for another."
        );
}
