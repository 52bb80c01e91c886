using System.Text.Json;

namespace Zeitplan.Server.Tests.School;

/// <summary>Tests about people who are invited, choose a password through their letter, and sign in.</summary>
public abstract class InvitedTests(DemoTemplate template) : HeronQuayTests(template)
{
    protected const string Chosen = "a heron on one leg";

    protected static async Task<JsonElement> MemberAsync(Caller head, string name) =>
        (await head.GetAsync("/api/staff"))
            .GetProperty("members")
            .EnumerateArray()
            .Single(member => member.Text("name") == name);

    protected static object Text(string name, string role = "assistant", string? studentId = null) =>
        new
        {
            name,
            role,
            studentId,
        };

    protected static async Task<Guid> InviteAsync(Caller head, string name, string email, string role = "assistant")
    {
        var id = Guid.CreateVersion7();
        await head.PostAsync(
                "/api/staff",
                new
                {
                    id,
                    text = Text(name, role),
                    email,
                }
            )
            .OkAsync();
        return id;
    }

    /// <summary>The way in out of the newest letter to somebody.</summary>
    protected static async Task<(string Account, string Code)> WayInAsync(Caller head, string name)
    {
        var letter = (await head.GetAsync("/api/letters"))
            .EnumerateArray()
            .First(letter => letter.Text("name") == name)
            .Text("text");
        var way = letter[(letter.IndexOf("/welcome#", StringComparison.Ordinal) + 9)..]
            .Split('\n')[0]
            .Trim()
            .Split('.');
        return (Guid.Parse(way[0]).ToString(), way[1]);
    }

    protected async Task<Caller> StrangerAsync()
    {
        var caller = new Caller(Anonymous());
        await caller.RefreshTokenAsync();
        return caller;
    }

    protected static Task<HttpResponseMessage> WelcomeAsync(
        Caller caller,
        (string Account, string Code) way,
        string password = Chosen
    ) =>
        caller.PostAsync(
            "/api/session/welcome",
            new
            {
                account = way.Account,
                code = way.Code,
                password,
            }
        );

    protected static Task<HttpResponseMessage> EnterAsync(Caller caller, string email, string password = Chosen) =>
        caller.PostAsync("/api/session/sign-in", new { email, password });
}
