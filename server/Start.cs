using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Storage;
using Npgsql;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.Demo;
using Zeitplan.Server.Forms;
using Zeitplan.Server.People;
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
        var schools = app.Services.GetRequiredService<SchoolDatabases>();
        var isEmpty = app.Configuration.GetValue("ZEITPLAN_EMPTY", false);
        if (schools.Demo is not { } demo)
        {
            await OpenAsync(app, schools.Main, isEmpty ? FillEmptyAsync : FillDemoAsync);
        }
        else
        {
            await MakeRoomAsync(schools.Main, demo);
            await OpenAsync(app, schools.Main, isEmpty ? FillEmptyAsync : null);
            if (!await schools.HasBegunAsync(default))
            {
                await OpenAsync(app, demo, FillDemoAsync);
            }
            else if (await ExistsAsync(demo))
            {
                await OpenAsync(app, demo, null);
            }
            else
            {
                // It was taken away, and stays away.
                schools.ForgetDemo();
            }
        }

        foreach (var school in schools.Own.Where(school => school != schools.Main))
        {
            await OpenAsync(app, school, FillEmptyAsync);
        }
    }

    private delegate Task Filling(IServiceProvider services, SchoolContext db, string password, SchoolTime time);

    /// <summary>Brings a database up to date and, when it is empty, fills it.</summary>
    private static async Task OpenAsync(WebApplication app, SchoolDatabase school, Filling? fill)
    {
        await using var scope = app.Services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<CurrentSchool>().Is(school);
        var db = scope.ServiceProvider.GetRequiredService<SchoolContext>();
        await CreateAsync(db);
        await db.Database.OpenConnectionAsync();
        // Whoever starts at the same moment waits here, and then finds the school.
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_lock({OneSchool})");
        try
        {
            // Comparing the whole model with what the migrations made of it takes a start a second; that they agree is a test's matter.
            if ((await db.Database.GetPendingMigrationsAsync()).Any())
            {
                await db.Database.MigrateAsync();
            }

            if (fill is not null && !await db.Schools.AnyAsync())
            {
                var password = app.Configuration["ZEITPLAN_FIRST_PASSWORD"] is { Length: > 0 } given
                    ? given
                    : throw new InvalidOperationException(
                        "The database is empty. Set ZEITPLAN_FIRST_PASSWORD to give the first sign-ins a password, or start with ./zeitplan start, which makes one."
                    );
                await using var all = await db.Database.BeginTransactionAsync();
                await fill(scope.ServiceProvider, db, password, app.Services.GetRequiredService<SchoolTime>());
                await all.CommitAsync();
            }

            await FormOutlines.BringUpToDateAsync(db, default);
            if (school != app.Services.GetRequiredService<SchoolDatabases>().Demo)
            {
                var today = DateOnly.FromDateTime(app.Services.GetRequiredService<SchoolTime>().GetUtcNow().DateTime);
                await Erasing.AgainAsync(db, app.Services.GetRequiredService<Erasures>(), today, default);
            }
        }
        finally
        {
            await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_unlock({OneSchool})");
            await db.Database.CloseConnectionAsync();
        }
    }

    private static async Task FillEmptyAsync(
        IServiceProvider services,
        SchoolContext db,
        string password,
        SchoolTime time
    ) =>
        Doors.Through(
            await EmptySchool.FillAsync(
                db,
                services.GetRequiredService<UserManager<Account>>(),
                new("Head of school", StaffRole.Head),
                "head@school.example",
                password
            )
        );

    private static Task FillDemoAsync(IServiceProvider services, SchoolContext db, string password, SchoolTime time) =>
        new DemoSchool(
            db,
            services.GetRequiredService<UserManager<Account>>(),
            DateOnly.FromDateTime(time.GetUtcNow().DateTime),
            password
        ).FillAsync();

    private static async Task<bool> ExistsAsync(SchoolDatabase school)
    {
        await using var db = school.Open();
        return await db.GetService<IRelationalDatabaseCreator>().ExistsAsync();
    }

    /// <summary>A demo school that was begun before there could be one's own beside it moves into the demo's
    /// database.</summary>
    private static async Task MakeRoomAsync(SchoolDatabase main, SchoolDatabase demo)
    {
        if (!await ExistsAsync(main) || await ExistsAsync(demo))
        {
            return;
        }

        var isDemo = await IsDemoAsync(main);
        if (isDemo)
        {
            NpgsqlConnection.ClearAllPools();
            await using var server = new NpgsqlConnection(
                new NpgsqlConnectionStringBuilder(main.Connection.ConnectionString)
                {
                    Database = "postgres",
                    Pooling = false,
                }.ConnectionString
            );
            await server.OpenAsync();
            await using var rename = new NpgsqlCommand(
                $"ALTER DATABASE {Quoted(main.Name)} RENAME TO {Quoted(demo.Name)}",
                server
            );
            await rename.ExecuteNonQueryAsync();
        }

        static string Quoted(string name) => $"\"{name.Replace("\"", "\"\"")}\"";
    }

    private static async Task<bool> IsDemoAsync(SchoolDatabase school)
    {
        await using var connection = new NpgsqlConnection(school.Connection.ConnectionString);
        await connection.OpenAsync();
        return await AsksAsync("SELECT to_regclass('schools') IS NOT NULL")
            && await AsksAsync("SELECT EXISTS (SELECT FROM schools WHERE is_demo)");

        async Task<bool> AsksAsync(string sql)
        {
            await using var asked = new NpgsqlCommand(sql, connection);
            return await asked.ExecuteScalarAsync() is true;
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
}
