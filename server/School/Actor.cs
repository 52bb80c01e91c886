using System.Security.Claims;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.School;

/// <summary>Who is asking: a member of staff and their role.</summary>
internal sealed record Actor(Guid StaffId, StaffRole Role)
{
    public const string StaffClaim = "staff";

    public bool IsHead => Role == StaffRole.Head;

    /// <summary>Limits and notes are for those who teach; an assistant sees mode and caution only (domain.md
    /// 6).</summary>
    public bool SeesLimits => Role != StaffRole.Assistant;

    /// <summary>The classes this person may see: their own, or all of them for the head.</summary>
    public async Task<IReadOnlyList<SchoolClass>> ClassesAsync(
        SchoolContext db,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var school = await db.Schools.AsNoTracking().SingleAsync(cancel);
        var classes = await db.Classes.AsNoTracking().ToListAsync(cancel);
        return
        [
            .. classes
                .Where(schoolClass =>
                    (schoolClass.Closed is null || schoolClass.Closed >= today) && Teaches(schoolClass, today)
                )
                .OrderBy(schoolClass => school.PlaceInWeek(schoolClass.Weekday))
                .ThenBy(schoolClass => schoolClass.Start),
        ];
    }

    /// <summary>Whoever stands in for somebody may see the class from then on, and for a week after, to mark what they
    /// taught.</summary>
    public bool Teaches(SchoolClass schoolClass, DateOnly today) =>
        IsHead || schoolClass.IsTaughtBy(StaffId, today.AddDays(-7));

    /// <summary>An assistant takes back only what they saw themselves.</summary>
    public bool MayWithdraw(Observation observation) => Role != StaffRole.Assistant || observation.By == StaffId;

    public static Actor From(ClaimsPrincipal user) =>
        new(
            Guid.Parse(
                user.FindFirstValue(StaffClaim)
                    ?? throw new InvalidOperationException("The sign-in names no member of staff.")
            ),
            Enum.Parse<StaffRole>(
                user.FindFirstValue(ClaimTypes.Role) ?? throw new InvalidOperationException("The sign-in has no role.")
            )
        );
}

/// <summary>Puts the member of staff and the role into the sign-in.</summary>
internal sealed class StaffClaims(UserManager<Account> users, IOptions<IdentityOptions> options, SchoolContext db)
    : UserClaimsPrincipalFactory<Account>(users, options)
{
    /// <summary>The claim of a head whose school asks for a second factor they do not have: they set one up, and may
    /// nothing else before.</summary>
    public const string MustSecure = "must-secure";

    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Account user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        var member = await db.Staff.AsNoTracking().SingleAsync(staff => staff.Id == user.StaffId);
        identity.AddClaim(new(Actor.StaffClaim, member.Id.ToString()));
        identity.AddClaim(new(ClaimTypes.Role, member.Role.ToString()));
        if (
            member.Role == StaffRole.Head
            && await db.Schools.AnyAsync(school => school.SecondFactorForHeads)
            && !await SecondFactor.HasOneAsync(user, UserManager)
        )
        {
            identity.AddClaim(new(MustSecure, "yes"));
        }

        return identity;
    }
}

/// <summary>Who may sign in at all: nobody whose sign-in a head has locked or closed.</summary>
internal sealed class MaySignIn(SchoolContext db) : IUserConfirmation<Account>
{
    public async Task<bool> IsConfirmedAsync(UserManager<Account> manager, Account user) =>
        !user.Locked && await db.Staff.AnyAsync(member => member.Id == user.StaffId && member.Closed == null);
}
