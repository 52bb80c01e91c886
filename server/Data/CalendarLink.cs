using System.Security.Cryptography;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core.People;

namespace Zeitplan.Server.Data;

/// <summary>An address at which a calendar program finds a class's lessons, or a teacher's. Whoever has it can read it;
/// a new one ends it.</summary>
public sealed class CalendarLink
{
    private CalendarLink() { }

    public Guid Id { get; private set; }

    /// <summary>The secret part of the address.</summary>
    public string Key { get; private set; } = "";
    public Guid? ClassId { get; private set; }
    public Guid? StaffId { get; private set; }

    public static CalendarLink ForClass(Guid classId, DateTimeOffset now) =>
        new()
        {
            Id = Guid.CreateVersion7(now),
            Key = NewKey(),
            ClassId = classId,
        };

    public static CalendarLink ForTeacher(Guid staffId, DateTimeOffset now) =>
        new()
        {
            Id = Guid.CreateVersion7(now),
            Key = NewKey(),
            StaffId = staffId,
        };

    public void Renew() => Key = NewKey();

    private static string NewKey() => WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(24));
}

internal sealed class CalendarLinkConfiguration : IEntityTypeConfiguration<CalendarLink>
{
    public void Configure(EntityTypeBuilder<CalendarLink> builder)
    {
        builder.Property(link => link.Id).ValueGeneratedNever();
        builder.Property(link => link.Key).HasMaxLength(64);
        builder.HasIndex(link => link.Key).IsUnique();
        builder.HasIndex(link => link.ClassId).IsUnique();
        builder.HasIndex(link => link.StaffId).IsUnique();
        builder.HasOne<SchoolClass>().WithMany().HasForeignKey(link => link.ClassId).OnDelete(DeleteBehavior.Cascade);
        builder.HasOne<StaffMember>().WithMany().HasForeignKey(link => link.StaffId).OnDelete(DeleteBehavior.Cascade);
    }
}
