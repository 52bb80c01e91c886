using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Zeitplan.Server.Tests.School;

/// <summary>Letters by mail: taken to a mail server, tried again where it will not have them, and read by nobody else
/// once they are on their way.</summary>
public sealed class MailTests(DemoTemplate template) : HeronQuayTests(template)
{
    [Fact]
    public async Task A_letter_goes_out_by_mail_and_its_way_in_is_kept_nowhere_else()
    {
        using var mail = new MailServer();
        await using var application = Template.Open(
            "",
            Connection,
            ("ZEITPLAN_MAIL", $"smtp://127.0.0.1:{mail.Port}/?from=school@heronquay.example"),
            ("ZEITPLAN_ADDRESS", "https://heronquay.example/")
        );
        var head = new Caller(application.CreateClient(new() { BaseAddress = new("https://localhost") }));
        await head.RefreshTokenAsync();
        await head.PostAsync(
                "/api/session/sign-in",
                new { email = "head@heronquay.example", password = DemoTemplate.Password }
            )
            .OkAsync();
        await head.RefreshTokenAsync();
        mail.Refuses = true;
        await head.PostAsync(
                "/api/staff",
                new
                {
                    id = Guid.CreateVersion7(),
                    text = new
                    {
                        name = "Runa Falk",
                        role = "assistant",
                        studentId = (string?)null,
                    },
                    email = "runa@heronquay.example",
                }
            )
            .OkAsync();
        var refused = await UntilAsync(head, letter => letter.GetProperty("failure").GetString() is not null);
        Assert.Contains("no such mailbox", refused.Text("failure"), StringComparison.Ordinal);
        Assert.Contains("/welcome#", refused.Text("text"), StringComparison.Ordinal);

        mail.Refuses = false;
        await RunAsync("UPDATE letters SET next_try = now()");
        var sent = await UntilAsync(head, letter => letter.GetProperty("sent").GetString() is not null);
        Assert.Equal(("", null), (sent.Text("text"), sent.Text("failure")));
        var received = Assert.Single(mail.Received);
        Assert.Contains("To: runa@heronquay.example", received, StringComparison.Ordinal);
        Assert.Contains(
            "https://heronquay.example/welcome#",
            received.Replace("=\r\n", "", StringComparison.Ordinal),
            StringComparison.Ordinal
        );

        // Whoever has lost their password writes to themselves; a stranger learns nothing by asking.
        Assert.True((await head.GetAsync("/api/session")).GetProperty("mailsPasswords").GetBoolean());
        var stranger = new Caller(application.CreateClient(new() { BaseAddress = new("https://localhost") }));
        await stranger.RefreshTokenAsync();
        foreach (var email in new[] { "nobody@heronquay.example", "assistant@heronquay.example" })
        {
            await stranger.PostAsync("/api/session/forgotten", new { email }).OkAsync();
        }

        await UntilAsync(
            head,
            letter => letter.Text("kind") == "reset" && letter.GetProperty("sent").GetString() is not null
        );
        Assert.Equal(2, mail.Received.Count);
    }

    [Theory]
    [InlineData("mail.heronquay.example")]
    [InlineData("smtp://mail.heronquay.example")]
    [InlineData("https://mail.heronquay.example/?from=school@heronquay.example")]
    public async Task A_mail_server_that_is_none_is_refused_without_saying_what_it_holds(string address)
    {
        await using var application = Template.Open("", Connection, ("ZEITPLAN_MAIL", address));
        var said = Record.Exception(() => application.CreateClient())!.ToString();
        Assert.Contains("ZEITPLAN_MAIL is no mail server", said, StringComparison.Ordinal);
        Assert.DoesNotContain("mail.heronquay.example", said, StringComparison.Ordinal);
    }

    private static async Task<System.Text.Json.JsonElement> UntilAsync(
        Caller head,
        Func<System.Text.Json.JsonElement, bool> there
    )
    {
        for (var tried = 0; tried < 300; tried++)
        {
            foreach (var letter in (await head.GetAsync("/api/letters")).EnumerateArray().Where(there))
            {
                return letter;
            }

            await Task.Delay(100);
        }

        throw new TimeoutException("The letter did not come as far as that within half a minute.");
    }

    /// <summary>As much of a mail server (RFC 5321) as a letter needs.</summary>
    private sealed class MailServer : IDisposable
    {
        private readonly TcpListener listener = new(IPAddress.Loopback, 0);

        public MailServer()
        {
            listener.Start();
            _ = ServeAsync();
        }

        public int Port => ((IPEndPoint)listener.LocalEndpoint).Port;

        public bool Refuses { get; set; }

        public List<string> Received { get; } = [];

        public void Dispose() => listener.Dispose();

        private async Task ServeAsync()
        {
            try
            {
                while (true)
                {
                    using var client = await listener.AcceptTcpClientAsync();
                    await TalkAsync(client.GetStream());
                }
            }
            catch (Exception exception) when (exception is SocketException or ObjectDisposedException or IOException)
            {
                // The test is over.
            }
        }

        private async Task TalkAsync(NetworkStream stream)
        {
            using var reader = new StreamReader(stream, Encoding.ASCII);
            await using var writer = new StreamWriter(stream, Encoding.ASCII) { NewLine = "\r\n", AutoFlush = true };
            await writer.WriteLineAsync("220 mail.heronquay.example");
            while (await reader.ReadLineAsync() is { } line)
            {
                switch (line.Split(' ')[0].ToUpperInvariant())
                {
                    case "RCPT" when Refuses:
                        await writer.WriteLineAsync("550 no such mailbox");
                        break;
                    case "DATA":
                        await writer.WriteLineAsync("354 go on");
                        var letter = new StringBuilder();
                        while (await reader.ReadLineAsync() is { } text and not ".")
                        {
                            letter.Append(text).Append("\r\n");
                        }

                        Received.Add(letter.ToString());
                        await writer.WriteLineAsync("250 taken");
                        break;
                    case "QUIT":
                        await writer.WriteLineAsync("221 bye");
                        return;
                    default:
                        await writer.WriteLineAsync("250 good");
                        break;
                }
            }
        }
    }
}
