using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.School;

/// <summary>Keeps sign-ins in the database of the school they are for, so that signing out ends one wherever a copy of its
/// cookie lies, and any server knows it.</summary>
internal sealed class SignInStore : ITicketStore
{
    /// <summary>The claim that names the row a sign-in is kept in.</summary>
    public const string IdClaim = "sign-in";

    /// <summary>How often it is noted that a sign-in is in use.</summary>
    private static readonly TimeSpan NotedEvery = TimeSpan.FromMinutes(5);

    public async Task<string> StoreAsync(
        AuthenticationTicket ticket,
        HttpContext httpContext,
        CancellationToken cancellationToken
    )
    {
        var key = Convert.ToHexString(RandomNumberGenerator.GetBytes(32));
        await using var db = Open(httpContext);
        var now = TimeProvider.System.GetUtcNow();
        await db.SignIns.Where(old => old.Until < now).ExecuteDeleteAsync(cancellationToken);
        var (id, device) = (Guid.CreateVersion7(), httpContext.Request.Headers.UserAgent.ToString());
        Name(ticket, id);
        db.SignIns.Add(
            new(
                Hash(key),
                id,
                Guid.Parse(ticket.Principal.FindFirstValue(ClaimTypes.NameIdentifier)!),
                TicketSerializer.Default.Serialize(ticket),
                device.Length > SignIn.LongestDevice ? device[..SignIn.LongestDevice] : device,
                now,
                now,
                ticket.Properties.ExpiresUtc ?? now.AddDays(1)
            )
        );
        await db.SaveChangesAsync(cancellationToken);
        return key;
    }

    public async Task RenewAsync(
        string key,
        AuthenticationTicket ticket,
        HttpContext httpContext,
        CancellationToken cancellationToken
    )
    {
        await using var db = Open(httpContext);
        var hash = Hash(key);
        var until = ticket.Properties.ExpiresUtc ?? TimeProvider.System.GetUtcNow().AddDays(1);
        var id = await db
            .SignIns.Where(signIn => signIn.Key == hash)
            .Select(signIn => signIn.Id)
            .SingleOrDefaultAsync(cancellationToken);
        Name(ticket, id);
        var kept = TicketSerializer.Default.Serialize(ticket);
        await db
            .SignIns.Where(signIn => signIn.Key == hash)
            .ExecuteUpdateAsync(
                rows => rows.SetProperty(signIn => signIn.Ticket, kept).SetProperty(signIn => signIn.Until, until),
                cancellationToken
            );
    }

    public async Task<AuthenticationTicket?> RetrieveAsync(
        string key,
        HttpContext httpContext,
        CancellationToken cancellationToken
    )
    {
        await using var db = Open(httpContext);
        var (hash, now) = (Hash(key), TimeProvider.System.GetUtcNow());
        var kept = await db
            .SignIns.Where(signIn => signIn.Key == hash && signIn.Until >= now)
            .Select(signIn => new { signIn.Ticket, signIn.LastUsed })
            .SingleOrDefaultAsync(cancellationToken);
        if (kept is null)
        {
            return null;
        }

        if (now - kept.LastUsed > NotedEvery)
        {
            await db
                .SignIns.Where(signIn => signIn.Key == hash)
                .ExecuteUpdateAsync(rows => rows.SetProperty(signIn => signIn.LastUsed, now), cancellationToken);
        }

        return TicketSerializer.Default.Deserialize(kept.Ticket);
    }

    public async Task RemoveAsync(string key, HttpContext httpContext, CancellationToken cancellationToken)
    {
        await using var db = Open(httpContext);
        var hash = Hash(key);
        await db.SignIns.Where(signIn => signIn.Key == hash).ExecuteDeleteAsync(cancellationToken);
    }

    // The framework asks with the request, which says whose school it is; without one there is no answer.
    public Task<string> StoreAsync(AuthenticationTicket ticket) => throw NoSchool();

    public Task RenewAsync(string key, AuthenticationTicket ticket) => throw NoSchool();

    public Task<AuthenticationTicket?> RetrieveAsync(string key) => throw NoSchool();

    public Task RemoveAsync(string key) => throw NoSchool();

    private static InvalidOperationException NoSchool() => new("A sign-in is kept for the school a request is about.");

    private static SchoolContext Open(HttpContext http) =>
        http.RequestServices.GetRequiredService<CurrentSchool>().Database.Open();

    /// <summary>A principal that was made anew has lost the name.</summary>
    private static void Name(AuthenticationTicket ticket, Guid id)
    {
        if (ticket.Principal is { Identity: ClaimsIdentity identity } && !ticket.Principal.HasClaim(IdClaim, $"{id}"))
        {
            identity.AddClaim(new(IdClaim, $"{id}"));
        }
    }

    /// <summary>Whoever reads the table cannot sign in with what they find.</summary>
    private static string Hash(string key) => Convert.ToHexString(SHA256.HashData(Encoding.ASCII.GetBytes(key)));
}

/// <summary>
/// Slows guessing down without ever locking the rightful person out: so many tries from one address, and a few of them
/// for one account. Tries from elsewhere do not count against whoever the account belongs to.
/// </summary>
internal sealed class SignInTries(int aMinute) : IDisposable
{
    private readonly PartitionedRateLimiter<(string Address, string Email)> tries =
        PartitionedRateLimiter.CreateChained(
            PartitionedRateLimiter.Create<(string Address, string Email), string>(who =>
                Partition(who.Address, aMinute)
            ),
            PartitionedRateLimiter.Create<(string Address, string Email), (string, string)>(who =>
                Partition((who.Address, who.Email.ToUpperInvariant()), Math.Max(1, aMinute / 4))
            )
        );

    /// <summary>Counts a try; where it is one too many, the answer says when the next may be.</summary>
    public bool MayTry(HttpContext http, string email)
    {
        if (tries.AttemptAcquire((http.Connection.RemoteIpAddress?.ToString() ?? "", email)).IsAcquired)
        {
            return true;
        }

        http.Response.Headers.RetryAfter = "60";
        return false;
    }

    public void Dispose() => tries.Dispose();

    private static RateLimitPartition<T> Partition<T>(T key, int most) =>
        RateLimitPartition.GetTokenBucketLimiter(
            key,
            _ =>
                new()
                {
                    TokenLimit = most,
                    TokensPerPeriod = most,
                    ReplenishmentPeriod = TimeSpan.FromMinutes(1),
                    QueueLimit = 0,
                }
        );
}
