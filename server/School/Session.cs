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
    /// <param name="MovingIn">Whether the way into the school is still to be shown to its head.</param>
    public sealed record Response(
        string SchoolName,
        bool IsDemo,
        bool MovingIn,
        DateOnly Today,
        DayOfWeek WeekStart,
        DateStyle Dates,
        DecimalMark Decimals,
        Person? Person,
        string Token
    );

    public sealed record SignInRequest(string Email, string Password);

    public static void Map(ByRank api)
    {
        var session = api.Group("/session");
        session.Stranger.MapGet("", Read).WithName("session");
        session.Stranger.MapPost("/sign-in", SignIn).ProducesProblem(401).ProducesProblem(429).WithName("signIn");
        session.Anyone.MapPost("/sign-out", SignOut).WithName("signOut");
    }

    private static async Task<Ok<Response>> Read(
        HttpContext http,
        SchoolContext db,
        SchoolClock clock,
        IAntiforgery antiforgery,
        CancellationToken cancel
    )
    {
        var school = await db.Schools.AsNoTracking().SingleOrDefaultAsync(cancel);
        var staffId = http.User.Identity?.IsAuthenticated == true ? Actor.From(http.User).StaffId : (Guid?)null;
        var person = await db
            .Staff.Where(staff => staff.Id == staffId)
            .Select(staff => new Person(staff.Id, staff.Name, staff.Role))
            .FirstOrDefaultAsync(cancel);
        var token = antiforgery.GetAndStoreTokens(http).RequestToken!;
        return TypedResults.Ok(
            new Response(
                school?.Name ?? "",
                school?.IsDemo ?? false,
                school is { MovedIn: false } && person?.Role == StaffRole.Head,
                await clock.TodayAsync(cancel),
                school?.WeekStart ?? DayOfWeek.Monday,
                school?.Dates ?? default,
                school?.Decimals ?? default,
                person,
                token
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SignIn(
        SignInRequest request,
        HttpContext http,
        SignInTries tries,
        SignInManager<Account> signIn
    )
    {
        var email = request.Email.Trim();
        if (!tries.MayTry(http.Connection.RemoteIpAddress?.ToString() ?? "", email))
        {
            http.Response.Headers.RetryAfter = "60";
            return Refusals.TooManyTries();
        }

        var account = await signIn.UserManager.FindByNameAsync(email);
        if (account is null)
        {
            // Nobody can tell by the time it takes which addresses there are.
            signIn.UserManager.PasswordHasher.VerifyHashedPassword(new(), Nobody.Value, request.Password);
            return Refusals.SignInFailed();
        }

        if (!await signIn.UserManager.CheckPasswordAsync(account, request.Password))
        {
            return Refusals.SignInFailed();
        }

        await signIn.SignInAsync(account, isPersistent: false);
        return TypedResults.NoContent();
    }

    private static readonly Lazy<string> Nobody = new(() =>
        new PasswordHasher<Account>().HashPassword(new(), Guid.NewGuid().ToString())
    );

    private static async Task<NoContent> SignOut(SignInManager<Account> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }
}
