using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Zeitplan.Server.Data;

/// <summary>A sign-in that has not ended.</summary>
/// <param name="Key">The hash of what the cookie holds.</param>
/// <param name="Id">What it is called where the person sees it.</param>
/// <param name="Ticket">Who signed in.</param>
/// <param name="Device">What the browser says it is.</param>
/// <param name="LastUsed">To within five minutes.</param>
public sealed record SignIn(
    string Key,
    Guid Id,
    Guid AccountId,
    byte[] Ticket,
    string Device,
    DateTimeOffset Began,
    DateTimeOffset LastUsed,
    DateTimeOffset Until
)
{
    public const int LongestDevice = 400;
}

internal sealed class SignInConfiguration : IEntityTypeConfiguration<SignIn>
{
    public void Configure(EntityTypeBuilder<SignIn> builder)
    {
        builder.ToTable("sign_ins");
        builder.HasKey(signIn => signIn.Key);
        builder.Property(signIn => signIn.Key).HasMaxLength(64);
        builder.Property(signIn => signIn.Device).HasMaxLength(SignIn.LongestDevice);
        builder.HasIndex(signIn => signIn.Until);
        builder.HasOne<Account>().WithMany().HasForeignKey(signIn => signIn.AccountId).OnDelete(DeleteBehavior.Cascade);
    }
}
