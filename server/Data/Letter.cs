using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace Zeitplan.Server.Data;

/// <summary>What a letter is for.</summary>
public enum LetterKind
{
    /// <summary>Somebody's first way in.</summary>
    Invitation,

    /// <summary>A new password for somebody who has lost theirs.</summary>
    Reset,
}

/// <summary>A letter of the school to somebody with a sign-in: sent by mail where the installation has it, read out of
/// the postbox where it has none.</summary>
public sealed class Letter
{
    public required Guid Id { get; init; }
    public required Guid AccountId { get; init; }
    public required LetterKind Kind { get; init; }
    public required string To { get; init; }
    public required string Subject { get; init; }

    /// <summary>Empty once it was sent: it holds a way in, and only its reader needs that.</summary>
    public required string Text { get; set; }
    public required DateTimeOffset Written { get; init; }

    /// <summary>When its link stops working.</summary>
    public required DateTimeOffset Until { get; init; }
    public DateTimeOffset? Sent { get; set; }

    /// <summary>What the mail server said when it would not take it.</summary>
    public string? Failure { get; set; }

    /// <summary>Not tried again before this.</summary>
    public DateTimeOffset NextTry { get; set; }

    public int Tries { get; set; }
}

internal sealed class LetterConfiguration : IEntityTypeConfiguration<Letter>
{
    public const int LongestFailure = 300;

    public void Configure(EntityTypeBuilder<Letter> builder)
    {
        builder.Property(letter => letter.Id).ValueGeneratedNever();
        builder.Property(letter => letter.Failure).HasMaxLength(LongestFailure);
        builder.HasIndex(letter => letter.Written);
        builder.HasIndex(letter => letter.NextTry).HasFilter("sent IS NULL");
        builder.HasOne<Account>().WithMany().HasForeignKey(letter => letter.AccountId).OnDelete(DeleteBehavior.Cascade);
    }
}
