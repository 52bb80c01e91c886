using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Npgsql;

namespace Zeitplan.Server.Data;

/// <summary>One school's database, and how it is reached.</summary>
public sealed class SchoolDatabase
{
    private readonly PooledDbContextFactory<SchoolContext> contexts;

    /// <param name="services">Where the context looks up how accounts are kept.</param>
    internal SchoolDatabase(string connection, IServiceProvider services, params IInterceptor[] interceptors)
    {
        // Statements that come again and again are prepared once for each connection.
        Connection = new NpgsqlConnectionStringBuilder(connection)
        {
            MaxAutoPrepare = 100,
            AutoPrepareMinUsages = 3,
            NoResetOnClose = true,
        };
        contexts = new(
            new DbContextOptionsBuilder<SchoolContext>()
                .UseNpgsql(Connection.ConnectionString, npgsql => npgsql.CommandTimeout(20))
                .UseSnakeCaseNamingConvention()
                .UseApplicationServiceProvider(services)
                .AddInterceptors(interceptors)
                .Options
        );
    }

    internal NpgsqlConnectionStringBuilder Connection { get; }

    public string Name => Connection.Database!;

    /// <summary>Given back to the pool when it is disposed of.</summary>
    public SchoolContext Open() => contexts.CreateDbContext();
}

/// <summary>
/// The schools of an installation, each in a database of its own, told apart by the name they are reached at: whatever
/// stands in the file <c>ZEITPLAN_HOSTS_FILE</c> (a line each, <c>host = connection string</c>), and for every other name
/// the school of <c>ZEITPLAN_DATABASE</c>. Where <c>ZEITPLAN_DEMO_DATABASE</c> names a database beside it, that one holds
/// the demo school: it answers at <see cref="DemoHost"/>, and at every name while nobody has begun a school of their
/// own.
/// </summary>
public sealed class SchoolDatabases
{
    /// <summary>Browsers take every name under localhost for this computer.</summary>
    public const string DemoHost = "demo.localhost";

    /// <summary>How long another server may take to notice that the own school has been begun here.</summary>
    private static readonly TimeSpan LookEvery = TimeSpan.FromSeconds(2);

    private readonly Dictionary<string, SchoolDatabase> byHost = new(StringComparer.OrdinalIgnoreCase);

    private volatile bool begun;
    private long looked;

    internal SchoolDatabases(
        IConfiguration configuration,
        IServiceProvider services,
        params IInterceptor[] interceptors
    )
    {
        SchoolDatabase Database(string connection) => new(connection, services, interceptors);

        Main = Database(configuration["ZEITPLAN_DATABASE"] ?? "Host=127.0.0.1;Database=zeitplan");
        if (configuration["ZEITPLAN_DEMO_DATABASE"] is { Length: > 0 } demo)
        {
            Demo = Database(
                new NpgsqlConnectionStringBuilder(Main.Connection.ConnectionString) { Database = demo }.ConnectionString
            );
        }

        if (configuration["ZEITPLAN_HOSTS_FILE"] is { Length: > 0 } file)
        {
            foreach (var (at, line) in File.ReadLines(file).Index())
            {
                if (line.Trim() is not { Length: > 0 } said || said.StartsWith('#'))
                {
                    continue;
                }

                var parts = said.Split('=', 2, StringSplitOptions.TrimEntries);
                if (parts.Length < 2 || !byHost.TryAdd(parts[0], Database(parts[1])))
                {
                    throw new FormatException(
                        $"{file}, line {at + 1}: write a host, an equals sign and a connection string, each host once."
                    );
                }
            }
        }
    }

    /// <summary>The school of whoever asks by no name of its own; one's own, once it is begun.</summary>
    public SchoolDatabase Main { get; }

    /// <summary>The demo school beside it; null where there is none, or none any more.</summary>
    public SchoolDatabase? Demo { get; private set; }

    /// <summary>Every school that keeps its people's things: all but the demo.</summary>
    public IEnumerable<SchoolDatabase> Own => byHost.Values.Prepend(Main);

    public async Task<SchoolDatabase> AtAsync(string host, CancellationToken cancel) =>
        byHost.TryGetValue(host, out var named) ? named
        : Demo is not { } demo ? Main
        : string.Equals(host, DemoHost, StringComparison.OrdinalIgnoreCase) ? demo
        : await HasBegunAsync(cancel) ? Main
        : demo;

    /// <summary>Whether there is a school of one's own; asked of the database until there is.</summary>
    public async Task<bool> HasBegunAsync(CancellationToken cancel)
    {
        if (!begun && (looked == 0 || Stopwatch.GetElapsedTime(looked) > LookEvery))
        {
            await using var db = Main.Open();
            begun = await db.Schools.AnyAsync(cancel);
            looked = Stopwatch.GetTimestamp();
        }

        return begun;
    }

    /// <summary>Looked for anew at the next request.</summary>
    public void LookAgain() => looked = 0;

    /// <summary>The demo school is gone, without a trace.</summary>
    public async Task DropDemoAsync(CancellationToken cancel)
    {
        if (Demo is not { } demo)
        {
            return;
        }

        Demo = null;
        await using (var connection = new NpgsqlConnection(demo.Connection.ConnectionString))
        {
            NpgsqlConnection.ClearPool(connection);
        }

        await using var db = Main.Open();
        // A name out of the installation's own settings, quoted as an identifier.
        var drop = $"DROP DATABASE IF EXISTS \"{demo.Name.Replace("\"", "\"\"")}\" WITH (FORCE)";
        await db.Database.ExecuteSqlRawAsync(drop, cancel);
    }

    /// <summary>There is no demo beside the own school.</summary>
    public void ForgetDemo() => Demo = null;
}

/// <summary>Which school this is about: the one at the address somebody asks, or the one a server works at by
/// itself.</summary>
internal sealed class CurrentSchool(SchoolDatabases schools)
{
    private SchoolDatabase? database;

    public SchoolDatabase Database => database ?? schools.Main;

    public void Is(SchoolDatabase school) => database = school;
}
