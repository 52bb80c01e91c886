using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core;
using Zeitplan.Core.People;

namespace Zeitplan.Server.Data;

internal sealed class SchoolConfiguration : IEntityTypeConfiguration<Core.School>
{
    public void Configure(EntityTypeBuilder<Core.School> builder)
    {
        builder.Property(school => school.Id).ValueGeneratedNever();
        builder.Property(school => school.Name).HasMaxLength(Problem.LongestName);
        builder.Property(school => school.Place).HasMaxLength(Problem.LongestName);
        builder.Property(school => school.TimeZone).HasMaxLength(64);
        builder.Property(school => school.Conventions).IsJson();
        builder.Property(school => school.Teaching).IsJson();
        builder.Property(school => school.Version).IsRowVersion();
    }
}

internal sealed class SashConfiguration : IEntityTypeConfiguration<SashLevel>
{
    public void Configure(EntityTypeBuilder<SashLevel> builder)
    {
        builder.Property(sash => sash.Id).ValueGeneratedNever();
        builder.Property(sash => sash.Name).HasMaxLength(Problem.LongestName);
        builder.Property(sash => sash.Colour).HasMaxLength(7);
        builder.Property(sash => sash.Asks).IsJson();
        builder.Property(sash => sash.Version).IsRowVersion();
    }
}

internal sealed class HallConfiguration : IEntityTypeConfiguration<Hall>
{
    public void Configure(EntityTypeBuilder<Hall> builder)
    {
        builder.Property(hall => hall.Id).ValueGeneratedNever();
        builder.Property(hall => hall.Name).HasMaxLength(Problem.LongestName);
        builder.HasIndex(hall => hall.Name).IsUnique();
        builder.Property(hall => hall.Width).HasPrecision(6, 2);
        builder.Property(hall => hall.Depth).HasPrecision(6, 2);
        builder.Property(hall => hall.Rail).HasPrecision(6, 2);
        builder.Property(hall => hall.Hours).IsJson();
        builder.Property(hall => hall.Version).IsRowVersion();
    }
}

internal sealed class StaffConfiguration : IEntityTypeConfiguration<StaffMember>
{
    public void Configure(EntityTypeBuilder<StaffMember> builder)
    {
        builder.Property(member => member.Id).ValueGeneratedNever();
        builder.Property(member => member.Name).HasMaxLength(Problem.LongestName);
        builder.Property(member => member.Version).IsRowVersion();
        builder.HasIndex(member => member.StudentId).IsUnique();
        builder
            .HasOne<Student>()
            .WithOne()
            .HasForeignKey<StaffMember>(member => member.StudentId)
            .OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class ClassConfiguration : IEntityTypeConfiguration<SchoolClass>
{
    public void Configure(EntityTypeBuilder<SchoolClass> builder)
    {
        builder.Property(schoolClass => schoolClass.Id).ValueGeneratedNever();
        builder.Property(schoolClass => schoolClass.Name).HasMaxLength(Problem.LongestName);
        builder.Property(schoolClass => schoolClass.StaffIds).IsJson();
        builder.Property(schoolClass => schoolClass.Substitutes).IsJson();
        builder.Property(schoolClass => schoolClass.Changes).IsJson();
        builder.Property(schoolClass => schoolClass.Version).IsRowVersion();
        builder
            .HasOne<Hall>()
            .WithMany()
            .HasForeignKey(schoolClass => schoolClass.HallId)
            .OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class CohortConfiguration : IEntityTypeConfiguration<Cohort>
{
    public void Configure(EntityTypeBuilder<Cohort> builder)
    {
        builder.Property(cohort => cohort.Id).ValueGeneratedNever();
        builder.Property(cohort => cohort.Name).HasMaxLength(Problem.LongestName);
        builder.Property(cohort => cohort.Colour).HasMaxLength(7);
        builder.Property(cohort => cohort.Version).IsRowVersion();
        builder
            .HasOne<SchoolClass>()
            .WithMany()
            .HasForeignKey(cohort => cohort.ClassId)
            .OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<SashLevel>().WithMany().HasForeignKey(cohort => cohort.SashId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class StudentConfiguration : IEntityTypeConfiguration<Student>
{
    public void Configure(EntityTypeBuilder<Student> builder)
    {
        builder.Property(student => student.Id).ValueGeneratedNever();
        builder.Property(student => student.GivenName).HasMaxLength(Problem.LongestName);
        builder.Property(student => student.FamilyName).HasMaxLength(Problem.LongestName);
        builder.Property(student => student.Note).HasMaxLength(Problem.LongestText);
        builder.Property(student => student.Limits).IsJson();
        builder.Property(student => student.Places).IsJson();
        builder.Property(student => student.Levels).IsJson();
        builder.Property(student => student.Details).IsJson();
        builder.HasIndex(student => student.CohortIds).HasMethod("gin");
        builder.Property(student => student.Version).IsRowVersion();
        builder
            .HasOne<SashLevel>()
            .WithMany()
            .HasForeignKey(student => student.SashId)
            .OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class AdaptationConfiguration : IEntityTypeConfiguration<Adaptation>
{
    public void Configure(EntityTypeBuilder<Adaptation> builder)
    {
        builder.Property(decision => decision.Id).ValueGeneratedNever();
        builder.Property(decision => decision.Words).HasMaxLength(Problem.LongestText);
        builder.Property(decision => decision.Mode).HasMaxLength(40);
        builder.HasIndex(decision => decision.StudentId);
        builder
            .HasOne<Student>()
            .WithMany()
            .HasForeignKey(decision => decision.StudentId)
            .OnDelete(DeleteBehavior.Restrict);
        builder
            .HasOne<Core.Forms.Posture>()
            .WithMany()
            .HasForeignKey(decision => decision.PostureId)
            .OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class AccessEntryConfiguration : IEntityTypeConfiguration<AccessEntry>
{
    public void Configure(EntityTypeBuilder<AccessEntry> builder)
    {
        builder.Property(entry => entry.Id).ValueGeneratedNever();
        builder.Property(entry => entry.Where).HasMaxLength(Problem.LongestText).HasColumnName("place");
        builder.HasIndex(entry => entry.At);
        builder.HasIndex(entry => entry.StudentId);
    }
}

internal sealed class KeptImportConfiguration : IEntityTypeConfiguration<KeptImport>
{
    public void Configure(EntityTypeBuilder<KeptImport> builder)
    {
        builder.Property(import => import.Id).ValueGeneratedNever();
        builder.Property(import => import.FileName).HasMaxLength(Problem.LongestText);
        builder.Property(import => import.Entries).IsJson();
        builder.Property(import => import.FactIds).IsJson().HasDefaultValueSql("'[]'::jsonb");
    }
}
