using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core.People;

namespace Zeitplan.Server.Data;

/// <summary>A sign-in of one member of staff.</summary>
public sealed class Account : IdentityUser<Guid>
{
    public Guid StaffId { get; set; }

    /// <summary>Whether the person has chosen their password themselves.</summary>
    public bool OwnPassword { get; set; }

    /// <summary>Whether a head has locked it: nobody signs in with it until it is unlocked.</summary>
    public bool Locked { get; set; }
}

internal sealed class AccountConfiguration : IEntityTypeConfiguration<Account>
{
    public void Configure(EntityTypeBuilder<Account> builder) =>
        builder
            .HasOne<StaffMember>()
            .WithOne()
            .HasForeignKey<Account>(account => account.StaffId)
            .OnDelete(DeleteBehavior.Cascade);
}
