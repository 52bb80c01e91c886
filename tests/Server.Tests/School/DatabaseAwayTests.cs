using System.Net;
using System.Net.Sockets;
using Npgsql;

namespace Zeitplan.Server.Tests.School;

public sealed class DatabaseAwayTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_database_that_goes_away_is_said_and_the_application_recovers_by_itself()
    {
        using var line = new Line(new NpgsqlConnectionStringBuilder(Connection).Port);
        var connection = new NpgsqlConnectionStringBuilder(Connection)
        {
            Port = line.Port,
            Timeout = 3,
        }.ConnectionString;
        await using var application = Template.Open("", connection);
        var head = new Caller(application.CreateClient());
        await head.RefreshTokenAsync();
        await head.PostAsync(
                "/api/session/sign-in",
                new { email = "head@heronquay.example", password = DemoTemplate.Password }
            )
            .OkAsync();
        await head.RefreshTokenAsync();
        var (room, imke) = ((await ClassAsync(head)).Text("id"), (await StudentAsync(head, "Imke")).Text("id"));
        var lesson = $"/api/classes/{room}/lessons/2026-11-17";
        var before = await PresentAsync(head, lesson, imke);
        var marks = new
        {
            marks = new[]
            {
                new
                {
                    id = Guid.CreateVersion7(),
                    studentId = imke,
                    present = !before,
                },
            },
        };

        async Task<int> HealthAsync(string what) =>
            (int)(await application.CreateClient().GetAsync($"/health/{what}")).StatusCode;

        line.Cut();
        Assert.Equal(
            "urn:zeitplan:problem:database-away",
            (await head.PostAsync($"{lesson}/attendance", marks).ProblemAsync(503)).Text("type")
        );
        await head.Client.GetAsync("/api/today").ProblemAsync(503);
        Assert.Equal((200, 503), (await HealthAsync("live"), await HealthAsync("ready")));

        line.Restore();
        await head.PostAsync($"{lesson}/attendance", marks).OkAsync();
        await head.PostAsync($"{lesson}/attendance", marks).OkAsync();
        Assert.Equal((200, 200), (await HealthAsync("live"), await HealthAsync("ready")));
        Assert.Equal(!before, await PresentAsync(head, lesson, imke));
    }

    [Fact]
    public async Task A_database_that_is_gone_is_away_until_it_has_been_restored()
    {
        var head = await HeadAsync();
        var name = new NpgsqlConnectionStringBuilder(Connection).Database;
        NpgsqlConnection.ClearAllPools();
        Template.Run($"ALTER DATABASE {name} RENAME TO {name}_lost");
        Assert.Equal(
            "urn:zeitplan:problem:database-away",
            (await head.Client.GetAsync("/api/today").ProblemAsync(503)).Text("type")
        );
        NpgsqlConnection.ClearAllPools();
        Template.Run($"ALTER DATABASE {name}_lost RENAME TO {name}");
        await head.GetAsync("/api/today");
    }

    private static async Task<bool> PresentAsync(Caller caller, string lesson, string student) =>
        (await caller.GetAsync($"{lesson}/register"))
            .GetProperty("students")
            .EnumerateArray()
            .Single(s => s.Text("studentId") == student)
            .GetProperty("present")
            .GetBoolean();

    /// <summary>A telephone line to the database that can be cut.</summary>
    private sealed class Line : IDisposable
    {
        private readonly int to;
        private readonly List<TcpClient> open = [];
        private TcpListener listener;

        public Line(int to)
        {
            this.to = to;
            listener = Listen(0);
            Port = ((IPEndPoint)listener.LocalEndpoint).Port;
        }

        public int Port { get; }

        public void Cut()
        {
            listener.Stop();
            lock (open)
            {
                open.ForEach(client => client.Dispose());
                open.Clear();
            }
        }

        public void Restore() => listener = Listen(Port);

        public void Dispose() => Cut();

        private TcpListener Listen(int port)
        {
            var started = new TcpListener(IPAddress.Loopback, port);
            started.Server.SetSocketOption(SocketOptionLevel.Socket, SocketOptionName.ReuseAddress, true);
            started.Start();
            _ = AcceptAsync(started);
            return started;
        }

        private async Task AcceptAsync(TcpListener from)
        {
            try
            {
                while (true)
                {
                    var (near, far) = (await from.AcceptTcpClientAsync(), new TcpClient());
                    await far.ConnectAsync(IPAddress.Loopback, to);
                    lock (open)
                    {
                        open.AddRange([near, far]);
                    }

                    _ = CarryAsync(near, far);
                    _ = CarryAsync(far, near);
                }
            }
            catch (Exception exception) when (exception is SocketException or ObjectDisposedException)
            {
                // The line was cut.
            }
        }

        private static async Task CarryAsync(TcpClient from, TcpClient to)
        {
            try
            {
                await from.GetStream().CopyToAsync(to.GetStream());
            }
            catch (Exception exception)
                when (exception is IOException or ObjectDisposedException or InvalidOperationException)
            {
                // The line was cut.
            }
            finally
            {
                to.Dispose();
            }
        }
    }
}
