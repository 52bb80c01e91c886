using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.People;

/// <summary>What a school is made of: sashes, halls and staff are added here.</summary>
internal static partial class SchoolEndpoints
{
    public sealed record SashRequest(Guid Id, string Name, int Order, string Colour, bool HasHalves);

    public sealed record HallRequest(Guid Id, string Name, decimal Width, decimal Depth, int Chairs, decimal Rail);

    public sealed record StaffRequest(Guid Id, string Name, StaffRole Role, string Email, string Password);

    public static void Map(IEndpointRouteBuilder api)
    {
        api.MapPost("/sashes", AddSash).RequireAuthorization(Policies.Head).ProducesProblem(409).WithName("addSash");
        api.MapPost("/halls", AddHall).RequireAuthorization(Policies.Head).ProducesProblem(409).WithName("addHall");
        api.MapPost("/staff", AddStaff).RequireAuthorization(Policies.Head).ProducesProblem(409).WithName("addStaff");
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> AddSash(SashRequest request, SchoolContext db, CancellationToken cancel)
    {
        List<Problem> problems = [.. Problem.WithName(request.Name, "name"), .. CheckColour(request.Colour)];
        if (problems.Count > 0)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Sashes.AnyAsync(sash => sash.Id == request.Id || sash.Order == request.Order, cancel))
        {
            return Answers.Conflict("The ladder has a sash at this place already.");
        }

        db.Sashes.Add(SashLevel.Create(request.Id, request.Name, request.Order, request.Colour, request.HasHalves));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/people");
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> AddHall(HallRequest request, SchoolContext db, CancellationToken cancel)
    {
        List<Problem> problems = [.. Hall.Check(request.Name, request.Width, request.Depth, request.Chairs, request.Rail)];
        if (problems.Count > 0)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Halls.AnyAsync(hall => hall.Id == request.Id || hall.Name == request.Name.Trim(), cancel))
        {
            return Answers.Conflict($"The school has a hall {request.Name.Trim()} already.");
        }

        db.Halls.Add(Hall.Create(request.Id, request.Name, request.Width, request.Depth, request.Chairs, request.Rail));
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created("/api/people");
    }

    internal static async Task<Results<Created, ValidationProblem, ProblemHttpResult>> AddStaff(StaffRequest request, SchoolContext db, UserManager<Account> accounts, CancellationToken cancel)
    {
        if (Problem.WithName(request.Name, "name").ToList() is { Count: > 0 } problems)
        {
            return Answers.Invalid(problems);
        }

        if (await db.Staff.AnyAsync(member => member.Id == request.Id, cancel))
        {
            return Answers.Conflict("This member of staff is here already.");
        }

        // Creating the account saves the member of staff with it: both or neither.
        db.Staff.Add(StaffMember.Create(request.Id, request.Name, request.Role));
        var made = await accounts.CreateAsync(new() { Id = Guid.CreateVersion7(), StaffId = request.Id, UserName = request.Email, Email = request.Email }, request.Password);
        if (!made.Succeeded)
        {
            return Answers.Invalid(made.Errors.Select(error => new Problem(error.Code.Contains("Password", StringComparison.Ordinal) ? "password" : "email", error.Description)));
        }

        return TypedResults.Created("/api/people");
    }

    internal static IEnumerable<Problem> CheckColour(string? colour) =>
        colour is not null && Colour().IsMatch(colour) ? [] : [new("colour", "Write a colour as #RRGGBB.")];

    [GeneratedRegex("^#[0-9A-Fa-f]{6}$")]
    private static partial Regex Colour();
}
