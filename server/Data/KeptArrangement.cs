using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;

namespace Zeitplan.Server.Data;

/// <summary>What has been done to the arrangement of one lesson by hand, and how it stands.</summary>
public sealed class KeptArrangement
{
    private KeptArrangement() { }

    public Guid ClassId { get; private set; }

    /// <summary>The lesson's date.</summary>
    public DateOnly Date { get; private set; }

    /// <summary>In the order they were done; taking the last one away takes the step back.</summary>
    public IReadOnlyList<LessonEdit> Edits { get; private set; } = [];

    /// <summary>What devices in the hall have said happened, by the names they gave it: sent twice, it happened once.</summary>
    public IReadOnlyList<Guid> Happened { get; private set; } = [];

    /// <summary>As it was arranged around them.</summary>
    public Arrangement Arrangement { get; private set; } = new([], [], 0, 0);

    /// <summary>What was arranged, in one word: while the lesson asks for the same, it stands as it was.</summary>
    public string Problem { get; private set; } = "";

    public Guid By { get; private set; }
    public DateTimeOffset At { get; private set; }

    /// <summary>Changes with every save; a stale one is refused.</summary>
    public uint Version { get; private set; }

    public static KeptArrangement Of(Guid classId, DateOnly date) => new() { ClassId = classId, Date = date };

    public void Keep(
        IReadOnlyList<LessonEdit> edits,
        string problem,
        Arrangement arrangement,
        Guid by,
        DateTimeOffset at
    ) => (Edits, Problem, Arrangement, By, At) = (edits, problem, arrangement, by, at);

    public void Hear(Guid happening) => Happened = [.. Happened, happening];
}

internal sealed class KeptArrangementConfiguration : IEntityTypeConfiguration<KeptArrangement>
{
    public void Configure(EntityTypeBuilder<KeptArrangement> builder)
    {
        builder.ToTable("arrangements");
        builder.HasKey(kept => new { kept.ClassId, kept.Date });
        builder.Property(kept => kept.Edits).IsJson();
        builder.Property(kept => kept.Arrangement).IsJson();
        builder.Property(kept => kept.Problem).HasMaxLength(64);
        builder.Property(kept => kept.Version).IsRowVersion();
        builder.HasOne<SchoolClass>().WithMany().HasForeignKey(kept => kept.ClassId).OnDelete(DeleteBehavior.Restrict);
        builder.HasOne<StaffMember>().WithMany().HasForeignKey(kept => kept.By).OnDelete(DeleteBehavior.Restrict);
    }
}
