using System.Globalization;
using System.Text;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.School;

/// <summary>Makes and reads the codes of invitations; they live longer than those for a new password.</summary>
internal sealed class InvitationCodes(
    IDataProtectionProvider protection,
    IOptions<InvitationCodes.Lifetime> options,
    ILogger<DataProtectorTokenProvider<Account>> logger
) : DataProtectorTokenProvider<Account>(protection, options, logger)
{
    public const string Provider = "Invitation";

    private const string Purpose = "a first password";

    public sealed class Lifetime : DataProtectionTokenProviderOptions
    {
        public Lifetime() => (Name, TokenLifespan) = (Provider, TimeSpan.FromDays(7));
    }

    public static Task<string> MakeAsync(Account account, UserManager<Account> accounts) =>
        accounts.GenerateUserTokenAsync(account, Provider, Purpose);

    public static Task<bool> FitsAsync(Account account, string code, UserManager<Account> accounts) =>
        accounts.VerifyUserTokenAsync(account, Provider, Purpose, code);
}

/// <summary>Writes the letters with a way in: an invitation to who has no password yet, and one for a new password to
/// who has. Each way in opens once, and no longer than the letter says.</summary>
internal sealed class LetterWriter(
    SchoolContext db,
    UserManager<Account> accounts,
    SchoolClock clock,
    IConfiguration configuration,
    IHttpContextAccessor http,
    IOptions<InvitationCodes.Lifetime> invitations,
    IOptions<DataProtectionTokenProviderOptions> resets
)
{
    /// <summary>Letters whose way in has closed are kept this long, to see that there was one.</summary>
    private static readonly TimeSpan KeptAfter = TimeSpan.FromDays(30);

    /// <summary>Saved with the next save. The letters of the same person before it are gone then: their ways in are
    /// closed.</summary>
    public async Task<LetterKind> WriteAsync(Account account, string name, CancellationToken cancel)
    {
        var kind = account.PasswordHash is null ? LetterKind.Invitation : LetterKind.Reset;
        var code =
            kind == LetterKind.Invitation
                ? await InvitationCodes.MakeAsync(account, accounts)
                : await accounts.GeneratePasswordResetTokenAsync(account);
        var now = TimeProvider.System.GetUtcNow();
        var until = now + (kind == LetterKind.Invitation ? invitations.Value : resets.Value).TokenLifespan;
        await db
            .Letters.Where(letter => letter.AccountId == account.Id || letter.Until < now - KeptAfter)
            .ExecuteDeleteAsync(cancel);
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        var at = school.Name is { Length: > 0 } named ? named : "your school";
        var shown = (await clock.AtSchoolAsync(until, cancel)).ToString(
            "dddd d MMMM yyyy, HH:mm",
            CultureInfo.InvariantCulture
        );
        // Behind the # it stays in the browser and in no log.
        var way = $"{Address()}/welcome#{account.Id:N}.{WebEncoders.Base64UrlEncode(Encoding.UTF8.GetBytes(code))}";
        db.Letters.Add(
            new()
            {
                Id = Guid.CreateVersion7(),
                AccountId = account.Id,
                Kind = kind,
                To = account.Email!,
                Subject = kind == LetterKind.Invitation ? $"Your way into {at}" : $"A new password for {at}",
                Text =
                    kind == LetterKind.Invitation
                        ? $"""
                        Dear {name},

                        {at} plans its lessons and keeps its registers in Zeitplan, and you have a place there.
                        Open this address and choose a password that only you know:

                        {way}

                        It opens once, until {shown}. You sign in with {account.Email} from then on.
                        If you know nothing of this, leave it: nothing happens.
                        """
                        : $"""
                        Dear {name},

                        somebody asked for a new password for your place at {at} in Zeitplan.
                        Open this address and choose one that only you know:

                        {way}

                        It opens once, until {shown}. Your old password holds until you have chosen.
                        If it was not you who asked, leave it: nothing happens.
                        """,
                Written = now,
                Until = until,
                NextTry = now,
            }
        );
        return kind;
    }

    /// <summary>Where people reach the school: as it was set up, or as whoever asks has reached it.</summary>
    private string Address() =>
        configuration["ZEITPLAN_ADDRESS"] is { Length: > 0 } said
            ? said.TrimEnd('/')
            : $"{http.HttpContext!.Request.Scheme}://{http.HttpContext.Request.Host}";
}
