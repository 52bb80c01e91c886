using System.Security.Claims;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using QRCoder;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>What somebody signs in with beside or instead of their password: codes from an app on their telephone, and
/// passkeys. Whatever changes it asks for the password once more.</summary>
internal static class SecondFactor
{
    private const int RecoveryCodes = 10;

    private const int LongestName = 40;

    /// <param name="RecoveryCodes">How many are left.</param>
    /// <param name="Required">Whether this person may do nothing else before they have one.</param>
    public sealed record Response(
        bool Authenticator,
        int RecoveryCodes,
        IReadOnlyList<Passkey> Passkeys,
        bool Required
    );

    /// <param name="Id">In base64url.</param>
    public sealed record Passkey(string Id, string Name, DateTimeOffset Created);

    public sealed record PasswordRequest(string Password);

    /// <param name="Key">As it is typed where nothing can be scanned.</param>
    /// <param name="Picture">The squares of the picture to scan, a row a string: <c>#</c> is dark.</param>
    public sealed record Setup(string Key, string Address, IReadOnlyList<string> Picture);

    public sealed record CodeRequest(string Code);

    /// <param name="RecoveryCodes">Each lets its owner in once, without the telephone.</param>
    public sealed record Codes(IReadOnlyList<string> RecoveryCodes);

    /// <param name="Json">What the browser is asked, or has answered (WebAuthn).</param>
    public sealed record Credential(string Json);

    public sealed record PasskeyRequest(string Json, string Name);

    public static void Map(ByRank api)
    {
        var factor = api.Group("/account/second-factor").Self.ProducesProblem(409).ProducesProblem(429);
        factor.MapGet("", Read).WithName("secondFactor");
        factor.MapPost("/authenticator", Begin).WithName("beginAuthenticator");
        factor.MapPut("/authenticator", Confirm).WithName("confirmAuthenticator");
        factor.MapPost("/authenticator/off", TurnOff).WithName("turnOffAuthenticator");
        factor.MapPost("/recovery-codes", Renew).WithName("renewRecoveryCodes");
        factor.MapPost("/passkeys/options", PasskeyOptions).WithName("passkeyOptions");
        factor.MapPost("/passkeys", AddPasskey).WithName("addPasskey");
        factor.MapPost("/passkeys/{id}/removal", RemovePasskey).WithName("removePasskey");
    }

    public static async Task<bool> HasOneAsync(Account account, UserManager<Account> accounts) =>
        account.TwoFactorEnabled || (await accounts.GetPasskeysAsync(account)).Count > 0;

    private static async Task<Ok<Response>> Read(ClaimsPrincipal user, UserManager<Account> accounts)
    {
        var account = await accounts.OwnAsync(user);
        return TypedResults.Ok(
            new Response(
                account.TwoFactorEnabled,
                await accounts.CountRecoveryCodesAsync(account),
                [
                    .. (await accounts.GetPasskeysAsync(account))
                        .OrderBy(passkey => passkey.CreatedAt)
                        .Select(passkey => new Passkey(
                            WebEncoders.Base64UrlEncode(passkey.CredentialId),
                            passkey.Name ?? "",
                            passkey.CreatedAt
                        )),
                ],
                user.HasClaim(claim => claim.Type == StaffClaims.MustSecure)
            )
        );
    }

