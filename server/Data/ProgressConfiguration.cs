using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;

namespace Zeitplan.Server.Data;

internal sealed class AttendanceConfiguration : IEntityTypeConfiguration<Attendance>
{
    public void Configure(EntityTypeBuilder<Attendance> builder)
    {
        builder.Property(fact => fact.Id).ValueGeneratedNever();
        builder.HasIndex(fact => new { fact.ClassId, fact.Date });
        builder.HasIndex(fact => fact.StudentId);
        builder.HasOne<SchoolClass>().WithMany().HasForeignKey(fact => fact.ClassId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Student>().WithMany().HasForeignKey(fact => fact.StudentId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class TaughtFactConfiguration : IEntityTypeConfiguration<TaughtFact>
{
    public void Configure(EntityTypeBuilder<TaughtFact> builder)
    {
        builder.Property(fact => fact.Id).ValueGeneratedNever();
        builder.HasIndex(fact => new { fact.ClassId, fact.Date });
        builder.HasOne<SchoolClass>().WithMany().HasForeignKey(fact => fact.ClassId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Cohort>().WithMany().HasForeignKey(fact => fact.CohortId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Posture>().WithMany().HasForeignKey(fact => fact.PostureId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Posture>().WithMany().HasForeignKey(fact => fact.FromId).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class ObservationConfiguration : IEntityTypeConfiguration<Observation>
{
    public void Configure(EntityTypeBuilder<Observation> builder)
    {
        builder.Property(observation => observation.Id).ValueGeneratedNever();
        builder.Property(observation => observation.Words).HasMaxLength(Problem.LongestText);
        builder.HasIndex(observation => observation.StudentId);
        builder.Ignore(observation => observation.Key);
        builder.HasIndex(observation => new { observation.ClassId, observation.Date });
        builder
            .HasOne<Posture>()
            .WithMany()
            .HasForeignKey(observation => observation.FromId)
            .OnDelete(DeleteBehavior.Restrict);
        builder
            .HasOne<Principle>()
            .WithMany()
            .HasForeignKey(observation => observation.PrincipleId)
            .OnDelete(DeleteBehavior.Restrict);
        builder
            .HasOne<SchoolClass>()
            .WithMany()
            .HasForeignKey(observation => observation.ClassId)
            .OnDelete(DeleteBehavior.Restrict);
        builder
            .HasOne<Student>()
            .WithMany()
            .HasForeignKey(observation => observation.StudentId)
            .OnDelete(DeleteBehavior.Restrict);
        builder
            .HasOne<Posture>()
            .WithMany()
            .HasForeignKey(observation => observation.PostureId)
            .OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class WayTriedConfiguration : IEntityTypeConfiguration<WayTried>
{
    public void Configure(EntityTypeBuilder<WayTried> builder)
    {
        builder.ToTable("ways_tried");
        builder.Property(way => way.Id).ValueGeneratedNever();
        builder.Property(way => way.Words).HasMaxLength(Problem.LongestText);
        builder.Property(way => way.Cause).HasMaxLength(Problem.LongestText);
        builder.Ignore(way => way.Key);
        builder.HasIndex(way => way.StudentId);
        builder.HasIndex(way => way.FaultId);
        builder.HasOne<SchoolClass>().WithMany().HasForeignKey(way => way.ClassId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Student>().WithMany().HasForeignKey(way => way.StudentId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Posture>().WithMany().HasForeignKey(way => way.PostureId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Posture>().WithMany().HasForeignKey(way => way.FromId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Principle>().WithMany().HasForeignKey(way => way.PrincipleId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<StaffMember>().WithMany().HasForeignKey(way => way.By).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class HomeSheetConfiguration : IEntityTypeConfiguration<HomeSheetGiven>
{
    public void Configure(EntityTypeBuilder<HomeSheetGiven> builder)
    {
        builder.ToTable("home_sheets");
        builder.Property(given => given.Id).ValueGeneratedNever();
        builder.Property(given => given.Sheet).IsJson();
        builder.HasIndex(given => given.StudentId);
        builder.HasOne<Student>().WithMany().HasForeignKey(given => given.StudentId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<StaffMember>().WithMany().HasForeignKey(given => given.By).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class PracticeLogConfiguration : IEntityTypeConfiguration<PracticeLog>
{
    public void Configure(EntityTypeBuilder<PracticeLog> builder)
    {
        builder.ToTable("practice_logs");
        builder.Property(log => log.Id).ValueGeneratedNever();
        builder.HasIndex(log => log.StudentId);
        builder.HasOne<Student>().WithMany().HasForeignKey(log => log.StudentId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<StaffMember>().WithMany().HasForeignKey(log => log.By).OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class WithdrawalConfiguration : IEntityTypeConfiguration<Withdrawal>
{
    public void Configure(EntityTypeBuilder<Withdrawal> builder)
    {
        builder.Property(withdrawal => withdrawal.Id).ValueGeneratedNever();
        builder.HasIndex(withdrawal => withdrawal.ObservationId).IsUnique();
        builder
            .HasOne<Observation>()
            .WithMany()
            .HasForeignKey(withdrawal => withdrawal.ObservationId)
            .OnDelete(DeleteBehavior.Restrict);
    }
}

internal sealed class TakenOverFactConfiguration : IEntityTypeConfiguration<TakenOverFact>
{
    public void Configure(EntityTypeBuilder<TakenOverFact> builder)
    {
        builder.Property(fact => fact.Id).ValueGeneratedNever();
        builder.HasIndex(fact => fact.StudentId);
        builder.HasOne<Student>().WithMany().HasForeignKey(fact => fact.StudentId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<Posture>().WithMany().HasForeignKey(fact => fact.PostureId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<StaffMember>().WithMany().HasForeignKey(fact => fact.By).OnDelete(DeleteBehavior.Restrict);
    }
}
