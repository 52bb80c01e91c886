using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Data;

internal sealed class TermConfiguration : IEntityTypeConfiguration<Term>
{
    public void Configure(EntityTypeBuilder<Term> builder)
    {
        builder.Property(term => term.Id).ValueGeneratedNever();
        builder.Property(term => term.Name).HasMaxLength(Problem.LongestName);
        builder.Property(term => term.Closures).IsJson();
        builder.Property(term => term.TestDays).IsJson();
        builder.Property(term => term.Version).IsRowVersion();
    }
}

internal sealed class AssignmentConfiguration : IEntityTypeConfiguration<Assignment>
{
    public void Configure(EntityTypeBuilder<Assignment> builder)
    {
        builder.Property(assignment => assignment.Id).ValueGeneratedNever();
        builder.Property(assignment => assignment.Version).IsRowVersion();
        builder.HasIndex(assignment => new { assignment.TermId, assignment.CohortId }).IsUnique();
        builder
            .HasOne<Term>()
            .WithMany()
            .HasForeignKey(assignment => assignment.TermId)
            .OnDelete(DeleteBehavior.Restrict);
        builder
            .HasOne<Cohort>()
            .WithMany()
            .HasForeignKey(assignment => assignment.CohortId)
            .OnDelete(DeleteBehavior.Restrict);
        builder.Property(assignment => assignment.Segments).IsJson();
    }
}

internal sealed class PlannedTermConfiguration : IEntityTypeConfiguration<PlannedTerm>
{
    public void Configure(EntityTypeBuilder<PlannedTerm> builder)
    {
        builder.Property(plan => plan.Id).ValueGeneratedNever();
        builder.Property(plan => plan.Snapshot).IsJson();
        builder.Ignore(plan => plan.Solved);
        builder.Ignore(plan => plan.Problem);
        builder.Ignore(plan => plan.Plan);
        builder.Property(plan => plan.Unteachable).IsJson();
        builder.Property(plan => plan.Lessons).IsJson();
        builder.Property(plan => plan.Cause).HasMaxLength(Problem.LongestText);
        builder.HasIndex(plan => new
        {
            plan.TermId,
            plan.ClassId,
            plan.Id,
        });
        builder
            .HasIndex(plan => new
            {
                plan.TermId,
                plan.ClassId,
                plan.Number,
            })
            .IsUnique();
        builder
            .HasIndex(plan => new
            {
                plan.TermId,
                plan.ClassId,
                plan.BasedOn,
            })
            .IsUnique()
            .AreNullsDistinct(false)
            .HasFilter("number IS NULL AND undone_at IS NULL");
        builder.HasOne<Term>().WithMany().HasForeignKey(plan => plan.TermId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<SchoolClass>().WithMany().HasForeignKey(plan => plan.ClassId).OnDelete(DeleteBehavior.Restrict);
    }
}
