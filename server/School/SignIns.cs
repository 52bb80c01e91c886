using System.Security.Cryptography;
using System.Text;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.School;

/// <summary>Keeps sign-ins in the database, so that signing out ends one wherever a copy of its cookie lies, and any
/// server knows it.</summary>
internal sealed class SignInStore(IServiceScopeFactory scopes) : ITicketStore
{
    public async Task<string> StoreAsync(AuthenticationTicket ticket)
    {
        var key = Convert.ToHexString(RandomNumberGenerator.GetBytes(32));
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<SchoolContext>();
        var now = TimeProvider.System.GetUtcNow();
        await db.SignIns.Where(old => old.Until < now).ExecuteDeleteAsync();
        db.SignIns.Add(
            new(Hash(key), TicketSerializer.Default.Serialize(ticket), ticket.Properties.ExpiresUtc ?? now.AddDays(1))
        );
        await db.SaveChangesAsync();
        return key;
    }

    public async Task RenewAsync(string key, AuthenticationTicket ticket)
    {
        await using var scope = scopes.CreateAsyncScope();
        var (hash, kept) = (Hash(key), TicketSerializer.Default.Serialize(ticket));
        var until = ticket.Properties.ExpiresUtc ?? TimeProvider.System.GetUtcNow().AddDays(1);
        await scope
            .ServiceProvider.GetRequiredService<SchoolContext>()
            .SignIns.Where(signIn => signIn.Key == hash)
            .ExecuteUpdateAsync(rows =>
                rows.SetProperty(signIn => signIn.Ticket, kept).SetProperty(signIn => signIn.Until, until)
            );
    }

    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        await using var scope = scopes.CreateAsyncScope();
        var (hash, now) = (Hash(key), TimeProvider.System.GetUtcNow());
        return
            await scope
                .ServiceProvider.GetRequiredService<SchoolContext>()
                .SignIns.Where(signIn => signIn.Key == hash && signIn.Until >= now)
                .Select(signIn => signIn.Ticket)
                .SingleOrDefaultAsync()
                is { } kept
            ? TicketSerializer.Default.Deserialize(kept)
            : null;
    }

    public async Task RemoveAsync(string key)
    {
        await using var scope = scopes.CreateAsyncScope();
        var hash = Hash(key);
        await scope
            .ServiceProvider.GetRequiredService<SchoolContext>()
            .SignIns.Where(signIn => signIn.Key == hash)
            .ExecuteDeleteAsync();
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

    public bool MayTry(string address, string email) => tries.AttemptAcquire((address, email)).IsAcquired;

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
