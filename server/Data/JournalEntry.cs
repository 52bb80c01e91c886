using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core.People;

namespace Zeitplan.Server.Data;

/// <summary>What an act of a head was about.</summary>
public enum HeadsAct
{
    Account,
    Promotion,
    Erasure,
    Ladder,
    Settings,
}

/// <summary>One act of a head, as it was done. It stays as it is for <see cref="KeptForYears"/> years and then
/// goes.</summary>
/// <param name="By">The head who did it.</param>
/// <param name="About">Whom it was done to: a student or a member of staff; their name is looked up where it is read, so
/// that whoever is erased is erased here, too.</param>
/// <param name="Text">What was done, without the name.</param>
public sealed record JournalEntry(Guid Id, DateTimeOffset At, Guid By, HeadsAct Act, Guid? About, string Text)
{
    /// <summary>The migration <c>OneInstallation</c> keeps the same rule in the database.</summary>
    public const int KeptForYears = 3;

    public const int LongestText = 600;
}

internal sealed class JournalConfiguration : IEntityTypeConfiguration<JournalEntry>
{
    public void Configure(EntityTypeBuilder<JournalEntry> builder)
    {
        builder.ToTable("journal");
        builder.Property(entry => entry.Id).ValueGeneratedNever();
        builder.Property(entry => entry.Text).HasMaxLength(JournalEntry.LongestText);
        builder.HasIndex(entry => new { entry.At, entry.Id });
        builder.HasOne<StaffMember>().WithMany().HasForeignKey(entry => entry.By).OnDelete(DeleteBehavior.Restrict);
    }
}
