using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Zeitplan.Server.Data;

/// <summary>A sign-in that has not ended.</summary>
/// <param name="Key">The hash of what the cookie holds.</param>
/// <param name="Ticket">Who signed in.</param>
public sealed record SignIn(string Key, byte[] Ticket, DateTimeOffset Until);

internal sealed class SignInConfiguration : IEntityTypeConfiguration<SignIn>
{
    public void Configure(EntityTypeBuilder<SignIn> builder)
    {
        builder.ToTable("sign_ins");
        builder.HasKey(signIn => signIn.Key);
        builder.Property(signIn => signIn.Key).HasMaxLength(64);
        builder.HasIndex(signIn => signIn.Until);
    }
}
