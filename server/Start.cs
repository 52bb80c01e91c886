using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Storage;
using Npgsql;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.Demo;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server;

/// <summary>Brings the database up to date and, when it is empty, fills it: with the demo school, or with a head and
/// nothing else.</summary>
internal static class Start
{
    /// <summary>The lock under which an empty database becomes a school.</summary>
    private const long OneSchool = 20261126;

    /// <summary>A database that is only just starting is waited for.</summary>
    private const int TriesToReach = 20;
    private static readonly TimeSpan BetweenTries = TimeSpan.FromSeconds(0.5);

    /// <returns>Null when all is ready, or why the school cannot open, in one line.</returns>
    public static async Task<string?> WhyNotAsync(WebApplication app)
    {
        for (var tried = 1; ; tried++)
        {
            try
            {
                await PrepareAsync(app);
                return null;
            }
            catch (Exception exception) when (DatabaseAway.IsSaidBy(exception))
            {
                if (tried == TriesToReach)
                {
                    return $"the database does not answer: {exception.GetBaseException().Message.ReplaceLineEndings(" ")}";
                }
            }
            catch (Exception exception)
                when (exception is NpgsqlException or FormatException or InvalidOperationException)
            {
                return exception.GetBaseException().Message.ReplaceLineEndings(" ");
            }

            await Task.Delay(BetweenTries);
        }
    }

    /// <exception cref="InvalidOperationException">There is a school to make and no password to give its
    /// people.</exception>
    private static async Task PrepareAsync(WebApplication app)
    {
        var time = app.Services.GetRequiredService<SchoolTime>();
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<SchoolContext>();
        await CreateAsync(db);
        await db.Database.OpenConnectionAsync();
        // Whoever starts at the same moment waits here, and then finds the school.
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_lock({OneSchool})");
        try
        {
            await db.Database.MigrateAsync();
            await FillAsync(app, scope.ServiceProvider, db, time);
        }
        finally
        {
            await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_unlock({OneSchool})");
            await db.Database.CloseConnectionAsync();
        }
    }

    private static async Task CreateAsync(SchoolContext db)
    {
        var creator = db.GetService<IRelationalDatabaseCreator>();
        try
        {
            if (!await creator.ExistsAsync())
            {
                await creator.CreateAsync();
            }
        }
        catch (PostgresException exception)
            when (exception.SqlState is PostgresErrorCodes.DuplicateDatabase or PostgresErrorCodes.UniqueViolation)
        {
            // Somebody else has just made it.
        }
    }

    private static async Task FillAsync(
        WebApplication app,
        IServiceProvider services,
        SchoolContext db,
        SchoolTime time
    )
    {
        if (await db.Schools.AnyAsync())
        {
            return;
        }

        var password = app.Configuration["ZEITPLAN_FIRST_PASSWORD"] is { Length: > 0 } given
            ? given
            : throw new InvalidOperationException(
                "The database is empty. Set ZEITPLAN_FIRST_PASSWORD to give the first sign-ins a password, or start with ./zeitplan start, which makes one."
            );
        var accounts = services.GetRequiredService<UserManager<Account>>();
        await using var all = await db.Database.BeginTransactionAsync();
        if (app.Configuration.GetValue("ZEITPLAN_EMPTY", false))
        {
            db.Schools.Add(
                // Its head names it and says where it is; nobody guesses.
                Core.School.Create(Guid.CreateVersion7(), "", null)
            );
            await db.SaveChangesAsync();
            Doors.Through(
                await StaffEndpoints.AddWithPasswordAsync(
                    Guid.CreateVersion7(),
                    new("Head of school", StaffRole.Head),
                    "head@school.example",
                    password,
                    db,
                    accounts
                )
            );
        }
        else
        {
            await new DemoSchool(db, accounts, DateOnly.FromDateTime(time.GetUtcNow().DateTime), password).FillAsync();
        }

        await all.CommitAsync();
    }
}
