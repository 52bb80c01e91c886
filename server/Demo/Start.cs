using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.People;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Demo;

/// <summary>Brings the database up to date and, when it is empty, fills it: with the demo school, or with a head and nothing else.</summary>
internal static class Start
{
    /// <exception cref="InvalidOperationException">There is a school to make and no password to give its people.</exception>
    public static async Task PrepareAsync(WebApplication app)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<SchoolContext>();
        await db.Database.MigrateAsync();
        if (await db.Schools.AnyAsync())
        {
            return;
        }

        var password = app.Configuration["ZEITPLAN_FIRST_PASSWORD"] is { Length: > 0 } given ? given
            : throw new InvalidOperationException("The database is empty. Set ZEITPLAN_FIRST_PASSWORD to give the first sign-ins a password, or start with ./zeitplan start, which makes one.");
        var accounts = scope.ServiceProvider.GetRequiredService<UserManager<Account>>();
        await using var all = await db.Database.BeginTransactionAsync();
        if (app.Configuration.GetValue("ZEITPLAN_EMPTY", false))
        {
            db.Schools.Add(Core.People.School.Create(Guid.CreateVersion7(), "My school", TimeZoneInfo.Local.HasIanaId ? TimeZoneInfo.Local.Id : "UTC"));
            await db.SaveChangesAsync();
            Doors.Through(await SchoolEndpoints.AddStaff(new(Guid.CreateVersion7(), "Head of school", StaffRole.Head, "head@school.example", password), db, accounts, default));
        }
        else
        {
            var time = scope.ServiceProvider.GetRequiredService<SchoolTime>();
            await new DemoSchool(db, accounts, DateOnly.FromDateTime(time.GetUtcNow().DateTime), password).FillAsync();
        }

        await all.CommitAsync();
    }
}
