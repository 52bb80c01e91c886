using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core;
using Zeitplan.Core.Forms;

namespace Zeitplan.Server.Data;

internal sealed class PostureConfiguration : IEntityTypeConfiguration<Posture>
{
    public void Configure(EntityTypeBuilder<Posture> builder)
    {
        builder.Property(posture => posture.Id).ValueGeneratedNever();
        builder.Property(posture => posture.Name).HasMaxLength(Problem.LongestName);
        builder.HasIndex(posture => posture.Name).IsUnique();
        builder.Property(posture => posture.KeyPoint).HasMaxLength(Problem.LongestText);
        builder.Property(posture => posture.Counts).IsJson();
        builder.Property(posture => posture.Faults).IsJson();
        builder.Property(posture => posture.Demands).IsJson();
        builder.Property(posture => posture.Cautions).IsJson();
        builder.Property(posture => posture.Versions).IsJson();
        builder.Property(posture => posture.Version).IsRowVersion();
    }
}

internal sealed class FormConfiguration : IEntityTypeConfiguration<Form>
{
    public void Configure(EntityTypeBuilder<Form> builder)
    {
        builder.Property(form => form.Id).ValueGeneratedNever();
        builder.Property(form => form.Name).HasMaxLength(Problem.LongestName);
        builder.Property(form => form.Sections).IsJson();
        builder.Property(form => form.Positions).IsJson();
        builder.Property(form => form.Version).IsRowVersion();
    }
}
