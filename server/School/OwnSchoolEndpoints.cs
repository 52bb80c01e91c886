using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.School;

/// <summary>The demo school and one's own, two databases of one installation: the own one is begun beside the demo, and
/// the demo is taken away when nobody looks at it any more.</summary>
internal static class OwnSchoolEndpoints
{
    /// <param name="Name">Of its head.</param>
    public sealed record BeginRequest(string Name, string Email, string Password);

    public static void Map(ByRank api)
    {
        api.Head.MapPost("/own-school", Begin).ProducesProblem(409).WithName("beginOwnSchool");
        api.Head.MapDelete("/demo", RemoveDemo).ProducesProblem(409).WithName("removeDemo");
    }

    /// <summary>At the address where the demo was, it is from now on; whoever begins it signs in there as its
    /// head.</summary>
    private static async Task<Results<NoContent, ValidationProblem, ProblemHttpResult>> Begin(
        BeginRequest request,
        HttpContext http,
        CurrentSchool here,
        SchoolDatabases schools,
        IServiceScopeFactory scopes,
        CancellationToken cancel
    )
    {
        if (here.Database != schools.Demo)
        {
            return Refusals.Conflict("An own school is begun from the demo school.");
        }

        // Whoever it was in the demo, in the new school they are nobody yet.
        http.User = new ClaimsPrincipal(new ClaimsIdentity());
        await using var scope = scopes.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<CurrentSchool>().Is(schools.Main);
        var db = scope.ServiceProvider.GetRequiredService<SchoolContext>();
        await using (var all = await AllOrNothing.InTurnAsync(db, Turn.Heads, cancel))
        {
            if (await db.Schools.AnyAsync(cancel))
            {
                return Refusals.Conflict("The own school has been begun already. Its head invites you.");
            }

            var made = await EmptySchool.FillAsync(
                db,
                scope.ServiceProvider.GetRequiredService<UserManager<Account>>(),
                new(request.Name, StaffRole.Head),
                request.Email,
                request.Password,
                ownPassword: true
            );
            if (made is ValidationProblem invalid)
            {
                return invalid;
            }

            await all.KeepAsync(cancel);
        }

        schools.LookAgain();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveDemo(
        CurrentSchool here,
        SchoolDatabases schools,
        CancellationToken cancel
    )
    {
        if (here.Database != schools.Main || !await schools.HasBegunAsync(cancel))
        {
            return Refusals.Conflict("The demo school is taken away from your own school.");
        }

        await schools.DropDemoAsync(cancel);
        return TypedResults.NoContent();
    }
}

/// <summary>A school with a head and nothing else.</summary>
internal static class EmptySchool
{
    /// <returns>Why its head cannot be added.</returns>
    public static async Task<IResult> FillAsync(
        SchoolContext db,
        UserManager<Account> accounts,
        StaffText head,
        string email,
        string password,
        bool ownPassword = false
    )
    {
        // Its head names it and says where it is; nobody guesses.
        db.Schools.Add(Core.School.Create(Guid.CreateVersion7(), "", null));
        await db.SaveChangesAsync();
        return await StaffEndpoints.AddWithPasswordAsync(
            Guid.CreateVersion7(),
            head,
            email,
            password,
            db,
            accounts,
            ownPassword
        );
    }
}
