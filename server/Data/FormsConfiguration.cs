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
        builder.HasIndex(posture => posture.Name).IsUnique().HasFilter("NOT retired");
        builder.Property(posture => posture.Text).IsJson();
        builder.Property(posture => posture.Counts).IsJson();
        builder.Property(posture => posture.Outline).IsJson();

        // Ways of saying what stands in the text.
        builder
            .Ignore(posture => posture.Faults)
            .Ignore(posture => posture.Demands)
            .Ignore(posture => posture.Cautions)
            .Ignore(posture => posture.Versions);
        builder.Property(posture => posture.Version).IsRowVersion();
    }
}

internal sealed class LinkConfiguration : IEntityTypeConfiguration<Link>
{
    public void Configure(EntityTypeBuilder<Link> builder)
    {
        builder.Property(link => link.Id).ValueGeneratedNever();
        builder.Property(link => link.Text).IsJson();
        builder.Property(link => link.Version).IsRowVersion();
    }
}

internal sealed class PrincipleConfiguration : IEntityTypeConfiguration<Principle>
{
    public void Configure(EntityTypeBuilder<Principle> builder)
    {
        builder.Property(principle => principle.Id).ValueGeneratedNever();
        builder.Property(principle => principle.Text).IsJson();
        builder.Property(principle => principle.Version).IsRowVersion();
    }
}

internal sealed class FormConfiguration : IEntityTypeConfiguration<Form>
{
    public void Configure(EntityTypeBuilder<Form> builder)
    {
        builder.Property(form => form.Id).ValueGeneratedNever();
        builder.Property(form => form.Name).HasMaxLength(Problem.LongestName);
        builder.HasIndex(form => form.Name).IsUnique();
        builder.Property(form => form.Text).IsJson();
        builder.Property(form => form.Outline).IsJson();
        builder.Ignore(form => form.Sections).Ignore(form => form.Positions);
        builder.Property(form => form.Version).IsRowVersion();
    }
}