    private static async Task<Results<Ok<Setup>, ValidationProblem, ProblemHttpResult>> Begin(
        PasswordRequest request,
        HttpContext http,
        PasswordAsked asked,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var (account, no) = await asked.AgainAsync(http, request.Password);
        if (account is null)
        {
            return Typed<Ok<Setup>>(no!);
        }

        if (account.TwoFactorEnabled)
        {
            return Refusals.Conflict("Codes are asked of you already. Turn them off first to begin with another app.");
        }

        var accounts = asked.Accounts;
        if (await accounts.GetAuthenticatorKeyAsync(account) is not { Length: > 0 } key)
        {
            await accounts.ResetAuthenticatorKeyAsync(account);
            key = (await accounts.GetAuthenticatorKeyAsync(account))!;
            await asked.StayAsync(account);
        }

        var school = await db.Schools.AsNoTracking().Select(school => school.Name).SingleAsync(cancel);
        var (issuer, name) = (
            UrlEncoder.Default.Encode(school is { Length: > 0 } ? $"Zeitplan, {school}" : "Zeitplan"),
            UrlEncoder.Default.Encode(account.Email!)
        );
        var address = $"otpauth://totp/{issuer}:{name}?secret={key}&issuer={issuer}&digits=6";
        using var picture = QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.M);
        return TypedResults.Ok(
            new Setup(
                string.Join(' ', key.Chunk(4).Select(four => new string(four))),
                address,
                [
                    .. picture.ModuleMatrix.Select(row =>
                        string.Concat(row.Cast<bool>().Select(dark => dark ? '#' : '.'))
                    ),
                ]
            )
        );
    }

    private static async Task<Results<Ok<Codes>, ValidationProblem, ProblemHttpResult>> Confirm(
        CodeRequest request,
        HttpContext http,
        PasswordAsked asked
    )
    {
        var (accounts, account) = (asked.Accounts, await asked.Accounts.OwnAsync(http.User));
        if (!asked.MayTry(http, account))
        {
            return Refusals.TooManyTries();
        }

        var fits = await accounts.VerifyTwoFactorTokenAsync(
            account,
            accounts.Options.Tokens.AuthenticatorTokenProvider,
            Digits(request.Code)
        );
        if (!fits)
        {
            return Refusals.Invalid(
                "code",
                "This is not the code the app shows now. Look whether the telephone’s clock is right."
            );
        }

        await accounts.SetTwoFactorEnabledAsync(account, true);
        var codes = await accounts.GenerateNewTwoFactorRecoveryCodesAsync(account, RecoveryCodes);
        await asked.StayAsync(account);
        return TypedResults.Ok(new Codes([.. codes!]));
    }

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> TurnOff(
        PasswordRequest request,
        HttpContext http,
        PasswordAsked asked,
        Actor actor,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var (account, no) = await asked.AgainAsync(http, request.Password);
        if (account is null)
        {
            return Typed<NoContent>(no!);
        }

        if ((await asked.Accounts.GetPasskeysAsync(account)).Count == 0 && await MustHaveOneAsync(actor, db, cancel))
        {
            return Needed();
        }

        await asked.Accounts.SetTwoFactorEnabledAsync(account, false);
        await asked.Accounts.ResetAuthenticatorKeyAsync(account);
        await asked.StayAsync(account);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<Codes>, ValidationProblem, ProblemHttpResult>> Renew(
        PasswordRequest request,
        HttpContext http,
        PasswordAsked asked
    )
    {
        var (account, no) = await asked.AgainAsync(http, request.Password);
        if (account is null)
        {
            return Typed<Ok<Codes>>(no!);
        }

        return account.TwoFactorEnabled
            ? TypedResults.Ok(
                new Codes([.. (await asked.Accounts.GenerateNewTwoFactorRecoveryCodesAsync(account, RecoveryCodes))!])
            )
            : Refusals.Conflict("No codes are asked of you, so there is nothing to recover.");
    }

    private static async Task<Results<Ok<Credential>, ValidationProblem, ProblemHttpResult>> PasskeyOptions(
        PasswordRequest request,
        HttpContext http,
        PasswordAsked asked,
        SignInManager<Account> signIn,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var (account, no) = await asked.AgainAsync(http, request.Password);
        if (account is null)
        {
            return Typed<Ok<Credential>>(no!);
        }

        var name = await db
            .Staff.Where(member => member.Id == account.StaffId)
            .Select(member => member.Name)
            .SingleAsync(cancel);
        return TypedResults.Ok(
            new Credential(
                await signIn.MakePasskeyCreationOptionsAsync(
                    new()
                    {
                        Id = account.Id.ToString(),
                        Name = account.Email!,
                        DisplayName = name,
                    }
                )
            )
        );
    }

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> AddPasskey(
        PasskeyRequest request,
        HttpContext http,
        PasswordAsked asked,
        SignInManager<Account> signIn
    )
    {
        if (request.Name.Trim() is not { Length: > 0 and <= LongestName } name)
        {
            return Refusals.Invalid("name", $"Give it a name of at most {LongestName} characters.");
        }

        var account = await asked.Accounts.OwnAsync(http.User);
        var made = await signIn.PerformPasskeyAttestationAsync(request.Json);
        if (!made.Succeeded)
        {
            return Refusals.Conflict("The browser’s answer did not fit what was asked. Nothing was added; try again.");
        }

        made.Passkey.Name = name;
        await asked.Accounts.AddOrUpdatePasskeyAsync(account, made.Passkey);
        await asked.StayAsync(account);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> RemovePasskey(
        string id,
        PasswordRequest request,
        HttpContext http,
        PasswordAsked asked,
        Actor actor,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var (account, no) = await asked.AgainAsync(http, request.Password);
        if (account is null)
        {
            return Typed<NoContent>(no!);
        }

        if (
            !account.TwoFactorEnabled
            && (await asked.Accounts.GetPasskeysAsync(account)).Count <= 1
            && await MustHaveOneAsync(actor, db, cancel)
        )
        {
            return Needed();
        }

        // One that is gone already is gone.
        await asked.Accounts.RemovePasskeyAsync(account, WebEncoders.Base64UrlDecode(id));
        await asked.StayAsync(account);
        return TypedResults.NoContent();
    }

    private static async Task<bool> MustHaveOneAsync(Actor actor, SchoolContext db, CancellationToken cancel) =>
        actor.IsHead && await db.Schools.AnyAsync(school => school.SecondFactorForHeads, cancel);

    private static ProblemHttpResult Needed() =>
        Refusals.Conflict("This school asks a second factor of every head, and this is your only one.");

    /// <summary>Codes are written in threes and with blanks. What has a letter in it is no code of an app, however many
    /// digits stand beside it: a recovery code has both.</summary>
    public static string Digits(string code) =>
        code.Any(char.IsLetter) ? "" : string.Concat(code.Where(char.IsAsciiDigit));

    private static Results<T, ValidationProblem, ProblemHttpResult> Typed<T>(IResult no)
        where T : IResult =>
        no switch
        {
            ValidationProblem invalid => invalid,
            ProblemHttpResult problem => problem,
            _ => throw new InvalidOperationException("Not a refusal."),
        };
}

/// <summary>Asks for the password once more before a sign-in is changed: whoever finds a device open does not have
/// it.</summary>
internal sealed class PasswordAsked(SignInManager<Account> signIn, SignInTries tries)
{
    public UserManager<Account> Accounts => signIn.UserManager;

    /// <returns>Whose sign-in it is; without one, why not.</returns>
    public async Task<(Account? Account, IResult? No)> AgainAsync(HttpContext http, string password)
    {
        var account = await Accounts.OwnAsync(http.User);
        return !MayTry(http, account) ? (null, Refusals.TooManyTries())
            : await Accounts.CheckPasswordAsync(account, password) ? (account, null)
            : (null, Refusals.Invalid("password", "This is not your password."));
    }

    public bool MayTry(HttpContext http, Account account) => tries.MayTry(http, account.Email!);

    /// <summary>Whoever changed something about their sign-in stays signed in with it.</summary>
    public Task StayAsync(Account account) => signIn.RefreshSignInAsync(account);
}
