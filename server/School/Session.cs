using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>Who is signed in, and the token every change has to carry.</summary>
internal static class Session
{
    public const string TokenHeader = "X-Zeitplan-Token";

    public sealed record Person(Guid Id, string Name, StaffRole Role);

    /// <param name="Today">The date on the school's wall.</param>
    /// <param name="Wall">Date and time on the school's wall.</param>
    /// <param name="At">The same moment for everybody: a device whose clock is wrong goes by it.</param>
    /// <param name="MovingIn">Whether the way into the school is still to be shown to its head.</param>
    /// <param name="MayBegin">Whether the head of the demo may begin a school of their own beside it.</param>
    /// <param name="DemoAddress">Where the demo school is beside this one; null where there is none.</param>
    /// <param name="MustSecure">Whether this person sets up a second factor before anything else.</param>
    /// <param name="MailsPasswords">Whether somebody who has lost their password can have a letter by mail.</param>
    public sealed record Response(
        string SchoolName,
        bool IsDemo,
        bool MovingIn,
        bool MayBegin,
        string? DemoAddress,
        DateOnly Today,
        DateTime Wall,
        DateTimeOffset At,
        DayOfWeek WeekStart,
        DateStyle Dates,
        DecimalMark Decimals,
        Person? Person,
        bool MustSecure,
        bool MailsPasswords,
        string Token
    );

    public sealed record SignInRequest(string Email, string Password);

    /// <param name="SecondFactor">Whether a code is asked for before anybody is in.</param>
    public sealed record SignInResponse(bool SecondFactor);

    public sealed record CodeRequest(string Code);

    public static void Map(ByRank api)
    {
        var session = api.Group("/session");
        session.Stranger.MapGet("", Read).WithName("session");
        session.Stranger.MapPost("/sign-in", SignIn).ProducesProblem(401).ProducesProblem(429).WithName("signIn");
        session
            .Stranger.MapPost("/second-factor", SignInWithCode)
            .ProducesProblem(401)
            .ProducesProblem(429)
            .WithName("signInWithCode");
        session.Stranger.MapPost("/passkey/options", AskForPasskey).WithName("askForPasskey");
        session.Stranger.MapPost("/passkey", SignInWithPasskey).ProducesProblem(401).WithName("signInWithPasskey");
        session.Self.MapPost("/sign-out", SignOut).WithName("signOut");
    }

    private static async Task<Ok<Response>> Read(
        HttpContext http,
        SchoolContext db,
        SchoolClock clock,
        IAntiforgery antiforgery,
        LostPasswords lost,
        CurrentSchool here,
        SchoolDatabases schools,
        CancellationToken cancel
    )
    {
        var school = await db.Schools.AsNoTracking().SingleOrDefaultAsync(cancel);
        var staffId = http.User.Identity?.IsAuthenticated == true ? Actor.From(http.User).StaffId : (Guid?)null;
        var person = await db
            .Staff.Where(staff => staff.Id == staffId)
            .Select(staff => new Person(staff.Id, staff.Name, staff.Role))
            .FirstOrDefaultAsync(cancel);
        var isHead = person?.Role == StaffRole.Head;
        var (isDemo, hasBegun) = (here.Database == schools.Demo, await schools.HasBegunAsync(cancel));
        var now = clock.Now;
        var wall = await clock.AtSchoolAsync(now, cancel);
        var token = antiforgery.GetAndStoreTokens(http).RequestToken!;
        return TypedResults.Ok(
            new Response(
                school?.Name ?? "",
                school?.IsDemo ?? false,
                school is { MovedIn: false } && isHead,
                isHead && isDemo && !hasBegun,
                isHead && !isDemo && schools.Demo is not null ? DemoAddress(http.Request) : null,
                DateOnly.FromDateTime(wall),
                wall,
                now,
                school?.WeekStart ?? DayOfWeek.Monday,
                school?.Dates ?? default,
                school?.Decimals ?? default,
                person,
                http.User.HasClaim(claim => claim.Type == StaffClaims.MustSecure),
                lost.CanBeWrittenTo,
                token
            )
        );
    }

    private static string DemoAddress(HttpRequest here) =>
        $"{here.Scheme}://{SchoolDatabases.DemoHost}{(here.Host.Port is { } port ? $":{port}" : "")}";

    private static async Task<Results<Ok<SignInResponse>, ProblemHttpResult>> SignIn(
        SignInRequest request,
        HttpContext http,
        SignInTries tries,
        SignInManager<Account> signIn
    )
    {
        var email = request.Email.Trim();
        if (!tries.MayTry(http, email))
        {
            return Refusals.TooManyTries();
        }

        var account = await signIn.UserManager.FindByNameAsync(email);
        if (account is null)
        {
            // Nobody can tell by the time it takes which addresses there are.
            signIn.UserManager.PasswordHasher.VerifyHashedPassword(new(), Nobody.Value, request.Password);
            return Refusals.SignInFailed();
        }

        return await SignInAsync(account, request.Password, signIn);
    }

    /// <summary>Wrong tries never lock: a stranger cannot keep somebody out.</summary>
    internal static async Task<Results<Ok<SignInResponse>, ProblemHttpResult>> SignInAsync(
        Account account,
        string password,
        SignInManager<Account> signIn
    ) =>
        await signIn.PasswordSignInAsync(account, password, isPersistent: false, lockoutOnFailure: false) switch
        {
            { Succeeded: true } => TypedResults.Ok(new SignInResponse(SecondFactor: false)),
            { RequiresTwoFactor: true } => TypedResults.Ok(new SignInResponse(SecondFactor: true)),
            _ => Refusals.SignInFailed(),
        };

    /// <summary>The second step, for whoever has taken the first one here in the last minutes: six digits of the app, or
    /// a recovery code.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SignInWithCode(
        CodeRequest request,
        HttpContext http,
        SignInTries tries,
        SignInManager<Account> signIn
    )
    {
        if (await signIn.GetTwoFactorAuthenticationUserAsync() is not { } account)
        {
            return Refusals.SignInAgain();
        }

        if (!tries.MayTry(http, account.Email!))
        {
            return Refusals.TooManyTries();
        }

        var digits = School.SecondFactor.Digits(request.Code);
        var result =
            digits.Length == 6
                ? await signIn.TwoFactorAuthenticatorSignInAsync(digits, isPersistent: false, rememberClient: false)
                : await signIn.TwoFactorRecoveryCodeSignInAsync(request.Code.Trim());
        return result switch
        {
            { Succeeded: true } => TypedResults.NoContent(),
            { IsLockedOut: true } => Refusals.TooManyCodes(),
            _ => Refusals.WrongCode(),
        };
    }

    private static async Task<Ok<SecondFactor.Credential>> AskForPasskey(SignInManager<Account> signIn) =>
        TypedResults.Ok(new SecondFactor.Credential(await signIn.MakePasskeyRequestOptionsAsync(null)));

    private static async Task<Results<NoContent, ProblemHttpResult>> SignInWithPasskey(
        SecondFactor.Credential request,
        SignInManager<Account> signIn
    ) =>
        await signIn.PasskeySignInAsync(request.Json) is { Succeeded: true }
            ? TypedResults.NoContent()
            : Refusals.PasskeyRefused();

    private static readonly Lazy<string> Nobody = new(() =>
        new PasswordHasher<Account>().HashPassword(new(), Guid.NewGuid().ToString())
    );

    private static async Task<NoContent> SignOut(SignInManager<Account> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }
}
